"""Models are copied, and handed from shop to shop as one readable file."""

import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from fleet.models import MachineModel
from shops.models import Change
from testing.yard import make_shop


@pytest.fixture
def other(db):
    """Another shop, with people and a machine like the first one's."""
    return make_shop("Wharf Lane", "other-")


@pytest.fixture
def lead(yard, as_):
    return as_(yard.lead)


@pytest.fixture
def rich(yard, lead):
    """The yard's model with a count, limits in both units, numbers and a check of its own."""
    at = f"/api/rules/models/{yard.model.pk}"
    lead.send(f"{at}/limits", check="seed-tube-guard", figure="limit", text="3/4 in", source="manual", note="page 44")
    lead.send(f"{at}/limits", check="opener-disc-diameter", figure="watch_from", text="60", source="shop", note="")
    lead.send("/api/supply/numbers", model=yard.model.pk, slot="seed-tube-guard", number="D12-77", pack=4)
    check = {"family": "row-crop-planter", "station": "hitch", "name": "Rail gap", "how": "Feeler.", "rule": "least"}
    lead.send("/api/own-checks", uuid=str(uuid.uuid4()), model=yard.model.pk, unit="mm", figures={"least": "1/8 in"}, **check)
    return yard.model


def copy(browser, model, write=None, maker="Dunmere", name="12 narrow"):
    return browser.send(f"/api/rules/models/{model.pk}/copies", uuid=str(write or uuid.uuid4()), maker=maker, name=name)


def read_in(browser, text, dry=False):
    content = text if isinstance(text, bytes) else text.encode()
    file = SimpleUploadedFile("model.yaml", content, "application/yaml")
    return browser.post("/api/rules/models/file", {"file": file, "dry": str(dry).lower()})


def limits_of(browser, model_id):
    checks = browser.get(f"/api/rules/models/{model_id}").json()["checks"]
    return [(c["check"], f["figure"], f["shown"], f["source"], f["note"]) for c in checks for f in c["figures"] if f["own"]]


@pytest.mark.parametrize(
    ("content", "words"),
    [
        ("", "is empty"),
        ("# nothing but a comment\n", "is empty"),
        ("name: 2026-13-99", "no day, time or figure"),
        ("name: 2026-01-01T00:00:00+99:99", "no day, time or figure"),
        ("name: 0x_", "no day, time or figure"),
        ('name: !!float "x"', "no day, time or figure"),
        ("a" * 600_000, "is larger than 500 kB"),
        ("a" * 5_200_000, "is larger than 5 MB"),
    ],
)
def test_a_file_that_is_none_is_refused_in_words(content, words, lead, yard):
    own = {"file": SimpleUploadedFile("own.yaml", content.encode())}
    for answer in (read_in(lead, content), lead.post("/api/own-checks/file", own)):
        assert answer.status_code == 422
        assert answer.json()["error"]["field"] == "file"
        assert words in answer.json()["error"]["message"]


def test_a_copy_has_everything_of_the_model(lead, rich):
    made = copy(lead, rich).json()
    assert limits_of(lead, made["id"]) == limits_of(lead, rich.pk)
    copied = MachineModel.objects.get(pk=made["id"])
    assert set(copied.part_numbers.values_list("number", "pack")) == set(rich.part_numbers.values_list("number", "pack"))
    own = lead.get("/api/own-checks").json()["checks"]
    assert sorted((one["name"], one["model_name"]) for one in own) == [
        ("Rail gap", "Dunmere 12"),
        ("Rail gap", "Dunmere 12 narrow"),
    ]


def test_the_same_uuid_twice_is_one_copy(lead, rich):
    write = uuid.uuid4()
    assert copy(lead, rich, write).json() == copy(lead, rich, write).json()
    assert MachineModel.objects.filter(name="12 narrow").count() == 1


@pytest.mark.parametrize(("maker", "name", "field"), [("", "9", "maker"), ("Dunmere", " ", "name"), ("dunmere", "12", "name")])
def test_a_copy_needs_a_name_of_its_own(lead, rich, maker, name, field):
    assert copy(lead, rich, maker=maker, name=name).json()["error"]["field"] == field


def test_a_file_makes_the_same_model_elsewhere(lead, rich, other, as_):
    text = lead.get(f"/models/{rich.pk}.yaml").content
    assert b"3/4 in" in text and b"page 44" in text and b"own-rail-gap" in text
    elsewhere = as_(other.lead)
    MachineModel.objects.filter(shop=other.shop, name="12").update(name="13")
    first = read_in(elsewhere, text, dry=True).json()
    assert first["lines"][0]["words"] == "Dunmere 12, row-crop planter: new"
    assert not MachineModel.objects.filter(shop=other.shop, name="12").exists()
    assert read_in(elsewhere, text).json()["refused"] == 0
    made = MachineModel.objects.get(shop=other.shop, name="12")
    assert limits_of(elsewhere, made.pk) == limits_of(lead, rich.pk)
    assert elsewhere.get(f"/models/{made.pk}.yaml").content == text


def test_what_a_file_would_change_is_said_before(lead, rich):
    text = lead.get(f"/models/{rich.pk}.yaml").content.decode().replace("3/4 in", "19 mm").replace("19 mm", "19.5")
    report = read_in(lead, text.replace("pack: 4", "pack: 6"), dry=True).json()
    taken = [line["words"] for line in report["lines"] if line["outcome"] == "taken"]
    assert len(taken) == 2 and "19.05 mm (3/4 in) → 19.5 mm" in taken[0] and taken[1].endswith("D12-77 changed")
    assert "19.05" in str(limits_of(lead, rich.pk))
    read_in(lead, text)
    assert "19.5 mm" in str(limits_of(lead, rich.pk))
    assert Change.objects.filter(about="model", after="19.5 mm").exists()


@pytest.mark.parametrize(
    ("old", "new", "words"),
    [
        ("figure: limit", "figure: lengths", "no such limit"),
        ("slot: opener-disc", "slot: sail", "no part of this kind"),
        ("station: hitch", "station: seat", "no station seat"),
        ("number: D12-77", "number: ''", "1 to 40 characters"),
    ],
)
def test_nothing_is_taken_while_something_is_refused(lead, rich, old, new, words):
    text = lead.get(f"/models/{rich.pk}.yaml").content.decode()
    assert old in text
    changed = text.replace(old, new).replace("page 44", "page 45")
    report = read_in(lead, changed).json()
    assert words in str([line["words"] for line in report["lines"] if line["outcome"] == "refused"])
    assert "page 44" in str(limits_of(lead, rich.pk))


def test_a_file_of_another_kind_of_machine_is_refused(lead, rich):
    text = f"format: lumvek-model-1\nmaker: {rich.maker}\nname: '{rich.name}'\nfamily: air-seeder\n"
    assert "another kind" in read_in(lead, text).json()["error"]["message"]


def test_files_are_the_lead_s(yard, as_):
    for who in (yard.technician, yard.parts, yard.owner):
        assert as_(who).get(f"/models/{yard.model.pk}.yaml").status_code == 404
        assert as_(who).get("/own-checks/row-crop-planter.yaml").status_code == 404


def test_another_shop_s_model_is_not_there(yard, other, as_):
    assert as_(other.lead).get(f"/models/{yard.model.pk}.yaml").status_code == 404
