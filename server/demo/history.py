"""What happened before: three seasons of counters, fitments and readings of the Dunmere 12 and the Heron 4, counters of the
rest."""

import datetime as dt
from collections.abc import Iterator

from fleet.models import CounterReading, Fitment, Machine
from fleet.queries import counters
from inspection.actions import closing, notes, photos
from inspection.models import OperatorNote, WalkAround
from inspection.queries import preparing
from logbook.actions import servicing
from logbook.models import PutAwayTick
from logbook.queries import upkeep
from lumvek_core import counters as core_counters
from lumvek_core.units import plain
from shops.models import Member

from . import planter
from .machines import Yard
from .pictures import drawn
from .record_helpers import made_uuid, tell, told_as_finished, usual_but, walk_around

SEASONS = {
    "Dunmere 12": (250, 230, 240),
    "Dunmere 6": (92, 100, 108),
    "Heron 6": (205, 190, 212),
    "Weir 107": (410, 380, 430),
    "Heron 4": (220, 205, 230),
    "Sill 61": (190, 205, 215),
    "Comb 61": (60, 80, 75),
    "Maddow 8": (120, 150, 140),
    "Corvane 90": (260, 240, 275),
}
"""Use in the last three seasons, the oldest first: hours of the combines, hectares of everything else."""
WINTERS = (3, 2, 1)
HERON_4 = {
    ("rotor-bearing-play", "rotor-1"): (0.4, 1.1, 1.8, 2.5),
    ("grain-chain-stretch", "all"): (772.5, 776.5, 781, 785),
    ("feeder-chain-stretch", "strand-1"): (834, 839.5, 844, 849),
    ("feeder-chain-stretch", "strand-2"): (835.5, 841, 847.5, 853.5),
    ("feeder-chain-stretch", "strand-3"): (833, 838, 843.5, 848),
    ("feeder-floor", "all"): (4.4, 3.8, 3.2, 2.6),
    ("rotor-bars", "rotor-bar-3"): (21.4, 20.2, 18.9, 17.5),
}
"""Three, two and one winters ago, and now."""


def load(yard: Yard, now: dt.datetime) -> None:
    """Everything before this winter, oldest first."""
    for machine in Machine.objects.filter(shop=yard.shop):
        _counters(yard.lead, machine, now)
    _discs_fitted(yard, now)
    for years in WINTERS:
        _winter(yard.lead, yard.dunmere_12, f"dunmere-{years}", now - dt.timedelta(days=365 * years - 4), _dunmere(years))
        _winter(yard.ines, yard.heron_4, f"heron-{years}", now - dt.timedelta(days=365 * years + 9), _heron(years))


def heron_4_now() -> dict[tuple[str, str], list[str]]:
    """This winter's readings of what has a history."""
    return {place: [plain(values[3], 1)] for place, values in HERON_4.items()}


def _counters(member: Member, machine: Machine, now: dt.datetime) -> None:
    """What the meter showed before and after each season, and the day before yesterday."""
    total = machine.hours if machine.hours is not None else machine.area_ha or 0.0
    used = SEASONS[machine.name]
    start = total - sum(used)
    shown = [(now - dt.timedelta(days=1115), start)]
    for years, season in zip(WINTERS, used, strict=True):
        shown.append((now - dt.timedelta(days=365 * years - 25), start))
        start += season
        shown.append((now - dt.timedelta(days=365 * years - 70), start))
    shown.append((now - dt.timedelta(days=2), total))
    CounterReading.objects.bulk_create(
        CounterReading(
            uuid=made_uuid("counter", machine.name, i),
            machine=machine,
            at=at,
            shown=value,
            total=value,
            source="typed",
            unit=counters.unit_of(machine),
            by=member.user,
        )
        for i, (at, value) in enumerate(shown)
    )


def _discs_fitted(yard: Yard, now: dt.datetime) -> None:
    """All discs new three winters ago; row 11 hit a stone and got new ones last winter."""
    first, again = now - dt.timedelta(days=1100), now - dt.timedelta(days=357)
    for row in range(1, 13):
        for side in "LR":
            key = f"{row}{side}"
            _fitted(yard, key, 2140, first, again if row == planter.RENEWED else None)
            if row == planter.RENEWED:
                _fitted(yard, key, 2620, again, None)


def _fitted(yard: Yard, position: str, counter: float, at: dt.datetime, until: dt.datetime | None) -> None:
    Fitment.objects.create(
        uuid=made_uuid("fitment", position, counter), machine=yard.dunmere_12, slot="opener-disc", position_key=position,
        number="D12-4001", counter=counter, fitted_at=at, until_at=until, by=yard.tomas.user,
    )  # fmt: skip


