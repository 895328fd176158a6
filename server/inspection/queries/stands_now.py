"""How a machine stands by what was said last: which header is on it, and which group of crops it was walked around for."""

import datetime as dt
from collections.abc import Iterable

from fleet.models import Coupling, Machine

from ..models import WalkAround


def walks_of(machine: Machine) -> list[WalkAround]:
    """Every walk-around of a machine that counts, the oldest first, with its headers. Three queries."""
    return list(machine.walk_arounds.filter(discarded_at=None).order_by("started_at").prefetch_related("headers__model"))


def couplings(machine: Machine, walks: list[WalkAround] | None = None) -> list[tuple[dt.datetime, Machine | None]]:
    """When which header was on a machine, the oldest first; none: it stands without one. walks: of `walks_of`, where they are
    at hand."""
    walked = [(walk.started_at, next(iter(walk.headers.all()), None)) for walk in walks or walks_of(machine)]
    told = Coupling.objects.filter(machine=machine, taken_back_at=None).select_related("header__model")
    listed = [(at, header) for at, header in walked if header] + [(one.at, one.header) for one in told]
    return sorted(listed, key=lambda one: one[0])


def coupled_now(machine: Machine) -> Machine | None:
    """The header that is on a machine. Four queries."""
    return coupled_at(machine, None)


def coupled_at(machine: Machine, moment: dt.datetime | None) -> Machine | None:
    """The header that was on a machine then; what is sent late was done with that one. Four queries."""
    listed = [header for at, header in couplings(machine) if moment is None or at <= moment]
    return listed[-1] if listed else None


def crops_now(machines: Iterable[Machine]) -> dict[int, str]:
    """Group of crops each machine was walked around for last, by id, where somebody named it. One query."""
    walks = WalkAround.objects.filter(machine__in=machines, discarded_at=None).exclude(crop="")
    return dict(walks.order_by("started_at").values_list("machine", "crop"))
