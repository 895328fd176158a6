"""Whom to buy from, and how it gets here: the cheapest, the surest and the quickest plan."""

import math
import time
from collections.abc import Callable, Sequence
from dataclasses import replace

from ..apart import Limits, Progress
from ..counted import counted
from ..registry import calculator_at_length
from .sourcing_model import (
    LONGEST_S,
    DriveReason,
    Impossible,
    Kind,
    OneDayEarlier,
    Plan,
    PlanCost,
    PlanLine,
    Sending,
    Sourced,
    SourceGiven,
    Surer,
    Trip,
)
from .sourcing_options import Market, Option
from .sourcing_solve import Solved, solve, total

Lines = list[list[Option]]
TINY = 1e-9


@calculator_at_length(Limits(seconds=LONGEST_S + 15, megabytes=1500))
def source_parts(given: SourceGiven, progress: Progress = lambda _what, _done, _of: None) -> Sourced:
    """Suppliers, trips and deliveries for a list of lines, so that they are here in time at least cost.

    One line comes from one supplier in one way: fetched, or by one of the deliveries. A trip costs (2·travel +
    counter)/60·labour rate + 2·distance·km_cost, once a supplier and day, and stands at the counter while it is open; a
    delivery costs its price, once a supplier, delivery and day. Parts = unit_price·pack·⌈qty/pack⌉. Where stock < qty nothing
    can be fetched; what is restocked after restock_days can be sent then, and is promised. With 1 − p_stock a line falls back
    to its cheapest certain way from the next day on: risk = (1 − p)·(difference in price + that trip or delivery + days
    late·late cost). A call (call_min·labour_rate, once a trip) tells before driving, so that the fallback begins the same day;
    a trip that would be made for one line alone is then driven only if the piece is there (with several lines the trip counts
    in full). First fewest lines late, then money. surest: the highest chance for every line; quickest: the earliest last
    arrival; then money. The day a line is needed is in time. Days are as ``2026-03-05``, a working service counts Monday to
    Friday, and goes out on days the supplier is open. able: suppliers that have every line needed to run. Stopped after
    time_limit_s, a plan says how far from its bound it is.
    """
    return _Work(given, progress).answer()


