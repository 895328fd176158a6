"""Bench subjects of the planter: opener contact with its washers, the bar, the depth that is dug up."""

from typing import Any

from ..counted import counted, noun
from ..units import plain
from .drawings import BarDrawing, ContactBand, ContactDrawing, DugRow, FurrowDrawing
from .model import Example, Field, Line, Mark, Sheet, Subject, Table, Work

GEOMETRY = "Geometry of two flat discs; starting values of the trade. Your operator's manual decides."


def opener(work: Work) -> Sheet:
    band = work.given["band"]
    found = work.run("opener_contact", **work.take("readings", "disc_diameter_mm", "included_angle_deg", "band"))
    by = work.feeler(band["feeler_mm"])
    equivalent = work.mm(found["equivalent_span_mm"])
    words = {"low": "Too little contact", "in_band": "Contact is in its band", "high": "Too much contact"}[found["state"]]
    mark: Mark = "sound" if found["state"] == "in_band" else "due"
    lines = [
        Line("Wanted", f"{work.mm(band['low_mm'])} to {work.mm(band['high_mm'])} by {by}"),
        Line(
            "Steel on steel", work.mm(found["true_contact_mm"]) if found["true_contact_mm"] else "none: by feeler, not by steel"
        ),
        Line("Places differ by", work.mm(found["spread_mm"])),
    ]
    lines += [
        Line(f"Band by {work.feeler(b['feeler_mm'])}", f"{work.mm(b['low_mm'])} to {work.mm(b['high_mm'])}")
        for b in found["band_equivalents"]
    ]
    why = [
        "A feeler stops where the gap between the leaning rims is as wide as it is thick. From the span, the disc's radius and the "
        "angle between the discs follows how far they overlap; from the overlap, what any other feeler would show.",
        f"Overlap {plain(found['overlap_mm'], 3)} mm beyond just touching"
        + (" at most: a feeler passed right through" if found["overlap_is_upper_bound"] else "")
        + f"; by {by} that is {equivalent}.",
        "A geometric approximation: real discs also flex.",
    ]
    sentence = f"{words}: {equivalent} by {by}."
    named = next((name for name, own in work.feelers.items() if abs(own - band["feeler_mm"]) < 1e-9), "")
    drawing = ContactDrawing(
        diameter=work.get("disc_diameter_mm"),
        overlap=found["overlap_mm"],
        equivalent=found["equivalent_span_mm"],
        shown=equivalent,
        by=f"by {named or by}",
        low=band["low_mm"],
        high=band["high_mm"],
        band_shown=f"{work.mm(band['low_mm'])} to {work.mm(band['high_mm'])}",
        bands=[
            ContactBand(f"{b['feeler_mm']:.2f}".removeprefix("0"), b["low_mm"], b["high_mm"]) for b in found["band_equivalents"]
        ],
    )
    if not {"inside", "outside"} <= set(work.given):
        return work.sheet(equivalent, sentence, mark, lines=lines, why=why, drawing=drawing)
    return _shims(work, found, sentence, mark, lines, why, drawing)


def _shims(
    work: Work, found: dict[str, Any], sentence: str, mark: Mark, lines: list[Line], why: list[str], drawing: ContactDrawing
) -> Sheet:
    gain = work.run("shim_gain", pairs=work.get("pairs", []), prior_mean_mm=work.get("prior_mean_mm"))
    advice = work.run(
        "opener_shim", contact_mm=found["equivalent_span_mm"], **gain,
        **work.take("band", "disc_diameter_mm", "disc_limit_mm", "inside", "outside"),
    )  # fmt: skip
    learnt = f"{work.mm(gain['gain_mm'])} ± {work.mm(gain['gain_sd_mm'])} a washer"
    trials = len(work.get("pairs", []))
    lines.append(Line("One washer brings", learnt))
    why.append(
        f"One washer: {learnt}, from {trials or 'no'} {noun(trials, 'trial')} on this machine and the usual 14 ± 10 mm. "
        "Linear over one or two washers only."
    )
    if advice["advice"] == "move":
        where = "from inside to outside" if advice["move"] > 0 else "from outside to inside"
        many = abs(advice["move"])
        predicted = f"{work.mm(advice['predicted_mm'])} ± {work.mm(advice['predicted_sd_mm'])}"
        answer = f"Move {counted(many, 'washer')} {where}"
        lands = "in the band" if advice["lands_in_band"] else "still outside the band"
        sentence += f" {_which(advice)}; then about {predicted}, {lands}. Measure again after moving."
    else:
        answer = {"none": "Leave the washers", "replace_discs": "Renew both discs", "no_help": "Washers will not help"}[
            advice["advice"]
        ]
        if advice["advice"] == "replace_discs":
            sentence += " The disc is at its limit: washers would only make the tube guard carry the load."
            mark = "due"
    return work.sheet(answer, sentence, mark, lines=lines, why=why, drawing=drawing)


def _which(advice: dict[str, Any]) -> str:
    shares = [(abs(advice[side]), side) for side in ("left", "right") if advice[side]]
    return "Take " + " and ".join(f"{many} at the {side} disc" for many, side in shares)


