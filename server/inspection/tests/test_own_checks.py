"""A lead adds checks of the shop's own in the browser; they are in the walk-around like shipped ones, and every version stays."""

import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from config.tests.endpoints import OWN_CHECK
from inspection.models import CheckVersion
from shops.models import Change
from testing.yard import make_shop

FAMILY = "row-crop-planter"
CAMERA = {
    "family": FAMILY,
    "station": "opener",
    "name": "Camera bracket",
    "per": "row",
    "how": "Shake the bracket.",
    "rule": "choice",
    "states": [
        {"name": "Firm"},
        {"name": "Loose", "severity": "due", "action": "repair"},
        {"name": "Broken off", "severity": "stop", "action": "replace"},
    ],
    "slot": "opener-disc",
    "hazards": ["sharp"],
}


@pytest.fixture
def other(db):
    """Another shop, with people and a machine like the first one's."""
    return make_shop("Wharf Lane", "other-")


@pytest.fixture
def lead(yard, as_):
    return as_(yard.lead)


@pytest.fixture
def set_check(lead):
    def send(**typed):
        return lead.send("/api/own-checks", **{"uuid": str(uuid.uuid4()), **CAMERA, **typed})

    return send


@pytest.fixture
def walk(yard, as_):
    """A walk-around that begins now, as its technician sees it."""

    def begun(phase="winter"):
        technician = as_(yard.technician)
        made = technician.send(f"/api/machines/{yard.machine.pk}/walk-arounds", id=str(uuid.uuid4()), phase=phase).json()
        return technician, technician.get(f"/api/walk-arounds/{made['id']}").json()

    return begun


def named(walk_around, key):
    return next((check for check in walk_around["checks"] if check["key"] == key), None)


def test_it_is_read_judged_and_listed_like_a_shipped_one(set_check, walk):
    set_check()
    technician, begun = walk()
    check = named(begun, "own-camera-bracket")
    assert [one["name"] for one in check["options"]] == ["Firm", "Loose", "Broken off"]
    assert check["hazards"] and check["positions"][:2] == ["1", "2"]
    reading = {"uuid": str(uuid.uuid4()), "check": check["key"], "position": "2", "raw": ["3"]}
    answered = technician.send(f"/api/walk-arounds/{begun['walk_around']['id']}/readings", **reading).json()
    place = next(one for one in answered["places"] if one["check"] == check["key"])
    assert (place["severity"], place["action"]) == ("stop", "renew")
    found = technician.get(f"/api/walk-arounds/{begun['walk_around']['id']}/findings").json()["groups"]
    assert [group["name"] for group in found] == ["Camera bracket"]
    parts = technician.get(f"/api/walk-arounds/{begun['walk_around']['id']}").json()["parts"]
    assert "Opener disc" in [part["name"] for part in parts]


def test_it_brings_a_part_that_the_catalogue_does_not_have(set_check, walk, lead, yard):
    assert set_check(slot="own", part=" ").json()["error"]["field"] == "part"
    typed = set_check(slot="own", part="Camera bracket, bent").json()["checks"][0]["typed"]
    assert (typed["slot"], typed["part"]) == ("own", "Camera bracket, bent")
    technician, begun = walk()
    path = f"/api/walk-arounds/{begun['walk_around']['id']}"
    technician.send(f"{path}/readings", uuid=str(uuid.uuid4()), check="own-camera-bracket", position="2", raw=["3"])
    assert [part["name"] for part in technician.get(f"{path}/parts").json()["parts"]] == ["Camera bracket, bent"]
    line = next(one for one in lead.get("/api/supply/list").json()["lines"] if one["name"] == "Camera bracket, bent")
    assert line["state"] == "number"
    lead.send("/api/supply/numbers", model=line["model"], slot=line["slot"], side="", number="CB-7")
    book = lead.get(f"/api/supply/book?model={yard.model.pk}").json()["lines"]
    assert [one["name"] for one in book if one["number"] == "CB-7"] == ["Camera bracket, bent"]
    assert "Camera bracket, bent" in str(lead.get("/api/search?q=CB-7").json())


def test_it_stands_in_the_catalogue_and_is_found(set_check, as_, yard):
    set_check()
    technician = as_(yard.technician)
    stations = technician.get(f"/api/catalogue/{FAMILY}").json()["stations"]
    assert [c["name"] for station in stations for c in station["checks"] if c["own"]] == ["Camera bracket"]
    assert "Camera bracket" in str(technician.get("/api/search?q=camera").json())


def test_a_walk_around_that_has_begun_keeps_what_it_began_with(set_check, walk, lead):
    technician, begun = walk()
    set_check()
    again = technician.get(f"/api/walk-arounds/{begun['walk_around']['id']}").json()
    assert named(again, "own-camera-bracket") is None


