"""What makes a machine late and what would help: case by case, and against trying everything."""

from hypothesis import given, settings

from lumvek_core import structure
from lumvek_core.planning.season import causes
from lumvek_core.planning.season.model import SeasonGiven
from lumvek_core.tests.season_checker import Checker
from lumvek_core.tests.small_season import DAYS, PLAN, asked, day, planned, small_shops


def late_machine(*jobs, **more):
    answer = PLAN(asked(*jobs, **{"causes": True, "machines": [{"name": "Heron 6", "season_date": DAYS[1]}], **more}))
    found = next(one for one in answer["machines"] if one["name"] == "Heron 6")
    return found["cause"], [(fix["kind"], fix["what"], fix["gain_h"]) for fix in found["fixes"]]


def test_a_part_that_comes_too_late_is_the_cause_and_rushing_it_the_cure():
    chain = {"parts": [{"id": "chain", "arrives": f"{DAYS[1]}T08:00"}]}
    assert late_machine(chain, {}) == ("parts", [("rush_part", "chain", 21)])
    both = {"parts": [{"id": "chain", "arrives": f"{DAYS[1]}T08:00"}, {"id": "bolts", "arrives": f"{DAYS[2]}T08:00"}]}
    assert late_machine(both) == ("parts", [("rush_part", "bolts", 24)]), "the chain alone would gain nothing"


def test_too_few_hands_are_the_cause_and_one_more_pair_the_cure():
    assert late_machine({"minutes": 180}, {"minutes": 120}) == ("hands", [("one_hand", "one more pair of hands", 21)])


def test_one_more_day_is_a_day_on_which_nobody_works():
    tomas = {"name": "Tomas", "shifts": [day(1), day(2)]}
    late = late_machine({"minutes": 360, "hands": 1}, people=[tomas], now="2026-03-01T20:00",
                        machines=[{"name": "Heron 6", "season_date": DAYS[2], "max_hands": 1}])  # fmt: skip
    assert late == ("season_date", [("one_day", DAYS[0], 22)])


def test_the_bay_and_the_weather_are_causes():
    two = [{"name": "Heron 6", "season_date": DAYS[1]}, {"name": "Heron 4", "season_date": DAYS[1], "priority": 2}]
    jobs = [{"minutes": 180}, {"minutes": 180, "machine": "Heron 4"}]
    assert late_machine(*jobs, machines=two, people=["Tomas", "Ines"])[0] == "bay"
    wet = {"weather_bound": True, "place_kind": "outside"}
    assert late_machine(wet, dry=[day(2)])[0] == "weather"


def test_a_date_that_nothing_helps_is_the_cause_itself():
    assert late_machine({"minutes": 300})[0] == "season_date"


def test_no_cure_makes_another_machine_later():
    fleet = [{"name": "Heron 6", "season_date": DAYS[1]}, {"name": "Heron 4", "season_date": DAYS[1], "priority": 3}]
    chain = {"minutes": 120, "place_kind": "bench", "parts": [{"id": "chain", "arrives": f"{DAYS[1]}T08:00"}]}
    other = {"minutes": 240, "place_kind": "bench", "machine": "Heron 4"}
    assert (
        late_machine(chain, other, machines=fleet) == ("hands", [])
        or late_machine(chain, other, machines=fleet)[0] == "season_date"
    )


def test_what_keeps_work_out_of_the_plan_is_the_cause():
    assert late_machine({"skill": "welding"})[0] == "hands"
    assert late_machine({"parts": [{"id": "chain", "arrives": None}]}) == ("parts", [("rush_part", "chain", 72)])


RELAXED = {"parts": causes.without_parts, "hands": causes.with_hand, "bay": causes.with_room, "weather": causes.dry_throughout}


@settings(max_examples=30, deadline=None)
@given(small_shops(most=3))
def test_causes_and_cures_are_those_of_trying_everything(question):
    answer = PLAN({**question, "causes": True})
    late = {one["name"]: one["late_h"] for one in answer["machines"] if one["due"]}
    if answer["unplaced"]:
        return
    asked = structure.read(SeasonGiven, question)
    for machine in answer["machines"]:
        if machine["late_h"] <= 0:
            assert (machine["cause"], machine["fixes"]) == ("none", [])
            continue

        def gain(relaxed, name=machine["name"], was=machine["late_h"]):
            other = structure.write(relaxed(asked, name))
            for job in other["jobs"]:
                job["parts"] = [part for part in job["parts"] if part["arrives"]]
            return round(was - min(was, Checker(other).least_late(name, late)), 6)

        gains = {cause: gain(relaxed) for cause, relaxed in RELAXED.items()}
        best = max(gains.values())
        assert gains[machine["cause"]] == best > 0 if machine["cause"] != "season_date" else best == 0
        fixes = {fix["kind"]: round(fix["gain_h"], 6) for fix in machine["fixes"]}
        assert fixes.get("one_hand", 0) == gains["hands"]
        assert fixes.get("rush_part", 0) == gain(causes.without_part("p"))


def test_a_part_that_work_on_another_machine_waits_for_first_is_the_cause():
    fleet = [{"name": "Heron 6"}, {"name": "Heron 4", "season_date": DAYS[0]}]
    waits = {"machine": "Heron 6", "minutes": 60, "parts": [{"id": "p", "arrives": f"{DAYS[1]}T12:00"}]}
    behind = {"machine": "Heron 4", "minutes": 60, "after": ["j0"]}
    _, answer = planned({**asked(waits, behind, machines=fleet), "causes": True})
    late = next(one for one in answer["machines"] if one["name"] == "Heron 4")
    assert late["cause"] == "parts" and late["fixes"][0]["what"] == "p"