def bar(work: Work) -> Sheet:
    found = work.run("bar_level", **work.given)
    words = {"nose_down": "Nose down", "level": "Level", "nose_up": "Nose up"}[found["state"]]
    raised = found["raise_hitch_mm"]
    move = f"{'Raise' if raised > 0 else 'Lower'} the hitch {work.mm(abs(raised))} to bring it dead level."
    pitch = f"{plain(abs(found['pitch_deg']), 2)}°"
    side = "nose down" if found["pitch_deg"] > 0 else "nose up"
    return work.sheet(
        words,
        f"{pitch} {side}, give or take {plain(found['plus_minus_deg'], 2)}°. "
        + ("Within what is allowed." if found["state"] == "level" else move),
        "sound" if found["state"] == "level" else "due",
        lines=[
            Line("Pitch", f"{pitch} {side}"),
            Line("Hitch for dead level", f"{'raise' if raised > 0 else 'lower'} {work.mm(abs(raised))}"),
            Line("Allowed", f"{plain(work.get('nose_up_max_deg'), 1)}° nose up to {plain(work.get('nose_down_max_deg'), 1)}° nose down"),
        ],
        why=[
            "Pitch is the angle whose slope is (rear − front) ÷ distance between the two points; raising the hitch by that slope "
            "times the lever from hitch point to wheels brings it level.",
            f"({work.mm(work.get('rear_mm'))} − {work.mm(work.get('front_mm'))}) ÷ {work.mm(work.get('base_mm'))} = {pitch}; called out only "
            "when it is out by more than the two readings can be wrong.",
            "Measured while it works, in the ground that is to be planted: standing it always looks level.",
        ],
        caution="Two people: one drives, one alongside in sight. Nobody between tractor and planter.",
        drawing=BarDrawing(found["pitch_deg"], f"{pitch} {side}", work.mm(work.get("front_mm")), work.mm(work.get("rear_mm"))),
    )  # fmt: skip


CAUSES = {
    "none": ("All rows at depth", "sound"),
    "whole_planter": ("The whole planter is off depth", "due"),
    "rows": ("Single rows are off depth", "due"),
    "track_rows": ("The rows behind the wheels are off depth", "due"),
    "mixed": ("The planter is off, and rows besides", "due"),
}


def depth(work: Work) -> Sheet:
    found = work.run("depth_check", **work.given)
    answer, mark = CAUSES[found["cause"]]
    if found["cause"] == "none" and (found["unsure"] or found["uneven"]):
        answer, mark = "Dig more before judging" if found["unsure"] else "Depth within rows is uneven", "watch"
    offset = found["offset_mm"]
    off = "on target" if abs(offset) < 0.05 else f"{work.mm(abs(offset))} {'too deep' if offset > 0 else 'too shallow'}"
    said = f"Median {work.mm(found['planter_median_mm'])}, {off}."
    named = [(found["flagged"], "off"), (found["unsure"], "unsure, dig more"), (found["uneven"], "uneven within the row")]
    said += "".join(f" Row {', '.join(names)}: {what}." for names, what in named if names)
    lines = [Line("Planter median", work.mm(found["planter_median_mm"])), Line("Off target by", work.signed(offset))]
    if found["track_difference_mm"] is not None:
        lines.append(Line("Behind the wheels", f"{work.signed(found['track_difference_mm'])} against the others"))
    if found["pooled_sd_mm"] is not None:
        lines.append(Line("Scatter within a row", f"{plain(found['pooled_sd_mm'], 1)} mm (one standard deviation)"))
    if found["digs_needed"]:
        lines.append(Line("Digs a row needed", str(found["digs_needed"])))
    track, doubtful = {str(row) for row in work.get("track_rows", [])}, {*found["flagged"], *found["unsure"]}
    rows = [
        DugRow(name, work.get("rows")[name], work.mm(row["mean"]).removesuffix(" mm"), name in track, name in doubtful)
        for name, row in found["rows"].items()
    ]
    return work.sheet(
        answer, said, mark,  # type: ignore[arg-type]
        lines=lines,
        why=[
            "Each row's mean is held against the median of all rows, and the median against the target. A row is off when it differs by "
            "more than the tolerance, by more than three times the usual scatter between rows, and by more than its own digs can be wrong.",
            "Rows behind wheels are compared with the others as two groups.",
            "Digs needed: so many that a row's mean is known to within the tolerance, at least three.",
        ],
        drawing=FurrowDrawing(rows, work.get("target_mm"), work.get("tolerance_mm"), work.mm(work.get("target_mm"))),
    )  # fmt: skip


