"""How each machine stands, summed up and kept: a board of many machines reads no place. It is worked out again for a machine
where something was read, decided or fitted since, and every day, for what was seen grows old."""

import datetime as dt
import hashlib
import json
from collections import defaultdict
from collections.abc import Collection, Iterable, Mapping
from dataclasses import asdict, dataclass, field
from typing import Any

from django.db.models import Count, Sum
from django.utils import timezone

from fleet.models import Fitment, Machine
from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rounds import CHANGEOVER, OF_A_FEW, WHOLE
from lumvek_core.judgement.by_place import LookedAt, Stands, share_pct, weighed
from lumvek_core.planning.season.jobs import what_of
from lumvek_core.rules.verdict import SEVERITIES

from ..models import Decision, Standing, WalkAround
from ..queries import rule_books, standing
from ..queries.standing import Answer, Place

FINDINGS = SEVERITIES[1:]
DONE = (*SEVERITIES, "does_not_apply")
EDITION = 2
"""Of what is summed up: another one makes everything anew."""


@dataclass(frozen=True)
class ToDo:
    """Work that somebody decided to do. what: as jobs call it; read_at: when the last of it came here, ISO."""

    what: str
    read_at: str


@dataclass(frozen=True)
class Summed:
    """How a machine's own places stand, or those of several together.

    stations: as walk-arounds have them, in working order, with how many places stand how. stops: what must not run, in words.
    seen, whole: of what is to be looked at, by weight. unseen_safety: places of safety checks that nobody has seen. questions:
    that wait for an answer. undecided: findings that are due and nobody has decided about. to_do: those somebody decided to
    do. unread: places that nobody has said anything about.
    """

    stations: list[dict[str, Any]] = field(default_factory=list)
    stops: list[str] = field(default_factory=list)
    seen: float = 0.0
    whole: float = 0.0
    unseen_safety: int = 0
    questions: int = 0
    undecided: int = 0
    unread: int = 0
    to_do: list[ToDo] = field(default_factory=list)

    @property
    def looked_pct(self) -> float | None:
        return share_pct([(self.seen, self.whole)])

    @property
    def counts(self) -> dict[str, int]:
        """State → places of all stations, with `total` and `open`."""
        found: dict[str, int] = defaultdict(int)
        for station in self.stations:
            for state, many in station["counts"].items():
                found[state] += many
            found["total"] += station["total"]
        found["open"] = max(0, found["total"] - sum(many for state, many in found.items() if state != "total"))
        return dict(found)


def together(parts: Iterable[Summed]) -> Summed:
    """A machine with what is coupled to it."""
    parts = list(parts)
    return Summed(
        stations=[station for one in parts for station in one.stations],
        stops=[stop for one in parts for stop in one.stops],
        seen=sum(one.seen for one in parts),
        whole=sum(one.whole for one in parts),
        unseen_safety=sum(one.unseen_safety for one in parts),
        questions=sum(one.questions for one in parts),
        undecided=sum(one.undecided for one in parts),
        unread=sum(one.unread for one in parts),
        to_do=[one for part in parts for one in part.to_do],
    )


def summed(machines: Mapping[int, Machine]) -> dict[int, Summed]:
    """How machines stand, by machine. Four queries where nothing changed since it was asked last."""
    now = timezone.now()
    bases = _bases(list(machines), now)
    kept = Standing.objects.filter(machine__in=machines)
    # What an edition before this one kept may have another form: it is not even read.
    found = {one.machine_id: _read(one.summed) for one in kept if one.basis == bases[one.machine_id]}
    if stale := [pk for pk in machines if pk not in found]:
        made = _work_out(stale, now)
        found |= made
        Standing.objects.bulk_create(
            [Standing(machine_id=pk, basis=bases[pk], summed=asdict(one)) for pk, one in made.items()],
            update_conflicts=True,
            update_fields=["basis", "summed"],
        )
    return found


def _read(kept: Mapping[str, Any]) -> Summed:
    return Summed(**{**kept, "to_do": [ToDo(**one) for one in kept["to_do"]]})


def _bases(machines: Collection[int], now: dt.datetime) -> dict[int, str]:
    """What the standing of each machine rests on, as a hash. Three queries."""
    rests: dict[int, list[object]] = {pk: [EDITION, timezone.localdate(now).isoformat()] for pk in machines}
    since = now - standing.STANDS_FOR
    walks = WalkAround.objects.filter(discarded_at=None, started_at__gte=since).order_by("started_at", "pk")
    columns = ("pk", "edition", "finished_at")
    for machine, *walk in walks.filter(machine__in=machines).values_list("machine", *columns):
        rests[machine].append([str(one) for one in walk])
    coupled_in = WalkAround.headers.through.objects.filter(
        machine__in=machines, walkaround__discarded_at=None, walkaround__started_at__gte=since
    ).order_by("walkaround__started_at", "walkaround")
    for machine, *walk in coupled_in.values_list("machine", *(f"walkaround__{name}" for name in columns)):
        rests[machine].append([str(one) for one in walk])
    fitted = Fitment.objects.filter(machine__in=machines, until_at=None).order_by().values_list("machine")
    for machine, many, numbers in fitted.annotate(many=Count("pk"), numbers=Sum("pk")):
        rests[machine].append([many, int(numbers)])
    return {pk: hashlib.sha256(json.dumps(one).encode()).hexdigest() for pk, one in rests.items()}


