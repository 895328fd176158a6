"""A walk-around before it begins, whole, so that it can be begun where there is no signal."""

import datetime as dt
import uuid

import pytest
from django.utils import timezone

from fleet.models import Machine, MachineModel
from inspection.actions import starting


@pytest.fixture
def combine(yard):
    """A combine, and a draper that can be coupled to it."""
    models = {
        name: MachineModel.objects.create(shop=yard.shop, maker=maker, name=name, family=family)
        for maker, name, family in (("Tavric", "Heron 6", "rotary-combine"), ("Lorne", "Weir 107", "draper-header"))
    }
    yard.combine, yard.draper = (
        Machine.objects.create(shop=yard.shop, model=model, name=name) for name, model in models.items()
    )
    return yard


def beforehand(browser, machine, **asked):
    answer = browser.get(f"/api/machines/{machine.pk}/beforehand", asked)
    assert answer.status_code == 200, answer.content
    return answer.json()


@pytest.mark.parametrize(
    ("choice", "with_header"), [({}, False), ({"phase": "winter", "crop": "ear", "take_in": "true"}, False), ({}, True)]
)
def test_it_is_what_a_walk_around_begun_now_shows_and_leaves_nothing(combine, as_, choice, with_header):
    headers = [combine.draper.pk] if with_header else []
    technician = as_(combine.technician)
    before = beforehand(technician, combine.combine, headers=headers, **choice)
    assert not combine.combine.walk_arounds.exists()
    wanted = {"id": str(uuid.uuid4()), "phase": "everything", "headers": headers} | choice
    assert technician.send(f"/api/machines/{combine.combine.pk}/walk-arounds", **wanted).status_code == 200
    begun = technician.get(f"/api/walk-arounds/{wanted['id']}").json()
    for whole in (before["walk_around"], begun):
        for own in ("id", "started_at"):
            whole["walk_around"].pop(own)
    assert before["walk_around"] == begun
    assert before["preview"]["checks"] == len(begun["checks"])
    assert before["preview"]["plan"] == begun["plan"]


def test_what_is_usual_in_the_shop_is_what_nobody_chose(yard, as_):
    lead = as_(yard.lead)
    assert beforehand(lead, yard.machine)["walk_around"]["walk_around"]["phase"] == "everything"
    assert lead.send("/api/rules/schools", subject="inspection-time", choice="after-season").status_code == 200
    assert beforehand(lead, yard.machine)["walk_around"]["walk_around"]["phase"] == "after-season"


@pytest.mark.parametrize(("role", "status"), [("owner", 403), ("parts", 403), ("technician", 200)])
def test_who_begins_none_needs_none(yard, as_, role, status):
    yard.machine.owners.add(yard.owner)
    assert as_(getattr(yard, role)).get(f"/api/machines/{yard.machine.pk}/beforehand").status_code == status


def test_a_machine_of_another_shop_is_not_there(yard, neighbour, as_):
    assert as_(yard.lead).get(f"/api/machines/{neighbour.machine.pk}/beforehand").status_code == 404
    asked = {"headers": [neighbour.machine.pk]}
    assert as_(yard.lead).get(f"/api/machines/{yard.machine.pk}/beforehand", asked).status_code == 422


def test_it_began_when_it_was_begun_and_never_later_than_now(yard):
    now = timezone.now()
    for at, began in ((now - dt.timedelta(hours=5), now - dt.timedelta(hours=5)), (now + dt.timedelta(days=1), now)):
        begun = starting.start(yard.technician, yard.machine, uuid.uuid4(), at=at)
        assert abs(begun.started_at - began) < dt.timedelta(minutes=1)
