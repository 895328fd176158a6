"""The list of the whole shop: merged, handed, in packs, less what there is, and following every finding."""

import datetime as dt
import uuid

import pytest
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from fleet.models import Machine
from inspection.actions import decisions, recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.queries import preparing
from lumvek_core.errors import BadInput
from parts import actions as parts
from parts.models import PartNumber, PartsLine
from supply.actions import numbering, stocking
from supply.models import NeedDate, StockLocation
from supply.queries import net_requirements, serializers, stock


def lines(member):
    return {line.key if not line.number else line.number: line for line in net_requirements.build(member, timezone.now()).lines}


def test_pieces_are_merged_over_rows_and_sides_and_rounded_to_packs(shop):
    found = lines(shop.parts)
    discs = found["D12-4001"]
    # Three worn, and the other disc of row 3 goes along; packs of two.
    assert (discs.needed, discs.net, discs.order, discs.pack) == (4, 4, 4, 2)
    assert sorted(piece.position for piece in discs.pieces) == ["2L", "2R", "3L", "3R"]
    assert discs.serves() == [
        "Dunmere 12: row 3 left, row 2 left, row 2 right, Opener disc diameter".replace(
            "row 3 left, row 2 left, row 2 right", "rows 2, 3 left, row 2 right"
        ),
        "Dunmere 12: row 3 right, new opener disc",
    ]
    assert found["D12-4018"].needed == 2 and found["D12-4105"].needed == 2


def test_three_of_a_pack_of_two_are_ordered_as_four(shop, read):
    decisions.decide(
        shop.lead, shop.walk_around.pk, uuid.uuid4(), "opener-disc-diameter", ["2L", "2R", "3L"], "decline", reason="later"
    )
    PartsLine.objects.create(
        walk_around=shop.walk_around,
        slot="opener-disc",
        position_key="1L",
        quantity=3,
        origin="finding",
        because="opener-disc-diameter",
        why="",
    )
    read("opener-disc-diameter", "1L", "384")
    PartsLine.objects.filter(position_key="1L").update(quantity=2)
    line = lines(shop.parts)["D12-4001"]
    assert (line.needed, line.order) == (3, 4)


def test_a_declined_or_remeasured_finding_takes_its_parts_and_companions_away(shop, read):
    decisions.decide(
        shop.lead, shop.walk_around.pk, uuid.uuid4(), "opener-disc-diameter", ["3L"], "decline", reason="next year"
    )
    assert lines(shop.parts)["D12-4001"].needed == 2 and lines(shop.parts)["D12-4018"].needed == 1
    read("opener-disc-diameter", "2L", "398")
    read("opener-disc-diameter", "2R", "398")
    assert "D12-4001" not in lines(shop.parts) and "D12-4018" not in lines(shop.parts)


def test_a_later_walk_around_decides_what_it_read_again_and_leaves_the_rest(shop):
    # A short walk-around weeks later reads one of the rows.
    later = starting.start(shop.technician, shop.machine, uuid.uuid4(), preparing.Wanted("arrival"))
    type(later).objects.filter(pk=later.pk).update(started_at=timezone.now() + dt.timedelta(seconds=5))

    def read(place, figure, **more):
        new = NewReading(uuid=uuid.uuid4(), check="opener-disc-diameter", position=place, raw=[figure], **more)
        recording.record_reading(shop.technician, later.pk, new)
        return sorted(piece.position for piece in lines(shop.parts)["D12-4001"].pieces)

    every = ["2L", "2R", "3L", "3R"]
    assert read("2L", "398") == every, "the other disc of its row is worn, and both are renewed"
    assert read("2R", "39") == every, "a figure that is asked about takes nothing away"
    assert read("2R", "398") == ["3L", "3R"]


def test_left_and_right_are_different_parts(shop, read):
    for side in "LR":
        PartNumber.objects.create(model=shop.model, slot="outer-scraper", side=side, number=f"D12-4031{side}")
    read("outer-scraper", "1L", "worn")
    found = lines(shop.parts)
    assert (found["D12-4031L"].side, found["D12-4031R"].side) == ("left", "right")
    assert [piece.origin for piece in found["D12-4031R"].pieces] == ["companion"]


def test_the_hand_is_said_at_the_machine_and_may_be_put_right_on_the_list(shop, read):
    for side in "LR":
        PartNumber.objects.create(model=shop.model, slot="firmer-spring", side=side, number=f"D12-4510{side}")
    read("seed-firmer", "1", "weak-left")
    assert lines(shop.parts)["D12-4510L"].pieces[0].handed
    parts.set_hand(shop.walk_around.pk, "firmer-spring", ["1"], "R")
    read("opener-disc-diameter", "4L", "399")  # the parts are brought in step with each reading
    assert "D12-4510R" in lines(shop.parts)


def test_what_is_needed_is_less_shelf_and_the_truck_beyond_what_it_carries(shop):
    for place, counted in ((StockLocation.SHELF, 1), (StockLocation.TRUCK, 3)):
        stocking.keep(shop.parts, "D12-4001", "Opener disc")
        stocking.count(shop.parts, uuid.uuid4(), "D12-4001", place, counted)
    item = stock.item(shop.parts, "D12-4001")
    item.carry = 2
    item.save()
    line = lines(shop.parts)["D12-4001"]
    assert (line.shelf, line.truck, line.net, line.order) == (1, 1, 2, 2)
    item.carry = 0
    item.save()
    assert lines(shop.parts)["D12-4001"].net == 0


