"""The season's plan: rule by rule on small shops, against trying everything, and no rule broken on large ones."""

import pytest
from hypothesis import given, settings

from lumvek_core.errors import BadInput
from lumvek_core.tests.drawn_shops import shop
from lumvek_core.tests.season_checker import Checker, at
from lumvek_core.tests.small_season import DAYS, PLAN, asked, day, planned, small_shops, when


def test_a_job_stops_at_the_end_of_the_shift_and_goes_on_with_the_same_person():
    jobs, _ = planned(asked({"minutes": 360}))
    assert jobs["j0"]["parts"] == [
        {"start": "2026-03-02T08:00", "end": "2026-03-02T12:00"},
        {"start": "2026-03-03T08:00", "end": "2026-03-03T10:00"},
    ]


def test_what_cannot_be_left_waits_for_a_shift_that_is_long_enough():
    tomas = {"name": "Tomas", "shifts": [day(0, 10), day(1)]}
    jobs, _ = planned(asked({"minutes": 180, "splittable": False}, people=[tomas]))
    assert when(jobs["j0"]) == ("03-03 08", "03-03 11")


def test_two_hands_are_two_people_throughout_one_with_the_skill():
    ines = {"name": "Ines", "shifts": [day(1), day(2)], "skills": ["welding"]}
    maud = {"name": "Maud", "shifts": [day(0)]}
    jobs, _ = planned(asked({"minutes": 300, "hands": 2, "skill": "welding"}, people=["Tomas", ines, maud]))
    assert jobs["j0"]["technicians"] == ["Tomas", "Ines"] and when(jobs["j0"]) == ("03-03 08", "03-04 09")


def test_a_posture_is_changed_once_and_takes_its_time():
    jobs, answer = planned(asked({"posture": "down"}, {"posture": "up"}, {"posture": "down"}, {"posture": "up"},
                                 machines=[{"name": "Heron 6", "posture": "up"}]))  # fmt: skip
    assert answer["objective"]["posture_moves"] == 1 and len(answer["posture_moves"]) == 1
    assert answer["posture_moves"][0] == {
        "machine": "Heron 6", "start": "2026-03-02T10:00", "from": "up", "to": "down", "minutes": 60
    }  # fmt: skip
    assert {when(jobs[name])[0] for name in ("j1", "j3")} == {"03-02 08", "03-02 09"}


def test_two_people_work_on_one_machine_in_one_posture_and_no_more_than_find_room():
    question = asked({"posture": "up"}, {"posture": "up"}, {"posture": "up"}, people=["Tomas", "Ines", "Ada"])
    jobs, _ = planned(question)
    assert sorted(when(job)[0] for job in jobs.values()) == ["03-02 08", "03-02 08", "03-02 09"]


def test_bench_work_goes_on_beside_in_any_posture():
    jobs, _ = planned(asked({"posture": "up", "hands": 2}, {"place_kind": "bench"}, people=["Tomas", "Ines", "Ada"]))
    assert [when(job)[0] for job in jobs.values()] == ["03-02 08", "03-02 08"]
    assert (jobs["j1"]["place"], jobs["j1"]["posture"]) == (None, None)


def test_a_machine_holds_the_bay_until_it_is_shunted():
    two = [{"name": "Heron 6"}, {"name": "Heron 4"}]
    jobs, _ = planned(asked({}, {"machine": "Heron 4"}, people=["Tomas", "Ines"], machines=two))
    assert sorted(when(job)[0] for job in jobs.values()) == ["03-02 08", "03-02 10"], "an hour to shunt between them"


def test_what_is_as_wide_as_the_door_stays_outside():
    for width, place in ((5199, "Bay"), (5200, "Yard"), (5900, "Yard")):
        jobs, _ = planned(asked({}, machines=[{"name": "Heron 6", "width_mm": width}]))
        assert jobs["j0"]["place"] == place
    nowhere = PLAN(asked({}, machines=[{"name": "Heron 6", "width_mm": 5900}], places=[
        {"name": "Bay", "kind": "bay", "door_width_mm": 5200}]))  # fmt: skip
    assert "no door it passes" in nowhere["unplaced"][0]["reason"]


