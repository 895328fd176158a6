"""The Sallow Bridge Machinery Ring. Dates are counted from the day it is loaded, figures are made up."""

import datetime as dt
import uuid
from collections.abc import Callable, Iterator

from django.contrib.auth.models import User
from django.db import transaction

from fleet.models import LimitOverride, Machine, MachineModel
from inspection import books, recording, services
from inspection.models import WalkAround
from parts.models import PartNumber
from shops.models import Member, Role, Shop

from .people import PASSWORD, PEOPLE

NAMESPACE = uuid.UUID("5a110e0b-41d6-4e00-8000-000000000000")
DRILLING_IN = dt.timedelta(days=24)

PART_NUMBERS = {
    "opener-disc": ("DU-4001", 2),
    "centre-scraper": ("DU-4017", 1),
    "opener-bearing": ("DU-4022", 1),
    "outer-scraper": ("DU-4031", 1),
    "seed-tube-guard": ("DU-4105", 1),
    "seed-tube": ("DU-4110", 1),
    "gauge-wheel-tyre": ("DU-4203", 1),
    "gauge-wheel-bearing": ("DU-4207", 1),
    "gauge-wheel-arm-bushings": ("DU-4212", 1),
    "gauge-wheel-arm-seals": ("DU-4213", 2),
    "depth-rocker": ("DU-4301", 1),
    "depth-rocker-bolt": ("DU-4302", 1),
    "arm-bushing-set": ("DU-4410", 1),
    "arm-seal-set": ("DU-4411", 1),
    "seed-firmer": ("DU-4502", 1),
    "closing-bearing": ("DU-4604", 1),
    "closing-wheel": ("DU-4601", 1),
}
HANDED = {"outer-scraper"}

# Rows 4 to 6 and 9 run behind the tractor's wheels in loosened shell sand and wear faster.
DISCS_LEFT = ["395.5", "394,5", "15 1/2", "388,5", "385.5", "15 1/4", "393", "39.4 cm", "389", "395", "15 5/8", "396"]
DISCS_RIGHT = ["395", "394", "393", "38,9 cm", "384.5", "386.0", "392.5", "394", "388.5", "15 9/16", "396", "396.5"]
CONTACT = ["46 44 47", "43 45 44", "48 47 49", "34 36 35", "41 43 42", "30 33 31", "45 46 44", "47 45 46"]
GUARDS = ["21.4", "21.2", "21.5", "19.6", "18.9", "19.4", "21", "21.3", "19.8", "21.6", "21.4", "21.7"]

Reading = tuple[str, str, dict[str, object]]


@transaction.atomic
def load(now: dt.datetime) -> bool:
    """Make the shop, its people, models, machines and walk-arounds. False if there is a shop already."""
    if Shop.objects.exists():
        return False
    shop = Shop.objects.create(name="Sallow Bridge Machinery Ring")
    members = {person.username: _member(shop, person) for person in PEOPLE}
    twelve = _model(shop, "Dunmere", "12", {"new": 400, "limit": 386}, angle=13)
    six = _model(shop, "Dunmere", "6", {"new": 380, "limit": 367}, angle=14)
    season_date = now.date() + DRILLING_IN
    options = ["row-cleaner", "seed-firmer"]
    dunmere_12 = Machine.objects.create(
        shop=shop,
        model=twelve,
        name="Dunmere 12",
        serial="D12-0417",
        rows=12,
        track_rows=[4, 5, 6, 9],
        options=options,
        area_ha=2860,
        season_date=season_date,
    )
    Machine.objects.create(
        shop=shop,
        model=six,
        name="Dunmere 6",
        serial="D06-0093",
        rows=6,
        options=["coulter"],
        area_ha=1140,
        season_date=season_date + dt.timedelta(days=9),
    )
    dunmere_12.owners.add(members["lotte"])
    last_year = _walk_around(members["ada"], dunmere_12, "last-winter", now - dt.timedelta(days=361), _finished_readings)
    WalkAround.objects.filter(pk=last_year.pk).update(
        finished_at=now - dt.timedelta(days=358), finished_by=members["tomas"].user
    )
    half = _walk_around(members["tomas"], dunmere_12, "this-winter", now - dt.timedelta(hours=20), _half_of_the_readings)
    services.decide(members["ada"], half.pk, _uuid("decision", 1), "opener-disc-diameter", ["5L", "5R", "6R"], "do")
    services.decide(
        members["ada"],
        half.pk,
        _uuid("decision", 2),
        "parallel-arm-play",
        ["6"],
        "wait",
        until="after the first field",
        reason="felt only, torqued again",
    )
    return True


def _uuid(*parts: object) -> uuid.UUID:
    return uuid.uuid5(NAMESPACE, ":".join(map(str, parts)))


def _member(shop: Shop, person: object) -> Member:
    first, last, username, role = (getattr(person, name) for name in ("first", "last", "username", "role"))
    user = User.objects.create_user(username, password=PASSWORD, first_name=first, last_name=last)
    return Member.objects.create(user=user, shop=shop, role=Role(role))


