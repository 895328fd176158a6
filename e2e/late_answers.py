"""Answers that come late by the page's own clock, which stands still between keys: a slow hand costs a test no time."""

from playwright.sync_api import Page

LATE = r"""(seed) => {
  // Answers to what is typed come up to five seconds late, by the page's own clock.
  window.latest = 5000
  let state = seed
  const roll = () => (state = (state * 1664525 + 1013904223) % 4294967296) / 4294967296
  const real = window.fetch
  window.fetch = async (...given) => {
    const request = given[0] instanceof Request ? given[0] : new Request(...given)
    const answer = await real(request)
    if (request.method === 'POST' && /\/readings(-at-once)?$/.test(request.url)) await new Promise((go) => setTimeout(go, roll() * window.latest))
    return answer
  }
}"""


def late_answers(page: Page, seed: int):
    """The page's clock stands still between keys, so that a slow hand costs a test no time."""
    page.clock.install()
    page.add_init_script(f"({LATE})({seed})")


def pause(page: Page, milliseconds: int):
    page.clock.run_for(milliseconds)


def drain(page: Page):
    """Until every answer has come. The hand rests: what has not been asked yet is answered as soon as it is."""
    page.evaluate("window.latest = 0")
    page.clock.resume()
    page.get_by_text("All saved").or_(page.get_by_text("not taken")).first.wait_for(timeout=240_000)
    page.clock.pause_at(page.evaluate("Date.now()") / 1000 + 1)
    page.evaluate("window.latest = 5000")


def typed(page: Page, walk_around: str) -> dict[tuple[str, str], list[str]]:
    """What the server has at every place."""
    places = page.request.get(f"/api/walk-arounds/{walk_around}").json()["places"]
    return {(place["check"], place["position"]): place["raw"] for place in places}
