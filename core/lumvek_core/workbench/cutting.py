"""Bench subjects of what cuts: knife register, hold-downs, chopper balance."""

from typing import Any, Literal

from .. import registry
from ..calculators.balance import school_plans
from ..counted import counted
from ..errors import BadInput
from ..units import plain, show_unbalance
from .drawings import Blade, Clearance, ClearancesDrawing, RegisterDrawing, Residual, RotorDrawing
from .model import Choice, Example, Field, Line, Mark, Sheet, Subject, Table, Work


def register(work: Work) -> Sheet:
    found = work.run("knife_register", **work.given)
    left, right = work.get("short_left_mm"), work.get("short_right_mm")
    answers: dict[str, tuple[str, Mark]] = {
        "registered": ("In register", "sound"),
        "off_centre": ("Off centre", "due"),
        "stroke": ("Stroke is wrong", "due"),
        "both": ("Off centre, stroke wrong too", "due"),
    }
    answer, mark = answers[found["state"]]
    return work.sheet(
        answer, found["words"], mark,
        lines=[
            Line("Off centre by", work.mm(abs(found["centring_mm"]))),
            Line("Stroke off by", work.mm(abs(found["stroke_error_mm"]))),
            Line("Allowed", work.mm(work.get("tolerance_mm"))),
        ],
        why=[
            "Off centre = (short at the left − short at the right) ÷ 2: the head moves by that much to the left.",
            "Stroke = both together and twice the overtravel wanted: moving the head never cures it.",
        ],
        caution="Knives cut and a hand drive turns: gloves, nobody else's hands inside.",
        drawing=RegisterDrawing(left, right, work.get("tolerance_mm"), _short(work, left), _short(work, right)),
    )  # fmt: skip


def _short(work: Work, value: float) -> str:
    return "on the middle" if value == 0 else f"{work.mm(abs(value))} {'short' if value > 0 else 'past'}"


def hold_downs(work: Work) -> Sheet:
    results = []
    for i, row in enumerate(work.get("results")):
        if "measured_mm" in row:
            results.append({"name": row["name"], "measured_mm": row["measured_mm"]})
        elif {"go", "no_go"} <= set(row):
            results.append(row)
        else:
            raise BadInput(f"results.{i}.measured_mm", "give both feelers, or the clearance measured")
    found = work.run("hold_down", results=results, **work.take("low_mm", "high_mm", "card_mm"))
    names = found["names"]
    wrong = [
        f"{what}: {', '.join(names[key])}" for key, what in (("too_wide", "Too wide"), ("too_tight", "Too tight")) if names[key]
    ]
    lines = [
        Line("Right", str(found["right"])),
        Line("Too tight", str(found["too_tight"])),
        Line("Too wide", str(found["too_wide"])),
    ]
    low, high = work.get("low_mm"), work.get("high_mm")
    window = f"{plain(low, 2)} to {plain(high, 2)} mm ({plain(low / 0.0254, 0)} to {plain(high / 0.0254, 0)} thou)"
    lines.append(Line("Window", window))
    if found["card_in_window"] is not None:
        card = work.get("card_mm")
        place = (
            "in the window"
            if found["card_in_window"]
            else "thinner than the window"
            if card < low
            else "thicker than the window"
        )
        lines.append(Line("Your card", f"{plain(card, 2)} mm, {place}"))
    return work.sheet(
        "All right" if found["state"] == "sound" else f"{found['too_tight'] + found['too_wide']} to adjust",
        ". ".join(wrong) + "." if wrong else "Every hold-down passes the low feeler and stops the high one.",
        found["state"], lines=lines,
        why=[
            "Right: the low feeler passes and the high one does not, or the clearance measured lies between them.",
            "Wide lets the section lift and tear; tight heats. A card of another thickness is another gauge: its own thickness says what it proves.",
        ],
        drawing=ClearancesDrawing(
            [Clearance(one["name"], _state(one["name"], names), one.get("measured_mm")) for one in results],
            low, high, f"{plain(low, 2)} mm", f"{plain(high, 2)} mm", work.get("card_mm"),
        ),
    )  # fmt: skip


def _state(name: str, names: dict[str, list[str]]) -> Literal["right", "too-tight", "too-wide"]:
    return "too-tight" if name in names["too_tight"] else "too-wide" if name in names["too_wide"] else "right"


SCHOOL_NAMES = {"set": "Whole set", "pair": "Bad ones and their opposites", "single": "Only the bad ones"}


