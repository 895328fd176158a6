"""A shop too large to be planned to the hour: which machines are, and when the others will roughly be ready."""

import datetime as dt

import pytest
from hypothesis import given as drawn
from hypothesis import strategies as st

from lumvek_core import registry
from lumvek_core.errors import BadInput
from lumvek_core.planning.season.nearest import Waiting, nearest

MONDAY = dt.date(2027, 1, 4)


def at(days, hour=8):
    return f"{MONDAY + dt.timedelta(days=days)}T{hour:02d}:00"


def person(name="Ines", days=5, skills=(), hours=8):
    shifts = [{"start": at(day), "end": at(day, 8 + hours)} for day in range(days)]
    return {"name": name, "shifts": shifts, "skills": list(skills)}


def machine(name="Heron 6", *jobs, **more):
    return {"name": name, "jobs": list(jobs), **more}


def roughly(*machines, people=None, **more):
    raw = {"now": at(0), "technicians": people or [person()], "machines": list(machines), "room": 1, **more}
    return {one["name"]: one for one in registry.find("season_roughly").run(raw)["machines"]}


def test_work_of_twelve_hours_is_done_on_the_second_day():
    found = roughly(machine("Heron 6", {"minutes": 720}))["Heron 6"]
    assert (found["begins"], found["ready"], found["hours"]) == ("2027-01-04", "2027-01-05", 12)


def test_of_free_time_four_fifths_are_counted_where_nothing_is_said():
    raw = {"now": at(0), "technicians": [person()], "machines": [machine("Heron 6", {"minutes": 480})]}
    assert registry.find("season_roughly").run(raw)["machines"][0]["ready"] == "2027-01-05"


def test_the_season_s_nearest_comes_first_and_without_a_date_last():
    found = roughly(
        machine("Heron 6", {"minutes": 480}),
        machine("Sill 61", {"minutes": 480}, season_date="2027-01-07"),
        machine("Corvane 90", {"minutes": 480}, season_date="2027-01-06"),
    )
    assert [found[name]["ready"] for name in ("Corvane 90", "Sill 61", "Heron 6")] == ["2027-01-04", "2027-01-05", "2027-01-06"]


@pytest.mark.parametrize(("season", "late"), [("2027-01-05", 0), ("2027-01-04", 1), ("2027-01-02", 3), (None, None)])
def test_ready_the_day_before_the_season_is_in_time(season, late):
    assert roughly(machine("Heron 6", {"minutes": 60}, season_date=season))["Heron 6"]["late_days"] == late


def test_what_is_planned_already_and_parts_to_come_hold_it_up():
    busy = [{"technician": "Ines", "start": at(0), "end": at(0, 16)}]
    assert roughly(machine("Heron 6", {"minutes": 60}), busy=busy)["Heron 6"]["begins"] == "2027-01-05"
    assert roughly(machine("Heron 6", {"minutes": 60, "not_before": "2027-01-07"}))["Heron 6"]["ready"] == "2027-01-07"


def test_two_hands_take_two_people_s_time_and_a_skill_its_own():
    people = [person(skills=["welding"]), person("Tomas")]
    found = roughly(machine("Heron 6", {"minutes": 480, "hands": 2}, {"minutes": 480, "skill": "welding"}), people=people)
    assert found["Heron 6"]["ready"] == "2027-01-05"


def test_no_more_are_on_a_machine_than_find_room():
    people = [person(), person("Tomas"), person("Bram")]
    assert roughly(machine("Heron 6", {"minutes": 24 * 60}, max_hands=1), people=people)["Heron 6"]["ready"] == "2027-01-06"


@pytest.mark.parametrize(
    ("job", "why"),
    [
        ({"minutes": 60, "waits": True}, "nobody knows when its parts come"),
        ({"minutes": 60, "skill": "welding"}, "nobody has the skill welding"),
        ({"minutes": 5000}, "no time is left in the days ahead"),
    ],
)
def test_what_has_no_day_says_why(job, why):
    found = roughly(machine("Heron 6", {"minutes": 60}, job))["Heron 6"]
    assert (found["ready"], found["late_days"], found["without"]) == (None, None, why)


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"busy": [{"technician": "Nobody", "start": at(0), "end": at(1)}]}, "busy.0.technician"),
        ({"busy": [{"technician": "Ines", "start": at(1), "end": at(0)}]}, "busy.0.end"),
        ({"now": "soon"}, "now"),
    ],
)
def test_bad_input_is_named_at_its_place(more, field):
    with pytest.raises(BadInput) as refused:
        roughly(machine("Heron 6", {"minutes": 60}), **more)
    assert refused.value.field == field


JOBS = st.builds(
    lambda minutes, hands, later: {"minutes": minutes, "hands": hands, "not_before": str(MONDAY + dt.timedelta(days=later))},
    st.integers(5, 900), st.integers(1, 2), st.integers(0, 4),
)  # fmt: skip


@drawn(st.lists(st.lists(JOBS, min_size=1, max_size=4), min_size=1, max_size=6), st.integers(1, 3))
def test_nothing_is_done_before_its_parts_nor_in_more_time_than_there_is(fleet, many):
    people = [person(f"person {i}", days=20) for i in range(many)]
    found = roughly(*(machine(f"machine {i}", *jobs) for i, jobs in enumerate(fleet)), people=people)
    done = [(found[f"machine {i}"], jobs) for i, jobs in enumerate(fleet)]
    for one, jobs in done:
        assert one["ready"] is None or one["ready"] >= max(job["not_before"] for job in jobs)
    for last in {one["ready"] for one, _ in done if one["ready"]}:
        days = sum((MONDAY + dt.timedelta(days=i)).isoformat() <= last for i in range(20))
        hours = sum(one["hours"] for one, _ in done if one["ready"] and one["ready"] <= last)
        assert hours <= days * 8 * many + 1e-6


# Which are planned to the hour


def waiting(number, days=None, jobs=5, **more):
    return Waiting(number, f"machine {number}", jobs, MONDAY + dt.timedelta(days=days) if days is not None else None, **more)


def test_the_season_s_nearest_are_planned_as_many_as_there_is_room_for():
    fleet = [waiting(1), waiting(2, 30), waiting(3, 10), waiting(4, 20, jobs=40)]
    assert nearest(fleet, most_machines=2, most_jobs=50) == {3, 4}
    assert nearest(fleet, most_machines=3, most_jobs=20) == {1, 2, 3}, "one with too much work leaves its place to the next"


def test_what_is_under_way_stays_in_the_plan_whatever_is_chosen():
    fleet = [waiting(1, held=True), waiting(2, 30), waiting(3, 10)]
    assert nearest(fleet, most_machines=1) == {1}
    assert nearest(fleet, {2}, most_machines=2) == {1, 2}
    assert nearest(fleet, {2}) == {1, 2, 3}, "what was chosen comes first, and the season's nearest fill what is left"
