"""Reading JSON into typed dataclasses, and describing those dataclasses as JSON Schema.

A calculator states its input and output as frozen dataclasses. This module is the only place that turns raw JSON values into
them, so every calculator refuses the same things with the same words: missing and unknown fields, wrong types (``true`` and
``"41.4"`` are not numbers), NaN and infinities. Bounds are written in the annotation: ``Annotated[float, Over(0)]``.
"""

import dataclasses
import functools
import math
import types
from collections.abc import Callable, Iterable, Mapping
from typing import Annotated, Any, Literal, Union, get_args, get_origin, get_type_hints

from .bounds import AtMost, Over, Stated, Within
from .errors import BadInput, nearest
from .units import Inches

LARGEST = 1e100
"""Above this products inside a formula run out of range and could come back as quiet nonsense."""


def is_dataclass_type(kind: Any) -> bool:
    return isinstance(kind, type) and dataclasses.is_dataclass(kind)


@functools.cache
def _hints(cls: type) -> dict[str, Any]:
    return get_type_hints(cls, include_extras=True)


def json_name(field: "dataclasses.Field[Any]") -> str:
    """A field's name in JSON: ``from_`` stands for ``from``, which Python keeps for itself."""
    return field.name.removesuffix("_")


_families: dict[Any, Callable[[], tuple[type, ...]]] = {}


def family(base: type, members: Callable[[], tuple[type, ...]]) -> None:
    """Say which dataclasses may stand where `base` is asked for; they are told apart by their ``kind``."""
    _families[base] = members


def read(kind: Any, raw: Any) -> Any:
    """`raw`, as `kind`. Raises BadInput with the dotted path of what does not fit."""
    if kind in _families:
        return _read_union(_families[kind](), raw)
    origin = get_origin(kind)
    if origin is Annotated:
        return _read_bounded(kind, raw)
    if origin in (Union, types.UnionType):
        return _read_union(get_args(kind), raw)
    if origin is Literal:
        return _read_choice(get_args(kind), raw)
    if origin is list:
        return _read_list(get_args(kind)[0], raw)
    if origin is dict:
        return _read_dict(get_args(kind)[1], raw)
    if is_dataclass_type(kind):
        return _read_dataclass(kind, raw)
    return _read_scalar(kind, raw)


def _read_scalar(kind: Any, raw: Any) -> Any:
    if kind is float:
        if isinstance(raw, bool) or not isinstance(raw, (int, float)):
            raise BadInput("", "must be a number")
        try:
            value = float(raw)
        except OverflowError:
            value = math.inf
        if not math.isfinite(value):
            raise BadInput("", "must be a finite number")
        if abs(value) > LARGEST:
            raise BadInput("", "is far outside anything measured on a machine")
        return raw if isinstance(raw, Inches) else value
    if kind is int:
        value = _read_scalar(float, raw)
        if not value.is_integer():
            raise BadInput("", "must be a whole number")
        return int(raw)
    if kind is bool:
        if not isinstance(raw, bool):
            raise BadInput("", "must be true or false")
        return raw
    if kind is str:
        if not isinstance(raw, str):
            raise BadInput("", "must be text")
        return raw
    raise TypeError(f"no reader for {kind!r}")


def _read_bounded(kind: Any, raw: Any) -> Any:
    inner, *notes = get_args(kind)
    if isinstance(raw, str) and _stated(notes):
        raw = _inches(raw)
    for most in notes:
        if isinstance(most, AtMost) and isinstance(raw, (list, Mapping)) and (complaint := most.check(raw)):
            raise BadInput("", complaint)
    value = read(inner, raw)
    for bound in _bounds(notes):
        if value is not None and (complaint := bound.check(value)):
            raise BadInput("", complaint)
    return value


def _stated(notes: Iterable[Any]) -> bool:
    return any(isinstance(one, Stated) for one in notes)


def _inches(text: str) -> Inches:
    try:
        return Inches(text)
    except BadInput as problem:
        raise BadInput("", problem.message) from None


def _bounds(notes: Iterable[Any]) -> list[Over | Within | AtMost]:
    return [one for one in notes if isinstance(one, Over | Within | AtMost)]


def _read_choice(options: tuple[Any, ...], raw: Any) -> Any:
    if isinstance(raw, str) and raw in options:
        return raw
    raise BadInput("", "must be one of: " + ", ".join(map(str, options)) + nearest(str(raw), options))


def _read_list(kind: Any, raw: Any) -> list[Any]:
    if not isinstance(raw, list):
        raise BadInput("", "must be a list")
    return [_at(str(i), kind, item) for i, item in enumerate(raw)]


def _read_dict(kind: Any, raw: Any) -> dict[str, Any]:
    if not isinstance(raw, Mapping):
        raise BadInput("", "must be an object")
    return {str(name): _at(str(name), kind, item) for name, item in raw.items()}


def _read_union(kinds: tuple[Any, ...], raw: Any) -> Any:
    if raw is None and type(None) in kinds:
        return None
    kinds = tuple(kind for kind in kinds if kind is not type(None))
    if len(kinds) == 1:
        return read(kinds[0], raw)
    if all(is_dataclass_type(kind) for kind in kinds):
        tagged = all("kind" in _hints(kind) for kind in kinds)
        return _read_dataclass((_tagged if tagged else _form)(kinds, raw), raw)
    for kind in kinds:  # a number or one of a few words
        try:
            return read(kind, raw)
        except BadInput as problem:
            last = problem
    raise last


