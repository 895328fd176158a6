"""Oil, pressure, positions, functions: what is looked at rather than felt."""

from .motif import Figures, motif, told
from .strokes import Stroke, arrow, box, curve, oval, path, shaken, shape, specks

LEVELS = told("low place 0.15, right place 0.5, high place 0.95, milky place 0.5 dirt 1")


@motif(states=LEVELS)
def dipstick(f: Figures) -> list[Stroke]:
    """A dipstick between its marks: low, right, over, milky."""
    level = 42 - 32 * f.place
    drawn = [box(27, level, 10, 44 - level, "milk" if f.dirt else "oil"), box(27, 4, 10, 40, "line"), oval(32, 4, 6, 3)]
    return [*drawn, path([(20, 18), (44, 18)], "thin"), path([(20, 34), (44, 34)], "thin")]


@motif(states=LEVELS)
def sight(f: Figures) -> list[Stroke]:
    """A sight glass: low, at its middle, full, milky."""
    level = 40 - 32 * f.place
    half = max(0.0, 18**2 - (level - 24) ** 2) ** 0.5
    fill = [(32 - half, level), (32 + half, level)]
    drawn = [oval(32, 24, 18)]
    d = f"M{fill[0][0]:.1f} {level:.1f}A18 18 0 {1 if level < 24 else 0} 0 {fill[1][0]:.1f} {level:.1f}Z"
    return [
        *drawn,
        Stroke(d, "milk" if f.dirt else "oil"),
        oval(32, 24, 18, 18, "line"),
        path([(8, 24), (14, 24)], "thin"),
        path([(50, 24), (56, 24)], "thin"),
    ]


@motif(
    states=told(
        "works place 1, no-prompt gone 1 place 1, no-action place 0, even place 1, pulls bend 1, weak place 0.3, "
        "quiet place 1, noisy many 1 place 1, dead place 0, none place 1, stays loose 1, motor bend 1, controller "
        "bend 1, good place 1, loose loose 1 place 1"
    )
)
def function(f: Figures) -> list[Stroke]:
    """A function from the cab: its value shows and it acts; no value; no action."""
    drawn = [box(4, 6, 32, 22)]
    drawn += (
        [path([(10, 22), (16, 22), (16, 16), (22, 16), (22, 11), (30, 11)], "line")]
        if not f.gone
        else [path([(10, 22), (30, 11)], "gone")]
    )
    drawn += arrow(50, 42, 50, 42 - 32 * f.place) if f.place > 0.1 else [path([(42, 42), (58, 42)], "fault")]
    drawn += [path([(50, 42), (60, 24)], "fault")] if f.bend else []
    drawn += [curve([(56, 10), (62, 16), (56, 22)], "fault")] if f.many else []
    return [*drawn, path([(40, 44), (60, 44)], "thin"), *(shaken(10, 36) if f.loose else [])]


TWO = told(
    "down place 0.1, up place 0.9, high place 0.9, low place 0.1, in place 0.9, out place 0.1, grain place 0.1, "
    "open place 0.9, locked place 0.1, free place 0.9, mixed place 0.5 loose 1, clipped place 0.9, stiff place "
    "0.1 rust 1, broken place 0.1 crack 1, middle place 0.5, backed-off place 0.95, other place 0.25, level place "
    "0.5, right place 0.5, narrow place 0.15, wide place 0.95, off place 0.8 loose 1, flat place 0.5, hump place "
    "0.9, driver place 0.5 wear 1, gearbox place 0.5 loose 1, tight place 0.1, light place 0.5, loose place 0.95, "
    "none place 0.05, firm place 0.95, throws-under place 0.95, rough place 0.5 rust 1, held place 0.2, hangs "
    "place 0.95"
)
"""Where an arm between two stops stands."""


@motif(states=TWO)
def position(f: Figures) -> list[Stroke]:
    """An arm between its stops: down, up, or anywhere between."""
    y = 40 - 32 * f.place
    drawn = [oval(12, 24, 5), path([(12, 24), (54, y)], "line"), oval(54, y, 4, 4, "body")]
    drawn += [path([(58, 8), (62, 8)], "thin"), path([(58, 24), (62, 24)], "thin"), path([(58, 40), (62, 40)], "thin")]
    drawn += specks(6, 16, 16, 16) if f.rust else []
    return [
        *drawn,
        *(shaken(30, 34) if f.loose else []),
        *([path([(30, 12), (36, 30)], "fault")] if f.crack else []),
        *([oval(12, 24, 8, 8, "fault")] if f.wear else []),
    ]


@motif(states=told("high place 1, low place 0"))
def sprockets(f: Figures) -> list[Stroke]:
    """Two sprockets on their shafts, the driven one small for high speed and large for low."""
    small, large = 8.0, 15.0
    left, right = (large, small) if f.place > 0.5 else (small, large)
    return [
        oval(18, 24, left),
        oval(48, 24, right),
        path([(18, 24 - left), (48, 24 - right)]),
        path([(18, 24 + left), (48, 24 + right)]),
    ]


