"""What goes out of parts and orders: lists, order sheets, pick lists, labels, parts books."""

import uuid
from dataclasses import dataclass, field
from typing import Literal, cast

from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone

from inspection.queries import rules_in_force
from lumvek_core import positions
from shops.access import NotFoundHere
from shops.models import Member
from shops.rights import may
from supply.models import StockItem
from supply.queries import net_requirements, orders, parts_book, serializers_orders, sourcing
from supply.queries.needs import Piece, terms_of
from tabular import sheets

from . import paper
from .labels import Label, code_of
from .paper import for_members

FORMS = ("csv", "xlsx")


def _reader(member: Member) -> None:
    """Whoever may not see the shop's parts finds nothing here."""
    if not may(member, "see the parts of the whole shop"):
        raise NotFoundHere


def _table(name: str, form: str, rows: list[list[str]]) -> HttpResponse:
    if form not in FORMS:
        raise Http404
    return sheets.table(name, cast(Literal["csv", "xlsx"], form), rows)


@for_members
def needed(request: HttpRequest, member: Member, form: str) -> HttpResponse:
    """The whole list; a supplier fills in price, stock and chance, and the file comes back in as offers."""
    _reader(member)
    titles = [
        "number",
        "part",
        "side",
        "needed",
        "order",
        "unit",
        "wanted",
        "for",
        "unit_price",
        "pack",
        "stock",
        "chance",
        "restock_days",
    ]
    rows = [titles]
    for line in net_requirements.build(member, timezone.now()).lines:
        wanted = line.need_by.isoformat() if line.need_by else ""
        serves = "; ".join(line.serves())
        row = [line.number, line.name, line.side, str(line.needed), str(line.order), line.unit, wanted, serves]
        rows.append([*row, "", str(line.pack), "", "", ""])
    return _table("parts-list", form, rows)


@for_members
def order(request: HttpRequest, member: Member, order_id: uuid.UUID, form: str) -> HttpResponse:
    """One order as a sheet. The table comes back in with what the supplier has put aside."""
    _reader(member)
    found = orders.order_of(member, order_id)
    name = f"order-{str(found.uuid)[:8]}"
    shown = serializers_orders.order(found)
    if form == "pdf":
        currency = terms_of(member).currency
        return paper.pdf("order", {"order": shown, "shop": member.shop, "currency": currency, "made": found.at}, name)
    titles = ["number", "part", "quantity", "unit_price", "accepted", "promised", "follows", "follows_on"]
    rows = [[line.number, line.name, str(line.quantity), line.unit_price, "", "", "", ""] for line in shown.lines]
    return _table(name, form, [titles, *rows])


@for_members
def book(request: HttpRequest, member: Member, model_id: int, form: str) -> HttpResponse:
    """The parts book of a model."""
    _reader(member)
    model = rules_in_force.model_of(member, model_id)
    return _table(f"parts-book-{model.name.lower().replace(' ', '-')}", form, parts_book.rows(model))


@dataclass
class Pick:
    """One part to take along. where: bin, truck, or on its way."""

    name: str
    number: str
    quantity: str
    at: str
    where: str


@dataclass
class Job:
    """What is taken to one machine, by posture."""

    machine: str
    postures: dict[str, list[Pick]] = field(default_factory=dict)


def _jobs(member: Member) -> list[Job]:
    jobs: dict[str, Job] = {}
    lines = net_requirements.build(member, timezone.now()).lines
    for line in lines:
        groups: dict[tuple[str, str], list[Piece]] = {}
        for piece in line.pieces:
            if piece.fitted is None:
                groups.setdefault((piece.machine.name, piece.posture), []).append(piece)
        for (machine, posture), pieces in groups.items():
            quantity = f"{sum(piece.quantity for piece in pieces)}{' ' + line.unit if line.unit else ''}"
            at = positions.in_words(piece.position for piece in pieces)
            name = orders.called(line)
            pick = Pick(name, line.number or "to be found", quantity, at, _where(line))
            jobs.setdefault(machine, Job(machine)).postures.setdefault(posture, []).append(pick)
    return sorted(jobs.values(), key=lambda job: job.machine)


def _where(line: net_requirements.Line) -> str:
    if line.shelf:
        return f"shelf {line.bin}".strip()
    if line.truck:
        return "truck"
    return f"coming {line.promised:%-d %b}" if line.coming and line.promised else "to order"


@for_members
def pick_list(request: HttpRequest, member: Member) -> HttpResponse:
    """What to take to which machine, to print and tick."""
    _reader(member)
    context = {"jobs": _jobs(member), "shop": member.shop, "today": sourcing.clock(member.shop.terms).date()}
    return HttpResponse(paper.page("pick_list", context, nonce=paper.nonce_of(request)))


@for_members
def pick_list_csv(request: HttpRequest, member: Member) -> HttpResponse:
    """The same as a table."""
    _reader(member)
    rows = [["machine", "posture", "quantity", "part", "number", "at", "from"]]
    for job in _jobs(member):
        for posture, picks in job.postures.items():
            rows += [[job.machine, posture, one.quantity, one.name, one.number, one.at, one.where] for one in picks]
    return _table("pick-list", "csv", rows)


@for_members
def labels(request: HttpRequest, member: Member) -> HttpResponse:
    """Labels with a code to scan: for bins the part number, for removed parts what they were. Query: for (bins, removed)."""
    _reader(member)
    if request.GET.get("for", "bins") == "bins":
        made = [Label(one.name, [one.number, one.bin], code_of(one.number)) for one in StockItem.objects.of(member)]
    else:
        made = [label for line in net_requirements.build(member, timezone.now()).lines for label in _removed(line)]
    return paper.pdf("labels", {"labels": made}, "labels")


def _removed(line: net_requirements.Line) -> list[Label]:
    """One for each position whose part comes off; oil and grease leave nothing to keep."""
    if line.consumable:
        return []
    return [
        Label(
            f"{piece.machine.name}, {piece.label.lower()}",
            [f"Removed: {orders.called(line)}", piece.because, "Off on ____________", "Keep until the owner has seen it"],
            code_of(f"{piece.machine.serial or piece.machine.name} {piece.slot} {piece.position}"),
        )
        for piece in line.pieces
        if piece.origin != "companion" or piece.fitted
    ]
