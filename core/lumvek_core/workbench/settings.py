"""Bench subjects for any part: notation, wear, a window, evenness."""

from ..units import plain, show_turns
from .drawings import DiscDrawing, EvenDrawing, EvenPlace, RulerDrawing, ScaleDrawing, ScaleMark
from .model import Choice, Example, Field, Line, Mark, Sheet, Subject, Table, Work, pct

TARGETS = (Choice("median", "The middle one"), Choice("mean", "Their mean"), Choice("number", "A figure"))


def length(work: Work) -> Sheet:
    default = "in" if work.system == "in" else "mm"
    found = work.run("parse_length", text=work.get("text"), default_unit=work.get("default_unit", default))
    return work.sheet(
        found["mm_text"], found["inches_text"],
        lines=[Line("Millimetres", f"{plain(found['value_mm'], 4)} mm"), Line("Nearest 1/32 in", found["inches_text"])],
        drawing=RulerDrawing(found["value_mm"], found["mm_text"], found["inches_text"]),
        why=["A fraction always means inches; a bare decimal takes the unit chosen; 1 in is 25.4 mm, 1 thou a thousandth of it."],
    )  # fmt: skip


def wear(work: Work) -> Sheet:
    found = work.run("wear_used", **work.given)
    new, limit, reading = (work.get(name) for name in ("new", "limit", "reading"))
    words = {"sound": "Sound.", "watch": "Near its limit: look again before the season's end.", "due": "At its limit: renew."}[
        found["state"]
    ]
    if found["beyond_new"]:
        words = "Better than new: measure again, or the size when new is another."
    return work.sheet(
        f"{pct(100 * found['used'], 0)} used", words, found["state"],
        drawing=DiscDrawing(new, limit, work.mm(new), work.mm(limit), reading, work.mm(reading)),
        lines=[Line("Left", pct(100 * found["remaining"], 0)), Line("Left to the limit", work.mm(abs(reading - limit)))],
        why=[
            "Used = (new − reading) ÷ (new − limit); the same for parts that shrink and gaps that grow.",
            f"({work.mm(new)} − {work.mm(reading)}) ÷ ({work.mm(new)} − {work.mm(limit)}) = {pct(100 * found['used'], 0)}; watch from {pct(100 * work.get('watch_from', 0.75), 0)}.",
        ],
    )  # fmt: skip


def window(work: Work) -> Sheet:
    found = work.run("window", **work.given)
    answers: dict[str, tuple[str, Mark]] = {
        "low": ("Too low", "due"),
        "in_window": ("In the window", "sound"),
        "high": ("Too high", "due"),
    }
    answer, mark = answers[found["state"]]
    turns, low, high = found["turns"], work.get("low"), work.get("high")
    turn = "" if turns is None or mark == "sound" else f" {show_turns(turns, 2)}."
    return work.sheet(
        answer, f"{work.mm(work.get('reading'))}, wanted {work.mm(work.get('low'))} to {work.mm(work.get('high'))}.{turn}", mark,
        drawing=ScaleDrawing(
            [ScaleMark(low, f"From {work.mm(low)}", "edge"), ScaleMark(high, f"To {work.mm(high)}", "edge")],
            work.get("reading"), work.mm(work.get("reading")),
        ),
        lines=[Line("Misses by", work.mm(abs(found["miss"]))), *([Line("Turns to the target", plain(turns, 2))] if turns is not None else [])],
        why=["Inside the window, its ends included, nothing is done. Turns = (target − reading) ÷ change a clockwise turn; the target is the middle unless given."],
    )  # fmt: skip


