"""Wear ahead and the logbook in the real interface: the slider, a slip, counters, services, a note that comes up again."""

import re
from pathlib import Path

from hands import machine
from playwright.sync_api import Page, expect

PICTURE = Path(__file__).resolve().parent.parent / "docs/screenshots/machines.png"


def test_a_longer_season_tips_two_discs_over_and_nothing_else(page: Page, sign_in, accessible):
    sign_in("ada", at=None)
    page.goto(f"/machines/{machine(page, 'Dunmere 12')}/wear?check=opener-disc-diameter")
    expect(page.get_by_text("mean of the last 3 seasons")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Row 4 left, watch, expected 38"))).to_be_visible()
    accessible(page)
    slider = page.get_by_role("slider", name="How much more this machine does, in per cent")
    slider.focus()
    for _ in range(4):
        page.keyboard.press("ArrowRight")
    expect(page.locator("output")).to_have_text("+20 %")
    tipped = page.locator(".tipped")
    expect(tipped).to_contain_text("2 tip over:")
    expect(tipped).to_contain_text("row 9 left")
    expect(tipped).to_contain_text("row 9 right")
    expect(page.get_by_role("button", name=re.compile("^Row 9 left, watch.*tips over"))).to_be_visible()
    accessible(page)
    page.get_by_role("button", name="back to 0").click()
    expect(tipped).to_contain_text("Move it to see")


def test_a_slip_is_marked_a_renewed_disc_begins_anew_and_wheel_rows_stand_out(page: Page, sign_in, accessible):
    sign_in("tomas", at=None)
    page.goto(f"/machines/{machine(page, 'Dunmere 12')}/wear?check=opener-disc-diameter&at=2R")
    detail = page.get_by_role("article", name="Row 2 right")
    expect(detail).to_contain_text("1 reading does not fit the others and is left out of the line.")
    expect(detail.get_by_role("row").filter(has_text="389.1")).to_contain_text("does not fit")
    page.get_by_role("button", name=re.compile("^Row 11 left, sound")).click()
    detail = page.get_by_role("article", name="Row 11 left")
    expect(detail).to_contain_text("One reading since it was fitted")
    expect(detail.get_by_role("row").filter(has_text="part before")).to_have_count(3)
    fastest = page.locator(".fastest").first
    expect(fastest.get_by_role("listitem").first).to_contain_text("Row 5")
    with page.expect_download() as got:
        page.get_by_role("link", name="All places as CSV").click()
    assert "does not fit" in Path(got.value.path()).read_text(encoding="utf-8-sig")
    accessible(page)


def test_the_seasons_end_lists_what_is_dear_to_wait_with(page: Page, sign_in, accessible):
    sign_in("ada")
    page.get_by_role("link", name="Season’s end").click()
    chain = page.get_by_role("row").filter(has_text="Clean-grain chain stretch")
    bearing = page.get_by_role("row").filter(has_text="Rotor bearing play")
    expect(chain).to_contain_text("Wait")
    expect(bearing).to_contain_text("Renew now")
    accessible(page)
    bearing.get_by_role("link").click()
    expect(page.get_by_role("article", name="Rotor 1")).to_contain_text("Pays from")


def test_a_counter_that_runs_back_is_asked_about_and_a_meter_exchanged(page: Page, sign_in, accessible):
    sign_in("tomas", at=None)
    page.goto(f"/machines/{machine(page, 'Corvane 90')}/logbook")
    counter = page.get_by_role("region", name="Counter")
    expect(counter).to_contain_text("3050 ha")
    counter.get_by_role("button", name="Ask its modem").click()
    expect(counter.get_by_role("alert")).to_contain_text("no machine does more than 250 ha a day")
    counter.get_by_label("The meter shows").fill("12")
    page.keyboard.press("Enter")
    expect(counter.get_by_role("alert")).to_contain_text("Was the meter exchanged")
    expect(counter.get_by_role("button", name="It is right")).to_have_count(0)
    accessible(page)
    counter.get_by_role("button", name="The meter was exchanged").click()
    counter.get_by_label("The old meter stood at").fill("3061")
    counter.get_by_role("button", name="Save").click()
    expect(counter).to_contain_text("3061 ha")
    expect(page.get_by_text("Meter exchanged: 3061 ha")).to_be_visible()


def test_a_service_is_kept_the_list_is_ticked_and_a_note_comes_up_in_the_walk_around(page: Page, sign_in, accessible):
    sign_in("ines", at=None)
    number = machine(page, "Dunmere 6")
    page.goto(f"/machines/{number}/logbook")
    services = page.get_by_role("region", name="Services")
    services.get_by_role("button", name="Done: Parallel arm bolts torqued").click()
    services.get_by_role("button", name="Save").click()
    expect(services.get_by_role("listitem").filter(has_text="Parallel arm bolts")).to_contain_text("120 ha left")
    away = page.get_by_role("region", name=re.compile("^Put away"))
    box = away.get_by_role("checkbox").first
    box.click()
    expect(box).to_be_checked()
    expect(away).to_contain_text("Ines Marrow")
    page.get_by_role("textbox", name="What was odd").fill("Row 2 squealed at the closing wheel")
    page.locator("input[type=file]").set_input_files(PICTURE)
    page.get_by_role("combobox", name="Comes up again at").select_option(label="Closing")
    page.locator("form").filter(has_text="What was odd").get_by_role("button", name="Save").click()
    entry = page.get_by_role("listitem").filter(has_text="Row 2 squealed at the closing wheel")
    expect(entry.get_by_role("img")).to_be_visible()
    page.get_by_label("Search the logbook").fill("squealed")
    expect(page.get_by_text("1 entry", exact=True)).to_be_visible()
    accessible(page)
    page.goto(f"/machines/{number}")
    page.get_by_role("button", name="Start walk-around").click()
    page.get_by_role("heading", name="Dunmere 6").wait_for()
    note = page.get_by_text("Row 2 squealed at the closing wheel")
    expect(note).to_have_count(0)
    page.get_by_role("button", name=re.compile("^Closing")).first.click()
    expect(note).to_be_visible()
    expect(page.get_by_alt_text("Picture with this note")).to_be_visible()
