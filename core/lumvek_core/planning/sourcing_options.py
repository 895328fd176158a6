"""Every way one line can come, with what it costs, when it is here and what happens if the piece is not there."""

import datetime as dt
import math
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

from ..calculators.common import day, different_names, moment
from ..compare import reached
from ..errors import BadInput
from .opening import DAY, Hours, Journey, hours
from .sourcing_model import FETCH, Delivery, Fallback, Pin, SourceGiven, SourceLine, SourceOffer, SourceSupplier

Mode = Literal["plain", "called", "alone", "sent"]
RunKey = tuple[str, str, str, dt.date, dt.date]


@dataclass(frozen=True)
class Run:
    """A trip or a delivery that several lines share. mode: a trip without a call, after a call, after a call for one line only.

    cost: of the run itself, once. For ``alone`` it falls due with the chance that the piece is there.
    """

    supplier: str
    way: str
    mode: Mode
    date: dt.date
    arrives: dt.date
    cost: float
    call_cost: float = 0.0
    journey: Journey | None = None
    out: dt.date | None = None

    @property
    def key(self) -> RunKey:
        return self.supplier, self.way, self.mode, self.date, self.arrives


@dataclass(frozen=True)
class Option:
    """A line on a run. own: everything this choice costs beside the run: parts, risk, being late."""

    line: int
    run: Run
    offer: SourceOffer
    quantity: float
    parts: float
    p_there: float
    risk: float
    late: float
    late_days: int
    p_in_time: float
    if_missing: Fallback | None

    @property
    def own(self) -> float:
        # The trip of a line that is called for alone is part of its own cost: it is driven only if the piece is there.
        trip = self.p_there * self.run.cost if self.run.mode == "alone" else 0.0
        return self.parts + self.risk + self.late + trip

    @property
    def shared(self) -> float:
        """What the run costs once, whoever is on it."""
        return self.run.call_cost + (0.0 if self.run.mode == "alone" else self.run.cost)