def test_the_same_uuid_twice_is_one_version(set_check):
    once = str(uuid.uuid4())
    set_check(uuid=once)
    assert len(set_check(uuid=once).json()["checks"]) == 1
    assert CheckVersion.objects.count() == 1


def test_every_version_stays_and_the_one_before_comes_back(set_check, lead):
    made = set_check().json()["checks"][0]
    assert made["version"] == 1
    typed = {**made["typed"], "uuid": str(uuid.uuid4()), "how": "Kick it.", "reason": "it was too gentle"}
    changed = lead.send("/api/own-checks", **typed).json()["checks"]
    assert [(one["version"], one["typed"]["how"]) for one in changed] == [(2, "Kick it.")]
    back = lead.send("/api/own-checks/as-before", uuid=str(uuid.uuid4()), family=FAMILY, key=made["key"]).json()["checks"]
    assert [(one["version"], one["typed"]["how"]) for one in back] == [(3, "Shake the bracket.")]
    said = list(Change.objects.filter(about="check").order_by("id").values_list("before", "after"))
    assert len(said) == 1 and said[0][0] == ""  # what the log says of it is the same but for its words
    assert CheckVersion.objects.count() == 3


def test_it_is_taken_away_and_comes_back(set_check, lead, walk):
    made = set_check().json()["checks"][0]
    gone = lead.send("/api/own-checks/taken-away", uuid=str(uuid.uuid4()), family=FAMILY, key=made["key"], reason="sold").json()
    assert gone["checks"][0]["typed"] is None
    assert named(walk()[1], made["key"]) is None
    lead.send("/api/own-checks/as-before", uuid=str(uuid.uuid4()), family=FAMILY, key=made["key"])
    assert named(walk()[1], made["key"])


def test_one_for_a_model_is_made_on_that_alone(set_check, lead, yard, walk):
    other = lead.send(f"/api/rules/models/{yard.model.pk}/copies", uuid=str(uuid.uuid4()), maker="Dunmere", name="12 b").json()
    set_check(model=other["id"])
    assert named(walk()[1], "own-camera-bracket") is None
    set_check(model=yard.model.pk, name="Camera lens")
    assert named(walk()[1], "own-camera-lens")


def test_a_size_in_inches_stays_as_it_was_typed(lead, walk):
    gap = {**OWN_CHECK, "uuid": str(uuid.uuid4()), "figures": {"least": "1/8 in"}}
    assert lead.send("/api/own-checks", **gap).json()["checks"][0]["typed"]["figures"] == {"least": "1/8 in"}
    check = named(walk()[1], "own-rail-gap")
    assert check["limits"]["least"] == pytest.approx(3.175)
    assert "1/8 in" in check["figures"][0]["shown"]


@pytest.mark.parametrize(
    ("typed", "field"),
    [
        ({"name": " "}, "name"),
        ({"how": ""}, "how"),
        ({"station": "nowhere"}, "station"),
        ({"per": "wing"}, "per"),
        ({"states": [{"name": "Firm"}]}, "states"),
        ({"states": [{"name": "Firm"}, {"name": ""}]}, "states.1.name"),
        ({"states": [{"name": "Loose", "severity": "due"}, {"name": "Firm"}]}, "states.0.severity"),
        ({"slot": "sail"}, "slot"),
        ({"rule": "contact"}, "rule"),
        ({"phases": []}, "phases"),
        ({"family": "hovercraft"}, "family"),
        ({"rule": "window", "unit": "mm", "figures": {"low": "2"}}, "figures.high"),
        ({"rule": "window", "unit": "mm", "figures": {"low": "2", "high": "two"}}, "figures.high"),
        ({"rule": "wear", "unit": "mm", "figures": {"new": "20", "limit": "15"}, "life": "long"}, "life"),
        ({"model": 10**6}, "model"),
    ],
)
def test_what_is_wrong_is_said_at_its_field(set_check, typed, field):
    answer = set_check(**typed)
    assert answer.status_code == 422, answer.content
    assert answer.json()["error"]["field"] == field, answer.json()
    assert not CheckVersion.objects.exists()


def test_it_is_tried_out_before_it_is_kept(lead):
    tried = lead.send("/api/own-checks/trial", check={"uuid": str(uuid.uuid4()), **CAMERA}, raw=["2"]).json()
    assert (tried["severity"], tried["action"], tried["station"]) == ("due", "repair", "Opener discs")
    assert len(tried["check"]["options"]) == 3 and tried["cautions"]
    tried = lead.send("/api/own-checks/trial", check={"uuid": str(uuid.uuid4()), **CAMERA}, raw=["7"]).json()
    assert tried["problem"] and tried["severity"] == ""
    assert not CheckVersion.objects.exists()


