"""What is asked of somebody outside: nobody waits for it, it is asked once, and what came of it is the asker's own to read."""

import threading
import uuid

import pytest
from django.utils import timezone

from lumvek_core.errors import BadInput
from outside import inquiries
from outside.models import Inquiry


def look(as_, member, inquiry):
    return as_(member).get(f"/api/outside/inquiries/{inquiry}")


def test_the_same_one_is_asked_once_and_told_to_its_member_alone(yard, neighbour, as_):
    asked, one = [], uuid.uuid4()

    def work():
        asked.append(True)
        return [inquiries.Told("Harrow Mail", "has 3 of the list"), inquiries.Told("Northmere", trouble="is away")]

    for _ in range(2):
        inquiries.ask(yard.parts.pk, one, work)
    assert asked == [True]
    found = look(as_, yard.parts, one).json()
    assert not found["under_way"] and found["trouble"] == ""
    assert [told["said"] or told["trouble"] for told in found["told"]] == ["has 3 of the list", "is away"]
    for other in (yard.lead, neighbour.lead):
        assert look(as_, other, one).status_code == 404
        with pytest.raises(Inquiry.DoesNotExist):
            inquiries.ask(other.pk, one, work)
    assert asked == [True]


@pytest.mark.parametrize(
    ("problem", "says", "field"),
    [
        (inquiries.Nothing("Nobody answers."), "Nobody answers.", ""),
        (BadInput("shown", "runs back"), "runs back", "shown"),
    ],
)
def test_why_nothing_came_of_it_is_told(yard, as_, problem, says, field):
    def work():
        raise problem

    one = uuid.uuid4()
    inquiries.ask(yard.parts.pk, one, work)
    found = look(as_, yard.parts, one).json()
    assert (found["trouble"], found["field"], found["under_way"]) == (says, field, False)


def test_a_fault_is_no_silence(yard, as_):
    def work():
        raise ZeroDivisionError

    one = uuid.uuid4()
    with pytest.raises(ZeroDivisionError):  # where there is no background; beside it is logged
        inquiries.ask(yard.parts.pk, one, work)
    assert "Something went wrong" in look(as_, yard.parts, one).json()["trouble"]


def test_one_that_was_lost_with_its_process_is_said_to_be(yard, as_):
    one = uuid.uuid4()
    Inquiry.objects.create(uuid=one, member=yard.parts)
    assert look(as_, yard.parts, one).json()["under_way"]
    Inquiry.objects.update(asked_at=timezone.now() - inquiries.GOES_FOR * 1.1)
    found = look(as_, yard.parts, one).json()
    assert (found["under_way"], found["trouble"]) == (False, "No answer came. Ask again.")


def test_old_ones_are_forgotten(yard):
    old = Inquiry.objects.create(uuid=uuid.uuid4(), member=yard.parts)
    Inquiry.objects.update(asked_at=timezone.now() - inquiries.KEPT * 1.1)
    inquiries.ask(yard.parts.pk, uuid.uuid4(), list)
    assert not Inquiry.objects.filter(pk=old.pk).exists()


@pytest.mark.django_db(transaction=True)
def test_nobody_waits_for_one_who_is_silent(yard, settings):
    settings.BACKGROUND = True
    speaks, done, one = threading.Event(), threading.Event(), uuid.uuid4()

    def work():
        speaks.wait(20)
        return [inquiries.Told("at last")]

    assert inquiries.ask(yard.parts.pk, one, work).answered_at is None
    assert inquiries.of_member(yard.parts.pk, one).answered_at is None
    speaks.set()
    while not done.wait(0.02):
        if inquiries.of_member(yard.parts.pk, one).answered_at:
            done.set()
    assert inquiries.of_member(yard.parts.pk, one).told[0]["who"] == "at last"