def _work_out(machines: Collection[int], now: dt.datetime) -> dict[int, Summed]:
    read = standing.read(machines, now, standing.walks_of(machines, now, whole=True))
    decisions = standing.decided(read.walks)
    by_machine: dict[int, dict[Place, Stands[Answer]]] = {pk: {} for pk in machines}
    for place, stands in read.places.items():
        by_machine[place[0]][place] = stands
    return {pk: _Summing(pk, read, places, decisions, now).summed() for pk, places in by_machine.items()}


class _Summing:
    """One machine while it is summed up."""

    def __init__(
        self,
        machine: int,
        read: standing.Read,
        places: Mapping[Place, Stands[Answer]],
        decisions: Mapping[Any, Mapping[tuple[str, str], str]],
        now: dt.datetime,
    ) -> None:
        self.machine, self.read, self.places, self.decisions = machine, read, places, decisions
        self.since = now - standing.LOOKED_WITHIN
        self.checks: dict[str, Check] = {}
        self.stations: dict[str, dict[str, Any]] = {}
        self.station_of: dict[Place, str] = {}
        self.whole: set[Place] = set()
        for walk in sorted(read.walks.values(), key=lambda one: one.started_at, reverse=True):
            if walk.started_at >= self.since and _tells(walk):
                self._expect(walk)

    def _expect(self, walk: WalkAround) -> None:
        """What a walk-around wants looked at of this machine."""
        book, owner = rule_books.opened(walk.rule_book_id), self.read.couplings[walk.pk].owner
        named = {station["key"]: station["name"] for station in walk.stations}
        for check in rule_books.checks_of(walk):
            if check.optional or owner(check.key).pk != self.machine:
                continue
            key, station = rule_books.today(check.key), book.station_of[check.key].key
            self.checks.setdefault(key, check)
            self._station(station, named.get(station, book.station_of[check.key].name))
            for position in positions.expand(check.per, walk.layout):
                place = (self.machine, key, position.key)
                self.station_of.setdefault(place, station)
                if walk.phase in WHOLE:
                    self.whole.add(place)

    def _station(self, key: str, name: str) -> None:
        self.stations.setdefault(key, {"key": key, "name": name, "total": 0, "counts": {}})

    def summed(self) -> Summed:
        for place, stands in self.places.items():
            if place not in self.station_of and stands.answer and self._found(stands.answer):
                beside = self.read.station_of(stands.answer)
                self._station(beside.key, beside.name)
                self.station_of[place] = beside.key
        for place, station in self.station_of.items():
            state, entry = self._state(place), self.stations[station]
            entry["total"] += 1
            if state:
                entry["counts"][state] = entry["counts"].get(state, 0) + 1
        seen, whole = weighed(self._looked())
        answers = [stands.answer for stands in self.places.values() if stands.answer and self._found(stands.answer)]
        chosen = [(one, self._choice(one)) for one in answers]
        return Summed(
            stations=[station for station in self.stations.values() if station["total"]],
            stops=self._stops([one for one in answers if one.severity == "stop"]),
            seen=seen,
            whole=whole,
            unseen_safety=sum(self.checks[place[1]].safety and self._state(place) not in DONE for place in self.whole),
            questions=sum(stands.asked for stands in self.places.values()),
            undecided=sum(choice == "open" and one.severity in ("due", "stop") for one, choice in chosen),
            unread=sum(not self._state(place) for place in self.station_of),
            to_do=[
                ToDo(what_of(self.read.check_of(one), one.severity, one.action), one.received.isoformat())
                for one, choice in chosen
                if choice == Decision.Choice.DO
            ],
        )

    def _found(self, answer: Answer) -> bool:
        return answer.severity in FINDINGS and not answer.renewed

    def _choice(self, answer: Answer) -> str:
        return self.decisions.get(answer.walk, {}).get((answer.check, answer.position), Decision.Choice.OPEN)

    def _state(self, place: Place) -> str:
        """How a place stands; empty for one that nobody has said anything about lately."""
        stands = self.places.get(place)
        if stands is None:
            return ""
        if stands.answer and stands.answer.renewed:
            return "sound"
        if stands.answer and (self._found(stands.answer) or stands.answer.at >= self.since):
            return stands.answer.severity.replace("-", "_")
        return "asked" if stands.asked else "not_seen" if stands.passed_over else ""

    def _looked(self) -> list[LookedAt]:
        states: dict[str, list[str]] = defaultdict(list)
        for place in self.whole:
            if (state := self._state(place)) != "does_not_apply":
                states[place[1]].append(state)
        seen = {key: sum(state in SEVERITIES for state in one) for key, one in states.items()}
        return [LookedAt(len(one), seen[key], self.checks[key].safety) for key, one in states.items()]

    def _stops(self, answers: Iterable[Answer]) -> list[str]:
        """``Knife guards: knives 3 and 4``, one for each check."""
        places: dict[str, list[str]] = defaultdict(list)
        for one in answers:
            places[self.read.check_of(one).name].append(one.position)
        return [f"{name}: {at}" if (at := positions.in_words(keys)) else name for name, keys in places.items()]


def _tells(walk: WalkAround) -> bool:
    """Whether what a walk-around wants looked at is to be looked at: whole rounds, and whatever is under way but for faults."""
    return walk.phase in WHOLE or (walk.finished_at is None and walk.phase not in (set(OF_A_FEW) - {CHANGEOVER}))
