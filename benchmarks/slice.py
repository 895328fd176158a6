"""How long saving a reading and opening a walk-around take, beside a plain round trip, and how large the first load is.

Ratios carry from machine to machine, milliseconds do not. The disk's own flush is measured too, for every saved reading waits
for one.
"""

import http.cookiejar
import json
import os
import statistics
import sys
import tempfile
import time
import urllib.request
import uuid
from pathlib import Path

DIST = Path(__file__).resolve().parent.parent / "web" / "dist"
READINGS = 300


class Browser:
    """A signed-in client."""

    def __init__(self, base: str, name: str = "tomas") -> None:
        self.base = base
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar()))
        self.token = ""
        for _ in range(200):
            try:
                self.token = self.get("/api/session")["csrf"]
                break
            except OSError:
                time.sleep(0.1)
        self.token = self.post("/api/session/login", username=name, password="sallow-bridge")["csrf"]

    def get(self, path: str):
        with self.opener.open(self.base + path) as answer:
            return json.load(answer)

    def post(self, path: str, **body):
        headers = {"Content-Type": "application/json", "X-CSRFToken": self.token}
        with self.opener.open(urllib.request.Request(self.base + path, json.dumps(body).encode(), headers)) as answer:
            return json.load(answer)


def timed(job, times: int) -> list[float]:
    """Milliseconds of each run, sorted."""
    took = []
    for i in range(times):
        begun = time.perf_counter()
        job(i)
        took.append(1000 * (time.perf_counter() - begun))
    return sorted(took)


def flush(_: int) -> None:
    with tempfile.NamedTemporaryFile(dir=DIST) as file:
        file.write(b"x" * 4096)
        file.flush()
        os.fsync(file.fileno())


def line(name: str, took: list[float], unit: float) -> None:
    median, p95 = statistics.median(took), took[int(len(took) * 0.95) - 1]
    print(f"{name:44} median {median:7.1f} ms   95 % {p95:7.1f} ms   × {median / unit:5.1f} a plain round trip")


def solve():
    """The route of a combine with two headers and every option, as the core plans it."""
    from lumvek_core.catalogue import in_force, load
    from lumvek_core.planning import walk

    catalogue, headers = load.load(), ["draper-header", "stripper-header"]
    book = in_force.rule_book(catalogue, "rotary-combine", headers=headers)
    checks = in_force.applicable(book, in_force.Scope(list(book.family.options), "winter", headers=headers))
    return lambda _: walk.plan(book, checks, catalogue.safety.moves)


def fill(browser: Browser, walk_around: str) -> None:
    """Something sound at every place of a walk-around, and say how many that are."""
    opened = browser.get(walk_around)
    count = 0
    for check in opened["checks"]:
        limits = check["limits"]
        middle = str((limits["low"] + limits["high"]) / 2) if {"low", "high"} <= limits.keys() else None
        usual = {"interval": "2026-03-05", "count": "0", "note": "nothing"}.get(check["kind"], "12")
        raw = ["1"] if check["options"] else [middle or usual] * max(1, len(check["values"]))
        for position in check["positions"]:
            browser.post(f"{walk_around}/readings", uuid=str(uuid.uuid4()), check=check["key"], position=position, raw=raw)
            count += 1
    print(f"largest combine: {len(opened['checks'])} checks, {count} places")


def main(base: str) -> None:
    browser = Browser(base)
    ids = {card["machine"]["name"]: card["machine"]["id"] for card in browser.get("/api/machines")["machines"]}
    planter = ids["Dunmere 12"]
    walk_around = f"/api/walk-arounds/{browser.post(f'/api/machines/{planter}/walk-arounds', id=str(uuid.uuid4()))['id']}"
    largest = {"phase": "winter", "headers": [ids["Weir 107"], ids["Comb 61"]]}

    ahead = browser.get(f"/api/logbook/machines/{planter}/ahead")
    discs = next(one for one in ahead["checks"] if one["check"] == "opener-disc-diameter")["places"]

    def save(i: int, off: float | None = None) -> None:
        """A disc as its history lets expect it, give or take the tape's error; or off by so much."""
        disc = discs[i % len(discs)]
        mm = disc["now"] + ((i % 5 - 2) * 0.4 if off is None else off)
        typed = (f"{mm:.1f}", f"{mm / 25.4:.2f} in", f"{mm / 10:.2f} cm".replace(".", ","))[i % 3]
        browser.post(
            f"{walk_around}/readings",
            uuid=str(uuid.uuid4()),
            check="opener-disc-diameter",
            position=disc["position"],
            raw=[typed],
        )

    plain = timed(lambda _: browser.get("/health"), 200)
    unit = statistics.median(plain)
    line("plain round trip with one query", plain, unit)
    line("one flush of this disk", timed(flush, 30), unit)
    timed(save, 30)  # warm
    line(f"saving a reading ({READINGS})", timed(save, READINGS), unit)
    line("saving one that surprises", timed(lambda i: save(i, 5.0), 30), unit)
    line("opening the walk-around", timed(lambda _: browser.get(walk_around), 30), unit)
    plan = timed(lambda _: browser.post(f"/api/machines/{ids['Heron 6']}/preview", id=str(uuid.uuid4()), **largest), 20)
    line("planning the largest combine", plan, unit)
    line("solving its route, in the core alone", timed(solve(), 20), unit)
    combine = browser.post(f"/api/machines/{ids['Heron 6']}/walk-arounds", id=str(uuid.uuid4()), **largest)["id"]
    fill(browser, f"/api/walk-arounds/{combine}")
    line("opening it with every place read", timed(lambda _: browser.get(f"/api/walk-arounds/{combine}"), 30), unit)
    line("its row map", timed(lambda _: browser.get(f"/api/walk-arounds/{combine}/map"), 20), unit)
    line("its summary", timed(lambda _: browser.get(f"/api/walk-arounds/{combine}/summary"), 20), unit)
    line("the board", timed(lambda _: browser.get("/api/machines"), 30), unit)
    first = [
        f for f in (DIST / "assets").iterdir() if f.suffix in (".js", ".css") and f.name.split("-")[0] in ("index", "SignIn")
    ]
    scripts = sum(received(base, f.name) for f in first)
    fonts = sum(received(base, f.name) for f in (DIST / "assets").glob("*.woff2"))
    every = sum(received(base, f.name) for f in (DIST / "assets").iterdir() if f.suffix in (".js", ".css"))
    print(
        f"first load as received: scripts and styles {scripts / 1024:.0f} KiB, fonts {fonts / 1024:.0f} KiB; every screen "
        f"together {every / 1024:.0f} KiB"
    )


def received(base: str, name: str) -> int:
    """Bytes that a browser is sent for one of the product's files."""
    asked = urllib.request.Request(f"{base}/static/assets/{name}", headers={"Accept-Encoding": "gzip, br"})
    with urllib.request.urlopen(asked) as answer:
        return len(answer.read())


if __name__ == "__main__":
    main(sys.argv[1])
