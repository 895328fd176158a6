"""Before it serves: what is missing is said, with how to put it right."""

import pytest
from django.db import connection

from keeping import readiness

pytestmark = pytest.mark.django_db


@pytest.fixture
def points(settings, tmp_path, monkeypatch):
    """The points by name, of an installation where all is well but for what is set otherwise."""
    settings.ALLOWED_HOSTS, settings.PROXIES = ["shop.invalid"], frozenset({"127.0.0.1"})
    settings.SECURE, settings.MAILS, settings.DESK_URL, settings.TELEMATICS_URL = True, False, "", ""
    settings.FORECAST_URL = ""
    monkeypatch.setenv("LUMVEK_BACKUPS", str(tmp_path / "backups"))
    return lambda: {one.what: one for one in readiness.points()}


def test_where_all_is_well_it_can_serve(points, settings, tmp_path):
    settings.WEB_DIST = tmp_path
    (tmp_path / "index.html").write_text("<p>")
    lines = []
    with connection.cursor() as cursor:
        cursor.execute("SELECT @@innodb_flush_log_at_trx_commit")
        durable = cursor.fetchone()[0] == 1
    points()
    assert readiness.told(lines.append) == durable, "tests run on a database that is in no hurry to write"
    assert any("MariaDB" in line and "ok" in line for line in lines)


@pytest.mark.parametrize(
    ("name", "value", "what", "words"),
    [
        ("ALLOWED_HOSTS", ["*"], "Names", "must not be *"),
        ("PROXIES", frozenset(), "Proxy", "names no proxy"),
        ("CSRF_TRUSTED_ORIGINS", ["shop.invalid"], "Origins", "https://shop.invalid"),
        ("DESK_URL", "http://127.0.0.1:9", "The suppliers’ desk", "does not answer"),
        ("TELEMATICS_URL", "http://127.0.0.1:9", "The machines’ modems", "does not answer"),
        ("FORECAST_URL", "http://127.0.0.1:9/forecast", "The weather forecast", "does not answer"),
    ],
)
def test_what_is_missing_is_said(points, settings, name, value, what, words):
    setattr(settings, name, value)
    found = points()[what]
    assert found.state == "missing" and words in found.words


def test_a_front_end_that_is_not_built_and_a_folder_that_cannot_be_written(points, settings, tmp_path, monkeypatch):
    settings.WEB_DIST = tmp_path
    assert points()["Front end"].state == "missing"
    monkeypatch.setenv("LUMVEK_BACKUPS", "/proc/none")
    monkeypatch.setattr(readiness.os, "access", lambda *_: False)
    assert points()["Backups"].state == "missing"
    monkeypatch.setattr(readiness, "LEAST_FREE", 10**18)
    assert points()["Disk"].state == "missing"


def test_a_mail_server_is_tried(points, settings, post):
    assert points()["Mail"].state == "note"
    settings.MAILS = True
    assert points()["Mail"].state == "well"
    post.mode = "silent"
    assert points()["Mail"].state == "missing"