def test_weather_matters_outside_alone():
    dry = [{"start": f"{DAYS[1]}T10:00", "end": f"{DAYS[2]}T10:00"}]
    wet = {"weather_bound": True, "minutes": 180}
    inside, _ = planned(asked(wet, dry=dry))
    assert when(inside["j0"]) == ("03-02 08", "03-02 11")
    outside, _ = planned(asked(wet, dry=dry, machines=[{"name": "Heron 6", "width_mm": 6000}]))
    assert when(outside["j0"]) == ("03-03 10", "03-04 09")
    never = PLAN(asked(wet, dry=[], machines=[{"name": "Heron 6", "width_mm": 6000}]))
    assert never["unplaced"] == [{"id": "j0", "reason": "no dry spell in the plan is long enough for it"}]


def test_nothing_begins_before_its_parts_and_what_comes_before_it():
    chain = {"parts": [{"id": "chain", "arrives": f"{DAYS[1]}T09:00"}], "after": ["j1"]}
    jobs, _ = planned(asked(chain, {}, {}))
    assert when(jobs["j0"]) == ("03-03 09", "03-03 10")
    unknown = PLAN(asked({"parts": [{"id": "chain", "arrives": None}]}, {"after": ["j0"]}))
    assert [one["reason"] for one in unknown["unplaced"]] == [
        "nobody knows when chain comes",
        "comes after j0, which has no place in the plan",
    ]


def test_lifts_are_taken_one_after_the_other():
    two = [{"name": "Heron 6"}, {"name": "Heron 4"}]
    lifting = {"lift": True, "place_kind": "outside"}
    jobs, _ = planned(asked(lifting, {**lifting, "machine": "Heron 4"}, people=["Tomas", "Ines"], machines=two, lifts=1))
    assert sorted(when(job)[0] for job in jobs.values()) == ["03-02 08", "03-02 09"]


def test_ready_is_by_the_end_of_the_last_shift_before_the_season_date():
    _, answer = planned(asked({"minutes": 240}, machines=[{"name": "Heron 6", "season_date": DAYS[1]}]))
    assert (answer["machines"][0]["due"], answer["machines"][0]["late_h"]) == ("2026-03-02T12:00", 0)
    _, answer = planned(asked({"minutes": 300}, machines=[{"name": "Heron 6", "season_date": DAYS[1], "priority": 2.5}]))
    assert (answer["machines"][0]["ready"], answer["machines"][0]["late_h"]) == ("2026-03-03T09:00", 21)
    assert answer["objective"]["late_h"] == 52.5 and answer["optimal"] and answer["gap_pct"] == 0


def test_the_more_pressing_machine_goes_first():
    fleet = [{"name": "Heron 6", "season_date": DAYS[1]}, {"name": "Heron 4", "season_date": DAYS[1], "priority": 2}]
    jobs, _ = planned(asked({"minutes": 240}, {"minutes": 240, "machine": "Heron 4"}, machines=fleet))
    assert when(jobs["j1"])[0] == "03-02 08" and when(jobs["j0"])[0] == "03-03 09", "an hour to shunt between them"


# Pins


def conflicts(answer):
    return [(one["id"], one["rule"], one["with"]) for one in answer["conflicts"]]


def test_a_pin_stays_and_everything_else_gives_way():
    jobs, answer = planned(asked({"minutes": 180}, {"pin": {"start": f"{DAYS[0]}T09:00"}}))
    assert when(jobs["j1"]) == ("03-02 09", "03-02 10") and when(jobs["j0"]) == ("03-02 10", "03-03 09")
    assert answer["conflicts"] == []


def test_who_and_where_can_be_pinned_too():
    question = asked({"pin": {"start": f"{DAYS[0]}T09:00", "technicians": ["Ines"]}}, people=["Tomas", "Ines"])
    assert planned(question)[0]["j0"]["technicians"] == ["Ines"]


