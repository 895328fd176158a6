"""What a shop says of itself: kept, refused at its field, logged, and used where it matters."""

import datetime as dt
import io
import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from shops import days
from shops.models import Change, Mark, Member, Workplace
from testing.yard import make_shop


@pytest.fixture
def lead(yard, as_):
    return as_(yard.lead)


def picture(mode="RGBA", size=(900, 300), colour=(0, 0, 0, 0)):
    out = io.BytesIO()
    Image.new(mode, size, colour).save(out, "PNG")
    return SimpleUploadedFile("mark.png", out.getvalue(), "image/png")


def logged(what):
    return list(Change.objects.filter(about="shop", what=what).values_list("before", "after"))


def test_name_and_address_stand_at_the_head_of_a_report(lead, yard):
    lead.send("/api/shop", name="Sallow Bridge", address="4 Weir Lane, Sallow Bridge")
    page = lead.get(f"/walk-arounds/{yard.walk_around.pk}/report").content.decode()
    assert "4 Weir Lane, Sallow Bridge" in page
    assert logged("Address") == [("none", "4 Weir Lane, Sallow Bridge")]


def test_the_mark_is_made_small_on_white_and_stands_in_the_report(lead, yard):
    assert lead.post("/api/shop/mark", {"photo": picture()}).json()["has_mark"]
    kept = Mark.objects.get(shop=yard.shop)
    with Image.open(io.BytesIO(bytes(kept.image))) as seen:
        assert seen.format == "JPEG" and seen.size == (600, 200)
        assert min(seen.getpixel((10, 10))) > 250
    assert lead.get("/api/shop/mark")["Content-Type"] == "image/jpeg"
    report = f"/walk-arounds/{yard.walk_around.pk}/report"
    assert "data:image/jpeg;base64," in lead.get(report).content.decode()
    assert not lead.post("/api/shop/mark/removed").json()["has_mark"]
    assert "data:image/jpeg;base64," not in lead.get(report).content.decode()
    assert lead.get("/api/shop/mark").status_code == 404


def test_what_is_no_picture_is_no_mark(lead):
    file = SimpleUploadedFile("mark.png", b"<svg onload=alert(1)>", "image/png")
    answer = lead.post("/api/shop/mark", {"photo": file})
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, "photo")


@pytest.mark.parametrize(("form", "shown"), [("words", "29 Nov 2026"), ("month", "Nov 29, 2026"), ("figures", "2026-11-29")])
def test_days_are_written_as_the_shop_writes_them_where_it_is(yard, form, shown):
    yard.shop.day_form, yard.shop.time_zone = form, "Pacific/Auckland"
    try:
        days.as_in(yard.shop)
        assert days.said(dt.datetime(2026, 11, 28, 23, 0, tzinfo=dt.UTC)) == shown
        assert days.said(dt.date(2026, 11, 29)) == shown
    finally:
        days.as_nowhere()
    assert days.said(dt.datetime(2026, 11, 28, 23, 0, tzinfo=dt.UTC)) == "28 Nov 2026"


def test_the_ways_of_a_shop_hold_for_its_members_only(lead, as_):
    strangers = as_(make_shop("Wharf Lane", "other-").lead)
    lead.send("/api/shop/ways", time_zone="Pacific/Auckland", units="in", day_form="figures")
    me = lead.get("/api/session").json()["me"]
    assert (me["time_zone"], me["day_form"]) == ("Pacific/Auckland", "figures")
    assert strangers.get("/api/session").json()["me"]["day_form"] == "words"


def test_who_joins_reads_in_the_shop_s_units(lead, as_, yard):
    lead.send("/api/shop/ways", time_zone="", units="in", day_form="words")
    made = lead.send("/api/people/invitations", uuid=str(uuid.uuid4()), name="Ines Marrow", roles=["technician"]).json()
    secret = made["path"].rpartition("/")[2]
    as_().send(f"/api/session/invitation/{secret}", username="ines", name="Ines Marrow", password="linseed-and-lupins")
    assert Member.objects.get(user__username="ines", shop=yard.shop).units == "in"


@pytest.mark.parametrize(
    ("path", "body", "field"),
    [
        ("ways", {"time_zone": "Mars/Base", "units": "mm", "day_form": "words"}, "time_zone"),
        ("hours", {"hours": "always"}, "hours"),
        ("hours", {"hours": "", "closed": "Christmas"}, "closed"),
        ("crops", {"crops": [{"name": " ", "group": "pod"}], "seasons": []}, "crops.0.name"),
        (
            "crops",
            {"crops": [{"name": "Oats", "group": "pod"}, {"name": "oats", "group": "pod"}], "seasons": []},
            "crops.1.name",
        ),
        ("crops", {"crops": [], "seasons": [{"name": "Harvest", "first": "07-32", "last": "08-20"}]}, "seasons.0.first"),
        ("places", {"uuid": str(uuid.uuid4()), "kind": "bay", "name": ""}, "name"),
        ("places", {"uuid": str(uuid.uuid4()), "kind": "bay", "name": "Bay", "door_width": "4.2"}, "door_width"),
        ("places", {"uuid": str(uuid.uuid4()), "kind": "bay", "name": "Bay", "door_height": "high"}, "door_height"),
    ],
)
def test_what_is_wrong_is_said_at_its_field(lead, path, body, field):
    answer = lead.send(f"/api/shop/{path}", **body)
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, field)


def test_hours_crops_and_seasons_are_kept_and_logged(lead, yard, as_):
    assert (
        lead.send("/api/shop/hours", hours="mon-fri 7.30-17:00", closed="2026-12-24").json()["hours"] == "Mon–Fri 07:30–17:00"
    )
    crops = [{"name": "Wheat", "group": "small-grain"}, {"name": "Maize", "group": "ear"}]
    lead.send("/api/shop/crops", crops=crops, seasons=[{"name": "Planting", "first": "04-10", "last": "05-20"}])
    start = as_(yard.technician).get(f"/api/machines/{yard.machine.pk}/start").json()
    assert start["crops"]["ear"] == ["Maize"]
    assert logged("Crops") == [("none", "Wheat (small grain), Maize (ear crops)")]
    assert logged("Working hours") == [("none", "Mon–Fri 07:30–17:00")]


def test_a_place_is_added_once_changed_and_removed(lead, other_shop):
    place = {"uuid": str(uuid.uuid4()), "kind": "bay", "name": "Long bay", "door_width": "4.2 m", "door_height": "14 ft"}
    for _ in range(2):
        listed = lead.send("/api/shop/places", **place).json()["places"]
    assert [(one["name"], one["door_width"]) for one in listed] == [("Long bay", "4200 mm")]
    assert lead.send("/api/shop/places", **{**place, "uuid": str(uuid.uuid4())}).json()["error"]["field"] == "name"
    changed = lead.send("/api/shop/places", **{**place, "door_width": "4.5 m"}).json()["places"]
    assert [one["door_width"] for one in changed] == ["4500 mm"]
    assert other_shop.send("/api/shop/places", **place).status_code == 404
    assert other_shop.post(f"/api/shop/places/{place['uuid']}/removed").status_code == 404
    assert Workplace.objects.filter(removed_at=None).count() == 1
    for _ in range(2):  # the first answer may have been lost
        assert lead.post(f"/api/shop/places/{place['uuid']}/removed").json()["places"] == []


@pytest.fixture
def other_shop(as_, db):
    return as_(make_shop("Wharf Lane", "other-").lead)
