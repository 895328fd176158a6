"""Every screen of the product as every role and in both themes, found from the router itself: no axe violation, a title, a heading."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

ROUTER = Path(__file__).resolve().parent.parent / "web/src/app/router.ts"
ROUTES = [path for path in re.findall(r"\{ path: '([^']+)'", ROUTER.read_text()) if "rest" not in path]
ROLES = ["ada", "tomas", "bram", "lotte"]
LOOKS = [(role, "light") for role in ROLES] + [("tomas", "dark")]


def places(page: Page) -> list[str]:
    """Every address, filled in with a machine, its walk-arounds (under way and finished) and a subject, as far as this role has them."""
    cards = page.request.get("/api/machines").json()
    card = next(card for card in cards if card["recent"])
    walks = {bool(walk["finished_at"]): walk["id"] for one in cards for walk in one["recent"]}
    found = []
    for path in ROUTES:
        if path.startswith("/walk-arounds/:id"):
            found += [path.replace(":id", walk) for walk in walks.values()]
        else:
            found.append(path.replace(":id", str(card["machine"]["id"])).replace(":subject?", "chain"))
    return found


@pytest.mark.parametrize(("role", "theme"), LOOKS)
def test_every_screen(role, theme, page: Page, sign_in, accessible):
    page.add_init_script(f"localStorage.setItem('lumvek:theme', '{theme}')")
    sign_in(role)
    for path in places(page):
        page.goto(path)
        page.locator("main").locator("h1, h2, [role=alert], [role=status]").first.wait_for()
        page.wait_for_load_state("networkidle")
        accessible(page)
        assert re.search(r"\w.* – Lumvek$", page.title()), path
        if not path.startswith("/sign-in") and page.locator("main h1").count():
            focused = page.evaluate("document.activeElement !== document.body")
            assert focused, f"nothing has the focus on {path}"


def test_the_window_is_called_after_machine_and_place(page: Page, sign_in):
    sign_in()
    page.goto("/walk-arounds/2bf30ed0-2ed8-5dd5-bceb-b7131910ad62?check=opener-disc-diameter")
    expect(page).to_have_title("Dunmere 12, opener discs – Lumvek")
    page.get_by_role("link", name="Findings").click()
    expect(page).to_have_title("Dunmere 12, findings – Lumvek")
    expect(page.get_by_role("heading", name="Dunmere 12")).to_be_focused()


def test_after_a_decision_the_focus_stays_with_the_findings(page: Page, sign_in):
    sign_in("ada")
    page.goto("/walk-arounds/2bf30ed0-2ed8-5dd5-bceb-b7131910ad62/findings")
    button = page.get_by_role("button", name="Do it").first
    button.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Do it").first).to_be_visible()
    page.wait_for_timeout(500)
    inside = page.evaluate("!!document.activeElement.closest('article, .page')")
    assert inside, page.evaluate("document.activeElement.outerHTML.slice(0, 120)")
    # A small form closes with Esc and gives the focus back.
    page.get_by_role("button", name="Wait until").first.click()
    page.keyboard.type("after")
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="Wait until").first).to_be_visible()
    page.wait_for_timeout(100)
    assert page.evaluate("document.activeElement !== document.body")
