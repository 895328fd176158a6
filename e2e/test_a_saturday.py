"""A Saturday with three machines open: one list, a plan, a short order, and a disc that stands at no wear when it is fitted."""

import datetime as dt
import re

import pytest
from hands import lose_answer, post, sure
from playwright.sync_api import Page, expect

WINTER = "2bf30ed0-2ed8-5dd5-bceb-b7131910ad62"


def line(page: Page, name: str):
    """The row of a table that names this part."""
    return page.get_by_role("row").filter(has=page.get_by_text(name, exact=True)).first


def worked_out(page: Page):
    expect(page.get_by_role("heading", name="Why")).to_be_visible()
    expect(page.get_by_role("progressbar")).to_have_count(0)


def place(page: Page):
    sure(page, page.get_by_role("button", name=re.compile(r"Place \d orders? for")), re.compile(r"^Order for"))
    expect(page.get_by_role("heading", name="Orders", exact=True)).to_be_visible()


@pytest.fixture
def behaving(page: Page):
    """Make the desk behave, and well again afterwards."""
    yield lambda mode: page.get_by_label("How the simulated desk behaves").select_option(mode)
    page.goto("/parts/orders")
    page.get_by_label("How the simulated desk behaves").select_option("normal")


def on_saturday(page: Page):
    """From the coming Saturday on, a little after one; the Heron 6 is wanted two days later, the others after it."""
    today = dt.date.today()
    saturday = today + dt.timedelta(days=(5 - today.weekday()) % 7)
    names = {one["name"]: one["id"] for one in page.request.get("/api/machines/names").json()}
    for name, days in (("Heron 6", 2), ("Heron 4", 3), ("Dunmere 12", 6), ("Corvane 90", 9)):
        post(page, "/api/supply/need-dates", machine=names[name], day=str(saturday + dt.timedelta(days=days)))
    terms = page.request.get("/api/supply/list").json()["terms"]
    at = dt.datetime.combine(saturday, dt.time(13, 10)).astimezone()
    said = post(page, "/api/supply/terms", **terms | {"now": at.isoformat()})
    assert said.ok, said.text()


