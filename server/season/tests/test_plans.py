"""Plans: made, taken, moved by hand, tried out; what people do with their jobs; who is there when."""

import datetime as dt
import json
import uuid
from functools import partial

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from fleet.models import Machine
from lumvek_core import apart
from lumvek_core.errors import BadInput
from lumvek_core.planning.season.nearest import nearest
from outside import background
from season.actions import hands, marking, planning
from season.models import JobMark, SeasonPlan
from season.queries import question
from shops.models import Workplace

WEEK = "Mon–Sun 08:00–12:00"


@pytest.fixture
def workshop(yard):
    """The yard with a bay, people who work every morning, and two jobs of an hour each that somebody typed."""
    Workplace.objects.create(uuid=uuid.uuid4(), shop=yard.shop, kind="bay", name="Bay", door_width_mm=5200)
    hands.set_hands(yard.lead, yard.technician.pk, planned=True, hours=WEEK, skills="welding")
    yard.jobs = [uuid.uuid4(), uuid.uuid4()]
    for uuid_, name in zip(yard.jobs, ("Weld the step", "Paint the step"), strict=True):
        marking.add_job(yard.lead, uuid_, yard.machine.pk, {"name": name, "minutes": 60, "place": "bench"})
    yard.keys = [f"{yard.machine.uuid}:own:{one}" for one in yard.jobs]
    return yard


def steps(browser, **body):
    answer = browser.send("/api/season/plans", **({"uuid": str(uuid.uuid4())} | body))
    assert answer.status_code == 200, answer.content
    return [json.loads(line) for line in b"".join(answer.streaming_content).decode().splitlines()]


def make(workshop, as_, **body):
    """A plan that is made and taken, as the screen does."""
    uuid_ = str(uuid.uuid4())
    browser = as_(workshop.lead)
    assert steps(browser, uuid=uuid_, **body)[-1]["done"]
    if any(body.values()):
        return browser.get(f"/api/season/plans/{uuid_}").json()
    return browser.send(f"/api/season/plans/{uuid_}/take").json()["plan"]


def job_of(plan, key):
    return next(one for one in plan["jobs"] if one["key"] == key)


def test_a_plan_is_told_step_by_step_kept_and_taken(workshop, as_):
    uuid_ = str(uuid.uuid4())
    told = steps(as_(workshop.lead), uuid=uuid_)
    assert told[0]["what"] == "late" and told[-1] == {"what": "", "found": 0, "bound": 0, "done": True}
    assert as_(workshop.technician).get("/api/season").json()["plan"] is None, "nobody works by it before it is taken"
    taken = as_(workshop.lead).send(f"/api/season/plans/{uuid_}/take").json()["plan"]
    assert taken["taken"] and {job["technicians"][0] for job in taken["jobs"] if job["stretches"]} == {"Technician"}
    assert steps(as_(workshop.lead), uuid=uuid_) == [told[-1]], "the same again is the same plan"
    assert SeasonPlan.objects.count() == 1


def test_another_shops_plan_is_not_there(workshop, neighbour, as_):
    uuid_ = str(uuid.uuid4())
    steps(as_(workshop.lead), uuid=uuid_)
    assert as_(neighbour.lead).get(f"/api/season/plans/{uuid_}").status_code == 404
    assert as_(neighbour.lead).send("/api/season/plans", uuid=uuid_).status_code == 404


def test_somebody_may_say_that_what_there_is_will_do(workshop, as_):
    uuid_ = uuid.uuid4()
    told = planning.stream(workshop.lead, uuid_, planning.Try())
    next(told)
    planning.enough(workshop.lead, uuid_)
    assert list(told)[-1]["done"] and SeasonPlan.objects.get().answer is not None


