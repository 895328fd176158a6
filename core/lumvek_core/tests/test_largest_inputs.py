"""Every calculation states the largest input it takes, and refuses a larger one before it is read."""

from dataclasses import fields
from typing import Annotated, Any, Union, get_args, get_origin, get_type_hints

import pytest

from lumvek_core import registry
from lumvek_core.bounds import AtMost, AtMostNamed
from lumvek_core.errors import BadInput
from lumvek_core.structure import is_dataclass_type, read, schema

ALL = registry.calculators()


def endless(kind: Any, place: str, bound=False, seen=()):
    """Lists and free names of an input without an end, by their place."""
    origin = get_origin(kind)
    if origin is Annotated:
        inner, *notes = get_args(kind)
        yield from endless(inner, place, any(isinstance(one, AtMost) for one in notes), seen)
    elif origin in (list, dict):
        if not bound:
            yield place
        yield from endless(get_args(kind)[-1], f"{place}[]", False, seen)
    elif origin is Union or (origin is not None and not isinstance(kind, type) and get_args(kind)):
        for one in get_args(kind):
            yield from endless(one, place, False, seen)
    elif is_dataclass_type(kind) and kind not in seen:
        hints = get_type_hints(kind, include_extras=True)
        for field in fields(kind):
            yield from endless(hints[field.name], f"{place}.{field.name}", False, (*seen, kind))


@pytest.mark.parametrize("name", ALL)
def test_no_input_is_endless(name):
    assert list(endless(ALL[name].given, name)) == []


def test_one_too_many_is_refused_before_any_is_read():
    class Unread(list):
        def __iter__(self):
            raise AssertionError("it was read")

    wanted = Annotated[list[float], AtMost(2)]
    assert read(wanted, [1, 2]) == [1, 2]
    with pytest.raises(BadInput, match="holds 3, and 2 are the most"):
        read(wanted, Unread([1, 2, 3]))
    with pytest.raises(BadInput, match="holds 2, and 1 are the most"):
        read(Annotated[dict[str, float], AtMostNamed(1)], {"a": 1, "b": 2})


def test_the_largest_is_described():
    assert schema(Annotated[list[float], AtMost(2)])["maxItems"] == 2
    assert schema(Annotated[dict[str, float], AtMostNamed(3)])["maxProperties"] == 3


def test_a_route_of_too_many_checks_says_where():
    checks = [{"id": str(i), "posture": "a", "minutes": 1} for i in range(700)]
    with pytest.raises(BadInput) as refused:
        ALL["posture_route"].run({"checks": checks, "moves": [], "start": "a"})
    assert refused.value.field == "checks" and "600 are the most" in refused.value.message