def _tagged(forms: tuple[type, ...], raw: Any) -> type:
    """The form whose ``kind`` the object states."""
    if not isinstance(raw, Mapping):
        raise BadInput("", "must be an object")
    by_kind = {get_args(_hints(form)["kind"])[0]: form for form in forms}
    if raw.get("kind") not in by_kind:
        raise BadInput("kind", "must be one of: " + ", ".join(by_kind) + nearest(str(raw.get("kind")), by_kind))
    return by_kind[raw["kind"]]


def _form(forms: tuple[type, ...], raw: Any) -> type:
    """Which of several input forms is meant: the one whose own fields are present. Forms are never mixed."""
    if not isinstance(raw, Mapping):
        raise BadInput("", "must be an object")
    names = [{field.name for field in dataclasses.fields(form)} for form in forms]
    found: tuple[type, str] | None = None
    for form, mine in zip(forms, names, strict=True):
        own = mine - set().union(*(other for other in names if other is not mine))
        for name in raw:
            if name not in own:
                continue
            if found and found[0] is not form:
                raise BadInput(name, f"belongs to another form of this calculation than {found[1]}; give one or the other")
            found = (form, name)
    if found:
        return found[0]
    needed = [", ".join(f.name for f in dataclasses.fields(form) if _required(f)) for form in forms]
    raise BadInput("", "give one of these: " + " · ".join(needed))


def _required(field: "dataclasses.Field[Any]") -> bool:
    return field.default is dataclasses.MISSING and field.default_factory is dataclasses.MISSING


def _read_dataclass(kind: type, raw: Any) -> Any:
    if not isinstance(raw, Mapping):
        raise BadInput("", "must be an object")
    hints, fields = _hints(kind), {json_name(field): field for field in dataclasses.fields(kind)}
    for name in raw:
        if name not in fields:
            raise BadInput(str(name), f"is not a field here{nearest(str(name), fields)}")
    values = {}
    for name, field in fields.items():
        if name in raw:
            values[field.name] = _at(name, hints[field.name], raw[name])
        elif _required(field):
            raise BadInput(name, "is missing")
    return kind(**values)


def _at(name: str, kind: Any, raw: Any) -> Any:
    try:
        return read(kind, raw)
    except BadInput as problem:
        raise problem.within(name) from None


def write(value: Any) -> Any:
    """`value` as plain JSON data. Raises BadInput when the arithmetic ran out of range."""
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        hints = _hints(type(value))
        return {
            json_name(field): _write_stated(hints[field.name], getattr(value, field.name))
            for field in dataclasses.fields(value)
        }
    if isinstance(value, dict):
        return {name: write(item) for name, item in value.items()}
    if isinstance(value, (list, tuple)):
        return [write(item) for item in value]
    if isinstance(value, Inches):
        return float(value)
    if isinstance(value, float) and not math.isfinite(value):
        raise BadInput("", "the figures are too large or too small to work with")
    return value


def _write_stated(hint: Any, value: Any) -> Any:
    """As `write`, but a length stays as it was stated where it may be read so again."""
    if isinstance(value, Inches) and get_origin(hint) is Annotated and _stated(get_args(hint)[1:]):
        return value.stated
    return write(value)


_SCALARS: dict[Any, dict[str, Any]] = {
    float: {"type": "number"},
    int: {"type": "integer"},
    bool: {"type": "boolean"},
    str: {"type": "string"},
    type(None): {"type": "null"},
}


Shared = dict[str, tuple[type, dict[str, Any]]]
"""Schemas that are written once and pointed at, by name, each with its dataclass."""


def schema(kind: Any, shared: Shared | None = None, at: str = "#/$defs/") -> dict[str, Any]:
    """JSON Schema of `kind`, for editors, the API description and the generated TypeScript types.

    shared: dataclasses are written there once, and pointed at as ``at`` + name. Raises TypeError for two of one name.
    """
    if shared is not None and is_dataclass_type(kind):
        known = shared.setdefault(kind.__name__, (kind, {}))
        if known[0] is not kind:
            raise TypeError(f"{kind.__module__} and {known[0].__module__} both have a {kind.__name__}")
        if not known[1]:
            known[1].update(_schema(kind, shared, at))
        return {"$ref": f"{at}{kind.__name__}"}
    return _schema(kind, shared, at)


def _schema(kind: Any, shared: Shared | None, at: str) -> dict[str, Any]:
    inner = functools.partial(schema, shared=shared, at=at)
    if kind in _families:
        return inner(Union[_families[kind]()])
    origin, args = get_origin(kind), get_args(kind)
    if origin is Annotated:
        plain: dict[str, Any] = functools.reduce(lambda had, bound: had | bound.schema(), _bounds(args[1:]), inner(args[0]))
        return {"anyOf": [plain, {"type": "string", "pattern": "in$"}]} if _stated(args[1:]) else plain
    if origin in (Union, types.UnionType):
        return {"anyOf": [inner(arg) for arg in args]}
    if origin is Literal:
        return {"type": "string", "enum": list(args)}
    if origin is list:
        return {"type": "array", "items": inner(args[0])}
    if origin is dict:
        return {"type": "object", "additionalProperties": inner(args[1])}
    if is_dataclass_type(kind):
        hints, fields = _hints(kind), dataclasses.fields(kind)
        return {
            "type": "object",
            "properties": {json_name(field): inner(hints[field.name]) for field in fields},
            "required": [json_name(field) for field in fields if _required(field)],
            "additionalProperties": False,
        }
    return dict(_SCALARS[kind])
