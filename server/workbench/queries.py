"""Working at the bench for a member: their units, their shop's feelers, a machine's own limits, its log."""

import json
import uuid
from dataclasses import asdict
from typing import Any

from fleet.models import Machine
from inspection.queries import limits, rule_books, serializers
from inspection.queries.rules_in_force import book_of
from inspection.queries.walk_arounds import walk_around_for
from lumvek_core import units
from lumvek_core.coupled import short
from lumvek_core.errors import BadInput
from lumvek_core.files import measured
from lumvek_core.simulators import gauge as gauges
from lumvek_core.units import stated_in
from lumvek_core.workbench.model import Field, Sheet, Subject, Table, Texts
from lumvek_core.workbench.notation import LENGTHS, in_units
from lumvek_core.workbench.read import work
from lumvek_core.workbench.subjects import SUBJECTS
from shops.access import NotFoundHere
from shops.models import Member

from .models import BenchResult
from .schemas import BenchResultOut


def subject_of(member: Member, key: str) -> Subject:
    """A subject by its key, as this member reads it. Raises NotFoundHere."""
    if key not in SUBJECTS:
        raise NotFoundHere("There is no such subject at the bench.")
    return in_units(SUBJECTS[key], serializers.system_of(member))


def subjects_for(member: Member) -> list[Subject]:
    """Every subject, as this member reads it."""
    return [subject_of(member, key) for key in SUBJECTS]


def answer(member: Member, subject: Subject, texts: Texts) -> Sheet:
    """The sheet for what was typed. Raises BadInput at the field as it stands on screen."""
    needs_feelers = any("feeler" in (field.kind for field in _fields(one)) for one in subject.fields)
    own = member.shop.feelers.values_list("name", "thickness_mm") if needs_feelers else []
    return work(subject, texts, serializers.system_of(member), {name.lower(): mm for name, mm in own})


def _fields(one: Field | Table) -> tuple[Field, ...]:
    return one.columns if isinstance(one, Table) else (one,)


def limits_of(member: Member, subject: Subject, machine: Machine) -> tuple[dict[str, str], dict[str, str]]:
    """(texts, sources) of the fields that the rules in force for this machine say better; none where its family has no such
    check."""
    book = book_of(machine.model, member.shop)
    texts, sources = {}, {}
    for field in subject.fields:
        if not isinstance(field, Field) or field.from_check is None:
            continue
        wanted, name = field.from_check
        key = next((key for key in book.limits if short(key) == wanted), None)
        limit = book.limits[key].get(name) if key else None
        if limit is None:
            continue
        # Exactly as it is in force: rounded to the nearest fraction, what is at the limit would not be.
        figure = f"{limit.value:g}"
        texts[field.key] = (stated_in(limit.value) or f"{figure} mm") if field.kind in LENGTHS else figure
        sources[field.key] = f"{machine.model.full_name}: {limits.SOURCES.get(limit.source, limit.source)}"
    return texts, sources


def log_of(machine: Machine) -> list[BenchResult]:
    """What was kept with a machine, newest first."""
    return list(machine.bench_results.filter(withdrawn_at=None).select_related("by"))


def take_file(subject: Subject, text: str) -> tuple[dict[str, Any], int, list[measured.Refused]]:
    """(texts, lines taken, lines refused) of a dropped file. Raises BadInput."""
    if subject.takes_file == "spacings":
        found = measured.spacings(text)
        return {"spacings_mm": measured.shown(found.spacings_mm)}, len(found.spacings_mm), found.refused
    if subject.takes_file == "depths":
        dug = measured.depths(text)
        rows = [[name, measured.shown(depths)] for name, depths in dug.rows.items()]
        return {"rows": rows}, sum(map(len, dug.rows.values())), dug.refused
    raise BadInput("text", "this subject takes no file")


def exported(subject: Subject, texts: Texts, sheet: Sheet) -> list[list[str]]:
    """An answer as rows of a table: what was typed, what came out, why."""
    rows = [["part", "name", "value"], ["answer", subject.name, sheet.answer], ["answer", "", sheet.words]]
    for one in subject.fields:
        typed = texts.get(one.key, "" if isinstance(one, Table) else one.start)
        if isinstance(one, Table):
            for i, row in enumerate(typed if isinstance(typed, list) else [], 1):
                rows += [
                    ["typed", f"{one.name}, {i}: {column.name}", cell]
                    for column, cell in zip(one.columns, row, strict=False)
                    if cell
                ]
        elif typed:
            rows.append(["typed", one.name, f"{typed} {one.unit}".strip()])
    rows += [["figure", line.name, line.shown] for line in sheet.lines]
    rows += [["why", "", line] for line in [*sheet.why, subject.source]]
    return rows


def as_json(subject: Subject, texts: Texts, sheet: Sheet) -> bytes:
    """An answer with the calculations behind it, as the command line would give them."""
    return json.dumps({"subject": subject.key, "typed": texts, **asdict(sheet)}, ensure_ascii=False, indent=2).encode()


def gauge(member: Member, name: gauges.Gauge, seed: int, near: str, walk_around: uuid.UUID | None, check: str) -> str:
    """What a simulated gauge types: for a check of a walk-around, else near a figure at the bench. Raises NotFoundHere."""
    if walk_around:
        found = walk_around_for(member, walk_around)
        wanted = rule_books.opened(found.rule_book_id).family.checks.get(check)
        if wanted is None:
            raise NotFoundHere("There is no such check.")
        return gauges.read(wanted, name, seed)
    try:
        middle = units.parse_length(near or "50", "in" if member.units == "in" else "mm")
    except BadInput:
        middle = 50.0
    return gauges.figure(middle * 0.97, middle * 1.03, name, seed)


def result_out(bench_result: BenchResult) -> BenchResultOut:
    """A kept answer as the API gives it."""
    subject = SUBJECTS.get(bench_result.subject)
    return BenchResultOut(
        uuid=bench_result.uuid,
        subject=bench_result.subject,
        name=subject.name if subject else bench_result.subject,
        answer=bench_result.sheet["answer"],
        words=bench_result.sheet["words"],
        mark=bench_result.sheet["mark"],
        texts=bench_result.texts,
        note=bench_result.note,
        by=serializers.full_name(bench_result.by),
        at=bench_result.at,
    )