class _Work:
    """One question while it is worked on."""

    def __init__(self, given: SourceGiven, progress: Progress) -> None:
        self.given, self.progress = given, progress
        self.ends = time.monotonic() + given.time_limit_s
        self.market = Market(given)
        options = [self.market.options(i) for i in range(len(given.lines))]
        self.impossible = [found for i, of_line in enumerate(options) if (found := _impossible(self.market, i, of_line))]
        # A line late in every way is late in any plan; all others come in time: fewest late, before any money.
        self.lines: Lines = [_in_time(of_line) for of_line in options if of_line]
        trips = {(option.run.supplier, option.run.date) for of_line in self.lines for option in of_line if option.run.journey}
        self.trips = sorted(trips, key=str)
        self.steps = 1 if given.cheapest_only else 4 + len(self.trips)
        self.done = 0

    def answer(self) -> Sourced:
        self._tell("what is on offer", counts=False)
        cheapest = self._solve(self.lines, "cheapest")
        if self.given.cheapest_only:
            return Sourced([self._plan("cheapest", cheapest)], self.impossible, None, None, self._able(), [])
        surest = self._solve([_surest(of_line) for of_line in self.lines], "surest")
        last = max((min(option.run.arrives for option in of_line) for of_line in self.lines), default=None)
        early = self.lines if last is None else [[o for o in of_line if o.run.arrives <= last] for of_line in self.lines]
        quickest = self._solve(early, "quickest")
        plans = [self._plan("cheapest", cheapest), self._plan("surest", surest), self._plan("quickest", quickest)]
        return Sourced(
            plans=plans,
            impossible=self.impossible,
            one_day_earlier=self._one_day_earlier(cheapest),
            surer=self._surer(plans),
            able=self._able(),
            reasons=[self._reason(cheapest, supplier, date) for supplier, date in self.trips],
        )

    def _solve(self, lines: Lines, what: str) -> Solved:
        left = max(self.ends - time.monotonic(), 0.05)
        solved = solve(lines, left / max(1, min(4, self.steps - self.done)))
        self._tell(what)
        return solved

    def _tell(self, what: str, *, counts: bool = True) -> None:
        self.done += counts
        self.progress(what, self.done, self.steps)

    def _plan(self, kind: Kind, solved: Solved) -> Plan:
        chosen = solved.chosen
        runs: dict[object, list[Option]] = {}
        for option in chosen:
            runs.setdefault(option.run.key, []).append(option)
        trips = [_trip(self.given, of_run) for of_run in runs.values() if of_run[0].run.journey]
        sendings = [_sending(self.given, of_run) for of_run in runs.values() if not of_run[0].run.journey]
        parts, risk, late = (math.fsum(getattr(option, name) for option in chosen) for name in ("parts", "risk", "late"))
        driven, sent = math.fsum(trip.cost for trip in trips), math.fsum(sending.cost for sending in sendings)
        cost = PlanCost(parts, driven, sent, risk, late, parts + driven + sent + risk + late)
        lost = sum(1 for one in self.impossible if one.earliest is None)
        return Plan(
            kind=kind,
            cost=cost,
            p_all_in_time=0.0 if lost else math.prod(option.p_in_time for option in chosen),
            last_arrival=max((option.run.arrives.isoformat() for option in chosen), default=None),
            trips=sorted(trips, key=lambda trip: trip.leave),
            deliveries=sorted(sendings, key=lambda sending: (sending.arrives, sending.supplier)),
            lines=[_line(self.given, option) for option in chosen],
            optimal=solved.optimal,
            bound=solved.bound,
            gap_pct=100 * (solved.cost - solved.bound) / solved.cost if solved.cost > TINY else 0.0,
        )

    def _one_day_earlier(self, cheapest: Solved) -> OneDayEarlier | None:
        """What it costs to have everything a day before the cheapest plan has it; None if that cannot be."""
        self._tell("a day earlier")
        if not cheapest.chosen:
            return None
        last = max(option.run.arrives for option in cheapest.chosen)
        lines = [[option for option in of_line if option.run.arrives < last] for of_line in self.lines]
        if not all(lines):
            return None
        earlier = solve(lines, max(self.ends - time.monotonic(), 0.05))
        arrives = max(option.run.arrives for option in earlier.chosen)
        return OneDayEarlier(arrives.isoformat(), total(earlier.chosen) - total(cheapest.chosen))

    def _surer(self, plans: Sequence[Plan]) -> Surer | None:
        cheapest, surest = plans[0], plans[1]
        gained = surest.p_all_in_time - cheapest.p_all_in_time
        return Surer(surest.cost.total - cheapest.cost.total, gained) if gained > TINY else None

    def _able(self) -> list[str]:
        needed = [line for line in self.given.lines if line.needed == "run"]
        stock = {(offer.supplier, offer.part): offer.stock for offer in self.given.offers}
        return [
            supplier.name
            for supplier in self.given.suppliers
            if needed and all(stock.get((supplier.name, line.part), 0) >= line.qty for line in needed)
        ]

    def _reason(self, cheapest: Solved, supplier: str, date: object) -> DriveReason:
        """What not driving to a supplier the cheapest plan drives to would cost more; or driving where it does not."""

        def drives(option: Option) -> bool:
            return option.run.journey is not None and option.run.supplier == supplier and option.run.date == date

        driven = any(drives(option) for option in cheapest.chosen)
        self._tell(f"why drive to {supplier}")
        if driven:
            other = [[option for option in of_line if not drives(option)] for of_line in self.lines]
            late = sum(not of_line for of_line in other)
            if late or (left := self.ends - time.monotonic()) <= 0:
                return DriveReason(supplier, str(date), True, None, late)
            return DriveReason(supplier, str(date), True, total(solve(other, left).chosen) - total(cheapest.chosen), 0)
        return DriveReason(supplier, str(date), False, self._with_trip(cheapest, drives), 0)

    def _with_trip(self, cheapest: Solved, drives: Callable[[Option], bool]) -> float | None:
        """What the cheapest plan costs more when a trip is driven in any case: it is solved with that trip already paid for."""
        left = self.ends - time.monotonic()
        if left <= 0:
            return None
        paid = [[_paid(option) if drives(option) else option for option in of_line] for of_line in self.lines]
        with_it = solve(paid, left)
        trip = next(option.run for of_line in self.lines for option in of_line if drives(option))
        more = total(with_it.chosen) + trip.cost - total(cheapest.chosen)
        if any(drives(option) for option in with_it.chosen):
            return more
        # Nobody boards even a paid trip: the line that loses least by it does.
        on_it = [(i, option) for i, of_line in enumerate(paid) for option in of_line if drives(option)]
        return more + min(option.own - with_it.chosen[i].own for i, option in on_it)


