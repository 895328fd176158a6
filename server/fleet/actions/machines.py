"""Making and changing models and machines. Called inside the action of whoever adds or changes one, once all is understood."""

import datetime as dt
import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, fields

from shops.models import Member

from ..models import Machine, MachineModel
from .history import history_changed


@dataclass(frozen=True)
class Particulars:
    """What a machine is, understood: lengths in mm. owners: members; goes_with: machines of the shop."""

    name: str
    serial: str = ""
    rows: int = 0
    track_rows: Sequence[int] = ()
    options: Sequence[str] = ()
    season_date: dt.date | None = None
    priority: int = 1
    row_spacing_mm: float | None = None
    folded_width_mm: float | None = None
    folded_height_mm: float | None = None
    owners: Sequence[int] = field(default=())
    goes_with: Sequence[int] = field(default=())


def make_model(
    member: Member, maker: str, name: str, family: str, counts: Mapping[str, int], identity: uuid.UUID | None = None
) -> MachineModel:
    """A model of the shop's. identity: its UUID, where whoever adds it has made one.

    counts: where it has its own numbers of things, without a header's prefix.
    """
    model: MachineModel = MachineModel.objects.create(
        uuid=identity or uuid.uuid4(), shop=member.shop, maker=maker, name=name, family=family, counts=dict(counts)
    )
    return model


def make(member: Member, machine: uuid.UUID, model: MachineModel, what: Particulars) -> Machine:
    """A machine of the shop's."""
    made = Machine(uuid=machine, shop=member.shop, model=model, name=what.name)
    return _put(made, what)


def change(machine: Machine, what: Particulars) -> None:
    """What a machine is from now on. Walk-arounds that have begun keep what they began with."""
    _put(machine, what)
    history_changed([machine.pk])


def _put(machine: Machine, what: Particulars) -> Machine:
    for one in fields(what):
        if one.name not in ("owners", "goes_with"):
            value = getattr(what, one.name)
            setattr(machine, one.name, list(value) if isinstance(value, tuple | list) else value)
    machine.save()
    machine.owners.set(what.owners)
    machine.goes_with.set(what.goes_with)
    return machine


def came_new(machine: Machine, counter: float) -> None:
    """Every part in it is as old as the machine: what its counter showed when it came."""
    machine.new_at = counter
    machine.save(update_fields=["new_at"])


def put_out(machine: Machine, why: str, on: dt.date | None) -> None:
    """Out of every list (sold, scrapped), or with no reason back into them."""
    machine.gone, machine.gone_on = why, on
    machine.save(update_fields=["gone", "gone_on"])
