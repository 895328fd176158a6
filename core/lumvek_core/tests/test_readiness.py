"""Ready is said of a machine only where nothing stands in its way."""

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core import registry
from lumvek_core.errors import BadInput

TODAY = "2026-12-01"
SOUND = {"today": TODAY, "season_date": "2026-12-10", "looked_pct": 100}


def ask(**more):
    return registry.find("readiness").run(SOUND | more)


def job(done=False, finish="2026-12-05", **more):
    return {"id": "guards", "done": done, "finish": finish, **more}


def part(here=False, promised="2026-12-08"):
    return {"id": "bearing", "here": here, "promised": promised}


def test_nothing_open_is_ready_today():
    assert ask(jobs=[job(done=True)], parts=[part(here=True)]) == {
        "state": "ready", "ready_on": TODAY, "late_days": 0, "because": [],
    }  # fmt: skip


def test_a_stop_comes_before_everything_else():
    """“Ready 9 Dec” stood beside “Do not run or drive it”."""
    found = ask(stops=["Guard missing, main drive"], looked_pct=2, jobs=[job()])
    assert found == {"state": "not_fit", "ready_on": None, "late_days": None, "because": ["Guard missing, main drive"]}


@pytest.mark.parametrize(
    ("more", "state", "because"),
    [
        ({"looked_pct": None}, "not_known", ["nobody has looked at it"]),
        ({"looked_pct": 41}, "not_looked_at", ["41 % looked at, 80 % are enough"]),
        ({"unseen_safety": 1}, "not_looked_at", ["1 safety item not seen"]),
        (
            {"looked_pct": 79.9, "unseen_safety": 2},
            "not_looked_at",
            ["2 safety items not seen", "79 % looked at, 80 % are enough"],
        ),
        ({"questions": 1}, "ready_after", ["1 question not answered"]),
        ({"undecided": 2}, "ready_after", ["2 findings not decided"]),
    ],
)
def test_without_a_day_nobody_is_told_one(more, state, because):
    found = ask(**more, jobs=[job(done=True)])
    assert (found["state"], found["ready_on"], found["late_days"], found["because"]) == (state, None, None, because)


@pytest.mark.parametrize(
    ("jobs", "parts", "ready_on", "late_days"),
    [
        ([job()], [], "2026-12-05", 0),
        ([job(finish="2026-12-09")], [], "2026-12-09", 0),
        ([job(finish="2026-12-10")], [], "2026-12-10", 1),
        ([job(finish="2026-12-12"), job(done=True, finish="2027-01-01")], [], "2026-12-12", 3),
        ([job(part_here=False)], [part()], "2026-12-08", 0),
        ([job(finish=None)], [part()], None, None),
        ([job()], [part(promised=None)], None, None),
        ([], [part(promised="2026-12-11"), part(here=True, promised=None)], "2026-12-11", 2),
    ],
)
def test_it_is_ready_when_the_last_of_it_is_done_and_here(jobs, parts, ready_on, late_days):
    """A job that is put before its part comes is not done before the part is here."""
    found = ask(jobs=jobs, parts=parts)
    assert (found["state"], found["ready_on"], found["late_days"]) == ("ready_after", ready_on, late_days)


def test_without_a_season_nobody_is_late():
    assert ask(season_date=None)["late_days"] is None
    assert ask(season_date=TODAY)["late_days"] == 1


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"today": "soon"}, "today"),
        ({"season_date": "2026-02-30"}, "season_date"),
        ({"jobs": [job(), job(done=True, finish="x")]}, "jobs.1.finish"),
        ({"parts": [part(promised="8 Dec")]}, "parts.0.promised"),
        ({"looked_pct": 101}, "looked_pct"),
        ({"questions": -1}, "questions"),
    ],
)
def test_what_cannot_be_is_refused_at_its_field(more, field):
    with pytest.raises(BadInput) as refused:
        ask(**more)
    assert refused.value.field == field


days = st.dates(dt.date(2026, 11, 1), dt.date(2027, 3, 1)).map(dt.date.isoformat)
maybe = st.none() | days
states = st.fixed_dictionaries(
    {
        "today": days,
        "season_date": maybe,
        "looked_pct": st.none() | st.integers(0, 100),
        "enough_pct": st.integers(0, 100),
        "stops": st.lists(st.sampled_from(["brake", "shield"]), max_size=2),
        "unseen_safety": st.integers(0, 2),
        "questions": st.integers(0, 2),
        "undecided": st.integers(0, 2),
        "jobs": st.lists(st.builds(job, st.booleans(), maybe, part_here=st.booleans()), max_size=4),
        "parts": st.lists(st.builds(part, st.booleans(), maybe), max_size=4),
    }
)


@given(states)
def test_ready_is_never_said_with_anything_open(state):
    found = registry.find("readiness").run(state)
    open_jobs = [one for one in state["jobs"] if not one["done"]]
    open_parts = [one for one in state["parts"] if not one["here"]]
    if found["state"] == "ready":
        assert not (
            state["stops"] or state["unseen_safety"] or state["questions"] or state["undecided"] or open_jobs or open_parts
        )
        assert state["looked_pct"] is not None and state["looked_pct"] >= state["enough_pct"]
        assert found["ready_on"] == state["today"]
    assert (found["because"] == []) == (found["state"] == "ready")
    if found["ready_on"] and found["state"] == "ready_after":
        assert all(found["ready_on"] >= (one.get("finish") or one.get("promised")) for one in open_jobs + open_parts)
    if found["state"] in ("not_fit", "not_known", "not_looked_at"):
        assert found["ready_on"] is None
    assert (found["late_days"] is None) == (found["ready_on"] is None or state["season_date"] is None)
