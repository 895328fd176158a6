"""One key finds anything, from any screen but the walk-around, where it means something else."""

from hands import begin, field
from playwright.sync_api import Page, expect


def test_a_key_a_word_and_enter(page: Page, sign_in, accessible):
    sign_in("ada")
    page.keyboard.press("/")
    box = page.get_by_role("combobox", name="Find anything")
    expect(box).to_be_focused()
    page.keyboard.type("heron 4", delay=50)
    first = page.get_by_role("option").first
    expect(first).to_contain_text("Heron 4")
    expect(first).to_have_attribute("aria-selected", "true")
    accessible(page)
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Heron 4")).to_be_visible()
    expect(box).to_have_count(0)


def test_arrows_choose_and_escape_leaves_all_as_it_was(page: Page, sign_in):
    sign_in("ada")
    page.get_by_role("link", name="Dunmere 12", exact=True).focus()
    page.keyboard.press("/")
    page.keyboard.type("feeder", delay=50)
    options = page.get_by_role("option")
    expect(options.nth(1)).to_be_visible()
    page.keyboard.press("ArrowDown")
    expect(options.nth(1)).to_have_attribute("aria-selected", "true")
    page.keyboard.press("Escape")
    expect(options).to_have_count(0)
    expect(page.get_by_role("link", name="Dunmere 12", exact=True)).to_be_focused()


def test_screens_checks_and_people_are_found_too_as_far_as_one_may(page: Page, sign_in):
    sign_in("ada")
    page.get_by_role("button", name="Find anything").click()
    page.keyboard.type("invite", delay=50)
    page.get_by_role("option", name="Screen People").click()
    expect(page.get_by_role("heading", name="People")).to_be_visible()
    page.keyboard.press("/")
    page.keyboard.type("tomas", delay=50)
    expect(page.get_by_role("option", name="Person Tomas Vey")).to_be_visible()
    page.keyboard.press("Escape")
    page.context.clear_cookies()  # another person at the same browser would end Ada's session
    sign_in("lotte")
    page.keyboard.press("/")
    page.keyboard.type("invite", delay=50)
    expect(page.get_by_text("Nothing is called that")).to_be_visible()


def test_a_check_opens_the_catalogue_at_it(page: Page, sign_in):
    sign_in("tomas")
    page.keyboard.press("/")
    page.keyboard.type("tie rods", delay=50)
    page.get_by_role("option", name="Check Tie rods").first.click()
    expect(page.get_by_label("Find in this catalogue")).to_have_value("Tie rods")


def test_in_the_walk_around_and_in_a_field_it_is_what_it_was(page: Page, sign_in):
    sign_in("tomas", at=None)
    begin(page, "row-cleaner")
    expect(field(page)).to_be_focused()
    page.keyboard.press("/")
    expect(page.get_by_role("combobox", name="Find anything")).to_have_count(0)
    page.goto("/catalogue")
    page.get_by_label("Find in this catalogue").click()
    page.keyboard.type("1/4")
    expect(page.get_by_role("combobox", name="Find anything")).to_have_count(0)
    expect(page.get_by_label("Find in this catalogue")).to_have_value("1/4")
