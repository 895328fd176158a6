"""The season before this one at work: the Heron 4 set over to sunflower and back, what was taught to it, how it was set in the
field, and what was seen behind it."""

import datetime as dt

from calibration.actions import recording as calibrating
from calibration.schemas import CalibrationRunIn, CollectedLoadIn, HappenedIn, LoadWeighedIn
from faults.actions import recording, tracing
from faults.models import Recording, Trace
from faults.schemas import TraceEndIn, TraceIn
from faults.schemas_recordings import SimulatedIn
from field.actions import recording as field
from field.schemas import SetInFieldIn
from fleet.models import Machine
from inspection.actions import closing, notes
from inspection.models import OperatorNote, WalkAround, WalkAroundEvent
from inspection.queries import preparing, rule_books
from lumvek_core import positions
from lumvek_core.catalogue.rounds import CHANGEOVER
from lumvek_core.rules.fitted import FittedRule
from shops.models import Member

from .machines import Yard
from .record_helpers import Told, confirm, made_uuid, seen, tell, told_as_finished, walk_around

BARLEY, SUNFLOWER, BACK = 341, 262, 240
"""Days ago: barley began, the Heron 4 was set over to sunflower, and back."""
FORGOTTEN = ("drum-position", "R")
"""The side of the feeder drum that was left down."""
TAUGHT: tuple[tuple[int, str, dict[str, str], str], ...] = (
    (BARLEY, "raise-speed", {"raise-value": "40"}, ""),
    (BARLEY, "header-height", {"low": "0.8", "high": "4.1"}, ""),
    (BARLEY, "cut-heights", {}, ""),
    (BARLEY - 2, "moisture-offset", {"offset": "-0.8"}, ""),
    (BARLEY - 2, "yield", {"factor": "1.03"}, ""),
    (SUNFLOWER, "raise-speed", {}, "figures stood still: the header hung on its stand"),
    (SUNFLOWER, "raise-speed", {"raise-value": "46"}, ""),
    (SUNFLOWER, "deck-plates", {}, ""),
    (SUNFLOWER, "header-height", {"low": "0.7", "high": "3.9"}, ""),
    (SUNFLOWER, "cut-heights", {}, ""),
    (SUNFLOWER, "concave-zero", {}, ""),
    (SUNFLOWER, "sieve-opening", {"chaffer": "0.5", "sieve": "0"}, ""),
    (SUNFLOWER - 1, "moisture-offset", {"offset": "0.9"}, ""),
    (SUNFLOWER - 1, "yield", {"factor": "0.98"}, ""),
    (BACK, "raise-speed", {"raise-value": "41"}, ""),
    (BACK, "header-height", {"low": "0.8", "high": "4.0"}, ""),
    (BACK, "cut-heights", {}, ""),
    (BACK, "concave-zero", {}, ""),
    (BACK, "sieve-opening", {"chaffer": "0", "sieve": "0.5"}, ""),
)
"""Days ago, calibration, what was saved, or why it was aborted."""
BARLEY_SET = {"rotor": "950", "clearance": "12", "fan": "1010", "chaffer": "15", "sieve": "8", "ground-speed": "5.5"}
SUNFLOWER_SET = {"rotor": "350", "clearance": "30", "fan": "780", "chaffer": "17", "sieve": "12"}
LUPINS_SET = {"rotor": "450", "clearance": "20", "fan": "900", "float": "middle", "reel-speed": "1.15"}
SET: tuple[tuple[str, int, str, str, str, dict[str, str], str, bool], ...] = (
    ("heron_4", BARLEY - 1, "Malting barley", "Mill Marsh", "dry", BARLEY_SET, "", True),
    (
        "heron_4", BARLEY - 9, "Malting barley", "Long Silt", "damp",
        {"rotor": "1000", "clearance": "10"}, "heads went through whole", True,
    ),
    ("heron_4", SUNFLOWER - 1, "Sunflower", "Shell Bank", "dry", SUNFLOWER_SET, "", False),
    (
        "heron_4", SUNFLOWER - 1, "Sunflower", "Shell Bank", "dry",
        {"rotor": "300", "fan": "840"}, "broken seeds in the tank", True,
    ),
    ("heron_6", BARLEY - 35, "Lupins", "Mill Marsh", "damp", LUPINS_SET, "", True),
)  # fmt: skip
"""Machine, days ago, crop, field, ground, how it was set, why, whether it worked."""


