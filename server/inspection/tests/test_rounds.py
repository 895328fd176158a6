"""One round is one round: what a time of the season looks at, what it leaves out and why, and taking that in."""

import datetime as dt
import uuid

import pytest
from django.utils import timezone

from inspection.actions import closing, recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.models import WalkAround
from inspection.queries import preparing, rule_books, walk_arounds

TUBES = [("seed-tube-swing", str(row)) for row in range(1, 7)]
"""A check that winter alone asks for, at every place of the six-row planter."""


def begun(yard, phase, **more):
    return starting.start(yard.technician, yard.machine, uuid.uuid4(), preparing.Wanted(phase, **more))


def keys(walk_around):
    return {check.key for check in rule_books.checks_of(walk_around)}


def finished(yard, phase, readings, days_ago=3):
    walk_around = begun(yard, phase)
    for check, place in readings:
        new = NewReading(uuid.uuid4(), check, place, raw=["yes"])
        recording.record_reading(yard.technician, walk_around.pk, new)
    closing.finish(yard.technician, walk_around.pk, uuid.uuid4())
    at = timezone.now() - dt.timedelta(days=days_ago)
    WalkAround.objects.filter(pk=walk_around.pk).update(started_at=at, finished_at=at)
    return walk_around


def test_everything_is_one_full_round_and_leaves_out_what_only_the_field_shows(yard):
    everything = begun(yard, "everything")
    winter, before = begun(yard, "winter"), begun(yard, "pre-season")
    assert keys(winter) <= keys(everything)
    (left,) = everything.left_out
    assert left["words"].endswith("left out: seen only while it works in the field.")
    assert keys(before) | keys(winter) == keys(everything) | set(left["checks"])


def test_everything_is_the_first_choice(yard, as_):
    info = as_(yard.lead).get(f"/api/machines/{yard.machine.pk}/start").json()
    assert info["usual"] == "everything" == info["phases"][0]["key"]
    as_(yard.lead).send("/api/rules/schools", subject="inspection-time", choice="after-season")
    assert as_(yard.lead).get(f"/api/machines/{yard.machine.pk}/start").json()["usual"] == "after-season"


def test_before_the_season_only_what_was_seen_since_the_last_one_is_left_out(yard):
    assert "seed-tube-swing" in keys(begun(yard, "pre-season")), "nothing was seen yet"
    finished(yard, "winter", TUBES)
    before = begun(yard, "pre-season")
    assert "seed-tube-swing" not in keys(before)
    (left,) = before.left_out
    assert left["checks"] == ["seed-tube-swing"]
    assert left["words"].startswith("1 check left out: seen since the last season, last on ")


@pytest.mark.parametrize(
    ("readings", "days_ago"),
    [(TUBES[:-1], 3), (TUBES, 400)],
    ids=["one row was passed over", "that was the season before"],
)
def test_what_was_not_wholly_seen_or_long_ago_is_looked_at(yard, readings, days_ago):
    finished(yard, "winter", readings, days_ago)
    assert "seed-tube-swing" in keys(begun(yard, "pre-season"))


def test_what_is_to_be_looked_at_again_before_the_field_stays(yard):
    finished(yard, "winter", TUBES)
    assert {"opener-bearing", "gauge-wheel-gap"} <= keys(begun(yard, "pre-season"))


@pytest.mark.parametrize("phase", ["winter", "pre-season", "everything"])
def test_meter_benches_are_full_in_either(yard, phase):
    yard.machine.options = ["meter-bowl"]
    yard.machine.save()
    bench = {check.key for check in rule_books.checks_of(begun(yard, phase)) if check.posture == "bench"}
    assert {"meter-clean", "bowl-crop", "wear-pads", "vent", "seed-guide"} <= bench


def test_one_key_takes_it_in_at_the_start_and_in_the_walk_around(yard, as_):
    finished(yard, "winter", TUBES)
    assert "seed-tube-swing" in keys(begun(yard, "pre-season", take_in=True))
    before = begun(yard, "pre-season")
    total = {station.key: station.total for station in walk_arounds.station_states(before)}["opener"]
    for _ in range(2):
        taken = as_(yard.technician).send(f"/api/walk-arounds/{before.pk}/take-in").json()
    assert taken["left_out"] == [] and "seed-tube-swing" in [check["key"] for check in taken["checks"]]
    assert next(station for station in taken["stations"] if station["key"] == "opener")["total"] == total + 6
    new = NewReading(uuid.uuid4(), "seed-tube-swing", "2", raw=["no"])
    recording.record_reading(yard.technician, before.pk, new)


def test_nothing_is_taken_into_a_finished_walk_around(yard, as_):
    done = finished(yard, "everything", [])
    assert as_(yard.technician).send(f"/api/walk-arounds/{done.pk}/take-in").status_code == 409
