"""How machines were set in the field, what worked, and the daily card."""

import datetime as dt
import uuid

import pytest
from django.utils import timezone

from calibration.actions import recording as calibrating
from calibration.schemas import HappenedIn
from field.models import DailyTick, SetInField
from field.queries import daily
from fleet.models import Machine, MachineModel
from inspection.models import OperatorNote
from shops.models import Change, Member


@pytest.fixture
def yard(yard):
    """The yard with a combine that has its draper on, in a shop that grows barley and lupins."""

    def made(name, family, **more):
        model = MachineModel.objects.create(shop=yard.shop, maker="Tavric", name=name, family=family)
        return Machine.objects.create(shop=yard.shop, model=model, name=name, **more)

    yard.shop.crops = [{"name": "Malting barley", "group": "small-grain"}, {"name": "Lupins", "group": "pod"}]
    yard.shop.save()
    yard.combine, yard.draper = made("Heron 6", "rotary-combine"), made("Weir 107", "draper-header")
    couple(yard, yard.draper)
    yard.card = f"/api/field/machines/{yard.combine.pk}/card"
    yard.daily = f"/api/field/machines/{yard.combine.pk}/daily"
    return yard


def couple(yard, header):
    new = HappenedIn(uuid=uuid.uuid4(), what="header", header=header.pk if header else None)
    calibrating.say_happened(yard.technician, yard.combine, new)


@pytest.fixture
def tech(yard, as_):
    return as_(yard.technician)


def send(browser, path, status=200, **body):
    answer = browser.send(path, **({"uuid": str(uuid.uuid4())} | body))
    assert answer.status_code == status, answer.content
    return answer.json()


def setting(card, key):
    return next(one for one in card["settings"] if one["key"] == key)


def test_the_card_has_the_machines_settings_in_the_order_of_the_cab(yard, tech):
    keys = [one["key"] for one in tech.get(yard.card).json()["settings"]]
    header = [
        "header-type",
        "knife-angle",
        "ground-reference",
        "float",
        "cut-height-1",
        "cut-height-2",
        "turn-height",
        "resume",
    ]
    assert keys[:8] == header and keys[8:13] == ["reel-height", "reel-reach", "reel-pitch", "reel-speed", "reel-minimum"]
    assert "rotor" in keys and "depth" not in keys
    couple(yard, None)
    assert "float" not in [one["key"] for one in tech.get(yard.card).json()["settings"]], "there is no header on it"


def test_what_worked_is_offered_the_next_time_with_the_same_crop_before_any_other(yard, tech):
    barley = send(tech, yard.card, crop="Malting barley", condition="dry", values={"rotor": "820", "fan": "1050"})
    lupins = send(tech, yard.card, crop="Lupins", condition="damp", values={"rotor": "450"}, why="splits")
    assert setting(lupins, "rotor")["worked"] is None and setting(lupins, "rotor")["now"] == "450"
    for kept in (barley, lupins):
        tech.send(f"/api/field/settings/{kept['last'][0]['uuid']}/worked", worked=True)
    told = setting(tech.get(f"{yard.card}?crop=Malting barley").json(), "rotor")["worked"]
    assert (told["value"], told["condition"], told["same"]) == ("820", "dry", True)
    assert setting(tech.get(f"{yard.card}?crop=Linseed").json(), "rotor")["worked"] == {
        "value": "450", "shown": "450 1/min", "crop": "Lupins", "condition": "damp", "day": str(timezone.localdate()), "same": False,
    }  # fmt: skip
    tech.send(f"/api/field/settings/{barley['last'][0]['uuid']}/worked", worked=False)
    assert setting(tech.get(f"{yard.card}?crop=Malting barley").json(), "fan")["worked"] is None
    assert Change.objects.filter(what="Heron 6: set in the field", before="worked", after="did not work").exists()


def test_what_was_changed_stands_in_the_log_with_why_and_can_be_taken_back(yard, tech):
    send(tech, yard.card, crop="Lupins", values={"rotor": "450", "float": " "}, why="splits in the tank")
    row = tech.get(yard.card).json()["last"][0]
    assert (row["shown"], row["why"], row["header"]) == (["Rotor speed 450 1/min"], "splits in the tank", "Weir 107")
    card = send(tech, f"/api/field/settings/{row['uuid']}/take-back")
    assert card["last"][0]["taken_back"] and setting(card, "rotor")["now"] == ""


def test_lengths_are_typed_and_read_in_everybodys_own_units(yard, tech, as_):
    Member.objects.filter(pk=yard.lead.pk).update(units="in")
    lead = as_(yard.lead)
    card = send(lead, yard.card, values={"cut-height-1": "3 1/2 to 4", "clearance": "shallow", "rotor": "820"})
    lead.send(f"/api/field/settings/{card['last'][0]['uuid']}/worked", worked=True)
    assert SetInField.objects.get().values == {"cut-height-1": "88.9 to 101.6", "clearance": "shallow", "rotor": "820"}
    theirs, mine = setting(lead.get(yard.card).json(), "cut-height-1"), setting(tech.get(yard.card).json(), "cut-height-1")
    assert (theirs["unit"], theirs["now"], theirs["worked"]["shown"]) == ("in", "3 1/2 to 4", "3 1/2 to 4 in")
    assert (mine["unit"], mine["now"], mine["worked"]["shown"]) == ("mm", "88.9 to 101.6", "88.9 to 101.6 mm")
    assert tech.get(yard.card).json()["last"][0]["shown"][0] == "First cut height 88.9 to 101.6 mm"
    # Begun in inches, sent after the reader went over to millimetres.
    assert setting(send(tech, yard.card, values={"clearance": "1"}, units="in"), "clearance")["now"] == "25.4"
    logbook = as_(yard.lead).get(f"/api/logbook/machines/{yard.combine.pk}/logbook").json()["entries"]
    assert any("First cut height 3 1/2 to 4 in" in one["title"] for one in logbook)


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"values": {"clearance": "12 rows"}}, "values.clearance"),
        ({"values": {"depth": "45"}}, "values.depth"),
        ({"values": {"rotor": "  "}}, "values"),
        ({"values": {"rotor": "820"}, "at": "2199-01-01T00:00:00Z"}, "at"),
    ],
)
def test_what_cannot_be_is_refused_at_its_place(body, field, yard, tech):
    assert send(tech, yard.card, 422, **body)["error"]["field"] == field and not SetInField.objects.exists()


