"""Bench subjects of the seed: spacing, test stand, rate, plates."""

from ..counted import counted
from ..units import plain
from .drawings import Cell, CellsDrawing, RingDrawing, RowMetreDrawing, StripDrawing
from .model import Example, Field, Line, Mark, Sheet, Subject, Table, Work, both, pct


def spacing(work: Work) -> Sheet:
    found = work.run("seed_spacing", **work.given)
    nominal = work.get("nominal_mm")
    shares = {name: 100 * found[name] for name in ("feed", "misses", "multiples")}
    off = found["plus_minus_pct"]
    names = {"feed": "Regular", "misses": "Misses", "multiples": "Multiples"}
    lines = [Line(names[name], f"{pct(share)} ± {pct(off[name])}") for name, share in shares.items()]
    if found["precision"] is not None:
        lines.append(Line("Scatter of the regular ones", pct(100 * found["precision"]) + " of the nominal"))
    lines.append(Line("Spacings", str(found["n"])))
    if found["few"]:
        words, mark = f"{counted(found['n'], 'spacing is', 'spacings are')} too few to advise from: measure at least 100.", ""
    elif shares["misses"] + shares["multiples"] <= 2:
        words, mark = "Few misses and multiples.", "sound"
    else:
        worse = "Misses" if shares["misses"] >= shares["multiples"] else "Multiples"
        words, mark = (
            f"{worse} lead: {pct(shares[worse.lower()])}.",
            "due" if shares["misses"] + shares["multiples"] > 5 else "watch",
        )
    scattered = found["precision"] is not None and found["precision"] > 0.25
    if scattered and not found["few"]:
        words += " The regular ones scatter widely: look at bristles, guards and exit, not at the singulator."
        mark = "due" if mark == "due" else "watch"
    return work.sheet(
        f"{pct(shares['feed'])} regular", words, mark,  # type: ignore[arg-type]
        lines=lines,
        why=[
            f"Up to half of {work.mm(work.get('nominal_mm'))} counts as a multiple, above one and a half as a miss, the rest as regular feed; "
            "shares are of all spacings.",
            "Scatter is the standard deviation of the regular ones over the nominal. The ± is the 95 % range of a share of so many spacings (Wilson).",
            "Above 5 % of misses and multiples together: due; above 2 %: watch. Starting values of the trade.",
        ],
        drawing=StripDrawing(
            work.get("spacings_mm"), nominal, work.mm(nominal), work.mm(nominal / 2), work.mm(nominal * 1.5)
        ),
    )  # fmt: skip


def stand(work: Work) -> Sheet:
    found = work.run("stand_run", **work.given)
    answers: dict[str, tuple[str, Mark]] = {
        "good": ("Good as it is.", "sound"),
        "skips": ("Skips: gentler singulator or more vacuum; look at seal, cells and brush.", "due"),
        "doubles": ("Doubles: harder singulator or less vacuum; look for a flat on its lobes.", "due"),
        "both": ("Skips and doubles: look at disc, singulator and seal before setting anything.", "due"),
    }
    words, mark = answers[found["advice"]]
    return work.sheet(
        f"{pct(found['singulation_pct'], 2)} singled", words, mark,
        lines=[Line("Skips", pct(found["skip_pct"], 2)), Line("Doubles", pct(found["double_pct"], 2)), Line("Good from", pct(work.get("good_pct"), 1))],
        why=[
            "Singulation = 100 × (1 − (skips + doubles) ÷ cells expected).",
            "Below the limit the advice names what takes more than half of the allowance by itself.",
        ],
        drawing=RingDrawing(
            found["skip_pct"], found["double_pct"], pct(found["singulation_pct"], 2), pct(found["skip_pct"], 2), pct(found["double_pct"], 2)
        ),
    )  # fmt: skip


def rate(work: Work) -> Sheet:
    found = work.run("seed_rate", **work.given)
    return work.sheet(
        f"{work.mm(found['spacing_mm'])} apart",
        f"{plain(found['seeds_per_s'], 1)} seeds a second, disc at {plain(found['disc_rpm'], 1)} rpm.",
        lines=[
            Line("Seed spacing", work.mm(found["spacing_mm"])),
            Line("Seeds a second", plain(found["seeds_per_s"], 2)),
            Line("Disc speed", both(found["disc_rpm"], 1, "rpm")),
        ],
        why=[
            "Spacing = area of a hectare ÷ (population × row spacing). Seeds a second = ground speed ÷ spacing. Disc speed = 60 × seeds a second ÷ cells.",
        ],
        drawing=RowMetreDrawing(
            found["spacing_mm"], work.get("cells"), work.mm(found["spacing_mm"]), both(found["disc_rpm"], 1, "rpm")
        ),
    )  # fmt: skip


