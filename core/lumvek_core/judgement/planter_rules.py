"""Rules for what is measured while the planter works: the bar's pitch, and the depth that is dug up."""

from ..calculators import planter
from ..catalogue.model import Check
from ..counted import counted
from ..positions import Position
from ..units import plain
from .context import Context
from .parse_reading import Value
from .rules import Advice, BarRule, DepthRule, Row, Verdict
from .words import Words


def bar(rule: BarRule, numbers: list[float], say: Words) -> Verdict:
    """Pitch from two heights; out only by more than the heights can be wrong."""
    front, rear = numbers
    found = planter.bar_level(
        planter.BarGiven(front, rear, rule.base, rule.lever, nose_up_max_deg=rule.nose_up, nose_down_max_deg=rule.nose_down)
    )
    way = "nose down" if found.pitch_deg > 0 else "nose up"
    shown = f"{plain(abs(found.pitch_deg), 2)}° {way}, give or take {plain(found.plus_minus_deg, 2)}°"
    facts = {"front": front, "rear": rear, "pitch": found.pitch_deg, "raise": found.raise_hitch_mm}
    why = [
        f"(rear {say.figure(rear)} − front {say.figure(front)}) ÷ {say.figure(rule.base)} between the points is {plain(found.pitch_deg, 2)}°; "
        f"allowed {plain(rule.nose_up, 1)}° nose up to {plain(rule.nose_down, 1)}° nose down.",
        f"Raising the hitch by that slope over the {say.figure(rule.lever)} from hitch point to wheels brings it dead level.",
    ]
    if found.state == "level":
        return Verdict("sound", "none", f"{shown}: level enough.", why, facts)
    verb = "raise" if found.raise_hitch_mm > 0 else "lower"
    move = f"{verb} the hitch {say.figure(abs(found.raise_hitch_mm))} for dead level"
    return Verdict("due", "adjust", f"{shown}: {move}, and look again in work.", why, facts)


CAUSES = {
    "none": "all rows at depth",
    "whole_planter": "the whole planter is off",
    "rows": "single rows are off",
    "track_rows": "the rows behind the wheels are off",
    "mixed": "the planter is off, and rows besides",
}


def depth(check: Check, rule: DepthRule, position: Position, value: Value, context: Context, say: Words) -> Verdict:
    """One row's digs among all that are dug so far: off by itself, off with the others, or to be dug again."""
    dug = {key: other.numbers for key, other in context.others.get(check.key, {}).items() if other.numbers}
    dug[position.key] = value.numbers
    track: list[str | int] = [str(row) for row in context.track_rows if str(row) in dug]
    found = planter.depth_check(planter.DepthGiven(dug, rule.target, rule.tolerance, track))
    row = found.rows[position.key]
    offset = found.offset_mm
    facts = {"mean": row.mean, "target": rule.target, "tolerance": rule.tolerance, "median": found.planter_median_mm}
    facts |= {f"dig_{i}": dig for i, dig in enumerate(value.numbers)}
    facts |= {"off": float(position.key in found.flagged or position.key in found.unsure)}
    rows = [Row("Planter median", say.figure(found.planter_median_mm)), Row("Cause", CAUSES[found.cause])]
    if found.track_difference_mm is not None:
        rows.append(Row("Rows behind wheels", f"{_signed(found.track_difference_mm, say)} against the others"))
    if found.digs_needed:
        rows.append(Row("Digs a row needed", str(found.digs_needed)))
    why = [
        f"Row mean {say.figure(row.mean)}, median of {counted(len(dug), 'row')} {say.figure(found.planter_median_mm)}, wanted {say.figure(rule.target)} ± "
        f"{say.figure(rule.tolerance)}. A row is off when it differs from the others by more than that, more than the usual scatter between rows, "
        "and more than its own digs can be wrong."
    ]
    advice = Advice(rows)
    shown = f"{say.figure(row.mean)} on average"
    if position.key in found.flagged:
        side = "shallower" if row.mean < found.planter_median_mm else "deeper"
        behind = ", like the others behind wheels" if found.cause == "track_rows" else ""
        reason = f"{shown}, {say.figure(abs(row.mean - found.planter_median_mm))} {side} than the other rows{behind}: settings first, then wear."
        return Verdict("due", "adjust", reason, why, facts, advice=advice)
    if position.key in found.unsure:
        reason = f"{shown}, unlike the other rows, but the digs scatter: dig more here before judging."
        return Verdict("watch", "recheck", reason, why, facts, advice=advice)
    if found.cause in ("whole_planter", "mixed"):
        reason = f"{shown}: like the whole planter {say.figure(abs(offset))} {'too deep' if offset > 0 else 'too shallow'}."
        return Verdict("due", "adjust", reason, why, facts, advice=advice)
    if position.key in found.uneven:
        return Verdict("watch", "recheck", f"{shown}, but uneven within the row.", why, facts, advice=advice)
    return Verdict(
        "sound", "none", f"{shown}, wanted {say.figure(rule.target)} ± {say.figure(rule.tolerance)}.", why, facts, advice=advice
    )


def _signed(value: float, say: Words) -> str:
    return ("+" if value > 0 else "−" if value < 0 else "") + say.figure(abs(value))
