"""Pictures: shrunk, carrying nothing but themselves, taken away and put back."""

import io
import uuid

import pytest
from PIL import Image

from demo.pictures import drawn
from inspection.actions import closing, photos
from inspection.models import Photo
from lumvek_core.errors import BadInput
from shops.access import Conflict
from shops.pictures import LARGEST_BYTES


def picture(size=(2400, 1800), form="JPEG", **more):
    out = io.BytesIO()
    Image.new("RGB", size, (120, 90, 60)).save(out, form, **more)
    return out.getvalue()


def test_a_picture_is_shrunk_and_carries_nothing_but_itself(yard):
    exif = Image.Exif()
    exif[0x8825] = {1: "N", 2: (51.0, 30.0, 0.0)}  # where it was taken
    exif[0x0110] = "a telephone"
    data = picture(exif=exif.tobytes())
    assert b"a telephone" in data
    once = uuid.uuid4()
    for _ in range(2):
        photos.add(yard.technician, yard.walk_around.pk, once, "opener-bearing", "3L", " rough ", data)
    kept = Photo.objects.get()
    with Image.open(io.BytesIO(bytes(kept.image))) as again:
        assert (again.size, again.format, dict(again.getexif())) == ((1600, 1200), "JPEG", {})
    assert b"a telephone" not in bytes(kept.image)
    assert (kept.caption, kept.width) == ("rough", 1600)


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"not a picture",
        b"<svg xmlns='http://www.w3.org/2000/svg'/>",
        picture(form="GIF"),
        picture()[:400],
        b"x" * (LARGEST_BYTES + 1),
    ],
)
def test_what_is_no_picture_is_refused(yard, data):
    with pytest.raises(BadInput):
        photos.add(yard.technician, yard.walk_around.pk, uuid.uuid4(), "opener-bearing", "3L", "", data)


def test_a_picture_can_be_taken_away_again(yard, as_):
    once = uuid.uuid4()
    photos.add(yard.technician, yard.walk_around.pk, once, "opener-bearing", "3L", "blurred", drawn("bearing"))
    url = f"/api/walk-arounds/{yard.walk_around.pk}/photos/{once}"
    assert as_(yard.technician).get(url)["Content-Type"] == "image/jpeg"
    assert as_(yard.parts).send(f"{url}/remove").status_code == 403
    assert as_(yard.technician).send(f"{url}/remove").json() == []
    assert as_(yard.technician).send(f"{url}/remove").json() == [], "twice is once"


def test_pictures_end_with_the_walk_around(yard):
    once = uuid.uuid4()
    photos.add(yard.technician, yard.walk_around.pk, once, "opener-bearing", "3L", "", drawn("bearing"))
    closing.finish(yard.technician, yard.walk_around.pk, uuid.uuid4())
    for late in (
        lambda: photos.remove(yard.technician, yard.walk_around.pk, once),
        lambda: photos.add(yard.technician, yard.walk_around.pk, uuid.uuid4(), "opener-bearing", "3L", "", drawn("b")),
    ):
        with pytest.raises(Conflict):
            late()


def test_a_picture_taken_away_is_put_back(yard, as_):
    technician, once = as_(yard.technician), uuid.uuid4()
    photos.add(yard.technician, yard.walk_around.pk, once, "opener-bearing", "3L", "blurred", drawn("bearing"))
    path = f"/api/walk-arounds/{yard.walk_around.pk}/photos/{once}"
    assert technician.send(f"{path}/remove").json() == []
    assert technician.get(f"/api/walk-arounds/{yard.walk_around.pk}").json()["photos"] == []
    assert [one["caption"] for one in technician.send(f"{path}/restore").json()] == ["blurred"]