def test_every_kind_that_is_offered_can_be_added(lead):
    form = lead.get("/api/own-checks/form").json()
    for rule in form["rules"]:
        figures = {one["key"]: str(5 + 5 * i) for i, one in enumerate(rule["figures"]) if one["wanted"]}
        typed = {**CAMERA, "uuid": str(uuid.uuid4()), "rule": rule["key"], "name": rule["name"], "figures": figures}
        typed["unit"] = "mm" if "unit" in rule["asks"] else ""
        answer = lead.send("/api/own-checks/trial", check=typed, raw=[])
        assert answer.status_code == 200, (rule["key"], answer.content)
        judged = lead.send("/api/own-checks/trial", check=typed, raw=answer.json()["sample"]).json()
        assert not judged["problem"], (rule["key"], judged["problem"])
        assert lead.send("/api/own-checks", **typed).status_code == 200


@pytest.fixture
def alter(lead):
    def send(**words):
        body = {"uuid": str(uuid.uuid4()), "family": FAMILY, "key": "parallel-arm-play", "reason": "Torx here", **words}
        return lead.send("/api/own-checks/altered", **body)

    return send


def test_a_shipped_check_is_worded_otherwise(alter, walk):
    alter(how="Torx 50, then shake.")
    assert named(walk()[1], "parallel-arm-play")["how"] == "Torx 50, then shake."


def test_a_shipped_check_is_left_out_and_made_again(alter, walk):
    alter(left_out=True)
    assert named(walk()[1], "parallel-arm-play") is None
    assert not alter().json()["altered"][0]["holds"]
    assert named(walk()[1], "parallel-arm-play")


def test_why_is_wanted_and_a_safety_item_stays(lead, alter):
    assert alter(left_out=True, reason=" ").json()["error"]["field"] == "reason"
    families = {one["family"]: one for one in lead.get("/api/own-checks/form").json()["families"]}
    safety = next(c["key"] for s in families["rotary-combine"]["stations"] for c in s["checks"] if c["safety"])
    answer = alter(family="rotary-combine", key=safety, left_out=True)
    assert answer.json()["error"]["field"] == "left_out"


def test_they_go_out_and_in_as_the_catalogue_is_written(set_check, alter, lead, other, as_):
    set_check()
    alter(how="Torx 50.")
    text = lead.get(f"/own-checks/{FAMILY}.yaml").content
    assert b"own-camera-bracket" in text and b"reason: Torx here" in text

    def read_in(browser, dry):
        file = SimpleUploadedFile("own.yaml", text, "application/yaml")
        return browser.post("/api/own-checks/file", {"file": file, "dry": str(dry).lower()}).json()

    assert (read_in(lead, False)["taken"], read_in(lead, False)["there"]) == (0, 2)
    elsewhere = as_(other.lead)
    assert read_in(elsewhere, True)["taken"] == 2
    assert not elsewhere.get("/api/own-checks").json()["checks"]
    assert read_in(elsewhere, False)["taken"] == 2
    assert elsewhere.get(f"/own-checks/{FAMILY}.yaml").content == text


def test_one_for_a_model_alone_goes_with_that_models_file(set_check, lead, yard):
    set_check()
    set_check(model=yard.model.pk, name="Camera lens")
    family = lead.get(f"/own-checks/{FAMILY}.yaml").content
    assert b"own-camera-bracket" in family and b"own-camera-lens" not in family
    assert b"own-camera-lens" in lead.get(f"/models/{yard.model.pk}.yaml").content


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("checks: [", "YAML"),
        ("family: hovercraft", "no kind of machine"),
        ("family: row-crop-planter\nseeds: 3", "seeds"),
        ("a: &a [x]\nb: *a", "refers to another line"),
        ("[" * 20 + "]" * 20, "too deep"),
        ("family: row-crop-planter\nchecks: []\nchecks: []", "stands there twice"),
    ],
)
def test_a_strange_file_is_refused_with_what_is_wrong(lead, text, words):
    file = SimpleUploadedFile("own.yaml", text.encode())
    answer = lead.post("/api/own-checks/file", {"file": file, "dry": "false"})
    assert answer.status_code == 422
    assert answer.json()["error"]["field"] == "file" and words in answer.json()["error"]["message"]


def test_a_file_with_one_that_does_not_fit_is_taken_not_at_all(set_check, lead):
    set_check()
    text = lead.get(f"/own-checks/{FAMILY}.yaml").content.decode()
    lead.send("/api/own-checks/taken-away", uuid=str(uuid.uuid4()), family=FAMILY, key="own-camera-bracket")
    second = text[text.index("- station") :].replace("own-camera-bracket", "own-b").replace("opener-disc", "sail")
    file = SimpleUploadedFile("own.yaml", (text + second).encode())
    answer = lead.post("/api/own-checks/file", {"file": file, "dry": "false"}).json()
    assert (answer["taken"], answer["refused"]) == (1, 1)
    assert lead.get("/api/own-checks").json()["checks"][0]["typed"] is None