SPANS = Table(
    "readings", "Spans between two feelers, three places round the discs",
    (Field("span_mm", "Span", tool="tape"), Field("feeler_mm", "Feeler", "feeler", start="card", hint="card, paper, folded paper or mm")),
)  # fmt: skip
DIAMETER = Field("disc_diameter_mm", "Disc diameter today", tool="tape", start="376", hint="mean of the pair")
SUBJECTS = (
    Subject(
        key="opener",
        name="Opener contact and washers",
        group="Planter",
        about="How far a pair of opener discs touches, whatever feeler was used, and which washer to move.",
        draws=ContactDrawing,
        calculators=("opener_contact", "shim_gain", "opener_shim"),
        fields=(
            SPANS,
            DIAMETER,
            Field("disc_limit_mm", "Disc limit", start="368", from_check=("opener-disc-diameter", "limit")),
            Field("band.low_mm", "Band from", start="38", from_check=("opener-contact", "low")),
            Field("band.high_mm", "Band to", start="64", from_check=("opener-contact", "high")),
            Field("band.feeler_mm", "Band stated for", "feeler", start="card", from_check=("opener-contact", "feeler")),
            Field("included_angle_deg", "Angle between the discs", "number", "°", "14", from_check=("opener-contact", "angle_deg")),
            Field("inside.left", "Inside, left disc", "count", "washers", "1", optional=True),
            Field("inside.right", "Inside, right disc", "count", "washers", "1", optional=True),
            Field("outside.left", "Outside, left disc", "count", "washers", "2", optional=True),
            Field("outside.right", "Outside, right disc", "count", "washers", "2", optional=True),
            Table(
                "pairs", "What moving washers did on this machine",
                (
                    Field("moved", "Moved", "count", "washers", hint="inside to outside; minus for back"),
                    Field("before_mm", "Contact before"),
                    Field("after_mm", "Contact after"),
                ),
                optional=True,
            ),
        ),
        examples=(
            Example("In the band", {"readings": [["30", "paper"], ["31", "paper"], ["28", "paper"]]}),
            Example("Just too little", {"readings": [["36", "card"], ["38", "card"], ["37", "card"]], "pairs": [["1", "24", "43"], ["2", "20", "51"]]}),
            Example("Far too little", {"readings": [["12", "card"], ["20", "card"], ["15", "card"]], "disc_diameter_mm": "371.5", "pairs": [["1", "24", "43"]]}),
            Example("Disc at its limit", {"readings": [["22", "card"], ["25", "card"], ["24", "card"]], "disc_diameter_mm": "367.5"}),
        ),
        source=GEOMETRY,
        work=opener,
        safety="Disc edges cut: gloves, unit raised and locked.",
    ),
    Subject(
        key="bar",
        name="Bar level",
        group="Planter",
        about="Pitch of the bar in work and how far to raise or lower the hitch.",
        draws=BarDrawing,
        calculators=("bar_level",),
        fields=(
            Field("front_mm", "Height over ground, front point", tool="tape", start="540"),
            Field("rear_mm", "Height over ground, rear point", tool="tape", start="545"),
            Field("base_mm", "Distance between the points", start="1250"),
            Field("hitch_lever_mm", "Hitch point to the wheels it tips about", start="2900"),
            Field("reading_mm", "Each height read to", start="3"),
            Field("nose_up_max_deg", "Nose up allowed", "number", "°", "2"),
            Field("nose_down_max_deg", "Nose down allowed", "number", "°", "0"),
        ),
        examples=(
            Example("Level", {"front_mm": "545", "rear_mm": "540"}),
            Example("Borderline", {"front_mm": "540", "rear_mm": "544"}),
            Example("Nose down", {"front_mm": "540", "rear_mm": "572"}),
        ),
        source="Level to 2° nose up; starting value of the trade. Your operator's manual decides.",
        work=bar,
        safety="Somebody walks beside a moving planter: one drives, agreed stop call, in sight of each other.",
    ),
    Subject(
        key="depth",
        name="Seed depth by digging",
        group="Planter",
        about="Which rows plant off depth, whether all do, and whether it is the rows behind the wheels.",
        draws=FurrowDrawing,
        calculators=("depth_check",),
        fields=(
            Table(
                "rows", "Depths dug up, row by row",
                (Field("name", "Row", "text"), Field("value", "Depths", "lengths", tool="depth gauge", hint="48 51 50")),
                keyed=True,
            ),
            Field("target_mm", "Wanted depth", start="50"),
            Field("tolerance_mm", "Allowed either way", start="5"),
            Field("track_rows", "Rows behind wheels", "names", optional=True, hint="5, 6"),
        ),
        examples=(
            Example("All alike", {"rows": [["1", "49 51 50"], ["2", "50 52 49"], ["3", "48 50 51"], ["4", "51 49 50"], ["5", "50 50 48"], ["6", "49 51 51"]], "track_rows": "3, 4"}),
            Example("Behind the wheels", {"rows": [["1", "48 51 50"], ["2", "49 52 50"], ["3", "47 50 49"], ["4", "51 50 49"], ["5", "38 41 39"], ["6", "37 40 42"], ["7", "50 52 49"], ["8", "50 48 51"]], "track_rows": "5, 6"}),
            Example("All shallow, one row worse", {"rows": [["1", "38 41 40"], ["2", "39 40 41"], ["3", "24 26 25"], ["4", "40 38 41"], ["5", "41 39 40"], ["6", "33 47 40"]], "track_rows": ""}),
        ),
        source="Robust statistics (median and scatter of the rows). Target and tolerance by crop and soil.",
        work=depth,
        takes_file="depths",
    ),
)  # fmt: skip
