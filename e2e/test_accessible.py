"""Every screen of the product as every role and in both themes, found from the router itself: no axe violation, a title, a
heading."""

import re
import uuid
from pathlib import Path

import pytest
from hands import begin, field, machine, post, settle, unlock
from playwright.sync_api import Page, expect

ROUTER = Path(__file__).resolve().parent.parent / "web/src/app/router.ts"
ROUTES = [path for path in re.findall(r"\bpath: '([^']+)'", ROUTER.read_text()) if "rest" not in path]
assert "/walk-arounds/:id" in ROUTES, "the router is written otherwise than it is read here"
ROLES = ["ada", "tomas", "bram", "lotte"]
FOCUSED = "document.activeElement !== document.body && document.activeElement.isConnected"
TOO_WIDE = """() => [document.documentElement, ...document.querySelectorAll('main table:not(.matrix)')]
  .filter((one) => one.scrollWidth > 390).map((one) => `${one.tagName} ${one.className} is ${one.scrollWidth} wide`)"""
"""What does not fit a phone: rows against columns may be moved within their own frame, lists may not."""
IN_THE_DARK = ["color-contrast", "link-in-text-block", "target-size"]
"""What another theme can change; the rest is the same document."""


def faults_of(page: Page, machine: dict) -> list[str]:
    """A trace, a swap test and a recording of a machine; for whoever may not make them, those are not there, and it is said."""
    uuids = [str(uuid.uuid4()) for _ in range(3)]
    bodies = {
        "traces": {"symptom": "shakes" if machine["family"] == "rotary-combine" else "skips"},
        "swap-tests": {"rows": ["1", "2"]},
        "recordings": {"engine_rpm": 1900},
    }
    for one, (path, body) in zip(uuids, bodies.items(), strict=True):
        post(page, f"/api/faults/machines/{machine['id']}/{path}", uuid=one, **body)
    return uuids


def places(page: Page) -> list[str]:
    """Every address, filled in with a machine, its walk-arounds (under way and finished) and a subject, as far as this role has
    them."""
    cards = page.request.get("/api/machines").json()["machines"]
    card = next(card for card in cards if card["newest"])
    faults = faults_of(page, card["machine"])
    walks = {bool(walk["finished_at"]): walk["id"] for walk in (one["newest"] for one in cards) if walk}
    found = []
    for path in ROUTES:
        if path.startswith("/walk-arounds/:id"):
            found += [path.replace(":id", walk) for walk in walks.values()]
        elif path.startswith("/shop/:part"):
            found += [path.partition("/:")[0] + one for one in ("", *(f"/{part}" for part in re.findall(r"[a-z]+", path[11:])))]
        elif path == "/own-checks/:family/:check":
            found.append("/own-checks/row-crop-planter/own-none")  # nothing there, and said so
        else:
            found.append(
                path.replace(":id", str(card["machine"]["id"]))
                .replace(":subject?", "chain")
                .replace(":calibration", "raise-speed")
                .replace(":trace", faults[0])
                .replace(":test", faults[1])
                .replace(":recording", faults[2])
            )
    return found


def follow(page: Page, path: str):
    """To an address within the product, as the browser's own keys for back and on lead there."""
    page.evaluate("path => { history.pushState(null, '', path); dispatchEvent(new PopStateEvent('popstate')) }", path)


@pytest.mark.parametrize("role", ROLES)
def test_every_screen(role, page: Page, sign_in, accessible, quiet):
    page.emulate_media(reduced_motion="reduce")
    sign_in(role)
    titles = set()
    for path in places(page):
        follow(page, path)
        quiet()
        page.locator("main").locator("h1, h2, [role=alert], [role=status]").first.wait_for()
        quiet()
        accessible(page)
        titles.add(page.title())
        assert re.search(r"\w.* – Lumvek$", page.title()), path
        assert page.locator("h1").count() == 1, f"{path} has no main heading, or several"
        if not path.startswith("/sign-in"):
            assert page.evaluate(FOCUSED), f"nothing has the focus on {path}"
        if role in ("ada", "lotte"):  # between them they see everything that can be coloured
            page.evaluate("document.documentElement.dataset.theme = 'dark'")
            accessible(page, IN_THE_DARK)
        page.set_viewport_size({"width": 390, "height": 844})
        quiet()
        assert page.evaluate(TOO_WIDE) == [], path
        page.set_viewport_size({"width": 1280, "height": 800})
    assert len(titles) > len(ROUTES) / 2, "one screen was looked at again and again"


