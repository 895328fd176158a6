"""What the parts of each machine cost, who bears it, and what was agreed to. Decimal throughout."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from decimal import ROUND_HALF_UP, Decimal

from django.db.models import Min
from django.utils import timezone

from fleet.models import Machine
from fleet.queries.machines import machines_for
from inspection.queries import rule_books
from lumvek_core.catalogue.lists import StripDown
from shops.models import Member

from ..models import Approval, Offer, Order, OrderLine, Share, Terms
from . import needs
from .needs import Piece

CENT = Decimal("0.01")


@dataclass
class CostLine:
    """One number on one machine. price: of one piece, None where nobody has named one."""

    number: str
    name: str
    quantity: int
    unit: str
    price: Decimal | None

    @property
    def amount(self) -> Decimal:
        return (self.price or Decimal(0)) * self.quantity


@dataclass
class Estimate:
    """One machine. hours: of the strip-downs its parts need; without_hours: parts whose work is in none of them."""

    machine: Machine
    lines: list[CostLine] = field(default_factory=list)
    hours: Decimal = Decimal(0)
    strip_downs: list[str] = field(default_factory=list)
    without_hours: int = 0
    labour_rate: Decimal = Decimal(0)
    shares: list[tuple[str, Decimal, Decimal]] = field(default_factory=list)
    approvals: list[Approval] = field(default_factory=list)
    owners: list[Member] = field(default_factory=list)

    @property
    def parts(self) -> Decimal:
        return sum((line.amount for line in self.lines), Decimal(0)).quantize(CENT, ROUND_HALF_UP)

    @property
    def labour(self) -> Decimal:
        return (self.hours * self.labour_rate).quantize(CENT, ROUND_HALF_UP)

    @property
    def total(self) -> Decimal:
        return self.parts + self.labour

    @property
    def unpriced(self) -> int:
        return sum(line.price is None for line in self.lines)


def estimates(member: Member) -> tuple[Terms, list[Estimate]]:
    """What this member may see of the cost of each machine that needs parts: an owner's own machines, everybody else all."""
    read = needs.read(member, timezone.now())
    mine = {machine.pk for machine in machines_for(member)}
    prices = price_list(member.shop_id)
    found: dict[int, Estimate] = {}
    slots: dict[int, list[Piece]] = {}
    for piece in read.pieces:
        if piece.machine.pk not in mine:
            continue
        one = found.setdefault(piece.machine.pk, Estimate(piece.machine, labour_rate=read.terms.labour_rate))
        number = piece.number.ordered_as if piece.number else ""
        line = next((line for line in one.lines if (line.number, line.name) == (number, piece.name)), None)
        if line is None:
            line = CostLine(number, piece.name, 0, piece.unit, prices.get(number))
            one.lines.append(line)
        line.quantity += piece.quantity
        slots.setdefault(piece.machine.pk, []).append(piece)
    for pk, pieces in slots.items():
        _work(found[pk], pieces, rule_books.shipped().strip_downs)
    _shares(found)
    for approval in Approval.objects.filter(machine__in=found, taken_back_at=None).select_related("by"):
        found[approval.machine_id].approvals.append(approval)
    return read.terms, sorted(found.values(), key=lambda one: one.machine.name)


def price_list(shop_id: int) -> dict[str, Decimal]:
    """The price of one piece of each number: what was paid last, else the lowest offer."""
    offered = Offer.objects.in_shop(shop_id).order_by().values_list("number").annotate(Min("unit_price"))
    lines = OrderLine.objects.in_shop(shop_id).exclude(order__state=Order.State.CANCELLED).order_by("id")
    return dict(offered) | dict(lines.exclude(unit_price=None).values_list("number", "unit_price"))


def _work(estimate: Estimate, pieces: Iterable[Piece], strip_downs: Sequence[StripDown]) -> None:
    """Hours of the strip-downs that the parts need, each once a row or machine."""
    opened: set[tuple[str, str]] = set()
    for piece in pieces:
        down = next((down for down in strip_downs if piece.slot in down.for_), None)
        if down is None:
            estimate.without_hours += piece.origin == "finding" and not piece.consumable
            continue
        row = "".join(char for char in piece.position if char.isdigit())
        if (down.key, row) not in opened:
            opened.add((down.key, row))
            estimate.hours += Decimal(str(down.hours))
            estimate.strip_downs.append(down.name if not row else f"{down.name}, row {row}")


def _shares(found: Mapping[int, Estimate]) -> None:
    """Who bears how much. Cents that do not divide go to whoever is shortest of a whole one."""
    for owner in (
        Member.objects.filter(own_machines__in=found).select_related("user").prefetch_related("own_machines").distinct()
    ):
        for machine in owner.own_machines.all():
            if machine.pk in found:
                found[machine.pk].owners.append(owner)
    named: dict[int, list[Share]] = {}
    for share in Share.objects.filter(machine__in=found).select_related("member__user").order_by("id"):
        named.setdefault(share.machine_id, []).append(share)
    for pk, one in found.items():
        parts = [(share.member.name, share.percent) for share in named.get(pk, [])]
        rest = Decimal(100) - sum((percent for _, percent in parts), Decimal(0))
        if rest > 0 and not parts and one.owners:
            each = split(rest, [Decimal(1)] * len(one.owners))
            parts = [(owner.name, percent) for owner, percent in zip(one.owners, each, strict=True)]
        elif rest > 0:
            parts.append(("others" if parts else "no owner named", rest))
        for (name, percent), due in zip(parts, split(one.total, [percent for _, percent in parts]), strict=True):
            one.shares.append((name, percent, due))


def split(total: Decimal, percents: Sequence[Decimal]) -> list[Decimal]:
    """A sum in cents, divided so that it adds up again."""
    whole = sum(percents, Decimal(0))
    exact = [total * percent / whole for percent in percents]
    given = [one.quantize(CENT, "ROUND_DOWN") for one in exact]
    left = int((total - sum(given, Decimal(0))) / CENT)
    shortest = sorted(range(len(given)), key=lambda i: (given[i] - exact[i], i))
    for i in shortest[:left]:
        given[i] += CENT
    return given
