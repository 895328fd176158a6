"""Ready is said of a machine where nothing is in its way, and nowhere else: one judgement for every screen."""

import datetime as dt
import uuid
from dataclasses import replace

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from fleet.models import Fitment, Machine
from inspection.actions import closing, decisions, starting
from inspection.judging import tallies
from inspection.models import Verdict, WalkAround
from inspection.queries import preparing
from season.actions import hands, marking, planning
from season.queries import plans, readiness
from shops.models import Workplace
from supply.actions import stocking
from supply.queries import needs
from testing.seen import see_everything
from testing.yard import record

DISC = "opener-disc-diameter"


def judged(yard, **more):
    (found,) = [one for one in readiness.readiness(yard.lead, **more) if one.machine == yard.machine.pk]
    return found


@pytest.fixture
def seen(yard):
    """The planter, looked at whole, wanted in a fortnight."""
    yard.machine.season_date = timezone.localdate() + dt.timedelta(days=14)
    yard.machine.save()
    see_everything(yard.walk_around, but={DISC}, apply=False)
    for row in range(1, 7):
        for side in "LR":
            record(yard, DISC, f"{row}{side}", "398")
    return yard


@pytest.fixture
def worn(yard, seen):
    """The same with a worn disc that is to be renewed, and its part's number known."""
    record(yard, DISC, "1L", "380")
    return yard


def decide(yard, choice="do", **more):
    decisions.decide(yard.lead, yard.walk_around.pk, uuid.uuid4(), DISC, ["1L"], choice, **more)


def plan(yard):
    Workplace.objects.get_or_create(
        shop=yard.shop, name="Bay", defaults={"uuid": uuid.uuid4(), "kind": "bay", "door_width_mm": 9000}
    )
    hands.set_hands(yard.lead, yard.technician.pk, planned=True, hours="Mon–Sun 06:00–20:00", skills="")
    made = uuid.uuid4()
    list(planning.stream(yard.lead, made, planning.Try()))
    planning.take(yard.lead, made)
    return plans.season(yard.lead).plan


def fit(yard, slot, place):
    mine = Fitment.objects.filter(machine=yard.machine, slot=slot, position_key=place)
    mine.update(until_at=timezone.now())
    mine.create(
        uuid=uuid.uuid4(), machine=yard.machine, slot=slot, position_key=place, fitted_at=timezone.now(), by=yard.lead.user
    )  # fmt: skip


def fit_everything(yard):
    for piece in needs.read(yard.lead, timezone.now()).pieces:
        fit(yard, piece.slot, piece.position)


def test_a_machine_that_nobody_looked_at_is_not_known(yard):
    WalkAround.objects.all().delete()
    found = judged(yard)
    assert (found.state, found.ready_on, found.looked_pct) == ("not_known", None, None)


def test_a_machine_that_was_half_looked_at_is_not_ready(yard, read):
    read(DISC, "1L", "398")
    found = judged(yard)
    assert found.state == "not_looked_at" and found.because == ["0 % looked at, 80 % are enough"]


def test_all_seen_and_sound_is_ready_today(seen):
    found = judged(seen)
    assert (found.state, found.ready_on, found.because) == ("ready", timezone.localdate(), [])


def test_a_finding_that_nobody_decided_leaves_no_day(worn):
    found = judged(worn)
    assert (found.state, found.ready_on) == ("ready_after", None)
    assert "1 finding not decided" in found.because


def test_what_is_decided_and_in_no_plan_is_a_job_without_a_day(worn):
    decide(worn)
    found = judged(worn)
    assert (found.state, found.ready_on, found.jobs_left) == ("ready_after", None, 1)
    assert "1 job to do" in found.because[0]


def test_a_plan_gives_no_day_while_its_parts_are_neither_ordered_nor_here(worn):
    decide(worn)
    plan(worn)
    found = judged(worn)
    assert (found.state, found.ready_on, found.parts_out) == ("ready_after", None, 3)
    assert any("3 parts not here" in one for one in found.because)
    for piece in needs.read(worn.lead, timezone.now()).pieces:
        if piece.slot != "opener-disc":
            fit(worn, piece.slot, piece.position)
    stocking.keep(worn.lead, "D12-4001", "Opener disc")
    stocking.count(worn.lead, uuid.uuid4(), "D12-4001", "shelf", 2)
    plan(worn)
    found = judged(worn)
    assert found.parts_out == 0 and found.ready_on is not None and found.ready_on >= timezone.localdate()
    assert found.late_days == 0 and found.first and found.last and found.first <= found.ready_on <= found.last


def test_new_parts_make_it_ready(worn):
    decide(worn)
    fit_everything(worn)
    assert judged(worn).state == "ready"


def test_what_waits_or_is_declined_is_decided(worn):
    decide(worn, "wait", until="the autumn")
    assert judged(worn).state == "ready"


def test_a_stop_comes_before_everything(worn):
    Verdict.objects.filter(check_key=DISC, position_key="1L").update(severity="stop")
    tallies.recount(worn.walk_around)
    decide(worn)
    plan(worn)
    found = judged(worn)
    assert (found.state, found.ready_on, found.stops) == ("not_fit", None, ["Opener disc diameter: row 1 left"])


def test_a_place_that_was_left_open_is_a_job_of_a_finished_walk_around(yard):
    see_everything(yard.walk_around, but={DISC}, apply=False)
    for place in ("1L", "1R", "2L", "2R", "3L", "3R", "4L", "4R", "5L", "5R"):
        record(yard, DISC, place, "398")
    closing.finish(yard.technician, yard.walk_around.pk, uuid.uuid4())
    shown = plan(yard)
    job = next(job for job in shown.jobs if job.kind == "look")
    assert job.name == "Look at 2 places not seen" and job.minutes > 0
    assert judged(yard).state == "ready_after" and judged(yard).jobs_left >= 1