def test_a_moved_job_stays_where_it_was_put_and_can_be_let_go(workshop, as_):
    plan = make(workshop, as_)
    day = dt.date.fromisoformat(plan["now"][:10]) + dt.timedelta(days=3)
    uuid_ = str(uuid.uuid4())
    pin = {"start": f"{day}T10:00", "technicians": ["Technician"]}
    body = {"uuid": uuid_, "key": workshop.keys[0], "kind": "pin", "pin": pin}
    assert as_(workshop.lead).send("/api/season/marks", **body).status_code == 200
    assert as_(workshop.lead).send("/api/season/marks", **body).status_code == 200
    assert JobMark.objects.count() == 1
    moved = job_of(make(workshop, as_), workshop.keys[0])
    assert moved["pinned"] and moved["stretches"][0]["start"] == f"{day}T10:00"
    as_(workshop.lead).send(f"/api/season/marks/{uuid_}/take-back")
    assert not job_of(make(workshop, as_), workshop.keys[0])["pinned"]


def test_what_a_pin_contradicts_is_said_at_the_job(workshop, as_):
    plan = make(workshop, as_)
    day = dt.date.fromisoformat(plan["now"][:10]) + dt.timedelta(days=3)
    pin = {"start": f"{day}T15:00", "technicians": ["Technician"]}
    as_(workshop.lead).send("/api/season/marks", uuid=str(uuid.uuid4()), key=workshop.keys[0], kind="pin", pin=pin)
    assert job_of(make(workshop, as_), workshop.keys[0])["against"] == ["Technician does not work then"]


def test_only_who_plans_moves_jobs(workshop, as_):
    make(workshop, as_)
    body = {"uuid": str(uuid.uuid4()), "key": workshop.keys[0], "kind": "pin", "pin": {"start": "2026-12-07T10:00"}}
    answer = as_(workshop.technician).send("/api/season/marks", **body)
    assert (answer.status_code, JobMark.objects.count()) == (403, 0)


def test_a_technician_begins_stops_and_does_a_job_and_it_is_timed(workshop, as_):
    make(workshop, as_)
    browser, now = as_(workshop.technician), timezone.now()

    def mark(kind, minutes_ago, **more):
        at = (now - dt.timedelta(minutes=minutes_ago)).isoformat()
        answer = browser.send("/api/season/marks", uuid=str(uuid.uuid4()), key=workshop.keys[0], kind=kind, at=at, **more)
        assert answer.status_code == 200, answer.content
        return job_of(answer.json()["plan"], workshop.keys[0])

    assert mark("start", 50)["begun_by"] == "Technician"
    assert mark("stop", 40)["begun_by"] == ""
    assert mark("start", 30)["begun_by"] == "Technician"
    assert mark("done", 0)["done"]
    assert JobMark.objects.get(kind="done").minutes == pytest.approx(30, abs=1)


def test_what_cannot_be_done_says_why_and_waits_for_its_day(workshop, as_):
    plan = make(workshop, as_)
    body = {"uuid": str(uuid.uuid4()), "key": workshop.keys[0], "kind": "cannot"}
    answer = as_(workshop.technician).send("/api/season/marks", **body)
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, "reason")
    day = dt.date.fromisoformat(plan["now"][:10]) + dt.timedelta(days=5)
    season = as_(workshop.technician).send("/api/season/marks", **body, reason="no gas", not_before=str(day)).json()
    again = job_of(season["plan"], workshop.keys[0])
    assert season["plan"]["uuid"] != plan["uuid"] and season["plan"]["taken"], "it is planned anew at once"
    assert again["cannot"] == "no gas" and again["stretches"][0]["start"] >= str(day)


def test_where_it_cannot_be_planned_anew_the_plan_says_what_is_otherwise(workshop, as_, monkeypatch):
    plan = make(workshop, as_)

    def busy(*_, **__):
        raise apart.Busy("Others are working things out just now.")

    monkeypatch.setattr(apart, "call", busy)
    body = {"uuid": str(uuid.uuid4()), "key": workshop.keys[0], "kind": "cannot", "reason": "no gas"}
    season = as_(workshop.technician).send("/api/season/marks", **body).json()
    assert season["plan"]["uuid"] == plan["uuid"] and season["stale"] == [
        f"{workshop.machine.name}: Weld the step could not be done: no gas"
    ]
    assert not season["under_way"]


