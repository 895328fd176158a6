"""One kind of part on one machine: every place's history with its line, its seasons side by side, and others to hold it
against."""

from collections.abc import Mapping, Sequence
from datetime import datetime
from itertools import pairwise
from typing import Any

from fleet.models import Fitment, Machine
from fleet.queries import counters
from fleet.queries.machines import machines_for
from inspection.judging import forecasting
from inspection.models import Reading, Verdict, WearForecast
from inspection.queries import rule_books, serializers, walk_arounds
from lumvek_core import counters as core_counters
from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.counters import Count
from lumvek_core.coupled import short
from lumvek_core.judgement.companions import place_at
from shops.access import NotFoundHere
from shops.models import Member

from ..schemas import AgainstOut, FittedOut, PlaceWearOut, PointOut, ReadOut, SeasonCellOut, SeasonOut, WearOut
from . import display_units
from .forecast_views import of_machine

SEASONS = 10


def of_check(member: Member, machine: Machine, check_key: str) -> WearOut:
    """Raises NotFoundHere where nothing is forecast of this check."""
    stored = {one.check_key: one for one in forecasting.forecasts([machine], member.shop, paths=True)[machine.pk]}
    found = stored.get(check_key)
    check = rule_books.now_of(machine, member.shop).family.checks.get(check_key)
    if found is None or check is None:
        raise NotFoundHere("There is no forecast of this.")
    shown = next(one for one in of_machine(member, machine).checks if one.check == check_key)
    figures = display_units.scale_of(check, serializers.system_of(member))
    counts = counters.counts_of([machine.pk])[machine.pk]
    doubted = {key for place in found.places for key in place["doubted"]}
    read = _readings(member, machine, check, figures, counts, doubted, set(found.rests_on))
    fitments = _fitments(machine, check)
    places = [
        PlaceWearOut(
            position=one.position,
            label=one.label,
            row=positions.find(one.position).row,
            side=positions.find(one.position).side or "",
            wheels=positions.find(one.position).row in machine.track_rows,
            path=[_point(told, figures) for told in found.paths.get(one.position, [])],
            readings=read.get(one.position, []),
            fitments=fitments.get(place_of(check, one.position), []),
        )
        for one in shown.places
    ]
    return WearOut(
        ahead=shown,
        unit=counters.unit_of(machine),
        now=found.season["now"],
        end=found.season["end"],
        places=places,
        seasons=_seasons(counts, places),
        against=_against(member, machine, check, found),
    )


def place_of(check: Check, position: str) -> str:
    """Where the part lies that a place shows."""
    parts = check.own_parts
    return place_at(positions.find(position), parts[0].at).key if parts else position


def _point(told: Mapping[str, float], figures: display_units.Scale) -> PointOut:
    return PointOut(
        counter=told["counter"],
        value=figures.value(told["value"]),
        low=figures.value(told["low"]),
        high=figures.value(told["high"]),
    )


def _readings(
    member: Member,
    machine: Machine,
    check: Check,
    figures: display_units.Scale,
    counts: Sequence[Count],
    doubted: set[int],
    rests_on: set[int],
) -> dict[str, list[ReadOut]]:
    """All readings in force of a check on a machine, those of parts that are gone too, oldest first."""
    names = walk_arounds.names_in(member.shop_id)
    own = Verdict.objects.filter(check_key__in=rule_books.ever([check.key]), ask="", reading__state=Reading.State.SEEN)
    family = rule_books.shipped().families[machine.model.family]
    mine = own.filter(walk_around__machine=machine)
    if family.is_header:
        mine = mine | own.filter(walk_around__headers=machine)
    found: dict[str, list[ReadOut]] = {}
    for row in mine.select_related("reading").order_by("reading__taken_at", "reading").distinct():
        reading = row.reading
        numbers = reading.value.get("numbers")
        if numbers:
            found.setdefault(row.position_key, []).append(
                ReadOut(
                    counter=core_counters.total_at(counts, reading.taken_at),
                    value=figures.value(numbers[0]),
                    raw=" ".join(reading.raw),
                    at=reading.taken_at,
                    by=names.get(reading.by_id, "somebody"),
                    doubted=reading.pk in doubted,
                    past=reading.pk not in rests_on,
                )
            )
    return found


