"""One's own account: password, the way back in, a second factor, other devices."""

import re

import pytest
from django.core import mail
from django_otp.oath import totp
from django_otp.plugins.otp_totp.models import TOTPDevice

from shops.models import Change, ResetMail
from testing.yard import PASSWORD

NEW = "linseed-and-lupins"


@pytest.fixture(autouse=True)
def letters(settings):
    settings.EMAIL_BACKEND = "django.core.mail.backends.locmem.EmailBackend"


@pytest.fixture
def sign_in(as_):
    """A browser that has signed in as people do, and the answer."""

    def attempt(member, password=PASSWORD, code=""):
        browser = as_()
        body = {"username": member.user.username, "password": password, "code": code}
        return browser, browser.send("/api/session/login", **body)

    return attempt


@pytest.fixture
def with_code(yard, sign_in):
    """The technician, who has set up a second factor: the browser, a way to the app's code, the codes for once."""
    browser, _ = sign_in(yard.technician)
    key = browser.send("/api/session/second-factor").json()
    assert key["picture"].startswith("data:image/svg+xml")
    assert re.fullmatch("([A-Z2-7]{4} ?)+", key["letters"])
    codes = browser.send("/api/session/second-factor/confirm", code=now(yard.technician)).json()["codes"]
    return browser, codes


def now(member, ahead=0):
    """What the authenticator app shows; ahead: steps of half a minute from now."""
    device = TOTPDevice.objects.get(user=member.user)
    TOTPDevice.objects.filter(pk=device.pk).update(last_t=-1, throttling_failure_count=0)
    return f"{totp(device.bin_key, drift=ahead):06d}"


def test_a_new_password_ends_every_other_session(yard, sign_in):
    here, _ = sign_in(yard.technician)
    there, _ = sign_in(yard.technician)
    account = here.send("/api/session/password", old=PASSWORD, new=NEW).json()
    assert [one["here"] for one in account["devices"]] == [True]
    assert here.get("/api/machines").status_code == 200
    assert there.get("/api/machines").status_code == 401
    assert sign_in(yard.technician)[1].status_code == 422
    assert sign_in(yard.technician, NEW)[1].status_code == 200


@pytest.mark.parametrize(
    ("old", "new", "field"),
    [
        ("wrong", NEW, "old"),
        (PASSWORD, "short", "new"),
        (PASSWORD, "1qaz2wsx3edc", "new"),
        (PASSWORD, "technician12", "new"),
        (PASSWORD, "eleven-char", "new"),
    ],
)
def test_a_password_that_cannot_be_is_refused_at_its_field(old, new, field, yard, sign_in):
    answer = sign_in(yard.technician)[0].send("/api/session/password", old=old, new=new)
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, field)


def test_a_forgotten_password_is_chosen_anew_by_mail_once(yard, as_, sign_in):
    yard.technician.user.email = "tomas@sallow-bridge.invalid"
    yard.technician.user.save()
    said = as_().send("/api/session/forgotten", name="TOMAS@sallow-bridge.invalid").json()["said"]
    who, token = re.search(r"/new-password/([^/]+)/(\S+)", mail.outbox[0].body).groups()
    assert as_().send("/api/session/forgotten", name="nobody").json()["said"] == said, "nobody learns who is here"
    as_().send("/api/session/forgotten", name="technician")
    assert len(mail.outbox) == 1, "not one after the other"
    weak = as_().send("/api/session/new-password", who=who, token=token, password="short")
    assert (weak.status_code, weak.json()["error"]["field"]) == (422, "password")
    assert as_().send("/api/session/new-password", who=who, token=token, password=NEW).status_code == 200
    assert Change.objects.filter(about="person", after="a new password, by a link").count() == 1
    assert as_().send("/api/session/new-password", who=who, token=token, password=NEW).status_code == 404
    assert sign_in(yard.technician, NEW)[1].status_code == 200
    assert ResetMail.objects.count() == 1


def test_whoever_logs_in_with_them_is_told_when_they_change(yard, sign_in):
    user = yard.technician.user
    user.email = "tomas@sallow-bridge.invalid"
    user.save()
    browser = sign_in(yard.technician)[0]
    assert browser.send("/api/session/password", old=PASSWORD, new=NEW).status_code == 200
    browser.send("/api/session/second-factor")
    assert browser.send("/api/session/second-factor/confirm", code=now(yard.technician)).status_code == 200
    assert browser.send("/api/session/second-factor/codes", password=NEW).status_code == 200
    assert browser.send("/api/session/second-factor/end", password=NEW).status_code == 200
    subjects = [letter.subject for letter in mail.outbox]
    assert subjects == ["Your password was changed", *["Your second factor was changed"] * 3]
    assert {tuple(letter.to) for letter in mail.outbox} == {(user.email,)}


@pytest.mark.parametrize(("who", "token"), [("", ""), ("MQ", "c-1"), ("!", "x"), ("OTk5OTk5OTk5OTk5OTk5OTk5OTk5", "x-y")])
def test_a_made_up_link_sets_no_password(who, token, db, as_):
    assert as_().send("/api/session/new-password", who=who, token=token, password=NEW).status_code == 404


def test_where_no_mail_goes_out_the_lead_is_named(db, as_, settings):
    settings.MAILS = False
    answer = as_().send("/api/session/forgotten", name="technician")
    assert (answer.status_code, "lead" in answer.json()["error"]["message"]) == (409, True)