def test_the_same_twice_is_once(yard, tech):
    same = str(uuid.uuid4())
    for _ in range(2):
        send(tech, yard.card, uuid=same, values={"rotor": "820"})
        send(tech, yard.daily, uuid=same, keys=["alarms", "engine-oil"])
    assert (SetInField.objects.count(), DailyTick.objects.count()) == (1, 2)


# The daily card


def keys(card):
    return [one["key"] for one in card["items"]]


def test_the_daily_card_has_the_machine_and_the_header_on_it(yard, tech):
    card = tech.get(yard.daily).json()
    assert {"engine-oil", "draper.knife-sections"} <= set(keys(card)) and card["header"] == "Weir 107"
    assert "operator-note" not in keys(card), "what is only written is no tick"
    assert all(one["state"] == "" for one in card["items"])


def test_all_of_it_is_ticked_at_once(yard, tech):
    card = tech.get(yard.daily).json()
    card = send(tech, yard.daily, keys=keys(card))
    assert {one["state"] for one in card["items"]} == {"right"} and card["streak"] == 1
    assert card["days"][-1] == {"day": str(timezone.localdate()), "done": len(card["items"]), "wrong": 0}


def test_what_is_wrong_says_so_and_comes_back_at_its_station(yard, tech):
    assert send(tech, yard.daily, 422, keys=["draper.guards"], right=False)["error"]["field"] == "words"
    card = send(tech, yard.daily, keys=["draper.guards"], right=False, words="one bent, left end")
    item = next(one for one in card["items"] if one["key"] == "draper.guards")
    assert (item["state"], item["words"], item["by"]) == ("not", "one bent, left end", "Technician")
    note = OperatorNote.objects.get()
    assert note.machine == yard.draper and note.text == "Guards: one bent, left end"
    card = send(tech, yard.daily, keys=["draper.guards"])
    assert next(one for one in card["items"] if one["key"] == "draper.guards")["state"] == "right", "the newest rules"


def test_the_streak_counts_whole_days_and_waits_for_today(yard, tech):
    all_of_it = keys(tech.get(yard.daily).json())
    for back in (1, 2, 4):
        send(tech, yard.daily, keys=all_of_it, day=str(timezone.localdate() - dt.timedelta(days=back)))
    assert tech.get(yard.daily).json()["streak"] == 2
    send(tech, yard.daily, keys=all_of_it[:3])
    assert tech.get(yard.daily).json()["streak"] == 2, "today is not over"
    assert send(tech, yard.daily, keys=all_of_it[3:])["streak"] == 3


@pytest.mark.parametrize("body", [{"keys": ["rotor-bars"]}, {"keys": ["alarms"], "day": "2020-01-01"}, {"keys": []}])
def test_a_tick_that_cannot_be_is_refused(body, yard, tech):
    send(tech, yard.daily, 422, **body)
    assert not DailyTick.objects.exists()


def test_the_lead_sees_which_machine_is_looked_at_least_regularly(yard, tech, as_):
    couple(yard, None)
    send(tech, yard.daily, keys=keys(tech.get(yard.daily).json()))
    fleet = as_(yard.lead).get("/api/field/daily").json()
    assert [(one["machine"]["name"], one["streak"]) for one in fleet][-1] == ("Heron 6", 1)
    assert {one["machine"]["name"] for one in fleet} == {"Heron 6", "Dunmere 12"}, "a header is on its combine's card"
    assert as_(yard.owner).get("/api/field/daily").status_code == 403


def test_the_lists_ask_as_much_however_much_was_ticked(yard, tech, as_, django_assert_num_queries):
    from django.db import connection
    from django.test.utils import CaptureQueriesContext

    lead = as_(yard.lead)
    all_of_it = keys(tech.get(yard.daily).json())
    send(tech, yard.daily, keys=all_of_it[:1])
    counts = []
    for back in (1, 2):
        with CaptureQueriesContext(connection) as asked:
            lead.get("/api/field/daily")
            lead.get(yard.daily)
        counts.append(len(asked))
        send(tech, yard.daily, keys=all_of_it, day=str(timezone.localdate() - dt.timedelta(days=back)))
    assert counts[0] >= counts[1]


def test_another_shops_machines_are_not_there(yard, neighbour, as_):
    stranger = as_(neighbour.technician)
    assert stranger.get(yard.card).status_code == stranger.get(yard.daily).status_code == 404
    send(stranger, yard.daily, 404, keys=["alarms"])


def test_a_streak_of_nothing_is_none():
    assert daily.streak({}, [], dt.date(2026, 7, 1)) == 0
