"""A link opens one report without an account, until it ends; and nothing else."""

import datetime as dt
import uuid

import pytest
from django.utils import timezone

from demo.pictures import drawn
from inspection.actions import photos
from lumvek_core.errors import BadInput
from report import actions as links
from report.models import ReportLink
from shops.access import Conflict
from shops.actions import people
from shops.models import Member


@pytest.fixture
def opened(yard, read):
    """Open a secret as a stranger."""
    from django.test import Client

    read("opener-disc-diameter", "3L", "385")
    return lambda secret, more="": Client().get(f"/shared/{secret}{more}")


def test_whoever_has_the_link_reads_the_findings_in_plain_words(yard, opened, as_):
    photo = uuid.uuid4()
    photos.add(yard.technician, yard.walk_around.pk, photo, "opener-disc-diameter", "3L", "worn to the bevel", drawn("disc"))
    made = as_(yard.lead).send(f"/api/walk-arounds/{yard.walk_around.pk}/links", days=7).json()
    secret = made["path"].removeprefix("/shared/")
    page = opened(secret)
    text = page.content.decode()
    assert page.status_code == 200
    assert "To be put right before the season" in text and "385 mm, limit 386 mm" in text
    assert "If it waits" in text and "A small disc lets the seed tube guard" in text
    assert f"/shared/{secret}/photos/{photo}" in text
    assert (page["Referrer-Policy"], page["Cache-Control"]) == ("no-referrer", "private, no-store")
    assert opened(secret, f"/photos/{photo}").status_code == 200
    assert opened(secret, f"/photos/{uuid.uuid4()}").status_code == 404
    assert secret not in str(list(ReportLink.objects.values())), "only its hash is kept"


def test_a_link_ends_by_itself_and_can_be_ended(yard, opened):
    link, secret = links.make(yard.lead, yard.walk_around.pk, 1)
    ReportLink.objects.filter(pk=link.pk).update(expires_at=timezone.now() - dt.timedelta(seconds=1))
    assert opened(secret).status_code == 404
    link, secret = links.make(yard.lead, yard.walk_around.pk, 1)
    assert opened(secret).status_code == 200
    links.revoke(yard.lead, yard.walk_around.pk, link.pk)
    ended = opened(secret)
    assert (ended.status_code, b"This link has ended" in ended.content) == (404, True)


def test_asked_for_again_after_a_lost_answer_it_is_one_link_and_only_the_newer_secret_opens_it(yard, opened):
    key = uuid.uuid4()
    lost, unseen = links.make(yard.lead, yard.walk_around.pk, 7, key)
    again, secret = links.make(yard.lead, yard.walk_around.pk, 7, key)
    assert (again.pk, ReportLink.objects.count()) == (lost.pk, 1)
    assert (opened(unseen).status_code, opened(secret).status_code) == (404, 200)
    with pytest.raises(BadInput, match="belongs to another link"):
        links.make(yard.technician, yard.walk_around.pk, 7, key)


def test_a_link_that_was_ended_is_not_revived_by_a_request_that_comes_late(yard, opened):
    key = uuid.uuid4()
    link, secret = links.make(yard.lead, yard.walk_around.pk, 7, key)
    links.revoke(yard.lead, yard.walk_around.pk, link.pk)
    with pytest.raises(Conflict, match="was ended"):
        links.make(yard.lead, yard.walk_around.pk, 7, key)
    assert opened(secret).status_code == 404


@pytest.mark.parametrize("secret", ["", "x", "0" * 43])
def test_a_guess_opens_nothing(opened, secret):
    assert b"385" not in opened(secret).content


@pytest.mark.parametrize("days", [0, 91, -3])
def test_a_link_lasts_a_sensible_time(yard, days):
    with pytest.raises(BadInput):
        links.make(yard.lead, yard.walk_around.pk, days)


@pytest.mark.parametrize(("role", "status"), [("lead", 200), ("technician", 200), ("parts", 403), ("owner", 403)])
def test_who_may_share(role, status, yard, as_):
    yard.machine.owners.add(yard.owner)
    assert as_(getattr(yard, role)).send(f"/api/walk-arounds/{yard.walk_around.pk}/links", days=3).status_code == status


def test_a_card_to_print_holds_what_belongs_to_its_time(yard, neighbour, as_):
    url = f"/machines/{yard.machine.pk}/card"
    text = as_(yard.technician).get(url, {"phase": "after-season"}).content.decode()
    assert "Meters and delivery belts empty to the last seed" in text
    assert "Opener disc diameter" not in text
    assert as_(neighbour.lead).get(url).status_code == 404
    assert as_(yard.lead).get(url, {"phase": "harvest"}).status_code == 404
    assert as_().get(url).status_code == 302


@pytest.mark.parametrize("gone", ["let go", "taken out by name", "no member any more"])
def test_a_link_goes_on_when_those_who_made_it_are_gone(yard, opened, gone):
    _, secret = links.make(yard.technician, yard.walk_around.pk, 1)
    people.let_go(yard.lead, yard.technician.pk)
    if gone != "let go":
        people.take_out_by_name(yard.lead, yard.technician.pk)
    if gone == "no member any more":
        yard.walk_around.people.clear()
        Member.objects.filter(pk=yard.technician.pk).delete()
    page = opened(secret)
    assert (page.status_code, b"385 mm, limit 386 mm" in page.content) == (200, True)
