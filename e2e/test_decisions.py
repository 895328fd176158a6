"""What is decided about findings and parts: with words where they are wanted, each refusal at its own finding, late answers too."""

import json
import re

from hands import begin, keep_all, lose_answer
from playwright.sync_api import Page, expect

HALF_DONE = "/walk-arounds/2bf30ed0-2ed8-5dd5-bceb-b7131910ad62/findings"


def test_a_companion_is_left_out_with_a_reason(page: Page, sign_in):
    sign_in("ada", at=None)
    walk_around = begin(page)
    page.keyboard.type("385")
    page.keyboard.press("Enter")
    keep_all(page)
    page.goto(f"/walk-arounds/{walk_around}/parts")
    row = page.get_by_role("row").filter(has_text="Centre scraper")
    row.get_by_role("button", name="Decline").click()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Say why it is declined.")).to_be_visible()
    page.keyboard.type("new last winter")
    page.keyboard.press("Enter")
    expect(row).to_contain_text("Declined row 1: new last winter (Ada Quill)")
    expect(page.get_by_text("All spacing washers back inside")).to_be_visible()


def test_waiting_and_declining_want_their_words(page: Page, sign_in):
    sign_in("ada", at=None)
    walk_around = begin(page)
    page.keyboard.type("385")
    page.keyboard.press("Enter")
    keep_all(page)
    page.goto(f"/walk-arounds/{walk_around}/findings")
    page.get_by_role("button", name="Wait until").click()
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="until when")).to_be_visible()
    page.keyboard.type("after drilling")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Wait: after drilling")).to_be_visible()
    page.goto(f"/walk-arounds/{walk_around}/parts")
    expect(page.get_by_text("No parts are called for yet.")).to_be_visible()


def test_the_answer_to_one_decision_leaves_the_words_of_the_next_alone(page: Page, sign_in):
    sign_in("ada", at=HALF_DONE)
    rows = page.get_by_role("listitem").filter(has=page.get_by_role("button", name="Wait until"))
    rows.nth(1).wait_for()
    held = []
    page.route("**/decisions", lambda route: route.continue_() if held else held.append(route))
    rows.nth(0).get_by_role("button", name="Do it").click()
    rows.nth(1).get_by_role("button", name="Wait until").click()
    page.keyboard.type("after drilling")
    assert len(held) == 1
    held[0].continue_()
    expect(page.locator("li.do").first).to_be_visible()
    expect(page.get_by_label("Until when, or what")).to_have_value("after drilling")
    expect(page.get_by_label("Until when, or what")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Wait: after drilling")).to_be_visible()


def refuse(route):
    body = {"error": {"field": "", "message": "This walk-around is finished."}}
    route.fulfill(status=409, content_type="application/json", body=json.dumps(body))


def test_a_refusal_waits_at_its_own_finding_though_another_is_open(page: Page, sign_in):
    sign_in("ada", at=HALF_DONE)
    rows = page.get_by_role("listitem").filter(has=page.get_by_role("button", name="Wait until"))
    first, second = rows.nth(0), rows.nth(1)
    held = []
    page.route("**/decisions", lambda route: held.append(route))
    first.get_by_role("button", name="Decline").click()
    page.keyboard.type("new last winter", delay=20)
    page.keyboard.press("Enter")
    second.get_by_role("button", name="Decline").click()
    page.keyboard.type("bent", delay=20)
    refuse(held[0])
    expect(first.get_by_role("alert")).to_contain_text("“new last winter”: This walk-around is finished.")
    expect(second.get_by_role("textbox")).to_have_value("bent")


def test_a_decision_that_cannot_reach_the_server_stands_at_its_finding(page: Page, sign_in):
    sign_in("ada", at=HALF_DONE)
    finding = page.get_by_role("listitem").filter(has=page.get_by_role("button", name="Do it")).first
    place = finding.get_by_role("group").get_attribute("aria-label").removeprefix("Decide ")
    finding = page.get_by_role("listitem").filter(has_text=place).first
    page.route("**/decisions", lambda route: route.abort())
    finding.get_by_role("button", name="Do it").click()
    expect(finding.get_by_role("status")).to_have_text(re.compile("Do it.*on its way"))
    page.reload()
    expect(finding.get_by_role("status")).to_have_text(re.compile("Do it.*on its way"))
    page.unroute("**/decisions")
    expect(finding.get_by_role("status")).to_have_count(0)
    expect(finding.get_by_role("button", name="change")).to_be_visible()


def test_words_that_were_begun_are_there_again_after_another_form(page: Page, sign_in):
    sign_in("ada", at=HALF_DONE)
    rows = page.get_by_role("listitem").filter(has=page.get_by_role("button", name="Wait until"))
    rows.nth(0).get_by_role("button", name="Wait until").click()
    page.keyboard.type("after dri", delay=20)
    rows.nth(1).get_by_role("button", name="Wait until").click()
    expect(rows.nth(1).get_by_role("textbox")).to_have_value("")
    rows.nth(0).get_by_role("button", name="Wait until").click()
    expect(rows.nth(0).get_by_role("textbox")).to_have_value("after dri")


def test_a_finding_that_stands_alone_shows_what_was_refused(page: Page, sign_in):
    sign_in("ada", at=HALF_DONE)
    article = page.get_by_role("article").filter(has=page.get_by_role("button", name="Do it")).first
    name = article.get_by_role("heading").inner_text()
    article.get_by_role("button", name="Do it").first.click()
    article = page.get_by_role("article", name=name)
    article.get_by_role("button", name="change").first.wait_for()
    page.route("**/decisions", refuse)
    article.get_by_role("button", name="change").first.click()
    expect(article.get_by_role("alert")).to_have_text("This walk-around is finished.")


def test_a_link_whose_answer_was_lost_is_asked_for_again_and_is_one(page: Page, sign_in):
    sign_in("ada", at=HALF_DONE)
    make = page.get_by_role("button", name="Make a link")
    lose_answer(page, "**/api/walk-arounds/*/links")
    make.click()
    expect(page.get_by_role("alert").filter(has_text="No connection")).to_be_visible()
    make.click()
    link = page.get_by_role("status").filter(has_text="Shown once")
    expect(link).to_be_visible()
    expect(page.get_by_role("button", name="End it now")).to_have_count(1)
    page.goto(link.get_by_role("link").get_attribute("href"))
    expect(page.get_by_role("heading", level=1)).to_be_visible()
