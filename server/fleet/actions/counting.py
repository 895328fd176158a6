"""Recording what a meter showed, withdrawing it, and what the coming season is to be."""

import datetime as dt
import uuid
from bisect import insort
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from django.utils import timezone

from lumvek_core import counters
from lumvek_core.counters import Count
from lumvek_core.errors import BadInput
from shops.access import NotFoundHere
from shops.models import Member
from shops.rights import action

from ..models import CounterReading, Machine
from ..queries.counters import counts_of, now_of, offset_at, unit_of
from .history import history_changed
from .holding import hold

HIGHEST = 1e6


class Meter:
    """What a machine's meter of one unit has shown, so that many figures can be held against it and each other."""

    def __init__(self, machine: Machine, unit: str) -> None:
        self.unit = unit
        self.read(machine)

    def read(self, machine: Machine) -> None:
        """As it stands in the database."""
        self.edition = machine.history_edition
        self.counts = counts_of([machine.pk], self.unit)[machine.pk]
        self.stood = now_of(machine, self.unit)
        exchanges = CounterReading.objects.filter(machine=machine, unit=self.unit, exchanged=True, withdrawn=False)
        self._exchanges = [(one.at, one.total - one.shown) for one in exchanges]

    def take(self, shown: float, at: dt.datetime, *, confirmed: bool = False) -> float:
        """What the machine had done in all when it showed this; later figures are held against it too. Raises BadInput with
        field ``shown`` for what cannot be, or must be confirmed."""
        if not 0 <= shown < HIGHEST:
            raise BadInput("shown", "must be between 0 and 1 000 000")
        before = [offset for since, offset in self._exchanges if since <= at]
        new = Count(at, shown + (before[-1] if before else 0.0))
        if not self.counts and self.stood is not None and shown < self.stood:
            raise BadInput("shown", f"stood at {self.stood:g} before; it does not run back")
        asked = counters.question(self.counts, new, self.unit)
        if asked and not (confirmed and _runs_on(self.counts, new)):
            raise asked
        insort(self.counts, new, key=lambda one: one.at)
        return new.total


@action("read counters")
def record(
    member: Member,
    machine: Machine,
    reading: uuid.UUID,
    shown: float,
    at: dt.datetime | None,
    source: str,
    *,
    unit: str = "",
    confirmed: bool = False,
    exchanged: bool = False,
    old_shown: float | None = None,
) -> CounterReading:
    """Keep what the meter showed. The same UUID twice is one reading.

    at: when; None is now. unit: where it is not what the machine's use is counted in (the hectares of a combine). exchanged: it
    is a new meter, or was set back; old_shown: the last figure of the old one, where anybody wrote it down. Raises BadInput
    with field ``shown`` for a figure that cannot be, unless it is `confirmed`; a counter that runs back is an exchange or a
    slip, and cannot be confirmed. Fields ``shown``, ``old_shown``, ``at``, ``unit``.
    """
    hold(machine)
    counter_reading = CounterReading.objects.filter(uuid=reading).first()
    if counter_reading is not None:
        if counter_reading.machine_id != machine.pk:
            raise NotFoundHere("There is no such counter reading.")
        return counter_reading
    at = at or timezone.now()
    if at > timezone.now():
        raise BadInput("at", "is still to come")
    if unit == "h" and unit_of(machine) == "ha":
        raise BadInput("unit", "this machine has no hour meter")
    if not 0 <= shown < HIGHEST:
        raise BadInput("shown", "must be between 0 and 1 000 000")
    unit = unit or unit_of(machine)
    if exchanged:
        offset = _close_old_meter(member, machine, unit, reading, at, source, old_shown) - shown
    else:
        offset = Meter(machine, unit).take(shown, at, confirmed=confirmed) - shown
    made = CounterReading.objects.create(
        uuid=reading,
        machine=machine,
        unit=unit,
        at=at,
        shown=shown,
        total=shown + offset,
        source=source,
        exchanged=exchanged,
        confirmed=confirmed,
        by=member.user,
    )
    keep_in_step(machine, unit)
    return made


@dataclass(frozen=True)
class Shown:
    """A figure of a meter, under the UUID that is made of it."""

    uuid: uuid.UUID
    shown: float
    at: dt.datetime


