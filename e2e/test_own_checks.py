"""The lead's own checks at the pace of hands: what was typed stands through lost and late answers, and nobody is moved."""

import re

import hands
from hands import lose_answer
from playwright.sync_api import Page, expect


def begin_check(page: Page, name: str):
    page.goto("/own-checks/new")
    page.get_by_role("combobox", name="Kind of machine").select_option(label="Row-crop planter")
    page.get_by_role("combobox", name="Station").select_option(label="Hitch and hoses")
    page.get_by_label("Name", exact=True).fill(name)
    page.get_by_label("How it is done").fill("Feeler between rail and block.")
    page.get_by_role("combobox", name="Reading").select_option(label="A size that must be so much at least")
    page.get_by_role("combobox", name="Unit").select_option("mm")


def names(page: Page) -> list[str]:
    return [one["name"] for one in page.request.get("/api/own-checks").json()["checks"]]


def test_a_check_is_tried_refused_at_its_field_and_kept_once(page: Page, sign_in):
    sign_in("ada", at=None)
    begin_check(page, "Rail gap")
    trial = page.get_by_role("complementary", name="As the walk-around will show it")
    expect(trial).to_contain_text("Not yet: At least: is wanted")
    page.get_by_role("button", name="Add the check").click()
    expect(page.get_by_role("alert").filter(has_text="Is wanted")).to_be_visible()
    page.get_by_role("textbox", name="At least").fill("1/8 in")
    trial.get_by_label("Try a reading").fill("2")
    expect(trial).to_contain_text("1.18 mm under")
    page.reload()
    expect(page.get_by_role("status").filter(has_text="where you left off")).to_be_visible()
    expect(page.get_by_role("textbox", name="At least")).to_have_value("1/8 in")
    # The server takes it, and its answer is lost: pressed again it is the same check.
    lose_answer(page, "**/api/own-checks")
    page.get_by_role("button", name="Add the check").click()
    expect(page.get_by_role("alert").last).to_be_visible()
    page.get_by_role("button", name="Add the check").click()
    page.wait_for_url("**/own-checks")
    assert names(page).count("Rail gap") == 1


def test_who_has_gone_elsewhere_is_not_fetched_back(page: Page, sign_in):
    sign_in("ada", at=None)
    begin_check(page, "Rail gap")
    page.get_by_role("textbox", name="At least").fill("3")
    held = []
    page.route("**/api/own-checks", lambda route: held.append(route) if route.request.method == "POST" else route.continue_())
    page.get_by_role("button", name="Add the check").click()
    page.get_by_role("link", name="Bench").click()
    expect(page.get_by_role("heading", name=re.compile("Bench"))).to_be_visible()
    with page.expect_response("**/api/own-checks"):
        held[0].continue_()
    page.wait_for_timeout(200)
    assert page.url.endswith("/bench")
    assert "Rail gap" in names(page)


def test_a_check_is_taken_away_brought_back_and_changed(page: Page, sign_in, accessible):
    sign_in("ada", at=None)
    begin_check(page, "Rail gap")
    page.get_by_role("textbox", name="At least").fill("3")
    page.get_by_role("button", name="Add the check").click()
    page.get_by_role("button", name="Take away: Rail gap").click()
    page.get_by_role("button", name="Bring back: Rail gap").wait_for()
    accessible(page)
    page.get_by_role("button", name="Bring back: Rail gap").click()
    page.get_by_role("button", name="Take away: Rail gap").wait_for()
    accessible(page)
    page.get_by_role("link", name="Change", exact=True).first.click()
    expect(page.get_by_role("textbox", name="At least")).to_have_value("3 mm")
    accessible(page)
    page.get_by_label("How it is done").fill("Feeler in the middle.")
    page.get_by_role("button", name="Save the change").click()
    expect(page.get_by_text("Feeler in the middle.")).to_be_visible()
    page.get_by_role("button", name="As before: Rail gap").click()
    expect(page.get_by_text("Feeler between rail and block.")).to_be_visible()
    page.goto("/catalogue?of=row-crop-planter&find=rail%20gap")
    expect(page.get_by_text("own check")).to_be_visible()


def test_a_shipped_check_is_left_out_with_a_reason(page: Page, sign_in):
    sign_in("ada", at="/own-checks?of=row-crop-planter&alter=parallel-arm-play")
    page.get_by_label("Leave it out of walk-arounds").check()
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_contain_text("Say why")
    page.get_by_label("Why it is so here").fill("the maker does it")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("left out", exact=True)).to_be_visible()
    page.goto("/catalogue?of=row-crop-planter&find=parallel%20arm%20play")
    expect(page.get_by_text("left out here: the maker does it")).to_be_visible()


def test_a_part_of_an_own_name_comes_onto_the_parts_list(page: Page, sign_in):
    sign_in("ada", at=None)
    begin_check(page, "Rail gap")
    page.get_by_role("textbox", name="At least").fill("3")
    page.get_by_role("combobox", name="Part").select_option(label="Another, by its name …")
    part = page.get_by_label("What the part is called")
    page.get_by_role("button", name="Add the check").click()
    expect(page.get_by_role("alert").filter(has_text=re.compile("part", re.I))).to_be_visible()
    part.fill("Rail shim, 2 mm")
    page.reload()
    expect(part).to_have_value("Rail shim, 2 mm")
    lose_answer(page, "**/api/own-checks")
    page.get_by_role("button", name="Add the check").click()
    expect(page.get_by_role("alert").last).to_be_visible()
    page.get_by_role("button", name="Add the check").click()
    page.wait_for_url("**/own-checks")
    key = next(one["key"] for one in page.request.get("/api/own-checks").json()["checks"] if one["name"] == "Rail gap")
    hands.begin(page, key, machine="Dunmere 6")
    page.keyboard.type("1")
    page.keyboard.press("Enter")
    hands.settle(page)
    page.goto(page.url.split("?")[0] + "/findings")
    finding = page.get_by_role("listitem").filter(has_text="Rail shim, 2 mm").first
    finding.get_by_role("button", name="Do it").click()
    page.goto("/parts?search=shim")
    expect(page.get_by_role("row").filter(has_text="Rail shim, 2 mm")).to_contain_text("Dunmere 6")
