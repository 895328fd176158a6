"""Opened where nothing can be reached: the product itself, the walk-around as it was, and what was typed."""

import pytest
from hands import field, machine, settle, start, unlock
from playwright.sync_api import Page, expect

LAID = "async () => Boolean((await navigator.serviceWorker.getRegistration())?.active)"
KEPT = """async () => {
  const shelves = (await caches.keys()).filter((name) => name.startsWith('lumvek-answers-'))
  const kept = await Promise.all(shelves.map(async (name) => {
    const shelf = await caches.open(name)
    return Promise.all((await shelf.keys()).map(async (one) => [one.url, await (await shelf.match(one)).text()]))
  }))
  return kept.flat()
}"""


pytestmark = pytest.mark.browser_context_args(service_workers="allow")


@pytest.fixture
def device(page: Page, sign_in):
    """Whoever is signed in on it, the product laid there."""

    def signed_in(name="tomas"):
        sign_in(name)
        page.wait_for_function(LAID)

    return signed_in


def kept(page: Page, address: str, holding: str = ""):
    """Until an answer of the address lies on the device, and holds this."""
    for _ in range(500):
        there = page.evaluate(KEPT)
        if any(address in url and holding in body for url, body in there):
            return
        page.wait_for_timeout(20)
    raise AssertionError(f"{address} is not among {[url for url, _ in there]}")


def nothing_kept(page: Page):
    """Until nothing of a shop lies on the device."""
    for _ in range(500):
        if not page.evaluate(KEPT):
            return
        page.wait_for_timeout(20)
    raise AssertionError(f"still there: {[url for url, _ in page.evaluate(KEPT)]}")


def as_it_was(page: Page):
    return page.get_by_role("status").filter(has_text="Shown as it was on")


def walk_around(page: Page) -> str:
    """One that was opened in the office, with the locks confirmed and one disc read."""
    started = start(page, "Dunmere 12")
    page.goto(f"/walk-arounds/{started}?check=opener-disc-diameter")
    unlock(page)
    page.keyboard.type("386")
    page.keyboard.press("Enter")
    settle(page)
    kept(page, "/api/session")
    kept(page, started, holding='"386"')
    return started


def begun_in_the_shed(page: Page, *figures: str, shown_in: str = "") -> str:
    """A walk-around of Dunmere 6 that is begun from the board where nothing can be reached, with discs read in it."""
    planter = machine(page, "Dunmere 6")
    kept(page, f"/api/machines/{planter}/start")
    kept(page, f"/api/machines/{planter}/beforehand", holding=f'"{shown_in}"' if shown_in else "")
    page.context.set_offline(True)
    page.get_by_role("article", name="Dunmere 6").get_by_role("button", name="New walk-around").click()
    page.get_by_role("button", name="Start walk-around").click()
    page.locator(".gate").wait_for()
    begun = page.url.split("/")[-1].split("?")[0]
    page.goto(f"/walk-arounds/{begun}?check=opener-disc-diameter")
    unlock(page)
    for figure in figures:
        page.keyboard.type(figure)
        page.keyboard.press("Enter")
    return begun


def places(page: Page, started: str) -> dict[str, list[str]]:
    read = page.request.get(f"/api/walk-arounds/{started}").json()["places"]
    return {place["position"]: place["raw"] for place in read if place["check"] == "opener-disc-diameter"}


def test_a_page_thrown_away_in_the_shed_is_there_again_with_what_was_read_and_typed(page: Page, device):
    device()
    started = walk_around(page)
    page.context.set_offline(True)
    page.keyboard.type("385")
    page.keyboard.press("Enter")
    expect(page.get_by_text("1 entry kept on this device")).to_be_visible()
    page.reload()
    # Whether the machine still stands as it did nobody here can know: the locks are asked for again.
    expect(page.locator(".gate")).to_contain_text("Tomas Vey confirmed it")
    expect(page.get_by_role("status").filter(has_text="1 entry kept on this device")).to_be_visible()
    expect(as_it_was(page)).to_be_visible()
    unlock(page)
    expect(page.get_by_text("2 entries kept on this device")).to_be_visible()
    page.reload()
    # What was confirmed on this device since then holds.
    field(page).wait_for()
    expect(page.locator(".gate")).to_have_count(0)
    grid = page.locator(".grid")
    expect(grid).to_contain_text("386")
    expect(grid).to_contain_text("385")
    field(page).focus()
    page.keyboard.type("384")
    page.keyboard.press("Enter")
    expect(page.get_by_text("3 entries kept on this device")).to_be_visible()
    page.context.set_offline(False)
    settle(page)
    expect(as_it_was(page)).to_have_count(0)
    assert sorted(raw for (raw,) in places(page, started).values()) == ["384", "385", "386"]
    expect(grid).to_contain_text("384")


