"""The whole way by keyboard: log in, read a planter's rows, see verdicts, decide, get the parts, print the report."""

import re
import urllib.request

import pytest
from hands import begin, field, keep_all, settle, unlock
from playwright.sync_api import Page, expect

MIXED = ["395", "15 3/8", "39,1 cm", "388.5", "385", "390", "15 1/2", "394", "389 mm", "39.5cm", "396", "395"]


def tab_to(page: Page, name: str, role: str = "button"):
    """Move the focus with Tab alone until it stands on the control of that name."""
    wanted = page.get_by_role(role, name=name, exact=True).first
    wanted.wait_for()
    for _ in range(120):
        if wanted.evaluate("element => element === document.activeElement"):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"Tab never reaches {name}")


def asked(page: Page):
    return page.locator(".where").inner_text()


def test_twelve_rows_two_discs_by_keyboard_to_the_report(page: Page, sign_in, accessible, product):
    page.goto("/")
    expect(page.get_by_role("heading", name="Lumvek")).to_be_visible()
    accessible(page)
    sign_in()
    accessible(page)

    # The demo's own walk-around is half done: finish it, with its holes named, and start anew. Tab and Enter only.
    page.goto("/walk-arounds/2bf30ed0-2ed8-5dd5-bceb-b7131910ad62")
    page.get_by_role("button", name="Locks are set, go on").wait_for()
    accessible(page)
    tab_to(page, "Summary", "link")
    page.keyboard.press("Enter")
    tab_to(page, "Finish walk-around")
    accessible(page)
    page.keyboard.press("Enter")
    expect(page.get_by_text("places are open.")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name=re.compile("findings"))).to_be_visible()
    page.goto("/")
    tab_to(page, "Dunmere 12", "link")
    page.keyboard.press("Enter")
    tab_to(page, "Start walk-around")
    accessible(page)
    page.keyboard.press("Enter")
    unlock(page)
    field(page).wait_for()
    assert asked(page) == "Whole machine"

    # PageDown goes from check to check.
    while page.locator(".about h2").inner_text() != "Opener disc diameter":
        page.keyboard.press("PageDown")
    expect(field(page)).to_be_focused()
    for n, text in enumerate(MIXED, start=1):
        assert asked(page) == f"Row {n} left"
        page.keyboard.type(text)
        page.keyboard.press("Enter")
    for n in range(12, 0, -1):
        assert asked(page) == f"Row {n} right", "the other side is walked back"
        page.keyboard.type("395" if n != 5 else "386")
        page.keyboard.press("Enter")
    keep_all(page)
    expect(page.locator(".about h2")).to_have_text("Disc axle")

    # Verdicts are there, and the companion scraper has come by itself.
    tray = page.get_by_role("complementary", name="Parts called for")
    expect(tray).to_contain_text("Centre scraper")
    expect(tray).to_contain_text("along with it: row 5")
    page.keyboard.press("PageUp")
    expect(page.get_by_role("button", name=re.compile("^Row 2 left, sound, 390.5 mm"))).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Row 3 left, sound, 391 mm"))).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Row 5 left, due, 385 mm"))).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Row 4 left, watch, 388.5 mm"))).to_be_visible()
    accessible(page)

    tab_to(page, "Findings", "link")
    page.keyboard.press("Enter")
    findings = page.get_by_role("article", name="Opener disc diameter")
    row = findings.get_by_role("listitem").filter(has_text="Row 5 left")
    expect(row).to_contain_text("385 mm, limit 386 mm, past it by 1 mm.")
    accessible(page)
    tab_to(page, "Do it")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Tomas Vey").nth(1)).to_be_visible()

    tab_to(page, "Parts", "link")
    page.keyboard.press("Enter")
    expect(page.get_by_role("row").filter(has_text="ordered in pairs")).to_contain_text("D12-4001")
    accessible(page)

    number = page.url.split("/")[-2]
    tab_to(page, "Report", "link")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Findings and decisions")).to_be_visible()
    accessible(page)
    tab_to(page, "As PDF", "link")
    href = page.evaluate("document.activeElement.href")
    assert href == f"{product.url}/walk-arounds/{number}/report.pdf"
    pdf = page.request.get(href)
    assert (pdf.status, pdf.body()[:5]) == (200, b"%PDF-")


