"""Bench subjects of chains and belts: stretch, take-up, a variable drive's belt."""

from ..units import plain
from .drawings import ChainDrawing, SheaveDrawing, SlotDrawing
from .model import Choice, Example, Field, Line, Mark, Sheet, Subject, Work, pct

WAYS = (
    Choice("pitches", "Over a number of pitches"),
    Choice("pushed", "Pushed together and pulled apart"),
    Choice("take-up", "From the take-up used"),
)
SCHOOLS = (
    Choice("first", "Whichever comes first"),
    Choice("percent", "By stretch"),
    Choice("one_then_end", "One half link out and full travel again"),
    Choice("all_fitted", "Every fitted half link out and full travel again"),
    Choice("full_link", "When a full link would have to go"),
    Choice("yearly", "Every year"),
)  # fmt: skip
FORMULAS = {
    "pitches": "Stretch = measured length ÷ (pitch × number of pitches) − 1.",
    "pushed": "Stretch = (pulled − pushed) ÷ pushed, less what a new chain shows in the same test.",
    "take-up": "Stretch = (twice the take-up used since new + half links removed × pitch) ÷ (pitch × pitches of the loop).",
}


def stretch(work: Work) -> Sheet:
    way = work.get("way")
    found = work.run("chain_stretch", **{name: value for name, value in work.given.items() if name != "way"})
    said = f"{pct(found['stretch_pct'], 2)} ± {pct(found['plus_minus_pct'], 2)}"
    words = {
        "sound": "Well within its limit.",
        "watch": "Near its limit: plan for new chain.",
        "due": "At its limit: renew every strand, and look at the sprockets.",
    }[found["state"]]
    if found["stretch_pct"] < 0:
        words = "Shorter than new: measure again, under tension, over the right number of pitches."
    lines = [Line("Limit", pct(work.get("limit_pct"), 2)), Line("Limit used", pct(100 * found["used"], 0))]
    if way == "pitches":
        new = work.get("pitch_mm") * work.get("pitches")
        lines += [Line("New", work.mm(new)), Line("At the limit", work.mm(new * (1 + work.get("limit_pct") / 100)))]
    why = [
        FORMULAS[way],
        f"That is {pct(found['stretch_pct'], 2)}; the tape's own {work.mm(work.get('tape_mm'))} make it uncertain by {pct(found['plus_minus_pct'], 2)}.",
        f"Limit {pct(work.get('limit_pct'), 2)}; watch from three quarters of it.",
    ]
    stretched, limit = pct(found["stretch_pct"], 2), work.get("limit_pct")
    shown, fresh, end = stretched, "new", f"limit {pct(limit, 2)}"
    if way == "pitches":
        shown, fresh, end = work.mm(work.get("measured_mm")), work.mm(new), work.mm(new * (1 + limit / 100))
    drawing = ChainDrawing(found["used"], shown, fresh, end, found["plus_minus_pct"] / limit)
    return work.sheet(said, words, found["state"], lines=lines, why=why, drawing=drawing)


TAKE_UP_ANSWERS: dict[str, tuple[str, Mark]] = {
    "none": ("Leave it", "sound"),
    "remove_half_link": ("Half a link out of every strand", "due"),
    "runs_out": ("Ends during the season", "watch"),
    "retire": ("Retire the chain", "due"),
}


def take_up(work: Work) -> Sheet:
    found = work.run("take_up", **work.given)
    answer, mark = TAKE_UP_ANSWERS[found["advice"]]
    hours = found["hours_to_end"]
    lines = [
        Line("Half a link can come out", "yes" if found["can_remove"] else "no"),
        Line("Take-up used after that", work.mm(found["used_after_mm"]))
        if found["can_remove"]
        else Line("Take-up used", work.mm(work.get("used_mm"))),
        Line(
            "Hours to its end",
            "no wear" if hours is None else f"{plain(hours, 0)} h of {plain(work.get('season_h'), 0)} h this season",
        ),
    ]
    if found["can_remove"] and found["hours_to_end_after"] is not None:
        lines.append(Line("Hours after that", f"{plain(found['hours_to_end_after'], 0)} h"))
    school = next(one.name for one in SCHOOLS if one.key == work.get("school"))
    return work.sheet(
        answer, found["words"], mark, lines=lines,
        why=[
            "Taking a half link out shortens the loop by one pitch; both ends of the loop share it, so the bolt goes back half a pitch.",
            f"{work.mm(work.get('travel_mm'))} travel − {work.mm(work.get('used_mm'))} used, at {plain(work.get('wear_mm_per_h'), 3)} mm an hour.",
            f"School of retirement: {school.lower()}.",
        ],
        drawing=SlotDrawing(
            work.get("used_mm"), work.get("travel_mm"), f"{work.mm(work.get('used_mm'))} used", work.mm(work.get("travel_mm")),
            found["used_after_mm"] if found["can_remove"] else None, f"{work.mm(found['used_after_mm'])} used",
        ),
    )  # fmt: skip


