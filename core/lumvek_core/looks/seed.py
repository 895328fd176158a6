"""Seed meters, delivery belts, tubes, tyres and what turns in the soil."""

from .motif import Figures, motif, told
from .strokes import Role, Stroke, around, arrow, box, crack, curve, oval, path, shaken, shape, specks


@motif(states=told("round, egged wear 1, clears, nub wear 1, worn wear 1"))
def cell(f: Figures) -> list[Stroke]:
    """Cells of a seed disc: round, or egged at the side that carries."""
    drawn = [path([(2, 44), (12, 8), (52, 8), (62, 44)], "thin")]
    for x in (18, 32, 46):
        drawn.append(oval(x, 26, 5 + 2.5 * f.wear, 5, "line"))
        drawn += [curve([(x + 5, 22), (x + 8.5, 26), (x + 5, 30)], "fault")] if f.wear else []
    return drawn


@motif(states=told("curved, flat wear 1, rounded wear 0.5, worn wear 1, warped bend 1, touch, gap bend 1, flat-topped"))
def lobe(f: Figures) -> list[Stroke]:
    """Singulator lobes over a cell: curved they cover it, worn flat they do not."""
    high = 18 - 11 * f.wear
    drawn = [path([(2, 36), (62, 36)], "thin"), oval(32, 40, 5, 4, "line")]
    for x in (12, 32, 52):
        flat = 4 * f.wear
        drawn.append(
            shape(
                [
                    (x - 9, 12),
                    (x - 7, 20 + high * 0.6),
                    (x - flat, 14 + high),
                    (x + flat, 14 + high),
                    (x + 7, 20 + high * 0.6),
                    (x + 9, 12),
                ]
            )
        )
        drawn += [path([(x - 5, 14 + high), (x + 5, 14 + high)], "fault")] if f.wear else []
    return drawn


@motif(states=told("flat, rounded wear 0.5, worn wear 1, warped bend 1"))
def disc(f: Figures) -> list[Stroke]:
    """A seed disc from its edge, on glass: flat, or standing off on one side; raised cells flat-topped or worn."""
    lift = 9 * f.bend
    drawn = [path([(2, 40), (62, 40)], "thin"), shape([(4, 38 - lift), (60, 38), (60, 33), (4, 33 - lift)])]
    for x in (16, 32, 48):
        top = 24 + 6 * f.wear - lift * (60 - x) / 60
        drawn.append(
            shape(
                [
                    (x - 5, 33 - lift * (60 - x) / 60),
                    (x - 4 + 2 * f.wear, top),
                    (x + 4 - 2 * f.wear, top),
                    (x + 5, 33 - lift * (60 - x) / 60),
                ]
            )
        )
    return [*drawn, *([path([(4, 39), (4, 40 - lift)], "fault")] if f.bend else [])]


@motif(states=told("above wear 0, level wear 1, reaches, short wear 1, comb gone 1"))
def fingers(f: Figures) -> list[Stroke]:
    """Fingers against the edge or the comb they must reach beyond."""
    top = 8 + 14 * f.wear
    drawn = [path([(2, 22), (62, 22)], "fault" if f.wear else "thin"), box(2, 36, 60, 8)]
    for i, x in enumerate((10, 21, 32, 43, 54)):
        role: Role = "gone" if f.gone and i in (1, 2) else "line"
        drawn.append(path([(x, 36), (x, top)], role))
    return drawn


@motif(
    states=told(
        "matted dirt 1 bend 0.5, frayed many 1, free, straight, memory bend 0.5, bent bend 1, like, short wear "
        "0.4, worn wear 1, sound, old hard 1"
    )
)
def bristles(f: Figures) -> list[Stroke]:
    """Brush bristles on their backing: springy, matted, frayed, bent with a memory, worn short."""
    top = 8 + 16 * f.wear
    drawn = [box(2, 36, 60, 8, "thin" if f.hard else "body")]
    for i in range(13):
        x = 6 + 4.3 * i
        lean = 10 * f.bend * (1 if 3 < i < 9 else 0.2)
        lean += (6 if i % 2 else -6) * f.many
        hurt = (f.bend > 0.6 and 3 < i < 9) or f.many
        drawn.append(curve([(x, 36), (x, 22), (x + lean, top + abs(lean) * 0.4)], "fault" if hurt else "line"))
    return [*drawn, *(specks(8, 10, 48, 24) if f.dirt else [])]


@motif(
    states=told(
        "smooth, large wear 1, small wear 1 place 0.2, both wear 1, divots wear 1, broken gone 1, worn wear 1, full, "
        "reaches, short wear 1"
    )
)
def feeder(f: Figures) -> list[Stroke]:
    """A feeder wheel, large or small: smooth fingers, divots and flats, broken flights."""
    size = 1.0 if f.place >= 0.5 else 0.65
    drawn = [oval(32, 24, 12 * size), oval(32, 24, 3, 3, "line")]
    for i in range(10):
        at = i * 36.0
        hurt = i in (1, 4, 7) and (f.wear or f.gone)
        end = around(32, 24, (21 if not hurt else 16) * size, at)
        drawn.append(path([around(32, 24, 12 * size, at), end], "fault" if hurt else "line"))
        drawn += [oval(*around(32, 24, 12 * size, at + 18), 2.5, 2.5, "dark")] if f.wear and i % 3 == 0 else []
    return drawn


