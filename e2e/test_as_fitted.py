"""What is fitted, what good and bad look like, and one round: in the real product, by keyboard and by the drawings."""

import re
from pathlib import Path

import pytest
from hands import begin, field, keep_all, settle, start, unlock
from playwright.sync_api import Page, expect


def test_ear_crops_at_the_start_change_what_is_judged_wrong(page: Page, sign_in):
    sign_in(at=None)
    for crop, says in (("ear", "ear crops want: up"), ("small-grain", "as small grain wants")):
        walk_around = start(page, "Heron 4", crop=crop)
        page.goto(f"/walk-arounds/{walk_around}?check=drum-position")
        unlock(page)
        expect(page.locator(".choices")).to_contain_text("for ear crops" if crop == "ear" else "for small grain")
        page.locator(".choices").get_by_role("button", name="Down").click()
        settle(page)
        expect(page.locator(".verdicts")).to_contain_text(says)


def test_a_state_is_picked_on_its_drawing(page: Page, sign_in):
    sign_in(at=None)
    begin(page, "grain-sprockets", machine="Heron 4", posture="shields open, engine off")
    drawings = page.locator(".choices svg.look")
    expect(drawings).to_have_count(3)
    drawings.nth(2).click()
    settle(page)
    expect(page.locator(".verdicts")).to_contain_text("Due Top. Hooked or cupped.")
    expect(page.locator(".together")).to_contain_text("Hooked or cupped")


PICTURE = Path(__file__).resolve().parent.parent / "docs/screenshots/report.png"


def test_a_strip_down_is_pictured_step_by_step_and_refitted_backwards(page: Page, sign_in):
    sign_in(at="/walk-arounds/ebf6c402-9e3b-5278-a338-5c8a284346b2/findings")
    album = page.locator("details.album").first
    album.locator("summary").click()
    for words, loose in (("Guard", "3"), ("Chain", "")):
        album.get_by_label("What came off").fill(words)
        album.get_by_label("Loose parts with it").fill(loose)
        album.get_by_label("Picture of the step").set_input_files(PICTURE)
        expect(album.locator(".steps li", has_text=words)).to_be_visible()
    expect(album.locator("summary")).to_contain_text("2 steps, 3 loose parts")
    album.get_by_role("button", name="Refit: show them backwards").click()
    expect(album.locator(".steps li").first).to_contain_text("Chain")
    expect(album.get_by_text("3 loose parts still to go back")).to_be_visible()
    album.locator(".steps li", has_text="Guard").get_by_role("checkbox").check()
    expect(album.get_by_text("Every loose part is back")).to_be_visible()


def test_the_lead_pins_a_picture_of_the_shops_own_to_a_check(page: Page, sign_in):
    sign_in("ada", at=None)
    begin(page, "outer-scraper")
    page.keyboard.press("Alt+p")
    page.get_by_label("Caption of the picture").fill("Angle gone")
    page.get_by_label("Picture file").set_input_files(PICTURE)
    page.get_by_role("button", name="Pin as what it looks like").click()
    page.get_by_role("button", name="Pin for this model").click()
    beside = page.get_by_role("list", name="What it looks like in this shop")
    expect(beside).to_contain_text("Angle at the edge gone: Angle gone")


def test_what_is_counted_shows_what_a_faulty_one_looks_like(page: Page, sign_in):
    sign_in(at=None)
    begin(page, "platform.knife-sections", machine="Sill 61", posture="reel raised and locked")
    expect(page.get_by_role("list", name="What is counted, and what is not")).to_contain_text("Chipped")


def test_the_stripper_header_is_walked_without_a_reel_lock(page: Page, sign_in):
    sign_in(at=None)
    walk_around = start(page, "Comb 61", phase="everything")
    page.goto(f"/walk-arounds/{walk_around}")
    field(page).or_(page.locator(".gate")).first.wait_for()
    plan = page.request.get(f"/api/walk-arounds/{walk_around}").json()
    assert not [visit for visit in plan["plan"]["visits"] if "reel" in visit["posture"]]
    assert not [one for one in plan["postures"] if "reel" in one["name"]]


def test_the_set_up_says_what_a_crop_would_have_otherwise(page: Page, sign_in, accessible):
    sign_in("ada", at="/machines/5/set-up")
    page.get_by_label("Crop that comes").select_option("ear")
    expect(page.get_by_text(re.compile(r"\d+ items stand otherwise than ear crops would have it"))).to_be_visible()
    drum = page.get_by_role("listitem").filter(has_text="Feeder drum fitted")
    expect(drum).to_contain_text("→ Up")
    accessible(page)
    page.get_by_label("Crop that comes").select_option("small-grain")
    expect(drum).to_contain_text("as it is")


def test_everything_is_chosen_first_and_a_round_says_what_it_leaves_out(page: Page, sign_in):
    sign_in(at="/machines/1")
    expect(page.get_by_role("radio", name=re.compile("^Everything"))).to_be_checked()
    expect(page.get_by_text("left out: seen only while it works in the field.")).to_be_visible()
    before = page.locator(".plan .big b").first.inner_text()
    page.get_by_role("button", name="Take them in").click()
    expect(page.get_by_text("Nothing is left out.")).to_be_visible()
    expect(page.locator(".plan .big b").first).not_to_have_text(before)


def test_what_was_left_out_is_taken_into_a_walk_around_that_runs(page: Page, sign_in):
    sign_in(at=None)
    walk_around = start(page, "Dunmere 6", phase="everything")
    page.goto(f"/walk-arounds/{walk_around}")
    page.locator(".left-out").wait_for()
    page.get_by_role("button", name="Take them in").click()
    page.wait_for_timeout(600)
    page.get_by_role("button", name="Take them in", exact=True).click()
    expect(page.locator(".left-out")).to_have_count(0)
    keys = [check["key"] for check in page.request.get(f"/api/walk-arounds/{walk_around}").json()["checks"]]
    assert "bar-by-eye" in keys


@pytest.mark.parametrize(
    ("unit", "check", "machine", "posture", "typed", "says"),
    [
        ("mm", "grain-chain-stretch", "Heron 4", "shields open, engine off", "1031 / 1000", "3.1 % stretch"),
        ("in", "grain-chain-stretch", "Heron 4", "shields open, engine off", "39 3/4 / 38 1/2", "3.25 % stretch"),
        ("mm", "fan-gauge", "Dunmere 12", "fan or vacuum running, standing", "26 inH2O", "26 inH2O"),
        ("in", "fan-gauge", "Dunmere 12", "fan or vacuum running, standing", "65 mbar", "65 mbar"),
    ],
)
def test_a_reading_is_typed_as_it_was_taken_whatever_the_reader_reads(
    page, sign_in, unit, check, machine, posture, typed, says
):
    sign_in()
    page.get_by_role("button", name=unit, exact=True).click()
    begin(page, check, machine=machine, posture=posture)
    expect(page.locator("#reading")).to_have_attribute("inputmode", "text")  # a phone's keypad of figures has no such signs
    page.keyboard.type(typed, delay=60)
    page.keyboard.press("Enter")
    keep_all(page)
    expect(page.locator(".verdict").first).to_contain_text(says)
