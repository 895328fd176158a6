"""What every machine of the shop still needs: one piece a position, with the finding it serves.

One piece at one place is needed once, whatever number of checks or walk-arounds call for it. It counts until it is fitted, its
finding is declined, or an answer in a later walk-around takes the place of what called for it.
"""

import datetime as dt
import uuid
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace

from fleet.models import Fitment, Machine
from fleet.queries.machines import fitments_of
from inspection.queries import rule_books, standing
from lumvek_core import positions
from lumvek_core.catalogue.rule_book import RuleBook
from lumvek_core.coupled import short
from parts.models import PartNumber, PartsLine
from parts.queries import numbers_of
from shops.models import Member

from ..models import NeedDate, Terms

RANK = {"stop": 0, "due": 1, "watch": 2}


@dataclass
class Piece:
    """One part at one position. machine: what it is fitted to, which may be a header; slot: without the header's prefix.

    quantity: pieces, or litres where `unit` says so. severity: of the finding that called for it; a companion has its cause's.
    """

    walk_around: uuid.UUID
    walk_slot: str
    machine: Machine
    slot: str
    name: str
    unit: str
    consumable: bool
    handed: bool
    position: str
    side: str
    quantity: int
    origin: str
    because: str
    check: str
    severity: str
    why: str
    posture: str
    number: PartNumber | None = None
    fitted: Fitment | None = None

    @property
    def called(self) -> str:
        """Its number as it is ordered; of one without, what it is."""
        return self.number.ordered_as if self.number else f"{self.name}: number to be found"

    @property
    def label(self) -> str:
        return positions.find(self.position).label


@dataclass
class Needs:
    """All pieces the shop's machines call for, and the day each machine wants its parts."""

    terms: Terms
    pieces: list[Piece] = field(default_factory=list)
    need_dates: dict[int, dt.date | None] = field(default_factory=dict)


def terms_of(member: Member) -> Terms:
    """What the shop counts with, made with its starting values the first time."""
    terms, _ = Terms.objects.get_or_create(shop_id=member.shop_id)
    return terms


def read(member: Member, now: dt.datetime) -> Needs:
    """Every piece that the shop's machines call for; an owner's own are picked from it by `machine`. The number of queries is
    the same however many there are."""
    terms = terms_of(member)
    machines = {one.pk: one for one in Machine.objects.in_shop(member.shop_id).select_related("model")}
    walk_arounds = standing.walks_of(machines, now)
    headers = {header.pk: header for found in walk_arounds.values() for header in found.headers.all()}
    lines = list(PartsLine.objects.filter(walk_around__in=walk_arounds))
    roots = _roots(lines)
    checks = {rule_books.today(key) for key in roots.values()}
    stands = standing.read([*machines, *headers], now, walk_arounds, checks)
    places = _calling(stands)
    numbers = _numbers([*machines.values(), *headers.values()])
    fitments = fitments_of([*machines, *headers])
    pieces = []
    for line in lines:
        found, check = walk_arounds[line.walk_around_id], _root(line, roots)
        book = rule_books.opened(found.rule_book_id)
        severity = _severity(line, check, places)
        shipped = book.family.slots.get(line.slot)
        if line.declined_reason or not severity or shipped is None:
            continue
        machine, slot = stands.couplings[found.pk].owner(line.slot), short(line.slot)
        fitted = fitments.get((machine.pk, slot, line.position_key))
        pieces.append(
            Piece(
                walk_around=found.pk,
                walk_slot=line.slot,
                machine=machine,
                slot=slot,
                name=shipped.name,
                unit=shipped.unit,
                consumable=shipped.consumable,
                handed=shipped.handed,
                position=line.position_key,
                side=line.side,
                quantity=line.quantity,
                origin=line.origin,
                because=_because(book, line),
                check=check,
                severity=severity,
                why=line.why,
                posture=book.family.checks[check].posture,
                number=numbers.get((machine.model_id, slot, line.side)) or numbers.get((machine.model_id, slot, "")),
                fitted=fitted if fitted and fitted.fitted_at >= found.started_at else None,
            )
        )
    begun = {pk: found.started_at for pk, found in walk_arounds.items()}
    return Needs(terms, _once(pieces, begun), _need_dates(machines, headers, terms))


