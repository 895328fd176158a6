"""Behind the proxy that docs/deploy/ ships: slow and half-sent requests hold nobody up, who came is known, no secret is written
down."""

import contextlib
import http.client
import json
import re
import socket
import ssl
import subprocess
import time
from pathlib import Path
from types import SimpleNamespace

import pytest

from conftest import APART, ROOT, script, wait_for

SITE = ROOT / "docs/deploy/nginx.conf"
UNCHECKED = ssl._create_unverified_context()
WAITS_S = 10
"""What the site gives a request to arrive."""


@pytest.fixture(scope="module")
def proxy(product, tmp_path_factory):
    """nginx with the shipped site in front of the product: proxy.port, proxy.folder."""
    folder: Path = tmp_path_factory.mktemp("proxy")
    port, plain, back = (script(f"free_port {first + APART}") for first in (8821, 8841, 8861))
    server = subprocess.Popen(
        [".venv/bin/gunicorn", "--config", "server/gunicorn.conf.py", "--bind", f"127.0.0.1:{back}", "--workers", "1"],
        cwd=ROOT, env={**product.environment, "LUMVEK_PROXIES": "127.0.0.1", "LUMVEK_ORIGINS": "https://127.0.0.1"},
        stderr=(folder / "server.log").open("w"),
    )  # fmt: skip
    names = ["-subj", "/CN=shop.example", "-keyout", str(folder / "privkey.pem"), "-out", str(folder / "fullchain.pem")]
    subprocess.run(
        ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", *names], check=True, capture_output=True
    )
    site = SITE.read_text()
    for was, now in {
        "127.0.0.1:8420": f"127.0.0.1:{back}",
        "listen 443 ssl": f"listen 127.0.0.1:{port} ssl",
        "listen 80;": f"listen 127.0.0.1:{plain};",
        "shop.example": "127.0.0.1",
        "/etc/lumvek/tls": str(folder),
        "/var/log/nginx": str(folder),
    }.items():
        assert was in site
        site = site.replace(was, now)
    temporary = "".join(f"{kind}_temp_path {folder}/{kind};" for kind in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi"))
    (folder / "nginx.conf").write_text(
        f"daemon off; pid {folder}/pid; error_log {folder}/error.log; events {{}} http {{ {temporary} {site} }}"
    )
    nginx = subprocess.Popen(["/usr/sbin/nginx", "-p", str(folder), "-c", str(folder / "nginx.conf")])
    try:
        wait_for(f"http://127.0.0.1:{back}/health")
        for _ in range(50):
            if socket.socket().connect_ex(("127.0.0.1", int(port))) == 0:
                break
            time.sleep(0.1)
        yield SimpleNamespace(port=int(port), plain=int(plain), folder=folder)
    finally:
        nginx.terminate()
        server.terminate()
        nginx.wait(10)
        server.wait(10)


def ask(proxy, path="/health", method="GET", body=None, **headers):
    line = http.client.HTTPSConnection("127.0.0.1", proxy.port, context=UNCHECKED, timeout=30)
    line.request(method, path, body, {name.replace("_", "-"): value for name, value in headers.items()})
    answer = line.getresponse()
    return answer, answer.read()


def begin(proxy, sent: bytes):
    """A connection that has sent so much and then says nothing."""
    line = UNCHECKED.wrap_socket(socket.create_connection(("127.0.0.1", proxy.port)), server_hostname="127.0.0.1")
    line.sendall(sent)
    line.settimeout(WAITS_S * 3)
    return line


def test_half_sent_requests_hold_nobody_up_and_end(proxy):
    head = b"POST /api/session/login HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\n"
    slow = [begin(proxy, head) for _ in range(20)]
    slow += [begin(proxy, head + b'Content-Length: 500\r\n\r\n{"name": "a') for _ in range(20)]
    for _ in range(5):
        answer, body = ask(proxy)
        assert (answer.status, json.loads(body)) == (200, {"database": "ready"})
    for line in slow:
        with contextlib.suppress(ConnectionResetError):  # newer ones end it so
            assert b"200 OK" not in line.recv(4096), "it ends, and not with an answer"
        line.close()


def test_what_is_too_large_is_refused_in_the_products_own_shape_before_it_is_sent_on(proxy):
    answer, body = ask(proxy, "/api/shop/mark", "POST", b"x" * (9 * 1024 * 1024), Content_Type="multipart/form-data")
    assert answer.status == 413
    assert "8 MB" in json.loads(body)["error"]["message"]


def test_everything_comes_over_tls(proxy):
    line = http.client.HTTPConnection("127.0.0.1", proxy.plain, timeout=10)
    line.request("GET", "/machines")
    answer = line.getresponse()
    assert (answer.status, answer.headers["Location"]) == (301, "https://127.0.0.1/machines")


def test_who_came_is_known_whatever_they_say(proxy):
    """Wrong passwords from one address lock it, whatever address it claims to be."""
    answer, body = ask(proxy, "/api/session")
    token = json.loads(body)["csrf"]
    cookie = re.search(r"csrftoken=[^;]+", str(answer.headers)).group()
    said = []
    for n in range(9):
        answer, _ = ask(
            proxy, "/api/session/login", "POST", json.dumps({"username": "nobody", "password": f"wrong {n} wrong"}),
            Content_Type="application/json", X_CSRFToken=token, Cookie=cookie, X_Forwarded_For=f"10.9.8.{n}",
            Origin="https://127.0.0.1",
        )  # fmt: skip
        said.append(answer.status)
    assert said[:3] == [422] * 3 and said[-1] == 429, said


def test_no_address_that_opens_a_door_is_written_down(proxy):
    for path in ("/shared/s3cretsecret", "/join/s3cretsecret", "/api/session/invitation/s3cretsecret", "/machines"):
        ask(proxy, path, Referer="https://127.0.0.1/shared/s3cretsecret")
    time.sleep(0.2)
    written = "".join(one.read_text() for one in proxy.folder.glob("*.log"))
    assert "/machines" in written
    assert "s3cret" not in written


def test_idle_connections_are_closed_by_the_proxy_and_not_under_a_write():
    """Where the product closes first, it may do so just as the proxy sends a write on it."""
    proxy_keeps = int(re.search(r"keepalive_timeout (\d+)s;", SITE.read_text())[1])
    product_keeps = int(re.search(r"keepalive = (\d+)", (ROOT / "server/gunicorn.conf.py").read_text())[1])
    assert product_keeps >= proxy_keeps + 10


def test_a_connection_outlives_a_pause(product):
    line = http.client.HTTPConnection(product.url.removeprefix("http://"), timeout=30)
    for _ in range(2):
        line.request("GET", "/health")
        assert line.getresponse().read() == b'{"database": "ready"}'
        kept = line.sock
        time.sleep(4)  # gunicorn's own measure is two
        assert line.sock is kept is not None


def test_the_secret_of_a_calendar_is_not_written_down(proxy):
    ask(proxy, "/plan/feed/0123456789abcdef.ics")
    ask(proxy, "/health?after")
    for _ in range(50):
        written = "".join(one.read_text() for one in proxy.folder.glob("*.log"))
        if "/health?after" in written:
            break
        time.sleep(0.1)
    assert "/health?after" in written and "0123456789abcdef" not in written


def test_who_does_not_hang_up_holds_nobody_up(product):
    """Each of them would stop the loop that takes new connections for two seconds."""
    address = product.url.removeprefix("http://").split(":")
    left_open = []
    for _ in range(40):
        line = socket.create_connection((address[0], int(address[1])))
        line.sendall(b"GET /health HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n")
        left_open.append(line)
    line = http.client.HTTPConnection(*address, timeout=20)
    line.request("GET", "/health")
    assert line.getresponse().status == 200
    for line in left_open:
        assert line.recv(12) == b"HTTP/1.1 200"
        line.close()