def test_from_three_machines_to_the_shelf_and_onto_the_row(page: Page, sign_in, accessible):
    sign_in("ada", at=None)
    on_saturday(page)
    page.context.clear_cookies()
    sign_in("bram", at="/parts")
    expect(page.get_by_role("heading", name="Parts list")).to_be_visible()
    expect(page.get_by_text(re.compile(r"\d+ parts to order"))).to_be_visible()
    accessible(page)
    for machine in ("Heron 4", "Dunmere 12", "Corvane 90"):
        expect(page.get_by_role("list", name="Machines").get_by_text(machine, exact=True)).to_be_visible()
    # Handed, with companions, and what the shelf has is not ordered.
    expect(line(page, "Seed firmer spring, left")).to_contain_text("C9-2028L")
    expect(line(page, "Outer scraper, right")).to_contain_text("new outer scraper")
    expect(line(page, "Shaker arm shim")).to_contain_text("6 on the shelf A-02")

    # What stops a machine stands first, then what has no number, which is found by typing.
    expect(page.get_by_role("row").nth(1)).to_contain_text("Tie rod")
    expect(page.get_by_role("row").nth(2)).to_contain_text("Find its number")
    page.get_by_role("button", name="Enter the number of Rotor bolts").click()
    page.keyboard.type("TH-2084")
    page.keyboard.press("Enter")
    expect(line(page, "Rotor bolts")).to_contain_text("To order")

    page.get_by_role("link", name="Plan where to get them").click()
    worked_out(page)
    expect(page.get_by_text("Planned from Sat")).to_be_visible()
    expect(page.get_by_role("radio")).to_have_count(3)
    expect(page.get_by_text(re.compile("Northmere Depot on Monday"))).to_be_visible()
    accessible(page)

    # One line is set by hand, and freed again.
    page.get_by_label("Where Opener disc comes from").select_option("Harrow Mail|post")
    expect(page.get_by_role("button", name=re.compile("Place"))).to_be_disabled()
    page.get_by_role("button", name="Work it out with 1 set by hand").click()
    expect(page.get_by_role("button", name=re.compile("Place"))).to_be_enabled()
    expect(page.get_by_label("Where Opener disc comes from")).to_have_value("Harrow Mail|post")
    page.get_by_role("button", name="set by hand: free it, Opener disc").click()
    page.get_by_role("button", name="Work it out again").click()
    expect(page.get_by_label("Where Opener disc comes from")).to_have_value("Northmere Depot|van")
    expect(page.get_by_role("button", name=re.compile("Place"))).to_be_enabled()

    # The far store comes back short: what follows is not waited for, and bought elsewhere.
    place(page)
    far = page.get_by_role("article", name="Order to Northmere Depot").first  # above the one of last week
    expect(far).to_contain_text("Short")
    expect(far.get_by_role("row", name=re.compile("Opener disc D12-4001"))).to_contain_text("Do not wait")
    accessible(page)
    sure(page, far.get_by_role("button", name="Do not wait for 2 Opener disc"), "Do not wait")
    expect(far.get_by_role("button", name=re.compile("Do not wait"))).to_have_count(0)
    page.get_by_role("link", name="Sourcing").click()
    page.get_by_role("button", name="Work it out again").click()
    expect(page.get_by_label("Where Opener disc comes from")).to_be_visible()
    place(page)
    expect(page.get_by_role("row", name=re.compile("Opener disc D12-4001"))).to_have_count(2)

    # Received by scanning: the number, and Enter. How many is a figure, and never taken for all of them.
    page.keyboard.type("D12-4001")
    pieces = page.get_by_label("Pieces; empty takes all")
    pieces.fill("2 pcs")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Must be a figure")
    expect(pieces).to_be_focused()
    pieces.fill("")
    page.keyboard.press("Enter")
    expect(page.get_by_text(re.compile("4 × Opener disc received"))).to_be_visible()
    page.keyboard.type("D12-4001")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("All of it has been received")
    expect(page.get_by_label("What came in")).to_have_value("D12-4001")

    # Fitted, with the counter; the row map shows a new disc at no wear.
    page.get_by_role("link", name="Fit", exact=True).click()
    page.get_by_label("Counter of Dunmere 12").fill("about 2874")
    page.get_by_role("button", name="Fit Opener disc at Row 5 left").click()
    expect(page.get_by_role("alert")).to_contain_text("Must be a figure")
    expect(page.get_by_label("Counter of Dunmere 12")).to_have_value("about 2874")
    page.get_by_label("Counter of Dunmere 12").fill("2874")
    page.get_by_role("button", name="Fit Opener disc at Row 5 left").click()
    expect(page.get_by_role("article", name="Dunmere 12")).to_contain_text("Fitted")
    accessible(page)
    page.goto(f"/walk-arounds/{WINTER}/map")
    page.get_by_role("button", name="Wear", exact=True).click()
    row = page.get_by_role("row", name=re.compile("Opener disc diameter"))
    expect(row.get_by_role("gridcell").nth(4)).to_have_text("0 %")
    expect(row.get_by_role("gridcell").nth(5)).to_have_text("90 %")


def test_an_answer_that_was_lost_is_asked_for_again_and_nothing_is_ordered_twice(page: Page, sign_in, behaving, product):
    sign_in("ada", at="/parts")
    page.get_by_role("button", name="Enter the number of Tine clip").click()
    page.keyboard.type("RING-TIE-3")
    page.keyboard.press("Enter")
    expect(line(page, "Tine clip")).not_to_contain_text("Find its number")
    page.get_by_role("button", name="Enter the number of Knife section").click()
    page.keyboard.type("LW-2035")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Enter the number of Knife section")).to_have_count(0)
    page.goto("/parts/orders")
    before = len(product.ordered())
    behaving("deaf")
    page.goto("/parts/sourcing")
    page.get_by_role("button", name="Work it out again").click()
    expect(page.get_by_role("button", name=re.compile("Place"))).to_be_enabled()
    place(page)
    expect(page.get_by_text("Nobody has confirmed this order.").first).to_be_visible()
    behaving("normal")
    for _ in range(page.get_by_role("button", name="Ask the desk again").count()):
        waiting = page.get_by_role("button", name="Ask the desk again")
        left = waiting.count()
        waiting.first.click()
        expect(waiting).to_have_count(left - 1)
    orders = product.ordered()
    shown = page.get_by_role("article").count() - 1  # the one of last week was not asked for here
    assert 0 < len(orders) - before == shown


