"""What everybody comes through: sizes, tokens, addresses, locks; each refusal in the one shape."""

import json
import logging
import uuid
from wsgiref.util import setup_testing_defaults

import pytest
from django.core.exceptions import ImproperlyConfigured
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client, RequestFactory
from django.utils.module_loading import import_string
from PIL import Image, ImageFile

from config import settings as configured
from config.api import api
from config.client_address import of_stated_proxies
from config.sizes import LARGEST_BODY, LARGEST_FILE
from demo.pictures import drawn
from lumvek_core.errors import BadInput
from shops import pictures
from testing.yard import PASSWORD

TOKEN = "/api/session"
LOGIN = "/api/session/login"


def shaped(answer, status):
    assert answer.status_code == status, answer.content
    error = answer.json()["error"]
    assert set(error) == {"field", "message"} and error["message"]
    return error["message"]


@pytest.fixture
def strict(db):
    """A browser whose writes want their token."""
    return Client(enforce_csrf_checks=True)


def test_logging_in_wants_the_token_of_our_own_page(strict, yard):
    body = json.dumps({"username": yard.lead.user.username, "password": PASSWORD})
    assert "own page" in shaped(strict.post(LOGIN, body, content_type="application/json"), 403)
    token = strict.get(TOKEN).json()["csrf"]
    assert strict.post(LOGIN, body, content_type="application/json", headers={"X-CSRFToken": token}).status_code == 200


def test_a_form_of_somebody_elses_page_logs_nobody_in(yard):
    browser = Client()
    answer = browser.post(LOGIN, {"username": yard.lead.user.username, "password": PASSWORD})
    shaped(answer, 400)
    body = json.dumps({"username": yard.lead.user.username, "password": PASSWORD})
    shaped(browser.post(LOGIN, body, content_type="text/plain"), 400)
    assert browser.get(TOKEN).json()["me"] is None


def test_a_write_without_its_token_is_refused_in_the_same_shape(strict, yard):
    strict.force_login(yard.lead.user)
    shaped(strict.post("/api/session/logout", b"{}", content_type="application/json"), 403)


def test_what_is_not_there_is_said_in_the_same_shape(db, as_, yard):
    shaped(as_(yard.lead).get("/api/machines/999999999999999999999999999999"), 404)


@pytest.mark.parametrize("length", [str(LARGEST_BODY + 1), "9" * 40, "-1", "many"])
def test_what_says_that_it_is_too_large_is_refused_before_it_is_read(as_, yard, length):
    class Unread:
        def read(self, *_):
            pytest.fail("it was read")

        readline = read

    request = {"CONTENT_LENGTH": length, "wsgi.input": Unread()}
    shaped(as_(yard.lead).generic("POST", "/api/session/logout", b"", "application/json", **request), 413)


def test_a_file_may_be_larger_but_not_without_end(as_, yard):
    path = f"/api/machines/{yard.machine.pk}/pictures"
    big = SimpleUploadedFile("a.jpg", b"\0" * (LARGEST_FILE + 1))
    shaped(as_(yard.lead).post(path, {"uuid": str(uuid.uuid4()), "photo": big}), 413)


@pytest.mark.parametrize("body", [b"{", b"[]", b"null", b'"x"', b"[NaN]", b"\xff", b"[" * 5000])
def test_what_is_no_json_is_said(as_, yard, body):
    answer = as_(yard.lead).post("/api/session/preferences", body, content_type="application/json")
    assert answer.status_code in (400, 422)
    shaped(answer, answer.status_code)


def test_control_characters_are_dropped_at_the_door(as_, yard):
    body = {"name": "Sallow\u0000 Bridge\ud800", "address": "", "second_factor": False}
    answer = as_(yard.lead).post("/api/shop", json.dumps(body), content_type="application/json")
    assert answer.json()["name"] == "Sallow Bridge"


# Addresses


def seen_as(came, **said):
    request = RequestFactory().get("/", REMOTE_ADDR=came, **said)
    of_stated_proxies(lambda request: request)(request)
    return request


