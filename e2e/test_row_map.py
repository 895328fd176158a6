"""The row map: every row's figures side by side, and a new one typed over where it stands."""

import re

from hands import begin, lose_answer, settle
from playwright.sync_api import Page, expect

DUNMERE_12 = "2bf30ed0-2ed8-5dd5-bceb-b7131910ad62"


def cell(page: Page, row: int):
    return page.get_by_role("gridcell", name=re.compile(f"^Opener disc diameter, left, Row {row},"))


def opened(page: Page) -> str:
    """The map of a fresh walk-around of the planter."""
    started = begin(page)
    page.goto(f"/walk-arounds/{started}/map")
    page.get_by_role("grid").wait_for()
    return started


def figures(page: Page, started: str) -> dict[str, list[str]]:
    read = page.request.get(f"/api/walk-arounds/{started}").json()["places"]
    return {place["position"]: place["raw"] for place in read if place["check"] == "opener-disc-diameter"}


def test_the_row_map_by_keyboard(page: Page, sign_in, accessible):
    sign_in(at=f"/walk-arounds/{DUNMERE_12}/map")
    page.get_by_role("grid").wait_for()
    accessible(page)
    fourth = cell(page, 4)
    expect(fourth).to_contain_text("388.5")
    page.get_by_role("button", name="Against the others").or_(page.get_by_text("Against the others")).first.click()
    expect(fourth).to_contain_text("−")
    page.get_by_text("Since last time", exact=True).click()
    expect(fourth).to_contain_text("−3.5")
    page.get_by_role("button", name="Worst first").click()
    expect(page.get_by_role("columnheader").nth(1)).to_have_text("5")
    first = page.get_by_role("gridcell").first
    first.click()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowDown")
    assert "Boxes" in page.evaluate("document.activeElement.getAttribute('aria-label')")
    page.keyboard.press("Enter")
    page.wait_for_url("**/walk-arounds/*?check=boxes*")


def test_a_figure_typed_in_the_row_map_stands_until_it_is_kept(page: Page, sign_in):
    sign_in(at=None)
    opened(page)
    first, third = cell(page, 1), cell(page, 3)
    first.click()
    page.keyboard.type("386.5")
    third.click()  # a glance at another one
    page.keyboard.type("385")
    typed = page.get_by_role("textbox", name=re.compile("^New figure for Row"))
    expect(typed).to_have_count(2)
    expect(typed.first).to_have_value("386.5")
    page.get_by_role("link", name="Catalogue").or_(page.get_by_role("link", name="Lumvek, to the machines")).first.click()
    expect(page.get_by_role("alert").filter(has_text="New figure for Row 1")).to_be_visible()
    page.get_by_role("button", name="Back to it").click()
    expect(typed.first).to_be_focused()
    page.keyboard.press("Enter")
    expect(first).to_contain_text("386.5")
    expect(cell(page, 2)).to_be_focused()
    expect(typed).to_have_value("385")
    typed.press("Escape")
    expect(typed).to_have_count(0)
    expect(third).to_be_focused()
    expect(third).not_to_contain_text("385")


def test_a_figure_stands_in_its_cell_until_the_server_has_answered_for_it(page: Page, sign_in, accessible):
    sign_in(at=None)
    started = opened(page)
    late: list = []
    page.route("**/readings*", lambda route: late.append(route))
    cell(page, 1).click()
    page.keyboard.type("386.5")
    page.keyboard.press("Enter")
    expect(cell(page, 2)).to_be_focused()
    expect(cell(page, 1)).to_contain_text("386.5")
    expect(cell(page, 1)).to_have_accessible_name(re.compile("On its way"))
    accessible(page)
    late.pop().continue_()
    settle(page)
    expect(cell(page, 1)).to_have_accessible_name(re.compile("Row 1, (Sound|Watch|Due|Question), 386.5"))
    assert figures(page, started) == {"1L": ["386.5"]}


def test_what_the_server_said_is_seen_though_the_map_cannot_be_read_again(page: Page, sign_in):
    sign_in(at=None)
    opened(page)
    page.route("**/map*", lambda route: route.abort())
    cell(page, 1).click()
    page.keyboard.type("380")
    page.keyboard.press("Enter")
    expect(cell(page, 1)).to_have_accessible_name(re.compile("Row 1, Question, 380"))
    expect(page.get_by_role("alert").filter(has_text="No connection")).to_be_visible()


def test_an_answer_that_is_lost_is_had_again_and_the_figure_is_there_once(page: Page, sign_in):
    sign_in(at=None)
    started = opened(page)
    lose_answer(page, "**/readings*")
    cell(page, 3).click()
    page.keyboard.type("387")
    page.keyboard.press("Enter")
    expect(page.get_by_text("1 entry kept on this device")).to_be_visible()
    expect(cell(page, 3)).to_contain_text("387")
    settle(page)
    expect(cell(page, 3)).to_contain_text("387")
    assert figures(page, started) == {"3L": ["387"]}
    versions = page.request.get(f"/api/walk-arounds/{started}/changes?after=0").json()["places"]
    assert [one["raw"] for one in versions if one["check"] == "opener-disc-diameter"] == [["387"]]


def test_what_could_not_be_taken_stands_in_its_cell_with_the_reason(page: Page, sign_in):
    sign_in(at=None)
    started = opened(page)
    cell(page, 2).click()
    page.keyboard.type("38x")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="1 entry could not be taken")).to_be_visible()
    expect(cell(page, 2)).to_contain_text("38x")
    page.keyboard.press("ArrowLeft")
    expect(page.get_by_role("status").filter(has_text="row 2 left.")).to_contain_text("is not a unit of length")
    page.keyboard.type("388")
    page.keyboard.press("Enter")
    settle(page)
    expect(cell(page, 2)).to_contain_text("388")
    expect(page.get_by_role("alert")).to_have_count(0)
    assert figures(page, started) == {"2L": ["388"]}


def test_inches_are_typed_over_as_on_a_tape(page: Page, sign_in):
    sign_in(at=None)
    started = opened(page)
    page.get_by_role("group", name="Units to read in").get_by_role("button", name="in", exact=True).click()
    expect(page.get_by_role("grid")).to_contain_text("Opener disc diameter, in")
    cell(page, 1).click()
    page.keyboard.type("15 3/8")
    page.keyboard.press("Enter")
    settle(page)
    expect(cell(page, 1)).to_have_accessible_name(re.compile("15 3/8, 15 3/8 in"))
    assert figures(page, started) == {"1L": ["15 3/8"]}
