"""How much one member may ask for in a minute: refused in words beyond it, each member and each address for itself."""

import time

import pytest
from django.db import OperationalError

from config import lane
from guarding import pace
from guarding.models import Asked


@pytest.fixture
def few(monkeypatch):
    """Three requests a minute, two of them for files, in a minute that does not end."""
    monkeypatch.setattr(pace, "ANYTHING", pace.Pace("anything", 4, "requests"))
    monkeypatch.setattr(lane, "COSTLY", pace.Pace("costly", 2, "files and plans"))
    monkeypatch.setattr(time, "time", lambda: 1_800_000_015.0)


def test_more_than_so_many_are_refused_in_words(yard, as_, few):
    browser = as_(yard.lead)
    assert [browser.get("/api/machines/names").status_code for _ in range(4)] == [200] * 4
    late = browser.get("/api/machines/names")
    assert (late.status_code, late["Retry-After"]) == (429, "45")
    assert late.json()["error"]["message"] == "Too many requests in one minute: it goes on in 45 s."


def test_others_are_not_held_up(yard, neighbour, as_, few):
    for _ in range(6):
        as_(yard.lead).get("/api/machines/names")
    assert as_(yard.technician).get("/api/machines/names").status_code == 200
    assert as_(neighbour.lead).get("/api/machines/names").status_code == 200
    assert as_().get("/api/session").status_code == 200


def test_a_stranger_is_counted_by_address(db, as_, few):
    strangers = [as_().get("/api/session", REMOTE_ADDR=f"10.0.0.{n % 2}").status_code for n in range(10)]
    assert strangers == [200] * 8 + [429] * 2


@pytest.mark.parametrize("path", ["/machines.csv", "/walk-arounds/{}/report.pdf", "/walk-arounds/{}/readings.xlsx"])
def test_files_are_counted_by_themselves(yard, as_, few, path):
    browser, path = as_(yard.lead), path.format(yard.walk_around.pk)
    assert [browser.get(path).status_code for _ in range(3)] == [200, 200, 429]
    assert browser.get("/api/machines/names").status_code == 200, "what costs little goes on"


@pytest.mark.parametrize("path", ["/api/machines/file", "/api/logbook/counters-file", "/api/bench/chain/file"])
def test_files_that_are_read_are_counted_too(yard, as_, few, path):
    answers = [as_(yard.lead).post(path, {}, content_type="application/json").status_code for _ in range(3)]
    assert answers[2] == 429 and 429 not in answers[:2]


def test_what_works_at_length_costs(yard, as_, few):
    ask = lambda: as_(yard.lead).post("/api/calc/posture_route", {}, content_type="application/json").status_code  # noqa: E731
    assert [ask() for _ in range(3)] == [422, 422, 429]


@pytest.mark.parametrize("path", ["/api/supply/plans", "/api/season/plans"])
def test_to_look_at_a_plan_costs_little_and_to_make_one_costs(path, yard, as_, few):
    assert [as_(yard.lead).get(path).status_code for _ in range(4)].count(429) == 0
    asked = [as_(yard.parts).post(path, {}, content_type="application/json").status_code for _ in range(3)]
    assert asked[2] == 429 and 429 not in asked[:2]


def test_all_web_workers_count_together(yard, as_, monkeypatch):
    """What another worker has counted is known; this one tells its own by the score."""
    monkeypatch.setattr(pace, "ANYTHING", pace.Pace("anything", 40, "requests", by=10))
    monkeypatch.setattr(time, "time", lambda: 1_800_000_015.0)
    who = f"member-{yard.lead.user.pk}"
    for _ in range(3):
        here = [pace.too_fast(pace.ANYTHING, who) for _ in range(10)]
        assert here == [None] * 10
        pace.forget()  # another worker
    browser = as_(yard.lead)
    assert [browser.get("/api/machines/names").status_code for _ in range(11)] == [200] * 10 + [429]
    Asked.objects.update(minute=1)
    monkeypatch.setattr(time, "time", lambda: 1_800_000_315.0)
    for _ in range(10):
        pace.too_fast(pace.ANYTHING, "somebody else")
    assert [one.what for one in Asked.objects.all()] == ["anything somebody else"], "what is over is forgotten"


def test_the_next_minute_is_another(yard, as_, few, monkeypatch):
    for _ in range(5):
        as_(yard.lead).get("/api/machines/names")
    monkeypatch.setattr(time, "time", lambda: 1_800_000_061.0)
    assert as_(yard.lead).get("/api/machines/names").status_code == 200


def test_who_may_only_look_does_not_work_at_length(yard, as_):
    refused = as_(yard.owner).post("/api/calc/source_parts", {}, content_type="application/json")
    assert refused.status_code == 403
    assert as_(yard.owner).post("/api/calc/seed_rate", {}, content_type="application/json").status_code == 422


def test_the_page_itself_opens_while_the_database_is_away(yard, as_, monkeypatch):
    def away(*_):
        raise OperationalError(2006, "gone")

    browser = as_(yard.lead)
    monkeypatch.setattr("django.contrib.sessions.backends.db.SessionStore.load", away)
    assert browser.get("/machines").status_code == 200
    assert browser.get("/api/machines").status_code == 503