def test_a_stated_proxy_is_believed_and_nobody_else(settings):
    settings.PROXIES = frozenset({"127.0.0.1", "10.0.0.2"})
    said = "198.51.100.7, 203.0.113.9"
    assert seen_as("127.0.0.1", HTTP_X_FORWARDED_FOR=said).META["REMOTE_ADDR"] == "203.0.113.9"
    assert seen_as("127.0.0.1", HTTP_X_FORWARDED_FOR=f"{said}, 10.0.0.2").META["REMOTE_ADDR"] == "203.0.113.9"
    stranger = seen_as("198.51.100.7", HTTP_X_FORWARDED_FOR="127.0.0.1", HTTP_X_FORWARDED_PROTO="https")
    assert stranger.META["REMOTE_ADDR"] == "198.51.100.7"
    assert "HTTP_X_FORWARDED_FOR" not in stranger.META and "HTTP_X_FORWARDED_PROTO" not in stranger.META
    assert seen_as("127.0.0.1").META["REMOTE_ADDR"] == "127.0.0.1"


def wrong(name, address, times=1):
    for _ in range(times):
        answer = Client(REMOTE_ADDR=address).post(
            LOGIN, json.dumps({"username": name, "password": "not this"}), content_type="application/json"
        )
    return answer


def test_a_stranger_locks_himself_out_and_not_the_lead(yard):
    name = yard.lead.user.username
    assert "again" in shaped(wrong(name, "198.51.100.7", 7), 429)
    right = json.dumps({"username": name, "password": PASSWORD})
    there = Client(REMOTE_ADDR="203.0.113.9")
    assert there.post(LOGIN, right, content_type="application/json").status_code == 200


# Secrets


@pytest.mark.parametrize("secret", ["a" * 50, "abc" * 20, "demo-" + "x" * 60])
def test_a_secret_that_is_guessed_is_none(secret):
    assert configured.bits_in(secret) < 128


def test_a_drawn_secret_is_one():
    assert configured.bits_in("Zq7pV0eK4sW9xT2mB6nC1yR8uJ3fH5gLdAoXiQwE") > 128


def test_a_number_in_the_environment_is_one(monkeypatch):
    monkeypatch.setenv("LUMVEK_EMAIL_PORT", "587x")
    with pytest.raises(ImproperlyConfigured, match="whole number"):
        configured.number("LUMVEK_EMAIL_PORT", 25)


# Pictures