def test_a_letter_that_was_not_sent_is_said_and_sent_again(page: Page, sign_in, product):
    sign_in("ada", at=None)
    product.ask_database("UPDATE supply_supplier SET desk = ''")
    page.goto("/parts/sourcing")
    page.get_by_role("button", name="Work it out again").click()
    worked_out(page)
    place(page)
    order = page.get_by_role("article").first
    expect(order).to_contain_text("Not sent yet.")

    def send():
        order.get_by_role("button", name="E-mail text").click()
        sure(page, order.get_by_role("button", name="Send by e-mail"), "Send it")

    product.mail.mode = "refuses"
    send()
    refused = order.get_by_role("alert")
    expect(refused).to_contain_text("The letter was not sent.")
    expect(refused).to_contain_text("The order is still to be sent.")
    page.reload()
    # What the mail server said stands until it is tried again.
    expect(refused).to_contain_text("does not take the letter")
    product.mail.mode = "silent"
    send()
    expect(order.get_by_role("status").filter(has_text="on its way to the mail server")).to_be_visible()
    expect(order.get_by_role("button", name="Send by e-mail")).to_have_count(0)
    expect(refused).to_contain_text("The letter was not sent.")
    # The line breaks when the letter is given: nobody knows, and nothing is done on its own account.
    product.mail.mode = "swallows"
    send()
    expect(refused).to_contain_text("Nobody knows whether the letter went out")
    assert len(product.mail.letters) == 1
    product.mail.mode = "takes"
    send()
    expect(order).to_contain_text("By e-mail")
    expect(refused).to_have_count(0)
    expect(order).not_to_contain_text("Not sent yet.")
    assert len(product.mail.letters) == 2


def test_prices_come_from_the_desks_and_from_a_long_file(page: Page, sign_in, behaving):
    sign_in("bram", at="/parts/sourcing")
    worked_out(page)
    page.get_by_role("button", name="Ask the suppliers").click()
    expect(page.get_by_role("status").filter(has_text="of the list")).to_contain_text("Harrow Mail")
    page.goto("/parts/orders")
    behaving("down")
    page.goto("/parts/sourcing")
    page.get_by_role("button", name="Ask the suppliers").click()
    expect(page.get_by_role("status").filter(has_text="What it said last is used")).to_be_visible()
    lines = "".join(f"B-{n},{n % 90 + 1}.50,1\n" for n in range(3000))
    wrong = {"name": "p.csv", "mimeType": "text/csv", "buffer": f"number,unit_price,pack\n{lines}B-x,dear,1\n".encode()}
    pick = page.get_by_label("File", exact=True)
    pick.set_input_files(wrong)
    expect(page.get_by_text("Nothing is taken until these are put right.")).to_be_visible()
    expect(page.get_by_text("Line 3002: unit_price: must be an amount")).to_be_visible()
    pick.set_input_files({**wrong, "buffer": f"number,unit_price,pack\n{lines}".encode()})
    page.get_by_role("button", name="Take 3000 lines").click()
    expect(page.get_by_text("3000 taken, 0 there already, 0 refused")).to_be_visible()


def test_what_lies_open_is_weighed_at_the_finding_and_put_on_the_list(page: Page, sign_in):
    sign_in("tomas", at=f"/walk-arounds/{WINTER}/findings")
    expect(page.get_by_role("heading", name="While this is apart, also …")).to_be_visible()
    page.get_by_role("button", name="Put on the list: Outer scraper, Row 9 left").click()
    expect(page.get_by_role("button", name="On the list: take off: Outer scraper, Row 9 left")).to_be_visible()
    page.goto("/parts")
    expect(line(page, "Outer scraper, left")).to_contain_text("row 9 left, new opener disc hub with bearing")


def test_an_owner_sees_the_cost_of_own_machines_and_agrees(page: Page, sign_in, accessible):
    sign_in("lotte")
    page.get_by_role("link", name="Cost").click()
    expect(page.get_by_role("article")).to_have_count(2)
    accessible(page)
    button = page.get_by_role("button", name=re.compile(r"Agree to [\d.]+ EUR for Dunmere 12"))
    machine = page.get_by_role("article", name="Dunmere 12")
    button.dblclick()
    expect(machine.get_by_role("alert")).to_contain_text(re.compile(r"You agree to [\d.]+ EUR for Dunmere 12: parts"))
    expect(machine).not_to_contain_text("Agreed:")
    machine.get_by_role("button", name="No, go back").click()
    sure(page, button, re.compile("Yes, agree to"))
    expect(machine).to_contain_text("Agreed:")
    expect(button).to_have_count(0)
    accessible(page)
    page.get_by_role("button", name="Take back what was agreed for Dunmere 12").click()
    expect(machine).not_to_contain_text("Agreed:")
    expect(button).to_be_visible()