def chopper(work: Work) -> Sheet:
    positions = work.get("positions")
    bad, new = work.get("must_renew", []), work.get("new_mass_g")
    plans = school_plans(positions, bad, new)
    found = work.run(
        "rotor_balance",
        positions=positions,
        plans=plans,
        must_renew=bad,
        **work.take("rotor_mass_kg", "speed_rpm", "grade_mm_s"),
    )
    within = found["state"] == "within"
    most = max(found["unbalance_g_mm"], found["permissible_g_mm"], *(plan["unbalance_g_mm"] for plan in found["plans"]))
    lines = [
        Line("Unbalance now", show_unbalance(found["unbalance_g_mm"], most), "sound" if within else "due"),
        Line("Allowed", f"{show_unbalance(found['permissible_g_mm'], most)} (grade G {plain(work.get('grade_mm_s'), 1)})"),
        Line("Pull at speed", f"{plain(found['force_n'], 0)} N"),
    ]
    for plan in found["plans"]:
        knives = counted(plan["knives"], "knife", "knives")
        lines.append(
            Line(
                SCHOOL_NAMES[plan["name"]],
                f"{knives}, leaves {show_unbalance(plan['unbalance_g_mm'], most)}",
                "sound" if plan["within"] else "due",
            )
        )
    heavy = "" if found["heavy_angle_deg"] is None else f" Heavy side at {plain(found['heavy_angle_deg'], 0)}°."
    best = found["recommended"]
    mark: Mark
    if within and not bad:
        answer, words, mark = (
            "In balance",
            f"{show_unbalance(found['unbalance_g_mm'], most)} of {show_unbalance(found['permissible_g_mm'], most)} allowed.{heavy}",
            "sound",
        )
    else:
        left = next(plan for plan in found["plans"] if plan["name"] == best)
        answer, mark = f"Renew {left['knives']}: {SCHOOL_NAMES[best].lower()}", "due"
        words = (
            f"{show_unbalance(found['unbalance_g_mm'], most)} now, {show_unbalance(left['unbalance_g_mm'], most)} after.{heavy}"
        )
        if not left["within"]:
            words += " Even that is over the grade: have the rotor balanced."
    allowed = found["permissible_g_mm"]
    unbalance = found["unbalance_g_mm"]
    now = Residual("Now", found["heavy_angle_deg"], unbalance / allowed, show_unbalance(unbalance, most))
    return work.sheet(
        answer, words, mark, lines=lines,
        why=[
            "Each knife pulls outward with mass × radius at its angle; what does not cancel is the unbalance.",
            "Allowed = 1000 × grade × rotor mass ÷ angular speed (ISO 21940-11, grade 16 for agricultural machinery).",
            "Of the plans within the grade the one with fewest knives; none within: the one that leaves least.",
            "Static unbalance of the knives only: it does not replace balancing the rotor.",
        ],
        drawing=RotorDrawing(
            [Blade(one["name"], one["angle_deg"], one["mass_g"], one["name"] in bad) for one in positions],
            [now, *_left_by(positions, plans, bad, found, most)],
            show_unbalance(allowed, most),
            "Now" if within and not bad else SHORT_NAMES.get(best or "", ""),
        ),
        caution="A broken knife: never run on. Rotor locked or turned with a bar, nobody else's hands inside.",
    )  # fmt: skip


SHORT_NAMES = {"set": "Set", "pair": "Pair", "single": "Single"}


def _left_by(
    positions: list[dict[str, Any]], plans: list[dict[str, Any]], bad: list[str], found: dict[str, Any], most: float
) -> list[Residual]:
    """What each plan leaves, and which way that points: the balance of the rotor as the plan leaves it."""
    left = []
    for plan, told in zip(plans, found["plans"], strict=True):
        renewed = {*plan["renew"], *bad}
        after = [knife | {"mass_g": plan["new_mass_g"]} if knife["name"] in renewed else knife for knife in positions]
        rest = registry.find("rotor_balance").run({"positions": after, "rotor_mass_kg": 1, "speed_rpm": 1})
        share = rest["unbalance_g_mm"] / found["permissible_g_mm"]
        shown = show_unbalance(told["unbalance_g_mm"], most)
        left.append(Residual(SHORT_NAMES[plan["name"]], rest["heavy_angle_deg"], share, shown))
    return left


YES_NO = (Choice("yes", "yes"), Choice("no", "no"))
FOUR = [["1", "0", "260", "410"], ["2", "90", "260", "410"], ["3", "180", "260", "410"], ["4", "270", "260", "410"]]


def _knives(**light: str) -> list[list[str]]:
    return [[name, angle, radius, light.get(f"k{name}", mass)] for name, angle, radius, mass in FOUR]


