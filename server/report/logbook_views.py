"""What goes out of wear and logbook: tables of forecasts and readings, and the logbook as a table and on paper."""

from typing import Literal, cast

from django.http import Http404, HttpRequest, HttpResponse

from fleet.queries.machines import machine_for
from logbook.queries import forecast_views, timeline, wear
from logbook.queries.timeline_upkeep import KINDS, Entry
from shops.models import Member
from tabular import sheets

from . import paper
from .paper import for_members

FORMS = ("csv", "xlsx")


def _table(name: str, form: str, rows: list[list[str]]) -> HttpResponse:
    if form not in FORMS:
        raise Http404
    return sheets.table(name, cast(Literal["csv", "xlsx"], form), rows)


def _figure(value: float | None, decimals: int = 3) -> str:
    return "" if value is None else f"{value:.{decimals}f}"


@for_members
def season_end(request: HttpRequest, member: Member, form: str) -> HttpResponse:
    """The fleet's forecast, the dearest to wait with first."""
    found = forecast_views.fleet(member)
    titles = [
        "machine", "part", "position", "unit", "now", "expected", "low", "high", "limit", "chance", "in words",
        f"waiting risks {found.currency}", f"life thrown away {found.currency}", "break-even chance", "by the figures",
    ]  # fmt: skip
    rows = [
        [
            line.machine, line.name, line.label, line.unit, _figure(line.now), _figure(line.value), _figure(line.low),
            _figure(line.high), _figure(line.limit), _figure(line.p), "at its limit" if line.state == "due" else line.chance,
            _figure(line.cost_wait, 2), _figure(line.cost_now, 2), _figure(line.break_even), line.advice,
        ]
        for line in found.lines
    ]  # fmt: skip
    return _table("season-end", form, [titles, *rows])


@for_members
def wear_of(request: HttpRequest, member: Member, machine_id: int, check: str, form: str) -> HttpResponse:
    """Every reading of one kind of part on a machine, and what is expected of each place."""
    machine = machine_for(member, machine_id)
    found = wear.of_check(member, machine, check)
    unit = found.ahead.unit
    titles = [
        "position", "read on", f"counter {found.unit}", f"read {unit}", "as typed", "by", "marked",
        f"now {unit}", f"expected {unit}", f"low {unit}", f"high {unit}", "chance", f"wear {unit} per 100 {found.unit}",
    ]  # fmt: skip
    expected = {place.position: place for place in found.ahead.places}
    rows = []
    for place in found.places:
        one = expected[place.position]
        said = [_figure(figure) for figure in (one.now, one.value, one.low, one.high, one.p, one.rate)]
        for read in place.readings:
            marked = "does not fit" if read.doubted else "part before" if read.past else ""
            day, counter = read.at.date().isoformat(), _figure(read.counter, 1)
            rows.append([place.label, day, counter, _figure(read.value), read.raw, read.by, marked, *said])
    return _table(f"wear-{check.replace('.', '-')}", form, [titles, *rows])


@for_members
def logbook_table(request: HttpRequest, member: Member, machine_id: int, form: str) -> HttpResponse:
    """The logbook as a table."""
    machine = machine_for(member, machine_id)
    titles = ["when", "counter", "what", "title", "station", "text", "by"]
    rows = [
        [one.at.isoformat(timespec="minutes"), one.counter, KINDS[one.kind], one.title, one.station, one.text, one.by]
        for one in _entries(request, member, machine_id)
    ]
    return _table(f"logbook-{machine.serial or machine.pk}", form, [titles, *rows])


@for_members
def logbook_print(request: HttpRequest, member: Member, machine_id: int) -> HttpResponse:
    """The logbook on paper, as it was filtered."""
    machine = machine_for(member, machine_id)
    context = {
        "machine": machine,
        "shop": member.shop,
        "entries": [(one, KINDS[one.kind]) for one in _entries(request, member, machine_id)],
        "search": request.GET.get("search", ""),
    }
    return HttpResponse(paper.page("logbook", context, nonce=paper.nonce_of(request)))


def _entries(request: HttpRequest, member: Member, machine_id: int) -> list[Entry]:
    machine = machine_for(member, machine_id)
    return timeline.entries(member, machine, request.GET.getlist("kind"), request.GET.get("search", "").lower().split())