def test_a_supplier_is_changed_and_what_is_wrong_is_said_at_the_form(page: Page, sign_in, accessible):
    sign_in("bram", at="/parts/suppliers")
    page.get_by_role("button", name="Change Bridge Street Parts").click()
    hours = page.get_by_label(re.compile("^Open"))
    hours.fill("weekdays")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("is not like Mon–Fri")
    expect(hours).to_have_value("weekdays")
    accessible(page)
    hours.fill("Mon-Fri 7:30-17:30")
    call = page.get_by_label(re.compile("^A call, min"))
    call.fill("ten")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.locator(".field-of", has=call).get_by_role("alert")).to_contain_text("Must be a figure")
    call.fill("10")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Mon–Fri 07:30–17:30")).to_be_visible()


def test_the_list_fits_a_phone_held_in_one_hand(page: Page, sign_in, quiet):
    page.set_viewport_size({"width": 390, "height": 844})
    sign_in("bram", at=None)
    for path in ("", "/sourcing", "/orders", "/fit", "/stock", "/book", "/suppliers", "/cost"):
        page.goto(f"/parts{path}")
        page.get_by_role("heading", level=1).wait_for()
        quiet()
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, path


def test_stock_is_counted_and_the_truck_carries_what_is_advised(page: Page, sign_in, accessible):
    sign_in("ines", at="/parts/stock")
    row = page.get_by_role("row").filter(has=page.get_by_text("Jack bearing", exact=True))
    expect(row).to_contain_text("1 missing")
    page.get_by_role("button", name="Count it: Jack bearing").click()
    page.keyboard.type("3")
    page.keyboard.press("Enter")
    expect(row.get_by_role("cell").nth(2)).to_have_text("3")
    page.get_by_role("button", name="To the truck: Jack bearing").click()
    page.keyboard.type("9")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Only 3 on the shelf")
    accessible(page)
    page.get_by_label("To the truck (below 0").fill("2")
    page.keyboard.press("Enter")
    expect(row.get_by_role("cell").nth(3)).to_contain_text("2")
    page.get_by_role("button", name="Set to carry: Jack bearing").click()
    page.get_by_role("button", name=re.compile("As advised")).click()
    page.get_by_role("button", name="Save", exact=True).click()
    expect(row.get_by_role("cell").nth(4)).to_have_text("2")
    expect(page.get_by_role("listitem").filter(has_text="TH-2322").first).to_contain_text("moved")


def test_a_parts_book_is_filled_in_from_a_file(page: Page, sign_in, tmp_path):
    sign_in("ada", at="/parts/book")
    model = page.get_by_label("Model")
    model.select_option(model.locator("option", has_text="Dunmere 12").get_attribute("value"))
    expect(line(page, "Opener disc")).to_have_count(1)
    bad = tmp_path / "bad.csv"
    bad.write_text("slot,side,number\nparallel-arm,,D12-4400\nparallel-leg,,D12-4401\n")
    page.get_by_label("Read numbers from a file").set_input_files(bad)
    expect(page.get_by_text("Line 3: slot: parallel-leg is no part of Dunmere 12")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("Take"))).to_have_count(0)
    good = tmp_path / "good.csv"
    good.write_text("slot,side,number\nparallel-arm,,D12-4400\n")
    page.get_by_label("Read numbers from a file").set_input_files(good)
    page.get_by_role("button", name="Take 1 line", exact=True).click()
    expect(line(page, "Parallel arm")).to_contain_text("D12-4400")


def test_a_supplier_whose_answer_was_lost_is_saved_again_and_is_one(page: Page, sign_in):
    sign_in("bram", at="/parts/suppliers")
    page.get_by_role("button", name="Enter a supplier").click()
    form = page.get_by_role("form", name="Supplier")
    form.get_by_role("button", name="Save").click()
    expect(form.get_by_role("alert")).to_have_text("Is missing")
    form.get_by_label(re.compile("^Name")).fill("Counter two")
    lose_answer(page, "**/api/supply/suppliers")
    form.get_by_role("button", name="Save").click()
    expect(form.get_by_role("alert")).to_contain_text("No connection")
    expect(form.get_by_label(re.compile("^Name"))).to_have_value("Counter two")
    form.get_by_role("button", name="Save").click()
    expect(page.get_by_role("heading", name="Counter two")).to_have_count(1)
    expect(form).to_have_count(0)
    page.context.clear_cookies()
    sign_in("ada", at="/shop/changes")
    page.get_by_role("combobox", name="About").select_option(label="Parts and suppliers")
    entered = page.get_by_role("row").filter(has_text="Supplier Counter two")
    expect(entered).to_have_count(1)
    expect(entered).to_contain_text("Bram Oster")