def test_a_truncated_picture_is_refused_also_after_somebody_allowed_them(monkeypatch):
    whole = drawn("loose")
    monkeypatch.setattr(ImageFile, "LOAD_TRUNCATED_IMAGES", True)
    with pytest.raises(BadInput, match="is not a picture"):
        pictures.clean(whole[: len(whole) // 2])
    pictures.clean(whole)


def test_what_is_broken_beside_a_picture_does_no_harm(tmp_path):
    broken = b"Exif\0\0II*\0\x08\0\0\0\x03\0" + b"\x12\x01\x03\0\xff\xff\xff\xff\xff\xff\xff\xff" * 3
    Image.new("RGB", (40, 30), "grey").save(tmp_path / "a.jpg", exif=broken)
    data = (tmp_path / "a.jpg").read_bytes()
    assert pictures.clean(data)[1:] == (40, 30)


# Lengths


def endless(schema, place, schemas, seen=()):
    """Texts of a body that have no greatest length, by their place. A calculator's figures are held to limits of their own."""
    if "$ref" in schema:
        name = schema["$ref"].rpartition("/")[2]
        if not name.startswith("Calc") and name not in seen:
            yield from endless(schemas[name], name, schemas, (*seen, name))
        return
    for inner in (*schema.get("anyOf", ()), *schema.get("allOf", ()), *filter(None, [schema.get("items")])):
        yield from endless(inner, place, schemas, seen)
    for name, inner in schema.get("properties", {}).items():
        yield from endless(inner, f"{place}.{name}", schemas, seen)
    if isinstance(schema.get("additionalProperties"), dict):
        yield from endless(schema["additionalProperties"], place, schemas, seen)
    if schema.get("type") == "string" and not {"maxLength", "enum", "const", "format"} & set(schema):
        yield place


def test_everything_that_is_typed_has_a_length_that_its_field_can_show():
    described = api.interface
    found = {
        place
        for methods in described["paths"].values()
        for operation in methods.values()
        for content in operation.get("requestBody", {}).get("content", {}).values()
        for place in endless(content["schema"], operation["operationId"], described["components"]["schemas"])
    }
    assert sorted(found) == []


def served(path, **asked):
    """What an address is served with by the whole application, static files and all."""
    from config.wsgi import application

    environ: dict = {}
    setup_testing_defaults(environ)
    environ |= {"PATH_INFO": path, "HTTP_HOST": "127.0.0.1", **asked}
    said: dict = {}
    body = application(environ, lambda status, headers, *_: said.update(status=status, **dict(headers)))
    getattr(body, "close", lambda: None)()
    assert said["status"].startswith("200")
    return said


@pytest.mark.parametrize("path", ["/static/index.html", "/static/lumvek.svg", "/static/worker.js", "/"])
def test_whatever_is_served_says_that_it_stands_in_nobodys_frame(db, path):
    said = served(path)
    assert "frame-ancestors 'none'" in said["Content-Security-Policy"]
    assert (said["X-Frame-Options"], said["X-Content-Type-Options"]) == ("DENY", "nosniff")


@pytest.mark.parametrize(("can", "sent"), [("gzip, deflate, br, zstd", "br"), ("gzip", "gzip"), ("identity", None)])
def test_scripts_and_styles_go_out_packed_to_whoever_can_unpack_them(can, sent, db, settings):
    files = [one for one in (settings.WEB_DIST / "assets").iterdir() if one.suffix in (".js", ".css")]
    assert len(files) > 50
    for file in [*files[:20], settings.WEB_DIST / "worker.js"]:
        path = f"/static/{file.relative_to(settings.WEB_DIST)}"
        said = served(path, HTTP_ACCEPT_ENCODING=can)
        small = file.stat().st_size < 200  # packing makes some of these larger: they go as they are
        assert said.get("Content-Encoding") == sent or small, path
        assert int(said["Content-Length"]) <= file.stat().st_size and said.get("Vary", "Accept-Encoding") == "Accept-Encoding"


def test_the_worker_that_keeps_the_product_on_a_device_may_ask_this_server_and_nobody_else(db):
    said = served("/static/worker.js")
    policy = dict(part.strip().split(" ", 1) for part in said["Content-Security-Policy"].split(";"))
    assert policy == {"default-src": "'none'", "script-src": "'self'", "connect-src": "'self'", "frame-ancestors": "'none'"}
    assert said["Service-Worker-Allowed"] == "/"
    assert "immutable" not in said["Cache-Control"]


@pytest.mark.parametrize("path", ["/api/openapi.json", "/api/rules"])
def test_what_is_for_those_who_work_here_is_not_for_owners_nor_strangers(yard, as_, path):
    answers = {role: as_(getattr(yard, role)).get(path).status_code for role in ("lead", "technician", "parts", "owner")}
    assert answers == {"lead": 200, "technician": 200, "parts": 200, "owner": 403}
    assert as_().get(path).status_code == 401


def test_a_form_that_breaks_off_is_refused_in_the_apis_own_shape(yard, as_):
    broken = as_(yard.lead).post("/api/shop/mark", b"--x\r\nContent", content_type="multipart/form-data; boundary=")
    assert (broken.status_code, broken.json()["error"]["message"]) == (400, "What was sent cannot be read.")


def test_the_products_own_log_has_no_address_that_opens_a_door(settings):
    record = logging.LogRecord("django.request", logging.WARNING, "", 0, "%s: %s", ("Not Found", "/shared/s3cret/photos"), None)
    (name,) = settings.LOGGING["root"]["handlers"]
    (filtered,) = settings.LOGGING["handlers"][name]["filters"]
    assert import_string(settings.LOGGING["filters"][filtered]["()"])().filter(record)
    assert record.getMessage() == "Not Found: /shared/…/photos"


def test_nothing_of_an_answer_is_kept_by_a_browser_unless_it_says_so(yard, as_):
    assert as_(yard.lead).get("/api/machines").headers["Cache-Control"] == "no-store"
    assert as_().get("/sign-in").headers["Cache-Control"] == "no-cache"
