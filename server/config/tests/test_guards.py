"""Settings that refuse, headers that protect, and what is said when something is away."""

import json
import os
import subprocess
import sys
from pathlib import Path

import pytest
from django.conf import settings
from django.db import OperationalError

from config.api import api
from lumvek_core import vocabulary

ROOT = Path(__file__).resolve().parents[3]
DRAWN = "Zq7pV0eK4sW9xT2mB6nC1yR8uJ3fH5gLdAoXiQwE"
GOOD = {"LUMVEK_MODE": "serve", "LUMVEK_SECRET_KEY": DRAWN, "LUMVEK_DB_PASSWORD": "p" * 20}


def start(**environment):
    keep = {name: value for name, value in os.environ.items() if not name.startswith("LUMVEK_")}
    program = "import django; django.setup(); print('started')"
    return subprocess.run(
        [sys.executable, "-c", program],
        cwd=ROOT / "server",
        env={**keep, "DJANGO_SETTINGS_MODULE": "config.settings", **environment},
        capture_output=True,
        text=True,
        check=False,
    )


def test_serving_starts_with_its_own_secrets():
    assert "started" in start(**GOOD).stdout


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"LUMVEK_SECRET_KEY": "demo-" + "k" * 50}, "LUMVEK_SECRET_KEY is a demo secret"),
        ({"LUMVEK_DB_PASSWORD": "demo-secret"}, "LUMVEK_DB_PASSWORD is a demo secret"),
        ({"LUMVEK_SECRET_KEY": ""}, "LUMVEK_SECRET_KEY is not set"),
        ({"LUMVEK_SECRET_KEY": "short"}, "at least 40"),
        ({"LUMVEK_SECRET_KEY": "a" * 50}, "drawn at random"),
        ({"LUMVEK_MODE": "play"}, "must be serve, demo or test"),
    ],
)
def test_serving_refuses_demo_and_missing_secrets(change, said):
    done = start(**(GOOD | change))
    assert done.returncode != 0
    assert said in done.stderr


def test_scripts_and_styles_come_from_here_and_carry_a_nonce(client, db):
    response = client.get("/")
    policy = dict(part.strip().split(" ", 1) for part in response["Content-Security-Policy"].split(";"))
    assert policy["script-src"] == "'self'"
    assert "unsafe" not in response["Content-Security-Policy"]
    nonce = policy["style-src"].split("'nonce-")[1].rstrip("'")
    assert f'content="{nonce}"' in response.content.decode()
    assert response["X-Frame-Options"] == "DENY"


def test_writes_without_the_token_are_refused(yard, as_):
    browser = as_(yard.lead, enforce_csrf_checks=True)
    assert browser.send(f"/api/machines/{yard.machine.pk}/walk-arounds", id="x").status_code == 403
    token = browser.get("/api/session").json()["csrf"]
    sent = browser.post(
        "/api/session/preferences", json.dumps({"units": "in"}), content_type="application/json", headers={"X-CSRFToken": token}
    )
    assert sent.json()["me"]["units"] == "in"


def test_a_database_that_is_away_is_said_so_and_can_be_tried_again(yard, as_, monkeypatch):
    def away(*_):
        raise OperationalError(2006, "gone")

    monkeypatch.setattr("inspection.queries.board.board", away)
    response = as_(yard.lead).get("/api/machines")
    assert response.status_code == 503
    assert "kept and sent again" in response.json()["error"]["message"]


def test_a_session_that_cannot_be_read_is_the_same_case(yard, as_, monkeypatch):
    def away(*_args, **_kwargs):
        raise OperationalError(2006, "gone")

    browser = as_(yard.lead)
    browser.raise_request_exception = False
    monkeypatch.setattr("django.contrib.sessions.backends.db.SessionStore.load", away)
    assert browser.get("/api/machines").status_code == 503


def test_health(client, db):
    assert client.get("/health").json() == {"database": "ready"}


def test_the_described_api_is_the_real_one():
    """Run scripts/api_types.sh when this fails."""
    described = json.loads((settings.ROOT / "web/src/api/openapi.json").read_text())
    # From Python 3.13 on 422 has another name.
    assert described == json.loads(json.dumps(api.interface).replace("Unprocessable Content", "Unprocessable Entity"))


def test_the_typescript_types_are_made_from_it(tmp_path):
    """Run scripts/api_types.sh when this fails."""
    web = settings.ROOT / "web"
    made = tmp_path / "schema.d.ts"
    subprocess.run(
        [web / "node_modules/.bin/openapi-typescript", web / "src/api/openapi.json", "-o", made],
        check=True,
        capture_output=True,
    )
    assert made.read_text() == (web / "src/api/schema.d.ts").read_text()


def test_calculators_answer_over_http_as_on_the_command_line(yard, as_):
    browser = as_(yard.technician)
    good = browser.send("/api/calc/chain_stretch", pitch_mm=41.4, pitches=20, measured_mm=846)
    assert good.json()["stretch_pct"] == pytest.approx(2.1739, abs=5e-5)
    bad = browser.send("/api/calc/opener_contact", readings=[{"span_mm": -1, "feeler_mm": 0.1}], disc_diameter_mm=376, band={})
    assert (bad.status_code, bad.json()["error"]["field"]) == (422, "readings.0.span_mm")
    not_json = browser.post("/api/calc/wear_used", "{", content_type="application/json")
    assert (not_json.status_code, not_json.json()) == (422, {"error": {"field": "", "message": "the input is not JSON"}})
    unknown = browser.send("/api/calc/nothing")
    assert unknown.status_code == 404


def test_the_words_of_the_front_end_are_those_of_the_core():
    """Run scripts/api_types.sh when this fails."""
    assert (settings.ROOT / "web/src/api/vocabulary.ts").read_text() == vocabulary.as_typescript()