def _once(pieces: Iterable[Piece], begun: Mapping[uuid.UUID, dt.datetime]) -> list[Piece]:
    """Each piece once, as its newest walk-around calls for it, with the worst verdict behind any of them; what is on already
    counts apart from what is needed since."""
    found: dict[tuple[int, str, str, str, int | None], Piece] = {}
    for piece in sorted(pieces, key=lambda one: begun[one.walk_around]):
        fitment = piece.fitted.pk if piece.fitted else None
        key = (piece.machine.pk, piece.slot, piece.position, piece.side, fitment)
        before = found.get(key, piece)
        worst = min(before.severity, piece.severity, key=RANK.__getitem__)
        found[key] = replace(piece, severity=worst, quantity=max(before.quantity, piece.quantity))
    return list(found.values())


def _roots(lines: Iterable[PartsLine]) -> dict[tuple[uuid.UUID, str], str]:
    """The check behind each slot of a walk-around: that of its finding, or of what it goes along with."""
    # A slot that is a finding somewhere is one, whatever it goes along with elsewhere.
    because = {(line.walk_around_id, line.slot): line for line in sorted(lines, key=lambda one: one.origin == "finding")}
    found = {}
    for key, line in because.items():
        seen = {key}
        while line.origin != "finding":
            up = (line.walk_around_id, line.because)
            if up in seen or up not in because:
                break
            seen.add(up)
            line = because[up]
        if line.origin == "finding":
            found[key] = line.because
    return found


def _root(line: PartsLine, roots: Mapping[tuple[uuid.UUID, str], str]) -> str:
    """The check behind a line: its own where it was found, else that of what it goes along with."""
    return line.because if line.origin == "finding" else roots.get((line.walk_around_id, line.because), "")


Places = dict[tuple[uuid.UUID, str], list[tuple[str, str]]]


def _calling(stands: standing.Read) -> Places:
    """Position and verdict of every finding that stands, by walk-around and check. A part that was fitted since is told apart
    by its fitting, so what it was fitted for still calls for it."""
    found: Places = {}
    for place in stands.places.values():
        if place.answer and place.answer.severity in RANK:
            found.setdefault((place.answer.walk, place.answer.check), []).append((place.answer.position, place.answer.severity))
    return found


def _severity(line: PartsLine, check: str, places: Places) -> str:
    """The worst verdict that stands behind a line; empty where none does any more."""
    here = places.get((line.walk_around_id, check), [])
    return min(
        (severity for position, severity in here if _near(line.position_key, position)), key=RANK.__getitem__, default=""
    )


def _near(piece: str, place: str) -> bool:
    """Whether a finding at `place` may call for a piece: the same place, its row or its other side, or the whole machine."""
    if piece in (place, positions.WHOLE.key):
        return True
    at, there = positions.find(piece), positions.find(place)
    both_sided = at.side is not None and there.side is not None
    return (at.thing, at.number) == (there.thing, there.number) and (at.number is not None or both_sided)


def _because(book: RuleBook, line: PartsLine) -> str:
    family = book.family
    if line.origin == "finding" and line.because in family.checks:
        return family.checks[line.because].name
    return f"new {family.slots[line.because].name.lower()}" if line.because in family.slots else line.because


def _numbers(machines: Iterable[Machine]) -> dict[tuple[int, str, str], PartNumber]:
    by_model: dict[int, list[PartNumber]] = {}
    for number in PartNumber.objects.filter(model__in={machine.model_id for machine in machines}):
        by_model.setdefault(number.model_id, []).append(number)
    return {(model, *key): number for model, numbers in by_model.items() for key, number in numbers_of(numbers).items()}


def _need_dates(machines: Mapping[int, Machine], headers: Mapping[int, Machine], terms: Terms) -> dict[int, dt.date | None]:
    own = {one.machine_id: one.day for one in NeedDate.objects.filter(machine__in=[*machines, *headers])}
    before = dt.timedelta(days=terms.days_before)
    return {
        machine.pk: own.get(machine.pk) or (machine.season_date - before if machine.season_date else None)
        for machine in [*machines.values(), *headers.values()]
    }