@pytest.mark.parametrize(
    ("job", "more", "rule", "says"),
    [
        ({"pin": {"start": f"{DAYS[0]}T13:00"}}, {}, "start", "Tomas does not work then"),
        ({"pin": {"start": "2026-03-01T09:00"}}, {}, "start", "it lies before now"),
        ({"pin": {"start": "2026-04-01T09:00"}}, {}, "start", "it lies behind the end of the plan"),
        ({"pin": {"start": f"{DAYS[0]}T11:00"}, "minutes": 120, "splittable": False}, {}, "start", "in one go"),
        ({"pin": {"start": f"{DAYS[0]}T09:00"}, "parts": [{"id": "chain", "arrives": DAYS[1]}]}, {}, "parts", "chain is not here"),
        ({"pin": {"start": f"{DAYS[0]}T09:00"}, "parts": [{"id": "chain", "arrives": None}]}, {}, "parts", "nobody knows"),
        ({"pin": {"start": f"{DAYS[0]}T09:00"}, "skill": "welding"}, {}, "skill", "skill welding"),
        ({"pin": {"start": f"{DAYS[0]}T08:00"}, "posture": "up"}, {}, "posture", "so soon"),
        ({"pin": {"start": f"{DAYS[0]}T09:00", "place": "Bay"}}, {"width_mm": 5900}, "place", "does not pass the door of Bay"),
        ({"pin": {"start": f"{DAYS[0]}T09:00"}, "weather_bound": True, "place_kind": "outside"}, {}, "weather", "not dry"),
    ],
)  # fmt: skip
def test_a_pin_that_contradicts_a_rule_stays_and_is_said(job, more, rule, says):
    answer = PLAN(asked(job, {}, machines=[{"name": "Heron 6", "posture": "down", **more}]))
    assert (answer["conflicts"][0]["id"], answer["conflicts"][0]["rule"]) == ("j0", rule)
    assert says in answer["conflicts"][0]["words"]
    there = next(one for one in answer["jobs"] if one["id"] == "j0")
    assert there["parts"][0]["start"] == job["pin"]["start"]


def test_two_pins_that_contradict_each_other_both_stay():
    both = [
        {"pin": {"start": f"{DAYS[0]}T09:00"}, "minutes": 120},
        {"pin": {"start": f"{DAYS[0]}T10:00"}, "place_kind": "bench"},
    ]
    answer = PLAN(asked(*both, {}))
    assert conflicts(answer) == [("j1", "hands", "j0")]
    assert answer["conflicts"][0]["words"] == "Tomas would be at “j0” at the same time"
    assert [job["parts"][0]["start"][11:] for job in answer["jobs"][:2]] == ["09:00", "10:00"]
    assert conflicts(PLAN(asked(*both, {}, people=["Tomas", "Ines"]))) == [], "with two people there is none"


def test_a_pin_that_leaves_no_time_for_what_comes_before_it_is_said():
    answer = PLAN(asked({"minutes": 180}, {"pin": {"start": f"{DAYS[0]}T10:00"}, "after": ["j0"]}))
    assert conflicts(answer) == [("j1", "after", "j0")]
    assert len(answer["jobs"]) == 2 and answer["unplaced"] == []


# Planning again


def test_planning_again_moves_as_little_as_possible():
    question = asked({"minutes": 120}, {"minutes": 60}, {"minutes": 120}, people=["Tomas", "Ines"])
    _, first = planned(question)
    question["previous"] = [
        {"id": job["id"], "start": job["parts"][0]["start"], "technicians": job["technicians"]} for job in first["jobs"]
    ]
    assert planned(question)[1]["objective"]["moved"] == 0
    question["technicians"][0]["shifts"] = [day(1), day(2)]  # Tomas is ill today
    hit = [job["id"] for job in first["jobs"] if job["technicians"] == ["Tomas"]]
    _, again = planned(question)
    assert again["objective"]["moved"] == len(hit)


def test_what_begins_soon_is_left_where_it_stands():
    fleet = [{"name": "Heron 6"}, {"name": "Heron 4", "season_date": DAYS[1]}]
    jobs = [{"place_kind": "bench"}, {"machine": "Heron 4", "minutes": 180, "splittable": False, "place_kind": "bench"}]
    previous = [{"id": "j0", "start": f"{DAYS[0]}T09:00", "technicians": ["Tomas"]}]
    question = asked(*jobs, machines=fleet, previous=previous)
    _, moved = planned(question)
    assert (moved["objective"]["moved"], moved["objective"]["late_h"]) == (1, 0)
    held, kept = planned({**question, "freeze_h": 5})
    assert when(held["j0"])[0] == "03-02 09" and kept["machines"][1]["late_h"] == 23
    ill = {"name": "Tomas", "shifts": [day(1)]}
    assert planned({**question, "freeze_h": 5, "technicians": [ill]})[1]["conflicts"] == [], "nobody is there to hold it"


def test_what_was_to_begin_soon_waits_for_what_has_come_before_it():
    jobs = [{"minutes": 180}, {"minutes": 60, "after": ["j0"]}]
    question = asked(*jobs, previous=[{"id": "j1", "start": f"{DAYS[0]}T09:00", "technicians": ["Tomas"]}], freeze_h=5)
    found, answer = planned(question)
    assert answer["conflicts"] == [] and when(found["j0"])[1] <= when(found["j1"])[0]


