"""Wear ahead as screens show it: a machine's forecasts with what waiting costs, what tips over when it does more, and the
fleet's list."""

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass
from typing import Any

from fleet.models import Machine
from fleet.queries import counters
from fleet.queries.machines import machines_for
from inspection.judging import forecasting
from inspection.models import WearForecast
from inspection.queries import forecasts, rule_books, serializers
from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.compare import reached
from lumvek_core.counters import seasons as seasons_of
from lumvek_core.units import plain
from shops.days import said
from shops.models import Member
from shops.rights import may

from ..schemas import CheckAheadOut, FleetAheadOut, FleetLineOut, MachineAheadOut, NextUseOut, PlaceAheadOut, State, TipOut
from . import display_units, replacement_cost
from .forecast_words import marked, rests_on

MOST_MORE = 2.0
"""A machine may be asked about doing up to three times its season."""


@dataclass(frozen=True)
class Foreseen:
    """One check's forecast, stored or worked out for another season."""

    check: Check
    sizes: Mapping[str, float]
    season: Mapping[str, float]
    places: Sequence[Mapping[str, Any]]

    @property
    def use(self) -> float:
        return self.season["end"] - self.season["now"]


def of_machine(member: Member, machine: Machine, more: float = 0.0) -> MachineAheadOut:
    """What is to be expected of a machine if its season is as asked, or by a share `more` longer."""
    stored = forecasting.forecasts([machine], member.shop)[machine.pk]
    book = rule_books.now_of(machine, member.shop)
    base = _foreseen(stored, book)
    known = forecasts.know([machine], [one.check.key for one in base])[machine.pk]
    shown = base if more == 0 else _with_more(base, known, more)
    rates = replacement_cost.of_shop(member, [machine])
    fitted = {one.check.key: _fitted(known, one.check) for one in base}
    checks = [_check(member, machine, book, one, rates, fitted[one.check.key]) for one in shown]
    return MachineAheadOut(
        machine_id=machine.pk,
        machine=machine.name,
        currency=rates.terms.currency,
        next_use=next_use(machine, known),
        more=more,
        checks=checks,
        tips=_tips(base, shown) if more else [],
        may_change=may(member, "say what the season will be"),
    )


def next_use(machine: Machine, known: forecasts.Known) -> NextUseOut:
    """The coming season and where it comes from."""
    unit, coming = counters.unit_of(machine), known.coming()
    asked = machine.next_use if known.asked_end() is not None else None
    last = seasons_of(known.counts, known.counts[-1].at)[:3] if known.counts else []
    if asked is not None:
        source = "as asked for"
    elif last:
        source = f"mean of the last {len(last)} seasons" if len(last) > 1 else "as the last season"
    else:
        source = "usual for this kind of machine"
    return NextUseOut(
        unit=unit,
        counter=coming.now if coming else counters.now_of(machine),
        usual=known.usual_season() if known.counts else None,
        asked=asked,
        use=coming.end - coming.now if coming else None,
        end=coming.end if coming else None,
        source=source,
        seasons=last,
    )


def _foreseen(stored: Sequence[WearForecast], book: CoreBook) -> list[Foreseen]:
    found = [
        Foreseen(book.family.checks[one.check_key], one.sizes, one.season, one.places)
        for one in stored
        if one.check_key in book.family.checks
    ]
    order = list(book.family.checks)
    return sorted(found, key=lambda one: order.index(one.check.key))


def _with_more(base: Sequence[Foreseen], known: forecasts.Known, more: float) -> list[Foreseen]:
    """The same places at another season's end; nothing is stored."""
    found = []
    for one in base:
        judged, coming = forecasts.predict(known, one.check, more), known.coming(more)
        if judged and coming:
            season = asdict(coming) | {"season_share": judged.season_share, "seasons": judged.seasons}
            found.append(Foreseen(one.check, one.sizes, season, [asdict(place) for place in judged.places]))
    return found


def watch_chance(check: Check) -> float:
    """From which chance on a place of this check is watched."""
    return check.rule.chance_to_watch()


def state_of(foreseen: Foreseen, place: Mapping[str, Any]) -> State:
    """By the newest reading where it is at its limit, else by the chance to reach it."""
    new, limit = foreseen.sizes["new"], foreseen.sizes["limit"]
    reading = place["now"] if place["last"] is None else place["last"]
    if reached((new - reading) / (new - limit), 1.0):
        return "due"
    return "watch" if reached(place["p_cross"], watch_chance(foreseen.check)) else "sound"


def _tips(base: Sequence[Foreseen], shown: Sequence[Foreseen]) -> list[TipOut]:
    """Places whose state is another one with the longer, or shorter, season."""
    found = []
    for before, after in zip(base, shown, strict=True):
        had = {place["name"]: place for place in before.places}
        for place in after.places:
            old, new = state_of(before, had[place["name"]]), state_of(after, place)
            if old != new:
                found.append(
                    TipOut(
                        check=after.check.key,
                        name=after.check.name,
                        position=place["name"],
                        label=positions.find(place["name"]).label,
                        before=old,
                        after=new,
                        chance_before=had[place["name"]]["p_cross"],
                        chance_after=place["p_cross"],
                    )
                )
    return found


def _fitted(known: forecasts.Known, check: Check) -> dict[str, str]:
    """When the part at each place of a check was fitted, in words, where it is on record."""
    found = {}
    unit = counters.unit_of(known.machine)
    for position in known.read.get(check.key, {}):
        if fitment := known.fitment(check, position):
            at = f" at {plain(fitment.counter, 0)} {unit}" if fitment.counter is not None else ""
            found[position] = f"{said(fitment.fitted_at)}{at}"
    return found


