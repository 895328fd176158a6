"""Without a connection: said on every screen, and in the head of each."""

from hands import begin, field, settle
from playwright.sync_api import Page, expect


def test_what_is_pressed_in_the_head_without_a_connection_is_said(page: Page, sign_in):
    sign_in("ada", at="/bench")
    page.get_by_role("heading", level=1).wait_for()
    page.context.set_offline(True)
    page.get_by_role("button", name="Log out").click()
    alert = page.get_by_role("alert").filter(has_text="still logged in on this device")
    expect(alert).to_be_visible()
    page.get_by_role("button", name="Understood").click()
    expect(alert).to_have_count(0)
    units = page.get_by_role("group", name="Units to read in")
    units.get_by_role("button", name="in", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("No connection")
    expect(units.get_by_role("button", name="mm", exact=True)).to_have_attribute("aria-pressed", "true")
    page.get_by_role("button", name="Understood").click()
    page.get_by_role("link", name="Catalogue", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("That screen could not be fetched")
    page.context.set_offline(False)
    page.get_by_role("link", name="Try again").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Catalogue")
    units.get_by_role("button", name="in", exact=True).click()
    expect(units.get_by_role("button", name="in", exact=True)).to_have_attribute("aria-pressed", "true")
    expect(page.get_by_role("alert")).to_have_count(0)


def test_a_connection_that_is_lost_is_said_though_nothing_waits(page: Page, sign_in):
    sign_in("tomas", at=None)
    begin(page)
    lost = page.get_by_role("status").filter(has_text="Out of reach")
    settle(page)
    expect(lost).to_have_count(0)
    page.context.set_offline(True)
    expect(lost).to_be_visible()
    expect(field(page)).to_be_focused()
    page.keyboard.type("386")
    page.keyboard.press("Enter")
    expect(lost).to_have_count(0)  # what waits says more
    expect(page.get_by_text("1 entry kept on this device")).to_be_visible()
    page.context.set_offline(False)
    settle(page)
    expect(lost).to_have_count(0)
    # The server alone away, and back before anything else is asked of it.
    page.route("**/health", lambda route: route.abort())
    page.evaluate("window.dispatchEvent(new Event('online'))")
    expect(lost).to_be_visible()
    page.unroute("**/health")
    page.get_by_role("button", name="Try now").click()
    expect(lost).to_have_count(0)
