"""Bench subjects of the combine: reel, sieves, moisture, yield."""

from ..units import plain
from .drawings import HalvedSieve, Load, LoadsDrawing, MoistureDrawing, MoisturePair, ReelDrawing, SievesDrawing
from .model import Choice, Example, Field, Line, Mark, Sheet, Subject, Table, Work, both, pct


def reel(work: Work) -> Sheet:
    found = work.run("reel_speed", **work.given)
    return work.sheet(
        both(found["rpm"], 1, "rpm"),
        f"Tine tips run {pct(100 * (work.get('index') - 1), 0)} {'faster' if work.get('index') >= 1 else 'slower'} than the ground.",
        "" if 1.1 <= work.get("index") <= 1.25 else "watch",
        lines=[Line("Reel speed", both(found["rpm"], 1, "rpm")), Line("Usual index", "1.1 to 1.25")],
        drawing=ReelDrawing(work.get("index"), both(found["rpm"], 1, "rpm"), plain(work.get("index"), 2)),
        why=[
            "Reel speed = index × ground speed ÷ circumference over the tine tips.",
            "Set a minimum speed as well: at zero the reel stops.",
        ],
    )


def sieves(work: Work) -> Sheet:
    found = work.run("sieve_zero", **work.given)["sieves"]
    lines, sentences, off, uneven = [], [], 0, 0
    for name, sieve in found.items():
        uneven += sieve["sides"] == "uneven"
        off += sieve["zero"] == "off"
        good = sieve["sides"] == "even" and sieve["zero"] == "right"
        sentences.append(f"{name}: {sieve['words']}")
        mean = sum(work.given["sieves"][name]["gap_mm"].values()) / 2
        lines.append(
            Line(
                name,
                f"opens {work.mm(mean)}, left less right {work.signed(sieve['left_right_mm'])}, display off by {work.signed(sieve['offset_mm'])}",
                "sound" if good else "due",
            )
        )
    answer = "Cure the linkage first" if uneven else "Correct the display" if off else "Right"
    return work.sheet(
        answer, " ".join(sentences), "due" if uneven or off else "sound", lines=lines,
        why=[
            "Close it, open it until the display shows the figure, and find the gap at both sides with feelers.",
            "Sides first: an offset over a bent linkage hides it. Then offset = mean of both gaps − shown: add it to the display.",
        ],
        caution="Rotor and sieves stopped, key out and kept. A board to kneel on, empty pockets.",
        drawing=SievesDrawing(
            [
                HalvedSieve(
                    name, one["gap_mm"]["left"], one["gap_mm"]["right"], work.mm(one["gap_mm"]["left"]), work.mm(one["gap_mm"]["right"]),
                    work.mm(one["shown_mm"]), found[name]["sides"] == "even",
                )
                for name, one in work.given["sieves"].items()
            ]
        ),
    )  # fmt: skip


def moisture(work: Work) -> Sheet:
    found = work.run("moisture_offset", **work.given)
    words = {
        True: "The differences agree.",
        False: "The differences scatter: look for the cause before storing it.",
        None: "One pair only: take several loads.",
    }
    marks: dict[bool | None, Mark] = {True: "sound", False: "due", None: "watch"}
    stored = work.get("stored_pct")
    return work.sheet(
        f"Store {_plus(found['offset_pct'])} %",
        f"{_plus(stored)} % is stored now. {words[found['steady']]}",
        marks[found["steady"]],
        lines=[Line("Stored now", f"{_plus(stored)} %"), Line("Mean difference", f"{_plus(found['offset_pct'] - stored)} %"), Line("Differences spread over", pct(found["spread_pct"]))],
        why=[
            "What the machine shows contains the stored offset already, so the mean of (grain store − shown) is added to it, never typed over it.",
            "Steady: the differences spread over no more than 1 %.",
        ],
        drawing=MoistureDrawing(
            [MoisturePair(one["shown_pct"], one["reference_pct"]) for one in work.get("pairs")],
            f"{_plus(found['offset_pct'])} %", f"{_plus(stored)} %",
        ),
    )  # fmt: skip


def loads(work: Work) -> Sheet:
    found = work.run("yield_factor", **work.given)
    left_out = {one["index"] for one in found["rejected"]}
    weighed = [Load(one["machine_kg"], one["scale_kg"], i not in left_out) for i, one in enumerate(work.get("loads"))]

    def drawing(shown: str) -> LoadsDrawing:
        return LoadsDrawing(weighed, work.get("min_load_kg"), shown)

    if found["factor"] is None and found["low_flow_factor"] is None:
        words = f"Every load is under {plain(work.get('min_load_kg'), 0)} kg."
        return work.sheet("No load counts", words, "due", why=[_YIELD_WHY], drawing=drawing("No load counts"))
    lines = []
    for name, what in (("factor", "Factor"), ("low_flow_factor", "At low flow")):
        if found[name] is not None:
            lines.append(Line(what, f"× {plain(found[name], 4)}"))
    counted = [i for i, load in enumerate(weighed) if load.counts]
    lines += [
        Line(f"Load {i + 1}", f"machine {_plus(error)} %")
        for i, error in zip(counted, found["per_load_error_pct"], strict=True)
    ]
    lines += [Line(f"Load {one['index'] + 1}", f"left out: {one['reason']}", "watch") for one in found["rejected"]]
    wide = found["spread_pct"] > 5
    factor = found["factor"] if found["factor"] is not None else found["low_flow_factor"]
    words = f"Multiply the factor in force by {plain(factor, 4)}."
    return work.sheet(
        f"× {plain(factor, 3)}", words + (" The loads disagree: weigh more." if wide else ""), "watch" if wide or len(counted) < 2 else "sound",
        lines=lines, why=[_YIELD_WHY, "It multiplies the factor in force; it does not replace it."], drawing=drawing(f"× {plain(factor, 3)}"),
    )  # fmt: skip


