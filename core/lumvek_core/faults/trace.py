"""A fault that is being traced: what it may still be, and what to look at next and why."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..catalogue.model import Family
from ..catalogue.symptoms import Look, Symptom, causes_in, check_of
from ..coupled import short
from ..planning.shortest import RouteMove, shortest
from .suspicion import Suspicion, something_else
from .tracing import Cause, TracingCheck, TracingGiven, Worth, left_after, next_check, shares

ELSE, ELSE_NAME = "something-else", "Something else"
NEARLY_SURE = 0.8


@dataclass(frozen=True)
class Answer:
    """What a look showed. bad: something is wrong there."""

    look: str
    bad: bool


@dataclass(frozen=True)
class Left:
    """A cause with what it still has of the probability. begun: before anything was looked at. ruled_out: by a look."""

    key: str
    name: str
    share: float
    begun: float
    because: list[str]
    look: str
    ruled_out: bool


@dataclass(frozen=True)
class NextLook:
    """A look that was not made yet. why: what it would tell, in words. way_minutes: to where it is made."""

    key: str
    name: str
    posture: str
    minutes: float
    way_minutes: float
    p_bad: float
    gain_bits: float
    gain_per_minute: float
    why: str


@dataclass(frozen=True)
class Traced:
    """causes: the likeliest first. looks: best first. sure: the cause that is nearly certain, once something was seen that
    proves it. all_clear: every listed cause is
    ruled out."""

    causes: list[Left]
    looks: list[NextLook]
    entropy_bits: float
    sure: str
    all_clear: bool


def traced(
    symptom: Symptom,
    looks: Mapping[str, Look],
    family: Family,
    suspicions: Mapping[str, Suspicion],
    answers: Sequence[Answer],
    ways: Mapping[str, float],
) -> Traced:
    """Where a trace stands.

    suspicions: by cause; one that is not there has its weight of the catalogue. ways: posture → minutes to it from where the
    machine stands.
    """
    listed = causes_in(symptom, looks, family)
    weights = {one.key: suspicions[one.key].weight if one.key in suspicions else one.weight for one in listed}
    weights[ELSE] = something_else(list(weights.values()))
    begun, checks = shares(weights), tracing_checks(symptom, looks, family, ways)
    for answer in answers:
        if answer.look in checks:
            weights = left_after(weights, checks[answer.look], answer.bad)
    now, names = shares(weights), {one.key: one.name for one in listed} | {ELSE: ELSE_NAME}
    causes = [
        Left(
            key=key,
            name=names[key],
            share=now[key],
            begun=begun[key],
            because=suspicions[key].because if key in suspicions else [],
            look=next((one.check for one in listed if one.key == key), ""),
            ruled_out=weights[key] == 0,
        )
        for key in weights
    ]
    causes.sort(key=lambda one: (-one.share, -one.begun))
    seen = {answer.look for answer in answers}
    left = {key: weight for key, weight in weights.items() if weight > 0}
    open_checks = [_among(check, left) for key, check in checks.items() if key not in seen]
    found = next_check(TracingGiven([Cause(key, weight) for key, weight in left.items()], open_checks)) if left else None
    worths = found.checks if found else []
    shown = {cause for answer in answers if answer.bad and answer.look in checks for cause in checks[answer.look].proves}
    first = causes[0]
    sure = first.key if first.share >= NEARLY_SURE and first.key in shown else ""
    return Traced(
        causes=causes,
        looks=[_look(worth, checks[worth.name], looks, family, _why(checks[worth.name], now, names)) for worth in worths],
        entropy_bits=found.entropy_bits if found else 0.0,
        sure=sure,
        all_clear=all(one.ruled_out for one in causes if one.key != ELSE),
    )


def tracing_checks(
    symptom: Symptom, looks: Mapping[str, Look], family: Family, ways: Mapping[str, float]
) -> dict[str, TracingCheck]:
    """Every look of a symptom that this machine has, by key, in the order of the catalogue."""
    listed = causes_in(symptom, looks, family)
    keys = {one.key for one in listed}
    proves: dict[str, list[str]] = {}
    clears: dict[str, list[str]] = {}
    for cause in listed:
        proves.setdefault(cause.check, []).append(cause.key)
        clears.setdefault(cause.check, []).extend([cause.key] if cause.clears else [])
    for split in symptom.splits:
        if looks[split.check].name or check_of(family, split.check):
            told = [key for key in split.proves if key in keys]
            proves.setdefault(split.check, []).extend(key for key in told if key not in proves.get(split.check, []))
            clears.setdefault(split.check, []).extend(told if split.clears else [])
    found = {}
    for key, named in proves.items():
        way = ways.get(posture_of(key, looks, family), 0)
        found[key] = TracingCheck(key, looks[key].minutes, named, list(dict.fromkeys(clears[key])), way)
    return found


def along_the_machine(checks: Mapping[str, TracingCheck], looks: Mapping[str, Look], family: Family) -> list[str]:
    """Looks from one end of the machine to the other, as somebody looks who has no plan: by the order of the stations; what is
    no check of a station where others are looked at in its posture."""
    postures: dict[str, int] = {}
    stations: dict[str, int] = {}
    for i, station in enumerate(family.stations):
        for check in station.checks:
            stations[short(check.key)] = i
            postures.setdefault(check.posture or station.posture, i)
    last = len(family.stations)
    return sorted(checks, key=lambda look: stations.get(look, postures.get(looks[look].posture, last)))


def minutes_along(order: Sequence[str], looks: Mapping[str, Look], family: Family, moves: Sequence[RouteMove]) -> float:
    """What looks take in this order, with the ways between the postures they are made in."""
    posture, taken = family.start, 0.0
    for look in order:
        to = posture_of(look, looks, family)
        taken += looks[look].minutes + shortest(moves, [posture])[posture].get(to, (0.0, []))[0]
        posture = to
    return taken


def posture_of(look: str, looks: Mapping[str, Look], family: Family) -> str:
    """Where it is looked at."""
    if looks[look].posture:
        return looks[look].posture
    check = check_of(family, look)
    if check is None:
        return ""
    return check.posture or next(station.posture for station in family.stations if check in station.checks)


def name_of(look: str, looks: Mapping[str, Look], family: Family) -> str:
    """What is looked at, in words."""
    check = check_of(family, look)
    return looks[look].name or (check.name if check else look)


def _among(check: TracingCheck, left: Mapping[str, float]) -> TracingCheck:
    """With the causes that are still there."""
    kept = [key for key in check.proves if key in left]
    return TracingCheck(check.name, check.minutes, kept, [key for key in check.clears if key in left], check.posture_minutes)


def _look(worth: Worth, check: TracingCheck, looks: Mapping[str, Look], family: Family, why: str) -> NextLook:
    return NextLook(
        key=worth.name,
        name=name_of(worth.name, looks, family),
        posture=posture_of(worth.name, looks, family),
        minutes=check.minutes,
        way_minutes=check.posture_minutes,
        p_bad=worth.p_bad,
        gain_bits=worth.gain_bits,
        gain_per_minute=worth.gain_per_minute,
        why=why,
    )


def _why(check: TracingCheck, now: Mapping[str, float], names: Mapping[str, str]) -> str:
    """What its answer would leave, in a sentence."""
    told = sorted((key for key in check.proves if now.get(key, 0) > 0), key=lambda key: -now[key])
    if not told:
        return "Tells nothing more."
    together = sum(now[key] for key in told)
    named = names[told[0]][:1].lower() + names[told[0]][1:]
    it_is = f"It is {named}" if len(told) == 1 else f"It is one of {len(told)}, {named} first,"
    clears = [key for key in told if key in check.clears]
    if not clears:
        good = "; nothing to see does not rule it out."
    elif len(clears) == len(told):
        good = ", else that is ruled out." if len(told) == 1 else ", else all of them are ruled out."
    else:
        good = f", else {len(clears)} of them are ruled out."
    return f"{it_is} in {_percent(together)} of cases{good}"


def _percent(share: float) -> str:
    return "under 1 %" if share < 0.01 else f"{share * 100:.0f} %"
