"""The ring's suppliers, stock, dates and shares. It is a Saturday afternoon: the near store is closed, the far one has just
shut."""

import datetime as dt
import uuid
from decimal import Decimal

from django.utils import timezone

from fleet.models import Machine
from parts.models import PartNumber
from shops.models import Member
from supply.actions import stocking, supplier_book
from supply.models import Movement, NeedDate, Share, StockItem, StockLocation, Supplier, Terms

from .desk_book import BRIDGE, HARROW, NORTHMERE, SHELVES
from .machines import Yard
from .record_helpers import made_uuid

WEEK = [{"weekday": day, "from": "07:30", "to": "17:00"} for day in range(5)]
SATURDAY = 5

# number: name, bin, shelf, truck, truck should carry, failures before, machine hours × positions they were in, hours until the
# next delivery
STOCK = {
    "TH-2168": ("Shaker arm shim", "A-02", 6, 0, 0, 2, 9_400, 600, 200),
    "D12-4022": ("Opener disc hub with bearing", "B-11", 1, 2, 2, 5, 18_000, 4_000, 200),
    "D12-4411": ("Parallel arm seal set", "B-14", 3, 0, 0, 1, 8_000, 2_000, 200),
    "TH-2322": ("Jack bearing", "A-07", 0, 0, 1, 3, 11_800, 1_600, 200),
    "TH-2126": ("Rotor bearing", "A-08", 0, 0, 0, 0, 6_010, 800, 5_000),
    "TH-2413": ("Chopper knife", "C-01", 0, 4, 4, 9, 216_000, 32_000, 200),
    "RING-GR-2": ("Grease", "D-01", 4, 2, 2, 0, 0, 0, 200),
    "RING-TIE-3": ("Cable ties", "D-02", 2, 1, 1, 0, 0, 0, 200),
    "RING-OIL-90": ("Gear oil", "D-04", 8, 0, 0, 0, 0, 0, 200),
}


NEEDED = {"Heron 6": 2, "Heron 4": 3, "Dunmere 12": 6, "Corvane 90": 9}
"""In so many days each machine wants its parts: the Heron 6 is to be moved and may not be with a loose tie rod; the Heron 4
lies open in the only bay."""
STOCKTAKING = 3
"""In so many days the near counter is closed."""


def load(yard: Yard, people: dict[str, Member], now: dt.datetime) -> None:
    """Everything the parts person needs to begin with."""
    today = timezone.localtime(now).date()
    Terms.objects.create(shop=yard.shop, late_cost_per_day=Decimal("240"))
    _suppliers(yard, today)
    _stock(people["bram"])
    _alternatives(yard)
    for name, days in NEEDED.items():
        machine = Machine.objects.get(shop=yard.shop, name=name)
        NeedDate.objects.create(machine=machine, day=today + dt.timedelta(days=days))
    Share.objects.create(machine=yard.dunmere_12, member=people["lotte"], percent=Decimal("40"))
    Share.objects.create(machine=yard.heron_4, member=people["lotte"], percent=Decimal("25"))


def _suppliers(yard: Yard, today: dt.date) -> None:
    stocktaking = (today + dt.timedelta(days=STOCKTAKING)).isoformat()
    near = Supplier.objects.create(
        shop=yard.shop, name="Bridge Street Parts", desk=BRIDGE, email="counter@bridge-street.invalid",
        distance_km=11, travel_min=14, counter_min=15, call_min=5, openings=WEEK, closed=[stocktaking],
    )  # fmt: skip
    far = Supplier.objects.create(
        shop=yard.shop, name="Northmere Depot", desk=NORTHMERE, email="orders@northmere.invalid",
        distance_km=64, travel_min=62, counter_min=15, call_min=5,
        openings=[*WEEK, {"weekday": SATURDAY, "from": "08:00", "to": "12:00"}],
        deliveries=[{"name": "van", "lead_days": 1, "working": True, "cutoff": "15:00", "price": 18}],
    )  # fmt: skip
    post = Supplier.objects.create(
        shop=yard.shop, name="Harrow Mail", desk=HARROW, email="desk@harrow-mail.invalid",
        deliveries=[{"name": "post", "lead_days": 3, "working": True, "cutoff": "16:00", "price": 7.5}],
    )  # fmt: skip
    for supplier in (near, far, post):  # what they said the last time they were asked
        said = [
            {
                "number": number, "unit_price": shelf.price, "pack": shelf.pack, "stock": shelf.said,
                "p_stock": shelf.p_stock, "restock_days": shelf.restock_days, "status": shelf.status,
            }
            for number, shelf in SHELVES[supplier.desk].items()
        ]  # fmt: skip
        supplier_book.keep_offers(supplier, said, "desk")


def _stock(member: Member) -> None:
    for number, (name, bin_, shelf, truck, carry, events, hours, ahead, prior) in STOCK.items():
        StockItem.objects.create(
            shop=member.shop, number=number, name=name, bin=bin_, carry=carry,
            past_events=events, past_hours=hours, hours_ahead=ahead, prior_hours=prior,
        )  # fmt: skip
        for place, level in ((StockLocation.SHELF, shelf), (StockLocation.TRUCK, truck)):
            if level:
                counted = uuid.uuid5(made_uuid("stock", number), place)
                stocking.move(member, counted, number, place, level, Movement.Reason.COUNTED)


def _alternatives(yard: Yard) -> None:
    """The hardened disc, an older scraper that must not be mixed, and an arm that is getting scarce."""
    twelve = yard.dunmere_12.model
    PartNumber.objects.create(
        model=twelve, slot="opener-disc", number="D12-4001H", pack=2, kind=PartNumber.Kind.UPGRADED, life=1.3,
        note="Hardened, about 30 % more life.",
    )  # fmt: skip
    PartNumber.objects.filter(model=twelve, slot="centre-scraper").update(
        replaced_by="D12-4018", mark="The old one has a blue edge; the two may be mixed"
    )
    PartNumber.objects.filter(model=yard.heron_4.model, slot="shaker-arm").update(
        status=PartNumber.Status.SCARCE, note="Order once for the life that is left."
    )
