"""Counters from outside: a file, and what a machine's modem sent."""

import datetime as dt
import uuid
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Annotated
from urllib.parse import quote

import urllib3
from django.conf import settings
from django.utils import timezone
from pydantic import AwareDatetime, BaseModel, Field, ValidationError
from urllib3.util import Retry, Timeout

from fleet.actions import counting
from fleet.models import CounterReading, Machine
from fleet.queries import counters
from fleet.queries.machines import machines_for
from lumvek_core.errors import BadInput
from outside import calls, inquiries, lines
from outside.models import Line
from shops.access import Conflict
from shops.models import Member
from shops.rights import action
from tabular.streamed import Step
from tabular.tables import Table, TableLine, day_in, number_in, table_rows

_pool = urllib3.PoolManager(timeout=Timeout(connect=1.0, read=2.5), retries=Retry(0))
MOST_BYTES = 100_000
OLDEST, AHEAD = dt.datetime(2000, 1, 1, tzinfo=dt.UTC), dt.timedelta(minutes=10)
"""What a modem's clock may show."""
COLUMNS = ("machine", "date", "counter")
TYPE_IT = "Type the counter instead."
BATCH = 1000
"""Lines of one machine that are stored at once: nobody else waits for its counter longer than that."""


@dataclass
class _Line:
    number: int
    machine: Machine
    figure: counting.Shown


@action("read counters", atomic=False)
def take_file(member: Member, text: str, *, dry: bool) -> Iterator[Step | Table]:
    """Counters from CSV: machine (name or serial), date, counter; it tells how far it is. Nothing is taken while a line is
    refused, or on a dry run; what is taken is stored a batch at a time.

    Sending a file again changes nothing. Raises BadInput with field ``file`` for what is no such table.
    """
    machines = {key.lower(): one for one in machines_for(member) for key in (one.name, one.serial) if key}
    rows, found = list(table_rows(text, COLUMNS)), Table()
    of_machine: dict[int, list[_Line]] = {}
    for done, (number, row) in enumerate(rows):
        if done % BATCH == 0:
            yield Step("Reading", done, 2 * len(rows))
        try:
            line = _understood(machines, number, *(row.get(name, "").strip() for name in COLUMNS))
        except BadInput as problem:
            found.lines.append(TableLine(number, "refused", f"{problem.field} {problem.message}"))
        else:
            of_machine.setdefault(line.machine.pk, []).append(line)
    done = len(rows)
    for lines_ in of_machine.values():
        lines_.sort(key=lambda line: line.figure.at)  # a machine's oldest first, whatever the order of the file
        yield Step("Reading", done, 2 * len(rows))
        found.lines += _tried(lines_)
        done += len(lines_)
    if not dry and not found.count("refused"):
        yield from _taken(member, of_machine.values(), found)
    found.lines.sort(key=lambda line: line.line)
    yield found


def _tried(lines_: Sequence[_Line]) -> Iterator[TableLine]:
    """What each line of one machine would do."""
    machine = lines_[0].machine
    unit = counters.unit_of(machine)
    meter = counting.Meter(machine, unit)
    there = set(machine.counter_readings.filter(source=CounterReading.Source.FILE).values_list("uuid", flat=True))
    for line in lines_:
        if line.figure.uuid in there:
            yield TableLine(line.number, "there", f"{machine.name}: {line.figure.shown:g} {unit}")
            continue
        there.add(line.figure.uuid)
        try:
            total = meter.take(line.figure.shown, line.figure.at)
        except BadInput as problem:
            yield TableLine(line.number, "refused", f"{problem.field} {problem.message}")
        else:
            yield TableLine(line.number, "taken", f"{machine.name}: {total:g} {unit}")


