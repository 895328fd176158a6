"""Files of 100,000 lines: prices and counters, CSV and XLSX, tried and taken; and how long somebody else waits meanwhile.

``python benchmarks/long_files.py http://127.0.0.1:8420``, against a demo that may be thrown away.
"""

import datetime as dt
import json
import statistics
import sys
import threading
import time
import urllib.request
from concurrent.futures import ThreadPoolExecutor

from slice import Browser

from tabular.sheets import as_csv, as_xlsx

LINES = 100_000


def prices() -> list[list[str]]:
    rows = [[f"B-{n:06}", f"{n % 900 + 0.5:.2f}", "1", str(n % 40), "0.9"] for n in range(LINES)]
    return [["number", "unit_price", "pack", "stock", "chance"], *rows]


def counters(name: str) -> list[list[str]]:
    first = dt.datetime(2012, 1, 1)
    rows = [[name, (first + dt.timedelta(hours=n)).isoformat(timespec="minutes"), f"{n * 0.0005:.4f}"] for n in range(LINES)]
    return [["machine", "date", "counter"], *rows]


def main() -> None:
    browser, other = Browser(sys.argv[1], "ada"), Browser(sys.argv[1])
    name = f"Long {int(time.time())}"
    _send(
        browser,
        "/api/machines/file",
        "m.csv",
        f"kind,maker,model,name,rows\nRow-crop planter,Dunmere,12,{name},12\n".encode(),
        "false",
    )
    supplier = browser.get("/api/supply/suppliers")[0]["id"]
    plain = statistics.median(_waits(other, 20))
    print(f"a plain round trip {plain:.1f} ms")
    for path, rows in (
        (f"/api/supply/suppliers/{supplier}/offers-file", prices()),
        ("/api/logbook/counters-file", counters(name)),
    ):
        for file, content in (("t.csv", as_csv(rows)), ("t.xlsx", as_xlsx(rows))):
            for dry in ("true", "false"):
                done = threading.Event()
                with ThreadPoolExecutor(1) as beside:
                    waiting = beside.submit(_waits, other, 10**6, done)
                    begun = time.monotonic()
                    told = _send(browser, path, file, content, dry).splitlines()
                    took = time.monotonic() - begun
                    done.set()
                waits = waiting.result()
                last = json.loads(told[-1])["report"]
                print(
                    f"{path.split('/')[-1]:14} {file:7} {len(content) / 1e6:4.1f} MB dry={dry:5} {took:6.1f} s in {len(told):4} steps, "
                    f"taken {last['taken']}, there {last['there']}, refused {last['refused']}; "
                    f"others waited {max(waits) / plain:.0f} × at most, {statistics.median(waits) / plain:.1f} × in the middle"
                )


def _waits(browser: Browser, most: int, done: threading.Event | None = None) -> list[float]:
    waits = []
    while len(waits) < most and not (done and done.is_set()):
        begun = time.monotonic()
        browser.get("/api/machines/names")
        waits.append((time.monotonic() - begun) * 1000)
        time.sleep(0.1)
    return waits


def _send(browser: Browser, path: str, name: str, content: bytes, dry: str) -> bytes:
    part = f'--x\r\nContent-Disposition: form-data; name="file"; filename="{name}"\r\nContent-Type: text/csv\r\n\r\n'.encode()
    rest = f'\r\n--x\r\nContent-Disposition: form-data; name="dry"\r\n\r\n{dry}\r\n--x--\r\n'.encode()
    headers = {"Content-Type": "multipart/form-data; boundary=x", "X-CSRFToken": browser.token}
    with browser.opener.open(urllib.request.Request(browser.base + path, part + content + rest, headers)) as answer:
        return answer.read()


if __name__ == "__main__":
    main()
