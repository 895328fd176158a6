"""What a shop adds to the trade's symptoms: symptoms of its own, and causes that it has found of any."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from ..coupled import short
from .model import Family
from .symptoms import Look, Symptom, SymptomCause, Symptoms, check_of


@dataclass(frozen=True)
class OwnCause:
    """symptom: its key. look: how one sees it, where no check of the catalogue shows it; `cause.check` is its key then."""

    symptom: str
    cause: SymptomCause
    look: Look | None = None


def with_own(shipped: Symptoms, symptoms: Sequence[Symptom], causes: Sequence[OwnCause]) -> Symptoms:
    """The trade's symptoms with the shop's own after them, each with the shop's causes after its own."""
    by_symptom: dict[str, list[SymptomCause]] = {}
    looks = dict(shipped.looks)
    for one in causes:
        by_symptom.setdefault(one.symptom, []).append(one.cause)
        looks.setdefault(one.cause.check, one.look or Look(minutes=CHECK_MINUTES))
    listed = [
        replace(one, causes=[*one.causes, *by_symptom[one.key]]) if one.key in by_symptom else one
        for one in (*shipped.symptoms, *symptoms)
    ]
    return replace(shipped, looks=looks, symptoms=listed)


CHECK_MINUTES = 5.0
"""Of a check that no symptom of the trade is looked at by."""


def symptom_complaints(one: Symptom, families: Mapping[str, Family]) -> Iterator[tuple[str, str]]:
    """(field, what is wrong) of a symptom that a shop would add."""
    if not one.name:
        yield "name", "say what is noticed"
    if any(name not in families for name in one.families) or not one.families:
        yield "family", "is no kind of machine"
        return
    stations = {short(station.key) for name in one.families for station in families[name].stations}
    for station in one.stations:
        if station not in stations:
            yield "stations", f"there is no station {station}"


def cause_complaints(
    one: OwnCause, symptom: Symptom, families: Mapping[str, Family], postures: Collection[str]
) -> Iterator[tuple[str, str]]:
    """(field, what is wrong) of a cause that a shop would add to a symptom."""
    if not one.cause.name:
        yield "name", "say what it was"
    if one.cause.name.casefold() in {cause.name.casefold() for cause in symptom.causes}:
        yield "name", "stands there already"
    if one.look is None:
        if not any(check_of(families[name], one.cause.check) for name in symptom.families if name in families):
            yield "check", "is no check of such a machine"
        return
    if not one.look.name:
        yield "look", "say what is looked at, or choose a check"
    if one.look.posture not in postures:
        yield "posture", "say how the machine stands for it"
    if not one.look.how:
        yield "how", "say how one sees it"