def load(yard: Yard, now: dt.datetime) -> None:
    """Everything of last season, oldest first."""
    headers = {one.name: one for one in Machine.objects.filter(shop=yard.shop)}
    sill, maddow = headers["Sill 61"], headers["Maddow 8"]
    coupled = (
        (yard.heron_4, BARLEY, sill),
        (yard.heron_4, SUNFLOWER, maddow),
        (yard.heron_4, BACK, sill),
        (yard.heron_6, BARLEY, headers["Weir 107"]),
    )
    for i, (machine, days, header) in enumerate(coupled):
        at = now - dt.timedelta(days=days, hours=3)
        said = HappenedIn(uuid=made_uuid("coupled", i), what="header", header=header.pk, at=at)
        calibrating.say_happened(yard.tomas, machine, said)
    _looked_at(yard, now)
    _set_over(yard.tomas, yard.heron_4, maddow, "ear", now - dt.timedelta(days=SUNFLOWER, hours=6))
    _set_over(yard.ines, yard.heron_4, sill, "small-grain", now - dt.timedelta(days=BACK, hours=6))
    _loads(yard, now)
    _taught(yard, now)
    _set_in_field(yard, now)
    _shook(yard, now)


def _set_over(member: Member, machine: Machine, header: Machine, crop: str, begun: dt.datetime) -> WalkAround:
    """A changeover that was walked to its end; the drum side that was forgotten is caught and put right."""
    name = f"set over to {crop}"
    wanted = preparing.Wanted(CHANGEOVER, crop, headers=[header.pk])
    found = walk_around(member, machine, name, begun, wanted)
    confirm(member, found, name, len(found.plan["visits"]))
    schools = rule_books.opened(found.rule_book_id).schools
    told: list[Told] = []
    for check in rule_books.checks_of(found):
        rule = check.rule
        right = next((one.key for one in rule.wanted(crop, schools)), "") if isinstance(rule, FittedRule) else ""
        for place in positions.expand(check.per, found.layout):
            raw = right or check.rule.sample(check, machine.hours or 0, begun.date())[0]
            forgotten = (check.key, place.key) == FORGOTTEN and crop == "ear"
            told += [(check.key, place.key, seen("down"))] if forgotten else []
            told.append((check.key, place.key, seen(raw, posture=check.posture or None)))
    first = [one for one in told if (one[0], one[1]) != FORGOTTEN or one[2]["raw"] == ["down"]]
    tell(member, found, name, first)
    tell(member, found, f"{name} put right", [one for one in told if one not in first])
    closing.finish(member, found.pk, made_uuid("finished", name))
    told_as_finished(found, begun + dt.timedelta(hours=3))
    return found


def _taught(yard: Yard, now: dt.datetime) -> None:
    known = rule_books.shipped().calibrations.by_key
    for i, (days, key, values, why) in enumerate(TAUGHT):
        begun = now - dt.timedelta(days=days, hours=2) + dt.timedelta(minutes=6 * i)
        run = CalibrationRunIn(
            uuid=made_uuid("taught", i),
            key=key,
            outcome="aborted" if why else "saved",
            begun_at=begun,
            at=begun + dt.timedelta(minutes=5),
            steps=1 if why else len(known[key].steps),
            values=values,
            words=why,
        )
        calibrating.run(yard.tomas, yard.heron_4, run)