def test_the_window_is_called_after_machine_and_place(page: Page, sign_in):
    sign_in(at="/walk-arounds/2bf30ed0-2ed8-5dd5-bceb-b7131910ad62?check=opener-disc-diameter")
    expect(page).to_have_title("Dunmere 12, opener discs – Lumvek")
    page.get_by_role("link", name="Findings").click()
    expect(page).to_have_title("Dunmere 12, findings – Lumvek")
    expect(page.get_by_role("heading", name="Dunmere 12")).to_be_focused()


def test_after_a_decision_the_focus_stays_with_the_findings(page: Page, sign_in):
    sign_in("ada", at="/walk-arounds/2bf30ed0-2ed8-5dd5-bceb-b7131910ad62/findings")
    button = page.get_by_role("button", name="Do it").first
    button.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Do it").first).to_be_visible()
    expect(page.locator("li.do").first).to_be_visible()  # the server has answered
    assert until(lambda: page.evaluate("document.activeElement.closest('article, .page') !== null"), page)
    # A small form closes with Esc and gives the focus back.
    page.get_by_role("button", name="Wait until").first.click()
    page.keyboard.type("after")
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="Wait until").first).to_be_visible()
    assert until(lambda: page.evaluate("document.activeElement !== document.body"), page)


def until(holds, page: Page) -> bool:
    """Whether it comes to hold, on a machine that may be busy."""
    for _ in range(20):
        if holds():
            return True
        page.wait_for_timeout(150)
    return False


def walk(page: Page) -> str:
    """The newest walk-around of a planter."""
    cards = page.request.get("/api/machines").json()["machines"]
    return next(card for card in cards if card["machine"]["name"] == "Dunmere 12")["newest"]["id"]


def logbook(page: Page) -> str:
    return f"/machines/{machine(page, 'Heron 6')}/logbook"


ACTS = [
    # (role, screen, what is pressed one after the other; Escape and other keys by their names)
    ("ada", "/walk-arounds/{walk}/findings", ["Do it", "change", "Wait until", "Escape", "Decline", "Escape"]),
    ("ada", "/walk-arounds/{walk}/findings", ["Do all 3 that are open", "Make a link", "End it now", "Escape"]),
    ("ada", "/walk-arounds/{walk}/parts", ["Decline", "Escape"]),
    ("ada", "/walk-arounds/{walk}/summary", ["Finish walk-around", "Go on", "Begun by mistake", "Escape"]),
    ("ada", "/rules", ["Change ", "Escape"]),
    ("ada", "/rules?tab=feelers", ["Remove card", "Put it back"]),
    ("ada", "/rules", ["Copy this model", "Escape", "Read one in", "Close"]),
    ("ada", "/own-checks", ["Word one otherwise, or leave it out", "Escape"]),
    ("ada", "/own-checks/new", ["Another state", "Remove State 3"]),
    ("ada", "/shop/places", ["Add a place", "Escape"]),
    ("ada", "/shop/crops", ["Add a crop", "Remove crop ", "Add a season", "Remove season "]),
    ("tomas", "{logbook}", ["Done: ", "Escape", "Notes", "Notes"]),
    ("tomas", "{wear}", ["change", "Escape"]),
    ("tomas", "/parts/fit", ["Fit ", "Take back: "]),
    ("bram", "/parts", ["Enter the number of ", "Escape"]),
    ("bram", "/parts/stock", ["Count it", "Escape", "To the truck", "Escape", "Set to carry", "Cancel", "Send back", "Escape"]),
    ("bram", "/parts/book", ["Enter it", "Escape"]),
    ("bram", "/parts/suppliers", ["Change", "Cancel", "Enter a supplier", "Cancel"]),
    ("bram", "/parts/cost", ["Owner agreed", "Escape", "Change the share of ", "Escape"]),
    ("bram", "/parts/sourcing", ["Place ", "Escape"]),
    ("lotte", "/parts/cost", ["Agree to ", "Escape"]),
    ("tomas", "/bench/chain", ["Why?", "Empty", "Borderline"]),
]


