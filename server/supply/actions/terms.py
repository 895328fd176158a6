"""What the shop counts with, and the day a machine's parts are wanted."""

import datetime as dt
from collections.abc import Mapping

from fleet.models import Machine
from shops.models import Member
from shops.rights import action
from tabular.tables import amount_in

from ..models import NeedDate, Terms
from ..queries.needs import terms_of
from .parts_log import log_columns, log_parts

RATES = {
    "labour_rate": "an hour of work",
    "km_cost": "a kilometre",
    "downtime_rate": "an hour standing in season",
    "late_cost_per_day": "a day a machine waits for parts",
}
"""Amounts by their columns, as the log names them."""


@action("change rates")
def set_terms(member: Member, currency: str, rates: Mapping[str, str], days_before: int, now: dt.datetime | None) -> None:
    """Currency and rates the shop counts with. rates: the texts of `RATES`. Raises BadInput with the rate as field."""
    terms = terms_of(member)
    before = _columns(terms)
    terms.currency, terms.days_before, terms.now = currency, days_before, now
    for name in RATES:
        setattr(terms, name, amount_in(rates[name], name, 10_000))
    terms.save()
    log_columns(member, "Rates", before, _columns(terms))


def _columns(terms: Terms) -> dict[str, object]:
    rates = {words: f"{getattr(terms, column):.2f} {terms.currency}" for column, words in RATES.items()}
    return rates | {"days before the season": terms.days_before, "planned from": terms.now and f"{terms.now:%Y-%m-%d %H:%M}"}


@action("set dates")
def set_need_date(member: Member, machine: Machine, day: dt.date | None) -> None:
    """The day a machine's parts are wanted; without a day the season's date less the shop's days."""
    there = NeedDate.objects.filter(machine=machine).first()
    if day is None:
        NeedDate.objects.filter(machine=machine).delete()
    else:
        NeedDate.objects.update_or_create(machine=machine, defaults={"day": day})
    by_season = "by its season"
    before, after = (str(there.day) if there else by_season), (str(day) if day else by_season)
    log_parts(member, f"{machine.name}: parts wanted", before, after)
