"""The Dunmere 12: last winter's walk-around finished, this winter's half done."""

from collections.abc import Iterator

from lumvek_core.units import parse_length

from .record_helpers import Told, seen

# Rows 4 to 6 and 9 run behind the tractor's wheels in loosened shell sand and wear faster.
DISCS_LEFT = ["395.5", "394,5", "15 1/2", "388,5", "385.5", "15 1/4", "393", "39.4 cm", "391", "395", "15 11/16", "396"]
DISCS_RIGHT = ["395", "394", "393", "38,9 cm", "384.5", "386.0", "392.5", "394", "391", "15 9/16", "398", "396.5"]
CONTACT = ["46 44 47", "43 45 44", "48 47 49", "34 36 35", "41 43 42", "30 33 31", "45 46 44", "47 45 46"]
GUARDS = ["21.4", "21.2", "21.5", "19.6", "18.9", "19.4", "21", "21.3", "19.8", "21.6", "21.4", "21.7"]

RENEWED, STONE = 11, 391.0
"""The row whose discs were renewed last winter, and what they would be by now."""
SLIP = ("2R", "389.1")
"""Two winters ago somebody wrote 389.1 for 398.1."""

LAST_WINTER = {
    ("gauge-wheel-gap", "8R"): ["0.6"],
    ("closing-play", "5"): ["slight"],
}
"""What stood out of the usual last winter, besides wear."""


def discs_now() -> Iterator[tuple[str, float]]:
    """What each disc would be by now, had none been renewed; mm."""
    for side, texts in (("L", DISCS_LEFT), ("R", DISCS_RIGHT)):
        for row, text in enumerate(texts, start=1):
            yield f"{row}{side}", STONE if row == RENEWED else parse_length(text)


MOVED = {"4R": ("0", "3")}
"""Where a washer was moved last winter and stayed."""

TRIALS = [
    ("washers", "4R", seen("1", "2")),
    ("opener-contact", "4", seen("24", "25", "24", feeler="card")),
    ("washers", "4R", seen("0", "3")),
    ("opener-contact", "4", seen("41", "42", "40", feeler="card")),
    ("washers", "9L", seen("2", "1")),
    ("opener-contact", "9", seen("31", "30", "32", feeler="card")),
    ("washers", "9L", seen("1", "2")),
    ("opener-contact", "9", seen("46", "47", "47", feeler="card")),
]
"""What moving washers did last winter, read before and after."""


def _rows(check: str, usual: str, apart: dict[int, str] | None = None, rows: int = 12) -> Iterator[Told]:
    for row in range(1, rows + 1):
        yield check, str(row), seen((apart or {}).get(row, usual))


def _sides(check: str, usual: str, apart: dict[str, str] | None = None, rows: int = 12) -> Iterator[Told]:
    for row in range(1, rows + 1):
        for side in "LR":
            yield check, f"{row}{side}", seen((apart or {}).get(f"{row}{side}", usual))


def half_of_the_readings() -> Iterator[Told]:
    """This winter: hitch, residue, arms and most of the openers are done; gauge wheels have begun."""
    yield "hitch-hoses", "all", seen("rubbed", note="at the wing crossing, left")
    for check in ("ties", "cylinders", "frame-welds"):
        yield check, "all", seen("1")
    yield from _rows("row-cleaner", "free", {3: "rough"})
    yield from _rows("parallel-arm-play", "none", {5: "loose", 6: "felt"})
    for row in range(1, 13):
        yield "opener-disc-diameter", f"{row}L", seen(DISCS_LEFT[row - 1])
        yield "opener-disc-diameter", f"{row}R", seen(DISCS_RIGHT[row - 1])
    yield from _sides("opener-bearing", "smooth", {"4R": "dry", "5L": "rough", "9L": "noisy"})
    yield from _sides("disc-axle", "smooth")
    for row in range(1, 13):
        for side in "LR":
            yield "washers", f"{row}{side}", seen(*MOVED.get(f"{row}{side}", ("1", "2")))
    for row, spans in enumerate(CONTACT, start=1):
        yield "opener-contact", str(row), seen(*spans.split(), feeler="card")
    yield from _sides("outer-scraper", "whole", {"7L": "worn"}, rows=9)
    for row, width in enumerate(GUARDS[:9], start=1):
        yield "seed-tube-guard", str(row), seen(width)
    for row in (10, 11):
        yield "seed-tube-guard", str(row), {"state": "not-seen", "reason": "meter still on, comes off with the next strip-down"}
    for place, gap in {"1L": "0", "2L": "0", "3L": "0", "4L": "1.2", "5L": "0.8"}.items():
        yield "gauge-wheel-gap", place, seen(gap)