def test_a_plan_that_came_to_nothing_is_not_waited_for(workshop, as_, monkeypatch):
    def busy(*_, **__):
        raise apart.Busy("Others are working things out just now.")

    monkeypatch.setattr(apart, "call", busy)
    answer = as_(workshop.lead).send("/api/season/plans", uuid=str(uuid.uuid4()))
    assert answer.status_code == 429 and "Others are working things out" in answer.json()["error"]["message"]
    assert not SeasonPlan.objects.exists() and not as_(workshop.lead).get("/api/season").json()["under_way"]


def test_while_it_is_planned_anew_that_is_said(workshop, as_, monkeypatch):
    make(workshop, as_)
    monkeypatch.setattr(background, "later", lambda what: None)
    body = {"uuid": str(uuid.uuid4()), "key": workshop.keys[0], "kind": "cannot", "reason": "no gas"}
    assert as_(workshop.technician).send("/api/season/marks", **body).json()["under_way"]


def test_plans_are_held_against_each_other(workshop, as_):
    first, tried = make(workshop, as_), make(workshop, as_, hand=True)
    listed = as_(workshop.technician).get("/api/season/plans").json()
    assert [(one["uuid"], one["words"], one["taken"]) for one in listed] == [
        (tried["uuid"], "one more pair of hands", False),
        (first["uuid"], "", True),
    ]


def test_who_is_away_has_no_work_on_that_day(workshop, as_):
    plan = make(workshop, as_)
    first = dt.date.fromisoformat(min(job["stretches"][0]["start"] for job in plan["jobs"] if job["stretches"])[:10])
    hands.set_away(workshop.lead, workshop.technician.pk, uuid.uuid4(), first, first, "ill")
    days = {part["start"][:10] for job in make(workshop, as_)["jobs"] for part in job["stretches"]}
    assert str(first) not in days
    with pytest.raises(BadInput, match="before the first day"):
        hands.set_away(workshop.lead, workshop.technician.pk, uuid.uuid4(), first, first - dt.timedelta(days=1), "")


def test_trying_out_shows_its_gain_and_is_nothing_to_work_by(workshop, as_):
    make(workshop, as_)
    tried = make(workshop, as_, hand=True)
    assert tried["words"] == "one more pair of hands" and "one more pair of hands" in [one["name"] for one in tried["people"]]
    answer = as_(workshop.lead).send(f"/api/season/plans/{tried['uuid']}/take")
    assert answer.status_code == 422 and "tries out" in answer.json()["error"]["message"]
    assert as_(workshop.lead).send("/api/season/plans", uuid=str(uuid.uuid4()), rush="D12-4001").status_code == 422


def test_a_job_that_is_no_job_of_the_plan_is_not_found(workshop, as_):
    make(workshop, as_)
    body = {"uuid": str(uuid.uuid4()), "key": "nothing", "kind": "start"}
    assert as_(workshop.technician).send("/api/season/marks", **body).status_code == 404


def test_a_plan_is_kept_though_nobody_looks_on_any_more(workshop, as_):
    uuid_ = uuid.uuid4()
    told = planning.stream(workshop.lead, uuid_, planning.Try())
    next(told)
    told.close()
    season = as_(workshop.lead).get("/api/season").json()
    assert not season["under_way"] and as_(workshop.lead).get("/api/season/plans").json()[0]["uuid"] == str(uuid_)
    assert as_(workshop.lead).send(f"/api/season/plans/{uuid_}/take").json()["plan"]["uuid"] == str(uuid_)


