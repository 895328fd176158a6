"""The ring's machines: makers, models, sizes, limits and part numbers, all made up."""

import datetime as dt
from dataclasses import dataclass

from fleet.actions.own_rules import replace_limit
from fleet.models import Machine, MachineModel
from inspection.queries import rule_books
from lumvek_core.catalogue.model import Slot
from lumvek_core.coupled import long, short
from lumvek_core.units import Inches
from parts.models import PartNumber
from shops.models import Member, Shop

BARLEY_IN = dt.timedelta(days=38)
DRILLING_IN = dt.timedelta(days=24)

RING_NUMBERS = {"gear-oil": "RING-OIL-90", "grease": "RING-GR-2", "anti-seize": "RING-AS-1", "cable-ties": "RING-TIE-3"}
"""What the ring buys for every machine alike."""

PLANTER_NUMBERS = {
    "row-cleaner-bearing": ("4009", 1),
    "opener-disc": ("4001", 2),
    "centre-scraper": ("4017", 1),
    "opener-bearing": ("4022", 1),
    "outer-scraper": ("4031", 1),
    "seed-tube-guard": ("4105", 1),
    "seed-tube": ("4110", 1),
    "gauge-wheel-tyre": ("4203", 1),
    "gauge-wheel-bearing": ("4207", 1),
    "gauge-wheel-arm-bushings": ("4212", 1),
    "gauge-wheel-arm-seals": ("4213", 2),
    "depth-rocker": ("4301", 1),
    "depth-rocker-bolt": ("4302", 1),
    "arm-bushing-set": ("4410", 1),
    "arm-seal-set": ("4411", 1),
    "seed-firmer": ("4502", 1),
    "closing-bearing": ("4604", 1),
    "closing-wheel": ("4601", 1),
}


@dataclass
class Yard:
    """The shop with everybody and everything in it."""

    shop: Shop
    lead: Member
    tomas: Member
    ines: Member
    dunmere_12: Machine
    heron_6: Machine
    weir_107: Machine
    heron_4: Machine
    sill_61: Machine
    corvane: Machine


def make(shop: Shop, people: dict[str, Member], now: dt.datetime) -> Yard:
    """All machines of the ring; Lotte Ferring owns shares in two of them."""
    barley, drilling = now.date() + BARLEY_IN, now.date() + DRILLING_IN
    twelve = _planter(shop, "12", {"new": 400, "limit": 386}, angle=13)
    six = _planter(shop, "6", {"new": Inches("15 in"), "limit": Inches("14 1/2 in")}, angle=14)
    heron_6 = _model(shop, "Tavric", "Heron 6", "rotary-combine", knife=44, vane=12)
    heron_4 = _model(shop, "Tavric", "Heron 4", "rotary-combine", knife=36)
    weir = _model(shop, "Lorne", "Weir 107", "draper-header", **{"hold-down": 28, "runner": 12})
    sill = _model(shop, "Lorne", "Sill 61", "auger-platform", **{"hold-down": 16})
    for model, sections in ((weir, 140), (sill, 80)):
        prefix = rule_books.shipped().families[model.family].prefix
        replace_limit(model, long(prefix, "knife-sections"), "of", sections, "shop", "counted")
    replace_limit(heron_4, "feeder-chain-stretch", "limit_pct", 3, "manual", "Tavric Heron manual, feeder")
    replace_limit(heron_6, "rotor-bars", "new", 26, "manual", "Tavric Heron 6 manual, rotor")
    replace_limit(heron_6, "chopper-knives", "set_size", 8, "manual", "Tavric Heron 6 manual, chopper")
    combine = ["accelerator", "reverser-sheave", "sensor-pad", "unload-belt", "pre-sieve", "self-level", "rethresher"]
    found = {
        "dunmere_12": _machine(
            shop, twelve, "Dunmere 12", "D12-0417", drilling, rows=12, track_rows=[4, 5, 6, 9], area_ha=2860,
            options=["row-cleaner", "seed-firmer", "electric-drive", "meter-vacuum", "markers"],
        ),
        "dunmere_6": _machine(
            shop, six, "Dunmere 6", "D06-0093", drilling + dt.timedelta(days=9), rows=6, area_ha=1140,
            options=["coulter", "ground-drive", "meter-finger"],
        ),
        "heron_6": _machine(shop, heron_6, "Heron 6", "TH6-2207", barley, hours=2140, options=[*combine, "power-tailboard", "folding-tank"]),
        "weir_107": _machine(shop, weir, "Weir 107", "LW-107-31", barley, area_ha=4120, options=["flex", "height-arms", "cam-reel", "float-gauge"]),
        "heron_4": _machine(shop, heron_4, "Heron 4", "TH4-1180", barley, hours=3870, options=["accelerator", "rethresher", "fixed-tailboard", "greasable-chopper"]),
        "sill_61": _machine(shop, sill, "Sill 61", "LS-061-08", barley, area_ha=2310, options=["slip-clutch"]),
        "comb_61": _machine(shop, _model(shop, "Orrin", "Comb 61", "stripper-header"), "Comb 61", "OC-061-02", barley + dt.timedelta(days=30), area_ha=690),
        "maddow": _machine(shop, _model(shop, "Maddow", "8", "row-crop-header"), "Maddow 8", "MD8-0055", barley + dt.timedelta(days=80), rows=8, area_ha=1480),
        "corvane": _machine(shop, _model(shop, "Corvane", "90", "air-seeder"), "Corvane 90", "CV90-0012", drilling - dt.timedelta(days=4), rows=36, area_ha=3050, options=["mounted", "firmers", "camera"]),
    }  # fmt: skip
    for name in ("dunmere_12", "heron_4"):
        found[name].owners.add(people["lotte"])
    wanted = ("dunmere_12", "heron_6", "weir_107", "heron_4", "sill_61", "corvane")
    return Yard(shop, people["ada"], people["tomas"], people["ines"], *(found[name] for name in wanted))