def _taken(member: Member, machines: Iterable[Sequence[_Line]], found: Table) -> Iterator[Step]:
    """Store what was tried; what somebody else's figure has made impossible meanwhile is refused after all."""
    many, done = sum(map(len, machines)), 0
    told = {line.line: line for line in found.lines}
    for lines_ in machines:
        machine = lines_[0].machine
        machine.refresh_from_db()
        meter = counting.Meter(machine, counters.unit_of(machine))
        for first in range(0, len(lines_), BATCH):
            yield Step("Taking", done, many)
            batch = {line.figure.uuid: line for line in lines_[first : first + BATCH]}
            figures = [line.figure for line in batch.values()]
            for one, why in counting.record_many(member, meter, machine, figures, CounterReading.Source.FILE):
                told[batch[one.uuid].number].outcome, told[batch[one.uuid].number].words = "refused", why
            done += len(batch)


def _understood(machines: Mapping[str, Machine], number: int, name: str, day: str, shown: str) -> _Line:
    """One line. Raises BadInput."""
    machine = machines.get(name.lower())
    if machine is None:
        raise BadInput("machine", f"{name or 'nothing'} is not known")
    when = day_in(day, "date")
    when = timezone.make_aware(when) if when.tzinfo is None else when
    if when > timezone.now():
        raise BadInput("date", "is still to come")
    if when < OLDEST:
        raise BadInput("date", f"lies before {OLDEST:%Y}")
    value = number_in(shown, "counter", 0, 10**7)
    reading = uuid.uuid5(uuid.UUID(int=machine.pk), f"{when.isoformat()} {value:g}")
    return _Line(number, machine, counting.Shown(reading, value, when))


class Sent(BaseModel):
    """What a modem sent last."""

    at: AwareDatetime
    counter: Annotated[float, Field(ge=0, lt=10**7, allow_inf_nan=False)]
    unit: Annotated[str, Field(max_length=8)]


class _Silent(Exception):
    """Nobody answers."""


def _sent(serial: str) -> Sent:
    """Raises _Silent, Nothing for an answer that cannot be understood."""
    try:
        _, content = calls.call(_pool, "GET", f"{settings.TELEMATICS_URL}/{quote(serial, safe='')}", MOST_BYTES)
    except calls.Silent as problem:
        raise _Silent("The telematics service does not answer.") from problem
    try:
        return Sent.model_validate_json(content)
    except ValidationError:
        raise inquiries.Nothing(f"The telematics service does not answer for this machine. {TYPE_IT}") from None


@action("read counters", atomic=False)
def ask_telematics(member: Member, machine: Machine, inquiry: uuid.UUID) -> None:
    """Have a machine's modem asked for what it sent last; nobody waits for it. Raises Conflict where there is none."""
    if not settings.TELEMATICS_URL or not machine.serial:
        raise Conflict("No telematics are connected for this machine.")
    inquiries.ask(member.pk, inquiry, partial(_take_sent, member, machine))


def _take_sent(member: Member, machine: Machine) -> list[inquiries.Told]:
    """Raises Nothing where nobody answers, BadInput for what cannot be."""
    try:
        sent = lines.reach(Line.Name.MODEMS, lambda: _sent(machine.serial), _Silent)
    except (_Silent, lines.Resting) as problem:
        raise inquiries.Nothing(f"{problem} {TYPE_IT}") from None
    at, shown, unit = sent.at, sent.counter, sent.unit
    if not OLDEST <= at <= timezone.now() + AHEAD:
        raise inquiries.Nothing(f"The modem’s time cannot be: {at:%Y-%m-%d %H:%M}. {TYPE_IT}")
    if unit != counters.unit_of(machine):
        raise inquiries.Nothing(f"The modem counts {unit}, the machine {counters.unit_of(machine)}.")
    reading = uuid.uuid5(uuid.UUID(int=machine.pk), f"telematics {at.isoformat()}")
    counting.record(member, machine, reading, shown, at, CounterReading.Source.TELEMATICS)
    return [inquiries.Told(machine.name, f"{shown:g} {unit}")]
