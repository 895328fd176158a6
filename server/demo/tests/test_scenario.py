"""The demo: loaded once, and showing every state on the first screen."""

import datetime as dt

import pytest
from django.core.management import CommandError, call_command
from django.utils import timezone

from demo.people import PASSWORD, PEOPLE
from demo.scenario import load
from inspection.models import Reading, WalkAround


def test_loading_again_changes_nothing(demo):
    before = Reading.objects.count()
    assert not load(timezone.now())
    assert Reading.objects.count() == before


def test_the_first_screen_shows_every_state(demo, as_):
    cards = {card["machine"]["name"]: card for card in as_(demo.ada).get("/api/machines").json()["machines"]}
    twelve = cards["Dunmere 12"]
    for state in ("sound", "watch", "due", "not_seen", "open"):
        assert sum(station[state] for station in twelve["stations"]) > 0, state
    walks = WalkAround.objects.filter(machine=twelve["machine"]["id"]).order_by("-started_at")
    assert [walk.finished_at is None for walk in walks][:4] == [True, False, False, False]
    assert twelve["newest"]["id"] == str(walks[0].pk)
    assert cards["Dunmere 6"]["newest"] is None
    needed = dt.date.fromisoformat(twelve["machine"]["season_date"]) - timezone.now().date()
    assert 14 <= needed.days <= 42, "always a few weeks ahead"


def test_everybody_can_log_in(demo, as_):
    for person in PEOPLE:
        me = as_().send("/api/session/login", username=person.username, password=PASSWORD).json()["me"]
        assert (me["name"], me["roles"]) == (f"{person.first} {person.last}", [person.role])


def test_a_served_shop_gets_no_demo_data(db, settings):
    settings.MODE = "serve"
    with pytest.raises(CommandError):
        call_command("load_demo")