def test_work_that_lies_over_a_night_ends_when_it_is_done():
    """Both of its starts rest for as long: then too what it rests for counts."""
    wet = {"minutes": 180, "place_kind": "outside", "weather_bound": True}
    people = [{"name": "Tomas", "shifts": [day(1, 8, 10), day(2, 8, 11)]},
              {"name": "Ines", "shifts": [day(0, 9, 11), day(2, 9, 10)]}]  # fmt: skip
    question = asked(wet, people=people, machines=[{"name": "Heron 6", "season_date": DAYS[2]}], dry=[day(1, 0, 10), day(2, 9, 23)],
                     previous=[{"id": "j0", "start": f"{DAYS[1]}T09:00", "technicians": ["Tomas"]}])  # fmt: skip
    _, answer = planned(question)
    (machine,), (job,) = answer["machines"], answer["jobs"]
    assert machine["ready"] == job["parts"][-1]["end"]


# What makes a machine late, and what would cure it


# Against trying everything


@settings(max_examples=80, deadline=None)
@given(small_shops())
def test_no_plan_is_better_than_the_one_found(question):
    answer = PLAN(question)
    checker = Checker(question)
    assert checker.broken(answer) == []
    best = checker.best()
    if answer["unplaced"]:
        assert best is None
    else:
        aim = answer["objective"]
        last = at(aim["last_finish"]) if aim["last_finish"] else checker.now
        assert answer["optimal"]
        assert (round(aim["late_h"], 6), aim["moved"], aim["posture_moves"], last) == best


@pytest.mark.parametrize("seed", [1, 2])
def test_no_rule_is_broken_in_a_shop_with_much_to_do(seed):
    question = {**shop(seed, machines=6, jobs=50, days=14), "time_limit_s": 3, "causes": False}
    assert Checker(question).broken(PLAN(question)) == []


# Bad input


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"now": "2026-03-02T06:00Z"}, "now"),
        ({"horizon_days": 0}, "horizon_days"),
        ({"technicians": [{"name": "Tomas", "shifts": [{"start": f"{DAYS[0]}T12:00", "end": f"{DAYS[0]}T08:00"}]}]}, "technicians.0.shifts.0.end"),
        ({"technicians": [{"name": "Tomas", "shifts": []}] * 2}, "technicians.1.name"),
        ({"machines": [{"name": "Heron 6", "season_date": "soon"}]}, "machines.0.season_date"),
        ({"jobs": [{"id": "a", "machine": "Heron 5", "minutes": 60}]}, "jobs.0.machine"),
        ({"jobs": [{"id": "a", "machine": "Heron 6", "minutes": 60, "after": ["b"]}]}, "jobs.0.after.0"),
        ({"jobs": [{"id": "a", "machine": "Heron 6", "minutes": 60, "after": ["a"]}]}, "jobs.0.after"),
        ({"jobs": [{"id": "a", "machine": "Heron 6", "minutes": 0}]}, "jobs.0.minutes"),
        ({"jobs": [{"id": "a", "machine": "Heron 6", "minutes": 60, "pin": {"start": DAYS[0], "technicians": ["Bram"]}}]}, "jobs.0.pin.technicians.0"),
        ({"jobs": [{"id": "a", "machine": "Heron 6", "minutes": 60, "posture": "up"}, {"id": "b", "machine": "Heron 6", "minutes": 60, "posture": "sideways"}]}, "jobs.1.posture"),
        ({"dry": [{"start": DAYS[1], "end": DAYS[0]}]}, "dry.0.end"),
        ({"horizon_days": 120, "slot_min": 5, "technicians": [{"name": "Tomas", "shifts": [{"start": "2026-03-01", "end": "2026-12-01"}]}]}, "slot_min"),
        ({"time_limit_s": 3600}, "time_limit_s"),
    ],
)  # fmt: skip
def test_bad_input_is_refused_at_its_field(change, field):
    with pytest.raises(BadInput) as refused:
        PLAN({**asked({}), **change})
    assert refused.value.field == field


def test_a_shop_with_nothing_to_do_has_a_plan():
    answer = PLAN(asked())
    assert (answer["jobs"], answer["optimal"], answer["machines"][0]["ready"]) == ([], True, "2026-03-02T06:00")
    nobody = PLAN(asked({}, people=[]))
    assert nobody["unplaced"] == [{"id": "j0", "reason": "takes 1 person, and there are fewer"}]
