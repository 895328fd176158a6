"""How long saving a reading takes while one member of the same shop asks for what costs much, six at a time, against readings alone.

Each of the three is measured by itself: PDFs, plans of the season, sourcing. Goal: the 95 % of readings beside them under twice
their own. ``.venv/bin/python benchmarks/neighbours.py http://127.0.0.1:8420``, against a demo that runs.
"""

import json
import sys
import threading
import time
import urllib.error
import urllib.request
import uuid

from slice import Browser, timed

READINGS, PAUSE_S, AT_ONCE = 240, 0.05, 6


class Costly(threading.Thread):
    """One of six that ask again and again, wait in line where they are told to, and count what they got."""

    def __init__(self, browser: Browser, path: str, over: threading.Event) -> None:
        super().__init__(daemon=True)
        self.browser, self.path, self.over, self.got = browser, path, over, 0

    def run(self) -> None:
        while not self.over.is_set():
            body = json.dumps({"uuid": str(uuid.uuid4())}).encode() if self.path.startswith("/api") else None
            headers = {"Content-Type": "application/json", "X-CSRFToken": self.browser.token}
            try:
                with self.browser.opener.open(
                    urllib.request.Request(self.browser.base + self.path, body, headers), timeout=120
                ) as answer:
                    answer.read()
                    self.got += 1
            except urllib.error.HTTPError as refused:
                refused.close()
                time.sleep(float(refused.headers.get("Retry-After", "1")))
            except OSError:
                time.sleep(0.2)


def main(base: str) -> None:
    browser, lead = Browser(base), Browser(base, "ada")
    planter = next(one["id"] for one in browser.get("/api/machines/names") if one["name"] == "Dunmere 12")
    walk = browser.post(f"/api/machines/{planter}/walk-arounds", id=str(uuid.uuid4()))["id"]
    places = next(one for one in browser.get(f"/api/walk-arounds/{walk}")["checks"] if one["key"] == "opener-disc-diameter")[
        "positions"
    ]

    def save(i: int) -> None:
        body = {"check": "opener-disc-diameter", "position": places[i % len(places)], "raw": [str(387 + i % 5)]}
        browser.post(f"/api/walk-arounds/{walk}/readings", uuid=str(uuid.uuid4()), **body)

    def paced(i: int) -> float:
        begun = time.perf_counter()
        save(i)
        took = 1000 * (time.perf_counter() - begun)
        time.sleep(PAUSE_S)
        return took

    def p95() -> float:
        return sorted(paced(i) for i in range(READINGS))[int(READINGS * 0.95) - 1]

    timed(save, 30)  # warm
    alone = p95()
    print(f"readings alone: 95 % {alone:.1f} ms")
    costs = {"PDFs": f"/walk-arounds/{walk}/report.pdf", "season plans": "/api/season/plans", "sourcing": "/api/supply/plans"}
    for name, path in costs.items():
        over = threading.Event()
        six = [Costly(lead, path, over) for _ in range(AT_ONCE)]
        for one in six:
            one.start()
        time.sleep(2)
        beside = p95()
        over.set()
        got = sum(one.got for one in six)
        print(f"beside six who ask for {name} ({got} got): 95 % {beside:.1f} ms, × {beside / alone:.1f} their own")
        for one in six:
            one.join(120)


if __name__ == "__main__":
    main(sys.argv[1])