def plate(work: Work) -> Sheet:
    found = work.run("plate_fit", **work.given)
    many = len(work.get("seed_lengths_mm"))
    few = f" From {counted(many, 'seed')} only: measure at least 30." if found["few"] else ""
    needed = found["largest_mm"] + work.get("clearance_mm")
    cells = [Cell(one["name"], one["cell_mm"], work.mm(one["cell_mm"])) for one in work.get("plates")]
    largest = found["largest_mm"]
    drawing = CellsDrawing(cells, largest, needed, found["plate"], work.mm(largest), work.mm(needed))
    if found["plate"] is None:
        words = f"No plate takes {work.mm(found['largest_mm'])} with {work.mm(work.get('clearance_mm'))} clearance.{few}"
        return work.sheet(
            "None fits", words, "due", lines=[Line("Cell needed", work.mm(needed))], why=[_PLATE_WHY], drawing=drawing
        )
    return work.sheet(
        f"Plate {found['plate']}",
        f"Its cell of {work.mm(found['cell_mm'])} takes the largest seed, {work.mm(found['largest_mm'])}, with its clearance.{few}",
        "watch" if found["few"] else "sound",
        lines=[Line("Largest seed", work.mm(found["largest_mm"])), Line("Cell needed", work.mm(needed)), Line("Seeds measured", str(many))],
        why=[_PLATE_WHY],
        drawing=drawing,
    )  # fmt: skip


_PLATE_WHY = (
    "The smallest plate whose cell is at least the largest seed and the clearance. A larger cell lets a second seed in."
)

RUN_GOOD = "163 168 159 171 166 162 170 158 164 167 161 165 169 160 166 163"
SUBJECTS = (
    Subject(
        key="spacing",
        name="Seed spacing",
        group="Seed and meters",
        about="Misses, multiples and scatter of a run, from the furrow or the meter test stand.",
        draws=StripDrawing,
        calculators=("seed_spacing",),
        fields=(
            Field("spacings_mm", "Spacings", "lengths", tool="tape", hint="one after the other, or drop a CSV file here"),
            Field("nominal_mm", "Wanted spacing", start="165"),
        ),
        examples=(
            Example("Regular", {"spacings_mm": " ".join([RUN_GOOD] * 7)}),
            Example("A miss now and then", {"spacings_mm": " ".join([*[RUN_GOOD] * 3, "331", *[RUN_GOOD] * 3, "70 95", RUN_GOOD])}),
            Example("Worn meter", {"spacings_mm": " ".join(["162 171 158 330 166 70 95 168 160 172 164 340 161 169 80 165"] * 7)}),
        ),
        source="Shares by the usual half and one-and-a-half times the nominal spacing.",
        work=spacing,
        takes_file="spacings",
    ),
    Subject(
        key="stand",
        name="Meter on the test stand",
        group="Seed and meters",
        about="Singulation of a run from the stand's counts.",
        draws=RingDrawing,
        calculators=("stand_run",),
        fields=(
            Field("expected", "Cells passed", "count", "cells", "500"),
            Field("skips", "Skips", "count", "", "6"),
            Field("doubles", "Doubles", "count", "", "4"),
            Field("good_pct", "Good from", "number", "%", "98"),
        ),
        examples=(
            Example("Good", {"skips": "3", "doubles": "2"}),
            Example("Just good enough", {"skips": "6", "doubles": "4"}),
            Example("Skips", {"skips": "21", "doubles": "3"}),
        ),
        source="98 % is a starting value; the meter's manual or your test stand decides.",
        work=stand,
    ),
    Subject(
        key="rate",
        name="Seed rate",
        group="Seed and meters",
        about="Spacing, seeds a second and disc speed for a population.",
        draws=RowMetreDrawing,
        calculators=("seed_rate",),
        fields=(
            Field("population_per_ha", "Population", "number", "seeds/ha", "82000"),
            Field("row_spacing_m", "Row spacing", "number", "m", "0.5"),
            Field("speed_km_h", "Ground speed", "number", "km/h", "8.5"),
            Field("cells", "Cells on the disc", "count", "", "30"),
        ),
        examples=(
            Example("Sorghum", {"population_per_ha": "180000", "cells": "60", "speed_km_h": "7"}),
            Example("Sunflower", {"population_per_ha": "62000"}),
            Example("Fast", {"population_per_ha": "180000", "speed_km_h": "15", "cells": "30"}),
        ),
        source="Arithmetic; populations by crop and ground.",
        work=rate,
    ),
    Subject(
        key="plate",
        name="Plate for the seed",
        group="Seed and meters",
        about="The smallest plate whose cell takes the largest seed of a sample.",
        draws=CellsDrawing,
        calculators=("plate_fit",),
        fields=(
            Field("seed_lengths_mm", "Seed lengths", "lengths", tool="caliper", hint="30 seeds or more"),
            Table("plates", "Plates there are", (Field("name", "Plate", "text"), Field("cell_mm", "Cell"))),
            Field("clearance_mm", "Clearance", start="0.4"),
        ),
        examples=(
            Example("Fits", {"seed_lengths_mm": " ".join(["9.8 9.6 10.1 9.9 10.3 9.7"] * 5), "plates": [["K", "10.2"], ["L", "10.8"], ["M", "11.6"]]}),
            Example("Few seeds", {"seed_lengths_mm": "9.8 9.6 10.1 10.4", "plates": [["K", "10.2"], ["L", "10.8"], ["M", "11.6"]]}),
            Example("None fits", {"seed_lengths_mm": " ".join(["11.2 11.5 12.1"] * 10), "plates": [["K", "10.2"], ["L", "10.8"], ["M", "11.6"]]}),
        ),
        source="Clearance is a starting value; the plate maker's chart decides.",
        work=plate,
    ),
)  # fmt: skip