@pytest.mark.parametrize(("role", "screen", "acts"), ACTS, ids=[f"{role} {screen}" for role, screen, _ in ACTS])
def test_after_every_act_the_focus_is_where_the_work_goes_on(role, screen, acts, page: Page, sign_in, accessible, quiet):
    sign_in(role, at=None)
    page.goto(
        screen.format(
            walk=walk(page) if "{walk}" in screen else "",
            logbook=logbook(page) if "{logbook}" in screen else "",
            wear=logbook(page).replace("logbook", "wear") if "{wear}" in screen else "",
        )
    )
    lost = []
    for act in acts:
        if act == "Escape":
            page.keyboard.press("Escape")
        else:
            button = page.get_by_role("button", name=re.compile(f"^{re.escape(act)}")).first
            button.wait_for()
            button.focus()
            page.keyboard.press("Enter")
        quiet()
        if not until(lambda: page.evaluate(FOCUSED), page):
            lost.append(act)
        accessible(page)
    assert lost == []


SMALL = """() => [...document.querySelectorAll('main button, main a[href], main input, main select, main summary')].filter((one) => {
  const box = one.getBoundingClientRect()
  const seen = box.width > 0 && box.height > 0 && getComputedStyle(one).visibility !== 'hidden' && !one.closest('.unseen')
  return seen && (box.height < 43.5 || box.width < 43.5)
}).map((one) => `${one.tagName} ${one.className} ${one.innerText || one.ariaLabel}`)"""
"""What a gloved thumb would miss."""


@pytest.mark.parametrize("size", [(1280, 800), (390, 844)], ids=["desk", "phone"])
def test_what_is_pressed_in_the_walk_around_is_large_enough_for_a_glove(size, page: Page, sign_in):
    page.set_viewport_size({"width": size[0], "height": size[1]})
    sign_in(at=None)
    begin(page, "opener-contact", posture="")
    assert page.evaluate(SMALL) == []
    unlock(page)
    for typed in ("30", "31", "28", "5"):
        page.keyboard.type(typed)
        page.keyboard.press("Enter")
    settle(page)
    assert page.evaluate(SMALL) == []
    page.keyboard.press("F2")
    page.keyboard.press("PageDown")
    page.keyboard.press("1")
    settle(page)
    assert page.evaluate(SMALL) == []


@pytest.mark.parametrize(("machine", "least"), [("Dunmere 12", 60), ("Heron 6", 150)])
def test_every_check_stands_without_scrolling_key_line_included(machine, least, page: Page, sign_in):
    sign_in(at=None)
    begin(page, check="", machine=machine, posture="")
    seen, over = set(), []
    while True:
        if page.locator(".gate").count():
            unlock(page)
        field(page).wait_for()
        name = page.locator(".about h2").inner_text()
        bottom = page.evaluate(
            "Math.max(...[...document.querySelectorAll('.keys button')].map((one) => one.getBoundingClientRect().bottom))"
        )
        if bottom > 800:
            over.append(f"{name}: {bottom:.0f}")
        here = page.url
        seen.add(here.split("check=")[1].split("&")[0])
        page.keyboard.press("PageDown")
        page.wait_for_timeout(60)
        if not until(lambda here=here: page.url != here or page.locator(".gate").count(), page):
            break
    assert over == [] and len(seen) >= least


def test_what_is_printed_is_black_on_white_whatever_the_theme(page: Page, sign_in):
    page.add_init_script("localStorage.setItem('lumvek:theme', 'dark')")
    page.emulate_media(media="print", color_scheme="dark")
    sign_in("ada", at=None)
    machine = logbook(page).split("/")[2]
    papers = [f"/walk-arounds/{walk(page)}/{name}" for name in ("report", "owner")]
    for paper in [*papers, f"/machines/{machine}/card?phase=winter", f"/machines/{machine}/logbook/print", "/supply/pick-list"]:
        page.goto(paper)
        page.locator("h1").first.wait_for()
        ground, ink = page.evaluate(
            "[getComputedStyle(document.body).backgroundColor, getComputedStyle(document.querySelector('h1')).color]"
        )
        assert ground == "rgb(255, 255, 255)", paper
        assert max(int(part) for part in re.findall(r"\d+", ink)[:3]) < 100, paper
        assert page.locator(".screen-only").locator("visible=true").count() == 0, paper
