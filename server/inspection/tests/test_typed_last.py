"""The reading typed last is in force, whatever arrived last; the other is kept and shown as overtaken."""

import datetime as dt
import uuid

import pytest
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from inspection.judging import rejudging
from inspection.models import Reading, Verdict
from inspection.queries import rule_books, walk_arounds

DISC = "opener-disc-diameter"


def at(seconds):
    return timezone.now() - dt.timedelta(minutes=10) + dt.timedelta(seconds=seconds)


def standing(position="3L"):
    return Verdict.objects.get(check_key=DISC, position_key=position)


def test_a_figure_that_arrives_late_does_not_overrule_one_typed_after_it(yard, read):
    read(DISC, "3L", "395", by=yard.lead, taken_at=at(29))
    changed = read(DISC, "3L", "388.5", taken_at=at(26))
    assert standing().reading.raw == ["395"]
    assert standing().overtaken.raw == ["388.5"]
    assert standing().severity == "sound"
    assert changed.pairs == [(DISC, "3L")], "whoever sent it is answered with what stands there"


def test_a_figure_typed_later_is_in_force_and_the_other_is_shown_with_its_name(yard, read):
    read(DISC, "3L", "395", by=yard.lead, taken_at=at(26))
    read(DISC, "3L", "388.5", taken_at=at(29))
    book = rule_books.opened(yard.walk_around.rule_book_id)
    place = walk_arounds.places(yard.walk_around, book, yard.technician)[0]
    assert place.raw == ["388.5"]
    assert (place.overtaken.shown, place.overtaken.by) == ("395 mm", "Lead")


def test_a_correction_by_the_same_hand_overtakes_nobody(yard, read):
    read(DISC, "3L", "395", taken_at=at(1))
    read(DISC, "3L", "394", taken_at=at(2))
    assert standing().overtaken is None
    assert standing().reading.replaces.raw == ["395"]


def test_an_opened_place_stays_open_for_what_was_typed_before(yard, read):
    read(DISC, "3L", "395", taken_at=at(1))
    read(DISC, "3L", state="withdrawn", taken_at=at(9))
    read(DISC, "3L", "388.5", by=yard.lead, taken_at=at(5))
    assert not Verdict.objects.exists()
    assert Reading.objects.count() == 3


def test_a_late_withdrawal_does_not_take_a_newer_figure_away(yard, read):
    read(DISC, "3L", "395", by=yard.lead, taken_at=at(9))
    read(DISC, "3L", state="withdrawn", taken_at=at(5))
    assert standing().reading.raw == ["395"]


def test_a_clock_that_runs_ahead_cannot_type_in_the_future(yard, read):
    read(DISC, "3L", "395", taken_at=timezone.now() + dt.timedelta(hours=3))
    assert Reading.objects.get().taken_at <= timezone.now()
    read(DISC, "3L", "388.5", by=yard.lead)
    assert standing().reading.raw == ["388.5"]


@settings(max_examples=12, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(order=st.permutations(range(5)))
def test_any_order_of_arrival_ends_the_same(order, yard, read):
    """Five figures typed one after the other by two people at two places, in whatever order they arrive."""
    Verdict.objects.all().delete()
    Reading.objects.all().update(replaces=None)
    Reading.objects.all().delete()
    figures = [("3L", "395"), ("3L", "394"), ("4L", "393"), ("3L", "392"), ("4L", "391")]
    started = timezone.now() - dt.timedelta(minutes=5)
    for i in order:
        place, raw = figures[i]
        by = yard.lead if i % 2 else yard.technician
        read(DISC, place, raw, by=by, taken_at=started + dt.timedelta(seconds=i))
    assert (standing("3L").reading.raw, standing("4L").reading.raw) == (["392"], ["391"])


def test_the_answer_says_what_the_server_s_clock_shows(yard, as_):
    response = as_(yard.technician).get("/api/session")
    assert abs(int(response["X-Lumvek-Time"]) / 1000 - timezone.now().timestamp()) < 60


def test_what_one_member_typed_is_not_taken_under_another_login(yard, as_):
    path = f"/api/walk-arounds/{yard.walk_around.pk}/readings"
    body = {"uuid": str(uuid.uuid4()), "check": DISC, "position": "3L", "raw": ["390"]}
    colleague, mine = as_(yard.lead), as_(yard.technician)
    typed_by = {"X-Lumvek-Member": str(yard.technician.pk)}
    assert colleague.post(path, body, content_type="application/json", headers=typed_by).status_code == 401
    assert not Reading.objects.exists()
    assert mine.post(path, body, content_type="application/json", headers=typed_by).status_code == 200
    assert Reading.objects.get().by == yard.technician.user


@pytest.mark.parametrize("newer_first", [True, False])
def test_a_visit_rebuilt_from_its_readings_is_as_it_was(newer_first, yard, read):
    for raw, second in [("395", 9), ("388.5", 5)] if newer_first else [("388.5", 5), ("395", 9)]:
        read(DISC, "3L", raw, taken_at=at(second))
    read(DISC, "4L", "385", taken_at=at(3))
    before = list(Verdict.objects.order_by("position_key").values_list("position_key", "severity", "reading__raw", "reason"))
    rejudging.rebuild(yard.walk_around)
    after = list(Verdict.objects.order_by("position_key").values_list("position_key", "severity", "reading__raw", "reason"))
    assert after == before
