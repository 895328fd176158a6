"""One YAML file of the catalogue as typed data, with the line of everything in it: whatever is wrong is named with its
place.
"""

import dataclasses
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Generic, TypeVar

import yaml

from .. import structure
from ..errors import BadInput

T = TypeVar("T")
_Fast: Any = getattr(yaml, "CSafeLoader", yaml.SafeLoader)


@dataclass(frozen=True)
class Written(Generic[T]):
    """What a file says. name: below the catalogue's folder; lines: of every place, by dotted path (``checks.0.rule``)."""

    value: T
    name: str
    lines: dict[str, int]

    def at(self, path: str = "") -> str:
        """``families/row-crop-planter/opener.yaml, line 12``: where a place stands, or what it would be in."""
        while path and path not in self.lines:
            path = path.rpartition(".")[0]
        return f"{self.name}, line {self.lines.get(path, 1)}"


def read(kind: type[T] | Any, path: Path, folder: Path) -> Written[T]:
    """A file as `kind`. Raises BadInput whose field is the file with its line: not there, no YAML, a key twice, or not what it
    may be."""
    name = path.relative_to(folder).as_posix()
    try:
        text = path.read_text(encoding="utf-8")
    except FileNotFoundError:
        raise BadInput(name, "is not there") from None
    return read_text(kind, text, name)


def read_text(kind: type[T] | Any, text: str, name: str) -> Written[T]:
    """The same of a text. name: what its file is called."""
    try:
        loader = _Fast(text)
        node = loader.get_single_node()
        raw = loader.construct_document(node) if node else None
    except yaml.MarkedYAMLError as problem:
        line = problem.problem_mark.line + 1 if problem.problem_mark else 1
        raise BadInput(f"{name}, line {line}", f"is not YAML: {problem.problem}") from None
    except (ValueError, OverflowError) as problem:  # a day, a figure or a time that looks like one and is none
        raise BadInput(name, f"holds something that is no day, time or figure: {problem}") from None
    if raw is None:
        raise BadInput(name, "is empty")
    lines: dict[str, int] = {}
    for place, line, twice in _places(node, ""):
        if twice:
            raise BadInput(f"{name}, line {line}", f"{place} stands there twice")
        lines[place] = line
    written: Written[T] = Written(raw, name, lines)
    try:
        return Written(structure.read(kind, raw), name, lines)
    except BadInput as problem:
        raise BadInput(written.at(problem.field), f"{problem.field}: {problem.message}") from None


LARGEST = 500_000
DEEPEST = 12


def read_foreign(kind: type[T] | Any, text: str) -> T:
    """The same of a text from outside, which may not be large, deep or refer to itself. Raises BadInput with field ``file``."""
    if len(text) > LARGEST:
        raise BadInput("file", "is larger than 500 kB")
    depth = 0
    try:
        for event in yaml.parse(text, Loader=_Fast):
            if isinstance(event, yaml.AliasEvent):
                raise BadInput("file", f"{_line(event)}: refers to another line, which is not read here")
            depth += isinstance(event, yaml.CollectionStartEvent) - isinstance(event, yaml.CollectionEndEvent)
            if depth > DEEPEST:
                raise BadInput("file", f"{_line(event)}: lies too deep")
        found: Written[T] = read_text(kind, text, "the file")
    except yaml.YAMLError:
        raise BadInput("file", "is not YAML; the file that is given out is") from None
    except BadInput as problem:
        raise BadInput("file", problem.message if problem.field == "file" else f"{problem.field}: {problem.message}") from None
    return found.value


def _line(event: yaml.Event) -> str:
    return f"line {event.start_mark.line + 1}" if event.start_mark else "somewhere"


def write(value: Any, heading: str) -> str:
    """Dataclasses as YAML that reads back as the same, without what is as it is anyway. heading: a comment at its top."""
    body = yaml.safe_dump(_brief(value), sort_keys=False, allow_unicode=True, width=120)
    return "".join(f"# {line}\n" for line in heading.splitlines()) + body


def _brief(value: Any) -> Any:
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        plain, found = structure.write(value), {}
        for field in dataclasses.fields(value):
            given = getattr(value, field.name)
            default = field.default_factory() if field.default_factory is not dataclasses.MISSING else field.default
            if given != default or field.name == "kind":
                name = structure.json_name(field)
                found[name] = plain[name] if isinstance(given, float) else _brief(given)
        return found
    if isinstance(value, dict):
        return {name: _brief(one) for name, one in value.items()}
    if isinstance(value, (list, tuple)):
        return [_brief(one) for one in value]
    return value


def _places(node: Any, path: str) -> Iterator[tuple[str, int, bool]]:
    """(dotted path, line, whether its key stood there before) of everything below a node."""
    if isinstance(node, yaml.MappingNode):
        seen: set[str] = set()
        for key, value in node.value:
            place = f"{path}.{key.value}" if path else str(key.value)
            yield place, key.start_mark.line + 1, key.value in seen
            seen.add(key.value)
            yield from _places(value, place)
    elif isinstance(node, yaml.SequenceNode):
        for i, item in enumerate(node.value):
            place = f"{path}.{i}" if path else str(i)
            yield place, item.start_mark.line + 1, False
            yield from _places(item, place)
