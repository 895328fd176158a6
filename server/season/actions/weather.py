"""When it will be dry: from the forecast, or from a calendar file."""

import datetime as dt
import uuid
from functools import partial

import urllib3
from django.conf import settings
from django.db import transaction
from django.utils import timezone
from ninja import Schema
from pydantic import ValidationError

from lumvek_core import apart
from lumvek_core.counted import counted
from lumvek_core.errors import BadInput
from lumvek_core.files.calendars import events_of
from outside import calls, inquiries, lines
from outside.models import Line
from shops import taken_back
from shops.access import Conflict
from shops.models import Member
from shops.rights import action

from ..models import DrySpell
from ..queries.question import now_of
from ..schemas import StretchOut

MOST_BYTES = 100_000
MOST_SPELLS = 100
TYPE_IT = "Type when it will be dry."
_pool = urllib3.PoolManager(timeout=5.0, retries=False)


class _Silent(Exception):
    """Nobody answers."""


class _Forecast(Schema):
    dry: list[StretchOut]


@action("say when it is dry", atomic=False)
def ask_forecast(member: Member, inquiry: uuid.UUID) -> None:
    """Have the forecast asked for the coming days; nobody waits for it. Raises Conflict where none is connected."""
    if not settings.FORECAST_URL:
        raise Conflict("No weather forecast is connected.")
    inquiries.ask(member.pk, inquiry, partial(_take_forecast, member))


def _take_forecast(member: Member) -> list[inquiries.Told]:
    """Raises Nothing where nobody answers, or what is answered cannot be."""
    today = now_of(member).date()
    try:
        said = lines.reach(Line.Name.FORECAST, lambda: _said(today), _Silent)
    except (_Silent, lines.Resting) as problem:
        raise inquiries.Nothing(f"{problem} {TYPE_IT}") from None
    try:
        found = [_span(one.start, one.end) for one in said.dry[:MOST_SPELLS]]
    except (ValueError, BadInput):
        raise inquiries.Nothing(f"The forecast’s times cannot be. {TYPE_IT}") from None
    _replace(member, DrySpell.Source.FORECAST, found)
    return [inquiries.Told("The weather forecast", counted(len(found), "dry spell"))]


def _said(today: dt.date) -> _Forecast:
    """Raises _Silent, Nothing for an answer that cannot be understood."""
    try:
        _, content = calls.call(_pool, "GET", f"{settings.FORECAST_URL}?from={today}", MOST_BYTES)
    except calls.Silent as problem:
        raise _Silent("The weather forecast does not answer.") from problem
    try:
        return _Forecast.model_validate_json(content)
    except ValidationError:
        raise inquiries.Nothing(f"The weather forecast cannot be understood. {TYPE_IT}") from None


@action("say when it is dry")
def read_file(member: Member, text: str) -> None:
    """Take the events of a calendar file as dry spells; those of the file before give way. Raises BadInput, apart.TooMuch."""
    _replace(member, DrySpell.Source.FILE, [_span(*one) for one in apart.call(events_of, text)])


def _span(start: str, end: str) -> tuple[dt.datetime, dt.datetime]:
    """What has no zone is on the shop's clock. Raises BadInput, ValueError."""
    zone = timezone.get_current_timezone()
    moments = [dt.datetime.fromisoformat(one) for one in (start, end)]
    begins, ends = (one if one.tzinfo else one.replace(tzinfo=zone) for one in moments)
    if ends <= begins:
        raise BadInput("file", f"has something that ends before it begins: {start}")
    if not 1950 <= begins.year <= ends.year < 2150:
        raise BadInput("file", f"has a day that nobody can mean: {start}")
    return begins, ends


@transaction.atomic
def _replace(member: Member, source: str, spells: list[tuple[dt.datetime, dt.datetime]]) -> None:
    taken_back.take_back(member, DrySpell.objects.of(member).filter(source=source))
    DrySpell.objects.bulk_create(
        DrySpell(uuid=uuid.uuid4(), shop_id=member.shop_id, start=start, end=end, source=source, by=member.user)
        for start, end in spells
    )
