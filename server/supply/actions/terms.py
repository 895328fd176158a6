"""What the shop counts with, and the day a machine's parts are wanted."""

import datetime as dt
from collections.abc import Mapping

from fleet.models import Machine
from shops.models import Member
from shops.rights import action
from tabular.tables import amount_in

from ..models import NeedDate
from ..queries.needs import terms_of

RATES = ("labour_rate", "km_cost", "downtime_rate", "late_cost_per_day")


@action("change rates")
def set_terms(member: Member, currency: str, rates: Mapping[str, str], days_before: int, now: dt.datetime | None) -> None:
    """Currency and rates the shop counts with. rates: the texts of `RATES`. Raises BadInput with the rate as field."""
    terms = terms_of(member)
    terms.currency, terms.days_before, terms.now = currency, days_before, now
    for name in RATES:
        setattr(terms, name, amount_in(rates[name], name, 10_000))
    terms.save()


@action("set dates")
def set_need_date(member: Member, machine: Machine, day: dt.date | None) -> None:
    """The day a machine's parts are wanted; without a day the season's date less the shop's days."""
    if day is None:
        NeedDate.objects.filter(machine=machine).delete()
    else:
        NeedDate.objects.update_or_create(machine=machine, defaults={"day": day})
