"""What most server tests start from: two shops that know nothing of each other, and one planter with a walk-around."""

import datetime as dt
import gc
import itertools
import json
import os
import uuid
from functools import partial
from threading import BoundedSemaphore
from types import SimpleNamespace

import pytest
from django.core.cache import cache
from django.test import Client
from django.utils import timezone

from config import lane
from demo import scenario
from fleet.models import Machine
from guarding import pace
from inspection.actions import starting
from inspection.models import WalkAround
from inspection.queries import preparing
from shops.models import Member
from testing.layers import Ground, layer
from testing.mail_server import MailServer
from testing.yard import PASSWORD, make_shop, record


def pytest_configure(config):
    """Tests hold on any day: `LUMVEK_TEST_AT=2029-02-28T23:58+01:00 ./lumvek test server` begins them then."""
    if at := os.environ.get("LUMVEK_TEST_AT"):
        import time_machine

        clock = time_machine.travel(dt.datetime.fromisoformat(at).astimezone())
        clock.start()
        config.add_cleanup(clock.stop)


def pytest_collection_finish():
    """The catalogue and the product stay: looking through them for waste took a twentieth of the time."""
    gc.collect()
    gc.freeze()


@pytest.fixture(scope="session")
def whole_ground(django_db_setup, django_db_blocker):
    """The layers of test data, for the whole run."""
    ground = Ground()
    yield ground
    with django_db_blocker.unblock():
        ground.end()


@pytest.fixture
def ground(request, whole_ground, django_db_blocker):
    """The layers that this test wants, laid before its own transaction begins."""
    marker = request.node.get_closest_marker("django_db")
    for_real = bool(marker and marker.kwargs.get("transaction")) or "transactional_db" in request.fixturenames
    with django_db_blocker.unblock():
        (whole_ground.commit_for_real if for_real else whole_ground.stand)(request.fixturenames)
    return whole_ground


@pytest.fixture
def _django_db_helper(ground, _django_db_helper):
    """Pytest-django's, after the ground is laid."""


@pytest.fixture(autouse=True)
def at_once(settings):
    """What is done beside elsewhere is done at once, so that a test sees what comes of it."""
    settings.BACKGROUND = False


@pytest.fixture(scope="session")
def lanes(tmp_path_factory):
    folder = tmp_path_factory.mktemp("lanes")
    return (folder / str(n) for n in itertools.count())


@pytest.fixture(autouse=True)
def not_counted_yet(lanes, settings, monkeypatch):
    """What tests before this one asked for is not held against it, nor the seats of answers that nobody read to their end."""
    cache.clear()
    pace.forget()
    settings.LANE = next(lanes)
    monkeypatch.setattr(lane, "_here", BoundedSemaphore(lane.IN_ONE_WORKER))


@pytest.fixture
def post(settings):
    """The installation's mail server: post.mode = "silent"."""
    with MailServer() as server:
        settings.EMAIL_BACKEND = "django.core.mail.backends.smtp.EmailBackend"
        settings.EMAIL_HOST, settings.EMAIL_PORT = "127.0.0.1", server.port
        settings.EMAIL_USE_TLS = settings.EMAIL_USE_SSL = False
        settings.EMAIL_TIMEOUT = 0.5
        yield server


@pytest.fixture
def password():
    """Everybody's."""
    return PASSWORD


@layer()
def yard():
    """Sallow Bridge, with a walk-around begun by its technician."""
    made = make_shop("Sallow Bridge")
    made.walk_around = starting.start(made.technician, made.machine, uuid.uuid4(), preparing.Wanted("winter"))
    made.walk_around.refresh_from_db()  # without its rules: they are large, and every test has a copy of what lies here
    return made


@layer()
def neighbour():
    return make_shop("Ormery Levels", prefix="n-")


@layer(kept=True)
def demo():
    """The whole demo as it is loaded on the first start: its people by name, its machines, and two of its walk-arounds."""
    assert scenario.load(timezone.now())
    members = {member.user.username: member for member in Member.objects.select_related("user", "shop")}
    machines = {machine.name: machine for machine in Machine.objects.all()}
    return SimpleNamespace(
        shop=members["ada"].shop,
        machines=machines,
        combine=WalkAround.objects.filter(machine=machines["Heron 4"]).first(),
        planter=WalkAround.objects.filter(machine=machines["Dunmere 12"]).first(),
        **members,
    )


@pytest.fixture
def read(yard):
    """Record a reading as the technician: read("opener-disc-diameter", "3L", "385")."""
    return partial(record, yard)


class Browser(Client):
    """A client that speaks JSON."""

    def send(self, path, **body):
        return self.post(path, json.dumps(body), content_type="application/json")


@pytest.fixture
def as_(db):
    """A browser signed in as a member: as_(yard.lead).get(…)."""

    def signed_in(member=None, **client):
        browser = Browser(**client)
        if member:
            browser.force_login(member.user, backend="shops.backend.MemberBackend")
        return browser

    return signed_in