def _paid(option: Option) -> Option:
    return replace(option, run=replace(option.run, cost=0.0))


def _in_time(options: list[Option]) -> list[Option]:
    return [option for option in options if not option.late_days] or options


def _surest(options: list[Option]) -> list[Option]:
    best = max(option.p_in_time for option in options)
    return [option for option in options if option.p_in_time >= best - TINY]


def _impossible(market: Market, i: int, options: list[Option]) -> Impossible | None:
    line = market.given.lines[i]
    if not options:
        offers = market.offers.get(line.part, [])
        why = "nobody has enough of it" if offers else "nobody offers it"
        return Impossible(line.id, None, why if not offers else f"{why} within {counted(market.given.horizon_days, 'day')}")
    if any(not option.late_days for option in options):
        return None
    first = min(options, key=lambda option: (option.run.arrives, option.run.supplier))
    days = first.late_days
    reason = f"the first there is comes from {first.run.supplier}, {counted(days, 'day')} late"
    return Impossible(line.id, first.run.arrives.isoformat(), reason)


def _trip(given: SourceGiven, on_it: Sequence[Option]) -> Trip:
    run, journey = on_it[0].run, on_it[0].run.journey
    assert journey is not None  # noqa: S101  (a fetch always has one)
    alone = run.mode == "alone"
    return Trip(
        supplier=run.supplier,
        date=run.date.isoformat(),
        call_at=journey.call.isoformat(timespec="minutes") if journey.call else None,
        leave=journey.leave.isoformat(timespec="minutes"),
        back=journey.back.isoformat(timespec="minutes"),
        only_if_there=alone,
        cost=run.call_cost + run.cost * (on_it[0].p_there if alone else 1.0),
        lines=[given.lines[option.line].id for option in on_it],
    )


def _sending(given: SourceGiven, on_it: Sequence[Option]) -> Sending:
    run = on_it[0].run
    return Sending(
        supplier=run.supplier,
        way=run.way,
        ordered=run.date.isoformat(),
        goes_out=(run.out or run.date).isoformat(),
        arrives=run.arrives.isoformat(),
        cost=run.cost,
        lines=[given.lines[option.line].id for option in on_it],
    )


def _line(given: SourceGiven, option: Option) -> PlanLine:
    return PlanLine(
        id=given.lines[option.line].id,
        supplier=option.run.supplier,
        way=option.run.way,
        date=option.run.date.isoformat(),
        arrives=option.run.arrives.isoformat(),
        quantity=option.quantity,
        cost=option.parts,
        p_there=option.p_there,
        p_in_time=option.p_in_time,
        late_days=option.late_days,
        status=option.offer.status,
        if_missing=option.if_missing,
    )
