"""Lists that grow: what is asked of one stands in the address, no letter is lost while it answers, what was done stays in sight."""

import re

import hands
from hands import lose_answer
from playwright.sync_api import Page, expect

HALF_DONE = "/walk-arounds/2bf30ed0-2ed8-5dd5-bceb-b7131910ad62/findings"


def lines(page: Page):
    return page.locator("tbody tr")


def test_the_parts_list_is_narrowed_and_the_address_remembers(page: Page, sign_in):
    sign_in("ada", at="/parts")
    expect(lines(page).first).to_be_visible()
    every = lines(page).count()
    page.get_by_label("Find a part").click()
    page.keyboard.type("disc row", delay=25)
    expect(page).to_have_url(re.compile(r"search=disc(\+|%20)row"))
    expect(page.get_by_label("Find a part")).to_have_value("disc row")
    expect(lines(page).filter(has_not_text=re.compile("disc", re.I))).to_have_count(0)
    assert 0 < lines(page).count() < every
    page.reload()
    expect(page.get_by_label("Find a part")).to_have_value("disc row")
    page.get_by_label("Find a part").fill("no such part")
    expect(page.get_by_text("No part is like that.")).to_be_visible()
    page.get_by_label("Find a part").fill("")
    page.get_by_role("combobox", name="State").select_option("number")
    expect(lines(page).filter(has_not_text="Find its number")).to_have_count(0)
    page.get_by_role("button", name=re.compile("^Weir 107")).click()
    expect(page).to_have_url(re.compile(r"state=number.*machine=\d+"))
    expect(lines(page).filter(has_not_text="Weir 107")).to_have_count(0)


def test_letters_typed_while_an_answer_is_late_stay(page: Page, sign_in):
    sign_in("ada", at="/parts")
    expect(lines(page).first).to_be_visible()
    late = []
    page.route("**/api/supply/list*", lambda route: late.append(route))
    page.get_by_label("Find a part").click()
    page.keyboard.type("disc", delay=30)
    for route in late:
        route.continue_()
    page.unroute("**/api/supply/list*")
    page.keyboard.type(" left", delay=30)
    expect(page.get_by_label("Find a part")).to_have_value("disc left")
    expect(page.get_by_label("Find a part")).to_be_focused()
    expect(page).to_have_url(re.compile(r"search=disc(\+|%20)left"))


def test_what_was_decided_stays_in_sight_in_a_list_of_what_is_not(page: Page, sign_in):
    sign_in("ada", at=f"{HALF_DONE}?decision=open&order=station")
    rows = page.get_by_role("listitem").filter(has=page.get_by_role("button", name="Do it"))
    rows.first.wait_for()
    open_ = rows.count()
    rows.first.get_by_role("button", name="Do it").click()
    expect(page.locator("li.do").get_by_role("button", name="change")).to_have_count(1)
    expect(rows).to_have_count(open_ - 1)
    page.get_by_role("combobox", name="Decision").select_option("decided")
    expect(page.get_by_role("button", name="Do it", exact=True)).to_have_count(0)
    expect(page.locator("li.do")).not_to_have_count(0)


def test_a_list_that_cannot_be_read_says_so_and_keeps_what_was_asked(page: Page, sign_in):
    sign_in("ada", at="/parts")
    expect(lines(page).first).to_be_visible()
    page.route("**/api/supply/list*", lambda route: route.abort())
    page.get_by_role("combobox", name="State").select_option("order")
    expect(page.get_by_role("alert").first).to_be_visible()
    expect(page.get_by_role("combobox", name="State")).to_have_value("order")
    page.unroute("**/api/supply/list*")
    page.get_by_role("combobox", name="Order").select_option("name")
    expect(page.locator("p.trouble")).to_have_count(0)
    expect(lines(page).filter(has_not_text="To order")).to_have_count(0)


def test_the_logbook_is_read_from_either_end(page: Page, sign_in):
    sign_in("ada", at="/")
    page.get_by_role("link", name="Dunmere 12", exact=True).first.click()
    page.get_by_role("link", name="Logbook", exact=True).click()
    newest = page.locator(".log section h2").first
    expect(newest).to_be_visible()
    first = newest.text_content()
    page.get_by_role("button", name="Further").click()
    expect(page).to_have_url(re.compile("page=2"))
    page.get_by_role("combobox", name="Order").select_option("oldest")
    expect(page).to_have_url(re.compile("order=oldest"))
    assert "page=" not in page.url, "another order begins at its first page"
    expect(page.locator(".log section h2").first).not_to_have_text(first)


def test_the_mail_is_tried_and_what_came_of_it_is_said(page: Page, sign_in):
    sign_in("ada", at="/shop/outside")
    button = page.get_by_role("button", name="Send a letter to me")
    lose_answer(page, "**/api/outside/mail/tried")
    button.click()
    expect(page.get_by_role("alert")).to_be_visible()
    button.click()
    expect(page.get_by_text("The mail server has taken it. Look whether it comes.")).to_be_visible()


def test_the_log_of_changes_is_read_page_by_page(page: Page, sign_in):
    sign_in("ada")
    for n in range(60):
        assert hands.post(page, "/api/shop", name="Sallow Bridge", address=f"Yard lane {n}").ok
    page.goto("/shop/changes")
    rows = page.get_by_role("row").filter(has_text="Yard lane")
    expect(rows.first).to_contain_text("Yard lane 59")
    page.get_by_role("button", name="Older").click()
    expect(rows.first).to_contain_text("Yard lane 9")
    expect(page).to_have_url(re.compile("page=2"))
    page.reload()
    expect(rows.first).to_contain_text("Yard lane 9")
    page.get_by_label("Find a change").click()
    page.keyboard.type("lane 41", delay=25)
    expect(rows).to_have_count(2)
    assert "page=" not in page.url, "another search begins at its first page"
    page.get_by_role("combobox", name="About").select_option(label="People")
    expect(page.get_by_text("Nothing like that was changed.")).to_be_visible()
    page.go_back()
    expect(page.get_by_role("heading", name="Machines")).to_be_visible()
