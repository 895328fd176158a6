"""A picture of the shop's own that shows what due looks like, beside the drawings of a check."""

import io
import uuid

import pytest
from PIL import Image

from inspection.actions import photos, pinning, starting
from inspection.queries import preparing
from lumvek_core.errors import BadInput
from shops.access import NotFoundHere


@pytest.fixture
def picture(yard):
    """A picture of a worn outer scraper in the yard's walk-around."""
    out = io.BytesIO()
    Image.new("RGB", (40, 30), "#997755").save(out, "PNG")
    taken = uuid.uuid4()
    photos.add(yard.technician, yard.walk_around.pk, taken, "outer-scraper", "1L", "Angle gone", out.getvalue())
    return taken


def beside(as_, member, walk_around, check="outer-scraper"):
    checks = as_(member).get(f"/api/walk-arounds/{walk_around.pk}").json()["checks"]
    return next(one for one in checks if one["key"] == check)["pinned"]


def test_it_stands_beside_its_check_on_every_machine_of_that_model_and_can_be_opened(yard, picture, as_):
    same = uuid.uuid4()
    for _ in range(2):
        pinning.pin(yard.lead, yard.walk_around.pk, picture, same, "worn")
    later = starting.start(yard.technician, yard.machine, uuid.uuid4(), preparing.Wanted("winter"))
    (found,) = beside(as_, yard.technician, later)
    assert found["words"] == "Angle at the edge gone: Angle gone" and found["state"] == "worn"
    assert as_(yard.technician).get(found["path"])["Content-Type"] == "image/jpeg"
    assert beside(as_, yard.technician, later, "shank") == []


def test_taken_off_it_is_gone_and_the_picture_stays(yard, picture, as_):
    pinned = uuid.uuid4()
    pinning.pin(yard.lead, yard.walk_around.pk, picture, pinned, "worn")
    assert as_(yard.technician).send(f"/api/walk-arounds/pins/{pinned}/take-off").status_code == 403
    assert as_(yard.lead).send(f"/api/walk-arounds/pins/{pinned}/take-off").status_code == 200
    assert beside(as_, yard.lead, yard.walk_around) == []
    assert as_(yard.lead).get(f"/api/walk-arounds/{yard.walk_around.pk}/photos/{picture}").status_code == 200


def test_a_state_that_the_check_does_not_have_and_a_foreign_picture_are_refused(yard, neighbour, picture):
    with pytest.raises(BadInput, match="not a state"):
        pinning.pin(yard.lead, yard.walk_around.pk, picture, uuid.uuid4(), "hooked")
    with pytest.raises(NotFoundHere):
        pinning.pin(neighbour.lead, yard.walk_around.pk, picture, uuid.uuid4(), "worn")
    with pytest.raises(NotFoundHere):
        pinning.unpin(neighbour.lead, uuid.uuid4())
