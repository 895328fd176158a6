"""A planter with three seasons behind it: counters, discs fitted new, and a walk-around every winter."""

import datetime as dt

import pytest
from django.utils import timezone
from season_helpers import USED, WORN, count, fitted, winter

from inspection.models import WalkAround
from testing.layers import layer


@layer(on="yard")
def planter(yard):
    """The yard's planter after three seasons. planter.winters: its walk-arounds, the oldest first; this winter's is begun."""
    now = timezone.now()
    yard.now = now
    total = 2140.0
    count(yard, now - dt.timedelta(days=1120), total)
    for years, use in zip((3, 2, 1), USED, strict=True):
        count(yard, now - dt.timedelta(days=365 * years - 20), total)
        total += use
        count(yard, now - dt.timedelta(days=365 * years - 60), total)
    count(yard, now - dt.timedelta(days=1), total)
    yard.machine.area_ha = total
    yard.machine.save()
    for row in WORN:
        for side in "LR":
            fitted(yard, f"{row}{side}", 2140, now - dt.timedelta(days=1100))
    yard.winters = [winter(yard, years) for years in (3, 2, 1)]
    WalkAround.objects.filter(pk=yard.walk_around.pk).update(started_at=now - dt.timedelta(hours=5))
    yard.walk_around.refresh_from_db()
    return yard


@pytest.fixture
def discs(planter, as_):
    """The machine's opener discs as looked ahead, by position: discs() or discs(more=0.2)."""

    def looked(more=0.0, member=None):
        found = as_(member or planter.lead).get(f"/api/logbook/machines/{planter.machine.pk}/ahead?more={more}").json()
        check = next(one for one in found["checks"] if one["check"] == "opener-disc-diameter")
        return {place["position"]: place for place in check["places"]}

    return looked