def test_two_machines_share_a_number_and_each_wants_it_by_its_day(shop, read):
    other = Machine.objects.create(shop=shop.shop, model=shop.model, name="Dunmere 12 b", rows=6)
    walk = starting.start(shop.technician, other, uuid.uuid4(), preparing.Wanted("winter"))
    recording.record_reading(
        shop.technician,
        walk.pk,
        NewReading(uuid=uuid.uuid4(), check="opener-disc-diameter", position="1L", raw=["380"]),
    )
    NeedDate.objects.create(machine=other, day=dt.date(2026, 12, 2))
    line = lines(shop.parts)["D12-4001"]
    assert line.needed == 6 and line.need_by == dt.date(2026, 12, 2)
    assert {piece.machine.name for piece in line.pieces} == {"Dunmere 12", "Dunmere 12 b"}


def test_lines_without_a_number_come_first_and_a_number_found_merges_them(shop, read, as_):
    read("gauge-wheel-bearing", "1L", "rough")
    browser = as_(shop.parts)
    listed = browser.get("/api/supply/list").json()["lines"]
    first = listed[0]
    assert first["number"] == "" and first["state"] == "number"
    body = {"model": first["model"], "slot": first["slot"], "side": "", "number": " D12-4207 ", "pack": 1}
    listed = browser.send("/api/supply/numbers", **body).json()["lines"]
    assert [line["number"] for line in listed if line["slot"] == first["slot"]] == ["D12-4207"]
    assert browser.send("/api/supply/numbers", **(body | {"number": " "})).status_code == 422
    assert as_(shop.technician).send("/api/supply/numbers", **body).status_code == 403


def test_it_is_searched_filtered_sorted_and_paged(shop, read, as_, monkeypatch):
    read("gauge-wheel-bearing", "1L", "rough")
    browser = as_(shop.parts)
    look = lambda **asked: browser.get("/api/supply/list", asked).json()  # noqa: E731
    every = look()
    assert every["page"]["total"] == len(every["lines"]) == sum(every["states"].values())
    assert {line["state"] for line in look(state="number")["lines"]} == {"number"}
    assert look(state="number")["states"] == every["states"], "how many there are of each is said of the whole list"
    assert [line["number"] for line in look(search="row 3 d12-4001")["lines"]] == ["D12-4001"]
    assert look(search="nowhere")["lines"] == [] and look(machine=10**6)["lines"] == []
    assert len(look(machine=shop.machine.pk)["lines"]) == len(every["lines"])
    names = [line["name"] for line in look(order="name")["lines"]]
    assert names == sorted(names) and len(names) > 2
    monkeypatch.setattr(serializers, "PAGE", 2)
    first, second = look(order="name"), look(order="name", page=2)
    assert [line["name"] for line in first["lines"] + second["lines"]] == names[:4]
    assert (second["page"]["first"], second["page"]["of"]) == (3, (len(names) + 1) // 2)
    assert len(look(whole="true")["lines"]) == len(names)
    assert browser.get("/api/supply/list", {"page": 0}).status_code == 422


def test_a_write_answers_with_the_page_that_is_looked_at(shop, read, as_):
    read("gauge-wheel-bearing", "1L", "rough")
    browser = as_(shop.parts)
    line = browser.get("/api/supply/list", {"state": "number"}).json()["lines"][0]
    body = {"model": line["model"], "slot": line["slot"], "side": "", "number": "D12-4207"}
    after = browser.send("/api/supply/numbers?search=D12-4207", **body).json()
    assert [one["number"] for one in after["lines"]] == ["D12-4207"]


def test_the_chosen_alternative_is_what_is_ordered(shop, as_):
    PartNumber.objects.create(model=shop.model, slot="opener-disc", number="D12-4001H", pack=2, kind="upgraded", life=1.3)
    browser = as_(shop.parts)
    line = next(one for one in browser.get("/api/supply/list").json()["lines"] if one["slot"] == "opener-disc")
    assert line["number"] == "D12-4001" and [one["number"] for one in line["alternatives"] if one["chosen"]] == ["D12-4001"]
    after = browser.send("/api/supply/choices", model=shop.model.pk, slot="opener-disc", side="", number="D12-4001H").json()
    assert "D12-4001H" in [one["number"] for one in after["lines"]]
    with pytest.raises(BadInput):
        numbering.choose(shop.parts, shop.model, "opener-disc", "", "nothing")


def test_the_number_of_queries_does_not_grow_with_machines(shop, django_assert_max_num_queries):
    from django.db import connection

    def queries():
        with CaptureQueriesContext(
            connection,
        ) as seen:
            net_requirements.build(shop.parts, timezone.now())
        return len(seen)

    before = queries()
    for i in range(3):
        machine = Machine.objects.create(shop=shop.shop, model=shop.model, name=f"More {i}", rows=6)
        walk = starting.start(shop.technician, machine, uuid.uuid4(), preparing.Wanted("winter"))
        recording.record_reading(
            shop.technician,
            walk.pk,
            NewReading(uuid=uuid.uuid4(), check="opener-disc-diameter", position="1L", raw=["380"]),
        )
    assert queries() == before
