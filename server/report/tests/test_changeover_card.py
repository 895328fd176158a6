"""The changeover on paper."""

import uuid

import pytest

from fleet.models import Machine, MachineModel
from inspection.actions import recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.queries import preparing


@pytest.fixture
def combine(yard):
    model = MachineModel.objects.create(shop=yard.shop, maker="Tavric", name="Heron 4", family="rotary-combine")
    yard.combine = Machine.objects.create(shop=yard.shop, model=model, name="Heron 4", hours=3870)
    winter = starting.start(yard.technician, yard.combine, uuid.uuid4(), preparing.Wanted("winter"))
    for side in "LR":
        recording.record_reading(yard.technician, winter.pk, NewReading(uuid.uuid4(), "drum-position", side, raw=["down"]))
    return yard


def test_each_place_has_its_box_with_how_it_stands_and_is_to_stand(combine, as_):
    text = as_(combine.technician).get(f"/machines/{combine.combine.pk}/changeover/card?crop=ear").content.decode()
    assert "Heron 4: changeover to ear crops" in text
    assert "<b>Feeder drum fitted</b>, left: Down → <b>Up</b>" in text and "<b>Feeder drum fitted</b>, right: Down" in text
    assert "<b>Cob deflector fitted</b>: look how it stands" in text and "as the manual says" in text
    assert "Feeder cylinder lock engaged" in text and "Calibrate afterwards, in this order" in text
    pdf = as_(combine.technician).get(f"/machines/{combine.combine.pk}/changeover/card.pdf?crop=ear&then_crop=pod&then_days=9")
    assert pdf.content.startswith(b"%PDF")


@pytest.mark.parametrize("query", ["?crop=mud", "?crop=ear&then_days=soon", "?crop=ear&headers=999999", "?crop=ear&headers=x"])
def test_what_cannot_be_asked_is_not_there(query, combine, as_):
    assert as_(combine.technician).get(f"/machines/{combine.combine.pk}/changeover/card{query}").status_code == 404


def test_strangers_find_no_card(combine, neighbour, as_):
    path = f"/machines/{combine.combine.pk}/changeover/card?crop=ear"
    assert as_(neighbour.technician).get(path).status_code == 404
    assert as_().get(path).status_code == 302
    assert "Choose the crop" in as_(combine.technician).get(path.removesuffix("?crop=ear")).content.decode()
