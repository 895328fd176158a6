"""The work of what was found at walk-arounds: everything that somebody decided to do, and that is not done."""

import datetime as dt
from collections.abc import Mapping

from fleet.models import Machine
from inspection.judging.machine_standing import FINDINGS
from inspection.models import Decision
from inspection.queries import rule_books, standing
from inspection.queries.standing import Answer
from lumvek_core import positions
from lumvek_core.coupled import short
from lumvek_core.planning.season import jobs
from lumvek_core.planning.season.jobs import Found, JobDraft
from lumvek_core.rules.verdict import ACTION_WORDS
from shops.models import Member
from supply.queries import needs

Dated = tuple[Machine, JobDraft, dt.datetime | None]
"""A machine, a job on it, and when what calls for it was read last."""


def of_findings(member: Member, machines: Mapping[int, Machine], now: dt.datetime) -> list[Dated]:
    """The work of everything that somebody decided to do, and that is not done."""
    waiting: dict[tuple[int, str], list[str]] = {}
    for piece in needs.read(member, now).pieces:
        if not piece.fitted and not piece.consumable:
            for what in (piece.check, piece.walk_slot):
                waiting.setdefault((piece.machine.pk, what), []).append(piece.called)
    grouped: dict[tuple[int, str], list[Answer]] = {}
    stands, answers = _decided(machines, now)
    for machine, answer in answers:
        what = jobs.what_of(stands.check_of(answer), answer.severity, answer.action)
        grouped.setdefault((machine, what), []).append(answer)
    by_machine: dict[int, list[tuple[Found, dt.datetime]]] = {}
    for (machine, what), found in grouped.items():
        one = _found(machines[machine], stands, what, found, waiting)
        by_machine.setdefault(machine, []).append((one, max(answer.received for answer in found)))
    times, strip_downs = rule_books.shipped().work, rule_books.shipped().strip_downs
    return [
        (machines[machine], draft, max(read_at for _, read_at in dated))
        for machine, dated in by_machine.items()
        for draft in jobs.from_findings(times, strip_downs, [one for one, _ in dated])
    ]


def _decided(machines: Mapping[int, Machine], now: dt.datetime) -> tuple[standing.Read, list[tuple[int, Answer]]]:
    """Findings that stand and that somebody decided to do, each with its machine, in working order of their walk-around."""
    walks = standing.walks_of(machines, now)
    decided = standing.decided(walks)
    wanted = {check for choices in decided.values() for check, _ in choices}
    stands = standing.read(machines, now, walks, {rule_books.today(check) for check in wanted})
    found = []
    for (machine, _, _), place in stands.places.items():
        answer = place.answer
        if answer is None or answer.renewed or answer.severity not in FINDINGS:
            continue
        if decided.get(answer.walk, {}).get((answer.check, answer.position)) == Decision.Choice.DO:
            found.append((machine, answer))
    return stands, sorted(found, key=lambda one: one[1].verdict)


def _found(
    machine: Machine,
    stands: standing.Read,
    what: str,
    answers: list[Answer],
    waiting: Mapping[tuple[int, str], list[str]],
) -> Found:
    first = answers[0]
    book = rule_books.opened(stands.walks[first.walk].rule_book_id)
    checks = list({answer.check: stands.check_of(answer) for answer in answers}.values())
    check, action = checks[0], jobs.action_of(checks[0], first.severity, first.action)
    places = list(dict.fromkeys(answer.position for answer in answers))
    slot, at = what.removeprefix(jobs.NEW), positions.in_words(places)
    renews = what.startswith(jobs.NEW)
    thing, verb = book.family.slots[slot].name if renews else check.name, ACTION_WORDS.get(action, action)
    name = f"{verb.capitalize()}: {thing[0].lower()}{thing[1:]}{at and ', '}{at}"
    waits = {number for one in (slot, *(one.key for one in checks)) for number in waiting.get((machine.pk, one), [])}
    return Found(
        machine=machine.name,
        what=what,
        name=name[:160],
        action=action,
        places=places,
        posture=check.posture or stands.station_of(first).posture,
        hazards=list(dict.fromkeys(hazard for one in checks for hazard in one.hazards)),
        tools=list(dict.fromkeys(tool for one in checks for tool in one.tools)),
        labour_h=check.wears.labour_h if check.wears else None,
        renews=list(dict.fromkeys(short(part.slot) for one in checks for part in one.renewed_parts)),
        parts=sorted(waits),
    )