@action("read counters")
def record_many(
    member: Member, meter: Meter, machine: Machine, figures: Sequence[Shown], source: str
) -> list[tuple[Shown, str]]:
    """Keep figures of one machine, those that are there already left as they are. Returns those that cannot be, and why.

    meter: the machine's, of one batch after the other; it is read anew where somebody has changed the machine's history.
    """
    held = Machine.objects.select_for_update().get(pk=machine.pk)
    if meter.edition != held.history_edition:
        meter.read(held)
    there = set(CounterReading.objects.filter(uuid__in=[one.uuid for one in figures]).values_list("uuid", flat=True))
    by = {"machine": held, "unit": meter.unit, "source": source, "by": member.user}
    made, refused = [], []
    for one in figures:
        if one.uuid in there:
            continue
        try:
            total = meter.take(one.shown, one.at)
        except BadInput as problem:
            refused.append((one, problem.message))
        else:
            made.append(CounterReading(uuid=one.uuid, at=one.at, shown=one.shown, total=total, **by))
    CounterReading.objects.bulk_create(made)
    if made:
        keep_in_step(held, meter.unit)
        meter.edition += 1
    return refused


def _close_old_meter(
    member: Member, machine: Machine, unit: str, reading: uuid.UUID, at: dt.datetime, source: str, old_shown: float | None
) -> float:
    """What the machine had done when its meter was exchanged; the old meter's last figure is kept as a reading of its own."""
    counts, offset = counts_of([machine.pk], unit)[machine.pk], offset_at(machine, unit, at)
    last = counters.total_at(counts, at)
    if last is None:
        raise BadInput("shown", "there is no reading of the old meter yet: type its last figure first")
    if counts[-1].at > at:
        raise BadInput("at", "lies before a reading of the old meter")
    if old_shown is None:
        return last
    if old_shown + offset < last:
        raise BadInput("old_shown", f"is less than the {last - offset:g} it stood at before")
    CounterReading.objects.create(
        uuid=uuid.uuid5(reading, "old"),
        machine=machine,
        unit=unit,
        at=at,
        shown=old_shown,
        total=old_shown + offset,
        source=source,
        by=member.user,
    )
    return old_shown + offset


def _runs_on(counts: Iterable[Count], new: Count) -> bool:
    """Whether the count lies between its neighbours in time: a surprising one may stand, one that runs back may not."""
    return all(one.total <= new.total for one in counts if one.at <= new.at) and all(
        one.total >= new.total for one in counts if one.at > new.at
    )


@action("read counters")
def withdraw(member: Member, machine: Machine, reading: uuid.UUID) -> None:
    """Take a wrong reading out of the count; it stays in the log. Raises NotFoundHere, BadInput for an exchange others
    rest on.
    """
    counter_reading = CounterReading.objects.filter(machine=machine, uuid=reading).first()
    if counter_reading is None:
        raise NotFoundHere("There is no such counter reading.")
    if (
        counter_reading.exchanged
        and CounterReading.objects.filter(
            machine=machine, unit=counter_reading.unit, withdrawn=False, at__gt=counter_reading.at
        ).exists()
    ):
        raise BadInput("reading", "later readings rest on this exchange: withdraw them first")
    CounterReading.objects.filter(pk=counter_reading.pk).update(withdrawn=True)
    keep_in_step(machine, counter_reading.unit)


def keep_in_step(machine: Machine, unit: str) -> None:
    """The machine's own figure follows its newest count."""
    newest = CounterReading.objects.filter(machine=machine, unit=unit, withdrawn=False).last()
    if newest is not None:
        field = "hours" if unit == "h" else "area_ha"
        setattr(machine, field, newest.total)
        machine.save(update_fields=[field])
        history_changed([machine.pk])


@action("say what the season will be")
def set_next_use(member: Member, machine: Machine, use: float | None) -> None:
    """What the coming season is to be; None: as the last seasons were. Raises BadInput with field ``next_use``."""
    if use is not None and not 0 < use < HIGHEST:
        raise BadInput("next_use", "must be greater than 0")
    machine.next_use, machine.next_use_from = use, None if use is None else now_of(machine)
    machine.save(update_fields=["next_use", "next_use_from"])
    history_changed([machine.pk])
