"""How a machine stands by what was said last: which header is on it, and which group of crops it was walked around for."""

import datetime as dt
from collections.abc import Iterable, Mapping

from fleet.models import Coupling, Machine

from ..models import WalkAround

Coupled = tuple[dt.datetime, Machine | None]
"""When a header was put on a machine; None: when it was taken off."""


def walks_of(machines: Iterable[Machine]) -> dict[int, list[WalkAround]]:
    """Every walk-around of each machine that counts, the oldest first, with its headers. Three queries."""
    found: dict[int, list[WalkAround]] = {machine.pk: [] for machine in machines}
    rows = WalkAround.objects.filter(machine__in=found, discarded_at=None).defer("plan", "stations", "tallies")
    for walk in rows.order_by("started_at").prefetch_related("headers__model"):
        found[walk.machine_id].append(walk)
    return found


def couplings(machines: Iterable[Machine], walks: Mapping[int, list[WalkAround]] | None = None) -> dict[int, list[Coupled]]:
    """When which header was on each machine, the oldest first. walks: of `walks_of`, where they are at hand; else four
    queries."""
    listed = list(machines)
    walks = walks_of(listed) if walks is None else walks
    found: dict[int, list[Coupled]] = {pk: [] for pk in walks}
    for pk, mine in walks.items():
        headers = ((walk.started_at, next(iter(walk.headers.all()), None)) for walk in mine)
        found[pk] = [(at, header) for at, header in headers if header]
    for one in Coupling.objects.filter(machine__in=listed, taken_back_at=None).select_related("header__model"):
        found[one.machine_id].append((one.at, one.header))
    return {pk: sorted(mine, key=lambda one: one[0]) for pk, mine in found.items()}


def coupled_now(machine: Machine) -> Machine | None:
    """The header that is on a machine. Four queries."""
    return coupled_to([machine])[machine.pk]


def coupled_to(machines: Iterable[Machine]) -> dict[int, Machine | None]:
    """The header that is on each machine. Four queries."""
    return {pk: mine[-1][1] if mine else None for pk, mine in couplings(machines).items()}


def coupled_at(machine: Machine, moment: dt.datetime | None) -> Machine | None:
    """The header that was on a machine then, or is now; what is sent late was done with that one. Four queries."""
    listed = [header for at, header in couplings([machine])[machine.pk] if moment is None or at <= moment]
    return listed[-1] if listed else None


def crops_now(machines: Iterable[Machine]) -> dict[int, str]:
    """Group of crops each machine was walked around for last, by id, where somebody named it. One query."""
    walks = WalkAround.objects.filter(machine__in=machines, discarded_at=None).exclude(crop="")
    return dict(walks.order_by("started_at").values_list("machine", "crop"))
