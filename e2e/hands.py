"""What hands do on every screen of the walk-around."""

import uuid
from re import Pattern

from playwright.sync_api import Locator, Page, Route, expect

SOLVES = 60_000
"""Milliseconds that a plan of the season may take."""


def field(page: Page):
    return page.locator("#reading")


def post(page: Page, path: str, **body):
    """A write as the screens make it."""
    token = page.request.get("/api/session").json()["csrf"]
    return page.request.post(path, data=body, headers={"X-CSRFToken": token})


def machine(page: Page, name: str) -> int:
    """The number of a machine, by its name."""
    return next(one["id"] for one in page.request.get("/api/machines/names").json() if one["name"] == name)


def start(page: Page, name: str, **wanted) -> str:
    """A fresh walk-around of a machine, with its crop and phase, as the page before it begins one."""
    return post(page, f"/api/machines/{machine(page, name)}/walk-arounds", id=str(uuid.uuid4()), **wanted).json()["id"]


def settle(page: Page):
    """Until everything typed has reached the server."""
    expect(page.get_by_text("All saved")).to_be_visible()


def unlock(page: Page):
    """Read the gate, then confirm it by its own key."""
    page.locator(".gate").wait_for()
    page.wait_for_timeout(700)
    page.keyboard.press("l")
    page.locator(".gate").wait_for(state="detached")


def begin(
    page: Page, check: str = "opener-disc-diameter", machine: str = "Dunmere 12", posture: str = "unfolded, raised and locked"
) -> str:
    """A fresh walk-around of a machine in its posture, opened at a check."""
    started = start(page, machine)
    if posture:
        assert post(page, f"/api/walk-arounds/{started}/postures", uuid=str(uuid.uuid4()), posture=posture).ok
    page.goto(f"/walk-arounds/{started}" + (f"?check={check}" if check else ""))
    field(page).or_(page.locator(".gate")).first.wait_for()
    return started


def until_planned(page: Page):
    """Until no plan of the season is being worked out."""
    expect(page.get_by_role("button", name="Plan again", exact=True)).to_be_enabled(timeout=SOLVES)
    expect(page.get_by_role("button", name="That will do")).to_have_count(0)


def keep_all(page: Page):
    """Stand by every figure that was asked about, one after the other: F2, y."""
    settle(page)
    questions = page.locator(".questions button")
    while questions.count():
        was = questions.inner_text()
        page.keyboard.press("F2")
        page.keyboard.press("y")
        expect(page.locator(".questions")).not_to_have_text(was, use_inner_text=True)
        settle(page)


def sure(page: Page, button: Locator, yes: str | Pattern[str]):
    """Press what asks once, read the question, and answer it."""
    button.click()
    page.wait_for_timeout(600)
    page.get_by_role("button", name=yes, exact=isinstance(yes, str)).click()


def lose_answer(page: Page, path: str, method: str = "POST"):
    """The next answer of an address is lost on its way back: the server has done it, the browser does not know."""
    lost: list[bool] = []

    def lose(route: Route):
        if lost or route.request.method != method:
            return route.continue_()
        lost.append(True)
        route.fetch()
        return route.abort()

    page.route(path, lose)