def _machine(shop: Shop, model: MachineModel, name: str, serial: str, season_date: dt.date, **more: object) -> Machine:
    made: Machine = Machine.objects.create(shop=shop, model=model, name=name, serial=serial, season_date=season_date, **more)
    return made


UNLISTED = {"draper-header": (9, 20), "auger-platform": (9,)}
"""Where the makers' numbers go on past a part that the catalogue does not list."""


def _model(shop: Shop, maker: str, name: str, family: str, **counts: int) -> MachineModel:
    """A model with a made-up number for most of its parts; the rest are to be found."""
    model = MachineModel.objects.create(shop=shop, maker=maker, name=name, family=family, counts=counts)
    letters = f"{maker[0]}{name[0]}".upper()
    known = [(short(key), slot) for key, slot in rule_books.shipped().families[family].slots.items()]
    for at in UNLISTED.get(family, ()):
        known.insert(at, ("", Slot("")))
    slots = [slot for i, slot in enumerate(known) if i % 7 != 5]
    numbers = [
        PartNumber(
            model=model,
            slot=key,
            side=side,
            number=RING_NUMBERS.get(key) or f"{letters}-{2000 + 7 * i}{side}",
            pack=2 if "pairs" in slot.note else 1,
        )
        for i, (key, slot) in enumerate(slots)
        if key
        for side in (("L", "R") if slot.handed else ("",))
    ]
    PartNumber.objects.bulk_create(numbers)
    return model


def _planter(shop: Shop, name: str, discs: dict[str, float], angle: float) -> MachineModel:
    model = MachineModel.objects.create(shop=shop, maker="Dunmere", name=name, family="row-crop-planter")
    for figure, value in discs.items():
        replace_limit(model, "opener-disc-diameter", figure, value, "manual", f"Dunmere {name} manual, opener units")
    replace_limit(model, "opener-contact", "angle_deg", angle, "shop", "measured on row 1")
    for slot, (number, pack) in PLANTER_NUMBERS.items():
        for side in ("L", "R") if slot == "outer-scraper" else ("",):
            PartNumber.objects.create(model=model, slot=slot, side=side, number=f"D{name}-{number}{side}", pack=pack)
    for slot in ("grease", "cable-ties"):
        PartNumber.objects.create(model=model, slot=slot, number=RING_NUMBERS[slot])
    return model
