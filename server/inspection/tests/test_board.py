"""A board of many machines: which of them are asked for, in which order they stand, and who sees which."""

import datetime as dt
import uuid
from types import SimpleNamespace

import pytest
from django.utils import timezone
from hypothesis import given
from hypothesis import strategies as st

from fleet.models import Machine, MachineModel
from inspection.actions import closing, starting
from inspection.queries import board, preparing
from inspection.schemas import BoardAsked
from testing.yard import record


@pytest.fixture
def machine(yard):
    """A machine of the shop: machine("Dunmere 7", serial="D7"); read: what was read of it, by its check."""

    def make(name, read=None, **more):
        made = Machine.objects.create(shop=yard.shop, model=more.pop("model", yard.model), name=name, rows=6, **more)
        if read is not None:
            yard.walk_around = starting.start(yard.technician, made, uuid.uuid4(), preparing.Wanted("winter"))
            for (check, place), value in read.items():
                record(yard, check, place, value)
        return made

    Machine.objects.update(gone="sold", name="sold")
    return make


@pytest.fixture
def asked(yard, as_):
    """The names of a board as it is asked for."""

    def names(**by):
        answer = as_(yard.lead).get("/api/machines", by).json()
        return [card["machine"]["name"] for card in answer["machines"]]

    return names


DUE = {("opener-disc-diameter", "1L"): "380"}
TWO_DUE = DUE | {("opener-disc-diameter", "2L"): "381"}


def test_the_worst_stands_first_and_what_is_found_before_what_is_open(yard, machine, asked):
    machine("not begun")
    machine("nothing read", {})
    machine("due", DUE)
    machine("two due", TWO_DUE)
    assert asked() == ["two due", "due", "not begun", "nothing read"]


def test_alike_ones_stand_by_season_and_names_by_their_numbers(machine, asked):
    for name, day in (("Heron 10", None), ("Heron 9", None), ("late", "2027-04-01"), ("soon", "2027-03-01")):
        machine(name, season_date=day)
    assert asked() == asked(order="season") == ["soon", "late", "Heron 9", "Heron 10"]
    assert asked(order="name") == ["Heron 9", "Heron 10", "late", "soon"]


def test_it_is_narrowed_by_words_kind_owner_state_and_season(yard, machine, asked):
    today = timezone.localdate()
    combine = MachineModel.objects.create(shop=yard.shop, family="rotary-combine", maker="Heron", name="6")
    planter = machine("Dunmere 12", DUE, serial="D12-7", season_date=today + dt.timedelta(days=30))
    planter.owners.add(yard.owner)
    machine("Heron 6", model=combine, season_date=today + dt.timedelta(days=31))
    done = machine("Heron 4", {}, model=combine)
    closing.finish(yard.technician, yard.walk_around.pk, uuid.uuid4())
    assert done.name in asked(state="finished")
    assert asked(search="OWNER d12") == ["Dunmere 12"]
    assert asked(kind="rotary-combine", order="name") == ["Heron 4", "Heron 6"]
    assert asked(owner="Owner") == asked(state="due") == asked(state="running") == ["Dunmere 12"]
    assert asked(state="none") == ["Heron 6"]
    assert asked(state="stop") == []
    assert asked(within=30) == ["Dunmere 12"]
    assert asked(within=31, order="name") == ["Dunmere 12", "Heron 6"]


def test_its_filters_name_what_there_is_and_an_owner_is_told_of_own_machines_only(yard, machine, as_):
    combine = MachineModel.objects.create(shop=yard.shop, family="rotary-combine", maker="Heron", name="6")
    machine("Dunmere 12").owners.add(yard.owner)
    machine("Heron 6", model=combine)
    whole = as_(yard.lead).get("/api/machines", {"search": "heron"}).json()
    assert (whole["every"], whole["page"]["total"], whole["owners"]) == (2, 1, ["Owner"])
    assert [kind["key"] for kind in whole["kinds"]] == ["rotary-combine", yard.model.family]
    own = as_(yard.owner).get("/api/machines").json()
    assert (own["every"], [kind["key"] for kind in own["kinds"]]) == (1, [yard.model.family])
    assert [one["name"] for one in as_(yard.owner).get("/api/machines/names").json()] == ["Dunmere 12"]
    assert [one["name"] for one in as_(yard.lead).get("/api/machines/names").json()] == ["Dunmere 12", "Heron 6"]


def test_more_than_a_page_are_read_page_by_page(machine, asked, monkeypatch):
    monkeypatch.setattr(board, "PAGE", 2)
    for n in range(1, 6):
        machine(f"Dunmere {n}")
    pages = [asked(order="name", page=number) for number in (1, 2, 3, 4)]
    assert pages == [["Dunmere 1", "Dunmere 2"], ["Dunmere 3", "Dunmere 4"], ["Dunmere 5"], ["Dunmere 5"]]


@pytest.mark.parametrize("by", [{"order": "sideways"}, {"state": "fine"}, {"within": -1}, {"page": 0}, {"search": "x" * 101}])
def test_what_cannot_be_asked_is_refused(yard, as_, by):
    answer = as_(yard.lead).get("/api/machines", by)
    assert answer.status_code == 422
    assert answer.json()["error"]["field"] == next(iter(by))


COUNTS = st.fixed_dictionaries({name: st.integers(0, 5000) for name in ("stop", "due", "watch", "asked", "open")})


@given(st.lists(COUNTS, min_size=2, max_size=6))
def test_no_number_of_lesser_things_comes_before_a_worse_one(counts):
    cards = [
        board.BoardMachine(Machine(name=str(n)), SimpleNamespace(), {**sum_, "total": 20000}) for n, sum_ in enumerate(counts)
    ]
    placed = [card.sum for card in sorted(cards, key=board._ORDERS["worst"])]
    key = [(one["stop"], one["due"], one["watch"] + one["asked"]) for one in placed]
    assert key == sorted(key, reverse=True)
    assert BoardAsked().order == "worst"