def test_a_new_page_finds_its_way_from_the_board_without_a_connection(page: Page, device):
    device()
    walk_around(page)
    page.goto("/")
    page.get_by_role("heading", name="Machines").wait_for()
    kept(page, "/api/machines")
    page.context.set_offline(True)
    page.close()
    page = page.context.new_page()
    page.goto("/")
    expect(as_it_was(page)).to_be_visible()
    page.get_by_role("article", name="Dunmere 12").get_by_role("button", name="Continue walk-around").click()
    page.get_by_role("button", name="Opener discs 1 of 192 looked at").click()
    page.get_by_role("button", name="Opener disc diameter 1/24").click()
    page.get_by_role("button", name="Only look or correct").click()
    expect(page.locator(".grid")).to_contain_text("386")
    # What was never read here cannot be shown, and a report is made on the server.
    page.goto("/people")
    expect(page.get_by_role("alert").filter(has_text="No connection")).to_be_visible()
    page.goto("/plan.pdf")
    expect(page.get_by_role("heading", name="The server does not answer")).to_be_visible()


def test_a_walk_around_under_way_lies_ready_though_nobody_opened_it_here(page: Page, device):
    device()
    card = page.get_by_role("article", name="Heron 6")
    under_way = card.get_by_role("link", name="Findings").get_attribute("href").split("/")[2]
    kept(page, f"/api/walk-arounds/{under_way}")
    page.context.set_offline(True)
    card.get_by_role("button", name="Continue walk-around").click()
    page.get_by_role("heading", name="Heron 6", level=1).wait_for()
    expect(as_it_was(page)).to_be_visible()
    page.get_by_role("list", name="Stations in working order").wait_for()


def test_a_screen_is_read_again_when_one_asks_for_it(page: Page, device):
    device()
    kept(page, "/api/session")
    kept(page, "/api/machines")
    page.context.set_offline(True)
    page.reload()
    expect(as_it_was(page)).to_contain_text("Out of reach")
    page.context.set_offline(False)
    expect(as_it_was(page)).not_to_contain_text("Out of reach")
    page.get_by_role("button", name="Read it again").click()
    expect(as_it_was(page)).to_have_count(0)
    page.get_by_role("heading", name="Machines").wait_for()
    # The token for writes was not kept, and is had again.
    units = page.get_by_role("group", name="Units to read in")
    units.get_by_role("button", name="in", exact=True).click()
    expect(units.get_by_role("button", name="in", exact=True)).to_have_attribute("aria-pressed", "true")


def test_nothing_of_a_shop_stays_behind_who_logs_out(page: Page, device, sessions):
    device()
    walk_around(page)
    sessions.pop("tomas", None)  # this login ends here
    page.get_by_role("button", name="Log out").click()
    page.get_by_label("Password").wait_for()
    nothing_kept(page)
    page.context.set_offline(True)
    page.goto("/")
    expect(page.get_by_role("alert").filter(has_text="No connection").first).to_be_visible()
    expect(page.get_by_text("Dunmere 12")).to_have_count(0)


def test_a_login_that_has_ended_takes_what_was_kept_with_it(page: Page, device):
    device()
    started = walk_around(page)
    page.context.clear_cookies()
    page.goto("/")
    page.get_by_label("Password").wait_for()
    nothing_kept(page)
    page.context.set_offline(True)
    page.goto(f"/walk-arounds/{started}")
    expect(page.get_by_role("alert").filter(has_text="No connection").first).to_be_visible()


def test_what_one_member_read_is_not_shown_to_the_next(page: Page, device, sign_in):
    device()
    started = walk_around(page)
    page.context.clear_cookies()
    sign_in("ines")
    kept(page, "/api/session")
    assert not [url for url, _ in page.evaluate(KEPT) if started in url]


