"""How the places of machines stand: as the newest answer there says, whichever walk-around it was given in, as long as no new
part was fitted since."""

import datetime as dt
import uuid
from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass

from django.db.models import Q

from fleet.models import Fitment, Machine
from fleet.queries.machines import fitments_of
from lumvek_core import positions
from lumvek_core.catalogue.model import Check, Station
from lumvek_core.coupled import short
from lumvek_core.judgement.by_place import Look, Said, Stands, by_place
from lumvek_core.judgement.companions import place_at

from ..models import Decision, Reading, Verdict, WalkAround
from . import coupled, rule_books
from .decisions import decisions_in_force

STANDS_FOR = dt.timedelta(days=300)
"""Older walk-arounds are last season's: what they left undone was found again, or is gone."""
LOOKED_WITHIN = dt.timedelta(days=200)
"""What was looked at longer ago is looked at anew before the season."""

Place = tuple[int, str, str]
"""Machine, today's key of a check with a header's prefix, position."""


@dataclass(frozen=True)
class Answer:
    """What was answered at a place. check: as it was called in its walk-around. at: when it was typed. received: when it came
    here. renewed: a new part was fitted there since, and the answer says nothing of it."""

    verdict: int
    walk: uuid.UUID
    check: str
    position: str
    station: str
    severity: str
    action: str
    at: dt.datetime
    received: dt.datetime
    renewed: bool = False


@dataclass(frozen=True)
class Read:
    """walks: of these machines and of what they were coupled to, each with its headers; couplings: whose their keys are."""

    walks: Mapping[uuid.UUID, WalkAround]
    couplings: Mapping[uuid.UUID, coupled.Coupled]
    places: Mapping[Place, Stands[Answer]]

    def of(self, machine: int) -> list[tuple[Place, Stands[Answer]]]:
        return [(place, stands) for place, stands in self.places.items() if place[0] == machine]

    def check_of(self, answer: Answer) -> Check:
        """The check as it was when it was answered."""
        return rule_books.opened(self.walks[answer.walk].rule_book_id).family.checks[answer.check]

    def station_of(self, answer: Answer) -> Station:
        return rule_books.opened(self.walks[answer.walk].rule_book_id).station_of[answer.check]

    def in_force(self) -> set[int]:
        """The verdicts that stand."""
        return {stands.answer.verdict for stands in self.places.values() if stands.answer and not stands.answer.renewed}


def walks_of(machines: Collection[int], now: dt.datetime, *, whole: bool = False) -> dict[uuid.UUID, WalkAround]:
    """The walk-arounds by which machines stand, those they were coupled in as well, the oldest first. whole: with what was to
    be looked at in each. Three queries."""
    rows = WalkAround.objects.filter(discarded_at=None, started_at__gte=now - STANDS_FOR)
    coupled_in = WalkAround.headers.through.objects.filter(machine__in=machines).values("walkaround")
    mine = rows.filter(Q(machine__in=machines) | Q(pk__in=coupled_in))
    found = mine.select_related("machine__model").prefetch_related("headers__model").order_by("started_at")
    return {walk.pk: walk for walk in (found if whole else found.defer("plan", "layout", "stations"))}


def read(
    machines: Collection[int],
    now: dt.datetime,
    walks: Mapping[uuid.UUID, WalkAround] | None = None,
    checks: Collection[str] | None = None,
) -> Read:
    """How places stand now. checks: today's keys of those that are wanted, if not all. walks: where they are at hand.

    Two queries beside those for the walk-arounds, however many machines there are.
    """
    walks = walks_of(machines, now) if walks is None else walks
    couplings = {pk: coupled.together(walk.machine, walk.headers.all()) for pk, walk in walks.items()}
    rows = Verdict.objects.filter(walk_around__in=walks)
    if checks is not None:
        rows = rows.filter(check_key__in=rule_books.ever(checks))
    wanted, looks = set(machines), list[Look[Place, Answer]]()
    fitted, today = fitments_of(machines), rule_books.shipped().renamed.today
    for pk, walk, check, position, station, severity, action, ask, state, at, received, reading in rows.values_list(
        "pk", "walk_around_id", "check_key", "position_key", "station_key", "severity", "action", "ask",
        "reading__state", "reading__taken_at", "reading__received_at", "reading_id",
    ):  # fmt: skip
        owner = couplings[walk].owner(check)
        if owner.pk in wanted:
            answer = Answer(pk, walk, check, position, station, severity, action, at, received)
            looks.append(Look((owner.pk, today(check), position), (at, reading), _said(ask, state), answer))
    places = by_place(looks)
    found = Read(walks, couplings, places)
    if fitted:
        for stands in places.values():
            if stands.answer and _renewed(found, fitted, stands.answer):
                stands.answer = Answer(**{**vars(stands.answer), "renewed": True})
    return found


def _said(ask: str, state: str) -> Said:
    return "question" if ask else "nothing" if state == Reading.State.NOT_SEEN else "answer"


def _renewed(read_: Read, fitted: Mapping[tuple[int, str, str], Fitment], answer: Answer) -> bool:
    """Whether a part that the check looks at was fitted after it was read."""
    check, owner = read_.check_of(answer), read_.couplings[answer.walk].owner(answer.check)
    return any(fitment.fitted_at > answer.at for fitment in fitted_at(fitted, owner, check, answer.position))


def fitted_at(fitted: Mapping[tuple[int, str, str], Fitment], owner: Machine, check: Check, position: str) -> Iterable[Fitment]:
    """What is on record as fitted where a check looks."""
    for part in check.own_parts:
        place = place_at(positions.find(position), part.at).key
        if one := fitted.get((owner.pk, short(part.slot), place)):
            yield one


def decided(walks: Iterable[uuid.UUID]) -> dict[uuid.UUID, dict[tuple[str, str], str]]:
    """The newest choice for each place of walk-arounds. One query."""
    found: dict[uuid.UUID, list[tuple[str, str, str]]] = {}
    rows = Decision.objects.filter(walk_around__in=list(walks)).order_by("id")
    for walk, check, position, choice in rows.values_list("walk_around", "check_key", "position_key", "choice"):
        found.setdefault(walk, []).append((check, position, choice))
    return {walk: decisions_in_force(rows_) for walk, rows_ in found.items()}
