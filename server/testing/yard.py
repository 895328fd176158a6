"""Sallow Bridge as most tests know it: one member of each role, a six-row planter, and its walk-around."""

import uuid
from functools import lru_cache
from types import SimpleNamespace

from django.contrib.auth.hashers import make_password
from django.contrib.auth.models import User

from fleet.models import LimitOverride, Machine, MachineModel
from inspection.actions import recording
from inspection.judging.typed_readings import NewReading
from parts.models import PartNumber
from shops.models import Member, Shop

PASSWORD = "shell-sand-and-silt"


@lru_cache(maxsize=1)
def password_hash():
    """Hashed once: Argon2 is slow on purpose, and eight members a test would wait for it."""
    return make_password(PASSWORD)


def make_member(shop, name, role):
    user = User.objects.create(username=name, password=password_hash(), first_name=name.capitalize())
    return Member.objects.create(user=user, shop=shop, roles=[role])


def make_shop(name, prefix=""):
    """A shop with one member of each role and a six-row planter."""
    shop = Shop.objects.create(name=name)
    people = {role: make_member(shop, prefix + role, role) for role in ("lead", "technician", "parts", "owner")}
    model = MachineModel.objects.create(shop=shop, maker="Dunmere", name="12", family="row-crop-planter")
    for figure, value in (("new", 400), ("limit", 386)):
        LimitOverride.objects.create(model=model, check_key="opener-disc-diameter", figure=figure, value=value, source="manual")
    PartNumber.objects.create(model=model, slot="opener-disc", number="D12-4001", pack=2)
    machine = Machine.objects.create(
        shop=shop, model=model, name="Dunmere 12", rows=6, track_rows=[3, 4], options=["seed-firmer"]
    )
    return SimpleNamespace(shop=shop, machine=machine, model=model, **people)


def record(yard, check, position, *raw, by=None, **more):
    """Record a reading as the technician: ``record(yard, "opener-disc-diameter", "3L", "385")``."""
    reading_uuid = more.pop("uuid", None) or uuid.uuid4()
    new = NewReading(uuid=reading_uuid, check=check, position=position, raw=list(raw), **more)
    return recording.record_reading(by or yard.technician, yard.walk_around.pk, new)
