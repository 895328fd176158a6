"""Machines and models of the shop's own: added in one go, changed later, sold and brought back."""

import datetime as dt
import uuid

import pytest

from fleet.models import LimitOverride, Machine, MachineModel
from inspection.actions import machine_import
from lumvek_core.errors import BadInput
from shops.models import Change


@pytest.fixture
def lead(yard, as_):
    return as_(yard.lead)


@pytest.fixture
def add(lead):
    """Add a machine, an eight-row planter of a new model unless said otherwise; the answer."""

    def send(model=None, machine=None, **more):
        body = {
            "uuid": str(uuid.uuid4()),
            "model": {"family": "row-crop-planter", "maker": "Dunmere", "name": "8"} | (model or {}),
            "machine": {"name": "Dunmere 8", "rows": 8, "options": ["meter-vacuum", "electric-drive"]} | (machine or {}),
        } | more
        return lead.send("/api/machines/new", **body)

    return send


def size(check, figure, text, source="manual"):
    return {"check": check, "figure": figure, "text": text, "source": source}


DISC = "opener-disc-diameter"


def test_a_planter_of_a_new_model_can_be_walked_round_at_once(add, lead):
    made = add(model={"sizes": [size(DISC, "new", "400 mm"), size(DISC, "limit", "386")]}, counter="120 ha").json()
    assert (made["name"], made["model"], made["rows"], made["area_ha"]) == ("Dunmere 8", "Dunmere 8", 8, 120)
    begun = lead.send(f"/api/machines/{made['id']}/walk-arounds", id=str(uuid.uuid4()), phase="winter").json()
    walk = lead.get(f"/api/walk-arounds/{begun['id']}").json()
    disc = next(check for check in walk["checks"] if check["key"] == DISC)
    assert {name: disc["limits"][name] for name in ("new", "limit")} == {"new": 400, "limit": 386}
    assert {one["source"] for one in disc["figures"] if one["key"] in ("new", "limit")} == {"operator's manual"}
    assert len(disc["positions"]) == 16


def test_the_same_uuid_twice_is_one_machine(add):
    known = str(uuid.uuid4())
    assert add(uuid=known).json()["id"] == add(uuid=known).json()["id"]
    assert Machine.objects.filter(name="Dunmere 8").count() == 1


def test_a_second_machine_of_a_model_takes_it_from_the_list(add, yard):
    add(model={"id": yard.model.pk}, machine={"name": "Dunmere 12 b", "rows": 12})
    assert Machine.objects.get(name="Dunmere 12 b").model == yard.model
    assert MachineModel.objects.count() == 1


def test_sizes_are_held_against_each_other_only_when_all_are_there(add):
    """A disc that is as large when new as the shipped limit was."""
    shipped_limit = "14 1/2 in"
    assert add(model={"sizes": [size(DISC, "new", shipped_limit), size(DISC, "limit", "14 in")]}).status_code == 200
    stated = LimitOverride.objects.filter(check_key=DISC, model__name="8").order_by("figure").values_list("figure", "stated")
    assert list(stated) == [("limit", "14 in"), ("new", "14 1/2 in")]