def _winter(
    member: Member, machine: Machine, name: str, begun: dt.datetime, apart: dict[tuple[str, str], list[str]]
) -> WalkAround:
    """A walk-around of a winter before this one, all of it read."""
    found = walk_around(member, machine, name, begun, preparing.Wanted("winter"))
    told = list(usual_but(found, apart, hours=core_counters.total_at(counters.counts_of([machine.pk])[machine.pk], begun)))
    for check, position, what in told:
        if (check, position, what["raw"]) == ("opener-disc-diameter", planter.SLIP[0], [planter.SLIP[1]]):
            what["confirmed"] = True  # asked about, and waved through
    tell(member, found, name, told)
    if name == "dunmere-1":
        for i, trial in enumerate(planter.TRIALS):  # one after the other, as they were made
            tell(member, found, f"trial-{i}", [trial])
    closing.finish(member, found.pk, made_uuid("finished", str(found.pk)))
    told_as_finished(found, begun + dt.timedelta(days=3))
    return found


def _dunmere(years: int) -> dict[tuple[str, str], list[str]]:
    since = sum(SEASONS["Dunmere 12"][: 3 - years])
    vacuum = {("fan-gauge", "all"): [f"{42 + years} mbar"]}
    return {**(planter.LAST_WINTER if years == 1 else {}), **dict(_worn(since, years)), **vacuum}


def _worn(since: float, years: int) -> Iterator[tuple[tuple[str, str], list[str]]]:
    """Discs and guards as they were after so many hectares, drawn back from what they are now."""
    whole = sum(SEASONS["Dunmere 12"])
    for key, value in planter.discs_now():
        jitter = ((sum(map(ord, key)) * 7 + years * 5) % 9 - 4) / 10
        yield ("opener-disc-diameter", key), [plain(400 - (400 - value) * since / whole + jitter, 1)]
    for row in range(1, 13):
        value = float(planter.GUARDS[row - 1])
        jitter = ((row * 5 + years * 3) % 5 - 2) / 20
        yield ("seed-tube-guard", str(row)), [plain(22 - (22 - value) * since / whole + (jitter if since else 0), 2)]
    if years == 2:
        yield ("opener-disc-diameter", planter.SLIP[0]), [planter.SLIP[1]]


def _heron(years: int) -> dict[tuple[str, str], list[str]]:
    told: dict[tuple[str, str], list[str]] = {}
    for bar in range(1, 13):
        told["rotor-bars", f"rotor-bar-{bar}"] = [plain(22.6 + 0.5 * years + (bar % 3 - 1) / 10, 1)]
    for auger in ("cross", "fill", "incline", "vertical"):
        told["flighting", auger] = [plain(3.1 + 0.2 * years, 1)]
    told["horizontal-flighting", "all"] = [plain(3.1 + 0.2 * years, 1)]
    told["spline-grease", "rotor-1"] = ["3320 h" if years < 3 else "2815 h"]
    return told | {place: [plain(values[3 - years], 1)] for place, values in HERON_4.items()}


def keep_up(yard: Yard, now: dt.datetime) -> None:
    """What was serviced and put away, and what was noticed from the cab this season."""
    for machine, key, days, counter in (
        (yard.heron_4, "engine-oil", 330, 3640.0),
        (yard.heron_4, "engine-air", 240, 3690.0),
        (yard.heron_4, "chains-oiled", 120, 3862.0),
        (yard.heron_6, "engine-oil", 120, 2080.0),
        (yard.dunmere_12, "carrying-hubs", 700, 2390.0),
        (yard.dunmere_12, "arm-bolts", 330, 2660.0),
    ):
        day = (now - dt.timedelta(days=days)).date()
        servicing.record(yard.tomas, machine, made_uuid("service", machine.name, key), key, day, counter, "")
    season = upkeep.season_of(now.date())
    for key in ("meters-empty", "discs-stacked", "planter-cylinders-in"):
        servicing.tick(yard.ines, yard.dunmere_12, made_uuid("put-away", key, season), key, season, True)
    odd = made_uuid("note", "dunmere-12")
    text = "Rows 5 and 6 ran shallow in the wheel tracks after rain; press wheel of row 3 squealed."
    notes.note(yard.lead, yard.dunmere_12, odd, text, station="gauge-wheel")
    OperatorNote.objects.filter(uuid=odd).update(at=now - dt.timedelta(days=328))
    PutAwayTick.objects.filter(machine=yard.dunmere_12).update(at=now - dt.timedelta(days=290))
    photos.add_to_note(yard.lead, yard.dunmere_12, odd, made_uuid("note-photo", "dunmere-12"), drawn("furrow"))
