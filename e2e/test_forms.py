"""Forms: what is typed and not saved is asked about before it is left, what is no figure is refused at its field."""

import re

from hands import machine
from playwright.sync_api import Locator, Page, expect


def test_whoever_goes_elsewhere_with_a_supplier_half_typed_is_asked_first(page: Page, sign_in, accessible):
    sign_in("bram", at="/parts/book")
    page.get_by_role("link", name="Suppliers").click()
    page.get_by_role("button", name="Enter a supplier").click()
    name, closed = page.get_by_label("Name", exact=True), page.get_by_label("Closed on")
    name.fill("Harrow Mail Second")
    closed.fill("2026-12-24")
    asked = page.get_by_role("alert").filter(has_text="is not saved")
    for press in (
        page.get_by_role("link", name="Catalogue"),
        page.get_by_role("link", name="Parts book"),
        page.get_by_role("button", name="in", exact=True),
        page.get_by_role("button", name="Log out"),
    ):
        press.click()
        expect(asked).to_contain_text("What is typed at “Name” and “Closed on” is not saved.")
        expect(page.get_by_role("button", name="Back to it")).to_be_focused()
        page.keyboard.press("Enter")
        expect(asked).to_have_count(0)
        expect(name).to_be_focused()
    expect(page.get_by_role("button", name="mm", exact=True)).to_have_attribute("aria-pressed", "true")
    page.go_back()
    expect(asked).to_be_visible()
    accessible(page)
    expect(page).to_have_url(re.compile("/parts/suppliers$"))
    expect(name).to_have_value("Harrow Mail Second")
    expect(closed).to_have_value("2026-12-24")

    # What is saved holds nobody back.
    page.get_by_label("Closed on").fill("")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("heading", name="Harrow Mail Second")).to_be_visible()
    expect(asked).to_have_count(0)
    page.get_by_role("button", name="in", exact=True).click()
    expect(page.get_by_role("button", name="in", exact=True)).to_have_attribute("aria-pressed", "true")

    page.get_by_role("button", name="Change Harrow Mail Second").click()
    page.get_by_label("Name", exact=True).fill("Harrow Mail Third")
    page.get_by_role("link", name="Catalogue").click()
    page.get_by_role("button", name="Leave it unsaved").click()
    expect(page.get_by_role("heading", name="Catalogue")).to_be_visible()
    page.go_back()
    expect(page.get_by_role("heading", name="Harrow Mail Second")).to_be_visible()


def test_what_is_kept_as_it_is_typed_is_left_without_a_question(page: Page, sign_in):
    sign_in("ada", at="/machines/new")
    page.get_by_role("button", name=re.compile("^Row-crop planter")).click()
    page.get_by_role("button", name="Another one").click()
    name = page.get_by_label(re.compile("^Name"))
    name.fill("Dunmere 8")
    page.get_by_role("link", name="Catalogue").click()
    expect(page.get_by_role("heading", name="Catalogue")).to_be_visible()
    page.go_back()
    expect(name).to_have_value("Dunmere 8")


def test_what_is_no_figure_is_refused_at_its_field_on_every_screen(page: Page, sign_in):
    sign_in("ada", at=None)
    heron = machine(page, "Heron 4")

    def refused(typed: Locator, words: str = "Must be a figure, such as 12 or 2.5", text: str = "about 9"):
        typed.fill(text)
        typed.press("Enter")
        expect(page.get_by_role("alert").filter(has_text=words).last).to_be_visible()
        expect(typed).to_have_value(text)
        expect(typed).to_have_attribute("aria-invalid", "true")

    page.goto("/parts/stock")
    page.get_by_role("button", name=re.compile("^Count it")).first.click()
    refused(page.get_by_role("textbox", name="Counted"))
    refused(page.get_by_role("textbox", name="Counted"), "Must be a whole number", "2.5")
    page.goto("/parts/suppliers")
    refused(page.get_by_label("Parts wanted, days before the season"))
    page.goto(f"/machines/{heron}/wear")
    page.get_by_role("button", name="change", exact=True).click()
    refused(page.get_by_label("h this season"))
    page.goto(f"/machines/{heron}/logbook")
    page.get_by_role("button", name=re.compile("^Done: ")).first.click()
    refused(page.get_by_role("region", name="Services").get_by_label(re.compile("^at")))
    refused(page.get_by_label("The meter shows, in h"))
    page.goto(f"/machines/{heron}/recordings")
    page.get_by_role("button", name=re.compile("^Change ")).first.click()
    refused(page.get_by_label("Speed").or_(page.get_by_role("form", name=re.compile("^Change")).get_by_role("textbox")).first)
    engine = page.get_by_label("Engine rpm")
    engine.fill("fast")
    page.get_by_role("button", name="Simulated: it shakes").click()
    expect(engine).to_have_attribute("aria-invalid", "true")
    expect(engine).to_have_value("fast")
    page.goto("/shop/places")
    page.get_by_role("button", name="Add a place").click()
    page.get_by_label("Name", exact=True).fill("Bay 2")
    many = page.get_by_label("How many")
    many.fill("two")
    many.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="Must be a whole number")).to_be_visible()
    expect(many).to_have_value("two")
    page.goto("/rules")
    page.get_by_label("Model", exact=True).select_option(label="Corvane 90 (air seeder)")
    meters = page.locator(".counts").get_by_role("textbox").first
    before = meters.input_value()
    meters.fill("")
    meters.press("Tab")
    expect(page.get_by_role("alert").filter(has_text="Must be a whole number")).to_be_visible()
    expect(meters).to_have_value("")
    meters.fill(before)
    meters.press("Enter")
    expect(page.get_by_role("alert")).to_have_count(0)