def test_a_typed_job_is_changed_and_stays_the_same_job(workshop, as_):
    make(workshop, as_)
    path = f"/api/season/jobs/{workshop.jobs[0]}"
    typed = as_(workshop.lead).get(path).json()
    assert (typed["name"], typed["minutes"], typed["place"]) == ("Weld the step", 60, "bench")
    season = as_(workshop.lead).send(path, **(typed | {"name": "Weld both steps", "minutes": 120})).json()
    assert season["stale"] == ["changed: Weld both steps"]
    assert job_of(make(workshop, as_), workshop.keys[0])["minutes"] == 120
    answer = as_(workshop.lead).send(path, **(typed | {"name": "  "}))
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, "name")
    assert as_(workshop.technician).send(path, **typed).status_code == 403


def test_a_machine_that_is_worse_late_comes_first(workshop, as_):
    workshop.machine.priority = 4
    workshop.machine.save()
    assert question.question(workshop.lead, None).asked["machines"][0]["priority"] == 4


def test_every_word_about_the_plan_is_in_the_log(workshop, as_):
    plan = make(workshop, as_)
    day = dt.date.fromisoformat(plan["now"][:10]) + dt.timedelta(days=3)
    pin, off, dry = uuid.uuid4(), uuid.uuid4(), uuid.uuid4()
    put = {"start": f"{day}T10:00", "technicians": ["Technician"], "place": ""}
    marking.mark(workshop.lead, pin, workshop.keys[0], marking.Done("pin", put))
    marking.take_back(workshop.lead, pin)
    marking.mark(workshop.technician, uuid.uuid4(), workshop.keys[1], marking.Done("done", minutes=25))
    hands.set_away(workshop.lead, workshop.technician.pk, off, day, day, "")
    hands.take_back_away(workshop.lead, off)
    hands.add_dry(workshop.lead, dry, dt.datetime(2026, 12, 7, 8), dt.datetime(2026, 12, 8, 18))
    marking.take_back_job(workshop.lead, workshop.jobs[0])
    for _ in range(2):
        marking.take_back_job(workshop.lead, workshop.jobs[0])  # once is once
    listed = as_(workshop.lead).get("/api/shop/changes?about=plan").json()["changes"]
    said = [(one["what"], one["after"]) for one in reversed(listed)][2:]
    name = workshop.machine.name
    assert [what for what, _ in said] == [
        f"{name}: Weld the step",
        f"{name}: Weld the step",
        f"{name}: Paint the step",
        "Technician: away",
        "Technician: away",
        "Dry spell",
        "Job",
    ]
    assert "10:00, Technician" in said[0][1] and [after for _, after in said[1:5:3]] == ["taken back", "there after all"]
    assert said[2][1] == "done, 25 min"


def test_a_job_tells_what_people_did_with_it(workshop, as_):
    make(workshop, as_)
    marking.mark(workshop.technician, uuid.uuid4(), workshop.keys[0], marking.Done("start"))
    told = job_of(as_(workshop.lead).get("/api/season").json()["plan"], workshop.keys[0])["said"]
    assert [(one["by"], one["words"]) for one in told] == [("Technician", "begun")]


def changes(workshop):
    return {
        "typed: Grease it": lambda: marking.add_job(
            workshop.lead, uuid.uuid4(), workshop.machine.pk, {"name": "Grease it", "minutes": 10}
        ),
        "taken back: Paint the step": lambda: marking.take_back_job(workshop.lead, workshop.jobs[1]),
        "other hours or skills: Technician": lambda: hands.set_hands(
            workshop.lead, workshop.technician.pk, planned=True, hours=WEEK, skills=""
        ),
        "other dry spells": lambda: hands.add_dry(
            workshop.lead, uuid.uuid4(), dt.datetime(2026, 12, 7, 8), dt.datetime(2026, 12, 8, 18)
        ),
        "Technician is away 7 Dec 2026": lambda: hands.set_away(
            workshop.lead, workshop.technician.pk, uuid.uuid4(), dt.date(2026, 12, 7), dt.date(2026, 12, 7), ""
        ),
    }


