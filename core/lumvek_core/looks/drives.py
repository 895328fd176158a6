"""Chains, sprockets, belts, shafts and what holds them."""

from .motif import Figures, motif, told
from .strokes import Point, Role, Stroke, around, arrow, box, crack, curve, drops, oval, path, shaken, shape, specks


@motif(states=told("clears, spring gone 1, worn wear 0.5, driver wear 1, side wear 0.5, nub wear 0.8"))
def tooth(f: Figures) -> list[Stroke]:
    """Three teeth of a sprocket: worn they grow thin and hollow, at last they hook."""
    points: list[Point] = [(2, 46), (2, 36)]
    for i, x in enumerate((4, 24, 44)):
        if f.gone and i == 1:
            points += [(x, 36), (x + 16, 36)]
            continue
        hollow, lean = 5 * f.wear, 7 * f.hook
        top = 12 + 3 * f.wear
        points += [(x, 36), (x + 3 + hollow, 26), (x + 5 + hollow + lean, top), (x + 11 - hollow * 0.4 + lean, top)]
        points += [(x + 13 - hollow * 0.2 + lean * 0.2, 26), (x + 16, 36)]
    drawn = [shape([*points, (62, 36), (62, 46)])]
    if f.gone:
        drawn.append(path([(24, 36), (29, 14), (35, 14), (40, 36)], "gone"))
    if f.hook:
        drawn.append(oval(55, 16, 5, 5, "fault"))
    return drawn


