"""A line that fails again and again rests, longer each time; a person may ask all the same, and the first answer ends it."""

import datetime as dt

import pytest
from django.utils import timezone

from outside import lines
from outside.models import Line

pytestmark = pytest.mark.django_db


class Away(Exception):
    pass


def fail():
    raise Away("Nobody there.")


def ask(what, **more):
    return lines.reach(Line.Name.DESK, what, Away, **more)


def failed(times):
    for _ in range(times):
        with pytest.raises(Away):
            ask(fail, pressed=True)
    return Line.objects.get()


def test_it_rests_after_three_failures_in_a_row():
    assert failed(2).rests_until is None
    line = failed(1)
    assert line.failures == 3 and line.rests_until - line.asked_at == lines.RESTS[0]
    with pytest.raises(lines.Resting, match="failed 3 times in a row and is left alone until"):
        ask(lambda: pytest.fail("nobody is asked while it rests"))


def test_it_rests_longer_each_time_but_never_longer_than_the_last():
    rests = [line.rests_until - line.asked_at for line in (failed(3), failed(1), failed(1), failed(1))]
    assert rests == [*lines.RESTS, lines.RESTS[-1]]


def test_whoever_presses_is_served_and_an_answer_ends_the_rest():
    failed(4)
    assert ask(lambda: "here", pressed=True) == "here"
    line = Line.objects.get()
    assert (line.failures, line.trouble, line.rests_until) == (0, "", None)
    assert ask(lambda: "again") == "again"


def test_when_the_rest_is_over_it_is_tried_once_more():
    failed(3)
    Line.objects.update(rests_until=timezone.now() - dt.timedelta(seconds=1))
    assert ask(lambda: "here") == "here"


def test_a_failure_between_answers_is_forgotten():
    failed(2)
    ask(lambda: "here")
    assert failed(2).rests_until is None


def test_what_is_not_a_failure_of_the_line_passes_through():
    with pytest.raises(KeyError):
        ask({}.popitem)
    assert not Line.objects.exists()