@dataclass
class Market:
    """The whole question, read and checked. Raises BadInput where it contradicts itself."""

    given: SourceGiven
    start: dt.datetime = field(init=False)
    last: dt.date = field(init=False)
    hours: dict[str, Hours] = field(init=False)
    need: list[dt.date | None] = field(init=False)
    offers: dict[str, list[SourceOffer]] = field(init=False)
    pins: dict[str, Pin] = field(init=False)

    def __post_init__(self) -> None:
        given = self.given
        self.start = moment(given.start, "start")
        self.last = self.start.date() + given.horizon_days * DAY
        different_names([supplier.name for supplier in given.suppliers], "suppliers")
        self.hours = {s.name: hours(s, f"suppliers.{i}") for i, s in enumerate(given.suppliers)}
        _once([line.id for line in given.lines], "lines", "id")
        self.need = [
            None if line.need_by is None else day(line.need_by, f"lines.{i}.need_by") for i, line in enumerate(given.lines)
        ]
        self.offers = {}
        for i, offer in enumerate(given.offers):
            if offer.supplier not in self.hours:
                raise BadInput(f"offers.{i}.supplier", "is not among the suppliers")
            known = self.offers.setdefault(offer.part, [])
            if any(other.supplier == offer.supplier for other in known):
                raise BadInput(f"offers.{i}.part", "is offered by this supplier already")
            known.append(offer)
        self._read_pins()

    def _read_pins(self) -> None:
        at = {line.id: i for i, line in enumerate(self.given.lines)}
        self.pins = {}
        for i, pin in enumerate(self.given.pinned):
            if pin.line not in at or pin.line in self.pins:
                raise BadInput(f"pinned.{i}.line", "must be one of the lines, once")
            if pin.supplier not in self.hours:
                raise BadInput(f"pinned.{i}.supplier", "is not among the suppliers")
            if pin.way != FETCH and pin.way not in self.hours[pin.supplier].cutoffs:
                raise BadInput(f"pinned.{i}.way", "must be fetch or one of the supplier's deliveries")
            self.pins[pin.line] = pin
        for i, pin in enumerate(self.given.pinned):
            if not self.options(at[pin.line]):
                raise BadInput(f"pinned.{i}", "cannot be done: closed, too late in the day, or too few there")

    # -- costs ----------------------------------------------------------------------------------------------------

    def trip_cost(self, supplier: SourceSupplier) -> float:
        minutes = 2 * supplier.travel_min + supplier.counter_min
        return minutes / 60 * self.given.labour_rate + 2 * supplier.distance_km * self.given.km_cost

    def late_days(self, line: int, arrives: dt.date) -> int:
        need = self.need[line]
        return 0 if need is None else max(0, (arrives - need).days)

    def _late(self, line: int, arrives: dt.date) -> float:
        return self.late_days(line, arrives) * self.given.lines[line].late_cost_per_day

    # -- ways -----------------------------------------------------------------------------------------------------

    def options(self, line: int) -> list[Option]:
        """Every way this line can come within the horizon; a pinned line has its own only."""
        wanted = self.given.lines[line]
        pin = self.pins.get(wanted.id)
        found: list[Option] = []
        for offer in self.offers.get(wanted.part, []):
            if pin is None or pin.supplier == offer.supplier:
                found += [self._option(line, offer, run) for run in self._runs(wanted, offer, pin)]
        return found

    def _runs(self, wanted: SourceLine, offer: SourceOffer, pin: Pin | None) -> list[Run]:
        """Worked out once for all lines that a supplier has alike."""
        there = reached(offer.stock, wanted.qty)
        alike = (offer.supplier, there, offer.p_stock < 1, None if there else offer.restock_days)
        if pin is not None:
            return self._ways(offer, pin, there=there)
        if alike not in self._runs_alike:
            self._runs_alike[alike] = self._ways(offer, None, there=there)
        return self._runs_alike[alike]

    @cached_property
    def _runs_alike(self) -> dict[tuple[str, bool, bool, int | None], list[Run]]:
        return {}

    def _ways(self, offer: SourceOffer, pin: Pin | None, *, there: bool) -> list[Run]:
        times = self.hours[offer.supplier]
        runs = []
        if there and (pin is None or pin.way == FETCH):
            runs += self._trips(times, offer.p_stock < 1, pin)
        if not there and offer.restock_days is None:
            return runs
        restocked = self.start if there else self._restocked(offer)
        for way in times.supplier.deliveries:
            if pin is None or pin.way == way.name:
                ordered = {max(restocked, one) for one in self._order_times(offer.supplier, pin)}
                runs += [run for one in sorted(ordered) if (run := self._sending(times, way, one))]
        return runs

    def _restocked(self, offer: SourceOffer) -> dt.datetime:
        """When an offer that is short of pieces has them."""
        return dt.datetime.combine(self.start.date() + (offer.restock_days or 0) * DAY, dt.time())

    def _order_times(self, supplier: str, pin: Pin | None) -> list[dt.datetime]:
        """When a line may be ordered: at once, and on every day on which another line is, for they may travel together."""
        if pin is not None:
            return [self.start if pin.date is None else max(self.start, dt.datetime.combine(self._pinned(pin), dt.time()))]
        return self._times_of_others[supplier]

    @cached_property
    def _times_of_others(self) -> dict[str, list[dt.datetime]]:
        times = {supplier.name: {self.start} for supplier in self.given.suppliers}
        for line in self.given.lines:
            for offer in self.offers.get(line.part, []):
                if offer.restock_days is not None and not reached(offer.stock, line.qty):
                    times[offer.supplier].add(max(self.start, self._restocked(offer)))
        for pin in self.pins.values():
            if pin.way != FETCH:
                times[pin.supplier].update(self._order_times(pin.supplier, pin))
        return {supplier: sorted(found) for supplier, found in times.items()}

    @cached_property
    def _trip_days(self) -> dict[str, list[dt.date]]:
        """The days on which somebody may drive to a supplier: the first there is, with and without a call, and those pinned by
        hand.

        Another day is no better for lines that travel together: a trip costs the same on each, and what is missing is known
        later.
        """
        found: dict[str, list[dt.date]] = {}
        for name, times in self.hours.items():
            first = {times.first_journey(self.start, self.last, called=called) for called in (False, True)}
            pinned = {self._pinned(pin) for pin in self.pins.values() if pin.supplier == name and pin.way == FETCH and pin.date}
            found[name] = sorted({journey.date for journey in first if journey} | pinned)
        return found

    def _pinned(self, pin: Pin) -> dt.date:
        at = f"pinned.{[one.line for one in self.given.pinned].index(pin.line)}.date"
        found = day(pin.date or "", at)
        if not self.start.date() <= found <= self.last:
            raise BadInput(at, "is not within the days that are planned")
        return found

    def _trips(self, times: Hours, unsure: bool, pin: Pin | None) -> list[Run]:
        """The trips this line may be on: on the pinned day, the first there is, or on any day on which another line is fetched.

        A line that is surely there may share a trip that is made after a call for another one; alone it needs no call.
        """
        name = times.supplier.name
        modes: tuple[Mode, ...] = ("plain",)
        if times.supplier.call_min is not None:
            modes = ("plain", "called", "alone") if unsure else ("plain", "called")
        runs = []
        for mode in modes:
            called = mode != "plain"
            if pin is None:
                days = self._trip_days[name]
            elif pin.date is not None:
                days = [self._pinned(pin)]
            else:
                first = times.first_journey(self.start, self.last, called=called)
                days = [first.date] if first else []
            call = (times.supplier.call_min or 0) / 60 * self.given.labour_rate if called else 0.0
            for date in days:
                earliest = max(self.start, dt.datetime.combine(date, dt.time()))
                if journey := times.journey(date, earliest, called=called):
                    runs.append(Run(name, FETCH, mode, date, date, self.trip_cost(times.supplier), call, journey))
        return runs

    def _sending(self, times: Hours, way: Delivery, ordered: dt.datetime) -> Run | None:
        out = times.goes_out(way, ordered, self.last)
        if out is None or (arrives := times.arrival(way, out)) > self.last:
            return None
        return Run(times.supplier.name, way.name, "sent", ordered.date(), arrives, way.price, out=out)

    def _option(self, line: int, offer: SourceOffer, run: Run) -> Option:
        wanted = self.given.lines[line]
        quantity = offer.pack * math.ceil(wanted.qty / offer.pack - 1e-9)
        parts = offer.unit_price * quantity
        # What is restocked is promised: the chance is about pieces said to lie there today.
        p_there = offer.p_stock if reached(offer.stock, wanted.qty) else 1.0
        late_days = self.late_days(line, run.arrives)
        in_time = late_days == 0
        late = late_days * wanted.late_cost_per_day
        missing, extra, p_in_time = None, 0.0, float(in_time)
        if p_there < 1:
            missing, extra = self._fall_back(line, parts, self._known(run))
            extra -= late  # days that it is late anyway are counted with the line, not with the risk
            rescued = missing is not None and in_time and self.late_days(line, dt.date.fromisoformat(missing.arrives)) == 0
            p_in_time = p_there * in_time + (1 - p_there) * rescued
        return Option(line, run, offer, quantity, parts, p_there, (1 - p_there) * extra, late, late_days, p_in_time, missing)

    def _known(self, run: Run) -> dt.datetime:
        """When it is known that a piece is not there: after the call, else the day after the trip or after it should go out."""
        if run.journey and run.journey.call:
            return run.journey.leave
        return dt.datetime.combine((run.out or run.date) + DAY, dt.time())

    def _fall_back(self, line: int, parts: float, known: dt.datetime) -> tuple[Fallback | None, float]:
        """The cheapest certain way from then on, and what it costs on top, days late included.

        Where nothing is certain, the line counts as late until the last day that is planned.
        """
        wanted = self.given.lines[line]
        best: tuple[float, str, str, str, float] | None = None
        for offer in self.offers.get(wanted.part, []):
            quantity = offer.pack * math.ceil(wanted.qty / offer.pack - 1e-9)
            dearer = offer.unit_price * quantity - parts
            for way, arrives, cost in self._certain(wanted, offer, known):
                total = dearer + cost + self._late(line, arrives)
                mine = (total, arrives.isoformat(), offer.supplier, way, dearer + cost)
                best = mine if best is None or mine < best else best
        if best is None:
            return None, self._late(line, self.last)
        total, arrives_on, supplier, way, extra = best
        return Fallback(supplier, way, arrives_on, extra), total

    def _certain(self, wanted: SourceLine, offer: SourceOffer, known: dt.datetime) -> list[tuple[str, dt.date, float]]:
        """Ways this offer surely brings the line: (way, arrives, cost of its own trip or delivery)."""
        key = (offer.supplier, offer.part, wanted.qty, known)
        if key in self._certain_ways:
            return self._certain_ways[key]
        times, found = self.hours[offer.supplier], []
        there = reached(offer.stock, wanted.qty)
        if there and offer.p_stock >= 1 and (journey := times.first_journey(known, self.last)):
            found.append((FETCH, journey.date, self.trip_cost(times.supplier)))
        if (there and offer.p_stock >= 1) or (not there and offer.restock_days is not None):
            ordered = known if there else max(known, self._restocked(offer))
            for way in times.supplier.deliveries:
                if sending := self._sending(times, way, ordered):
                    found.append((way.name, sending.arrives, way.price))
        self._certain_ways[key] = found
        return found

    @cached_property
    def _certain_ways(self) -> dict[tuple[str, str, float, dt.datetime], list[tuple[str, dt.date, float]]]:
        return {}


def _once(keys: list[str], name: str, key: str) -> None:
    seen: set[str] = set()
    for i, one in enumerate(keys):
        if one in seen:
            raise BadInput(f"{name}.{i}.{key}", f"“{one}” is there already")
        seen.add(one)
