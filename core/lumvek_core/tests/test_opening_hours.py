"""Opening hours as people write them, read and said again."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core import opening_hours
from lumvek_core.errors import BadInput


def openings(days, opens, closes):
    return [{"weekday": day, "from": opens, "to": closes} for day in days]


WEEK = range(5)


@pytest.mark.parametrize(
    ("typed", "means", "said"),
    [
        ("Mon–Fri 07:30–17:00", openings(WEEK, "07:30", "17:00"), "Mon–Fri 07:30–17:00"),
        ("monday - friday 7.30 - 17:00", openings(WEEK, "07:30", "17:00"), "Mon–Fri 07:30–17:00"),
        ("Sat 8:00-12:00", openings([5], "08:00", "12:00"), "Sat 08:00–12:00"),
        (
            "Mon-Fri 07:30-12:00, 12:45-16:30, Sat 08:00-12:00",
            openings(WEEK, "07:30", "12:00") + openings(WEEK, "12:45", "16:30") + openings([5], "08:00", "12:00"),
            "Mon–Fri 07:30–12:00, 12:45–16:30, Sat 08:00–12:00",
        ),
        (
            "Mon-Fri 07:30-12:00; Mon-Fri 12:45-16:30",
            openings(WEEK, "07:30", "12:00") + openings(WEEK, "12:45", "16:30"),
            "Mon–Fri 07:30–12:00, 12:45–16:30",
        ),
        (
            "Mon-Fri 07:30-12:00\nMon-Thu 12:45-16:30",
            openings(WEEK, "07:30", "12:00") + openings(range(4), "12:45", "16:30"),
            "Mon–Fri 07:30–12:00, Mon–Thu 12:45–16:30",
        ),
        ("", [], ""),
    ],
)
def test_read_and_said(typed, means, said):
    assert opening_hours.read(typed) == means
    assert opening_hours.shown(means) == said


@pytest.mark.parametrize(
    ("typed", "says"),
    [
        ("07:30–12:00", "“07:30–12:00” is not like Mon–Fri 07:30–17:00"),  # of which days?
        ("Mon–Fri", "“Mon–Fri” is not like Mon–Fri 07:30–17:00"),
        ("Mon–Fri 07:30–17:00, whenever", "“whenever” is not like Mon–Fri 07:30–17:00"),
        ("Fri–Mon 07:30–17:00", "“Fri–Mon 07:30–17:00” runs backwards: write the days from Monday on"),
        ("Mon 17:00–07:30", "“Mon 17:00–07:30” closes before it opens"),
        ("Mon 07:30–07:30", "“Mon 07:30–07:30” closes before it opens"),
        ("Mon 25:00–26:00", "“25:00” is no time of day"),
        ("Moo 07:30–17:00", "“Moo” is no day; write Mon, Tue, Wed, Thu, Fri, Sat or Sun"),
    ],
)
def test_what_cannot_be_meant_is_refused_at_its_part(typed, says):
    with pytest.raises(BadInput) as problem:
        opening_hours.read(typed)
    assert (problem.value.field, problem.value.message) == ("hours", says)


@st.composite
def weeks(draw):
    """Openings of a week: on each day some hours of a few that are usual, none twice."""
    hours = [("07:30", "12:00"), ("12:45", "16:30"), ("08:00", "12:00"), ("18:00", "20:15")]
    return [
        {"weekday": day, "from": opens, "to": closes}
        for day in range(7)
        for opens, closes in draw(st.lists(st.sampled_from(hours), unique=True, max_size=3))
    ]


@given(weeks())
def test_what_is_said_reads_as_what_was_meant(week):
    def ordered(found):
        return sorted(found, key=lambda one: (one["weekday"], one["from"], one["to"]))

    assert ordered(opening_hours.read(opening_hours.shown(week))) == ordered(week)


@pytest.mark.parametrize(("typed", "means"), [("2026-12-24, 2026-12-31", ["2026-12-24", "2026-12-31"]), ("", [])])
def test_closed_days(typed, means):
    assert opening_hours.days(typed) == means


def test_a_day_that_no_calendar_has_is_refused():
    with pytest.raises(BadInput, match="“2026-02-30” is not a day such as 2026-12-24"):
        opening_hours.days("2026-02-30")
