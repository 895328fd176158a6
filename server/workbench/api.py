"""Endpoints of the bench and of the simulated devices."""

import uuid
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router

from fleet.queries.machines import machine_for
from lumvek_core import structure
from lumvek_core.simulators import meter_stand
from lumvek_core.workbench.model import Subject, Table
from shops.access import member_of
from shops.endpoints import allowed
from tabular import sheets

from . import actions, queries
from .schemas import (
    BenchResultOut,
    FieldOut,
    FileIn,
    FileOut,
    GaugeIn,
    GaugeOut,
    LimitsOut,
    RefusedOut,
    SaveIn,
    SheetOut,
    SubjectOut,
    TableOut,
    WorkIn,
)

bench = Router(tags=["bench"])
standins = Router(tags=["stand-ins"])


def _subject(subject: Subject) -> SubjectOut:
    raw = structure.write(subject.fields)
    tables = [TableOut.model_validate(one) for one, field in zip(raw, subject.fields, strict=True) if isinstance(field, Table)]
    fields = [
        FieldOut.model_validate(one) for one, field in zip(raw, subject.fields, strict=True) if not isinstance(field, Table)
    ]
    return SubjectOut(
        key=subject.key,
        name=subject.name,
        group=subject.group,
        about=subject.about,
        fields=fields,
        tables=tables,
        order=[one.key for one in subject.fields],
        examples=[{"name": example.name, "texts": dict(example.texts)} for example in subject.examples],  # type: ignore[misc]
        source=subject.source,
        safety=subject.safety,
        takes_file=subject.takes_file,
    )


@bench.get("", response=list[SubjectOut])
def subjects(request: HttpRequest) -> list[SubjectOut]:
    """Every subject of the bench with its fields and examples."""
    return [_subject(subject) for subject in queries.subjects_for(member_of(request))]


@bench.post("/{str:subject}", response=SheetOut, **allowed("calculate"))
def work(request: HttpRequest, subject: str, new: WorkIn) -> dict[str, Any]:
    """The answer to what is typed, or the field it stops at. Nothing is kept."""
    done: dict[str, Any] = structure.write(
        queries.answer(member_of(request), queries.subject_of(member_of(request), subject), new.texts)
    )
    return done


@bench.post("/{str:subject}/file", response=FileOut, **allowed("calculate"))
def take_file(request: HttpRequest, subject: str, new: FileIn) -> FileOut:
    """The texts that a dropped file of spacings or depths stands for, and the lines of it that cannot be used."""
    texts, taken, refused = queries.take_file(queries.subject_of(member_of(request), subject), new.text)
    return FileOut(texts=texts, taken=taken, refused=[RefusedOut(line=r.line, text=r.text, why=r.why) for r in refused])


@bench.post("/{str:subject}/export/{str:form}", **allowed("calculate"))
def export(request: HttpRequest, subject: str, form: Literal["csv", "xlsx", "json"], new: WorkIn) -> HttpResponse:
    """The answer as a file."""
    found = queries.subject_of(member_of(request), subject)
    sheet = queries.answer(member_of(request), found, new.texts)
    if form == "json":
        return sheets.download(f"{subject}.json", "application/json", queries.as_json(found, new.texts, sheet))
    return sheets.table(subject, form, queries.exported(found, new.texts, sheet))


@bench.get("/{str:subject}/machines/{int:machine_id}", response=LimitsOut)
def limits(request: HttpRequest, subject: str, machine_id: int) -> LimitsOut:
    """What the rules in force for a machine say of this subject's fields."""
    member = member_of(request)
    texts, sources = queries.limits_of(member, queries.subject_of(member_of(request), subject), machine_for(member, machine_id))
    return LimitsOut(texts=dict(texts), sources=sources)


@bench.post("/{str:subject}/machines/{int:machine_id}", response=BenchResultOut, **allowed(actions.save))
def save(request: HttpRequest, subject: str, machine_id: int, new: SaveIn) -> BenchResultOut:
    """Keep the answer in a machine's log."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    return queries.result_out(
        actions.save(member, queries.subject_of(member_of(request), subject), new.uuid, machine, new.texts, new.note)
    )


@bench.get("/log/{int:machine_id}", response=list[BenchResultOut])
def log(request: HttpRequest, machine_id: int) -> list[BenchResultOut]:
    """What was kept with a machine."""
    return [queries.result_out(one) for one in queries.log_of(machine_for(member_of(request), machine_id))]


@bench.post("/log/{int:machine_id}/{uuid:result_id}/withdraw", response=list[BenchResultOut], **allowed(actions.withdraw))
def withdraw(request: HttpRequest, machine_id: int, result_id: uuid.UUID) -> list[BenchResultOut]:
    """Take a result out of a machine's log."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    actions.withdraw(member, machine, result_id)
    return [queries.result_out(one) for one in queries.log_of(machine)]


@standins.post("/gauge", response=GaugeOut, **allowed("calculate"))
def gauge(request: HttpRequest, new: GaugeIn) -> GaugeOut:
    """What a simulated gauge types. It records nothing: the characters go through the keyboard like a real gauge's."""
    typed = queries.gauge(member_of(request), new.gauge, new.seed, new.near, new.walk_around, new.check)
    return GaugeOut(types=typed)


@standins.get("/meter-run")
def meter_run(
    request: HttpRequest, meter: Literal["good", "gummed", "worn"], nominal_mm: float = 165, cells: int = 500, seed: int = 1
) -> HttpResponse:
    """A run of the simulated meter test stand as its CSV file."""
    spacing, many = min(max(nominal_mm, 1.0), 2000.0), min(max(cells, 10), 5000)
    text = meter_stand.as_csv(meter_stand.run(meter, spacing, many, seed))
    return sheets.download(f"meter-{meter}-{seed}.csv", "text/csv; charset=utf-8", text.encode())
