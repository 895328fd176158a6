"""Pictures of the shop's own and stops taken in, while answers come late, get lost, or are a refusal."""

import json
from pathlib import Path

import pytest
from hands import begin, settle, start, sure
from playwright.sync_api import Page, expect

PICTURE = Path(__file__).resolve().parent.parent / "docs/screenshots/report.png"
STEPS = "**/strip-pictures"


@pytest.fixture
def album(page: Page, sign_in):
    """The first strip-down of a finished walk-around, opened."""
    sign_in(at="/walk-arounds/ebf6c402-9e3b-5278-a338-5c8a284346b2/findings")
    found = page.locator("details.album").first
    found.locator("summary").click()
    return found


def take(album, words, loose=""):
    album.get_by_label("What came off").fill(words)
    album.get_by_label("Loose parts with it").fill(loose)
    album.get_by_label("Picture of the step").set_input_files(PICTURE)


def refuse(route):
    route.fulfill(status=422, body=json.dumps({"error": {"field": "photo", "message": "there are 60 pictures already"}}))


def test_a_step_whose_answer_was_lost_is_sent_again_and_stands_once(page: Page, album):
    lost = []

    def lose_the_answer(route):
        if route.request.method == "POST" and not lost:
            lost.append(route.fetch())
            return route.abort()
        return route.continue_()

    page.route(STEPS, lose_the_answer)
    take(album, "Guard", "3")
    expect(album.locator(".steps li")).to_have_count(1)
    settle(page)
    assert lost[0].status == 200
    expect(album.locator("summary")).to_contain_text("1 step, 3 loose parts")


def test_words_for_the_next_step_stay_while_the_last_picture_is_on_its_way(page: Page, album):
    held = []
    page.route(STEPS, lambda route: held.append(route) if route.request.method == "POST" else route.continue_())
    take(album, "Guard", "3")
    expect(album.get_by_text("1 picture on the way")).to_be_visible()
    album.get_by_label("What came off").press_sequentially("Chain", delay=60)
    album.get_by_label("Loose parts with it").fill("2")
    held.pop().continue_()
    expect(album.locator(".steps li")).to_have_count(1)
    expect(album.get_by_label("What came off")).to_have_value("Chain")
    expect(album.get_by_label("Loose parts with it")).to_have_value("2")


def test_a_refused_step_is_seen_and_kept_until_somebody_deals_with_it(page: Page, album):
    page.route(STEPS, lambda route: refuse(route) if route.request.method == "POST" else route.continue_())
    take(album, "Guard", "3")
    expect(page.get_by_text("1 entry could not be taken:")).to_be_visible()
    page.reload()
    expect(page.get_by_text("1 entry could not be taken:")).to_be_visible()
    page.unroute(STEPS)
    page.get_by_role("link", name="look").click()
    expect(page.get_by_text("there are 60 pictures already")).to_be_visible()
    page.get_by_role("button", name="Try again").click()
    settle(page)


def test_a_wrong_count_is_told_at_the_field_before_the_camera_opens(page: Page, album):
    opened = []
    page.on("filechooser", lambda chooser: opened.append(chooser))
    album.get_by_label("What came off").fill("Guard")
    album.get_by_label("Loose parts with it").fill("a few")
    album.get_by_role("button", name="Take the picture").click()
    expect(album.get_by_role("alert")).to_contain_text("a whole number up to 999")
    expect(album.get_by_label("What came off")).to_have_value("Guard")
    expect(album.get_by_label("Loose parts with it")).to_have_value("a few")
    assert not opened


def test_what_is_back_on_outlives_a_reload(page: Page, album):
    take(album, "Guard", "3")
    expect(album.locator(".steps li")).to_have_count(1)
    for again in (False, True):
        if again:
            page.reload()
            album.locator("summary").click()
        album.get_by_role("button", name="Refit: show them backwards").click()
        tick = album.get_by_role("checkbox", name="back on")
        if not again:
            tick.check()
        expect(tick).to_be_checked()
        expect(album.get_by_text("Every loose part is back")).to_be_visible()


def test_a_picture_is_pinned_taken_off_and_pinned_again_and_a_lost_connection_is_seen(page: Page, sign_in):
    sign_in("ada", at=None)
    begin(page, "outer-scraper")
    page.keyboard.press("Alt+p")
    page.get_by_label("Caption of the picture").fill("Angle gone")
    page.get_by_label("Picture file").set_input_files(PICTURE)
    page.get_by_role("button", name="Pin as what it looks like").click()
    page.route("**/pin", lambda route: route.abort())
    page.get_by_role("button", name="Pin for this model").click()
    form = page.get_by_role("form", name="Pin this picture to its check")
    expect(form.get_by_role("alert")).to_contain_text("No connection to the server.")
    page.unroute("**/pin")
    page.get_by_role("button", name="Pin for this model").click()
    beside = page.get_by_role("list", name="What it looks like in this shop")
    expect(beside.get_by_role("listitem")).to_have_count(1)

    page.route("**/take-off", lambda route: route.abort())
    sure(page, page.get_by_role("button", name="Take off the picture"), "Take it off")
    expect(page.get_by_role("alert").filter(has_text="No connection to the server.")).to_be_visible()
    expect(beside.get_by_role("listitem")).to_have_count(1)
    page.unroute("**/take-off")
    sure(page, page.get_by_role("button", name="Take off the picture"), "Take it off")
    expect(beside).to_have_count(0)

    page.get_by_role("button", name="Pin as what it looks like").click()
    page.get_by_role("button", name="Pin for this model").click()
    expect(beside.get_by_role("listitem")).to_have_count(1)


def test_taking_in_what_was_left_out_says_when_it_did_not_get_through(page: Page, sign_in):
    sign_in(at=None)
    walk_around = start(page, "Dunmere 6", phase="everything")
    page.goto(f"/walk-arounds/{walk_around}")
    page.route("**/take-in", lambda route: route.abort())
    sure(page, page.get_by_role("button", name="Take them in"), "Take them in")
    expect(page.get_by_role("alert").filter(has_text="No connection to the server.")).to_be_visible()
    expect(page.locator(".left-out")).to_be_visible()
    page.unroute("**/take-in")
    sure(page, page.get_by_role("button", name="Take them in"), "Take them in")
    expect(page.locator(".left-out")).to_have_count(0)
