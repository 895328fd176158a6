"""Jobs out of findings, how long they take here, how sure a day is, weather and calendar files."""

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core.catalogue.load import shipped
from lumvek_core.errors import BadInput
from lumvek_core.files.calendars import MOST_EVENTS, events_of
from lumvek_core.planning.season import jobs
from lumvek_core.planning.season.jobs import Found
from lumvek_core.planning.season.readiness import WorkLeft, ready_between
from lumvek_core.simulators.weather import KNOWN_DAYS, dry_spells

CATALOGUE = shipped()
TIMES = CATALOGUE.work


def work(*found):
    return {one.key: one for one in jobs.from_findings(TIMES, CATALOGUE.strip_downs, found)}


def renew(slot, places=("1L",), posture="shields open, engine off", **more):
    return Found("Heron 4", f"new:{slot}", f"Renew {slot}", "replace", [*places], posture, renews=[slot], **more)


def test_minutes_come_from_the_action_and_the_number_of_places():
    adjust = Found("Dunmere 12", "gauge-wheel-gap", "Adjust", "adjust", ["1L", "2L", "3L"], "folded")
    assert work(adjust)["work:gauge-wheel-gap"].minutes == 20 + 2 * 8
    assert work(renew("seed-firmer", labour_h=0.2, places=["1", "2"]))["work:new:seed-firmer"].minutes == 24


def test_where_it_is_done_follows_from_the_posture():
    run = Found("Dunmere 12", "x", "Run", "recheck", ["1"], "dry run, creeping, tools up, no seed")
    assert (work(run)["work:x"].place, work(run)["work:x"].weather_bound) == ("outside", True)
    bench = Found("Dunmere 12", "x", "Clean", "clean", ["1"], "bench")
    assert (work(bench)["work:x"].place, work(bench)["work:x"].posture, work(bench)["work:x"].weather_bound) == (
        "bench",
        None,
        False,
    )
    assert work(Found("m", "x", "n", "repair", ["1"], "folded", hazards=["sharp", "welding"]))["work:x"].skill == "welding"


def test_work_behind_one_strip_down_shares_it():
    found = work(renew("feeder-chain", parts=["TH-2000"]), renew("feeder-sprockets"), renew("chopper-knife"))
    strip, refit = found["strip:feeder-out"], found["refit:feeder-out"]
    assert (strip.minutes, refit.minutes, strip.hands, strip.parts) == (135, 165, 2, [])
    assert found["work:new:feeder-chain"].after == [strip.key] == found["work:new:feeder-sprockets"].after
    assert refit.after == ["work:new:feeder-chain", "work:new:feeder-sprockets"]
    assert found["work:new:chopper-knife"].after != [strip.key]


def test_a_short_strip_down_is_part_of_the_work():
    assert set(work(renew("opener-disc"))) == {"work:new:opener-disc"}


def test_what_is_learned_begins_at_the_catalogue_and_goes_to_what_was_taken():
    assert jobs.learned(60, []) == jobs.Learned(60, 0)
    assert jobs.learned(60, [2.0]).minutes == 80
    many = jobs.learned(60, [2.0] * 98)
    assert many.minutes == pytest.approx(60 * (2 + 196) / 100) and (many.low, many.high) == (120, 120)


@given(st.floats(1, 500), st.lists(st.floats(0.1, 5), min_size=1, max_size=20))
def test_what_is_learned_lies_between_the_catalogue_and_what_was_taken(usual, shares):
    found = jobs.learned(usual, shares)
    assert usual * min(1, *shares) * (1 - 1e-9) <= found.minutes <= usual * max(1, *shares) * (1 + 1e-9)
    if found.low is not None:
        assert usual * min(shares) * (1 - 1e-9) <= found.low <= found.high <= usual * max(shares) * (1 + 1e-9)


DAY = dt.datetime(2026, 3, 5)
SHIFTS = [(DAY + dt.timedelta(days=i, hours=8), DAY + dt.timedelta(days=i, hours=12)) for i in range(5)]


def test_the_day_a_machine_is_ready_has_a_range_along_working_time():
    found = ready_between(DAY + dt.timedelta(days=1, hours=9), [WorkLeft(240, 120, 420)], SHIFTS)
    assert found.hours == 4
    assert (found.first, found.last) == (DAY + dt.timedelta(hours=11), DAY + dt.timedelta(days=1, hours=12))
    untimed = ready_between(DAY + dt.timedelta(days=1, hours=9), [WorkLeft(240)], SHIFTS)
    assert (untimed.first, untimed.last) == (DAY + dt.timedelta(days=1, hours=8), DAY + dt.timedelta(days=1, hours=11))


def test_spreads_of_several_jobs_cancel_out_in_part():
    one = ready_between(SHIFTS[2][0], [WorkLeft(60, 30, 90)], SHIFTS)
    four = ready_between(SHIFTS[2][0], [WorkLeft(60, 30, 90)] * 4, SHIFTS)
    assert (four.last - SHIFTS[2][0]) == 2 * (one.last - SHIFTS[2][0])


def test_a_forecast_is_the_same_for_whoever_asks_and_reaches_two_weeks():
    first = dry_spells(dt.date(2026, 12, 5))
    assert first == dry_spells(dt.date(2026, 12, 5), days=60) and first
    assert all(one["start"] < one["end"] for one in first)
    assert first[-1]["end"] < (dt.date(2026, 12, 5) + dt.timedelta(days=KNOWN_DAYS)).isoformat()
    later = {one["end"] for one in dry_spells(dt.date(2026, 12, 6))}
    assert {one["end"] for one in first[1:]} <= later | {first[-1]["end"]}, "a day later it says the same of the same days"


def ics(*events):
    body = "".join(f"BEGIN:VEVENT\r\nUID:{i}\r\n{one}\r\nEND:VEVENT\r\n" for i, one in enumerate(events))
    return f"BEGIN:VCALENDAR\r\nVERSION:2.0\r\n{body}END:VCALENDAR\r\n"


@pytest.mark.parametrize(
    ("event", "found"),
    [
        ("DTSTART:20261207T080000\r\nDTEND:20261208T180000", ["2026-12-07T08:00:00", "2026-12-08T18:00:00"]),
        ("DTSTART:20261207T080000Z\r\nDURATION:PT6H", ["2026-12-07T08:00:00+00:00", "2026-12-07T14:00:00+00:00"]),
        ("DTSTART;VALUE=DATE:20261207", ["2026-12-07T00:00:00", "2026-12-08T00:00:00"]),
        ("DTSTART;VALUE=DATE:20261207\r\nDTEND;VALUE=DATE:20261210", ["2026-12-07T00:00:00", "2026-12-10T00:00:00"]),
    ],
)
def test_events_of_a_calendar_are_read_as_they_stand(event, found):
    assert events_of(ics(event)) == [found]


@pytest.mark.parametrize(
    "text",
    ["", "soon", "BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n", ics("SUMMARY:dry"), ics("DTSTART:20269999"), ics(*["DTSTART:20261207T080000"] * (MOST_EVENTS + 1)),
     "x" * 600_000, "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\n"],
)  # fmt: skip
def test_what_is_no_calendar_of_spells_is_refused(text):
    with pytest.raises(BadInput) as refused:
        events_of(text)
    assert refused.value.field == "file"