@motif(
    states=told(
        "right place 0.35, tight place 0, loose place 1, slack place 1, off place 1 gone 1, kinked bend 1, play "
        "wear 1 place 0.35, good place 0.35, dry rust 0.5 place 0.35, stiff bend 1 rust 1, worn wear 1 place 0.7, "
        "end wear 1 place 1, new place 0.2, firm place 0.2"
    )
)
def chain(f: Figures) -> list[Stroke]:
    """A chain between its sprockets: how far it can be moved aside, a link that stays kinked, a joint that gapes."""
    sag = 4 + 16 * f.place
    drawn = [oval(10, 16, 7), oval(54, 16, 7)]
    joints = [(17.0, 12.0), (26.0, 12 + sag * 0.7), (32.0, 12 + sag), (38.0, 12 + sag * 0.7), (47.0, 12.0)]
    if f.bend:
        joints[2] = (32, 12 + sag * 0.2)
    if f.gone:
        joints = [(x, y + 14 if 20 < x < 50 else y + 20) for x, y in joints[1:]]
    drawn += [path(joints, "line"), *(oval(x, y, 2.2 + f.wear, 2.2, "body") for x, y in joints)]
    if f.wear or f.bend:
        drawn.append(oval(32, joints[len(joints) // 2][1], 6, 5, "fault"))
    if f.rust:
        drawn += specks(20, 14, 26, 16)
    return [*drawn, path([(10, 9), (54, 9)], "thin")]


@motif(
    states=told(
        "cracked crack 1, burnt dirt 1 wear 0.6, ridged hook 1 wear 0.5, slack place 1, sheave loose 1, worn wear "
        "1, belt crack 1 dirt 1, bushing loose 1, edge wear 0.5, stuck rust 1"
    )
)
def belt(f: Figures) -> list[Stroke]:
    """A belt in its sheave, cut through: worn narrow it sinks, old it cracks from below, slipped it is burnt."""
    ridge = 4 * f.hook
    groove = [(4, 6), (14, 6), (22 + ridge, 22), (24, 40), (40, 40), (42 - ridge, 22), (50, 6), (60, 6), (60, 46), (4, 46)]
    deep, narrow = 10 * f.wear, 3 * f.wear
    top = 8 + deep + 6 * (f.place > 0.6)
    body = [(16 + narrow, top), (48 - narrow, top), (42 - narrow * 0.6, top + 20), (22 + narrow * 0.6, top + 20)]
    drawn = [shape(groove, "thin"), shape(body)]
    drawn += [path([(x, top + 20), (x + 1, top + 11)], "fault") for x in (26, 32, 38)] if f.crack else []
    drawn += specks(22, top + 2, 20, 14) if f.dirt else []
    drawn += [oval(21, 22, 5, 6, "fault"), oval(43, 22, 5, 6, "fault")] if f.hook else []
    drawn += specks(8, 30, 12, 12) if f.rust else []
    return [*drawn, *(shaken(52, 26) if f.loose else [])]


@motif(
    states=told(
        "window place 0.5, at place 0.5, right place 0.5, slack place 0.95, short place 0.08, tight place 0.08, "
        "past place 0.95, hung place 0.5, left place 0.4, none place 1, level place 0.5, high place 0.05, low "
        "place 0.95"
    )
)
def indicator(f: Figures) -> list[Stroke]:
    """A pointer against the window or bar it should stand at."""
    x = 6 + 52 * f.place
    drawn = [box(4, 18, 56, 14), box(24, 14, 16, 22, "thin"), shape([(x - 4, 8), (x + 4, 8), (x, 17)])]
    return [*drawn, path([(x, 17), (x, 32)], "line" if 0.3 < f.place < 0.7 else "fault")]


@motif(
    states=told(
        "up place 0.3 bend 1, worn-left place 1 hook -1 rust 1, worn-right place 1 hook 1 rust 1, "
        "weak place 1, weak-left place 1 hook -1, weak-right place 1 hook 1, gone gone 1, gone-left gone 1 hook "
        "-1, gone-right gone 1 hook 1, right place 0.3, firm place 0.3, spring place 1, worn place 1 rust 1, "
        "stiff place 0.3 rust 1, free place 0.3"
    )
)
def spring(f: Figures) -> list[Stroke]:
    """A coil between its hooks: drawn out, its turns stand apart. A hand's spring has its end to that side."""
    length = 26 + 28 * max(0.0, f.place - 0.3)
    left = 32 - length / 2
    step = length / 8
    coil = [(left + i * step, 14 if i % 2 else 34) for i in range(9)]
    role: Role = "gone" if f.gone else "line"
    drawn = [path([(left - 6, 24), (left, 24), *coil, (left + length, 24), (left + length + 6, 24)], role)]
    if f.hook:
        x = left - 6 if f.hook < 0 else left + length + 6
        drawn += arrow(32, 43, 32 + 14 * f.hook, 43)
        drawn.append(oval(x, 24, 3, 3, "line"))
    drawn += arrow(32, 44, 32, 36, "fault") if f.bend else []
    if f.place > 0.6 and not f.gone:
        drawn.append(path([(left, 40), (left + length, 40)], "fault"))
    return [*drawn, *(specks(left, 14, length, 20) if f.rust else [])]


@motif(states=told("latched, clip gone 1, hinge loose 1, apart loose 1"))
def bolt(f: Figures) -> list[Stroke]:
    """A bolt through two plates: loose its head stands off, missing its hole is left."""
    lift = 7 * f.loose
    drawn = [box(4, 22, 56, 8), box(4, 31 + lift * 0.4, 56, 8)]
    if f.gone >= 1:
        return [*drawn, box(28, 22, 8, 18, "gone"), shape([(24, 14), (40, 14), (42, 21), (22, 21)], "gone")]
    drawn += [shape([(24, 13 - lift), (40, 13 - lift), (42, 21 - lift), (22, 21 - lift)]), box(28, 21 - lift, 8, 24)]
    drawn += [crack(33, 13 - lift, 9)] if f.crack else []
    return [*drawn, *(shaken(46, 16 - lift) if f.loose else [])]


@motif(states=told("worn wear 1, wiggle wear 0.6 loose 1, clean"))
def spline(f: Figures) -> list[Stroke]:
    """Splines from the end of the shaft: worn, they are thin and stand off their hub."""
    points: list[Point] = []
    for i in range(8):
        at, half = i * 45.0, 11 - 5 * f.wear
        points += [around(32, 24, 12, at - half), around(32, 24, 18 - 2 * f.wear, at - half * 0.7)]
        points += [around(32, 24, 18 - 2 * f.wear, at + half * 0.7), around(32, 24, 12, at + half)]
    drawn = [oval(32, 24, 21, 21, "thin"), shape(points), oval(32, 24, 4, 4, "line")]
    return [*drawn, *(specks(20, 12, 24, 24) if f.rust else []), *(shaken(54, 24) if f.loose else [])]


@motif(
    states=told(
        "bushings loose 1, housing loose 1 wear 0.6, axle wear 1, seals drops 2, frame crack 1 wear 1, egg-shaped "
        "wear 1 loose 1, rubs loose 1 dirt 1, gearbox loose 0.6 drops 1, uneven bend 1, wobble loose 1, rough "
        "dirt 1, worn wear 0.8 loose 0.6, slight loose 0.3, driver wear 1, disc crack 1, bearing loose 0.6"
    )
)
def play(f: Figures) -> list[Stroke]:
    """A pin in its eye: the gap beside it is the play; worn, the eye is no longer round."""
    gap = 1 + 7 * f.loose
    drawn = [oval(32, 24, 20, 20), oval(32 + 2 * f.wear, 24, 9 + gap * 0.7 + 5 * f.wear, 9 + gap * 0.5, "thin")]
    drawn += [oval(32 - gap * 0.5, 24 + gap * 0.3, 9, 9, "body")]
    drawn += [*arrow(32, 24, 24, 24, "fault"), *arrow(32, 24, 40, 24, "fault")] if f.loose else []
    drawn += [crack(44, 8, 12)] if f.crack else []
    drawn += specks(20, 12, 24, 24) if f.dirt else []
    drawn += [path([(10, 44), (54, 38)], "fault")] if f.bend else []
    return [*drawn, *drops(50, 26, int(f.drops))]


FEEL = {
    "smooth": "quiet, runs out",
    "dry": "light, it hisses",
    "rough": "grates in the fingers",
    "loose": "knocks when rocked",
    "noisy": "growls or squeals",
}


@motif(
    states=told("smooth, dry hard 1, rough dirt 1, loose loose 1, noisy many 1, wobble loose 1"),
    words=FEEL,
)
def bearing(f: Figures) -> list[Stroke]:
    """A ball bearing with the sign of what the fingers feel."""
    off = 3 * f.loose
    drawn = [oval(28, 24, 20, 20), oval(28, 24, 13, 13, "thin"), oval(28 + off, 24 + off, 7, 7)]
    for i in range(8):
        x, y = around(28, 24, 16.4, i * 45)
        drawn.append(oval(x, y, 3, 3, "line" if f.hard else "body"))
    if f.dirt:
        drawn.append(path([(50, 14), (54, 18), (50, 22), (56, 26), (50, 30), (54, 34)], "fault"))
    elif f.loose:
        drawn += shaken(51, 24)
    elif f.many:
        drawn += [curve([(52, 14 - i), (57 + i, 24), (52, 34 + i)], "fault") for i in (0, 4)]
    elif f.hard:
        drawn.append(path([(50, 18), (60, 18)], "fault"))
    else:
        drawn.append(curve([(50, 34), (62, 24), (50, 14)], "thin"))
    return drawn


@motif(states=told("all, refuses rust 1, leak drops 4, wet drops 3, stuck rust 1, rust rust 1"))
def joint(f: Figures) -> list[Stroke]:
    """A fitting or a rod's seal: dry, one drop that hangs, or running."""
    drawn = [box(2, 16, 22, 12), shape([(24, 12), (42, 12), (46, 16), (46, 28), (42, 32), (24, 32)]), box(46, 17, 16, 10)]
    drawn += [path([(30, 12), (30, 32)], "thin"), path([(36, 12), (36, 32)], "thin")]
    return [
        *drawn,
        *(specks(24, 12, 20, 20) if f.rust else []),
        *drops(33, 35, min(int(f.drops), 2)),
        *drops(43, 33, max(0, int(f.drops) - 2)),
    ]


@motif(counted=("right", "leading"), states=told("right place 0, leading place 1"))
def follower(f: Figures) -> list[Stroke]:
    """A cam roller behind its tine bar, as it should trail, or ahead of it."""
    bar, roller = 32.0, 18.0 if f.place < 0.5 else 46.0
    turning = arrow(20, 6, 46, 6, "thin")
    role: Role = "line" if f.place < 0.5 else "fault"
    return [
        *turning,
        oval(bar, 34, 5),
        path([(bar, 34), (roller, 22)], role),
        oval(roller, 20, 7),
        oval(roller, 20, 2, 2, "line"),
    ]