def test_a_second_walk_around_does_not_take_ready_away(seen):
    starting.start(seen.technician, seen.machine, uuid.uuid4(), preparing.Wanted("winter"))
    assert judged(seen).state == "ready"


# What is set by hand to where it cannot be done


def test_a_job_set_to_before_its_part_is_here_leaves_the_machine_late(worn, monkeypatch):
    from season.queries import arrivals, work

    comes = dt.datetime.combine(timezone.localdate() + dt.timedelta(days=16), dt.time(12))

    def known(member, now, *, if_ordered=True):
        found = arrivals.arrivals(member, now, if_ordered=False)
        disc = arrivals.Arrival("D12-4001", "Opener disc", here=False, arrives=comes, by="ordered")
        return {number: replace(one, here=True) for number, one in found.items()} | {"D12-4001": disc}

    for module in (work, readiness):
        monkeypatch.setattr(module, "arrivals", known)
    decide(worn)
    shown = plan(worn)
    job = next(job for job in shown.jobs if job.kind == "work")
    assert job.parts[0].id == "D12-4001" and not job.pin_trouble
    late = next(one for one in shown.machines)
    assert late.late_h > 0
    tomorrow = dt.datetime.combine(timezone.localdate() + dt.timedelta(days=1), dt.time(9))
    pin = {"start": tomorrow.isoformat(timespec="minutes"), "technicians": []}
    marking.mark(worn.lead, uuid.uuid4(), job.key, marking.Done("pin", pin=pin))
    shown = plan(worn)
    job = next(job for job in shown.jobs if job.kind == "work")
    assert job.pin_trouble == "pinned before Opener disc D12-4001 is here"
    (machine,) = shown.machines
    assert machine.late_h > 0 and machine.ready >= comes.isoformat(timespec="minutes")
    assert "is pinned before Opener disc D12-4001 is here" in machine.words
    found = judged(worn)
    assert found.state == "ready_after" and found.ready_on == comes.date() and found.late_days == 3
    assert found.pins == [f"{job.name}: pinned before Opener disc D12-4001 is here"]


# Drawn states


ACTS = st.sampled_from(["decide", "wait", "fit", "again", "ask", "worn", "stop", "unsee", "plan", "done"])


@settings(max_examples=20, deadline=None, suppress_health_check=list(HealthCheck))
@given(st.lists(ACTS, max_size=7))
def test_ready_is_never_said_while_anything_is_open(yard, seen, acts):
    for act in acts:
        try:
            _do(yard, act)
        except Exception as refused:
            assert type(refused).__name__ in ("BadInput", "Conflict", "NotFoundHere")
    found = judged(yard)
    whole = readiness.standing_of({yard.machine.pk: yard.machine})[yard.machine.pk][yard.machine]
    open_ = (
        whole.stops or whole.unseen_safety or whole.questions or whole.undecided or whole.unread
        or found.jobs_left or found.parts_out or (whole.looked_pct or 0) < 80
    )  # fmt: skip
    assert (found.state == "ready") == (not open_)
    assert (found.because == []) == (found.state == "ready")
    assert not (found.stops and found.ready_on)


def _do(yard, act):
    match act:
        case "decide":
            decide(yard)
        case "wait":
            decide(yard, "wait", until="autumn")
        case "fit":
            fit_everything(yard)
        case "again":
            yard.walk_around = starting.start(yard.technician, yard.machine, uuid.uuid4(), preparing.Wanted("winter"))
        case "ask":
            record(yard, DISC, "1L", "39")
        case "worn":
            record(yard, DISC, "1L", "380")
        case "stop":
            Verdict.objects.filter(check_key=DISC, position_key="1L").update(severity="stop")
            tallies.recount(yard.walk_around)
        case "unsee":
            record(yard, DISC, "2L", state="withdrawn")
        case "plan":
            plan(yard)
        case "done":
            shown = plans.season(yard.lead).plan
            for job in shown.jobs if shown else []:
                marking.mark(yard.technician, uuid.uuid4(), job.key, marking.Done("done", minutes=5))


def test_an_owner_is_told_of_own_machines_and_nothing_of_the_plan(seen, as_):
    seen.machine.owners.add(seen.owner)
    Machine.objects.create(shop=seen.shop, model=seen.model, name="Dunmere 7", rows=6)
    (mine,) = as_(seen.owner).get("/api/season/readiness").json()
    assert (mine["machine"], mine["state"], mine["words"]) == (seen.machine.pk, "ready", "")
    assert [one["name"] for one in as_(seen.lead).get("/api/season/readiness").json()] == ["Dunmere 7", "Dunmere 12"]
    (one,) = as_(seen.lead).get("/api/season/readiness", {"machine": seen.machine.pk}).json()
    assert one["state"] == "ready"


def test_of_another_shop_nobody_is_told(seen, neighbour, as_):
    shown = as_(neighbour.lead).get("/api/season/readiness", {"machine": seen.machine.pk}).json()
    assert shown == []


def test_many_machines_ask_as_much_as_two(seen, as_):
    def asked():
        as_(seen.lead).get("/api/season/readiness")
        with CaptureQueriesContext(connection) as queries:
            as_(seen.lead).get("/api/season/readiness")
        return len(queries)

    Machine.objects.create(shop=seen.shop, model=seen.model, name="Dunmere 7", rows=6)
    few = asked()
    for n in range(10):
        Machine.objects.create(shop=seen.shop, model=seen.model, name=f"Dunmere {100 + n}", rows=6)
    assert asked() == few
