"""The real product, started by its launcher, under faults: worker, server, database and launcher killed, the database held up,
connections cut, answers lost, the same write many times at once – while readings, pictures, loads, fittings and orders are under
way. Nothing that was acknowledged may be lost, nothing may be there twice.

``./lumvek torture --faults 1000 --seed 17`` takes about half an hour; the tests run its short form.
"""

import argparse
import collections
import json
import random
import signal
import sys
import threading
import time
import uuid
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor

from torture_devices import Device, Ledger, form, picture
from torture_product import HOME, Line, Product, database, kill, numbers_in, shell

MOST_PICTURES = 150
SLOW_S = 30.0
NUMBER = "X-1000"
COSTLY = ("/walk-arounds/{walk}/report.pdf", "/supply/list.xlsx", "/api/season/plans")
"""What six neighbours ask for all the while."""


def reading(chance: random.Random, place: str) -> dict:
    """A new one under its own UUID."""
    raw = [str(chance.randint(387, 396))]
    return {"uuid": str(uuid.uuid4()), "check": "opener-disc-diameter", "position": place, "raw": raw}


class Torture:
    """faults: how many. seed: the same faults in the same order, as far as threads allow."""

    def __init__(self, faults: int, seed: int, say: Callable[[str], object] = print) -> None:
        self.faults, self.chance, self.say = faults, random.Random(seed), say
        self.product = Product()
        self.ledger = Ledger()
        self.over, self.enough, self.placed = threading.Event(), threading.Event(), threading.Event()
        self.done: collections.Counter[str] = collections.Counter()
        self.faults_done = 0

    def run(self) -> dict[str, int]:
        """Counts of what was sent, acknowledged, lost and doubled."""
        self.product.start("--fresh")
        try:
            self.line = Line(self.product)
            self.lead = self.device("ada")
            self._prepare()
            work = [self._reads("tomas"), self._reads("ines"), self._loads(), self._fits(), self._orders()]
            work += [self._costs(path) for path in COSTLY for _ in range(2)]
            threads = [threading.Thread(target=one, daemon=True) for one in work]
            for one in threads:
                one.start()
            self._go_wrong()
            self.over.set()
            self.product.wait()
            for one in threads:
                one.join(240)
                assert not one.is_alive(), "something waits for ever"
            return self._counted()
        finally:
            self.product.stop()

    def device(self, name: str) -> Device:
        made = Device(self.line, self.ledger, name, self.over)
        made.sign_in()
        return made

    # What is there before anything happens

    def _prepare(self) -> None:
        machine = next(one["id"] for one in self.lead.get("/api/machines/names") if one["name"] == "Dunmere 12")
        self.walk = str(uuid.uuid4())
        assert self.lead.send("begun", f"/api/machines/{machine}/walk-arounds", id=self.walk, uuid=self.walk)
        self.opened = self.lead.get(f"/api/walk-arounds/{self.walk}")
        check = next(one for one in self.opened["checks"] if one["key"] == "opener-disc-diameter")
        for posture in {check["posture"]}:
            self.lead.send("posture", f"/api/walk-arounds/{self.walk}/postures", uuid=str(uuid.uuid4()), posture=posture)
        self.places = check["positions"]
        self.lead.send("kept", "/api/supply/stock/items", uuid=NUMBER, number=NUMBER, name="Made to be loaded")
        self.lead.send(
            "counted", "/api/supply/stock/count", uuid=str(uuid.uuid4()), number=NUMBER, place="shelf", counted=50_000
        )
        self.at_first = self._levels()

    def _levels(self) -> dict[str, int]:
        rows = database(f"SELECT place, SUM(\\`change\\`) FROM supply_movement WHERE number = '{NUMBER}' GROUP BY place")
        return {place: int(level) for place, level in zip(rows[::2], rows[1::2], strict=True)}

    # What devices do

    def _reads(self, name: str) -> Callable[[], None]:
        def work() -> None:
            device, chance = self.device(name), random.Random(name)
            while not self.over.is_set():
                key, place = str(uuid.uuid4()), chance.choice(self.places)
                if chance.random() < 0.2 and len(self.ledger.sent["picture"]) < MOST_PICTURES:
                    fields = {"uuid": key, "check": "opener-disc-diameter", "position": place}
                    path = f"/api/walk-arounds/{self.walk}/photos"
                    device.write("picture", path, form(fields, picture()), key, kind="multipart/form-data; boundary=x")
                    continue
                path = f"/api/walk-arounds/{self.walk}/readings"
                if chance.random() < 0.2:  # what waited while there was no signal
                    waited = [reading(chance, one) for one in chance.sample(self.places, 5)]
                    device.send_together("reading", f"{path}-at-once", "readings", waited)
                    self.done["several together"] += 1
                    continue
                body = reading(chance, place) | {"uuid": key}
                if chance.random() < 0.15:  # the same from several tabs at one instant
                    with ThreadPoolExecutor(4) as tabs:
                        for _ in range(4):
                            tabs.submit(device.send, "reading", path, **body)
                    self.done["the same at once"] += 1
                else:
                    device.send("reading", path, **body)

        return work

    def _loads(self) -> Callable[[], None]:
        def work() -> None:
            device = self.device("bram")
            while not self.over.is_set():
                device.send("load", "/api/supply/stock/load", uuid=str(uuid.uuid4()), number=NUMBER, quantity=1)
                time.sleep(0.05)

        return work

    def _fits(self) -> Callable[[], None]:
        """A part is fitted, and taken back, and fitted again."""

        def work() -> None:
            device = self.device("ada")
            lines = [one for one in device.get("/api/supply/list?whole=true")["lines"] if one["number"] and one["pieces"]]
            line = next(one for one in lines if not one["pieces"][0]["fitted"])
            piece = line["pieces"][0]
            self.placed.wait()  # what lies on the shelf or is fitted is needed no more: an order for it is rightly refused
            stock = {"number": line["number"]}
            device.send("kept", "/api/supply/stock/items", uuid=line["number"], **stock, name=line["name"])
            device.send("counted", "/api/supply/stock/count", uuid=str(uuid.uuid4()), **stock, place="shelf", counted=1000)
            what = {"walk_around": piece["walk_around"], "slot": piece["slot"], "positions": [piece["position"]]}
            while not self.over.is_set():
                key = str(uuid.uuid4())
                if device.send("fitting", "/api/supply/fit", uuid=key, **what):
                    fitted = self._fitted(device, line["key"], piece["position"])
                    device.send("taken back", f"/api/supply/movements/{fitted}/take-back", uuid=fitted)
                time.sleep(0.1)

        return work

    def _fitted(self, device: Device, key: str, position: str) -> str:
        """The movement of a fitting, as the parts list names it."""
        line = next(one for one in device.get("/api/supply/list?whole=true")["lines"] if one["key"] == key)
        return next(one["fitting"] for one in line["pieces"] if one["position"] == position)

    def _orders(self) -> Callable[[], None]:
        def work() -> None:
            try:
                device = self._placed()
            finally:
                self.placed.set()
            if device is None:
                return
            while True:
                waiting = [one for one in device.get("/api/supply/orders")["orders"] if one["state"] == "to-send"]
                if not waiting:
                    return
                for one in waiting:
                    if not one["under_way"]:
                        device.send("asked", f"/api/supply/orders/{one['uuid']}/send", uuid=one["uuid"])
                time.sleep(0.5)

        return work

    def _placed(self) -> Device | None:
        """Whoever planned and placed the orders of it. Readings go on meanwhile: what a plan has may be needed no more, which is
        refused, and planned anew."""
        device = self.device("ada")
        while not self.over.is_set():
            plan = str(uuid.uuid4())
            if not device.send("plan", "/api/supply/plans", uuid=plan):
                return None
            while not any(one["uuid"] == plan for one in [device.get("/api/supply/plans/latest") or {}]):
                device.send("plan", "/api/supply/plans", uuid=plan)
            body = json.dumps({"kind": "cheapest", "uuid": plan}).encode()
            if device.write("placed", f"/api/supply/plans/{plan}/orders", body, plan, rightly=409):
                return device
        return None

    def _costs(self, path: str) -> Callable[[], None]:
        """A neighbour who asks for what costs much, again and again, and waits in line for it."""

        def work() -> None:
            device = self.device("ada")
            while not self.over.is_set():
                body = json.dumps({"uuid": str(uuid.uuid4())}).encode() if path.endswith("plans") else b""
                status, _ = device.ask("POST" if body else "GET", path.format(walk=self.walk), body)
                self.done["costly, in line" if status == 429 else "costly, done" if status == 200 else "costly, not done"] += 1
                time.sleep(1 if status == 429 else 0.2)

        return work

    # What goes wrong

    def _go_wrong(self) -> None:
        for n in range(self.faults):
            if self.enough.is_set():
                return
            time.sleep(self.chance.uniform(0.1, 0.6))
            self._until_enough_is_written(n)
            self._fault()
            if (n + 1) % 50 == 0:
                self.say(f"  {n + 1} faults, {self.ledger.count()} writes acknowledged")

    def _until_enough_is_written(self, faults: int) -> None:
        """Faults meet work that goes on: on a slow machine they wait for a reading to every two of them, but not for ever."""
        until = time.monotonic() + SLOW_S
        while len(self.ledger.acknowledged["reading"]) * 2 < faults and time.monotonic() < until:
            time.sleep(0.05)

    def _fault(self) -> None:
        name, do = self.chance.choice(
            [
                ("worker killed", self._kill_worker), ("worker killed", self._kill_worker), ("connections cut", self._cut),
                ("connections cut", self._cut), ("answers lost", self._lose), ("answers lost", self._lose),
                ("database held up", self._hold_database), ("database killed", self._kill_database),
                ("server killed", self._kill_server), ("launcher killed", self._kill_launcher),
            ]
        )  # fmt: skip
        self.done[name] += 1
        self.faults_done += 1
        do()

    def _kill_worker(self) -> None:
        workers = self.product.workers()
        if workers:
            kill(self.chance.choice(workers))

    def _cut(self) -> None:
        self.line.cut()

    def _lose(self) -> None:
        self.line.loses = True
        time.sleep(self.chance.uniform(0.1, 0.5))
        self.line.loses = False

    def _hold_database(self) -> None:
        for process in numbers_in(HOME / "db.pid"):
            kill(process, signal.SIGSTOP)
            time.sleep(self.chance.uniform(0.3, 1.5))
            kill(process, signal.SIGCONT)

    def _kill_database(self) -> None:
        port = shell("sql -e 'SELECT @@port'")
        for process in numbers_in(HOME / "db.pid"):
            kill(process)
        time.sleep(0.2)
        shell(f'LUMVEK_DB_PORT={port}; db_start "$DURABLE" >&2')
        self.product.wait()

    def _kill_server(self) -> None:
        """The launcher sees it, and ends; whoever looks after the machine starts it again."""
        for process in [*self.product.workers(), self.product.server()]:
            kill(process)
        assert self.product.launcher
        self.product.launcher.wait(60)
        self.product.start()

    def _kill_launcher(self) -> None:
        assert self.product.launcher
        kill(self.product.launcher.pid)
        self.product.launcher.wait(10)
        self.product.start()

    # What came of it

    def _counted(self) -> dict[str, int]:
        stored = {
            "reading": database(f"SELECT uuid FROM inspection_reading WHERE walk_around_id = '{self.walk}'"),
            "picture": database(f"SELECT uuid FROM inspection_photo WHERE walk_around_id = '{self.walk}'"),
            "load": database("SELECT uuid FROM supply_movement"),
            "taken back": database("SELECT m.uuid FROM supply_movement m JOIN supply_movement u ON u.undoes_id = m.id"),
        }
        found = {kind: collections.Counter(str(uuid.UUID(one)) for one in rows) for kind, rows in stored.items()}
        lost = {kind: self.ledger.acknowledged[kind] - set(found[kind]) for kind in found}
        doubled = sum(count - 1 for counts in found.values() for count in counts.values())
        unknown = (set(found["reading"]) - self.ledger.sent["reading"]) | (set(found["picture"]) - self.ledger.sent["picture"])
        # A load that was done twice under one UUID would show in the level.
        now, loads = self._levels(), len(self.ledger.acknowledged["load"])
        shelf, truck = (now.get(place, 0) - self.at_first.get(place, 0) for place in ("shelf", "truck"))
        desk = json.loads((HOME / "desk.json").read_text()) if (HOME / "desk.json").exists() else {}
        orders = database("SELECT uuid FROM supply_order")
        counts = {
            "faults": self.faults_done,
            "tries": self.ledger.tries,
            "acknowledged": self.ledger.count(),
            "readings": len(found["reading"]),
            "pictures": len(found["picture"]),
            "loads": loads,
            "fittings": len(self.ledger.acknowledged["fitting"]),
            "orders": len(orders),
            "lost": sum(map(len, lost.values())),
            "doubled": doubled + len(unknown) + abs(truck - loads) + max(0, len(desk) - len(orders)),
            "refused": len(self.ledger.refused),
            "faults of ours": len(self.ledger.faults_of_ours),
        }
        self.notes = {
            "shelf": shelf,
            "truck": truck,
            "desk": len(desk),
            "refused": self.ledger.refused[:5],
            "500": self.ledger.faults_of_ours[:5],
        }
        return counts


def main() -> int:
    wanted = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    wanted.add_argument("--faults", type=int, default=1000)
    wanted.add_argument("--seed", type=int, default=17)
    given = wanted.parse_args()
    torture = Torture(given.faults, given.seed)
    # Ctrl-C ends it after the fault that it is at; what has happened is counted.
    signal.signal(signal.SIGINT, lambda *_: torture.enough.set())
    counts = torture.run()
    for name, count in torture.done.most_common():
        print(f"  {count:5} × {name}")
    print("  " + ", ".join(f"{name} {count}" for name, count in counts.items()))
    if torture.ledger.refused or torture.ledger.faults_of_ours:
        print(f"  {torture.notes}")
    bad = counts["lost"] or counts["doubled"] or counts["refused"] or counts["faults of ours"]
    return 1 if bad else 0


if __name__ == "__main__":
    sys.exit(main())
