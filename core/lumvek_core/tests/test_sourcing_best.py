"""No plan is better than the one that is given: held against other days, other choices and a stopped search."""

import datetime as dt
import itertools
import math

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from lumvek_core import structure
from lumvek_core.errors import BadInput
from lumvek_core.planning.sourcing import _in_time, source_parts
from lumvek_core.planning.sourcing_model import SourceGiven
from lumvek_core.planning.sourcing_options import Market
from lumvek_core.planning.sourcing_solve import solve, total

from .test_sourcing import BRIDGE, HARROW, NORTHMERE, SATURDAY, line


@st.composite
def questions(draw):
    """Small questions: two or three lines, three suppliers, everything in reach of trying it all."""
    suppliers = []
    for name, base in (("near", BRIDGE), ("far", NORTHMERE), ("post", HARROW)):
        minutes = draw(st.sampled_from([10, 30, 90]))
        suppliers.append({**base, "name": name, "travel_min": minutes, "call_min": draw(st.sampled_from([None, 5]))})
    parts = ["D", "S", "B"][: draw(st.integers(2, 3))]
    offers = [
        {
            "supplier": supplier["name"],
            "part": part,
            "unit_price": draw(st.sampled_from([10, 14, 40])),
            "pack": draw(st.sampled_from([1, 2])),
            "stock": draw(st.sampled_from([0, 1, 5])),
            "p_stock": draw(st.sampled_from([0.3, 0.9, 1])),
            "restock_days": draw(st.sampled_from([None, 2])),
        }
        for supplier in suppliers
        for part in parts
        if draw(st.booleans())
    ]
    lines = [
        line(part, part, draw(st.integers(1, 2)), draw(st.sampled_from(["2026-11-23", "2026-11-25", None])), late_cost_per_day=draw(st.sampled_from([0, 60])))
        for part in parts
    ]  # fmt: skip
    start = draw(st.sampled_from([f"{SATURDAY}T08:00", "2026-11-23T10:00"]))
    asked = {"start": start, "lines": lines, "suppliers": suppliers, "offers": offers, "labour_rate": 60, "horizon_days": 6}
    return asked | {"pinned": draw(pins(asked))}


@st.composite
def pins(draw, asked):
    """Perhaps one line by hand, on a day it can be."""
    part = draw(st.sampled_from([one["id"] for one in asked["lines"]]))
    days = ["2026-11-23", "2026-11-24", "2026-11-26", None]
    pin = {
        "line": part,
        "supplier": draw(st.sampled_from(["near", "far", "post"])),
        "way": draw(st.sampled_from(["fetch", "post"])),
        "date": draw(st.sampled_from(days)),
    }
    try:
        Market(structure.read(SourceGiven, asked | {"pinned": [pin]}))
    except BadInput:
        return []
    return [pin]


class EveryDay(Market):
    """The same question with a trip or an order on any day of the horizon.

    But not so late that nothing could be done any more if the piece is not there: a line that never comes would cost nothing.
    """

    def options(self, line):
        found = super().options(line)
        # A trip for one line alone is not moved to a day of its own, to be driven beside the others' trip.
        first = {one.run.date for one in Market(self.given).options(line) if one.run.mode == "alone"}
        found = [one for one in found if one.run.mode != "alone" or one.run.date in first]
        saved = [one for one in found if one.p_there == 1 or one.if_missing]
        return saved or found

    @property
    def _days(self):
        return [self.start.date() + dt.timedelta(days=n) for n in range(self.given.horizon_days + 1)]

    @property
    def _trip_days(self):
        return dict.fromkeys(self.hours, self._days)

    @property
    def _times_of_others(self):
        return {key: [max(self.start, dt.datetime.combine(day, dt.time())) for day in self._days] for key in self.hours}


@settings(max_examples=40, deadline=None)
@given(questions())
def test_no_other_day_is_cheaper(question):
    """Every day of the horizon tried for every line: nothing is cheaper than the few days that are considered."""
    asked = structure.read(SourceGiven, question)

    def lines(market):
        return [_in_time(options) for i in range(len(asked.lines)) if (options := market.options(i))]

    few, every = lines(Market(asked)), lines(EveryDay(asked))
    assert len(few) == len(every)
    assert solve(few, 5).cost <= solve(every, 5).cost + 1e-6


def possible(chosen):
    """One trip a supplier and day, and one line on a trip that is made for it alone."""
    trips = {}
    for option in chosen:
        if option.run.mode != "sent":
            trips.setdefault((option.run.supplier, option.run.date), []).append(option.run.mode)
    return all(len(set(modes)) == 1 and (modes[0] != "alone" or len(modes) == 1) for modes in trips.values())


@settings(max_examples=60, deadline=None)
@given(questions())
def test_no_choice_is_cheaper_than_the_cheapest_plan(question):
    market = Market(structure.read(SourceGiven, question))
    lines = [_in_time(options) for i in range(len(market.given.lines)) if (options := market.options(i))]
    assume(math.prod(len(of_line) for of_line in lines) <= 3000)  # everything is tried
    best = min((total(chosen) for chosen in itertools.product(*lines) if possible(chosen)), default=0.0)
    solved = solve(lines, 5)
    assert possible(solved.chosen) and solved.optimal
    assert solved.cost == pytest.approx(best) and solved.bound == pytest.approx(best)
    answer = source_parts(market.given)
    assert answer.plans[0].cost.total == pytest.approx(best)
    # The other two serve their own end first, and may only cost more.
    cheapest, surest, quickest = answer.plans
    assert surest.p_all_in_time >= max(cheapest.p_all_in_time, quickest.p_all_in_time) - 1e-9
    assert min(surest.cost.total, quickest.cost.total) >= best - 1e-9
    if lines:
        assert (
            quickest.last_arrival == min(max(o.run.arrives for o in chosen) for chosen in itertools.product(*lines)).isoformat()
        )


def test_stopped_early_it_still_has_a_plan_and_says_how_far_from_the_bound_it_may_be():
    suppliers = [
        {
            **BRIDGE,
            "name": f"s{i}",
            "travel_min": 20 + 7 * i,
            "deliveries": [{"name": "van", "lead_days": 1 + i % 3, "price": 9 + i}],
        }
        for i in range(6)
    ]
    offers = [
        {
            "supplier": f"s{i}",
            "part": f"p{j}",
            "unit_price": 10 + (7 * i * j + 3 * i + j) % 23,
            "stock": 9,
            "p_stock": 1 - (i + j) % 3 / 5,
        }
        for i in range(6)
        for j in range(80)
        if (i * j + i + j) % 4
    ]
    lines = [line(f"{j}", f"p{j}", need_by="2026-12-01") for j in range(80)]
    steps = []
    asked = structure.read(
        SourceGiven,
        {
            "start": "2026-11-23T07:00",
            "lines": lines,
            "suppliers": suppliers,
            "offers": offers,
            "labour_rate": 60,
            "time_limit_s": 0.05,
        },
    )
    cheapest = source_parts(asked, lambda what, done, of: steps.append((what, done, of))).plans[0]
    assert len(cheapest.lines) == 80 and cheapest.bound <= cheapest.cost.total + 1e-6 and cheapest.gap_pct >= 0
    assert steps[0][1] == 0 and steps[-1][1] == steps[-1][2]
    assert [done for _, done, _ in steps] == sorted(done for _, done, _ in steps)
    assert all(dt.date.fromisoformat(one.arrives) for one in cheapest.lines)
