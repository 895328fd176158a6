"""Fitting writes a fitment and wear starts anew; stock moves once; owners see what is theirs; cents add up."""

import uuid
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st
from supply_helpers import place

from fleet.models import Fitment
from inspection.actions import recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.queries import preparing
from lumvek_core.errors import BadInput
from parts.models import PartNumber
from shops.access import Conflict, NotFoundHere
from supply.actions import fitting, numbering, stocking, strip_downs, supplier_book
from supply.models import Approval, Movement, Share, StockItem
from supply.queries import costs, net_requirements, parts_book, stock, strip_down_offers
from supply.queries.needs import read as read_needs


def on_shelf(member, number, pieces):
    stocking.keep(member, number, number)
    stocking.count(member, uuid.uuid4(), number, "shelf", pieces)


def fit(shop, *at, slot="opener-disc", **more):
    given = {"counter": None, "place": "shelf"} | more
    return fitting.fit(
        shop.technician, given.pop("uuid", uuid.uuid4()), shop.walk_around.pk, slot, at, given["counter"], given["place"]
    )


def cell(as_, member, walk_around, place):
    found = as_(member).get(f"/api/walk-arounds/{walk_around.pk}/map?thing=row").json()
    cells = [one for line in found["lines"] if line["check"] == "opener-disc-diameter" for one in line["cells"]]
    return next(one for one in cells if one["position"] == place)


def test_a_fitted_disc_leaves_the_shelf_and_stands_at_no_wear_in_the_row_map(shop, as_):
    on_shelf(shop.parts, "D12-4001", 4)
    assert cell(as_, shop.technician, shop.walk_around, "2L")["used"] > 1
    made = fit(shop, "2L", "2R", counter=2875.5)
    assert [(one.position_key, one.number, one.counter) for one in made] == [
        ("2L", "D12-4001", 2875.5),
        ("2R", "D12-4001", 2875.5),
    ]
    shop.machine.refresh_from_db()
    assert shop.machine.area_ha == 2875.5
    assert stock.levels(shop.shop.pk)["D12-4001"]["shelf"] == 2
    new = cell(as_, shop.technician, shop.walk_around, "2L")
    assert new["used"] == 0 and "2875.5 ha: 0 % worn" in new["fitted"] and new["off"] == ""
    assert cell(as_, shop.technician, shop.walk_around, "3L")["fitted"] == ""


def test_a_reading_after_the_fitting_counts_again_and_last_winters_is_not_held_against_it(shop, as_, read):
    on_shelf(shop.parts, "D12-4001", 4)
    fit(shop, "2L")
    read("opener-disc-diameter", "2L", "399.5")
    assert cell(as_, shop.technician, shop.walk_around, "2L")["fitted"] == ""
    type(shop.walk_around).objects.filter(pk=shop.walk_around.pk).update(finished_at=shop.walk_around.started_at)
    fit_again = Fitment.objects.get()
    Fitment.objects.filter(pk=fit_again.pk).update(
        fitted_at=fit_again.fitted_at + (fit_again.fitted_at - shop.walk_around.started_at) * 50
    )
    later = starting.start(shop.technician, shop.machine, uuid.uuid4(), preparing.Wanted("winter"))
    for at in ("2L", "3L"):
        new = NewReading(uuid=uuid.uuid4(), check="opener-disc-diameter", position=at, raw=["390"])
        recording.record_reading(shop.technician, later.pk, new)
    assert cell(as_, shop.technician, later, "2L")["change"] == ""
    assert cell(as_, shop.technician, later, "3L")["change"] == "+6"


def test_fitting_twice_is_once_and_without_stock_it_is_refused(shop):
    with pytest.raises(BadInput, match="only 0 on the shelf"):
        fit(shop, "2L")
    assert not Fitment.objects.exists()
    on_shelf(shop.parts, "D12-4001", 4)
    same = uuid.uuid4()
    assert [one.pk for one in fit(shop, "2L", uuid=same)] == [one.pk for one in fit(shop, "2L", uuid=same)]
    assert stock.levels(shop.shop.pk)["D12-4001"]["shelf"] == 3
    with pytest.raises(Conflict, match="Row 2 left: fitted already"):
        fit(shop, "2L")
    with pytest.raises(BadInput, match="nothing is needed"):
        fit(shop, "5L")
    with pytest.raises(BadInput, match="does not run back"):
        fit(shop, "2R", counter=100)