@pytest.mark.parametrize(
    ("model", "machine", "more", "field"),
    [
        ({"family": "sledge"}, {}, {}, "model.family"),
        ({"maker": " "}, {}, {}, "model.maker"),
        ({"name": "12"}, {}, {}, "model.name"),
        ({"counts": {"row": 8}}, {}, {}, None),
        ({"counts": {"wheel": 4}}, {}, {}, "model.counts.wheel"),
        ({"sizes": [size(DISC, "new", ""), size(DISC, "new", "wide")]}, {}, {}, "model.sizes.1.text"),
        ({"sizes": [size(DISC, "new", "400"), size(DISC, "limit", "400")]}, {}, {}, "model.sizes.1.text"),
        ({}, {"name": ""}, {}, "machine.name"),
        ({}, {"name": "Dunmere 12"}, {}, "machine.name"),
        ({}, {"rows": 0}, {}, "machine.rows"),
        ({}, {"track_rows": [4, 9]}, {}, "machine.track_rows"),
        ({}, {"options": ["wings"]}, {}, "machine.options"),
        ({}, {"folded_width": "5.9"}, {}, "machine.folded_width"),
        ({}, {"folded_width": "5.9 m"}, {}, None),
        ({}, {"row_spacing": "20 in"}, {}, None),
        ({}, {"owners": [10**6]}, {}, "machine.owners"),
        ({}, {}, {"counter": "many"}, "counter"),
        ({}, {}, {"arrival": "new"}, "counter"),
    ],
)
def test_what_cannot_be_is_said_at_its_field_and_nothing_is_made(model, machine, more, field, add, yard):
    answer = add(model, machine, **more)
    if field is None:
        assert answer.status_code == 200, answer.content
        return
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, field)
    assert (Machine.objects.count(), MachineModel.objects.count()) == (1, 1)


def test_nothing_of_another_shop_is_taken(add, yard, neighbour):
    assert add(model={"id": neighbour.model.pk}).status_code == 404
    assert add(machine={"owners": [neighbour.owner.pk]}).json()["error"]["field"] == "machine.owners"


def test_a_header_says_which_combine_it_goes_with(add, lead):
    combine = add(
        {"family": "rotary-combine", "maker": "Tavric", "name": "Heron 6", "counts": {"knife": 44}},
        {"name": "Heron 6", "rows": 0, "options": ["accelerator"]},
        counter="2140",
    ).json()
    assert combine["hours"] == 2140
    for name, goes_with in (("Sill 61", []), ("Weir 107", [combine["id"]])):
        family = "draper-header" if name.startswith("Weir") else "auger-platform"
        added = add(
            {"family": family, "maker": "Lorne", "name": name},
            {"name": name, "rows": 0, "options": [], "goes_with": goes_with},
        )
        assert added.status_code == 200, added.content
    start = lead.get(f"/api/machines/{combine['id']}/start").json()
    assert [one["name"] for one in start["headers"]] == ["Weir 107", "Sill 61"], "its own come first"
    assert start["own_headers"] == [start["headers"][0]["id"]]


def test_a_machine_that_came_new_has_parts_as_old_as_itself(add, lead):
    made = add(counter="0", arrival="new").json()
    assert Machine.objects.get(pk=made["id"]).new_at == 0
    begun = lead.send(f"/api/machines/{made['id']}/walk-arounds", id=str(uuid.uuid4()), phase="winter").json()
    lead.send(f"/api/logbook/machines/{made['id']}/counters", uuid=str(uuid.uuid4()), shown=200)
    reading = {"uuid": str(uuid.uuid4()), "check": DISC, "position": "1L", "raw": ["376"]}
    lead.send(f"/api/walk-arounds/{begun['id']}/readings", **reading)
    wear = lead.get(f"/api/logbook/machines/{made['id']}/ahead").json()
    discs = next(one for one in wear["checks"] if one["check"] == DISC)
    worn = next(one for one in discs["places"] if one["position"] == "1L")
    assert (worn["n"], worn["last"], round(worn["rate"])) == (1, 376, 2), "5 mm in 200 ha since it came new, and its prior"


def test_a_machine_is_changed_and_the_log_says_what(add, lead):
    made = add(machine={"season_date": "2027-03-20"}).json()
    path = f"/api/machines/{made['id']}/particulars"
    stands = lead.get(path).json()
    assert (stands["rows"], stands["options"], stands["may_change"]) == (8, ["electric-drive", "meter-vacuum"], True)
    changed = lead.send(path, **stands | {"name": "Eight", "serial": "D08-1", "track_rows": [4, 5], "folded_width": "3.3 m"})
    assert changed.json()["folded_width"] == "3300 mm"
    lead.send(path, **changed.json())  # as it is
    log = Change.objects.filter(about="machine").order_by("id").values_list("what", "before", "after")
    assert list(log)[1:] == [
        ("Dunmere 8: name", "Dunmere 8", "Eight"),
        ("Dunmere 8: serial number", "none", "D08-1"),
        ("Dunmere 8: rows behind the wheels", "none", "4, 5"),
        ("Dunmere 8: folded width", "none", "3300 mm"),
    ]


