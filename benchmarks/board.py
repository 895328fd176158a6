"""The board of 200 machines and the search box of a shop of half a million readings, beside a plain round trip.

After `many_readings.py`: every machine has complete walk-arounds. Ratios carry from machine to machine, milliseconds do not.
"""

import statistics
import sys
import time

from slice import Browser, timed

SOUGHT = ("dunmere", "disc", "D12", "bearing", "opener disc diameter", "zzzz")


def main() -> None:
    browser = Browser(sys.argv[1])
    plain = statistics.median(timed(lambda _: browser.get("/api/session"), 40))
    begun = time.perf_counter()
    listed = browser.get("/api/machines")["machines"]
    first = (time.perf_counter() - begun) * 1000
    print(
        f"first board of the day        {first:7.0f} ms  {first / plain:5.0f} ×   how every machine stands is worked out once"
    )
    seen = [card["sum"]["total"] - card["sum"]["open"] for card in listed if card["newest"]]
    print(f"a plain round trip            {plain:7.1f} ms")
    board = statistics.median(timed(lambda _: browser.get("/api/machines"), 20))
    print(f"board of {len(listed)} machines          {board:7.1f} ms  {board / plain:5.1f} ×   {max(seen)} places seen at most")
    ready = statistics.median(timed(lambda _: browser.get("/api/season/readiness"), 5))
    print(f"whether each of them is ready {ready:7.1f} ms  {ready / plain:5.1f} ×")
    for words in SOUGHT:
        path = "/api/search?q=" + words.replace(" ", "%20")
        took = statistics.median(timed(lambda _, path=path: browser.get(path), 10))
        print(f"search {words:22} {took:7.1f} ms  {took / plain:5.1f} ×")


if __name__ == "__main__":
    main()