def test_the_list_counts_what_is_fitted(shop):
    on_shelf(shop.parts, "D12-4001", 4)
    fit(shop, "2L", "2R")
    line = next(
        one for one in net_requirements.build(shop.parts, shop.walk_around.started_at).lines if one.number == "D12-4001"
    )
    assert (line.needed, line.fitted, line.shelf, line.net) == (4, 2, 2, 0)


def test_stock_is_the_sum_of_its_movements_and_none_goes_below_nothing(shop):
    on_shelf(shop.parts, "D12-4001", 5)
    stocking.load_truck(shop.parts, uuid.uuid4(), "D12-4001", 3)
    same = uuid.uuid4()
    for _ in range(2):
        stocking.give_back(shop.parts, same, "D12-4001", 1, "wrong size, to Northmere Depot")
    assert stock.levels(shop.shop.pk)["D12-4001"] == {"shelf": 1, "truck": 3}
    with pytest.raises(BadInput, match="only 1 on the shelf"):
        stocking.load_truck(shop.parts, uuid.uuid4(), "D12-4001", 2)
    with pytest.raises(BadInput, match="only 3 on the truck"):
        stocking.load_truck(shop.parts, uuid.uuid4(), "D12-4001", -4)
    with pytest.raises(BadInput):
        stocking.give_back(shop.parts, uuid.uuid4(), "D12-4001", 1, " ")
    assert Movement.objects.filter(number="D12-4001").count() == 4


def test_another_shops_stock_is_not_there(shop, neighbour):
    on_shelf(shop.parts, "D12-4001", 5)
    with pytest.raises(NotFoundHere):
        stocking.count(neighbour.parts, uuid.uuid4(), "D12-4001", "shelf", 1)
    assert stock.levels(neighbour.shop.pk) == {}
    assert read_needs(neighbour.parts, shop.walk_around.started_at).pieces == []


def test_advice_counts_what_was_fitted_here(shop):
    item = stocking.keep(shop.parts, "D12-4022", "Hub")
    item.past_events, item.past_hours, item.hours_ahead = 4, 1800, 400
    before = stock.advised(item, 0, 0.95)
    assert stock.advised(item, 1, 0.95) == {"carry": 3, "expected": pytest.approx(1.1)}
    assert before["expected"] < 1.1


def test_while_the_hub_is_off_the_scraper_is_weighed_and_can_be_taken_along(planned, as_):
    found = [part for group in strip_down_offers.build(planned.parts, planned.walk_around) for part in group.parts]
    bearings = [part for part in found if part.slot == "opener-bearing"]
    assert {part.position for part in bearings} >= {"2L", "2R", "3L"}
    assert all(part.advice == "price" for part in bearings), "its number is not in the book, so nothing is weighed"
    PartNumber.objects.create(model=planned.model, slot="opener-bearing", number="D12-4022")
    planned.far.offers.create(number="D12-4022", unit_price="66", stock=9, source="typed", at=planned.walk_around.started_at)
    part = next(
        p
        for g in strip_down_offers.build(planned.parts, planned.walk_around)
        for p in g.parts
        if p.position == "2L" and p.slot == "opener-bearing"
    )
    # Not seen counts as watched: a quarter of its life is left. 0.25·66 + 0.1·62 against (0.3 − 0.01)·(0.6·62 + 1.5·240).
    assert (part.cost_now, part.cost_later, part.advice) == (pytest.approx(22.7), pytest.approx(115.188), "renew")
    path = f"/api/supply/walk-arounds/{planned.walk_around.pk}/apart"
    as_(planned.technician).send(path, slot="opener-bearing", positions=["2L"])
    line = next(
        one for one in net_requirements.build(planned.parts, planned.walk_around.started_at).lines if one.number == "D12-4022"
    )
    assert [(piece.position, piece.origin) for piece in line.pieces] == [("2L", "apart")] and not line.to_run
    as_(planned.technician).send(path, slot="opener-bearing", positions=["2L"], taken=False)
    assert "D12-4022" not in [one.number for one in net_requirements.build(planned.parts, planned.walk_around.started_at).lines]
    refused = as_(planned.technician).send(path, slot="closing-wheel", positions=["2"])
    assert refused.status_code == 422 and refused.json()["error"]["field"] == "positions"


