"""What was decided of the findings, and which of them call for parts."""

from collections.abc import Collection, Iterable
from typing import Any, cast

from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.judgement.companions import Called, PartNeed, parts_for
from lumvek_core.rules.verdict import Action

from ..models import Decision, Reading, Verdict, WalkAround
from . import rule_books

CALLING = ("watch", "due", "stop")
"""Severities that may call for parts: of what is watched, what somebody decided to renew before it reaches its limit."""


def called(walk_around: WalkAround) -> list[Called]:
    """Findings that call for parts: due or stop, and neither declined nor put off; worn parts that are renewed before they are
    due."""
    checks = rule_books.opened(walk_around.rule_book_id).family.checks
    decided = decisions_in_force(walk_around.decisions.values_list("check_key", "position_key", "choice"))
    rows = (
        Verdict.objects.filter(walk_around=walk_around, severity__in=CALLING, ask="")
        .order_by("reading_id")
        .values_list("check_key", "position_key", "severity", "action", "reading__value", "reading__kind")
    )
    found = []
    for check, position, severity, action, value, kind in rows:
        choice = decided.get((check, position), "open")
        early = severity == "watch" and choice == "do" and checks[check].wears is not None
        if early or (severity != "watch" and choice in ("do", "open")):
            wanted = cast(Action, checks[check].action if early else action)
            found.append(Called(check, position, wanted, value.get("choice", ""), _counted(kind, value)))
    return found


def states_seen(walk_around: WalkAround, checks: Collection[str]) -> dict[tuple[str, str], str]:
    """The states that stand at these checks of a walk-around, by check and position."""
    rows = Verdict.objects.filter(walk_around=walk_around, check_key__in=checks, ask="", reading__state=Reading.State.SEEN)
    listed = rows.values_list("check_key", "position_key", "reading__value")
    return {(check, place): value["choice"] for check, place, value in listed if value.get("choice")}


def needs_of(walk_around: WalkAround, book: CoreBook) -> list[PartNeed]:
    """The parts that a walk-around calls for."""
    wanted = {one.seen.check for one in book.companions if one.seen}
    seen = states_seen(walk_around, wanted) if wanted else {}
    return parts_for(book, called(walk_around), seen)


def decided_to_do(walk_around: WalkAround, places: Collection[tuple[str, str]]) -> bool:
    """Whether somebody decided to renew at one of these (check, position)."""
    if not places:
        return False
    decisions = walk_around.decisions.filter(
        check_key__in={check for check, _ in places}, position_key__in={place for _, place in places}
    )
    in_force = decisions_in_force(decisions.values_list("check_key", "position_key", "choice"))
    return any(in_force.get(place) == Decision.Choice.DO for place in places)


def _counted(kind: str, value: dict[str, Any]) -> int:
    """How many were found faulty where they were counted; 1 everywhere else."""
    return max(1, int(value["numbers"][0])) if kind == "count" and value.get("numbers") else 1


def decisions_in_force(decisions: Iterable[tuple[str, str, str]]) -> dict[tuple[str, str], str]:
    """The newest choice for each place, from (check, position, choice) in the order they were made."""
    return {(check, position): choice for check, position, choice in decisions}
