"""A letter counts as sent when the mail server has taken it; everything else is said in words."""

import pytest

from outside import mails
from outside.models import Line

pytestmark = pytest.mark.django_db
TO = "orders@northmere.invalid"


def send(**more):
    return mails.send(TO, "Order 1a2b", "We order:\n", {"X-Order": "1a2b"}, **more)


def test_it_goes_out(post):
    send()
    (letter,) = post.letters
    assert (letter["To"], letter["Subject"], letter["X-Order"]) == (TO, "Order 1a2b", "1a2b")


@pytest.mark.parametrize(
    ("mode", "raised", "words"),
    [
        ("silent", mails.NotSent, "does not answer"),
        ("knows nobody", mails.NotSent, f"does not take the address {TO}"),
        ("refuses", mails.NotSent, "does not take the letter"),
        ("breaks off", mails.Unsure, "may have gone out"),
        ("swallows", mails.Unsure, "may have gone out"),
    ],
)
def test_what_went_wrong_is_said(post, mode, raised, words):
    post.mode = mode
    with pytest.raises(raised, match=words):
        send()


def test_nobody_there_is_said(post, settings):
    settings.EMAIL_PORT = 9
    with pytest.raises(mails.NotSent, match="does not answer"):
        send()
    assert Line.objects.get().trouble == "The mail server does not answer."


def test_a_log_in_that_is_refused_is_said(post, settings):
    settings.EMAIL_HOST_USER, settings.EMAIL_HOST_PASSWORD = "ring", "linseed"
    with pytest.raises(mails.NotSent):
        send()


@pytest.mark.parametrize("address", ["", "nobody", "a@b", "a@b.invalid\nBcc: c@d.invalid", "a b@c.invalid"])
def test_what_is_no_address_is_not_tried(post, address):
    with pytest.raises(mails.NotSent, match="is no e-mail address"):
        mails.send(address, "x", "x")
    assert post.letters == []


def test_a_subject_of_two_lines_makes_no_second_header(post):
    mails.send(TO, "Order\nBcc: c@d.invalid", "x")
    assert post.letters[0]["Bcc"] is None and post.letters[0]["Subject"] == "Order Bcc: c@d.invalid"


def test_an_address_that_is_refused_is_no_fault_of_the_line(post):
    post.mode = "knows nobody"
    for _ in range(4):
        with pytest.raises(mails.NotSent, match="address"):
            send()
    post.mode = "takes"
    send()


def test_reaching_it_without_a_letter(post):
    mails.log_in()
    mails.tried()
    assert Line.objects.get(name="mail").trouble == "" and post.letters == []
    post.mode = "silent"
    with pytest.raises(mails.NotSent):
        mails.log_in()
    mails.tried()
    assert Line.objects.get(name="mail").trouble == "The mail server does not answer."
