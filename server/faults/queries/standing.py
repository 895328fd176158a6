"""Where a trace stands: what is known of its machine, what was answered, and what the core makes of it."""

import datetime as dt
from collections import Counter
from collections.abc import Collection, Mapping
from dataclasses import dataclass, replace
from typing import Literal

from django.utils import timezone

from calibration.queries import events
from fleet.models import Machine
from inspection.judging.forecasting import forecasts
from inspection.models import OperatorNote, PostureHold, Verdict
from inspection.queries import rule_books
from inspection.queries.stands_now import coupled_now
from inspection.queries.stood_last import stood_last
from lumvek_core import positions
from lumvek_core.calculators.calibrations_due import Happened
from lumvek_core.catalogue import calibration
from lumvek_core.catalogue.model import Family
from lumvek_core.catalogue.symptoms import Look, Symptom, causes_in, check_of
from lumvek_core.coupled import short
from lumvek_core.faults.suspicion import LATELY_DAYS, Signals, Suspicion, season_now, suspect
from lumvek_core.faults.trace import Answer, Traced, along_the_machine, minutes_along, posture_of, traced, tracing_checks
from lumvek_core.planning import walk
from lumvek_core.planning.shortest import shortest
from shops.models import Shop

from ..models import LookAnswer, Recording, Trace
from . import own_symptoms, recordings

WORST: tuple[Literal["stop", "due", "watch"], ...] = ("stop", "due", "watch")
SEEN = {*WORST, "sound", "does-not-apply"}
NAMED = 0.3
"""Score from which a recording speaks for a shaft's causes."""
SAID = 70
"""Letters of an operator's note that are shown beside a cause."""


@dataclass(frozen=True)
class Heard:
    """A recording, and the shafts it names, by key, with how much of what shakes stands at their turns."""

    row: Recording
    names: dict[str, str]


@dataclass(frozen=True)
class Subject:
    """What a trace is about: the symptom, the family that it is of, and everything that is looked at for any symptom."""

    symptom: Symptom
    family: Family
    looks: Mapping[str, Look]

    @property
    def checks(self) -> list[str]:
        """Its looks that are checks of the catalogue, by their keys without a prefix."""
        return [key for key in tracing_checks(self.symptom, self.looks, self.family, {}) if check_of(self.family, key)]


@dataclass(frozen=True)
class Standing(Subject):
    """answers: by look, in the order they were given; of the catalogue's checks those whose readings say so. turns: shafts that
    a recording could name, by key; heard: what the newest one names."""

    answers: list[Answer]
    traced: Traced
    stands_in: str
    turns: list[str]
    heard: Heard | None


def subject_of(trace: Trace) -> Subject:
    """As the shop knew the symptom when the trace began. Two queries."""
    known = own_symptoms.of_shop(trace.machine.shop, trace.begun_at)
    symptom = known.get(trace.symptom)
    assert symptom is not None  # noqa: S101  (held when it began)
    return Subject(symptom, rule_books.shipped().families[(trace.header or trace.machine).model.family], known.looks)


def standing(trace: Trace) -> Standing:
    """Where it stands. A constant number of queries."""
    subject = subject_of(trace)
    symptom, family, looks = subject.symptom, subject.family, subject.looks
    answers = [answer for _, answer in sorted([*_read(trace, family), *_answered(trace)], key=lambda one: one[0])]
    stands_in = _stands_in(trace, answers, subject)
    reached = shortest(walk.ways(rule_books.shipped().safety.moves), [stands_in])[stands_in]
    ways = {posture: minutes for posture, (minutes, _) in reached.items()}
    turns = [one.shaft for one in causes_in(symptom, looks, family) if one.shaft]
    heard = _heard(trace) if turns else None
    suspicions = suspicions_of(trace, subject, heard)
    found = traced(symptom, looks, family, suspicions, answers, ways)
    return Standing(symptom, family, looks, answers, found, stands_in, turns, heard)


def suspicions_of(trace: Trace, subject: Subject, heard: Heard | None) -> dict[str, Suspicion]:
    """What speaks for each cause before anything is looked at."""
    signals, names = _signals(trace, subject), heard.names if heard else {}
    season = season_now(trace.machine.season_date, timezone.localdate(trace.begun_at))
    found = found_before(trace.machine.shop, subject.symptom.key)
    return {
        one.key: suspect(
            one.weight,
            replace(
                signals.get(one.check, Signals()),
                heard=names.get(one.shaft, ""),
                season=one.season if one.season == season else "",
            ),
            found[one.key],
            sum(found.values()),
        )
        for one in causes_in(subject.symptom, subject.looks, subject.family)
    }


def found_before(shop: Shop, symptom: str) -> Counter[str]:
    """How often the shop found each cause of a symptom. One query."""
    rows = Trace.objects.in_shop(shop.pk).filter(symptom=symptom, outcome=Trace.Outcome.FOUND, taken_back_at=None)
    return Counter(rows.exclude(cause="").values_list("cause", flat=True))


def _answered(trace: Trace) -> list[tuple[dt.datetime, Answer]]:
    rows = LookAnswer.objects.filter(trace=trace, taken_back_at=None).order_by("id")
    newest = {row.look: (row.at, row.bad) for row in rows}
    return [(at, Answer(look, bad)) for look, (at, bad) in newest.items()]