SUBJECTS = (
    Subject(
        key="register",
        name="Knife register",
        group="Cutting",
        about="Where a section stops at each end of its stroke, and what puts it right.",
        draws=RegisterDrawing,
        calculators=("knife_register",),
        fields=(
            Field("short_left_mm", "Left end: short of the guard's middle", "signed", tool="tape", start="1", hint="2 past, or −2, where it runs past"),
            Field("short_right_mm", "Right end: short of the guard's middle", "signed", tool="tape", start="1", hint="2 past, or −2, where it runs past"),
            Field("tolerance_mm", "Allowed", start="3", from_check=("knife-register", "tolerance")),
            Field("overtravel_mm", "Overtravel wanted", start="0", from_check=("knife-register", "overtravel")),
        ),
        examples=(
            Example("In register", {"short_left_mm": "1", "short_right_mm": "0.5"}),
            Example("Borderline", {"short_left_mm": "4", "short_right_mm": "2 past"}),
            Example("Off centre", {"short_left_mm": "9", "short_right_mm": "7 past"}),
            Example("Stroke short", {"short_left_mm": "5", "short_right_mm": "4"}),
        ),
        source="3 mm is a starting value; some drives overtravel by design: your manual decides.",
        work=register,
        safety="Knife turned by hand: gloves, hold by the back, nobody else's hands inside.",
    ),
    Subject(
        key="hold-downs",
        name="Hold-down clearance",
        group="Cutting",
        about="Which hold-downs are tight or wide, by feeler or measured, and what your card proves.",
        draws=ClearancesDrawing,
        calculators=("hold_down",),
        fields=(
            Table(
                "results", "Hold-downs",
                (
                    Field("name", "Which", "text"),
                    Field("go", "Low passes", "yes-no", optional=True, choices=YES_NO, tool="feeler"),
                    Field("no_go", "High passes", "yes-no", optional=True, choices=YES_NO, tool="feeler"),
                    Field("measured_mm", "or measured", optional=True, tool="feeler"),
                ),
            ),
            Field("low_mm", "Low feeler", start="0.5", from_check=("hold-down", "go")),
            Field("high_mm", "High feeler", start="0.75", from_check=("hold-down", "no_go")),
            Field("card_mm", "Your card's thickness", optional=True, start="0.3", tool="caliper"),
        ),
        examples=(
            Example("All right", {"results": [["1", "yes", "no"], ["2", "yes", "no"], ["3", "", "", "0.6"]]}),
            Example("On the edge", {"results": [["1", "yes", "no"], ["2", "", "", "0.75"], ["3", "", "", "0.5"]]}),
            Example("Wide and tight", {"results": [["1", "yes", "yes"], ["2", "no", "no"], ["3", "", "", "1.1"], ["4", "yes", "no"]]}),
        ),
        source="0.5 to 0.75 mm (20 to 30 thou) is a starting value; your manual decides.",
        work=hold_downs,
        safety="Header raised and locked or on the ground, engine off, key out; the knife cuts at a standstill too.",
    ),
    Subject(
        key="chopper",
        name="Chopper balance",
        group="Cutting",
        about="How far out of balance the knives are, and what each school of renewing leaves.",
        draws=RotorDrawing,
        calculators=("rotor_balance",),
        fields=(
            Table(
                "positions", "Knives round the rotor",
                (
                    Field("name", "Knife", "text"),
                    Field("angle_deg", "Angle", "number", "°"),
                    Field("radius_mm", "Centre of mass out from the shaft", start="260"),
                    Field("mass_g", "Mass", "number", "g"),
                ),
            ),
            Field("must_renew", "Must be renewed", "names", optional=True, hint="3, 7"),
            Field("new_mass_g", "A new knife", "number", "g", "460"),
            Field("rotor_mass_kg", "Rotor with knives", "number", "kg", "96"),
            Field("speed_rpm", "Speed", "number", "rpm", "2900"),
            Field("grade_mm_s", "Balance grade G", "number", "mm/s", "16"),
        ),
        examples=(
            Example("Worn alike", {"positions": _knives(k2="405")}),
            Example("Borderline", {"positions": _knives(k1="391"), "must_renew": ""}),
            Example("One chipped", {"positions": _knives(k1="310"), "must_renew": "1"}),
            Example("One gone", {"positions": _knives(k3="0"), "must_renew": "3"}),
        ),
        source="ISO 21940-11; grade 16 for agricultural machinery. The maker's own figure goes before it.",
        work=chopper,
        safety="One knife broken or missing: do not run it at all until it is put right.",
    ),
)  # fmt: skip