def _model(shop: Shop, maker: str, name: str, discs: dict[str, float], angle: float) -> MachineModel:
    model = MachineModel.objects.create(shop=shop, maker=maker, name=name, family="row-crop-planter")
    note = f"{maker} {name} manual, opener units"
    for figure, value in discs.items():
        LimitOverride.objects.create(
            model=model, check_key="opener-disc-diameter", figure=figure, value=value, source="manual", note=note
        )
    LimitOverride.objects.create(
        model=model, check_key="opener-contact", figure="angle_deg", value=angle, source="shop", note="measured on row 1"
    )
    for slot, (number, pack) in PART_NUMBERS.items():
        for side in ("L", "R") if slot in HANDED else ("",):
            PartNumber.objects.create(
                model=model, slot=slot, side=side, number=number.replace("DU", f"D{name}") + side, pack=pack
            )
    return model


def _walk_around(
    member: Member, machine: Machine, name: str, begun: dt.datetime, readings: Callable[[], Iterator[Reading]]
) -> WalkAround:
    walk_around = services.start(member, machine, _uuid(name), "winter")
    WalkAround.objects.filter(pk=walk_around.pk).update(started_at=begun)
    new = [
        recording.NewReading(
            uuid=_uuid(name, check, position),
            check=check,
            position=position,
            taken_at=begun + dt.timedelta(seconds=20 * i),
            **what,  # type: ignore[arg-type]
        )
        for i, (check, position, what) in enumerate(readings())
    ]
    recording.record_readings(member, walk_around.pk, new)
    return walk_around


def _seen(*raw: str, **more: object) -> dict[str, object]:
    return {"raw": list(raw), **more}


def _rows(check: str, usual: str, apart: dict[int, str] | None = None, rows: int = 12) -> Iterator[Reading]:
    for row in range(1, rows + 1):
        yield check, str(row), _seen((apart or {}).get(row, usual))


def _sides(check: str, usual: str, apart: dict[str, str] | None = None, rows: int = 12) -> Iterator[Reading]:
    for row in range(1, rows + 1):
        for side in "LR":
            yield check, f"{row}{side}", _seen((apart or {}).get(f"{row}{side}", usual))


def _half_of_the_readings() -> Iterator[Reading]:
    """This winter: residue, arms and most of the openers are done; gauge wheels have begun."""
    yield from _rows("row-cleaner", "free", {3: "rough"})
    yield from _rows("parallel-arm-play", "none", {5: "loose", 6: "felt"})
    for row in range(1, 13):
        yield "opener-disc-diameter", f"{row}L", _seen(DISCS_LEFT[row - 1])
        yield "opener-disc-diameter", f"{row}R", _seen(DISCS_RIGHT[row - 1])
    yield from _sides("opener-bearing", "smooth", {"4R": "dry", "5L": "rough", "9L": "noisy"})
    yield from _sides("disc-axle", "smooth")
    for row, spans in enumerate(CONTACT, start=1):
        yield "opener-contact", str(row), _seen(*spans.split(), feeler="card")
    yield from _sides("outer-scraper", "whole", {"7L": "worn"}, rows=9)
    for row, width in enumerate(GUARDS[:9], start=1):
        yield "seed-tube-guard", str(row), _seen(width)
    for row in (10, 11):
        yield "seed-tube-guard", str(row), {"state": "not-seen", "reason": "meter still on, comes off with the next strip-down"}
    for place, gap in {"1L": "0", "2L": "0", "3L": "0", "4L": "1.2", "5L": "0.8"}.items():
        yield "gauge-wheel-gap", place, _seen(gap)


def _finished_readings() -> Iterator[Reading]:
    """Last winter: every place, little found."""
    checks = books.shipped().families["row-crop-planter"].checks.values()
    measured = {
        "coulter-depth": "5", "opener-disc-diameter": "397", "seed-tube-guard": "21.6", "gauge-wheel-gap": "0", "gauge-wheel-arm-play": "1.1",
        "arm-stop-pocket": "0.6", "depth-handle": "7", "firmer-pin": "3", "closing-centre": "2", "closing-tension": "4", "closing-stagger": "2", "pinch-point": "6",
    }  # fmt: skip
    apart = {("gauge-wheel-gap", "8R"): "0.6", ("opener-disc-diameter", "5L"): "394", ("opener-disc-diameter", "5R"): "393.5"}
    for check in checks:
        if check.optional or check.option not in (None, "row-cleaner", "seed-firmer"):
            continue
        for place in _all_places(check.per):
            if check.key == "opener-contact":
                yield check.key, place, _seen("49", "50", "48", feeler="card")
            elif check.key == "washers":
                yield check.key, place, _seen("3", "1")
            elif check.key in measured:
                yield check.key, place, _seen(apart.get((check.key, place), measured[check.key]))
            else:
                yield check.key, place, _seen("1")


def _all_places(per: str) -> list[str]:
    rows = range(1, 13)
    return [str(row) for row in rows] if per == "row" else [f"{row}{side}" for side in "LR" for row in rows]
