"""A whole shop goes out as an open archive, is deleted without a trace, and comes back as it was, beside the others."""

import csv
import io
import json
import re
import zipfile

import pytest
from django.contrib.auth.models import User
from django.core.management import CommandError, call_command

from inspection.models import Photo, WalkAround
from keeping import archive
from keeping.shop_tables import all_tables, rows_of, tables
from season.models import SeasonPlan
from shops.models import Change, Member, Shop


@pytest.fixture
def ring(demo):
    return Shop.objects.get(name="Sallow Bridge Machinery Ring")


@pytest.fixture
def kept(ring, tmp_path):
    path = tmp_path / "ring.zip"
    with path.open("wb") as out:
        archive.write(ring, out)
    return path


def counts(shop, models=None):
    return {model._meta.label: rows_of(model, shop).count() for model in (models or tables())}


def report(as_, member, walk):
    page = as_(member).get(f"/walk-arounds/{walk}/report").content.decode()
    return re.sub(r'nonce="[^"]*"', "", page)


def lead(shop):
    return Member.objects.get(shop=shop, user__username__startswith="ada")


def test_it_can_be_read_without_the_product(ring, kept):
    with zipfile.ZipFile(kept) as opened:
        told = json.loads(opened.read("manifest.json"))
        about = opened.read("README.md").decode()
        assert told["shop"] == ring.name and "| fleet.Machine |" in about
        assert {name: one["rows"] for name, one in told["tables"].items() if name != "people"} == counts(ring)
        lines = [json.loads(line) for line in opened.read("data/inspection.Photo.jsonl").splitlines()]
        assert opened.read(lines[0]["image"])[:2] == b"\xff\xd8"
        table = list(csv.reader(io.StringIO(opened.read("tables/fleet.Machine.csv").decode())))
        assert len(table) - 1 == told["tables"]["fleet.Machine"]["rows"]
        everything = opened.read("data/people.jsonl") + opened.read("data/shops.Member.jsonl")
        assert b"argon2" not in everything and b"password" not in everything


def test_a_shop_comes_back_as_it_was_and_the_other_one_has_seen_nothing(ring, kept, as_):
    others = {shop: counts(shop, all_tables()) for shop in Shop.objects.exclude(pk=ring.pk)}
    before, walk = counts(ring), WalkAround.objects.in_shop(ring.pk).filter(finished_at__isnull=False).first().pk
    SeasonPlan.objects.all().delete()  # it does not go along, and reports say by it when a machine is ready
    told, changed = report(as_, lead(ring), walk), list(ring.changes.values_list("at", "what"))
    names = set(ring.members.values_list("user__username", flat=True))
    picture = bytes(Photo.objects.filter(walk_around__shop=ring).first().image)

    archive.delete(ring)
    assert not Shop.objects.filter(name=ring.name).exists()
    assert not User.objects.filter(username__in=names).exists()
    assert sum(model._base_manager.count() for model in all_tables()) == sum(sum(one.values()) for one in others.values())
    assert {shop: counts(shop, all_tables()) for shop in others} == others

    back = archive.read(kept)
    assert counts(back) == before
    assert report(as_, lead(back), walk) == told
    assert list(back.changes.values_list("at", "what")) == changed
    assert bytes(Photo.objects.filter(walk_around__shop=back).first().image) == picture
    assert not lead(back).user.has_usable_password()
    assert {shop: counts(shop, all_tables()) for shop in others} == others


def test_it_is_not_read_in_twice(ring, kept):
    before = Shop.objects.count(), User.objects.count(), Change.objects.count()
    with pytest.raises(archive.NotRead, match="here already"):
        archive.read(kept)
    assert (Shop.objects.count(), User.objects.count(), Change.objects.count()) == before


def test_somebody_of_the_same_name_keeps_theirs(ring, kept):
    archive.delete(ring)
    other = User.objects.create(username="ada", first_name="Another")
    back = archive.read(kept)
    assert User.objects.get(username="ada") == other
    assert lead(back).user.username == "ada-2"


def test_a_damaged_archive_brings_nothing(ring, kept, tmp_path):
    archive.delete(ring)
    bad = tmp_path / "bad.zip"
    with zipfile.ZipFile(kept) as opened, zipfile.ZipFile(bad, "w") as made:
        for name in opened.namelist():
            content = opened.read(name)
            made.writestr(
                name, content.replace(b"winter", b"summer") if name == "data/inspection.WalkAround.jsonl" else content
            )
    with pytest.raises(archive.NotRead, match="is not what was written"):
        archive.read(bad)
    assert not Shop.objects.filter(name=ring.name).exists()


@pytest.mark.parametrize("content", [b"", b"PK", b"no archive"])
def test_what_is_no_archive_is_refused(db, tmp_path, content):
    path = tmp_path / "x.zip"
    path.write_bytes(content)
    with pytest.raises(CommandError, match="cannot be read"):
        call_command("archive", "read", path)


def test_deleting_wants_to_be_said_twice(ring):
    with pytest.raises(CommandError, match="gone for good"):
        call_command("archive", "delete", "--shop", ring.name)
    assert Shop.objects.filter(pk=ring.pk).exists()
    with pytest.raises(CommandError, match="Say which shop"):
        call_command("archive", "write", "x.zip")


def test_the_lead_keeps_it_from_the_browser_and_nobody_else_does(demo, as_):
    ada, tomas = (Member.objects.get(user__username=name) for name in ("ada", "tomas"))
    answer = as_(ada).get("/shop.zip")
    assert answer["Content-Disposition"] == 'attachment; filename="sallow-bridge-machinery-ring.zip"'
    with zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content))) as opened:
        assert json.loads(opened.read("manifest.json"))["shop"] == ada.shop.name
    assert as_(tomas).get("/shop.zip").status_code == 404
    assert as_().get("/shop.zip").status_code == 302
