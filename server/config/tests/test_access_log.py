"""No secret of a link reaches a log."""

import datetime as dt
from types import SimpleNamespace

import pytest
from gunicorn.config import Config

from config.access_log import Discreet, discreet


@pytest.mark.parametrize(
    ("asked", "kept"),
    [
        ("GET /shared/Zq7pV0eK4sW9 HTTP/1.1", "GET /shared/… HTTP/1.1"),
        ("GET /shared/Zq7pV0eK4sW9/photos/1a HTTP/1.1", "GET /shared/…/photos/1a HTTP/1.1"),
        ("GET /join/abc?x=1 HTTP/1.1", "GET /join/…?x=1 HTTP/1.1"),
        ("GET /new-password/MQ/c5x-1f HTTP/1.1", "GET /new-password/MQ/… HTTP/1.1"),
        ("POST /api/session/invitation/abc HTTP/1.1", "POST /api/session/invitation/… HTTP/1.1"),
        ("GET /machines/3 HTTP/1.1", "GET /machines/3 HTTP/1.1"),
    ],
)
def test_a_secret_is_left_out(asked, kept):
    assert discreet(asked) == kept


def test_also_where_somebody_came_from():
    environ = {
        "REQUEST_METHOD": "GET", "RAW_URI": "/static/a.js", "SERVER_PROTOCOL": "HTTP/1.1", "PATH_INFO": "/static/a.js",
        "HTTP_REFERER": "https://shop.example/join/Zq7pV0eK4sW9", "wsgi.input": None,
    }  # fmt: skip
    answer = SimpleNamespace(status="200 OK", headers=[], sent=1, response_length=1)
    request = SimpleNamespace(headers=[])
    atoms = Discreet(Config()).atoms(answer, request, environ, dt.timedelta(seconds=1))
    line = Config().access_log_format % {**dict.fromkeys("hlutrsbfa", "-"), **atoms}
    assert "Zq7pV0eK4sW9" not in line and "/join/…" in line