@pytest.mark.parametrize("words", ["typed: Grease it", "taken back: Paint the step", "other hours or skills: Technician",
                                   "other dry spells", "Technician is away 7 Dec 2026"])  # fmt: skip
def test_what_is_otherwise_since_is_said_until_it_is_planned_again(words, workshop, as_):
    make(workshop, as_)
    assert as_(workshop.lead).get("/api/season").json()["stale"] == []
    changes(workshop)[words]()
    assert as_(workshop.lead).get("/api/season").json()["stale"] == [words]
    make(workshop, as_)
    assert as_(workshop.lead).get("/api/season").json()["stale"] == []


def test_looking_at_the_season_asks_as_much_however_much_was_changed(workshop, as_):
    make(workshop, as_)
    browser = as_(workshop.lead)
    with CaptureQueriesContext(connection) as before:
        browser.get("/api/season")
    for _ in range(2):
        for change in changes(workshop).values():
            change()
    with CaptureQueriesContext(connection) as after:
        browser.get("/api/season")
    assert len(after) <= len(before)


# More machines than can be planned to the hour


@pytest.fixture
def large(workshop, monkeypatch):
    """A shop that has room for one machine in its plan, and three with work: no date, in three weeks, in five."""
    monkeypatch.setattr(question, "nearest", partial(nearest, most_machines=1))
    workshop.others = []
    for name, days in (("Dunmere 6", 21), ("Dunmere 8", 35)):
        date = timezone.localdate() + dt.timedelta(days=days)
        one = Machine.objects.create(shop=workshop.shop, model=workshop.model, name=name, rows=6, season_date=date)
        workshop.others.append(one)
    return workshop


def test_the_season_s_nearest_is_planned_and_the_others_are_said_roughly(large, as_):
    plan = make(large, as_)
    assert [one["name"] for one in plan["machines"]] == ["Dunmere 6"] and {job["machine"] for job in plan["jobs"]} == {
        "Dunmere 6"
    }
    later = {one["name"]: one for one in plan["later"]}
    assert list(later) == ["Dunmere 8", large.machine.name], "the season's nearest first"
    for one in later.values():
        assert one["ready"] >= plan["jobs"][0]["stretches"][-1]["end"][:10] and one["hours"] > 0
    ready = {one["name"]: one for one in as_(large.lead).get("/api/season/readiness").json()}
    assert ready["Dunmere 8"]["ready_on"] is None, "roughly is no promise"


def test_what_was_chosen_comes_first_until_it_is_let_go(large, as_):
    chosen = make(large, as_, machines=[large.others[1].pk])
    assert [one["name"] for one in chosen["machines"]] == ["Dunmere 8"] and chosen["chosen"] == [large.others[1].pk]
    as_(large.lead).send(f"/api/season/plans/{chosen['uuid']}/take")
    planning.again_beside(large.lead)  # in a test there and then
    plan = as_(large.lead).get("/api/season").json()["plan"]
    assert plan["uuid"] != chosen["uuid"] and [one["name"] for one in plan["machines"]] == ["Dunmere 8"]
    assert [one["name"] for one in make(large, as_)["machines"]] == ["Dunmere 6"]


def test_what_is_under_way_stays_in_the_plan(large, as_):
    plan = make(large, as_, machines=[large.machine.pk])
    as_(large.lead).send(f"/api/season/plans/{plan['uuid']}/take")
    marking.mark(large.technician, uuid.uuid4(), large.keys[0], marking.Done("start"))
    assert [one["name"] for one in make(large, as_)["machines"]] == [large.machine.name]


def test_nobody_has_another_shop_s_machine_planned_first(large, neighbour, as_):
    plan = make(large, as_, machines=[neighbour.machine.pk])
    assert [one["name"] for one in plan["machines"]] == ["Dunmere 6"]
