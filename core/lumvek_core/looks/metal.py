"""Edges, plates, knives, castings and welds."""

from .motif import Figures, motif, told
from .strokes import Point, Role, Stroke, box, crack, curve, drops, oval, path, shaken, shape, specks


@motif(
    states=told(
        "sharp, round wear 0.6, rounded wear 0.6, wide place 1, worn wear 1, edge wear 0.6, uneven bend 0.7, "
        "short wear 1, blunt wear 0.5, out gone 1, set place 1, close place 0, whole place 0, turned wear 1 hook "
        "1, burr hook 1, gap place 1, touch place 0, even place 0, right place 0"
    )
)
def edge(f: Figures) -> list[Stroke]:
    """An edge over what it scrapes or cuts: sharp, rounded, worn back, or standing off."""
    up = 9 * max(0.0, f.place - 0.5) * 2 if f.place > 0.5 else 0
    back, tilt = 12 * f.wear, 6 * f.bend
    if f.gone >= 1:
        return [shape([(8, 8), (50, 8), (44, 34), (8, 34)], "gone"), box(2, 38, 60, 6, "thin")]
    tip = [(52 - back, 36 - up - back * 0.4), (46 - back, 30 - up)] if f.wear else [(54, 36 - up)]
    drawn = [box(2, 38, 60, 6, "thin"), shape([(8, 8), (40, 8), *tip, (8 + tilt, 30 - up - tilt)])]
    drawn += [oval(52 - back, 34 - up, 6, 6, "fault")] if f.hook else []
    drawn += [path([(54, 37 - up), (54, 38)], "fault"), *([path([(20, 34), (20, 37)], "fault")] if up else [])] if up else []
    drawn += [crack(26, 10)] if f.crack else []
    return [*drawn, *(shaken(56, 20) if f.loose else [])]


@motif(
    states=told(
        "edge wear 0.45, chipped tear 1, uneven wear 0.45, surface rust 1, stalks dirt 1, gone gone 0.6, "
        "loose loose 1, hinge loose 1, wiper dirt 1, light dirt 1, wrong bend 1, spring loose 1, old hard 1, "
        "worn wear 0.8, frame crack 1"
    )
)
def plate(f: Figures) -> list[Stroke]:
    """A sheet or casting seen at its edge and from above: thin, holed, cracked, bent, with a piece gone."""
    bow = 8 * f.bend
    thick = 9 - 7 * f.wear
    top: list[Point] = [(4, 18), (32, 18 + bow), (60, 18)]
    if f.gone:
        top = [(4, 18), (36, 18), (42, 24), (46, 16)]
    right = top[-1][0]
    drawn = [shape([*top, (right, 18 + thick), (32 if right > 50 else 30, 18 + thick + bow), (4, 18 + thick)])]
    drawn += [path([(46, 16), (60, 18), (60, 27), (44, 27)], "gone")] if f.gone else []
    drawn += [oval(26, 18 + thick / 2, 5, thick / 2 + 1.5, "fault")] if f.hole else []
    drawn += [crack(36, 17, 13)] if f.crack else []
    drawn += [path([(26, 16), (30, 22), (27, 25), (32, 29)], "fault"), path([(34, 16), (31, 20)], "fault")] if f.tear else []
    drawn += specks(8, 14, 44, 8) if f.rust or f.dirt else []
    drawn += [path([(10, 40), (54, 40)], "thin")]
    return [*drawn, *(shaken(54, 12) if f.loose else []), *drops(30, 32, int(f.drops))]