@motif(
    states=told(
        "small-wire place 0.2, large-wire place 0.5, round-bar place 1, sharp place 0.3, worn place 0.3 wear 1, "
        "bent place 0.3 bend 1"
    )
)
def concave(f: Figures) -> list[Stroke]:
    """A concave cut through: thin wires close together, thick ones, or round bars; worn edges, bent wires."""
    count = 9 if f.place < 0.4 else 6 if f.place < 0.8 else 4
    radius = 2 + 4 * f.place
    drawn = [curve([(2, 14), (32, 46), (62, 14)], "thin")]
    for i in range(count):
        t = (i + 0.5) / count
        x, y = 2 + 60 * t, 14 + 64 * t * (1 - t)
        hurt = f.bend and i == count // 2
        drawn.append(
            oval(x, y + (6 if hurt else 0), radius, radius * (1 - 0.4 * f.wear), "fault" if hurt or f.wear else "body")
        )
    return drawn


@motif(
    states=told(
        "ear place 0, pod place 0.35, small-grain place 0.7, fine-seed place 1, rough rust 1, smooth, torn tear "
        "1, coarse place 0, fine place 1, worn place 0.5 wear 1"
    )
)
def seeds(f: Figures) -> list[Stroke]:
    """The seed a part is made for, from large to fine; a strip that is rough or smooth to the finger."""
    radius = 9 - 6.5 * f.place
    drawn = [box(2, 36, 60, 8)]
    drawn += [path([(x, 36), (x + 3, 31), (x + 6, 36)], "line") for x in range(4, 58, 8)] if f.rust else []
    drawn += [oval(x, 34 - radius, radius * 0.8, radius, "grain") for x in (16, 32, 48)]
    return [*drawn, *([path([(20, 36), (28, 44), (34, 34)], "fault")] if f.tear or f.wear else [])]


@motif(
    states=told(
        "held place 0.1, hangs place 1, rubbed wear 1, cut gone 1, sound, bare gone 0.5 wear 1, whole, black "
        "place 0.1, white hard 1, missing gone 1, fault many 1, controller loose 1, latched place 0.1, apart "
        "place 1, broken crack 1"
    )
)
def hose(f: Figures) -> list[Stroke]:
    """A hose or lead over an edge: held, hanging, rubbed flat, cut."""
    low = 20 + 22 * max(0.0, f.place - 0.5)
    drawn = [box(26, 28, 12, 18, "thin")]
    if f.gone >= 1:
        drawn += [
            path([(2, 14), (24, 22)], "line"),
            path([(40, 22), (62, 14)], "line"),
            path([(24, 18), (28, 26)], "fault"),
            path([(36, 26), (40, 18)], "fault"),
        ]
    else:
        drawn += [curve([(2, 10), (32, low + 12), (62, 10)]), curve([(2, 16), (32, low + 20), (62, 16)])]
    drawn += [oval(32, low + 6, 8, 5, "fault")] if f.wear else []
    drawn += [box(12, 8, 5, 16, "gone" if f.hard else "body")] if f.gone < 1 else []
    return [*drawn, *(shaken(54, 30) if f.many or f.loose else []), *([path([(44, 6), (50, 24)], "fault")] if f.crack else [])]


@motif(states=told("holds wear 0, passes wear 0.7, groove wear 0.7 tear 1, shield wear 1 hole 1"))
def keyhole(f: Figures) -> list[Stroke]:
    """A stripping finger's keyhole with the plug gauge: it holds, it passes, grooved, worn to the shield."""
    wide = 5 + 5 * f.wear
    drawn = [
        shape(
            [
                (14, 46),
                (14, 10),
                (24, 2),
                (32 - wide * 0.6, 14),
                (32 - wide, 24),
                (32, 24 + wide),
                (32 + wide, 24),
                (32 + wide * 0.6, 14),
                (40, 2),
                (50, 10),
                (50, 46),
            ]
        )
    ]
    drawn += [oval(32, 22 if f.wear else 8, 7, 7, "fault" if f.wear else "line")]
    drawn += [path([(32, 32), (32, 46)], "fault")] if f.tear else []
    return [*drawn, *([path([(14, 44), (50, 44)], "fault")] if f.hole else [])]


@motif(states=told("right, off place 1, two gone 1, hump many 1"))
def streams(f: Figures) -> list[Stroke]:
    """Crop on the belts: the streams meet, stand apart, or heap in the middle."""
    high = 14 + 14 * f.many
    if f.gone:
        return [path([(2, 40), (62, 40)], "thin"), curve([(4, 40), (14, 20), (24, 40)]), curve([(40, 40), (50, 20), (60, 40)])]
    return [path([(2, 40), (62, 40)], "thin"), curve([(4, 40), (32, 40 - 2 * high), (60, 40)])]
