"""Signing in."""

import pytest
from django.core.management import CommandError, call_command

from shops.models import Shop


@pytest.fixture
def sign_in(as_):
    browser = as_()

    def attempt(username, password):
        return browser.send("/api/session/login", username=username, password=password)

    return attempt


def test_the_right_password_opens_the_shop(yard, sign_in, password):
    me = sign_in("technician", password).json()["me"]
    assert (me["shop"], me["roles"], me["units"]) == ("Sallow Bridge", ["technician"], "mm")


def test_passwords_are_kept_as_argon2(yard):
    assert yard.technician.user.password.startswith("argon2")


@pytest.mark.parametrize(("username", "typed"), [("technician", "wrong"), ("nobody", None), ("", "")])
def test_a_wrong_pair_is_refused_without_saying_which_half(username, typed, yard, sign_in, password):
    response = sign_in(username, password if typed is None else typed)
    assert response.status_code == 422
    assert response.json()["error"]["message"] == "Name and password do not match."


def test_guessing_is_stopped_even_with_the_right_password_at_last(yard, sign_in, password):
    for _ in range(6):
        sign_in("technician", "guess")
    response = sign_in("technician", password)
    assert response.status_code == 429
    assert sign_in("lead", password).status_code == 200


def test_somebody_without_a_shop_cannot_enter(db, sign_in, django_user_model, password):
    django_user_model.objects.create_user("stray", password=password)
    assert sign_in("stray", password).status_code == 422


def test_signing_out_closes_the_door(yard, as_):
    browser = as_(yard.lead)
    assert browser.get("/api/machines").status_code == 200
    assert browser.send("/api/session/logout").json()["me"] is None
    assert browser.get("/api/machines").status_code == 401


def test_a_shop_is_made_with_its_lead(db, sign_in, monkeypatch, password):
    monkeypatch.setattr("shops.management.commands.make_shop.getpass", lambda _: password)
    call_command("make_shop", "Yard", "first")
    assert sign_in("first", password).json()["me"]["roles"] == ["lead"]
    with pytest.raises(CommandError, match="already"):
        call_command("make_shop", "Yard", "first")


def test_a_weak_password_makes_no_shop(db, monkeypatch):
    monkeypatch.setattr("shops.management.commands.make_shop.getpass", lambda _: "password")
    with pytest.raises(CommandError, match="short"):
        call_command("make_shop", "Yard", "first")
    assert not Shop.objects.exists()
