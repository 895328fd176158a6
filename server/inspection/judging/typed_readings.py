"""Readings as somebody typed them: which check and place they are for, and what they mean."""

import datetime as dt
import uuid
from dataclasses import dataclass, field
from functools import cached_property

from lumvek_core import positions
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.model import Check
from lumvek_core.errors import BadInput, RunTogether
from lumvek_core.judgement import plausible
from lumvek_core.judgement.parse_reading import Value, parse_reading
from lumvek_core.units import System
from shops.models import Feeler, Member

from ..models import Reading, WalkAround
from ..queries import coupled, rule_books, set_up
from .expected_values import Pair


@dataclass(frozen=True)
class NewReading:
    """A reading as the client sends it. raw: texts as typed; state ``seen``, ``not-seen`` or ``withdrawn``.

    units: what a bare number meant where it was typed; it may be sent later, by somebody who reads other units. Empty: the
    member's own.
    """

    uuid: uuid.UUID
    check: str
    position: str
    state: str = "seen"
    raw: list[str] = field(default_factory=list)
    feeler: str = ""
    units: str = ""
    reason: str = ""
    note: str = ""
    confirmed: bool = False
    bulk: bool = False
    posture: str = ""
    taken_at: dt.datetime | None = None


@dataclass
class Typed:
    """One reading that was understood, on its way in."""

    new: NewReading
    check: Check
    position: positions.Position
    value: Value

    @property
    def pair(self) -> Pair:
        return self.check.key, self.position.key


def where(walk_around: WalkAround, check_key: str, position_key: str) -> tuple[Check, positions.Position]:
    """The check and the position that these keys stand for in a walk-around. Raises BadInput."""
    book = rule_books.opened(walk_around.rule_book_id)
    check = book.family.checks.get(check_key)
    if check is None or check_key not in rule_books.planned_in(walk_around):
        raise BadInput("check", "is not part of this walk-around")
    for position in positions.expand(check.per, walk_around.layout):
        if position.key == position_key:
            return check, position
    raise BadInput("position", "is not on this machine")


def feelers_of(shop_id: int) -> dict[str, float]:
    """The shop's own feelers by name, mm."""
    own = Feeler.objects.in_shop(shop_id).values_list("name", "thickness_mm")
    return {name.lower(): mm for name, mm in own}


class Understanding:
    """What readings of one member in one walk-around mean."""

    def __init__(self, member: Member, walk_around: WalkAround) -> None:
        self.member, self.walk_around = member, walk_around

    def read(self, new: NewReading) -> Typed:
        """Raises BadInput for what cannot be recorded; it writes nothing."""
        check, position = where(self.walk_around, new.check, new.position)
        if new.state == Reading.State.NOT_SEEN and not new.reason.strip():
            raise BadInput("reason", "say why it was not seen")
        value = Value()
        if new.state == Reading.State.SEEN:
            value = self._understood(check, new)
            if new.bulk and not in_force.seen_in_bulk(check, self._right(check), value.choice):
                raise BadInput("bulk", "is looked at or measured by itself")
        return Typed(new, check, position, value)

    def _right(self, check: Check) -> list[str]:
        book = rule_books.opened(self.walk_around.rule_book_id)
        return in_force.right_states(check, self.walk_around.crop, book.schools)

    def _understood(self, check: Check, new: NewReading) -> Value:
        unit: System = "in" if self.units(new) == "in" else "mm"
        try:
            return parse_reading(check, new.raw, new.feeler, unit, self._feelers(check), self._gauge(check, new.position))
        except BadInput as problem:
            measured = problem.field.startswith("raw.") and not check.rule.states()
            figures = plausible.run_together(check, new.raw, unit) if measured else []
            if figures:
                raise RunTogether(problem.field, figures) from None
            raise

    def units(self, new: NewReading) -> str:
        """What a bare number meant where it was typed."""
        return new.units or self.member.units

    def _feelers(self, check: Check) -> dict[str, float]:
        """The shop's own feelers by name, where the check is made with one."""
        return self._own_feelers if check.rule.by_feeler else {}

    def _gauge(self, check: Check, place: str) -> str:
        """The unit that the machine's gauge showed the last time, where the check keeps one."""
        if not check.rule.keeps_unit:
            return ""
        machines = [machine for _, machine in coupled.of(self.walk_around)]
        last = set_up.last_before(self.walk_around, machines, [check]).get((check.key, place))
        return last.value.text if last else ""

    @cached_property
    def _own_feelers(self) -> dict[str, float]:
        return feelers_of(self.walk_around.shop_id)