def test_a_walk_around_is_begun_in_the_shed_and_stands_on_the_server_when_there_is_a_signal(page: Page, device):
    device()
    begun = begun_in_the_shed(page, "385")
    expect(page.get_by_text("3 entries kept on this device")).to_be_visible()
    # Thrown away and found again from the board.
    page.goto("/")
    card = page.get_by_role("article", name="Dunmere 6")
    expect(card).to_contain_text("Begun on this device, not sent yet")
    card.get_by_role("button", name="Continue walk-around").click()
    page.get_by_role("heading", name="Dunmere 6", level=1).wait_for()
    page.goto(f"/walk-arounds/{begun}?check=opener-disc-diameter")
    expect(page.locator(".grid")).to_contain_text("385")
    page.context.set_offline(False)
    settle(page)
    expect(as_it_was(page)).to_have_count(0)
    assert list(places(page, begun).values()) == [["385"]]
    expect(page.locator(".grid")).to_contain_text("385")


def test_a_weak_signal_is_waited_for_a_few_seconds_and_no_longer(page: Page, device):
    device()
    started = walk_around(page)
    page.goto("/")
    page.get_by_role("heading", name="Machines").wait_for()
    page.route(f"**/api/walk-arounds/{started}", lambda _route: None)  # asked, and never answered
    page.goto(f"/walk-arounds/{started}?check=opener-disc-diameter")
    expect(as_it_was(page)).to_be_visible(timeout=30_000)
    unlock(page)
    page.keyboard.type("385")
    page.keyboard.press("Enter")
    settle(page)
    assert sorted(raw for (raw,) in places(page, started).values()) == ["385", "386"]


def test_a_walk_around_is_begun_in_the_shed_by_whoever_reads_inches(page: Page, device):
    device()
    page.get_by_role("group", name="Units to read in").get_by_role("button", name="in", exact=True).click()
    page.reload()
    begun = begun_in_the_shed(page, "14 5/8", shown_in="in")
    expect(page.get_by_text("3 entries kept on this device")).to_be_visible()
    page.context.set_offline(False)
    settle(page)
    assert list(places(page, begun).values()) == [["14 5/8"]]
    expect(page.locator(".grid")).to_contain_text("14 5/8")


CANNOT_BEGIN = {"error": {"field": "headers", "message": "that header went to another shop"}}


@pytest.fixture
def refused_beginning(page: Page, device):
    """A walk-around with two figures in it, begun without a signal; the server will not begin it."""
    device()
    begun = begun_in_the_shed(page, "385", "384")
    expect(page.get_by_text("4 entries kept on this device")).to_be_visible()
    page.route("**/walk-arounds", lambda route: route.fulfill(status=422, json=CANNOT_BEGIN))
    page.context.set_offline(False)
    expect(page.get_by_role("alert").filter(has_text="1 entry could not be taken")).to_be_visible(timeout=30_000)
    return begun


def test_what_was_typed_in_a_walk_around_that_could_not_begin_goes_into_the_one_under_way(
    page: Page, refused_beginning, accessible
):
    page.unroute("**/walk-arounds")
    other = start(page, "Dunmere 6")
    page.get_by_role("alert").get_by_role("link").click()
    expect(page.get_by_text("That header went to another shop")).to_be_visible()
    expect(page.get_by_text("2 entries typed in it wait here")).to_be_visible()
    accessible(page)
    page.get_by_role("button", name="Into the walk-around begun").click()
    expect(page.get_by_role("status").filter(has_text="2 entries sent to the walk-around begun")).to_be_visible()
    settle(page)
    assert sorted(raw for (raw,) in places(page, other).values()) == ["384", "385"]
    # How the machine stands is confirmed anew.
    page.goto(f"/walk-arounds/{other}?check=opener-disc-diameter")
    page.locator(".gate").wait_for()


def test_a_walk_around_that_could_not_begin_is_discarded_with_a_word_and_all_that_is_in_it(page: Page, refused_beginning):
    page.goto("/waiting")
    page.get_by_role("button", name="Discard").click()
    page.get_by_role("button", name="Discard all of it").click()
    expect(page.get_by_role("alert").filter(has_text="Say why it is discarded")).to_be_visible()
    page.get_by_label("Why is it discarded").fill("the wrong planter")
    page.get_by_role("button", name="Discard all of it").click()
    settle(page)
    expect(page.get_by_text("Everything typed on this device has reached the server.")).to_be_visible()
