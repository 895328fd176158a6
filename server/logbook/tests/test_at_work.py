"""What happens at work stands in the logbook: headers, calibrations, loads, settings in the field, taken back or not."""

import uuid

import pytest
from django.utils import timezone

from calibration.actions import recording as calibrating
from calibration.schemas import CalibrationRunIn, CollectedLoadIn, HappenedIn, LoadWeighedIn
from field.actions import recording as field
from field.schemas import SetInFieldIn
from fleet.models import Machine, MachineModel


@pytest.fixture
def combine(yard):
    def made(name, family):
        model = MachineModel.objects.create(shop=yard.shop, maker="Tavric", name=name, family=family)
        return Machine.objects.create(shop=yard.shop, model=model, name=name)

    yard.draper = made("Weir 107", "draper-header")
    return made("Heron 6", "rotary-combine")


@pytest.fixture
def told(yard, combine, as_):
    """(title, text) of the logbook's entries of a kind, the oldest first."""

    def of(kind):
        found = as_(yard.lead).get(f"/api/logbook/machines/{combine.pk}/logbook?kind={kind}&order=oldest").json()
        return [(one["title"], one["text"]) for one in found["entries"]]

    return of


def test_calibrations_loads_and_headers(yard, combine, told):
    tech = yard.technician
    calibrating.say_happened(tech, combine, HappenedIn(uuid=uuid.uuid4(), what="header", header=yard.draper.pk))
    now = timezone.now()
    for outcome, more in (("aborted", {"steps": 2, "words": "figures stood still"}), ("saved", {"steps": 3})):
        run = CalibrationRunIn(uuid=uuid.uuid4(), key="raise-speed", outcome=outcome, begun_at=now, at=now, **more)
        calibrating.run(tech, combine, run)
    load = uuid.uuid4()
    calibrating.collect(tech, combine, CollectedLoadIn(uuid=load, name="3", crop="Lupins", machine_kg=2000))
    calibrating.weigh(tech, load, LoadWeighedIn(scale_kg=2080))
    calibrating.take_back_load(tech, load)
    found = dict(told("calibration"))
    assert found["Weir 107 coupled"] == ""
    assert found["Feeder raise speed aborted"] == "2 of 3 steps done; figures stood still; with Weir 107"
    assert found["Feeder raise speed saved"] == "with Weir 107"
    assert found["Taken back: Load 3"].startswith("2000 kg shown; 2080 kg; Lupins; taken back by Technician")


def test_settings_in_the_field(yard, combine, told):
    kept = uuid.uuid4()
    new = SetInFieldIn(uuid=kept, crop="Lupins", place="Mill field", condition="damp", values={"rotor": "450"}, why="splits")
    field.keep(yard.technician, combine, new)
    field.say_worked(yard.technician, kept, True)
    assert told("field") == [("Set in the field: Rotor speed 450 1/min", "Lupins, Mill field, damp; because splits; It worked")]