def test_what_is_taken_along_goes_when_nothing_is_stripped_any_more(planned, read):
    strip_downs.take(planned.parts, planned.walk_around.pk, "opener-bearing", ["2L"], True)
    for at in ("2L", "2R", "3L"):
        read("opener-disc-diameter", at, "399")
    assert read_needs(planned.parts, planned.walk_around.started_at).pieces == []


def test_an_owner_sees_and_agrees_to_own_machines_only(planned, as_):
    planned.machine.owners.add(planned.owner)
    Share.objects.create(machine=planned.machine, member=planned.owner, percent=Decimal("40"))
    owner = as_(planned.owner)
    (machine,) = owner.get("/api/supply/costs").json()["machines"]
    # Discs 4 · 48.90, scrapers 2 · 14.30, guards 2 · 29.80; two rows, 0.6 h each at 62.
    assert (machine["parts"], machine["labour"], machine["total"]) == ("283.80", "74.40", "358.20")
    assert machine["shares"] == [{"name": "Owner", "percent": "40", "amount": "143.28"}]
    path = f"/api/supply/costs/{planned.machine.pk}/approve"
    assert owner.send(path, uuid=str(uuid.uuid4()), amount="1.00").status_code == 409
    same = str(uuid.uuid4())
    for _ in range(2):
        found = owner.send(path, uuid=same, amount="358.20").json()["machines"][0]["approvals"]
    assert [(one["amount"], one["how"]) for one in found] == [("358.20", "agreed here")]
    planned.machine.owners.clear()
    assert owner.get("/api/supply/costs").json()["machines"] == []
    assert owner.send(path, uuid=str(uuid.uuid4()), amount="358.20").status_code == 404
    for page in ("list", "orders", "stock", "book", "plans/latest", "desk"):
        assert owner.get(f"/api/supply/{page}").status_code == 403


def test_agreeing_for_an_owner_says_how(planned, as_):
    browser, path = as_(planned.parts), f"/api/supply/costs/{planned.machine.pk}/approve"
    body = {"uuid": str(uuid.uuid4()), "amount": "358.20"}
    assert browser.send(path, **body).json()["error"]["field"] == "how"
    assert browser.send(path, **body, how="by telephone").status_code == 200
    assert Approval.objects.get().how == "by telephone" and as_(planned.technician).send(path, **body).status_code == 403


@given(st.decimals(0, 100_000, places=2), st.lists(st.decimals("0.01", 100, places=2), min_size=1, max_size=9))
def test_a_sum_divided_adds_up_to_the_cent(total, percents):
    parts = costs.split(total, percents)
    assert sum(parts) == total and all(part == part.quantize(Decimal("0.01")) and part >= 0 for part in parts)
    whole = sum(percents)
    assert all(abs(part - total * percent / whole) < Decimal("0.02") for part, percent in zip(parts, percents, strict=True))


def test_a_parts_book_goes_out_and_comes_back_the_same(shop):
    PartNumber.objects.create(
        model=shop.model,
        slot="outer-scraper",
        side="L",
        number="=D12-4031L",
        status="scarce",
        mark="blue edge",
        note="order once",
    )
    rows = parts_book.rows(shop.model)
    text = "\n".join(",".join(f'"{cell}"' for cell in row) for row in rows)
    there = numbering.read_file(shop.parts, shop.model, text, dry=False)
    assert there.count("there") == PartNumber.objects.filter(model=shop.model).count() and not there.count("refused")
    PartNumber.objects.filter(model=shop.model).delete()
    assert (
        numbering.read_file(shop.parts, shop.model, text, dry=True).count("taken") == 4
        and not PartNumber.objects.filter(model=shop.model).exists()
    )
    assert numbering.read_file(shop.parts, shop.model, text, dry=False).count("taken") == 4
    assert parts_book.rows(shop.model) == rows


