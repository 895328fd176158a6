"""Machines, people, parts, notes, findings, checks, symptoms and faults that words are about: what a member may see.

Every kind is one query with a limit, so that a shop of years is searched as fast as a new one.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Literal
from urllib.parse import urlencode

from django.db.models import Q

from faults.models import Trace
from faults.queries import own_symptoms, tracing
from fleet.models import Machine, MachineModel
from fleet.queries.machines import every_machine, machines_for
from inspection.models import OperatorNote, Verdict
from inspection.queries import rule_books, walk_arounds
from lumvek_core.catalogue.model import Check, Family
from lumvek_core.coupled import short
from parts.models import PartNumber
from shops.models import Member
from shops.rights import may
from supply.models import StockItem, Supplier

MOST = 6
"""Of each kind."""
MOST_SEARCHED = 40
"""Walk-arounds whose findings are gone through, those with most to stop for first."""
BAD = ("stop", "due")
Kind = Literal["machine", "finding", "note", "part", "supplier", "person", "check", "symptom", "fault"]


@dataclass(frozen=True)
class Found:
    """path: the screen where it is."""

    kind: Kind
    title: str
    words: str
    path: str


def search(member: Member, text: str) -> list[Found]:
    """What every word of `text` is in. Nothing for fewer than two letters."""
    words = text.lower().split()[:6]
    if len("".join(words)) < 2:
        return []
    found = [*_machines(member, words), *_notes(member, words), *_faults(member, words), *_symptoms(member, words)]
    if may(member, "see the parts of the whole shop"):
        found += [*_parts(member, words), *_suppliers(member, words)]
    if may(member, "see people"):
        found += _people(member, words)
    checks = list(_checks(member, words))
    return [*found, *_findings(member, checks), *_in_catalogue(checks)]


def _each(words: Iterable[str], *columns: str) -> Q:
    """Every word in one of the columns."""
    asked = Q()
    for word in words:
        asked &= Q(*[(f"{column}__icontains", word) for column in columns], _connector=Q.OR)
    return asked


def _machines(member: Member, words: list[str]) -> Iterator[Found]:
    there = every_machine(member).filter(_each(words, "name", "serial", "model__maker", "model__name"))
    for one in there.order_by("gone", "name")[:MOST]:
        serial = f", serial {one.serial}" if one.serial else ""
        gone = f", {one.get_gone_display().lower()}" if one.gone else ""
        yield Found("machine", one.name, f"{_kind(one)}{serial}{gone}", f"/machines/{one.pk}")


def _kind(machine: Machine) -> str:
    family = rule_books.shipped().families.get(machine.model.family)
    return family.name if family else machine.model.full_name


def _notes(member: Member, words: list[str]) -> Iterator[Found]:
    mine = OperatorNote.objects.filter(machine__in=every_machine(member), taken_back_at=None)
    for one in mine.filter(_each(words, "text", "cause")).select_related("machine").order_by("-id")[:MOST]:
        state = f"closed: {one.cause}" if one.closed_at else "open"
        yield Found("note", one.text, f"{one.machine.name}, {state}", f"/machines/{one.machine_id}/logbook")


def _faults(member: Member, words: list[str]) -> Iterator[Found]:
    """What was traced, or is, the newest first."""
    mine = Trace.objects.filter(machine__in=every_machine(member), taken_back_at=None).select_related("machine", "by")
    known = own_symptoms.ever(member.shop)
    spoken = [one.key for one in known.symptoms if all(word in one.name.lower() for word in words)]
    rows = mine.filter(Q(symptom__in=spoken) | _each(words, "words", "otherwise"))
    for row in rows.order_by("-id")[:MOST]:
        shown = tracing.brief(row, known)
        state = shown.was or row.get_outcome_display().lower()
        yield Found("fault", shown.symptom, f"{row.machine.name}: {state}", f"/machines/{row.machine_id}/faults/{row.uuid}")


def _symptoms(member: Member, words: list[str]) -> Iterator[Found]:
    """Where a trace of such a symptom can begin: on each machine that can have it."""
    spoken = [
        one
        for one in own_symptoms.of_shop(member.shop).symptoms
        if all(word in " ".join([one.name, *one.also]).lower() for word in words)
    ]
    families = {family for one in spoken for family in one.families}
    machines = list(machines_for(member).filter(model__family__in=families).select_related("model")[: MOST * 2])
    listed = [(one, machine) for one in spoken for machine in machines if machine.model.family in one.families]
    for one, machine in listed[:MOST]:
        yield Found("symptom", one.name, machine.name, f"/machines/{machine.pk}/faults?{urlencode({'words': one.name})}")


def _parts(member: Member, words: list[str]) -> Iterator[Found]:
    numbers = PartNumber.objects.of(member).filter(_each(words, "number", "slot", "note")).select_related("model")
    seen: set[str] = set()
    for one in numbers.order_by("number")[: MOST * 3]:
        if one.number not in seen and len(seen) < MOST:
            seen.add(one.number)
            name = _slot(member, one.model, one.slot)
            yield Found("part", one.number, f"{name}, {one.model.full_name}", f"/parts/book?model={one.model_id}")
    for item in StockItem.objects.of(member).filter(_each(words, "number", "name", "bin"))[:MOST]:
        if item.number not in seen:
            yield Found("part", item.number, f"{item.name}{f', {item.bin}' if item.bin else ''}", "/parts/stock")


def _slot(member: Member, model: MachineModel, slot: str) -> str:
    known = rule_books.family_of(member.shop, model.family, model)
    return next((one.name for key, one in known.slots.items() if short(key) == slot), slot)


def _suppliers(member: Member, words: list[str]) -> Iterator[Found]:
    for one in Supplier.objects.of(member).filter(_each(words, "name", "email"))[:MOST]:
        yield Found("supplier", one.name, one.email, "/parts/suppliers")


def _people(member: Member, words: list[str]) -> Iterator[Found]:
    there = Member.objects.of(member).filter(
        _each(words, "user__first_name", "user__last_name", "user__username", "user__email")
    )
    for one in there.select_related("user")[:MOST]:
        yield Found("person", one.name, "let go" if one.left_at else one.role_name, "/people")


def _checks(member: Member, words: list[str]) -> Iterator[tuple[Family, Check]]:
    for key in rule_books.shipped().families:
        family = rule_books.family_of(member.shop, key)
        for check in family.checks.values():
            if all(word in f"{check.name} {family.name}".lower() for word in words):
                yield family, check


def _findings(member: Member, checks: list[tuple[Family, Check]]) -> Iterator[Found]:
    """Where such a check stood badly in a machine's newest walk-around, the worst first."""
    names = {check.key: check.name for _, check in checks}
    if not names:
        return
    newest = dict(walk_arounds.worst_of(machines_for(member), MOST_SEARCHED))
    bad = Verdict.objects.filter(walk_around__in=newest, check_key__in=list(names), severity__in=BAD).order_by()
    told: dict[tuple[str, str], Found] = {}
    for walk, key, severity in bad.values_list("walk_around", "check_key", "severity").distinct()[: MOST * 100]:
        path = f"/walk-arounds/{walk}/findings"
        found = Found("finding", f"{names[key]}: {severity}", newest[walk], path)
        if severity == "stop" or (str(walk), key) not in told:
            told[str(walk), key] = found
    yield from sorted(told.values(), key=lambda one: (not one.title.endswith("stop"), one.words))[:MOST]


def _in_catalogue(checks: list[tuple[Family, Check]]) -> Iterator[Found]:
    for family, check in checks[:MOST]:
        yield Found("check", check.name, family.name, f"/catalogue?{urlencode({'of': family.family, 'find': check.name})}")
