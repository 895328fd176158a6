"""How long the bench takes from a key to its answer on screen, in a real browser, beside a plain round trip from the same page.

For every subject a digit is typed into a field and taken away again; the time runs from the key going down to the frame that
shows the changed answer.
"""

import statistics
import sys

from playwright.sync_api import Page, sync_playwright

TIMES = 12
WATCH = """() => {
  const answer = document.querySelector('.answer')
  let down = 0
  window.took = []
  document.addEventListener('keydown', () => { down = performance.now() }, true)
  new MutationObserver(() => {
    if (!down) return
    const begun = down
    down = 0
    requestAnimationFrame(() => setTimeout(() => window.took.push(performance.now() - begun)))
  }).observe(answer, { subtree: true, childList: true, characterData: true, attributes: true })
}"""
PLAIN = """async () => {
  const begun = performance.now()
  await (await fetch('/health')).json()
  return performance.now() - begun
}"""
FIELD = ".form input:not([type=file])"


def percentile(took: list[float], share: float) -> float:
    return sorted(took)[max(0, round(share * len(took)) - 1)]


def keys(page: Page) -> list[float]:
    """Milliseconds from key to answer in the subject that is open."""
    page.evaluate(WATCH)
    fields = page.locator(FIELD)
    # The first field whose last figure changes the answer: names at the head of a row do not.
    for at in range(min(6, fields.count())):
        fields.nth(at).focus()
        page.keyboard.press("End")
        page.keyboard.press("1")
        page.wait_for_timeout(150)
        moved = page.evaluate("window.took.length")
        page.keyboard.press("Backspace")
        page.wait_for_timeout(150)
        if moved:
            break
    for _ in range(TIMES):
        for key in ("1", "Backspace"):
            had = page.evaluate("window.took.length")
            page.keyboard.press(key)
            page.wait_for_function("had => window.took.length > had", arg=had, timeout=3000)
    return page.evaluate("window.took")[2:]


def main(base: str) -> None:
    with sync_playwright() as play:
        flags = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"]
        browser = play.chromium.launch(executable_path="/usr/bin/chromium", args=flags)
        page = browser.new_page(base_url=base, viewport={"width": 1280, "height": 800})
        page.goto("/sign-in")
        page.get_by_label("Name").fill("tomas")
        page.get_by_label("Password").fill("sallow-bridge")
        page.keyboard.press("Enter")
        page.get_by_role("heading", name="Machines").wait_for()
        plain = statistics.median(page.evaluate(PLAIN) for _ in range(60))
        print(f"plain round trip from the page, median {plain:.1f} ms")
        every: list[float] = []
        for subject in page.request.get("/api/bench").json():
            page.goto(f"/bench/{subject['key']}")
            page.locator(".answer .big").wait_for()
            took = keys(page)
            every += took
            print(f"  {subject['name']:32} median {statistics.median(took):5.1f} ms   worst {max(took):5.1f} ms")
        median, p95 = statistics.median(every), percentile(every, 0.95)
        print(
            f"key to answer on screen ({len(every)})   median {median:.1f} ms   95 % {p95:.1f} ms   worst {max(every):.1f} "
            "ms   "
            f"× {median / plain:.1f} a plain round trip"
        )
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1])
