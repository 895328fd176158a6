"""Small shops to plan a season for, asked in few words."""

from hypothesis import strategies as st

from lumvek_core import registry
from lumvek_core.tests.season_checker import Checker

DAYS = ("2026-03-02", "2026-03-03", "2026-03-04", "2026-03-05")


PLAN = registry.find("season_schedule").run


def day(number, start=8, end=12):
    return {"start": f"{DAYS[number]}T{start:02}:00", "end": f"{DAYS[number]}T{end:02}:00"}


def asked(*jobs, people=("Tomas",), machines=({"name": "Heron 6"},), **more):
    """A shop with a bay, a yard and a bench, that works from eight to twelve."""
    return {
        "now": f"{DAYS[0]}T06:00",
        "horizon_days": 4,
        "slot_min": 60,
        "technicians": [
            one if isinstance(one, dict) else {"name": one, "shifts": [day(i) for i in range(4)]} for one in people
        ],
        "places": [
            {"name": "Bay", "kind": "bay", "door_width_mm": 5200},
            {"name": "Yard", "kind": "outside", "capacity": 9},
        ],
        "machines": [*machines],
        "moves": [{"from": "down", "to": "up", "minutes": 60}, {"from": "up", "to": "down", "minutes": 60}],
        "shunt_min": 60,
        "causes": False,
        "jobs": [{"machine": "Heron 6", "minutes": 60, "id": f"j{i}", **job} for i, job in enumerate(jobs)],
        **more,
    }


def planned(question):
    answer = PLAN(question)
    assert Checker(question).broken(answer) == []
    return {job["id"]: job for job in answer["jobs"]}, answer


def when(job):
    return job["parts"][0]["start"][5:13].replace("T", " "), job["parts"][-1]["end"][5:13].replace("T", " ")


hours = st.integers(1, 3).map(lambda n: 60 * n)
places = st.sampled_from(["bay", "bay", "outside", "bench"])


@st.composite
def small_shops(draw, most=4):
    people = [
        {"name": name, "shifts": [day(i, draw(st.integers(8, 9)), draw(st.integers(10, 11))) for i in range(3) if draw(st.integers(0, 4))],
         "skills": draw(st.sampled_from([[], ["welding"]]))}
        for name in draw(st.sampled_from([["Tomas"], ["Tomas", "Ines"]]))
    ]  # fmt: skip
    fleet = [
        {"name": name, "season_date": draw(st.sampled_from([None, *DAYS[:3]])), "priority": draw(st.sampled_from([1, 3])),
         "posture": draw(st.sampled_from([None, "down"])), "width_mm": draw(st.sampled_from([None, 5900])),
         "max_hands": draw(st.integers(1, 2))}
        for name in ("Heron 6", "Heron 4")
    ]  # fmt: skip
    jobs = []
    for i in range(draw(st.integers(1, most))):
        place = draw(places)
        jobs.append({
            "machine": draw(st.sampled_from(["Heron 6", "Heron 4"])), "minutes": draw(hours), "place_kind": place,
            "hands": draw(st.sampled_from([1, 1, 2])), "skill": draw(st.sampled_from([None, None, "welding"])),
            "posture": draw(st.sampled_from([None, "down", "up"])), "lift": draw(st.integers(0, 5)) == 0,
            "weather_bound": draw(st.booleans()), "splittable": draw(st.integers(0, 3)) > 0,
            "parts": draw(st.sampled_from([[], [], [{"id": "p", "arrives": DAYS[1]}]])),
            "after": [f"j{draw(st.integers(0, i - 1))}"] if i and draw(st.booleans()) else [],
        })  # fmt: skip
    more = {}
    if draw(st.booleans()):
        more["previous"] = [
            {"id": f"j{i}", "start": f"{DAYS[draw(st.integers(0, 2))]}T{draw(st.integers(8, 10)):02}:00",
             "technicians": [people[0]["name"]]} for i in range(len(jobs))
        ]  # fmt: skip
    return asked(*jobs, people=people, machines=fleet, lifts=1, horizon_days=3,
                 dry=[day(1, 0, 10), day(2, 9, 23)], shunt_min=draw(st.sampled_from([0, 60])), **more)  # fmt: skip