def _read(trace: Trace, family: Family) -> list[tuple[dt.datetime, Answer]]:
    """The checks of the catalogue that were read in the trace's own walk-around: bad as soon as one place is, good once all of
    them are seen."""
    if trace.walk_around is None:
        return []
    walk_around = trace.walk_around
    places = {short(one.key): len(positions.expand(one.per, walk_around.layout)) for one in rule_books.checks_of(walk_around)}
    worst: dict[str, set[str]] = {}
    seen: Counter[str] = Counter()
    rows = Verdict.objects.filter(walk_around=trace.walk_around, ask="").order_by("id")
    last: dict[str, dt.datetime] = {}
    for key, severity, at in rows.values_list("check_key", "severity", "reading__taken_at"):
        worst.setdefault(short(key), set()).add(severity)
        seen[short(key)] += severity in SEEN
        last[short(key)] = max(at, last.get(short(key), at))
    found = []
    for look, severities in worst.items():
        if severities & set(WORST):
            found.append((last[look], Answer(look, True)))
        elif seen[look] >= places.get(look, 1):
            found.append((last[look], Answer(look, False)))
    return found


def _stands_in(trace: Trace, answers: list[Answer], subject: Subject) -> str:
    """The posture the machine stands in: as it was confirmed last, or looked at last."""
    if trace.walk_around:
        hold = PostureHold.objects.filter(walk_around=trace.walk_around, ended_at=None).order_by("-at").first()
        if hold:
            return hold.posture
    own = [one for one in answers if not check_of(subject.family, one.look)]
    return posture_of(own[-1].look, subject.looks, subject.family) if own else subject.family.start


def _signals(trace: Trace, subject: Subject) -> dict[str, Signals]:
    """Of each check of the machine: the worst that stood there before this trace, its wear, what was changed, what the operator
    said."""
    owner = trace.header or trace.machine
    wanted = set(subject.checks)
    checks = [(station, check) for station in subject.family.stations for check in station.checks if short(check.key) in wanted]
    stood = stood_last(owner, [check.key for _, check in checks], trace.begun_at)
    foreseen = _worn(owner, [check.key for _, check in checks])
    changed = {one.event: one for one in events.read(trace.machine, coupled_now(trace.machine))}
    serviced = _serviced(owner)
    notes = OperatorNote.objects.filter(machine=owner, taken_back_at=None, closed_at=None)
    said = {note.station_key: note.text for note in notes}
    found = {}
    for station, check in checks:
        asked = [calibration.SET + short(check.key), *(calibration.FITTED + short(part.slot) for part in check.parts)]
        known = [changed[event] for event in asked if event in changed] + serviced.get(short(check.key), [])
        lately = max(known, key=lambda one: one.at, default=None)
        places = [one for one in stood.get(check.key, []) if not (lately and events.local(one.at) < lately.at)]
        found[short(check.key)] = Signals(
            finding=next((one for one in WORST if any(place.severity == one for place in places)), ""),
            used=foreseen.get(check.key, max((place.used for place in places if place.used is not None), default=None)),
            changed_days=_days_since(lately.at) if lately else None,
            changed=lately.words if lately else "",
            noted=said.get(station.key, "")[:SAID],
        )
    return found


def _serviced(machine: Machine) -> dict[str, list[Happened]]:
    """By check: the services that undo or set what it looks at. One query."""
    known = {one.key: one for one in rule_books.shipped().services}
    found: dict[str, list[Happened]] = {}
    for row in machine.services_done.filter(taken_back_at=None):
        for check in known[row.key].touches if row.key in known else []:
            found.setdefault(check, []).append(Happened(check, row.day.isoformat(), known[row.key].name.lower()))
    return found


def _worn(machine: Machine, checks: Collection[str]) -> dict[str, float]:
    """By check: how much of the wear that its limit allows is used today where it is worst, by the forecasts."""
    found = {}
    for one in forecasts([machine], machine.shop)[machine.pk]:
        new, limit = one.sizes["new"], one.sizes["limit"]
        if one.check_key in checks and one.places and new != limit:
            found[one.check_key] = max((new - place["now"]) / (new - limit) for place in one.places)
    return found


def _heard(trace: Trace) -> Heard | None:
    """The newest recording of the machine, if it is one of these days. Two queries where there is one."""
    since = trace.begun_at - dt.timedelta(days=LATELY_DAYS)
    rows = Recording.objects.filter(
        machine=trace.machine, taken_back_at=None, at__range=(since, trace.ended_at or timezone.now())
    ).select_related("machine__model")
    newest = rows.order_by("-at", "-id").first()
    if newest is None:
        return None
    shafts, found = recordings.held(newest)
    keys = {one.name: one.key for one in shafts}
    named = [one for one in found.match.ranked if one.score >= NAMED]
    words = {keys[one.shaft]: f"a recording names the {one.shaft.lower()} ({one.score * 100:.0f} %)" for one in named}
    return Heard(newest, words)


def _days_since(at: str) -> int:
    return max(0, (timezone.localdate() - dt.datetime.fromisoformat(at).date()).days)


def minutes(stands: Standing, cause: str) -> tuple[float, float]:
    """What the looks took that were made, and what looking along the machine would have taken until this cause was found."""
    moves = walk.ways(rule_books.shipped().safety.moves)
    made = minutes_along([one.look for one in stands.answers], stands.looks, stands.family, moves)
    checks = tracing_checks(stands.symptom, stands.looks, stands.family, {})
    plain: list[str] = []
    for look in along_the_machine(checks, stands.looks, stands.family):
        plain.append(look)
        if cause in checks[look].clears:
            break
    return made, minutes_along(plain, stands.looks, stands.family, moves)