def _fitments(machine: Machine, check: Check) -> dict[str, list[FittedOut]]:
    slots = [short(part.slot) for part in check.own_parts]
    found: dict[str, list[FittedOut]] = {}
    for one in Fitment.objects.filter(machine=machine, slot__in=slots, taken_back_at=None).order_by("fitted_at"):
        found.setdefault(one.position_key, []).append(FittedOut(counter=one.counter, at=one.fitted_at, number=one.number))
    return found


def _seasons(counts: Sequence[Count], places: Sequence[PlaceWearOut]) -> list[SeasonOut]:
    """Wear of each place in each of the last seasons, per 100. A span between two readings belongs to the season its middle
    lies in."""
    if not counts:
        return []
    newest: datetime = counts[-1].at
    marks = [core_counters.total_at(counts, newest - i * core_counters.YEAR) for i in range(SEASONS + 1)]
    spans = [(a, b) for b, a in pairwise(marks) if a is not None and b is not None and b > a]
    found = []
    for start, end in reversed(spans):
        cells = [SeasonCellOut(position=place.position, rate=_worn(place, start, end)) for place in places]
        if any(cell.rate is not None for cell in cells):
            found.append(SeasonOut(start=start, end=end, cells=cells))
    return found


def _worn(place: PlaceWearOut, start: float, end: float) -> float | None:
    """Per 100, from the readings about the season's two ends; no slips, and not from one part to the next."""
    told = [one for one in place.readings if one.counter is not None and not one.doubted]
    worn = use = 0.0
    for before, after in pairwise(told):
        if before.counter is None or after.counter is None or before.past != after.past or after.counter <= before.counter:
            continue
        if start <= (before.counter + after.counter) / 2 < end:
            worn += after.value - before.value
            use += after.counter - before.counter
    fitted = next((one.counter for one in reversed(place.fitments) if one.counter is not None), None)
    first = next((one for one in told if not one.past), None)
    if (
        not use
        and first
        and first.counter
        and fitted is not None
        and start <= (fitted + first.counter) / 2 < end
        and first.counter > fitted
    ):
        worn, use = first.value - _new(place), first.counter - fitted
    return abs(worn) / use * 100 if use else None


def _new(place: PlaceWearOut) -> float:
    """What the part started from: the line's value where its history begins."""
    return place.path[0].value if place.path else 0.0


def _against(member: Member, machine: Machine, check: Check, wear_forecast: WearForecast) -> list[AgainstOut]:
    """Mean wear of this machine beside the shop's others of its kind, as a share of what is allowed per 100, fastest first."""
    others = [
        one for one in machines_for(member).prefetch_related("model__overrides") if one.model.family == machine.model.family
    ]
    stored = forecasting.forecasts([one for one in others if one.pk != machine.pk], member.shop)
    rows = _share(machine.name, wear_forecast, mine=True)
    for other in others:
        rows += [
            row for one in stored.get(other.pk, ()) if one.check_key == check.key for row in _share(other.name, one, mine=False)
        ]
    usual = AgainstOut(name="Usual for this part", share=100 / wear_forecast.sizes["life"], places=0, mine=False)
    return sorted([*rows, usual], key=lambda one: -one.share)


def _share(name: str, wear_forecast: WearForecast, *, mine: bool) -> list[AgainstOut]:
    """A machine's own mean; nothing where no place has been read twice yet."""
    allowance = abs(wear_forecast.sizes["new"] - wear_forecast.sizes["limit"])
    rates: list[Any] = [abs(place["rate"]) for place in wear_forecast.places if place["n"] > 1]
    return (
        [AgainstOut(name=name, share=100 * sum(rates) / len(rates) / allowance, places=len(rates), mine=mine)] if rates else []
    )
