"""The two combines with their headers, and the air seeder."""

import datetime as dt

from inspection.actions import closing, decisions, notes, photos
from inspection.models import WalkAround
from inspection.queries import preparing
from shops.models import Member

from .history import heron_4_now
from .machines import Yard
from .pictures import drawn
from .record_helpers import confirm, made_uuid, seen, tell, told_as_finished, usual_but, walk_around

HERON_6 = {
    ("draper.coupler-faces", "all"): ["dirty"],
    ("draper.splines", "all"): ["rust"],
    ("draper.side-belt-tension", "L"): ["slack"],
    ("draper.knife-sections", "all"): ["4: 11, 12, 31, 58"],
    ("draper.hold-down", "hold-down-7"): ["too-wide"],
    ("draper.hold-down", "hold-down-8"): ["too-wide"],
    ("draper.hold-down", "hold-down-19"): ["too-tight"],
    ("draper.skid-shoes", "shoe-2"): ["4.6"],
    ("draper.drive-gear-case", "R"): ["low"],
    ("tie-rods", "R"): ["play"],
    ("tyres", "rear-left"): ["1.45"],
    ("draper.reel-tines", "reel-bar-4"): ["3: 18, 19, 40"],
}
HERON_4 = {
    **heron_4_now(),
    ("feeder-take-up", "L"): ["52", "60"],
    ("feeder-take-up", "R"): ["51", "60"],
    ("feeder-sprockets", "strand-2"): ["hooked"],
    ("drum-arms", "L"): ["212"],
    ("drum-arms", "R"): ["215.5"],
    ("chopper-knives", "knife-14"): ["strip"],
    ("chopper-knives", "knife-15"): ["chipped"],
    ("chopper-knives", "knife-16"): ["strip"],
    ("support-arm", "rotor-drive"): ["dust"],
    ("spline-grease", "rotor-1"): ["3320 h"],
    ("lower-gearbox", "all"): ["milky"],
    ("shaker-arms", "R"): ["loose"],
    ("jack-bearings", "outboard"): ["rough"],
    ("platform.guards", "all"): ["2: 9, 22"],
    ("vanes", "vane-4"): ["hook"],
    ("tyres", "front-right"): ["1.5"],
}
CORVANE = {
    ("discs-turn", "17"): ["drags"],
    ("discs-turn", "18"): ["still"],
    ("closers-turn", "5"): ["drags"],
    ("firmers-drag", "30"): ["up"],
    ("outlet-flow", "22"): ["weak"],
}


def load(yard: Yard, now: dt.datetime) -> None:
    """Heron 6 with its draper half done, Heron 4 with its platform finished, the Corvane's dry run under way."""
    _half(yard, now - dt.timedelta(hours=5))
    _finished(yard, now - dt.timedelta(days=9))
    dry = walk_around(yard.ines, yard.corvane, "corvane-dry-run", now - dt.timedelta(hours=3), preparing.Wanted("pre-season"))
    confirm(yard.ines, dry, "corvane-dry-run", 3)
    tell(yard.ines, dry, "corvane-dry-run", usual_but(dry, CORVANE, visits=3))
    springs = [("firmer-springs", "12", seen("weak-right")), ("firmer-springs", "13", seen("gone-left"))]
    tell(yard.ines, dry, "corvane-springs", springs)


def _half(yard: Yard, begun: dt.datetime) -> None:
    notes.note(
        yard.lead,
        yard.heron_6,
        made_uuid("note", "heron-6"),
        "Growls from the left after unloading, only with the tank nearly full. Header dropped to the right twice in lupins.",
    )
    wanted = preparing.Wanted("winter", headers=[yard.weir_107.pk], people=[yard.ines.pk])
    half = walk_around(yard.tomas, yard.heron_6, "heron-6-winter", begun, wanted)
    visits = len(half.plan["visits"]) // 2
    confirm(yard.tomas, half, "heron-6-winter", visits + 1)
    told = list(usual_but(half, HERON_6, visits=visits, skip=["draper.belt-slats", "draper.guards"]))
    told += [("draper.guards", "all", {"state": "not-seen", "reason": "Too dirty to judge"})]
    tell(yard.tomas, half, "heron-6-winter", told)
    _photo(yard.tomas, half, "draper.knife-sections", "all", "Sections 11 and 12, chipped at the tip")
    decisions.decide(yard.lead, half.pk, made_uuid("decision", "heron-6"), "draper.knife-sections", ["all"], "do")


def _finished(yard: Yard, begun: dt.datetime) -> None:
    notes.note(yard.lead, yard.heron_4, made_uuid("note", "heron-4"), "Shakes from 900 rpm up, worse with the chopper in.")
    wanted = preparing.Wanted("winter", headers=[yard.sill_61.pk], people=[yard.tomas.pk])
    done = walk_around(yard.ines, yard.heron_4, "heron-4-winter", begun, wanted)
    confirm(yard.ines, done, "heron-4-winter", len(done.plan["visits"]))
    told = list(usual_but(done, HERON_4))
    told.append(("fault-codes", "all", seen("2 stored: header height low, fan speed", posture="cab, key on, engine off")))
    tell(
        yard.ines, done, "heron-4-winter", list({(check, place): (check, place, what) for check, place, what in told}.values())
    )
    _photo(yard.ines, done, "chopper-knives", "knife-14", "Hard strip gone, 14 and 16")
    _photo(yard.ines, done, "feeder-sprockets", "strand-2", "Middle strand, hooked")
    for check, place in (("feeder-sprockets", "strand-2"), ("chopper-knives", "knife-14"), ("chopper-knives", "knife-16")):
        decisions.decide(yard.lead, done.pk, made_uuid("decision", check, place), check, [place], "do")
    decisions.decide(
        yard.lead,
        done.pk,
        made_uuid("decision", "vanes"),
        "vanes",
        ["vane-4"],
        "wait",
        until="after barley",
        reason="barley straw only",
    )
    decisions.decide(
        yard.lead,
        done.pk,
        made_uuid("decision", "tyres"),
        "tyres",
        ["front-right"],
        "decline",
        reason="inflated on the spot, watched",
    )
    closing.finish(yard.ines, done.pk, made_uuid("finished", str(done.pk)))
    told_as_finished(done, begun + dt.timedelta(days=1, hours=2))


def _photo(member: Member, walk_around: WalkAround, check: str, place: str, caption: str) -> None:
    photos.add(member, walk_around.pk, made_uuid(walk_around.pk, "photo", check, place), check, place, caption, drawn(check))
