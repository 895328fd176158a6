"""What lies on the ground and in the tank while a combine works: grain lost, straw spread, the sample."""

from .motif import Figures, motif, told
from .strokes import Stroke, box, curve, oval, path, shape, specks


def _ear(x: float, y: float) -> list[Stroke]:
    """A piece of an ear with its grains in it."""
    return [
        path([(x - 5, y + 3), (x, y), (x + 5, y - 3)], "fault"),
        oval(x - 2, y - 1, 2, 1.4, "grain"),
        oval(x + 3, y, 2, 1.4, "grain"),
    ]


@motif(states=told("few, front place 0 many 1, under place 0.5 many 1, behind place 1 many 1, heads place 1 hook 1"))
def losses(f: Figures) -> list[Stroke]:
    """A combine from the side and where grain lies: in front of it, under it, behind it, loose or still in the ear."""
    drawn = [
        path([(2, 44), (62, 44)], "thin"),
        shape([(20, 12), (46, 12), (50, 30), (20, 30)]),
        path([(20, 26), (11, 36), (6, 36)]),
        oval(6, 34, 4, 3, "line"),
        oval(24, 35, 6, 6),
        oval(44, 37, 4, 4),
    ]
    x = 4 + 50 * f.place
    if f.many:
        drawn += [*specks(x - 3, 39, 13, 5, "grain"), oval(x + 4, 42, 9, 5, "fault")]
    if f.hook:
        drawn += [*_ear(x - 1, 42), *_ear(x + 5, 37)]
    return drawn


@motif(states=told("even, narrow place 0, side bend 1, clumps many 1"))
def spread(f: Figures) -> list[Stroke]:
    """The ground behind a combine, seen from the tail: how high the straw lies over the width of the header."""
    drawn = [path([(2, 44), (62, 44)], "thin"), shape([(26, 6), (38, 6), (41, 16), (23, 16)])]
    drawn += [path([(4, 24), (4, 28)], "thin"), path([(4, 26), (60, 26)], "thin"), path([(60, 24), (60, 28)], "thin")]
    if f.many:
        return [*drawn, box(4, 41, 56, 3), oval(17, 38, 6, 4, "fault"), oval(44, 38, 7, 4, "fault")]
    if f.bend:
        return [*drawn, shape([(4, 44), (4, 32), (40, 42), (60, 43), (60, 44)]), path([(42, 36), (58, 36)], "gone")]
    if f.place < 0.5:
        return [
            *drawn,
            shape([(18, 44), (22, 34), (42, 34), (46, 44)]),
            *(path([(x, 38), (x + 10, 38)], "gone") for x in (4, 50)),
        ]
    return [*drawn, box(4, 38, 56, 6)]


@motif(states=told("clean, broken crack 1, chaff dirt 1, ears hook 1"))
def sample(f: Figures) -> list[Stroke]:
    """A handful out of the tank: whole grain, broken grain, chaff or pieces of ears among it."""
    drawn = [curve([(6, 20), (8, 46), (32, 46), (56, 46), (58, 20)]), path([(6, 20), (58, 20)], "thin")]
    places = ((16, 27), (26, 25), (37, 26), (48, 27), (20, 34), (31, 33), (42, 34), (27, 40), (37, 40))
    for i, (x, y) in enumerate(places):
        if f.crack and i % 3 == 1:
            drawn += [
                oval(x - 2, y, 1.6, 2, "grain"),
                oval(x + 2.4, y + 1, 1.6, 2, "grain"),
                path([(x, y - 4), (x + 1, y + 4)], "fault"),
            ]
        elif not (f.hook and i in (1, 5)):
            drawn.append(oval(x, y, 3.4, 2.4, "grain"))
    if f.dirt:
        drawn += [path([(x, y), (x + 6, y - 4)], "fault") for x, y in ((13, 33), (24, 30), (35, 37), (44, 31), (30, 24))]
    if f.hook:
        drawn += [*_ear(26, 26), *_ear(33, 33)]
    return drawn
