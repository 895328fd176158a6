"""The Sallow Bridge Machinery Ring. Dates are counted from the day it is loaded, figures are made up."""

import datetime as dt

from django.contrib.auth.models import User
from django.db import transaction

from inspection.actions import decisions
from shops.models import Feeler, Member, Shop

from . import at_work, combines, history, machines, planter, season, supply
from .people import EMPTY_SHOP, NEWCOMER, PASSWORD, PEOPLE, Person
from .record_helpers import made_uuid, tell, walk_around

CROPS = [
    {"name": "Malting barley", "group": "small-grain"},
    {"name": "Linseed", "group": "small-grain"},
    {"name": "Lupins", "group": "pod"},
    {"name": "Sunflower", "group": "ear"},
    {"name": "Grain sorghum", "group": "ear"},
]
"""What the ring grows, by how machines are set for it."""


@transaction.atomic
def load(now: dt.datetime) -> bool:
    """Make the shop, its people, models, machines and walk-arounds. False if there is a shop already."""
    if Shop.objects.exists():
        return False
    shop = Shop.objects.create(name="Sallow Bridge Machinery Ring", crops=CROPS)
    people = {person.username: _member(shop, person) for person in PEOPLE}
    Feeler.objects.create(shop=shop, name="card", thickness_mm=0.30)
    Feeler.objects.create(shop=shop, name="paper", thickness_mm=0.10)
    yard = machines.make(shop, people, now)
    history.load(yard, now)
    at_work.load(yard, now)
    _planter(yard, now)
    combines.load(yard, now)
    history.keep_up(yard, now)
    supply.load(yard, people, now)
    season.load(yard, people, now)
    _member(Shop.objects.create(name=EMPTY_SHOP, begun=False), NEWCOMER)
    return True


def _planter(yard: machines.Yard, now: dt.datetime) -> None:
    half = walk_around(yard.tomas, yard.dunmere_12, "this-winter", now - dt.timedelta(hours=20))
    tell(yard.tomas, half, "this-winter", planter.half_of_the_readings())
    decisions.decide(yard.lead, half.pk, made_uuid("decision", 1), "opener-disc-diameter", ["5L", "5R", "6R"], "do")
    decisions.decide(
        yard.lead,
        half.pk,
        made_uuid("decision", 2),
        "parallel-arm-play",
        ["6"],
        "wait",
        until="after the first field",
        reason="felt only, torqued again",
    )


def _member(shop: Shop, person: Person) -> Member:
    user = User.objects.create_user(person.username, password=PASSWORD, first_name=person.first, last_name=person.last)
    return Member.objects.create(user=user, shop=shop, roles=[person.role])
