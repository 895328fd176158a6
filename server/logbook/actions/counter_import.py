"""Counters from outside: a file, and what a machine's modem sent."""

import datetime as dt
import uuid
from functools import partial
from typing import Annotated
from urllib.parse import quote

import urllib3
from django.conf import settings
from django.db import transaction
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
from tabular.tables import Outcome, Table, TableLine, table_rows

_pool = urllib3.PoolManager(timeout=Timeout(connect=1.0, read=2.5), retries=Retry(0))
MOST_BYTES = 100_000
OLDEST, AHEAD = dt.datetime(2000, 1, 1, tzinfo=dt.UTC), dt.timedelta(minutes=10)
"""What a modem's clock may show."""
COLUMNS = ("machine", "date", "counter")
TYPE_IT = "Type the counter instead."


@action("read counters")
def take_file(member: Member, text: str, *, dry: bool) -> Table:
    """Counters from CSV: machine (name or serial), date, counter. Nothing is taken while a line is refused, or on a dry run.

    Sending a file again changes nothing. Raises BadInput with field ``text`` for what is no such table.
    """
    machines = {key.lower(): one for one in machines_for(member) for key in (one.name, one.serial) if key}
    found = Table()
    # A machine's oldest line first, whatever the order of the file.
    for number, row in sorted(table_rows(text, COLUMNS), key=lambda line: [line[1].get(name, "") for name in COLUMNS[:2]]):
        try:
            found.lines.append(TableLine(number, *_take(member, machines, *(row.get(name, "").strip() for name in COLUMNS))))
        except BadInput as problem:
            found.lines.append(TableLine(number, "refused", f"{problem.field} {problem.message}"))
    if dry or found.count("refused"):
        transaction.set_rollback(True)
    found.lines.sort(key=lambda line: line.line)
    return found


def _take(member: Member, machines: dict[str, Machine], name: str, day: str, shown: str) -> tuple[Outcome, str]:
    """(outcome, words) of one line. Raises BadInput."""
    machine = machines.get(name.lower())
    if machine is None:
        raise BadInput("machine", f"{name or 'nothing'} is not known")
    try:
        when = dt.datetime.fromisoformat(day)
    except ValueError:
        raise BadInput("date", "must be a day such as 2026-03-05") from None
    if when.tzinfo is None:
        when = timezone.make_aware(when)
    if when > timezone.now():
        raise BadInput("date", "is still to come")
    try:
        value = float(shown.replace(",", "."))
    except ValueError:
        raise BadInput("counter", "must be a number") from None
    reading = uuid.uuid5(uuid.UUID(int=machine.pk), f"{when.isoformat()} {value:g}")
    there = CounterReading.objects.filter(uuid=reading).exists()
    made = counting.record(member, machine, reading, value, when, CounterReading.Source.FILE)
    return "there" if there else "taken", f"{machine.name}: {made.total:g} {counters.unit_of(machine)}"


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