def even(work: Work) -> Sheet:
    target = work.get("target_figure") if work.get("target") == "number" else work.get("target")
    found = work.run("even", target=target, **work.take("readings", "tolerance", "per_turn"))
    answers: dict[str, tuple[str, Mark]] = {
        "even": ("Even", "sound"),
        "uneven": ("Uneven", "due"),
        "off_target": ("Even, but off the target", "due"),
    }
    answer, mark = answers[found["state"]]
    lines = [
        Line("Spread", work.mm(found["spread"])),
        Line("Allowed", work.mm(work.get("tolerance"))),
        Line("Target", work.mm(found["target"])),
    ]
    places = []
    for name, change in found["corrections"].items():
        turns = found["turns"][name] if found["turns"] else None
        said = ("+" if change > 0 else "−" if change < 0 else "") + work.mm(abs(change))
        value, worst = work.get("readings")[name], mark == "due" and name in found["worst"]
        places.append(EvenPlace(name, value, work.mm(value), said, worst))
        said += "" if turns is None else f", {show_turns(turns, 2)}" if turns else ", no turn"
        lines.append(Line(name, said, "due" if worst else ""))
    furthest = f" Furthest off: {', '.join(found['worst'])}." if found["worst"] and mark == "due" else ""
    return work.sheet(
        answer, f"They differ by {work.mm(found['spread'])}, allowed {work.mm(work.get('tolerance'))}.{furthest}", mark, lines=lines,
        drawing=EvenDrawing(places, found["target"], work.get("tolerance"), work.mm(found["target"])),
        why=["Spread = largest less smallest deviation from the target; each correction brings its position to the target."],
    )  # fmt: skip


SUBJECTS = (
    Subject(
        key="wear",
        name="Wear to a limit",
        group="Any part",
        about="How much of a part's wear is used, shrinking or growing.",
        draws=DiscDrawing,
        calculators=("wear_used",),
        fields=(
            Field("reading", "Reading", tool="caliper", start="371.5"),
            Field("new", "When new", start="381"),
            Field("limit", "Limit", start="368"),
            Field("watch_from", "Watch from", "number", "", "0.75", hint="share of the wear, 0 to 1"),
        ),
        examples=(Example("Sound", {"reading": "376"}), Example("Borderline", {"reading": "371"}), Example("Done", {"reading": "367"})),
        source="New and limit from the manual; watch from three quarters is a starting value.",
        work=wear,
    ),
    Subject(
        key="window",
        name="Setting in a window",
        group="Any part",
        about="Whether a setting lies in its window, and how many turns put it right.",
        draws=ScaleDrawing,
        calculators=("window",),
        fields=(
            Field("reading", "Reading", tool="depth gauge", start="30"),
            Field("low", "From", start="25"),
            Field("high", "To", start="45"),
            Field("target", "Target, if not the middle", optional=True),
            Field("per_turn", "Change a clockwise turn", "signed", optional=True, start="1.5"),
        ),
        examples=(Example("Inside", {}), Example("On the edge", {"reading": "45"}), Example("Outside", {"reading": "52", "per_turn": "-2"})),
        source="The window comes from the manual.",
        work=window,
    ),
    Subject(
        key="even",
        name="Several alike",
        group="Any part",
        about="Whether several positions are alike, and the correction of each, in turns where the adjuster is known.",
        draws=EvenDrawing,
        calculators=("even",),
        fields=(
            Table("readings", "Positions", (Field("name", "Position", "text"), Field("value", "Reading", tool="depth gauge")), keyed=True),
            Field("tolerance", "May differ by", start="2"),
            Field("target", "Bring them to", "choice", start="median", choices=TARGETS),
            Field("target_figure", "The figure", start="212", when={"target": ("number",)}),
            Field("per_turn", "Change a clockwise turn", "signed", optional=True),
        ),
        examples=(
            Example("Even", {"readings": [["L", "212"], ["R", "213"]]}),
            Example("On the line", {"readings": [["1", "24"], ["2", "25"], ["3", "26"]], "per_turn": "1.5"}),
            Example("Uneven", {"readings": [["L", "212"], ["R", "215.5"]], "per_turn": "1.75"}),
        ),
        source="The tolerance comes from the manual or the check.",
        work=even,
    ),
    Subject(
        key="length",
        name="Lengths in any notation",
        group="Any part",
        about="What 14 5/8, 25 thou or 37,1 cm is in the other system.",
        draws=RulerDrawing,
        calculators=("parse_length",),
        fields=(
            Field("text", "Length", "text", start="14 5/8", tool="tape"),
            Field("default_unit", "A bare figure is", "choice", start="mm", choices=(Choice("mm", "mm"), Choice("cm", "cm"), Choice("in", "in"), Choice("thou", "thou"))),
        ),
        examples=(Example("Fraction", {"text": "14 5/8"}), Example("Thou", {"text": "25 thou"}), Example("Feet", {"text": "1' 2 1/2\""})),
        source="1 in = 25.4 mm.",
        work=length,
    ),
)  # fmt: skip
