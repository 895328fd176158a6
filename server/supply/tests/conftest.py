"""A shop that orders parts: the planter with worn discs, two suppliers, and the simulated desk on loopback."""

import datetime as dt
import threading
import uuid
from types import SimpleNamespace
from zoneinfo import ZoneInfo

import pytest
from supply_helpers import make_plan

from demo.management.commands.supplier_desk import serve
from parts.models import PartNumber
from supply.actions import supplier_book
from supply.models import Supplier, Terms
from testing.layers import layer
from testing.yard import record

SATURDAY = dt.datetime(2026, 11, 28, 13, 10, tzinfo=ZoneInfo("UTC"))
WEEK = [{"weekday": day, "from": "07:30", "to": "17:00"} for day in range(5)]


@pytest.fixture
def desk(tmp_path, settings):
    """The simulated desk, as the demo starts it. desk.behave("deaf") makes it lose answers; desk.again() kills and restarts it."""
    made = SimpleNamespace(state=tmp_path / "desk.json", server=None)

    def start():
        made.server = serve(0, made.state)
        settings.DESK_URL = f"http://127.0.0.1:{made.server.server_address[1]}"
        threading.Thread(target=made.server.serve_forever, daemon=True).start()

    def stop():
        made.server.shutdown()
        made.server.server_close()

    def again():
        stop()
        start()

    from supply import desk as line

    made.behave, made.again, made.stop = line.behave, again, stop
    made.orders = lambda: __import__("json").loads(made.state.read_text()) if made.state.exists() else {}
    start()
    yield made
    stop()


@layer(on="yard")
def shop(yard):
    """The yard with worn discs in rows 2 and 3, and two suppliers that said what they have."""
    for place in ("2L", "2R", "3L"):
        record(yard, "opener-disc-diameter", place, "384")
    yard.machine.season_date = SATURDAY.date() + dt.timedelta(days=14)
    yard.machine.hours, yard.machine.area_ha = None, 2860
    yard.machine.save()
    for slot, number in (("centre-scraper", "D12-4018"), ("seed-tube-guard", "D12-4105")):
        PartNumber.objects.create(model=yard.model, slot=slot, number=number)
    Terms.objects.create(shop=yard.shop, now=SATURDAY)
    yard.near = Supplier.objects.create(
        shop=yard.shop,
        name="Bridge Street Parts",
        desk="bridge-street",
        distance_km=11,
        travel_min=14,
        call_min=5,
        openings=WEEK,
    )
    yard.far = Supplier.objects.create(
        shop=yard.shop, name="Northmere Depot", desk="northmere", email="orders@northmere.invalid", distance_km=64, travel_min=62,
        openings=WEEK, deliveries=[{"name": "van", "lead_days": 1, "working": True, "cutoff": "15:00", "price": 18}],
    )  # fmt: skip
    return yard


@pytest.fixture
def planned(shop, desk):
    """The shop with a plan for its list: planned.plan."""
    supplier_book.ask_desks(shop.parts, uuid.uuid4())
    shop.plan = make_plan(shop.parts)
    return shop