def test_bad_text_waits_at_its_place_and_loses_nothing(page: Page, sign_in):
    sign_in(at=None)
    begin(page)
    page.keyboard.type("14 8/5")
    page.keyboard.press("Enter")
    expect(page.locator(".questions")).to_contain_text("1 question")
    assert asked(page) == "Row 2 left", "the hand goes on"
    page.keyboard.type("39")
    page.keyboard.press("F2")
    expect(page.get_by_role("alert").filter(has_text="one or more beside a whole number")).to_be_visible()
    expect(field(page)).to_have_value("14 8/5")
    page.keyboard.type("392")  # typed over what stands there
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name=re.compile("^Row 1 left, .*392 mm"))).to_be_visible()
    assert asked(page) == "Row 2 left"
    expect(field(page)).to_have_value("39")


def test_a_figure_that_cannot_be_right_is_asked_about_at_its_place(page: Page, sign_in):
    sign_in(at=None)
    begin(page)
    page.keyboard.type("15.5")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Did you mean 15.5 in?")).to_be_visible()
    assert asked(page) == "Row 2 left"
    page.keyboard.type("402.6")
    page.keyboard.press("Enter")
    expect(page.locator(".questions")).to_contain_text("2 questions")
    page.keyboard.press("F2")
    page.get_by_role("button", name="Use 15.5 in").click()
    expect(page.get_by_role("button", name=re.compile("^Row 1 left, .*393.7 mm"))).to_be_visible()
    page.keyboard.press("F2")
    expect(page.locator(".question")).to_contain_text("402.6 mm? When new it is 400 mm.")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Type the figure again, or y to keep it.")).to_be_visible()
    page.keyboard.press("y")
    expect(page.get_by_role("button", name=re.compile("^Row 2 left, sound, 402.6 mm"))).to_be_visible()
    assert asked(page) == "Row 3 left"


def test_the_shortcuts(page: Page, sign_in):
    sign_in(at=None)
    begin(page)
    page.keyboard.type("392")
    page.keyboard.press("Enter")
    page.keyboard.press("=")
    expect(page.get_by_role("button", name=re.compile("^Row 2 left, .*392 mm"))).to_be_visible()
    page.keyboard.press("-")
    expect(page.get_by_text("Cannot be reached today")).to_be_visible()
    page.keyboard.press("1")
    expect(page.get_by_role("button", name=re.compile("^Row 3 left, not seen"))).to_be_visible()
    page.keyboard.press("-")
    page.keyboard.type("under the sheet")
    page.keyboard.press("Enter")
    assert asked(page) == "Row 5 left"
    page.keyboard.press(".")
    page.keyboard.press("Enter")
    expect(page.get_by_text("never marked in bulk")).to_be_visible()
    field(page).fill("")
    page.keyboard.press("Backspace")
    assert asked(page) == "Row 4 left"
    expect(page.get_by_text("Not seen: under the sheet")).to_be_visible()
    page.keyboard.press("Control+z")
    expect(page.get_by_role("button", name=re.compile("^Row 4 left, open"))).to_be_visible()
    page.keyboard.press("PageDown")
    page.keyboard.press(".")
    page.keyboard.press("2")
    expect(page.get_by_role("button", name=re.compile("^Row 1 left, sound"))).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Row 2 left, due, Step or groove"))).to_be_visible()


def test_contact_takes_three_places_and_its_feeler(page: Page, sign_in):
    sign_in(at=None)
    begin(page, "opener-contact")
    page.get_by_role("radio", name="paper", exact=True).click()
    for span in ("30", "31", "28"):
        field(page).focus()
        page.keyboard.type(span)
        page.keyboard.press("Enter")
    expect(page.locator(".verdict")).to_contain_text(
        "of contact, wanted 38.1 mm (1 1/2 in) to 63.5 mm (2 1/2 in) by 0.3 mm feeler"
    )
    assert asked(page) == "Row 2"


def test_reload_and_back_keep_what_was_typed(page: Page, sign_in):
    sign_in(at=None)
    begin(page)
    page.keyboard.type("39")
    page.reload()
    expect(field(page)).to_have_value("39")
    page.keyboard.press("PageDown")
    expect(page.locator(".about h2")).to_have_text("Disc axle")
    page.go_back()
    expect(page.locator(".about h2")).to_have_text("Opener disc diameter")
    expect(field(page)).to_have_value("39")
    page.keyboard.type("5")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name=re.compile("^Row 1 left, sound, 395 mm"))).to_be_visible()


