"""A shop with one of whatever an address can name."""

import datetime as dt
import json
import uuid
from types import SimpleNamespace

import pytest
from django.contrib.auth import get_user_model
from django.utils import timezone
from endpoints import (
    APPROVAL,
    AWAY,
    BODIES,
    CALIBRATION_RUN,
    COUNTER,
    DONE,
    DRY_SPELL,
    HAPPENED,
    INQUIRY,
    INVITATION,
    LOAD,
    LOOK_ANSWER,
    MARK,
    MODEL_SHAFT,
    MOVEMENT,
    NOTE,
    ORDER,
    OWN_CAUSE,
    OWN_CHECK,
    OWN_JOB,
    OWN_SYMPTOM,
    PHOTO,
    PIN,
    PLACE,
    PLAN,
    RECORDING,
    RESULT,
    SEASON_PLAN,
    SET_IN_FIELD,
    STEP,
    SWAP_RUN,
    SWAP_TEST,
    TRACE,
    VIEW,
)

from calibration.actions import recording as calibrating
from calibration.schemas import CalibrationRunIn, CollectedLoadIn, HappenedIn
from demo.pictures import drawn
from faults.actions import own_symptoms, swapping, tracing
from faults.actions import recording as shaking
from faults.schemas import LookAnswerIn, TraceIn
from faults.schemas_own_symptoms import OwnCauseIn, OwnSymptomIn
from faults.schemas_recordings import ShaftIn, SimulatedIn
from faults.schemas_swapping import SwapRunIn, SwapTestIn
from field.actions import recording as field
from field.schemas import SetInFieldIn
from fleet.actions import counting, pictures
from inspection.actions import notes, own_checks, photos, pinning, strip_pictures
from inspection.schemas_checks import OwnCheckIn
from logbook.actions import counter_import, servicing
from lumvek_core.workbench.subjects import SUBJECTS
from outside import inquiries
from report import actions as links
from season.actions import hands, marking, planning
from shops.actions import people, shop
from shops.models import Member, Role
from shops.schemas import WorkplaceIn
from supply import desk
from supply.actions import stocking
from supply.models import Approval, Order, OrderLine, Plan, Supplier
from testing.layers import layer
from testing.yard import record
from workbench import actions


@layer(on="yard")
def everything(yard):
    """The yard with one of whatever an address can name, under the UUIDs of `endpoints`."""
    counting.record(yard.technician, yard.machine, COUNTER, 2860, timezone.now(), "typed")
    yard.machine.serial = "D12"
    yard.machine.save()
    photos.add(yard.technician, yard.walk_around.pk, PHOTO, "opener-disc-diameter", "1L", "", drawn("disc"))
    notes.note(yard.lead, yard.machine, NOTE, "rattles")
    photos.add_to_note(yard.lead, yard.machine, NOTE, PHOTO, drawn("furrow"))
    pinning.pin(yard.lead, yard.walk_around.pk, PHOTO, PIN, "")
    strip_pictures.add(yard.technician, yard.walk_around.pk, STEP, strip_pictures.Step("opener-hub"), drawn("disc"))
    actions.save(yard.technician, SUBJECTS["chain"], RESULT, yard.machine, {}, "")
    for how in ("Feeler.", "Feeler between rail and block."):
        again = {"uuid": uuid.uuid4(), "key": "own-rail-gap" if how != "Feeler." else "", "how": how}
        own_checks.set_check(yard.lead, OwnCheckIn(**OWN_CHECK | again))
    shop.keep_workplace(yard.lead, PLACE, WorkplaceIn(uuid=PLACE, kind="bay", name="Short bay").model_dump(exclude={"uuid"}))
    pictures.add(yard.technician, yard.machine, VIEW, "plate", drawn("disc"))
    shop.set_mark(yard.lead, drawn("disc"))
    something_to_order(yard)
    Approval.objects.create(
        uuid=APPROVAL, machine=yard.machine, amount=0, currency="EUR", how="by telephone", by=yard.lead.user
    )
    servicing.record(yard.technician, yard.machine, DONE, BODIES["service_done"]["key"], None, None, "")
    yard.link = links.make(yard.lead, yard.walk_around.pk, 3)[0].pk
    BODIES["order"] = {"order": list(range(len(yard.walk_around.plan["visits"])))}
    yard.helper = new_technician(yard)
    BODIES["hand_over"] = {**BODIES["hand_over"], "to": yard.helper.pk}
    inquiries.ask(yard.lead.pk, INQUIRY, list)
    a_season(yard)
    a_calibration(yard)
    a_fault(yard)
    people.invite(yard.lead, INVITATION, "Ines Marrow", "", ["technician"])
    return yard


@layer(on="everything")
def with_a_reading(everything):
    """Everything, and one disc measured."""
    record(everything, "opener-disc-diameter", "1L", "385")
    return everything


@pytest.fixture
def something_to_find(with_a_reading, settings, monkeypatch):
    """Everything with a reading, a modem that answers, and a desk."""
    sent = json.dumps({"at": timezone.now().isoformat(), "counter": 2861, "unit": "ha"}).encode()
    answer = SimpleNamespace(status=200, read=lambda most: sent[:most], release_conn=lambda: None)
    monkeypatch.setattr(counter_import, "_pool", SimpleNamespace(request=lambda *_, **__: answer))
    monkeypatch.setattr(desk, "behave", lambda mode: None)
    monkeypatch.setattr(desk, "answers", lambda: True)
    settings.DESK_URL = "http://127.0.0.1:9/desk"
    settings.TELEMATICS_URL = "http://127.0.0.1:9/telematics"
    settings.FORECAST_URL = "http://127.0.0.1:9/forecast"


