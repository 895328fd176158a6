"""The board: every machine with how its places stand and its newest walk-around, narrowed, put in order and cut into pages."""

import datetime as dt
import re
from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass, field
from typing import Any

from django.db.models import F, Q
from django.utils import timezone

from fleet.models import Machine
from fleet.queries.machines import machines_for
from lumvek_core.catalogue.rounds import CHANGEOVER, FAULT
from shops.models import Member
from tabular.paging import holds, page_of

from ..judging.machine_standing import Summed, summed, together
from ..models import WalkAround
from ..schemas import BoardAsked, BoardMachineOut, BoardOut, MachineKindOut, MachineNameOut, StationOut, TallyOut
from .serializers import brief, kind_name, machine_out
from .walk_arounds import TELLING, UNREAD, ranked, station_state

PAGE = 50
"""Lines of a board on a page."""


def board(member: Member, asked: BoardAsked) -> BoardOut:
    """The board as it is asked for; its kinds and owners are those of every machine the member may see."""
    cards = cards_of(member)
    wanted = sorted((card for card in cards if _wanted(card, asked)), key=_ORDERS[asked.order])
    shown, page = page_of(wanted, asked.page, PAGE)
    kinds = {card.machine.model.family for card in cards}
    return BoardOut(
        machines=[_out(card) for card in shown],
        page=page,
        every=len(cards),
        kinds=sorted((MachineKindOut(key=key, name=kind_name(key)) for key in kinds), key=lambda kind: kind.name),
        owners=sorted({name for card in cards for name in card.owners}),
    )


def names(member: Member) -> list[MachineNameOut]:
    """The machines the member may see, by name. One query."""
    machines = [machine_out(machine) for machine in machines_for(member).order_by("name")]
    return [MachineNameOut(id=machine.id, name=machine.name, kind=machine.kind) for machine in machines]


@dataclass
class BoardMachine:
    """A machine with its newest walk-around, and how many of its places stand how, those of the headers on it too, whichever
    walk-around they were read in; its stations where machines are few enough to be drawn. owners: their names."""

    machine: Machine
    newest: WalkAround | None = None
    sum: dict[str, int] = field(default_factory=dict)
    stations: list[StationOut] = field(default_factory=list)
    owners: list[str] = field(default_factory=list)


DRAWN = 12
"""Machines of a board that draws each; of more there is a line each."""


def cards_of(member: Member) -> list[BoardMachine]:
    """Every machine the member may see, by season date; a header with the walk-arounds it was coupled in. The number of
    queries is the same however many there are."""
    cards = {machine.pk: BoardMachine(machine) for machine in machines_for(member)}
    walks = WalkAround.objects.filter(TELLING, machine__in=cards, discarded_at=None)
    newest = ranked(walks, F("machine_id"), "started_at")
    for walk_around in newest.select_related("started_by", "finished_by").defer(*UNREAD):
        cards[walk_around.machine_id].newest = walk_around
    if not member.sees_own_only:
        _take_coupled(cards)
    for machine, first, last, name in Machine.owners.through.objects.filter(machine__in=cards).values_list(
        "machine", "member__user__first_name", "member__user__last_name", "member__user__username"
    ):
        cards[machine].owners.append(f"{first} {last}".strip() or name)
    standing = standing_of({pk: card.machine for pk, card in cards.items()})
    for card in cards.values():
        stands = together(standing[card.machine.pk].values())
        card.sum = stands.counts
        if len(cards) <= DRAWN:
            card.stations = [station_state(station, station["counts"]) for station in stands.stations]
    return list(cards.values())


def standing_of(machines: Mapping[int, Machine]) -> dict[int, dict[Machine, Summed]]:
    """How machines stand, each and the headers that it was walked around with last."""
    headers = headers_on(machines)
    named = {header.pk: header for on_it in headers.values() for header in on_it}
    each = summed({**named, **machines})
    return {pk: {one: each[one.pk] for one in [machine, *headers.get(pk, [])]} for pk, machine in machines.items()}


