"""The work of what was found at walk-arounds: everything that somebody decided to do, and that is not done."""

import datetime as dt
from collections.abc import Iterable, Mapping

from fleet.models import Machine
from inspection.models import Decision, Verdict, WalkAround
from inspection.queries import coupled, rule_books
from inspection.queries.decisions import decisions_in_force
from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rounds import FAULT
from lumvek_core.coupled import short
from lumvek_core.planning.season import jobs
from lumvek_core.planning.season.jobs import Found, JobDraft
from lumvek_core.rules.verdict import ACTION_WORDS
from shops.models import Member
from supply.queries import needs

LOOKED_WITHIN = dt.timedelta(days=200)
"""What was looked at longer ago is looked at anew before the season."""
NEW = "new:"
"""What is worked on where a part is renewed."""
Dated = tuple[Machine, JobDraft, dt.datetime | None]
"""A machine, a job on it, and when what calls for it was read last."""


def traced_walks(machines: Mapping[int, Machine], now: dt.datetime) -> list[WalkAround]:
    """What was read while faults were traced: its findings are work like any other. One query."""
    rows = WalkAround.objects.filter(machine__in=machines, discarded_at=None, started_at__gte=now - LOOKED_WITHIN, phase=FAULT)
    return list(rows.select_related("machine__model").prefetch_related("headers__model"))


def of_findings(
    member: Member, machines: Mapping[int, Machine], newest: Mapping[int, WalkAround], now: dt.datetime
) -> list[Dated]:
    """The work of everything that somebody decided to do, and that is not done."""
    walks = {walk.pk: walk for walk in [*newest.values(), *traced_walks(machines, now)]}
    decided = {
        pk: decisions_in_force(
            (one.check_key, one.position_key, one.choice) for one in decisions
        )
        for pk, decisions in _by_walk(Decision.objects.filter(walk_around__in=walks).order_by("id")).items()
    }  # fmt: skip
    waiting: dict[tuple[int, str], list[str]] = {}
    renewed: set[tuple[int, str, str]] = set()
    for piece in needs.read(member, now).pieces:
        if piece.fitted and piece.origin == "finding":
            renewed.add((piece.machine.pk, piece.check, piece.position))
        elif not piece.fitted and not piece.consumable:
            number = piece.number.ordered_as if piece.number else f"{piece.name}: number to be found"
            for what in (piece.check, piece.walk_slot):
                waiting.setdefault((piece.machine.pk, what), []).append(number)
    rows = Verdict.objects.filter(walk_around__in=walks, severity__in=("watch", "due", "stop"), ask="")
    grouped: dict[tuple[int, str], list[Verdict]] = {}
    for row in rows.select_related("reading").order_by("id"):
        walk = walks[row.walk_around_id]
        owner = coupled.together(walk.machine, walk.headers.all()).owner(row.check_key)
        wanted = decided.get(row.walk_around_id, {}).get((row.check_key, row.position_key)) == Decision.Choice.DO
        if wanted and owner.pk in machines and (owner.pk, row.check_key, row.position_key) not in renewed:
            grouped.setdefault((owner.pk, _what(walk, row)), []).append(row)
    by_machine: dict[int, list[tuple[Found, dt.datetime]]] = {}
    for (machine, what), verdicts in grouped.items():
        one = _found(machines[machine], walks[verdicts[0].walk_around_id], what, verdicts, waiting)
        by_machine.setdefault(machine, []).append((one, max(row.reading.received_at for row in verdicts)))
    times, strip_downs = rule_books.shipped().work, rule_books.shipped().strip_downs
    return [
        (machines[machine], draft, max(read_at for _, read_at in found))
        for machine, found in by_machine.items()
        for draft in jobs.from_findings(times, strip_downs, [one for one, _ in found])
    ]


def _what(walk: WalkAround, row: Verdict) -> str:
    """What is worked on: the part that is renewed, whichever checks say so, or the thing that is checked."""
    check = rule_books.opened(walk.rule_book_id).family.checks[row.check_key]
    return f"{NEW}{check.renewed_parts[0].slot}" if _action(check, row) == "replace" and check.renewed_parts else check.key


def _action(check: Check, row: Verdict) -> str:
    """What a finding calls for; of one that is only watched, what its check does."""
    return row.action if row.severity != "watch" else check.action


def _by_walk(decisions: Iterable[Decision]) -> dict[object, list[Decision]]:
    found: dict[object, list[Decision]] = {}
    for decision in decisions:
        found.setdefault(decision.walk_around_id, []).append(decision)
    return found


def _found(
    machine: Machine, walk: WalkAround, what: str, verdicts: list[Verdict], waiting: Mapping[tuple[int, str], list[str]]
) -> Found:
    book = rule_books.opened(walk.rule_book_id)
    checks = [book.family.checks[key] for key in dict.fromkeys(row.check_key for row in verdicts)]
    check, action = checks[0], _action(checks[0], verdicts[0])
    places = list(dict.fromkeys(row.position_key for row in verdicts))
    slot, at = what.removeprefix(NEW), positions.in_words(places)
    thing, verb = book.family.slots[slot].name if what.startswith(NEW) else check.name, ACTION_WORDS.get(action, action)
    name = f"{verb.capitalize()}: {thing[0].lower()}{thing[1:]}{at and ', '}{at}"
    waits = {number for one in (slot, *(one.key for one in checks)) for number in waiting.get((machine.pk, one), [])}
    return Found(
        machine=machine.name,
        what=what,
        name=name[:160],
        action=action,
        places=places,
        posture=check.posture or book.station_of[check.key].posture,
        hazards=list(dict.fromkeys(hazard for one in checks for hazard in one.hazards)),
        tools=list(dict.fromkeys(tool for one in checks for tool in one.tools)),
        labour_h=check.wears.labour_h if check.wears else None,
        renews=list(dict.fromkeys(short(part.slot) for one in checks for part in one.renewed_parts)),
        parts=sorted(waits),
    )