_YIELD_WHY = (
    "Factor = all kilograms on the scale ÷ all kilograms the machine counted, of loads large enough and of one steady flow."
)


def _plus(value: float) -> str:
    return ("+" if value > 0 else "−" if value < 0 else "") + plain(abs(value), 2)


FLOWS = (Choice("normal", "normal flow"), Choice("low", "low flow"))
SUBJECTS = (
    Subject(
        key="reel",
        name="Reel speed",
        group="Combine and header",
        about="Reel speed for a ground speed and an index.",
        draws=ReelDrawing,
        calculators=("reel_speed",),
        fields=(
            Field("ground_km_h", "Ground speed", "number", "km/h", "8"),
            Field("reel_diameter_mm", "Reel diameter over the tine tips", tool="tape", start="1050"),
            Field("index", "Index", "number", "", "1.15"),
        ),
        examples=(Example("Usual", {}), Example("Fast reel", {"index": "1.25"}), Example("Too fast", {"index": "1.6"})),
        source="Index 1.1 to 1.25 is a starting value; the crop decides.",
        work=reel,
    ),
    Subject(
        key="sieves",
        name="Sieve zero",
        group="Combine and header",
        about="Whether display and sieve agree, and whether both sides open alike.",
        draws=SievesDrawing,
        calculators=("sieve_zero",),
        fields=(
            Table(
                "sieves", "Sieves",
                (
                    Field("name", "Sieve", "text"),
                    Field("shown_mm", "Display shows"),
                    Field("gap_mm.left", "Gap left", tool="feeler"),
                    Field("gap_mm.right", "Gap right", tool="feeler"),
                    Field("gap_tolerance_mm", "Sides may differ", start="1"),
                    Field("zero_tolerance_mm", "Display may be off", start="0.5"),
                ),
                keyed=True,
            ),
        ),
        examples=(
            Example("Right", {"sieves": [["Chaffer", "6", "6.2", "5.9"], ["Sieve", "6", "6", "6.3"]]}),
            Example("Display off", {"sieves": [["Chaffer", "6", "7.1", "6.9"], ["Sieve", "6", "6", "6.4"]]}),
            Example("Sides uneven", {"sieves": [["Chaffer", "6", "8.5", "5.5"], ["Sieve", "6", "5", "5.2"]]}),
        ),
        source="Tolerances are starting values; your manual decides.",
        work=sieves,
        safety="Inside the tail: full lockout, chaffer closed, board laid.",
    ),
    Subject(
        key="moisture",
        name="Moisture offset",
        group="Combine and header",
        about="The offset to store so that the machine agrees with the grain store.",
        draws=MoistureDrawing,
        calculators=("moisture_offset",),
        fields=(
            Field("stored_pct", "Offset stored now", "number", "%", "0"),
            Table("pairs", "Loads", (Field("shown_pct", "Machine showed", "number", "%"), Field("reference_pct", "Grain store says", "number", "%"))),
        ),
        examples=(
            Example("Steady", {"stored_pct": "-0.8", "pairs": [["14.2", "15.9"], ["13.8", "15.3"], ["15.0", "16.6"]]}),
            Example("One pair", {"stored_pct": "-0.8", "pairs": [["14.2", "15.9"]]}),
            Example("Scattered", {"stored_pct": "0.4", "pairs": [["14.2", "15.9"], ["13.0", "13.1"], ["16.1", "15.0"]]}),
        ),
        source="1 % spread is a starting value. The cell is calibrated empty, engine off, before any offset.",
        work=moisture,
    ),
    Subject(
        key="yield",
        name="Yield factor",
        group="Combine and header",
        about="What to multiply the yield factor by, from loads over a scale.",
        draws=LoadsDrawing,
        calculators=("yield_factor",),
        fields=(
            Table(
                "loads", "Loads",
                (
                    Field("machine_kg", "Machine counted", "number", "kg"),
                    Field("scale_kg", "Scale says", "number", "kg"),
                    Field("flow", "Flow", "choice", start="normal", choices=FLOWS),
                ),
            ),
            Field("min_load_kg", "Loads count from", "number", "kg", "1360"),
        ),
        examples=(
            Example("Agree", {"loads": [["2000", "2080"], ["1500", "1530"], ["2400", "2460"]]}),
            Example("One too small", {"loads": [["2000", "2080"], ["1500", "1530"], ["1200", "1300"]]}),
            Example("Disagree", {"loads": [["2000", "2280"], ["1500", "1450"], ["1900", "1960", "low"]]}),
        ),
        source="1,360 kg (3,000 lb) is a starting value; one steady flow a load.",
        work=loads,
    ),
)  # fmt: skip