@motif(
    states=told(
        "sharp hook 1, trough wear 0.7 hole 1, peeling tear 1, folded bend 1, thin wear 0.7, worn wear 1, holed wear 0.6 hole 1"
    )
)
def flight(f: Figures) -> list[Stroke]:
    """Auger flighting beside its tube: thin, wavy and sharp, peeling off, folded over."""
    tall = 16 - 6 * f.wear
    drawn = [box(2, 20, 60, 8)]
    for i, x in enumerate((12, 32, 52)):
        hurt = i == 1
        lean = 8 * f.bend if hurt else 0
        role: Role = "fault" if hurt and (f.bend or f.tear or f.hole) else "line"
        drawn.append(curve([(x - 6, 28), (x - 3, 34), (x - 2, 28 + tall)], role))
        drawn.append(curve([(x - 2 + lean, 20 - tall), (x + 2, 12), (x + 4, 20)], role))
        drawn += [path([(x - 2, 20 - tall), (x + 8, 8)], "fault")] if hurt and f.tear else []
        drawn += [path([(x - 2, 5), (x + 3, 8), (x - 1, 11), (x + 4, 14), (x, 17)], "fault")] if f.hook else []
        drawn += [oval(x, 14, 3, 3, "fault")] if hurt and f.hole else []
    return [*drawn, *([path([(2, 46), (62, 46)], "thin")])]


@motif(states=told("smooth, hook hook 1, loose loose 1"))
def vane(f: Figures) -> list[Stroke]:
    """A spreader vane: smooth at its rear edge, hooked at its lower end, or loose."""
    end = (46 + 8 * f.hook, 40 - 2 * f.hook)
    drawn = [curve([(8, 10), (28, 14), (46, 40)]), curve([(14, 6), (36, 12), (52, 38)]), path([(8, 10), (14, 6)])]
    drawn += [path([(46, 40), end, (54, 30)], "fault")] if f.hook else [path([(46, 40), (52, 38)])]
    drawn += [oval(16, 13, 2, 2, "line"), oval(26, 19, 2, 2, "line")]
    return [*drawn, *(shaken(6, 24) if f.loose else []), *([crack(30, 16)] if f.crack else [])]


@motif(states=told("sound, crack crack 1, cracked crack 1, broken crack 1 gone 1, bent bend 1"))
def weld(f: Figures) -> list[Stroke]:
    """A seam between two plates: whole, a crack along it, or parted."""
    apart = 8 * f.gone
    drawn = [
        box(4, 26, 56, 10),
        shape([(28 - apart, 4), (38 - apart, 4), (38 - apart, 26 - apart * 0.4), (28 - apart, 26 - apart * 0.4)]),
    ]
    drawn += [curve([(x, 26), (x + 2, 20), (x + 5, 26)], "line") for x in (38, 43, 48)]
    drawn += [curve([(x, 26), (x + 3, 20), (x + 5, 26)], "line") for x in (13, 18, 23)]
    drawn += [path([(12, 26), (20, 24), (26, 27), (33, 24), (42, 27), (53, 25)], "fault")] if f.crack else []
    drawn += specks(10, 14, 44, 12) if f.rust else []
    drawn += [path([(38, 4), (46, 0)], "fault")] if f.bend else []
    return [*drawn, *(shaken(50, 12) if f.loose else [])]


@motif(
    counted=("sound", "chipped", "cracked", "bent"),
    states=told("chipped tear 1, strip wear 1, blunt wear 0.6, sharp, out gone 1, broken gone 1, worn wear 1"),
)
def section(f: Figures) -> list[Stroke]:
    """A knife section: sharp, chipped, its hard edge gone, cracked, bent, missing."""
    if f.gone >= 1:
        return [shape([(32, 4), (54, 34), (10, 34)], "gone"), box(4, 34, 56, 9)]
    tip = 4 + 8 * f.wear
    lean = 8 * f.bend
    right: list[Point] = [(32 + lean, tip), (54 - 4 * f.wear, 34)]
    if f.tear:
        right = [(32 + lean, tip), (40, 15), (36, 20), (46, 24), (54, 34)]
    drawn = [shape([*right, (10 + 4 * f.wear, 34)]), box(4, 34, 56, 9), oval(22, 38, 2, 2, "line"), oval(42, 38, 2, 2, "line")]
    drawn += [oval(41, 19, 5, 5, "fault")] if f.tear else []
    drawn += [path([(36 - 2, tip + 2), (48, 32)], "fault")] if f.wear else []
    return [*drawn, *([crack(30, 16, 16)] if f.crack else []), *(shaken(57, 36) if f.loose else [])]