@pytest.mark.parametrize(
    ("line", "because"),
    [
        ("opener-dish,,N1,1", "slot"),
        ("outer-scraper,,N1,1", "side"),
        ("opener-disc,L,N1,1", "side"),
        ("opener-disc,,N1,0", "pack"),
        ("opener-disc,,N1,two", "pack"),
        ("opener-disc,,N1,1,golden", "kind"),
    ],
)
def test_one_bad_line_keeps_the_whole_file_out(shop, line, because):
    text = f"slot,side,number,pack,kind\nopener-bearing,,GOOD,1,original\n{line}\n"
    found = numbering.read_file(shop.parts, shop.model, text, dry=False)
    assert [one.line for one in found.lines if one.outcome == "refused"] == [3]
    assert found.lines[-1].words.startswith(because) and not PartNumber.objects.filter(number="GOOD").exists()


def test_a_file_that_is_no_book_is_refused_as_a_whole(shop):
    with pytest.raises(BadInput, match="no column slot"):
        numbering.read_file(shop.parts, shop.model, "part,price\nD,1\n", dry=True)
    with pytest.raises(BadInput, match="5001 lines, and 5000 are taken at once"):
        numbering.read_file(shop.parts, shop.model, "slot,number\n" + "disc,D1\n" * 5001, dry=True)


def test_prices_come_in_from_a_table(shop):
    text = "number;unit_price;pack;stock;chance;restock_days\nD12-4001;47,20;2;6;0,8;9\nD12-4018;14.30\n"
    take = lambda text: list(supplier_book.read_offers(shop.parts, shop.far, text, dry=False))[-1]  # noqa: E731
    assert take(text).count("taken") == 2
    offer = shop.far.offers.get(number="D12-4001")
    assert (offer.unit_price, offer.stock, offer.p_stock, offer.restock_days) == (Decimal("47.20"), 6, 0.8, 9)
    assert take("number,unit_price,chance\nD12-4001,1,2\n").count("refused") == 1
    assert take("number,unit_price\n" + "D" * 41 + ",1\n").lines[0].words == "number: is longer than 40 characters"
    assert take("number,unit_price\nD12-4001,1\nd12-4001,2\n").count("taken") == 2
    assert shop.far.offers.get(number="D12-4001").unit_price == 2, "the last line of a number counts"


def test_papers_of_parts_and_orders(planned, as_):
    (order,) = place(planned.parts, planned.plan)
    StockItem.objects.create(shop=planned.shop, number="D12-4001", name="Opener disc", bin="B-10")
    browser = as_(planned.parts)
    kinds = {"csv": "text/csv", "pdf": "application/pdf", "xlsx": "spreadsheet"}
    for path in (
        "list.csv", "list.xlsx", "pick-list.csv", "labels.pdf?for=bins", "labels.pdf?for=removed",
        *(f"orders/{order.uuid}.{form}" for form in kinds), f"book/{planned.model.pk}.xlsx",
    ):  # fmt: skip
        answer = browser.get(f"/supply/{path}")
        form = path.partition("?")[0].rpartition(".")[2]
        assert answer.status_code == 200 and kinds[form] in answer["Content-Type"], path
        assert as_(planned.owner).get(f"/supply/{path}").status_code == 404
    text = browser.get("/supply/pick-list").content.decode()
    assert "Dunmere 12" in text and "Opener disc" in text and "to order" not in text
    assert "D12-4001" in browser.get(f"/supply/orders/{order.uuid}.csv").content.decode()
    assert browser.get("/supply/list.exe").status_code == 404