def test_a_database_that_stops_while_typing_is_shown_and_loses_nothing(page: Page, sign_in, product):
    sign_in(at=None)
    walk_around = begin(page)
    page.keyboard.type("395")
    page.keyboard.press("Enter")
    settle(page)
    product.stop_database()
    try:
        for text in ("394", "393", "15 3/8"):
            page.keyboard.type(text)
            page.keyboard.press("Enter")
        expect(page.get_by_role("status").filter(has_text="3 entries kept on this device")).to_be_visible()
        assert asked(page) == "Row 5 left", "typing goes on"
        page.reload()
    finally:
        product.start_database()
    page.goto(f"/walk-arounds/{walk_around}?check=opener-disc-diameter")
    settle(page)
    for row, millimetres in ((1, "395 mm"), (2, "394 mm"), (3, "393 mm"), (4, "390.5 mm")):
        expect(page.get_by_role("button", name=re.compile(f"^Row {row} left, .*{millimetres}"))).to_be_visible()
    stored = product.ask_database(
        f"SELECT COUNT(*), COUNT(DISTINCT uuid) FROM inspection_reading WHERE walk_around_id='{walk_around}'"
    )
    assert stored.split() == ["4", "4"]


def test_a_lost_connection_is_bridged_and_an_answer_that_was_lost_does_not_double(page: Page, sign_in, product):
    sign_in(at=None)
    walk_around = begin(page)
    lost = []

    def lose_the_answer(route):
        """The server records it, the answer never arrives."""
        if not lost:
            lost.append(route.fetch())
            route.abort()
        else:
            route.continue_()

    page.route("**/readings*", lose_the_answer)
    page.keyboard.type("395")
    page.keyboard.press("Enter")
    settle(page)
    expect(page.get_by_role("button", name=re.compile("^Row 1 left, sound"))).to_be_visible()
    assert lost and lost[0].status == 200
    assert product.ask_database(f"SELECT COUNT(*) FROM inspection_reading WHERE walk_around_id='{walk_around}'") == "1"


def test_two_people_on_one_machine_keep_each_others_readings(page: Page, sign_in, new_context):
    sign_in(at=None)
    walk_around = begin(page)
    other = new_context().new_page()
    sign_in("ines", on=other)
    other.goto(f"/walk-arounds/{walk_around}?check=opener-disc-diameter&at=12R")
    other.locator("#reading").wait_for()
    for one, text in ((page, "395"), (other, "394"), (page, "393"), (other, "392")):
        one.keyboard.type(text)
        one.keyboard.press("Enter")
    settle(page)
    expect(other.get_by_text("All saved")).to_be_visible()
    page.reload()
    expect(page.get_by_role("button", name=re.compile(r"^Row \d+ (left|right), .*39\d mm"))).to_have_count(4)
    other.context.close()


def test_the_owner_reads_and_changes_nothing(page: Page, sign_in, accessible):
    sign_in("lotte")
    expect(page.get_by_role("heading", name="Dunmere 12")).to_be_visible()
    expect(page.get_by_role("heading", name="Dunmere 6")).to_have_count(0)
    expect(page.get_by_role("button", name=re.compile("walk-around"))).to_have_count(0)
    page.get_by_role("link", name="Readings").first.click()
    page.locator(".about h2").wait_for()
    expect(field(page)).to_have_count(0)
    accessible(page)


@pytest.mark.parametrize("path", ["", "/findings", "/parts"])
def test_one_thumb_on_a_phone_in_the_dark(path, page: Page, sign_in, accessible, quiet):
    page.set_viewport_size({"width": 390, "height": 844})
    page.add_init_script("localStorage.setItem('lumvek:theme', 'dark')")
    sign_in(at=None)
    walk_around = begin(page)
    page.keyboard.type("385")
    page.keyboard.press("Enter")
    settle(page)
    page.goto(f"/walk-arounds/{walk_around}{path}")
    page.get_by_role("heading", name="Dunmere 12").wait_for()
    quiet()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    accessible(page)


def test_inches_are_shown_to_who_reads_inches(page: Page, sign_in):
    sign_in("ines")
    page.get_by_role("button", name="in", exact=True).click()
    begin(page)
    page.keyboard.type("15.125")
    page.keyboard.press("Enter")
    keep_all(page)
    expect(page.locator(".verdict")).to_contain_text("15 1/8 in, limit 15 3/16 in")
    page.get_by_role("button", name="mm", exact=True).click()
    expect(page.get_by_role("button", name=re.compile("^Row 1 left, due, 384.2 mm"))).to_be_visible()


def test_the_page_is_the_same_wherever_one_comes_in(product):
    with urllib.request.urlopen(product.url + "/walk-arounds/anything/parts") as answer:
        assert b'id="app"' in answer.read()
