"""What belongs to one shop, table by table: found by following keys, so that a new table needs no word here.

`LEFT` names what does not go along: what is worked out again, and what opens doors.
"""

from collections.abc import Iterator
from functools import cache, lru_cache
from typing import Any

from django.apps import apps
from django.contrib.auth.models import User
from django.db.models import ForeignKey, Model, QuerySet

from shops.models import Shop

OURS = (
    "shops",
    "fleet",
    "parts",
    "inspection",
    "report",
    "workbench",
    "supply",
    "logbook",
    "calibration",
    "field",
    "faults",
    "season",
)
LEFT = frozenset(
    {
        "inspection.WearForecast",  # worked out again
        "inspection.Standing",  # worked out again
        "supply.Plan",  # worked out again; orders made from one stay
        "season.SeasonPlan",  # worked out again, from what is kept of hands, jobs and days off
        "season.Feed",  # these open doors
        "report.ReportLink",  # these open doors, or did
        "shops.Invitation",
    }
)
OF_NO_SHOP = frozenset({"shops.SignIn", "shops.ResetMail", "shops.SetUpKey"})
"""Of a person, or of the installation."""


@lru_cache(maxsize=1)
def tables() -> tuple[type[Model], ...]:
    """The models of a shop, each after those that it names: the shop itself first."""
    return tuple(model for model in all_tables() if model._meta.label not in LEFT)


@lru_cache(maxsize=1)
def all_tables() -> tuple[type[Model], ...]:
    """The same with what does not go along, as far as it is the shop's."""
    wanted = [model for app in OURS for model in apps.get_app_config(app).get_models(include_auto_created=True)]
    wanted = [model for model in wanted if model._meta.label not in OF_NO_SHOP]
    found: list[type[Model]] = []
    while wanted:
        ready = [model for model in wanted if not (set(_named(model)) & set(wanted))]
        found += ready
        wanted = [model for model in wanted if model not in ready]
    return tuple(found)


def keys_of(model: type[Model]) -> list["ForeignKey[Any, Any]"]:
    """The columns that name a row of another table."""
    return [field for field in model._meta.concrete_fields if isinstance(field, ForeignKey)]


def rows_of(model: type[Model], shop: Shop) -> QuerySet[Any]:
    """A shop's rows of a table, in the order in which they were made."""
    rows = model._base_manager.order_by("pk")
    return rows.filter(pk=shop.pk) if model is Shop else rows.filter(**{_path(model): shop.pk})


def people_of(shop: Shop) -> list[User]:
    """Everybody whose name stands on something of the shop's."""
    named = set(shop.members.values_list("user_id", flat=True))
    for model in tables():
        for key in keys_of(model):
            if key.related_model is User:
                named |= set(rows_of(model, shop).order_by().values_list(key.attname, flat=True).distinct())
    return list(User.objects.filter(pk__in=named - {None}).order_by("pk"))


@cache
def _path(model: type[Model]) -> str:
    """How the shop is reached from a table by keys that are always there, by the fewest steps: ``walk_around__shop``."""
    reached: list[tuple[type[Model], str]] = [(model, "")]
    for here, path in reached:
        for key in keys_of(here):
            step = f"{path}__{key.name}".removeprefix("__")
            if key.related_model is Shop:
                return step
            if not key.null and key.related_model in all_tables():
                reached.append((key.related_model, step))
    raise LookupError(f"{model._meta.label} leads to no shop")


def _named(model: type[Model]) -> Iterator[Any]:
    return (key.related_model for key in keys_of(model) if key.related_model is not model)