def new_technician(yard):
    """Somebody to hand over to."""
    user = get_user_model().objects.create_user("helper", password="x" * 12)
    return Member.objects.create(user=user, shop=yard.shop, roles=[Role.TECHNICIAN])


def a_season(yard):
    """A job that was typed, in a plan that people work by, with somebody away and a dry spell."""
    day = dt.date(2026, 12, 1)
    marking.add_job(yard.lead, OWN_JOB, yard.machine.pk, {"name": "Weld the step", "minutes": 40})
    hands.set_away(yard.lead, yard.technician.pk, AWAY, day, day, "")
    hands.add_dry(yard.lead, DRY_SPELL, dt.datetime(2026, 12, 2, 8), dt.datetime(2026, 12, 3, 18))
    list(planning.stream(yard.lead, SEASON_PLAN, planning.Try()))
    planning.take(yard.lead, SEASON_PLAN)
    BODIES["mark_job"]["key"] = f"{yard.machine.uuid}:own:{OWN_JOB}"
    BODIES["add_own_job"]["machine"] = BODIES["change_own_job"]["machine"] = yard.machine.pk
    marking.mark(yard.lead, MARK, BODIES["mark_job"]["key"], marking.Done("start"))


def a_calibration(yard):
    """One that was gone through, what was done before it, a load, and how the machine was set in the field."""
    now = timezone.now()
    run = {"uuid": CALIBRATION_RUN, "key": "planter-rows", "outcome": "saved", "begun_at": now, "at": now}
    calibrating.run(yard.technician, yard.machine, CalibrationRunIn(**run))
    calibrating.say_happened(yard.technician, yard.machine, HappenedIn(uuid=HAPPENED, what="tyres"))
    calibrating.collect(yard.technician, yard.machine, CollectedLoadIn(uuid=LOAD, machine_kg=2000))
    field.keep(yard.technician, yard.machine, SetInFieldIn(uuid=SET_IN_FIELD, values={"depth": "45"}))


def a_fault(yard):
    """One that is traced, with a look that was answered."""
    trace = tracing.begin(yard.technician, yard.machine, TraceIn(uuid=TRACE, symptom="meter-current"))
    tracing.answer(yard.technician, trace, LookAnswerIn(uuid=LOOK_ANSWER, look="meter-bearing", bad=False))
    test = swapping.begin(yard.technician, yard.machine, SwapTestIn(uuid=SWAP_TEST, rows=["1", "2"]))
    swapping.run(yard.technician, test, SwapRunIn(uuid=SWAP_RUN, faults={"1": True, "2": False}))
    shaking.simulate(yard.technician, yard.machine, SimulatedIn(uuid=RECORDING, engine_rpm=1900))
    fan = {"key": "fan", "speeds": {"fixed": 4200}, "orders": {"1": "turn"}}
    shaking.write_shaft(yard.lead, yard.machine, ShaftIn(uuid=MODEL_SHAFT, **fan))
    own_symptoms.add_symptom(yard.lead, OwnSymptomIn(uuid=OWN_SYMPTOM, family="row-crop-planter", name="Hums at the hitch"))
    cause = {"symptom": "skips", "name": "Fan belt slips", "check": "vent"}
    own_symptoms.add_cause(yard.lead, OwnCauseIn(uuid=OWN_CAUSE, **cause))


def something_to_order(yard):
    """A supplier with a plan, an order that waits for its disc, and what the bodies name."""
    yard.supplier = Supplier.objects.create(shop=yard.shop, name="Bridge Street Parts", email="counter@bridge-street.invalid")
    cost = dict.fromkeys(("parts", "trips", "delivery", "risk", "late", "total"), 0)
    plan = {
        "kind": "cheapest",
        "cost": cost,
        "p_all_in_time": 1,
        "last_arrival": None,
        "optimal": True,
        "bound": 0,
        "gap_pct": 0,
    }
    plans = [plan | {"lines": [], "trips": [], "deliveries": []}]
    asked = {"start": "2026-03-07T13:10", "lines": [], "pinned": []}
    answer = {"plans": plans, "impossible": [], "reasons": [], "able": [], "one_day_earlier": None, "surer": None}
    plan = Plan.objects.create(
        uuid=PLAN, shop=yard.shop, asked=asked, answer=answer, ordered_kind="cheapest", by=yard.lead.user
    )
    order = Order.objects.create(
        uuid=ORDER,
        shop=yard.shop,
        supplier=yard.supplier,
        plan=plan,
        way="fetch",
        run_date=dt.date(2026, 12, 1),
        state="by-hand",
        by=yard.lead.user,
    )
    OrderLine.objects.create(order=order, number="D12-4001", name="Opener disc", quantity=4, unit_price="48.90")
    stocking.keep(yard.lead, "D12-4001", "Opener disc")
    stocking.count(yard.lead, MOVEMENT, "D12-4001", "shelf", 4)
    Supplier.objects.create(shop=yard.shop, name="Harrow Mail").offers.create(
        number="D12-4001", unit_price="48.90", stock=9, source="typed", at=order.at
    )
    for name in ("set_number", "choose"):
        BODIES[name]["model"] = yard.model.pk
    for name in ("set_hand", "fit"):
        BODIES[name]["walk_around"] = str(yard.walk_around.pk)
    BODIES["need_date"]["machine"] = yard.machine.pk
    BODIES["set_share"]["owner"] = yard.technician.pk
    yard.machine.owners.add(yard.technician)
