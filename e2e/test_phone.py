"""The walk-around in one hand: what is needed stands above the soft keyboard, the rest one tap away."""

from pathlib import Path

import pytest
from hands import begin, field, keep_all, settle
from playwright.sync_api import Page, expect

PICTURE = Path(__file__).resolve().parent.parent / "docs/screenshots/report.png"
SEEN = {"width": 390, "height": 508}
"""What a phone shows above its keyboard."""
PARTS = ".about h2, .verdict, .where, #reading, .enter, .keys"


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return {**browser_context_args, "viewport": SEEN, "has_touch": True, "is_mobile": True}


def typed(page: Page, *figures: str) -> None:
    for figure in figures:
        page.keyboard.type(figure)
        page.keyboard.press("Enter")


def test_the_verdict_the_field_and_every_key_stand_above_the_keyboard(page: Page, sign_in):
    sign_in(at=None)
    begin(page)
    typed(page, "395.5", "391")
    settle(page)
    boxes = [one.bounding_box() for one in page.locator(PARTS).all()]
    assert boxes[0]["y"] <= 120, "the head leaves room for the check"
    assert all(box["y"] >= 0 and box["y"] + box["height"] <= SEEN["height"] for box in boxes), boxes
    ask, keys = (page.locator(one).bounding_box() for one in (".ask", ".keys"))
    assert keys["y"] >= ask["y"] + ask["height"], "nothing is hidden"
    assert page.evaluate("document.documentElement.scrollWidth") == SEEN["width"]


@pytest.mark.parametrize(("who", "shown"), [("tomas", "395.5 mm, limit 386 mm"), ("ines", "15 9/16 in, limit 15 3/16 in")])
def test_the_share_left_and_the_forecast_open_with_the_reasons(who, shown, page: Page, sign_in):
    sign_in(who, at=None)
    page.goto("/bench")
    page.get_by_role("button", name="Menu").tap()
    page.get_by_role("button", name="in" if who == "ines" else "mm", exact=True).tap()
    begin(page)
    typed(page, "395.5 mm")
    settle(page)
    verdict = page.locator(".verdict")
    expect(verdict).to_contain_text(shown)
    expect(verdict.locator(".on")).to_be_hidden()
    page.locator(".verdict summary").first.tap()
    expect(page.locator(".then")).to_contain_text("of its wear left")


def test_what_is_to_be_done_is_said_without_asking(page: Page, sign_in):
    sign_in(at=None)
    begin(page)
    typed(page, "385")
    keep_all(page)
    places = page.request.get(page.url.split("?")[0].replace("/walk-arounds", "/api/walk-arounds")).json()["places"]
    (remedy,) = [place["remedy"] for place in places if place["check"] == "opener-disc-diameter" and place["severity"] == "due"]
    assert remedy
    expect(page.get_by_text(remedy).first).to_be_visible()


def test_stations_checks_and_the_other_pages_open_on_asking_and_close_behind_a_choice(page: Page, sign_in):
    sign_in(at=None)
    begin(page)
    expect(page.locator(".big-map")).to_be_hidden()
    expect(page.get_by_role("link", name="Findings")).to_be_hidden()
    page.get_by_role("button", name="Opener discs", exact=True).tap()
    expect(page.get_by_role("link", name="Findings")).to_be_visible()
    page.locator(".left .check").filter(has_not_text="Opener disc diameter").first.tap()
    expect(page.locator(".big-map")).to_be_hidden()
    expect(page.locator(".about h2")).not_to_have_text("Opener disc diameter")


def test_units_theme_and_leaving_are_in_the_menu(page: Page, sign_in):
    sign_in(at=None)
    begin(page)
    leave = page.get_by_role("button", name="Log out")
    expect(leave).to_be_hidden()
    page.get_by_role("button", name="Menu").tap()
    for one in (leave, page.get_by_role("group", name="Units to read in"), page.get_by_role("link", name="Your account").first):
        expect(one).to_be_visible()


def test_a_note_and_a_picture_are_one_tap_from_the_field_and_lead_back_to_it(page: Page, sign_in):
    sign_in(at=None)
    walk_around = begin(page)
    page.locator(".keys button", has_text="note").tap()
    page.keyboard.type("Rubs on the scraper")
    page.get_by_role("button", name="Save note").tap()
    expect(field(page)).to_be_focused()
    with page.expect_file_chooser() as asked:
        page.locator(".keys button", has_text="picture").tap()
    asked.value.set_files(PICTURE)
    page.locator(".strip img").wait_for()
    expect(field(page)).to_be_focused()
    expect(page.locator(".where")).to_have_text("Row 1 left")
    settle(page)
    (photo,) = page.request.get(f"/api/walk-arounds/{walk_around}").json()["photos"]
    assert (photo["check"], photo["position"]) == ("opener-disc-diameter", "1L")
    typed(page, "391")
    settle(page)
    (place,) = page.request.get(f"/api/walk-arounds/{walk_around}").json()["places"]
    assert (place["note"], place["shown"]) == ("Rubs on the scraper", "391 mm")


def test_a_choice_opens_no_keypad_over_its_answers(page: Page, sign_in):
    sign_in(at=None)
    begin(page, "opener-bearing")
    expect(field(page)).to_have_attribute("inputmode", "none")


@pytest.mark.parametrize(("figure", "then"), [("391", ".verdict"), ("9999", ".questions"), ("abc", ".questions")])
def test_without_a_signal_a_figure_is_said_to_be_kept_and_not_yet_judged(figure, then, page: Page, sign_in):
    sign_in(at=None)
    begin(page)
    typed(page, "395.5")
    settle(page)
    page.route("**/readings*", lambda route: route.abort())
    typed(page, figure)
    said = page.get_by_role("status").filter(has_text="Kept, not judged yet.")
    expect(said).to_contain_text(f"row 2 left: {figure}", ignore_case=True)
    expect(page.locator(".verdict")).to_have_count(0)
    page.unroute("**/readings*")
    expect(said).to_have_count(0, timeout=30_000)
    expect(page.locator(then)).to_be_visible()


def test_large_fits_a_phone_and_stays_with_its_walk_around(page: Page, sign_in):
    sign_in(at=None)
    begin(page)
    page.get_by_role("button", name="Large, for two people").tap()
    expect(page.get_by_role("button", name="Normal size")).to_have_attribute("aria-pressed", "true")
    assert page.evaluate("document.documentElement.scrollWidth") == SEEN["width"]
    begin(page)
    expect(page.get_by_role("button", name="Large, for two people")).to_have_attribute("aria-pressed", "false")
