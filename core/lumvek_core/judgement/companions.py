"""From verdicts to the parts they call for, with what is always renewed along with them."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Literal

from .. import positions
from ..catalogue.lists import Companion, SeenState
from ..catalogue.model import At, Check, PartUse
from ..catalogue.rule_book import RuleBook
from ..positions import Position
from ..rules.verdict import Action


@dataclass(frozen=True)
class Called:
    """A finding that is to be done: what calls for parts. count: how many were found, where they were counted."""

    check: str
    position: str
    action: Action
    choice: str = ""
    count: int = 1


@dataclass(frozen=True)
class PartNeed:
    """One part at one position. side: hand of a handed part. because: the check or the slot that called for it.

    quantity: pieces, count times what one finding needs; count goes on to what is renewed along with it.
    """

    slot: str
    position: str
    side: Literal["", "L", "R"]
    quantity: int
    origin: Literal["finding", "companion"]
    because: str
    why: str
    count: int = 1


@dataclass(frozen=True)
class Task:
    """Something to do along with a part."""

    position: str
    text: str
    why: str


Seen = Mapping[tuple[str, str], str]
"""The states that were read, by check and position."""


def parts_for(book: RuleBook, findings: Iterable[Called], seen: Seen | None = None) -> list[PartNeed]:
    """The parts that these findings call for, companions after them, each piece once a position, in order of finding.

    seen: what else was read, where a companion depends on it.
    """
    checks = book.family.checks
    needs: dict[tuple[str, str], PartNeed] = {}
    for finding in findings:
        check = checks.get(finding.check)
        for part in _parts(check, finding) if check else ():
            where = place_at(positions.find(finding.position), part.at)
            why = check.name if check else ""
            need = _need(book, part.slot, where, part.quantity, "finding", finding.check, why, finding.count, part.hand)
            needs.setdefault((part.slot, where.key), need)
    waiting = list(needs.values())
    while waiting:
        cause = waiting.pop(0)
        for companion in _companions(book, cause.slot, seen or {}):
            where = place_at(positions.find(cause.position), companion.at)
            if companion.slot and (companion.slot, where.key) not in needs:
                count = cause.count if companion.at == "same" else 1
                need = _need(book, companion.slot, where, 1, "companion", cause.slot, companion.why, count)
                needs[companion.slot, where.key] = need
                waiting.append(need)
    return list(needs.values())


def tasks_for(book: RuleBook, needs: Iterable[PartNeed]) -> list[Task]:
    """What is to be done along with these parts, each task once a place."""
    found: dict[tuple[str, str], Task] = {}
    for need in needs:
        for companion in _companions(book, need.slot, {}):
            if companion.task:
                where = place_at(positions.find(need.position), companion.at)
                found.setdefault((companion.task, where.key), Task(where.key, companion.task, companion.why))
    return list(found.values())


def _parts(check: Check, finding: Called) -> list[PartUse]:
    return [
        part
        for part in check.parts
        if finding.action in part.when
        and (not part.options or finding.choice in part.options)
        and (not part.places or finding.position in part.places)
    ]


def _companions(book: RuleBook, slot: str, seen: Seen) -> list[Companion]:
    return [one for one in book.companions if one.when == slot and (one.seen is None or _was_seen(one.seen, seen))]


def _was_seen(wanted: SeenState, seen: Seen) -> bool:
    return seen.get((wanted.check, wanted.place)) in wanted.choices


def place_at(position: Position, at: At) -> Position:
    """Where a part goes that is renewed with one at `position`."""
    match at:
        case "across":
            return position.across
        case "row":
            return position.whole_row
        case "machine":
            return positions.WHOLE
        case _:
            return position


def _need(
    book: RuleBook,
    slot: str,
    where: Position,
    quantity: int,
    origin: Literal["finding", "companion"],
    because: str,
    why: str,
    count: int,
    hand: Literal["", "L", "R"] = "",
) -> PartNeed:
    side = (where.side or hand) if book.family.slots[slot].handed else ""
    return PartNeed(slot, where.key, side or "", quantity * count, origin, because, why, count)