def test_with_a_second_factor_the_password_alone_opens_nothing(yard, sign_in, with_code):
    alone = sign_in(yard.technician)[1]
    assert (alone.status_code, alone.json()["error"]["field"]) == (422, "code")
    assert alone.json()["error"]["message"] == "Type the code of your authenticator app."
    assert sign_in(yard.technician, code=with_code[1][0])[1].status_code == 200, "none was no guess: nobody has to wait"
    assert sign_in(yard.technician, "wrong")[1].json()["error"]["field"] == "password", "which half is right stays unsaid"
    assert sign_in(yard.technician, code="000000")[1].json()["error"]["message"].startswith("This code is not right.")
    shown = now(yard.technician)
    assert sign_in(yard.technician, code=f"{shown[:3]} {shown[3:]}")[1].status_code == 200


def test_a_code_for_once_works_once(yard, sign_in, with_code):
    browser, codes = with_code
    assert len(set(codes)) == 10
    assert sign_in(yard.technician, code=codes[3].upper())[1].status_code == 200
    assert sign_in(yard.technician, code=codes[3])[1].status_code == 422
    assert browser.get("/api/session/account").json()["codes_left"] == 9


def test_codes_whose_answer_was_lost_are_had_anew_with_the_password(yard, sign_in, with_code):
    browser, lost = with_code
    again = browser.send("/api/session/second-factor/confirm", code=now(yard.technician))
    assert (again.status_code, again.json()["error"]["message"]) == (
        409,
        "It is set up already. If you have no codes for once, ask for new ones.",
    )
    wrong = browser.send("/api/session/second-factor/codes", password="wrong")
    assert (wrong.status_code, wrong.json()["error"]["field"]) == (422, "password")
    assert sign_in(yard.technician, code=lost[0])[1].status_code == 200, "until then the old ones open"
    codes = browser.send("/api/session/second-factor/codes", password=PASSWORD).json()["codes"]
    assert len(set(codes) - set(lost)) == 10
    assert sign_in(yard.technician, code=codes[0])[1].status_code == 200
    assert sign_in(yard.technician, code=lost[1])[1].status_code == 422
    assert browser.get("/api/session/account").json()["codes_left"] == 9
    assert Change.objects.filter(about="person", after="new codes for once").count() == 1


def test_codes_for_once_need_a_second_factor(yard, sign_in):
    assert sign_in(yard.technician)[0].send("/api/session/second-factor/codes", password=PASSWORD).status_code == 409


def test_a_second_factor_is_ended_with_the_password(yard, sign_in, with_code):
    browser, _ = with_code
    assert browser.send("/api/session/second-factor").status_code == 409
    assert browser.send("/api/session/second-factor/end", password="wrong").status_code == 422
    assert browser.send("/api/session/second-factor/end", password=PASSWORD).json()["second_factor"] is False
    assert sign_in(yard.technician)[1].status_code == 200


def test_a_lead_lets_in_who_lost_their_telephone(yard, as_, sign_in, with_code):
    people = as_(yard.lead).get("/api/people").json()["people"]
    assert {one["username"]: one["second_factor"] for one in people}["technician"] is True
    as_(yard.lead).send(f"/api/people/{yard.technician.pk}/second-factor/end")
    assert sign_in(yard.technician)[1].status_code == 200


def test_where_the_shop_wants_it_nothing_else_opens_first(yard, sign_in):
    yard.shop.second_factor = True
    yard.shop.save()
    browser, answer = sign_in(yard.technician)
    assert answer.json()["me"]["code_first"] is True
    for path in ("/api/machines", "/api/people"):
        assert browser.get(path).status_code == 403
    assert browser.get(f"/walk-arounds/{yard.walk_around.pk}/report").status_code == 404
    browser.send("/api/session/second-factor")
    browser.send("/api/session/second-factor/confirm", code=now(yard.technician))
    assert browser.get("/api/machines").status_code == 200
    assert browser.send("/api/session/second-factor/end", password=PASSWORD).status_code == 409


def test_other_devices_are_listed_and_ended(yard, as_, sign_in):
    here, _ = sign_in(yard.technician)
    there, _ = sign_in(yard.technician)
    strange, _ = sign_in(yard.lead)
    devices = here.get("/api/session/account").json()["devices"]
    assert [one["here"] for one in devices] == [False, True]
    theirs = strange.get("/api/session/account").json()["devices"][0]["id"]
    here.send("/api/session/devices/end", ids=[theirs])
    assert strange.get("/api/machines").status_code == 200, "nobody ends somebody else's"
    assert len(here.send("/api/session/devices/end", ids=None).json()["devices"]) == 1
    assert there.get("/api/machines").status_code == 401
    assert here.get("/api/machines").status_code == 200


def test_one_names_oneself(yard, sign_in):
    browser, _ = sign_in(yard.technician)
    wrong = browser.send("/api/session/account", name="Tomas Vey", email="tomas")
    assert (wrong.status_code, wrong.json()["error"]["field"]) == (422, "email")
    browser.send("/api/session/account", name="Tomas Vey", email="tomas@sallow-bridge.invalid")
    assert browser.get("/api/session").json()["me"]["name"] == "Tomas Vey"
