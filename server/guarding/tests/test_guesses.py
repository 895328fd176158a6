"""Guessing is slowed by one measure, wherever a secret is asked for, and whoever knows theirs is not shut out by others."""

import datetime as dt
import json
import threading

import pytest
from django.db import OperationalError, connection
from django.test import Client
from django.utils import timezone
from django_otp.oath import TOTP
from django_otp.plugins.otp_static.models import StaticDevice
from django_otp.plugins.otp_totp.models import TOTPDevice

from guarding import guesses
from guarding.guesses import Slowed
from guarding.models import Guesses
from testing.yard import PASSWORD

LOGIN = "/api/session/login"
THIEF, HOME = "198.51.100.7", "203.0.113.9"


def sign_in(browser, name, password=PASSWORD, code="", at=HOME):
    body = json.dumps({"username": name, "password": password, "code": code})
    return browser.post(LOGIN, body, content_type="application/json", REMOTE_ADDR=at)


def test_the_wait_grows_with_every_third_further_one_and_has_an_end():
    minutes = [guesses.wait_after(failures).total_seconds() / 60 for failures in range(22)]
    assert minutes[:6] == [0] * 6
    assert minutes[6:19] == [15, 0, 0, 30, 0, 0, 60, 0, 0, 120, 0, 0, 240]
    assert guesses.wait_after(6 + 3 * 50) == dt.timedelta(hours=4)


@pytest.mark.parametrize(
    ("path", "body", "field"),
    [
        ("/api/session/password", {"new": "a new one of 20 letters"}, "old"),
        ("/api/session/second-factor/codes", {}, "password"),
        ("/api/session/second-factor/end", {}, "password"),
    ],
)
def test_whoever_found_a_session_does_not_guess_the_password(path, body, field, yard, as_):
    TOTPDevice.objects.create(user=yard.technician.user, confirmed=True)
    found = as_(yard.technician)
    answers = [found.send(path, **body, **{field: f"guess {n}"}) for n in range(10)]
    assert [one.status_code for one in answers] == [422] * 6 + [429] * 4
    assert answers[0].json()["error"]["field"] == field
    assert answers[-1].json()["error"]["message"] == "Too many wrong tries from here. Try again in 15 minutes."
    assert found.send(path, **body, **{field: PASSWORD}).status_code == 429, "nor once it is right by chance"
    Guesses.objects.update(until=timezone.now())
    assert found.send(path, **body, **{field: PASSWORD}).status_code == 200
    assert not Guesses.objects.exists(), "it begins anew"


@pytest.mark.django_db(transaction=True)
def test_many_at_the_same_instant_count_as_they_would_one_after_the_other(yard):
    name, answers = yard.lead.user.username, []

    def guess():
        answers.append(sign_in(Client(), name, "wrong", at=THIEF).status_code)
        connection.close()

    at_once = [threading.Thread(target=guess) for _ in range(24)]
    for one in at_once:
        one.start()
    for one in at_once:
        one.join()
    assert sorted(answers) == [422] * 6 + [429] * 18
    left = Guesses.objects.get().until - timezone.now()
    assert dt.timedelta(minutes=14) < left <= dt.timedelta(minutes=15), "and not hours"


@pytest.mark.django_db(transaction=True)
def test_who_is_right_twice_at_the_same_instant_is_let_in_twice(yard):
    answers = []

    def enter():
        answers.append(sign_in(Client(), yard.lead.user.username).status_code)
        connection.close()

    at_once = [threading.Thread(target=enter) for _ in range(6)]
    for one in at_once:
        one.start()
    for one in at_once:
        one.join()
    assert answers == [200] * 6


@pytest.mark.django_db(transaction=True)
def test_who_gave_way_to_another_at_the_same_instant_is_looked_at_again(monkeypatch):
    left, whole = [1213, 1213], Guesses.objects.bulk_create

    def gives_way(*args, **kwargs):
        if left:
            raise OperationalError(left.pop(), "Deadlock found when trying to get lock")
        return whole(*args, **kwargs)

    monkeypatch.setattr(Guesses.objects, "bulk_create", gives_way)
    assert guesses.attempt("lead", "at 10.0.0.1", lambda: True) is True
    left += [1213] * 3
    with pytest.raises(OperationalError):
        guesses.attempt("lead", "at 10.0.0.1", lambda: True)


