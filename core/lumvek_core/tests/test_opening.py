"""When a supplier can be driven to, and when what is ordered arrives: closed days, cutoffs, working days, and the long way
home."""

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core.planning.opening import hours
from lumvek_core.planning.sourcing_model import Delivery, Opening, SourceSupplier

SATURDAY, SUNDAY, MONDAY = (dt.date(2026, 11, day) for day in (28, 29, 30))
WEEK = [Opening(day, "07:30", "17:00") for day in range(5)]


def supplier(opens=WEEK, **more):
    return hours(SourceSupplier("s", open=opens, **({"travel_min": 60, "call_min": 5} | more)), "suppliers.0")


def at(day, text):
    return dt.datetime.combine(day, dt.time.fromisoformat(text))


def test_one_stands_at_the_counter_when_it_opens_and_not_before():
    journey = supplier().journey(MONDAY, at(MONDAY, "00:00"))
    assert (journey.leave, journey.back, journey.call) == (at(MONDAY, "06:30"), at(MONDAY, "08:45"), None)


def test_the_last_trip_of_a_day_still_has_its_minutes_at_the_counter():
    times = supplier()
    assert times.journey(MONDAY, at(MONDAY, "15:45")).back == at(MONDAY, "18:00")
    assert times.journey(MONDAY, at(MONDAY, "15:46")) is None


def test_over_the_lunch_break_one_goes_in_the_afternoon():
    times = supplier([Opening(0, "13:00", "17:00"), Opening(0, "08:00", "12:00")])
    assert times.journey(MONDAY, at(MONDAY, "10:45")).leave == at(MONDAY, "10:45")
    assert times.journey(MONDAY, at(MONDAY, "11:00")).leave == at(MONDAY, "12:00")


def test_a_call_is_made_at_opening_time_and_the_trip_begins_when_it_has_ended():
    journey = supplier().journey(MONDAY, at(MONDAY, "05:00"), called=True)
    assert (journey.call, journey.leave, journey.back) == (at(MONDAY, "07:30"), at(MONDAY, "07:35"), at(MONDAY, "09:50"))


def test_closed_days_are_passed_over():
    times = supplier(closed=["2026-11-30"])
    assert times.first_journey(at(SATURDAY, "09:00"), SATURDAY + dt.timedelta(days=9)).date == MONDAY + dt.timedelta(days=1)
    assert times.first_journey(at(SATURDAY, "09:00"), MONDAY) is None


def test_who_lives_too_far_is_not_fetched_from():
    far = supplier([Opening(0, "08:00", "22:00")], travel_min=715)
    assert far.journey(MONDAY, at(MONDAY, "00:00")) is None, "nobody is back the same day"


@pytest.mark.parametrize(
    ("ordered", "goes_out", "arrives"),
    [
        (at(SATURDAY, "09:00"), MONDAY, dt.date(2026, 12, 2)),
        (at(MONDAY, "14:59"), MONDAY, dt.date(2026, 12, 2)),
        (at(MONDAY, "15:00"), MONDAY, dt.date(2026, 12, 2)),
        (at(MONDAY, "15:01"), dt.date(2026, 12, 1), dt.date(2026, 12, 3)),
        (at(dt.date(2026, 12, 3), "09:00"), dt.date(2026, 12, 3), dt.date(2026, 12, 7)),
    ],
)
def test_a_working_service(ordered, goes_out, arrives):
    way = Delivery("van", 2, cutoff="15:00")
    times = supplier(deliveries=[way])
    out = times.goes_out(way, ordered, MONDAY + dt.timedelta(days=30))
    assert (out, times.arrival(way, out)) == (goes_out, arrives)


def test_a_service_of_every_day_arrives_on_sunday_but_goes_out_only_when_they_are_open():
    way = Delivery("courier", 1, working=False)
    every = supplier([], deliveries=[way])
    assert every.goes_out(way, at(SATURDAY, "18:00"), MONDAY) == SATURDAY and every.arrival(way, SATURDAY) == SUNDAY
    assert supplier(deliveries=[way]).goes_out(way, at(SATURDAY, "18:00"), MONDAY) == MONDAY


@given(
    st.dictionaries(st.integers(0, 6), st.tuples(st.integers(0, 11), st.integers(12, 23)), min_size=1),
    st.integers(0, 400),
    st.integers(0, 60),
    st.integers(0, 6),
    st.integers(0, 23),
    st.booleans(),
)
def test_every_journey_stands_inside_opening_hours_and_is_back_the_same_day(days, travel, counter, day, hour, called):
    opens = [Opening(weekday, f"{span[0]:02}:00", f"{span[1]:02}:00") for weekday, span in days.items()]
    times = supplier(opens, travel_min=travel, counter_min=counter)
    earliest = at(SATURDAY + dt.timedelta(days=day), f"{hour:02}:00")
    journey = times.first_journey(earliest, SATURDAY + dt.timedelta(days=20), called=called)
    if journey is None:
        return
    arrive = journey.leave + dt.timedelta(minutes=travel)
    span = days[journey.date.weekday()]
    assert at(journey.date, f"{span[0]:02}:00") <= arrive
    assert arrive + dt.timedelta(minutes=counter) <= at(journey.date, f"{span[1]:02}:00")
    assert journey.leave >= earliest and journey.back - journey.leave == dt.timedelta(minutes=2 * travel + counter)
    assert journey.back <= at(journey.date, "00:00") + dt.timedelta(days=1)
    if called:
        assert earliest <= journey.call <= journey.leave - dt.timedelta(minutes=5)


@given(st.integers(0, 13), st.integers(0, 14), st.booleans())
def test_later_orders_never_arrive_earlier(day, lead, working):
    way = Delivery("van", lead, working=working)
    times = supplier(deliveries=[way])
    last = MONDAY + dt.timedelta(days=60)
    arrivals = [
        times.arrival(way, times.goes_out(way, at(SATURDAY + dt.timedelta(days=d), "09:00"), last)) for d in (day, day + 1)
    ]
    assert arrivals[0] <= arrivals[1]
    assert not working or arrivals[0].weekday() < 5
