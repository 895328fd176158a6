"""A strip-down keeps pictures in order of removal, with the loose parts of each step."""

import io
import uuid

import pytest
from PIL import Image

from inspection.actions import closing, strip_pictures
from inspection.actions.strip_pictures import Step
from inspection.queries import pictures
from lumvek_core.errors import BadInput
from shops.access import NotFoundHere


def picture():
    out = io.BytesIO()
    Image.new("RGB", (40, 30), "#775533").save(out, "PNG")
    return out.getvalue()


def taken_off(yard, words, loose, **more):
    step = uuid.uuid4()
    kept = Step("opener-hub", more.pop("place", "3"), words, loose)
    strip_pictures.add(yard.technician, yard.walk_around.pk, step, kept, picture())
    return step


def shown(yard, as_):
    steps = as_(yard.technician).get(f"/api/walk-arounds/{yard.walk_around.pk}/strip-pictures").json()
    return [(one["place"], one["words"], one["loose"]) for one in steps]


def test_steps_stand_in_order_of_removal_with_what_came_off(yard, as_):
    taken_off(yard, "Cap", 1)
    step = taken_off(yard, "Hub nut and disc", 4)
    assert shown(yard, as_) == [("3", "Cap", 1), ("3", "Hub nut and disc", 4)]
    url = f"/api/walk-arounds/{yard.walk_around.pk}/strip-pictures/{step}"
    assert as_(yard.technician).get(url)["Content-Type"] == "image/jpeg"


def test_a_repair_comes_after_the_walk_around(yard, as_):
    closing.finish(yard.technician, yard.walk_around.pk, uuid.uuid4())
    taken_off(yard, "Cap", 1)
    assert len(shown(yard, as_)) == 1


def test_the_same_step_sent_twice_is_one_and_a_removed_one_can_come_back(yard):
    same = uuid.uuid4()
    for _ in range(2):
        strip_pictures.add(yard.technician, yard.walk_around.pk, same, Step("opener-hub"), picture())
    assert len(pictures.of_strip_downs(yard.walk_around)) == 1
    strip_pictures.remove(yard.technician, yard.walk_around.pk, same)
    assert pictures.of_strip_downs(yard.walk_around) == []
    strip_pictures.restore(yard.technician, yard.walk_around.pk, same)
    assert len(pictures.of_strip_downs(yard.walk_around)) == 1


@pytest.mark.parametrize(
    ("step", "data", "says"),
    [
        (Step("opener-hubb"), None, "not a strip-down"),
        (Step("opener-hub", loose=-1), None, "between 0 and 999"),
        (Step("opener-hub"), b"no picture", "not a picture"),
    ],
)
def test_what_is_no_step_is_refused(yard, step, data, says):
    with pytest.raises(BadInput, match=says):
        strip_pictures.add(yard.technician, yard.walk_around.pk, uuid.uuid4(), step, data or picture())


def test_a_strip_down_of_another_shop_is_not_there(yard, neighbour):
    step = taken_off(yard, "Cap", 1)
    with pytest.raises(NotFoundHere):
        strip_pictures.remove(neighbour.technician, yard.walk_around.pk, step)
