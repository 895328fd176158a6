"""Second thoughts, where they come: at the line that says what was done."""

import re
from datetime import date
from uuid import uuid4

from hands import begin, field, machine, post, settle
from playwright.sync_api import Page, expect

from demo.pictures import drawn


def test_counted_moved_and_sent_back_and_none_of_it(page: Page, sign_in, accessible):
    sign_in("bram", at="/parts/stock")
    row = page.get_by_role("row").filter(has_text="Jack bearing").first
    before = row.inner_text()
    row.get_by_role("button", name=re.compile("^Count it")).click()
    page.get_by_role("textbox", name="Counted").fill("9")
    page.keyboard.press("Enter")
    expect(row).to_contain_text("9")
    moved = page.get_by_role("region", name="What moved").get_by_role("listitem").first
    accessible(page)
    moved.get_by_role("button", name="Take back").click()
    expect(row).to_have_text(re.sub(r"\s+", " ", before), use_inner_text=True)
    expect(page.get_by_role("region", name="What moved").get_by_role("listitem").first).to_contain_text("taken back")


def test_fitted_at_the_wrong_row(page: Page, sign_in):
    sign_in("tomas", at="/parts/fit")
    planter = page.get_by_role("article", name="Dunmere 12")
    ready = planter.get_by_role("button", name=re.compile("^Fit ")).first
    what = ready.get_attribute("aria-label")
    ready.click()
    back = planter.get_by_role("button", name=re.compile("^Take back: "))
    expect(back).to_have_count(1)
    back.click()
    expect(back).to_have_count(0)
    planter.get_by_role("button", name=what).click()  # and it can be fitted after all
    expect(back).to_have_count(1)


def test_a_service_and_a_counter(page: Page, sign_in):
    sign_in("tomas", at=None)
    page.goto(f"/machines/{machine(page, 'Heron 6')}/logbook")
    services = page.get_by_role("region", name="Services")
    first = services.get_by_role("button", name=re.compile("^Done: ")).first
    name = first.get_attribute("aria-label").removeprefix("Done: ")
    row = services.get_by_role("listitem").filter(has=page.get_by_text(name, exact=True))
    before = row.inner_text()
    first.click()
    page.get_by_label("Note", exact=True).fill("by mistake")
    page.keyboard.press("Enter")
    expect(row).to_contain_text(f"last {date.today():%-d %b %Y}")
    row.get_by_role("button", name="Take back that it was done").click()
    expect(page.get_by_text(f"Taken back: {name}")).to_be_visible()
    expect(row).to_have_text(re.sub(r"\s+", " ", before), use_inner_text=True)


def test_a_picture_and_a_note_from_the_cab(page: Page, sign_in, tmp_path, accessible):
    sign_in("tomas")
    note = {"uuid": str(uuid4()), "text": "an opener disc rattled in row 4"}
    post(page, f"/api/machines/{machine(page, 'Dunmere 12')}/notes", **note)
    begin(page)
    picture = tmp_path / "disc.jpg"
    picture.write_bytes(drawn("disc"))
    page.keyboard.press("Alt+p")
    page.keyboard.type("chipped")
    page.get_by_label("Picture file").set_input_files(picture)
    settle(page)
    shown = page.get_by_role("img", name="chipped")
    expect(shown).to_be_visible()
    page.get_by_role("button", name="Remove picture chipped").click()
    expect(shown).to_have_count(0)
    accessible(page)
    page.get_by_role("button", name="Put it back").click()
    expect(shown).to_be_visible()
    expect(field(page)).to_be_visible()

    bar = page.get_by_text(note["text"])
    expect(bar).to_be_visible()
    page.get_by_role("button", name="Cause found").click()
    page.get_by_label("Cause", exact=True).fill("a stone")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").filter(has_text=f"Note closed: {note['text']}")).to_be_visible()
    page.get_by_role("button", name="Open again").click()
    expect(page.get_by_text("Note closed:")).to_have_count(0)
    expect(page.get_by_role("button", name="Cause found")).to_be_visible()
