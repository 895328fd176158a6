"""An empty installation and its first shop."""

import pytest
from django.core.management import call_command

from shops.models import Change, Member, SetUpKey, Shop

FIRST = {"shop": "Sallow Bridge", "username": "ada", "name": "Ada Quill", "password": "linseed-and-lupins"}


@pytest.fixture
def secret(db, capsys):
    call_command("set_up_key")
    return capsys.readouterr().out.strip()


def test_who_reads_the_log_founds_the_shop_and_leads_it(secret, as_):
    browser = as_()
    assert browser.get("/api/session").json()["to_found"] is True
    me = browser.send("/api/session/found", secret=f" {secret.upper()} ", **FIRST).json()["me"]
    assert (me["name"], me["roles"], me["shop"], me["begun"]) == ("Ada Quill", ["lead"], "Sallow Bridge", False)
    assert browser.get("/api/machines").json()["machines"] == []
    assert as_().get("/api/session").json()["to_found"] is False
    assert Change.objects.get().after == "founded"


def test_it_happens_once(secret, as_):
    assert as_().send("/api/session/found", secret=secret, **FIRST).status_code == 200
    again = as_().send("/api/session/found", secret=secret, **FIRST | {"username": "bram"})
    assert again.status_code == 409
    assert Member.objects.count() == 1


def test_nobody_guesses_it(secret, as_):
    answer = as_().send("/api/session/found", secret="aaaa-aaaa-aaaa-aaaa", **FIRST)
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, "secret")
    assert not Shop.objects.exists()


def test_a_new_start_prints_a_new_one(secret, as_, capsys):
    call_command("set_up_key")
    newer = capsys.readouterr().out.strip()
    assert newer != secret
    assert as_().send("/api/session/found", secret=secret, **FIRST).status_code == 422
    assert as_().send("/api/session/found", secret=newer, **FIRST).status_code == 200


@pytest.mark.parametrize("field", ["shop", "username", "name", "password"])
def test_what_is_missing_is_said_at_its_field_and_the_secret_stays_good(field, secret, as_):
    answer = as_().send("/api/session/found", secret=secret, **FIRST | {field: ""})
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, field)
    assert not Shop.objects.exists()
    assert as_().send("/api/session/found", secret=secret, **FIRST).status_code == 200


def test_where_there_is_a_shop_nothing_is_printed(yard, capsys):
    call_command("set_up_key")
    assert capsys.readouterr().out == ""
    assert not SetUpKey.objects.exists()