@motif(
    states=told("clear, clean, dirty dirt 1, scratched tear 1, cracked crack 1, blocked dirt 1 hard 1, open, weak place 0.3")
)
def lens(f: Figures) -> list[Stroke]:
    """A sensor's eye or a tube's mouth: clear, dirty, scratched, cracked, blocked."""
    drawn = [oval(32, 24, 19), oval(32, 24, 12, 12, "dark" if f.hard else "thin")]
    drawn += specks(22, 14, 20, 20) if f.dirt else []
    drawn += [path([(26, 30), (38, 30)], "fault"), path([(29, 34), (35, 34)], "fault")] if f.place < 0.5 else []
    drawn += [path([(23, 30), (38, 15)], "fault"), path([(28, 33), (42, 20)], "fault")] if f.tear else []
    return [*drawn, *([crack(30, 12, 22)] if f.crack else [])]


@motif(
    states=told(
        "whole, worn wear 1, lifting wear 1 tear 1, flat wear 1, turned wear 1 tear 1, round, bent bend 1, grooved hook 1"
    )
)
def wheel(f: Figures) -> list[Stroke]:
    """A wheel's face and lip: whole, worn to one side or flat, rubber lifting from the rim."""
    lean = 6 * f.bend
    drawn = [oval(32, 24, 21, 21), oval(32, 24, 13, 13, "thin"), oval(32 + lean, 24, 3, 3, "line")]
    drawn += [path([around(32, 24, 21, a) for a in (240, 300)], "fault")] if f.wear else []
    drawn += [curve([around(32, 24, 21, 20), (60, 10), around(32, 24, 24, 60)], "fault")] if f.tear else []
    return [
        *drawn,
        *([path([around(32, 24, 21, 100), around(32, 24, 17, 90), around(32, 24, 21, 80)], "fault")] if f.hook else []),
    ]


@motif(
    states=told(
        "soft, whole, hard hard 1, brittle hard 1 crack 1, torn tear 1, seal bend 1, worn wear 1, poppet bend 1, pin gone 1"
    )
)
def lip(f: Figures) -> list[Stroke]:
    """A seal's lip on its seat: soft and whole, hard and cracked, torn, out of its groove."""
    off = 7 * f.bend
    drawn = [
        box(2, 34, 60, 10, "thin"),
        curve([(10, 12 - off), (26, 14 - off), (32, 34 - off)]),
        curve([(18, 10 - off), (38, 14 - off), (40, 34 - off)]),
    ]
    drawn += [path([(32, 34 - off), (40, 34 - off)]), path([(10, 12 - off), (18, 10 - off)])]
    drawn += [path([(24 + i, 14), (26 + i, 21)], "fault") for i in (0, 5, 10)] if f.hard else []
    drawn += [path([(30, 28), (36, 24), (33, 34), (42, 30)], "fault")] if f.tear else []
    drawn += specks(8, 24, 48, 10) if f.dirt else []
    return [*drawn, *([path([(36, 34 - off), (36, 34)], "fault")] if f.bend else []), *(shaken(54, 22) if f.gone else [])]


@motif(
    states=told(
        "whole place 1, worn place 0.4, blocked place 0, turns place 1, drags place 0.4, still place 0, right "
        "place 1, up gone 1, gone gone 1"
    )
)
def turning(f: Figures) -> list[Stroke]:
    """A disc or wheel in the soil as one looks back: turning, dragging, still, or not down."""
    up = 12 * f.gone
    drawn = [path([(2, 38), (62, 38)], "thin"), oval(32, 24 - up, 17), oval(32, 24 - up, 3, 3, "line")]
    if f.place > 0.9 and not f.gone:
        drawn += [curve([(44, 6), (54, 14), (54, 26)], "line"), path([(50, 21), (54, 27), (58, 21)])]
    elif not f.gone:
        drawn += [path([(4, 44), (30, 44)], "fault"), *specks(34, 36, 24, 8)]
    else:
        drawn += arrow(32, 40, 32, 44, "fault")
    return drawn


@motif(states=told("even, late wear 0.6, thin gone 1, passed, skips gone 1, doubles many 1, clear, good"))
def plants(f: Figures) -> list[Stroke]:
    """Plants or seeds in a row: even, late, with gaps, two at one place."""
    drawn = [path([(2, 40), (62, 40)], "thin")]
    for i, x in enumerate((8, 20, 32, 44, 56)):
        tall = 20 - 10 * f.wear * (i in (1, 3))
        if f.gone and i in (1, 3):
            drawn.append(path([(x, 40), (x, 36)], "gone"))
            continue
        drawn += [
            path([(x, 40), (x, 40 - tall)]),
            curve([(x, 40 - tall * 0.6), (x + 5, 34 - tall * 0.6), (x + 6, 28 - tall * 0.4)]),
        ]
        drawn += [path([(x + 4, 40), (x + 4, 40 - tall)], "fault")] if f.many and i == 2 else []
    return drawn


@motif(states=told("smooth, sharp wear 1"))
def wire(f: Figures) -> list[Stroke]:
    """A wire that fluffs bristles, cut through: round, or worn to an edge that shaves them."""
    drawn = [path([(x, 46), (x, 30)], "thin") for x in range(8, 60, 6)]
    if f.wear:
        return [*drawn, shape([(20, 10), (44, 10), (32, 30)]), path([(26, 21), (32, 31), (38, 21)], "fault")]
    return [*drawn, oval(32, 19, 12)]