def test_a_walk_around_that_has_begun_keeps_what_it_began_with(yard, lead):
    path = f"/api/machines/{yard.machine.pk}/particulars"
    before = lead.get(f"/api/walk-arounds/{yard.walk_around.pk}").json()
    lead.send(path, **lead.get(path).json() | {"rows": 4, "track_rows": [], "options": []})
    after = lead.get(f"/api/walk-arounds/{yard.walk_around.pk}").json()
    assert [check["positions"] for check in after["checks"]] == [check["positions"] for check in before["checks"]]


def test_a_sold_machine_is_in_no_list_and_its_logbook_stays(yard, lead):
    machine = yard.machine.pk
    gone = lead.send(f"/api/machines/{machine}/gone", why="sold", on="2026-11-20").json()
    assert (gone["gone"], gone["gone_on"]) == ("sold", "2026-11-20")
    assert lead.get("/api/machines").json()["machines"] == []
    assert lead.get(f"/api/logbook/machines/{machine}/logbook").status_code == 200
    assert lead.get(f"/api/walk-arounds/{yard.walk_around.pk}").status_code == 200
    lead.send(f"/api/machines/{machine}/back")
    assert [card["machine"]["id"] for card in lead.get("/api/machines").json()["machines"]] == [machine]
    log = Change.objects.filter(about="machine").order_by("id").values_list("before", "after")
    assert list(log) == [("in use", "Sold"), ("Sold", "in use")]
    assert Machine.objects.get(pk=machine).gone_on is None


def test_what_is_asked_of_each_kind(lead):
    kinds = {one["family"]: one for one in lead.get("/api/machines/kinds").json()["kinds"]}
    planter = kinds["row-crop-planter"]
    assert (planter["has_rows"], planter["rows"], planter["counter"]) == (True, 12, "ha")
    assert all(option["checks"] and (option["picture"]["motif"] or option["picture"]["sign"]) for option in planter["options"])
    asked = {(one["check"], one["figure"]) for check in planter["sizes"] for one in check["sizes"]}
    assert {(DISC, "new"), (DISC, "limit"), ("opener-contact", "angle_deg"), ("seed-tube-guard", "new")} <= asked
    assert not any(check == "gauge-wheel-arm-play" for check, _ in asked), "a play begins at nothing on every model"
    assert {one["thing"] for one in kinds["rotary-combine"]["counts"]} >= {"knife", "vane", "rotor"}
    assert {one["thing"] for one in kinds["draper-header"]["counts"]} >= {"runner", "reel-bar"}


def test_an_owner_of_it_sees_what_a_machine_is_and_changes_nothing(yard, as_):
    yard.machine.owners.add(yard.owner)
    path = f"/api/machines/{yard.machine.pk}/particulars"
    stands = as_(yard.owner).get(path).json()
    assert (stands["may_change"], stands["owners"]) == (False, [yard.owner.pk])
    assert as_(yard.owner).send(path, **stands).status_code == 403


def test_the_day_of_a_first_count_is_today(add):
    made = Machine.objects.get(pk=add(counter="7").json()["id"])
    assert made.counter_readings.get().at.date() == dt.datetime.now(dt.UTC).date()


def test_more_machines_than_are_added_at_once_are_refused_before_any_is(yard):
    lines = "".join(f"Row-crop planter,Dunmere,12,Yard {n},12\n" for n in range(machine_import.MOST + 1))
    with pytest.raises(BadInput, match="1001 lines, and 1000 are taken at once"):
        next(machine_import.take_file(yard.lead, f"kind,maker,model,name,rows\n{lines}", dry=True))
