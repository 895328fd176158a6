"""The parts list of the whole shop: pieces merged over rows, sides and machines, less what there is and what is coming."""

import datetime as dt
from dataclasses import dataclass, field
from math import ceil
from typing import Any

from django.db.models import F, Sum

from lumvek_core import positions
from parts.models import PartNumber
from shops.models import Member

from ..models import Order, OrderLine, StockItem, Terms
from . import needs, stock
from .needs import RANK, Piece


@dataclass
class Line:
    """One number, or one slot whose number is to be found. Quantities in pieces, or in `unit`.

    needed: all that the machines call for; fitted: of these already on. shelf: on the shelf; truck: on the truck beyond what it
    should carry; coming: ordered and not yet here. net = needed − fitted − shelf − truck − coming, never below 0; order: in
    packs.
    """

    key: str
    number: str
    name: str
    side: str
    unit: str
    pack: int
    status: str
    note: str
    consumable: bool
    pieces: list[Piece] = field(default_factory=list)
    needed: int = 0
    fitted: int = 0
    shelf: int = 0
    truck: int = 0
    carry: int = 0
    coming: int = 0
    net: int = 0
    order: int = 0
    surplus: int = 0
    bin: str = ""
    need_by: dt.date | None = None
    promised: dt.date | None = None

    @property
    def to_run(self) -> bool:
        """Whether a machine cannot run without it; otherwise it is renewed only while something is apart."""
        return any(piece.severity in ("stop", "due") and piece.origin != "apart" for piece in self.pieces)

    @property
    def severity(self) -> str:
        return min((piece.severity for piece in self.pieces if piece.fitted is None), key=lambda s: RANK.get(s, 9), default="")

    def serves(self) -> list[str]:
        """The findings behind it in words: ``Dunmere 12: row 5 left, opener disc diameter``."""
        groups: dict[tuple[str, str], list[str]] = {}
        for piece in self.pieces:
            groups.setdefault((piece.machine.name, piece.because), []).append(piece.position)
        return [f"{machine}: {positions.in_words(at)}, {because}" for (machine, because), at in groups.items()]


@dataclass
class PartsList:
    """Lines without a number first, then what must be ordered, then the rest."""

    terms: Terms
    lines: list[Line]
    need_dates: dict[int, dt.date | None]


def build(member: Member, now: dt.datetime) -> PartsList:
    """The list as it stands. The number of queries does not grow with it."""
    read = needs.read(member, now)
    lines: dict[str, Line] = {}
    for piece in read.pieces:
        number = piece.number.ordered_as if piece.number else ""
        key = number or f"{piece.machine.model_id}:{piece.slot}:{piece.side}"
        line = lines.get(key)
        if line is None:
            line = lines[key] = _line(key, piece)
        line.pieces.append(piece)
        line.needed += piece.quantity
        line.fitted += piece.quantity if piece.fitted else 0
        day = read.need_dates.get(piece.machine.pk)
        if day and not piece.fitted and (line.need_by is None or day < line.need_by):
            line.need_by = day
    _supply(member.shop_id, lines)
    ordered = sorted(
        lines.values(), key=lambda one: (bool(one.number), one.order == 0, one.need_by or dt.date.max, one.name, one.side)
    )
    return PartsList(read.terms, ordered, read.need_dates)


def _line(key: str, piece: Piece) -> Line:
    number = piece.number
    return Line(
        key=key,
        number=number.ordered_as if number else "",
        name=piece.name,
        side=positions.SIDE_NAMES[piece.side] if piece.side in ("L", "R") else "",
        unit=piece.unit,
        pack=number.pack if number else 1,
        status=number.status if number else "",
        note=" ".join(filter(None, (_superseded(number), number.note))) if number else "",
        consumable=piece.consumable,
    )


def _superseded(number: PartNumber) -> str:
    """What it came after, and how the old one is told."""
    old = f"Replaces {number.number}." if number.replaced_by else ""
    return " ".join(filter(None, (old, f"{number.mark}." if number.mark else "")))


def _supply(shop_id: int, lines: dict[str, Line]) -> None:
    """What is there and what is coming, number by number; each piece of stock is counted once."""
    numbers = [line.number for line in lines.values() if line.number]
    there, kept = (
        stock.levels(shop_id, numbers),
        {one.number: one for one in StockItem.objects.in_shop(shop_id).filter(number__in=numbers)},
    )
    coming = on_order(shop_id, numbers)
    for line in lines.values():
        level, entry = there.get(line.number, {}), kept.get(line.number)
        line.shelf = level.get("shelf", 0)
        line.carry = entry.carry if entry else 0
        line.bin = entry.bin if entry else ""
        line.truck = max(0, level.get("truck", 0) - line.carry)
        line.coming, line.promised = coming.get(line.number, (0, None))
        missing = line.needed - line.fitted - line.shelf - line.truck - line.coming
        line.net = max(0, missing)
        line.surplus = max(0, min(line.coming, -missing))
        line.order = ceil(line.net / line.pack) * line.pack


def on_order(shop_id: int, numbers: list[str] | None = None) -> dict[str, tuple[int, dt.date | None]]:
    """Pieces that are ordered and not yet here, with the last day promised; no day where some of them have none.

    An order that nobody has confirmed counts in full: it may have arrived at the desk.
    """
    rows = OrderLine.objects.in_shop(shop_id)
    if numbers is not None:
        rows = rows.filter(number__in=numbers)
    found: dict[str, int] = {}
    days: dict[str, list[dt.date | None]] = {}
    waiting = (Order.State.TO_SEND, Order.State.BY_HAND)
    asked = rows.filter(order__state__in=waiting)
    planned = asked.exclude(order__way__in=Order.BY_WORD).values("number", "order__run_date")
    by_word = asked.filter(order__way__in=Order.BY_WORD).values("number", "promised")
    to_come = Sum(F("quantity") - F("received"))
    said = (
        rows.exclude(order__state__in=waiting)
        .values("number", "promised", "follows_on")
        .annotate(n=Sum(F("accepted") + F("follows") - F("received")))
    )
    grouped: list[dict[str, Any]] = [
        dict(row) for rows_ in (planned.annotate(n=to_come), by_word.annotate(n=to_come), said) for row in rows_
    ]
    for row in grouped:
        if row["n"] > 0:
            number, said_days = row["number"], [row.get(name) for name in ("order__run_date", "promised", "follows_on")]
            found[number] = found.get(number, 0) + row["n"]
            days.setdefault(number, []).append(max((day for day in said_days if day), default=None))
    return {number: (pieces, _last(days[number])) for number, pieces in found.items()}


def _last(days: list[dt.date | None]) -> dt.date | None:
    known = [day for day in days if day]
    return max(known) if len(known) == len(days) else None
