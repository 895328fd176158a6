"""The board of 200 machines and the search box of a shop of half a million readings, beside a plain round trip.

After `many_readings.py`: every machine has complete walk-arounds. Ratios carry from machine to machine, milliseconds do not.
"""

import statistics
import sys

from slice import Browser, timed

SOUGHT = ("dunmere", "disc", "D12", "bearing", "opener disc diameter", "zzzz")


def main() -> None:
    browser = Browser(sys.argv[1])
    plain = statistics.median(timed(lambda _: browser.get("/api/session"), 40))
    listed = browser.get("/api/machines")["machines"]
    seen = [card["sum"]["total"] - card["sum"]["open"] for card in listed if card["newest"]]
    print(f"a plain round trip            {plain:7.1f} ms")
    board = statistics.median(timed(lambda _: browser.get("/api/machines"), 20))
    print(f"board of {len(listed)} machines          {board:7.1f} ms  {board / plain:5.1f} ×   {max(seen)} places seen at most")
    for words in SOUGHT:
        path = "/api/search?q=" + words.replace(" ", "%20")
        took = statistics.median(timed(lambda _, path=path: browser.get(path), 10))
        print(f"search {words:22} {took:7.1f} ms  {took / plain:5.1f} ×")


if __name__ == "__main__":
    main()