def test_a_known_device_is_not_shut_out_by_its_neighbour(yard):
    name, own = yard.lead.user.username, Client()
    assert sign_in(own, name).status_code == 200
    for _ in range(30):
        sign_in(Client(), name, "wrong", at=HOME)  # the same address: another in the same house
    assert sign_in(Client(), name).status_code == 429
    assert sign_in(own, name.upper()).status_code == 200, "this device has known them before"
    forged = Client()
    forged.cookies["device"] = own.cookies["device"].value[:-1] + "-"
    assert sign_in(forged, name).status_code == 429


def code_of(device):
    totp = TOTP(device.bin_key)
    totp.time = timezone.now().timestamp()
    return f"{totp.token():06}"


@pytest.fixture
def factor(yard):
    """The lead's app, and one code for once."""
    app = TOTPDevice.objects.create(user=yard.lead.user, confirmed=True)
    StaticDevice.objects.create(user=yard.lead.user, confirmed=True).token_set.create(token="abcd2345")
    return app


def test_wrong_codes_elsewhere_shut_out_nobody_who_has_the_right_one(yard, factor):
    name = yard.lead.user.username
    for n in range(25):
        sign_in(Client(), name, code=f"{n:06}", at=THIEF)
    assert sign_in(Client(), name, code="abcd2345", at=THIEF).status_code == 429
    assert sign_in(Client(), name, code="abcd2345").status_code == 200
    assert sign_in(Client(), name, code=code_of(factor)).status_code == 200


def test_a_code_that_is_not_typed_yet_is_no_guess_and_ends_no_count(yard, factor):
    name, thief = yard.lead.user.username, Client()
    for n in range(5):
        assert sign_in(thief, name, code=f"{n:06}", at=THIEF).status_code == 422
    for _ in range(9):
        assert "Type the code" in sign_in(thief, name, at=THIEF).json()["error"]["message"]
    assert sign_in(thief, name, code="000006", at=THIEF).status_code == 422
    assert sign_in(thief, name, code="000007", at=THIEF).status_code == 429


def test_codes_are_not_guessed_from_a_thousand_addresses(yard, factor, monkeypatch):
    monkeypatch.setattr(guesses, "CODES_ANYWHERE", 9)
    name = yard.lead.user.username
    for n in range(guesses.CODES_ANYWHERE):
        assert sign_in(Client(), name, code="000000", at=f"10.0.{n // 250}.{n % 250}").status_code == 422
    assert sign_in(Client(), name, code=code_of(factor)).status_code == 422, "no app's code is looked at any more today"
    assert sign_in(Client(), name, code="abcd2345").status_code == 200, "one for once is too long to be guessed"
    Guesses.objects.update(last_at=timezone.now() - dt.timedelta(hours=25))
    assert sign_in(Client(), name, code=code_of(factor)).status_code == 200


def test_a_day_without_a_wrong_one_begins_anew(db):
    for _ in range(5):
        guesses.attempt("ada", "here", lambda: False)
    guesses.attempt("bram", "here", lambda: False)
    Guesses.objects.update(last_at=timezone.now() - dt.timedelta(hours=25))
    for _ in range(6):
        guesses.attempt("ada", "here", lambda: False)
    assert [one.who for one in Guesses.objects.all()] == ["ada"], "what is forgotten is not kept"
    with pytest.raises(Slowed):
        guesses.attempt("ada", "here", lambda: pytest.fail("it was looked at"))


def test_signing_in_again_takes_another_session_key(yard):
    browser = Client()
    sign_in(browser, yard.lead.user.username)
    before = browser.cookies["sessionid"].value
    sign_in(browser, yard.lead.user.username)
    assert browser.cookies["sessionid"].value != before
    stale = Client()
    stale.cookies["sessionid"] = before
    assert stale.get("/api/session").json()["me"] is None