def _loads(yard: Yard, now: dt.datetime) -> None:
    """Loads of barley, two of them weighed; that of last season which was never weighed stays open."""
    loads = (("1", 2000, 14.2, 2080, 15.9), ("2", 1500, 14.0, 1530, 15.6), ("3", 1850, 14.4, None, None))
    for name, kg, pct, scale, store in loads:
        uuid = made_uuid("load", name)
        at = now - dt.timedelta(days=BARLEY - 1, hours=8 - int(name))
        new = CollectedLoadIn(uuid=uuid, name=name, crop="Malting barley", machine_kg=kg, shown_pct=pct, at=at)
        calibrating.collect(yard.tomas, yard.heron_4, new)
        if scale:
            calibrating.weigh(yard.tomas, uuid, LoadWeighedIn(scale_kg=scale, reference_pct=store))


def _set_in_field(yard: Yard, now: dt.datetime) -> None:
    for i, (name, days, crop, place, condition, values, why, worked) in enumerate(SET):
        uuid, at = made_uuid("set in the field", i), now - dt.timedelta(days=days) + dt.timedelta(minutes=40 * i)
        new = SetInFieldIn(uuid=uuid, crop=crop, place=place, condition=condition, values=values, why=why, at=at)
        field.keep(yard.tomas, getattr(yard, name), new)
        field.say_worked(yard.tomas, uuid, worked)


def _looked_at(yard: Yard, now: dt.datetime) -> None:
    """The first field of barley: grain lay behind it; a few days later it did not."""
    looks = ((BARLEY - 1, "behind", "first look"), (BARLEY - 4, "few", "second look"))
    for days, losses, name in looks:
        begun = now - dt.timedelta(days=days)
        found = walk_around(yard.tomas, yard.heron_4, name, begun, preparing.Wanted("first-field", "small-grain"))
        told = [("field-losses", losses), ("field-spread", "even"), ("tank-sample", "clean")]
        tell(yard.tomas, found, name, [(check, "all", seen(state)) for check, state in told])
        closing.finish(yard.tomas, found.pk, made_uuid("finished", name))
        told_as_finished(found, begun + dt.timedelta(minutes=20))
        OperatorNote.objects.filter(machine=yard.heron_4, closed_at=None).update(at=begun)
    for note in OperatorNote.objects.filter(machine=yard.heron_4, closed_at=None):
        notes.close_note(yard.lead, yard.heron_4, note.uuid, "Sieve stood further closed than the display said; zeroed.")


def _shook(yard: Yard, now: dt.datetime) -> None:
    """The Heron 4 while it shook, at two speeds of the engine; the Heron 6, which did not, and what was traced on it."""
    for machine, engine, shaking, days in (
        (yard.heron_4, 2000, True, 11),
        (yard.heron_4, 1600, True, 11),
        (yard.heron_6, 2000, False, 10),
    ):
        uuid = made_uuid("recording", machine.name, engine)
        ranges = {"rotor": "high", "chopper": "high", "feeder": "high"}
        words = "right shield, over the chopper"
        told = SimulatedIn(uuid=uuid, engine_rpm=engine, ranges=ranges, words=words, station="residue", shaking=shaking)
        recording.simulate(yard.tomas, machine, told)
        Recording.objects.filter(uuid=uuid).update(at=now - dt.timedelta(days=days, minutes=engine / 100))
    trace = tracing.begin(
        yard.tomas, yard.heron_6, TraceIn(uuid=made_uuid("trace"), symptom="grain-over-tail", words="grain behind it")
    )
    tracing.end(yard.tomas, trace, TraceEndIn(outcome="found", cause="sieve-not-zeroed", gone="put-right"))
    ended = now - dt.timedelta(days=BARLEY - 6)
    begun = ended - dt.timedelta(minutes=25)
    Trace.objects.filter(uuid=trace.uuid).update(begun_at=begun, ended_at=ended)
    looks = WalkAround.objects.filter(pk__in=[trace.walk_around_id])
    looks.update(started_at=begun, discarded_at=ended)
    WalkAroundEvent.objects.filter(walk_around__in=looks).update(at=ended)
