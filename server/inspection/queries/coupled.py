"""A walk-around's machine with the headers that are coupled to it: whose each key is, and how a machine's own keys read
there.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from fleet.models import Machine
from lumvek_core import coupled as keys

from ..models import WalkAround
from . import rule_books


@dataclass(frozen=True)
class Coupled:
    """machines: by the prefix of their keys; the machine's own stand under the empty one, unless it is a header by itself."""

    machines: dict[str, Machine]

    def owner(self, key: str) -> Machine:
        """The machine or header that a check, station or slot belongs to."""
        return self.machines.get(keys.prefix_of(key)) or next(iter(self.machines.values()))

    def key(self, machine: Machine, short: str) -> str:
        """A machine's own key as it stands in the walk-around."""
        return keys.long(next(prefix for prefix, one in self.machines.items() if one.pk == machine.pk), short)

    def __iter__(self) -> Iterator[tuple[str, Machine]]:
        return iter(self.machines.items())


def prefix_of(machine: Machine) -> str:
    """What the keys of a machine's family begin with: nothing, unless it is a header."""
    family = rule_books.shipped().families.get(machine.model.family)
    return family.prefix if family else ""


def long(machine: Machine, key: str) -> str:
    """A key of a machine's own, with its family's prefix where it is a header."""
    return keys.long(prefix_of(machine), key)


def own(machine: Machine, key: str) -> bool:
    """Whether a check or station is the machine's own and not a header's, or the header's and not the combine's."""
    return keys.prefix_of(key) == prefix_of(machine)


def together(machine: Machine, headers: Iterable[Machine]) -> Coupled:
    """A machine and headers, read with their models."""
    return Coupled({prefix_of(one): one for one in [machine, *headers]})


def of(walk_around: WalkAround) -> Coupled:
    """Of a walk-around. One query where it has headers, and one more where the machine's model was not read."""
    headers = walk_around.headers.select_related("model") if walk_around.header_families else ()
    return together(walk_around.machine, headers)
