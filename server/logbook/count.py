"""Counters from outside: a file, and what a machine's modem sent."""

import datetime as dt
import json
import uuid
from dataclasses import dataclass, field
from urllib.parse import quote

import urllib3
from django.conf import settings
from django.db import transaction
from django.utils import timezone
from urllib3.util import Retry, Timeout

from fleet import counters
from fleet.models import CounterReading, Machine
from fleet.queries import machines_for
from lumvek_core.errors import BadInput
from lumvek_core.files.tables import rows_of
from shops.access import Conflict
from shops.models import Member

_pool = urllib3.PoolManager(timeout=Timeout(connect=1.0, read=2.5), retries=Retry(1, backoff_factor=0.1))
MOST_ROWS = 2000


@dataclass
class Took:
    """What a file did. lines: one sentence for each line that was refused."""

    taken: int = 0
    refused: int = 0
    lines: list[str] = field(default_factory=list)


def take_file(member: Member, text: str, *, dry: bool) -> Took:
    """Counters from CSV: machine, date, counter. Lines that cannot be are refused one by one; the rest is taken.

    Sending a file again changes nothing. Raises BadInput with field ``text`` for what is no such table.
    """
    rows, titles = rows_of(text)
    if titles and not {"machine", "date", "counter"} <= set(titles):
        raise BadInput("text", "needs the columns machine, date and counter")
    if len(rows) > MOST_ROWS:
        raise BadInput("text", f"has more than {MOST_ROWS} lines")
    at = [titles.index(name) for name in ("machine", "date", "counter")] if titles else [0, 1, 2]
    machines = {key.lower(): one for one in machines_for(member) for key in (one.name, one.serial) if key}
    took = Took()
    with transaction.atomic():
        for number, cells in sorted(rows, key=lambda row: [row[1][i] if i < len(row[1]) else "" for i in at[:2]]):
            try:
                with transaction.atomic():
                    name, day, shown = (cells[i] if i < len(cells) else "" for i in at)
                    _take(member, machines, name, day, shown)
                took.taken += 1
            except BadInput as problem:
                took.refused += 1
                took.lines.append(f"Line {number}: {problem.field} {problem.message}")
        if dry:
            transaction.set_rollback(True)
    return took


def _take(member: Member, machines: dict[str, Machine], name: str, day: str, shown: str) -> None:
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
    counters.record(member, machine, reading, value, when, CounterReading.Source.FILE)


def ask_telematics(member: Member, machine: Machine) -> CounterReading:
    """Take what a machine's modem sent last. Raises Conflict where there is none or nobody answers, BadInput for what cannot be."""
    if not settings.TELEMATICS_URL or not machine.serial:
        raise Conflict("No telematics are connected for this machine.")
    try:
        answer = _pool.request("GET", f"{settings.TELEMATICS_URL}/{quote(machine.serial, safe='')}")
        sent = json.loads(answer.data)
        at, shown, unit = dt.datetime.fromisoformat(sent["at"]), float(sent["counter"]), sent["unit"]
    except (urllib3.exceptions.HTTPError, ValueError, KeyError, TypeError):
        raise Conflict("The telematics service does not answer for this machine. Type the counter instead.") from None
    if unit != counters.unit_of(machine):
        raise Conflict(f"The modem counts {unit}, the machine {counters.unit_of(machine)}.")
    reading = uuid.uuid5(uuid.UUID(int=machine.pk), f"telematics {at.isoformat()}")
    return counters.record(member, machine, reading, shown, at, CounterReading.Source.TELEMATICS)