@motif(counted=("sound", "worn", "bent"), states=told("worn wear 1, bent bend 1"))
def guard(f: Figures) -> list[Stroke]:
    """A knife guard from the side: straight, its ledge worn, its point bent."""
    point = 22 - 14 * f.bend
    ledge = 22 + 5 * f.wear
    drawn = [
        shape([(2, 18), (30, 18), (60, point), (30, ledge + 8), (2, 34)]),
        path([(8, ledge), (34, ledge)], "fault" if f.wear else "thin"),
    ]
    return [*drawn, *([path([(46, 20), (60, point)], "fault")] if f.bend else [])]


@motif(
    counted=("sound", "bent", "missing"),
    states=told("light bend 0.4, spring tear 1, broken gone 0.5, wrong bend 1, dimple wear 1, torn tear 1"),
)
def piece(f: Figures) -> list[Stroke]:
    """One of many like pieces in its row (tine, finger, slat, paddle, bat): sound, bent, torn or gone."""
    drawn = [path([(2, 10), (62, 10)], "thin")]
    for i, x in enumerate((12, 32, 52)):
        hurt = i == 1
        if hurt and f.gone:
            drawn.append(path([(x, 10), (x, 40)], "gone"))
            drawn += [path([(x, 10), (x, 20)], "fault")] if f.gone < 1 else []
        elif hurt and f.bend:
            drawn.append(curve([(x, 10), (x, 24), (x + 10, 36)], "fault"))
        else:
            drawn.append(path([(x, 10), (x, 40)], "fault" if hurt and (f.tear or f.wear) else "line"))
            drawn += [path([(x - 5, 26), (x + 5, 31)], "fault")] if hurt and f.tear else []
    return drawn


@motif(states=told("good, stuck bend 1, missing gone 1, hole hole 1, none"))
def louvre(f: Figures) -> list[Stroke]:
    """Sieve louvres from the side: all open alike, one stuck under its neighbour, one missing."""
    drawn = [path([(2, 38), (62, 38)], "thin")]
    for i, x in enumerate((8, 20, 32, 44)):
        hurt = i == 2
        end: Point = (x + 13, 20)
        role: Role = "gone" if hurt and f.gone else "fault" if hurt and (f.bend or f.hole) else "line"
        if hurt and f.bend:
            end = (x + 14, 34)
        drawn.append(path([(x, 36), (x + 7, 32 if hurt and f.bend else 26), end], role))
    return [*drawn, *([oval(38, 37, 7, 4, "fault")] if f.hole else [])]


@motif(states=told("small place 0.29, closed place 0.41, open place 0.41 hole 1"))
def sieve(f: Figures) -> list[Stroke]:
    """A louvre from crease to tip, with its slat from above: its slot closed for most of its length, or open to the root."""
    long = 100 * f.place
    slot = 20.0 if f.hole else 7.0
    drawn = [
        path([(6, 14), (6 + long, 6)], "line"),
        path([(6, 14), (6, 20)], "thin"),
        path([(6 + long, 6), (6 + long, 20)], "thin"),
    ]
    drawn += [path([(6, 18), (6 + long, 18)], "thin"), box(6, 24, long, 22)]
    return [*drawn, *(path([(x, 46), (x, 46 - slot)], "line") for x in (6 + long * part for part in (0.2, 0.4, 0.6, 0.8)))]


@motif(states=told("yes place 1, no place 0.3"))
def pin(f: Figures) -> list[Stroke]:
    """A latch pin in its eye: fully out, or short of it."""
    end = 18 + 34 * f.place
    return [
        box(4, 8, 12, 32),
        box(40, 8, 10, 12),
        box(40, 30, 10, 10),
        box(10, 20, end - 10, 9, "body" if f.place > 0.9 else "fault"),
    ]
