"""One YAML file of the catalogue as typed data, with the line of everything in it: whatever is wrong is named with its
place.
"""

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
        loader = _Fast(path.read_text(encoding="utf-8"))
        node = loader.get_single_node()
        raw = loader.construct_document(node)
    except FileNotFoundError:
        raise BadInput(name, "is not there") from None
    except yaml.MarkedYAMLError as problem:
        line = problem.problem_mark.line + 1 if problem.problem_mark else 1
        raise BadInput(f"{name}, line {line}", f"is not YAML: {problem.problem}") from None
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