def belt(work: Work) -> Sheet:
    found = work.run("window", **work.given)
    reading, low, high = (work.get(name) for name in ("reading", "low", "high"))
    words: dict[str, tuple[str, str, Mark]] = {
        "low": ("Belt rides high", "Slide the idler so that it pulls the belt deeper between the halves.", "due"),
        "in_window": ("Tension is right", "The belt rides where it should.", "sound"),
        "high": ("Belt rides deep", "Let tension off: the belt is pulled too deep.", "due"),
    }
    answer, cure, mark = words[found["state"]]
    return work.sheet(
        answer, f"{work.mm(reading)} over the two halves, wanted {work.mm(low)} to {work.mm(high)}. {cure}", mark,
        lines=[Line("Outside to outside", work.mm(reading)), Line("Wanted", f"{work.mm(low)} to {work.mm(high)}"), Line("Misses by", work.mm(abs(found["miss"])))],
        why=[
            "Run to the slowest setting, engine off: the further the belt is pulled in, the further it pushes the halves of the lower sheave apart.",
            "Held against the window; both ends count as inside.",
        ],
        caution="Key out and kept, all motion stopped, shields only then.",
        drawing=SheaveDrawing(reading, low, high, work.mm(reading), work.mm(low), work.mm(high)),
    )  # fmt: skip


PITCH = Field(
    "pitch_mm", "Pitch", start="41.4", from_check=("feeder-chain-stretch", "pitch"), when={"way": ("pitches", "take-up")}
)
LIMIT = Field("limit_pct", "Limit", "number", "%", "3", from_check=("feeder-chain-stretch", "limit_pct"))
SUBJECTS = (
    Subject(
        key="chain",
        name="Chain stretch",
        group="Chains and belts",
        about="Stretch of a chain in any of three ways to measure it.",
        draws=ChainDrawing,
        calculators=("chain_stretch",),
        fields=(
            Field("way", "How it was measured", "choice", start="pitches", choices=WAYS),
            PITCH,
            Field("pitches", "Pitches measured over", "number", "", "20", when={"way": ("pitches",)}, from_check=("feeder-chain-stretch", "pitches")),
            Field("measured_mm", "Length under tension", tool="tape", start="842", when={"way": ("pitches",)}),
            Field("pushed_mm", "Pushed together", tool="tape", start="1202", when={"way": ("pushed",)}),
            Field("pulled_mm", "Pulled apart", tool="tape", start="1231", when={"way": ("pushed",)}),
            Field("new_slack_pct", "The same test on a new chain", "number", "%", "0", when={"way": ("pushed",)}),
            Field("loop_pitches", "Pitches in the loop today", "number", "", "118", when={"way": ("take-up",)}),
            Field("take_up_used_mm", "Take-up used", tool="tape", start="22", when={"way": ("take-up",)}),
            Field("half_links_removed", "Half links removed", "count", "", "1", when={"way": ("take-up",)}),
            Field("used_when_new_mm", "Take-up used when new", start="0", when={"way": ("take-up",)}),
            LIMIT,
            Field("tape_mm", "Read to", start="1"),
        ),
        examples=(
            Example("Good", {"way": "pitches", "measured_mm": "838"}),
            Example("Borderline", {"way": "pitches", "measured_mm": "848"}),
            Example("Done", {"way": "pitches", "measured_mm": "856"}),
            Example("Pushed and pulled", {"way": "pushed", "pushed_mm": "1202", "pulled_mm": "1231"}),
            Example("From the take-up", {"way": "take-up", "take_up_used_mm": "22", "half_links_removed": "1"}),
        ),
        source="3 % is a starting value of the trade; schools differ, and your manual decides.",
        work=stretch,
    ),
    Subject(
        key="take-up",
        name="Take-up and half links",
        group="Chains and belts",
        about="Whether the take-up lasts the season, whether a half link comes out, or the chain is done.",
        draws=SlotDrawing,
        calculators=("take_up",),
        fields=(
            Field("used_mm", "Take-up used", tool="tape", start="22"),
            Field("travel_mm", "Whole travel", tool="tape", start="60"),
            Field("pitch_mm", "Pitch", start="41.4", from_check=("feeder-chain-stretch", "pitch")),
            Field("half_links_removed", "Half links removed", "count", "", "0"),
            Field("half_links_fitted", "Half links fitted", "count", "", "1"),
            Field("wear_mm_per_h", "Take-up used an hour", "number", "mm/h", "0.05"),
            Field("season_h", "Coming season", "number", "h", "220"),
            Field("school", "Retire", "choice", start="first", choices=SCHOOLS),
            Field("stretch_pct", "Stretch, if measured", "number", "%", optional=True),
            LIMIT,
            Field("join_mm", "Room needed to join", start="0"),
        ),
        examples=(
            Example("Lasts", {"used_mm": "22"}),
            Example("Half a link out", {"used_mm": "52"}),
            Example("Runs out", {"used_mm": "18", "travel_mm": "26"}),
            Example("Done", {"used_mm": "60", "half_links_removed": "1"}),
        ),
        source="Half a pitch a half link is geometry; when to retire is a school.",
        work=take_up,
    ),
    Subject(
        key="belt",
        name="Belt in a variable drive",
        group="Chains and belts",
        about="How deep the belt rides, from outside to outside over the two halves of the lower sheave.",
        draws=SheaveDrawing,
        calculators=("window",),
        fields=(
            Field("reading", "Outside to outside", tool="caliper", start="86"),
            Field("low", "Wanted from", start="84.5"),
            Field("high", "Wanted to", start="87.5"),
        ),
        examples=(Example("Right", {"reading": "86"}), Example("On the edge", {"reading": "87.5"}), Example("Slack", {"reading": "81"})),
        source="About 86 mm (3 3/8 in) is a starting value; your manual decides.",
        work=belt,
        safety="Slowest setting first, then engine off, key out and kept, all motion stopped.",
    ),
)  # fmt: skip