def _check(
    member: Member,
    machine: Machine,
    book: CoreBook,
    foreseen: Foreseen,
    rates: replacement_cost.Money,
    fitted: Mapping[str, str],
) -> CheckAheadOut:
    figures = display_units.scale_of(foreseen.check, serializers.system_of(member))
    return CheckAheadOut(
        check=foreseen.check.key,
        name=foreseen.check.name,
        station=book.station_of[foreseen.check.key].name,
        unit=figures.unit,
        decimals=figures.decimals,
        new=figures.value(foreseen.sizes["new"]),
        limit=figures.value(foreseen.sizes["limit"]),
        safety=foreseen.check.safety,
        watch_chance=watch_chance(foreseen.check),
        season_share=foreseen.season["season_share"],
        seasons=int(foreseen.season.get("seasons", 0)),
        places=[_place(machine, foreseen, place, figures, rates, fitted.get(place["name"], "")) for place in foreseen.places],
    )


def _place(
    machine: Machine,
    foreseen: Foreseen,
    place: Mapping[str, Any],
    figures: display_units.Scale,
    rates: replacement_cost.Money,
    fitted: str,
) -> PlaceAheadOut:
    weighed = replacement_cost.weigh(rates, machine, foreseen.check, place, foreseen.sizes, foreseen.use)
    last = place["last"]
    return PlaceAheadOut(
        position=place["name"],
        label=positions.find(place["name"]).label,
        state=state_of(foreseen, place),
        n=place["n"],
        last=None if last is None else figures.value(last),
        now=figures.value(place["now"]),
        value=figures.value(place["value"]),
        low=figures.value(place["low"]),
        high=figures.value(place["high"]),
        p=place["p_cross"],
        chance=place["chance_word"],
        rate=abs(figures.change(place["rate"])) * 100,
        rate_sd=abs(figures.change(place["rate_sd"])) * 100,
        used=max(0.0, (foreseen.sizes["new"] - place["now"]) / (foreseen.sizes["new"] - foreseen.sizes["limit"])),
        faster=place["faster"],
        stands_out=place["stands_out"],
        rests_on=rests_on(place, fitted, alone=len(foreseen.places) == 1),
        marked=marked(place),
        fitted=fitted,
        number=weighed.number if weighed else "",
        price=weighed.price if weighed else None,
        cost_wait=weighed.cost_wait if weighed else None,
        cost_now=weighed.cost_now if weighed else None,
        break_even=weighed.break_even if weighed else None,
        advice=(weighed.advice or "") if weighed else "",
    )


def fleet(member: Member) -> FleetAheadOut:
    """Every part of every machine that may not last the coming season, the dearest to wait with first.

    One line a part: where several places are judged by one part (the strands of a chain), the worst of them. The number of
    queries does not grow with the machines.
    """
    machines = list(machines_for(member).prefetch_related("model__overrides"))
    stored = forecasting.forecasts(machines, member.shop)
    rates = replacement_cost.of_shop(member, machines)
    lines: list[FleetLineOut] = []
    quiet = 0
    for machine in machines:
        if not stored[machine.pk]:
            continue
        for one in _foreseen(stored[machine.pk], rule_books.now_of(machine, member.shop)):
            if one.check.safety:
                continue  # put right whatever it costs: it has no place in a list by cost
            worst: dict[str, Mapping[str, Any]] = {}
            for place in one.places:
                key = replacement_cost.part_place(one.check, place["name"])
                if key not in worst or place["p_cross"] > worst[key]["p_cross"]:
                    worst[key] = place
            for place in worst.values():
                line = _line(member, machine, one, place, rates)
                if line.state == "sound" and line.advice not in ("replace", "either"):
                    quiet += 1
                else:
                    lines.append(line)
    lines.sort(key=lambda line: (-(line.cost_wait or 0), -line.p, line.machine, positions.reading_order(line.position)))
    return FleetAheadOut(
        currency=rates.terms.currency,
        lines=lines,
        quiet=quiet,
        machines=sum(bool(found) for found in stored.values()),
        without=[machine.name for machine in machines if not stored[machine.pk]],
    )


def _line(
    member: Member, machine: Machine, foreseen: Foreseen, place: Mapping[str, Any], rates: replacement_cost.Money
) -> FleetLineOut:
    figures = display_units.scale_of(foreseen.check, serializers.system_of(member))
    weighed = replacement_cost.weigh(rates, machine, foreseen.check, place, foreseen.sizes, foreseen.use)
    return FleetLineOut(
        machine_id=machine.pk,
        machine=machine.name,
        model=machine.model.full_name,
        check=foreseen.check.key,
        name=foreseen.check.name,
        position=place["name"],
        label=positions.find(place["name"]).label,
        unit=figures.unit,
        decimals=figures.decimals,
        now=figures.value(place["now"]),
        value=figures.value(place["value"]),
        low=figures.value(place["low"]),
        high=figures.value(place["high"]),
        limit=figures.value(foreseen.sizes["limit"]),
        p=place["p_cross"],
        chance=place["chance_word"],
        state=state_of(foreseen, place),
        cost_wait=weighed.cost_wait if weighed else None,
        cost_now=weighed.cost_now if weighed else None,
        break_even=weighed.break_even if weighed else None,
        advice=(weighed.advice or "") if weighed else "",
    )