def headers_on(machines: Collection[int]) -> dict[int, list[Machine]]:
    """The headers that each machine was walked around with last as a whole, of those in use. Two queries."""
    walks = WalkAround.objects.filter(TELLING, machine__in=machines, discarded_at=None).defer(*UNREAD)
    newest = {walk.pk: walk.machine_id for walk in ranked(walks, F("machine_id"), "started_at")}
    pairs = WalkAround.headers.through.objects.filter(walkaround__in=newest, machine__gone="").select_related("machine__model")
    found: dict[int, list[Machine]] = {}
    for pair in pairs:
        found.setdefault(newest[pair.walkaround_id], []).append(pair.machine)
    return found


def _take_coupled(cards: dict[int, BoardMachine]) -> None:
    """Headers with the walk-around of their combine, where that is newer than one of their own."""
    coupled = ranked(
        WalkAround.headers.through.objects.filter(machine__in=cards, walkaround__discarded_at=None).exclude(
            Q(walkaround__phase=CHANGEOVER, walkaround__finished_at__isnull=False) | Q(walkaround__phase=FAULT)
        ),
        F("machine_id"),
        "walkaround__started_at",
    )
    related = ("walkaround__started_by", "walkaround__finished_by")
    for pair in coupled.select_related(*related).defer(*(f"walkaround__{name}" for name in UNREAD)):
        card = cards[pair.machine_id]
        if card.newest is None or pair.walkaround.started_at > card.newest.started_at:
            card.newest = pair.walkaround


def _out(card: BoardMachine) -> BoardMachineOut:
    return BoardMachineOut(
        machine=machine_out(card.machine),
        newest=brief(card.newest) if card.newest else None,
        sum=TallyOut(**card.sum),
        stations=card.stations,
        owners=card.owners,
    )


_STATES: dict[str, Callable[[BoardMachine], bool]] = {
    "stop": lambda card: card.sum.get("stop", 0) > 0,
    "due": lambda card: card.sum.get("due", 0) > 0,
    "running": lambda card: card.newest is not None and card.newest.finished_at is None,
    "finished": lambda card: card.newest is not None and card.newest.finished_at is not None,
    "none": lambda card: card.newest is None,
}


def _wanted(card: BoardMachine, asked: BoardAsked) -> bool:
    machine = card.machine
    text = " ".join([machine.name, machine.model.full_name, machine.serial, *card.owners])
    return (
        holds(asked.words(), text)
        and (not asked.kind or machine.model.family == asked.kind)
        and (not asked.owner or asked.owner in card.owners)
        and (not asked.state or _STATES[asked.state](card))
        and (asked.within is None or _needed_within(machine, asked.within))
    )


def _needed_within(machine: Machine, days: int) -> bool:
    until = timezone.localdate() + dt.timedelta(days=days)
    return machine.season_date is not None and machine.season_date <= until


def _by_name(card: BoardMachine) -> list[Any]:
    """Heron 9 before Heron 10."""
    return [(int(part), "") if part.isdecimal() else (-1, part) for part in re.split(r"(\d+)", card.machine.name.lower())]


def _by_season(card: BoardMachine) -> tuple[Any, ...]:
    return card.machine.season_date or dt.date.max, _by_name(card)


def _worst_first(card: BoardMachine) -> tuple[Any, ...]:
    """One place that stops the machine outweighs any number that are due; what is found outweighs what is open."""
    count = card.sum.get
    total = count("total", 0)
    still_open = (count("open", 0) / total if total else 0) if card.newest else 1
    noted = count("watch", 0) + count("asked", 0)
    return -count("stop", 0), -count("due", 0), -noted, -still_open, _by_season(card)


_ORDERS: dict[str, Callable[[BoardMachine], Any]] = {"worst": _worst_first, "season": _by_season, "name": _by_name}
