"""Devices under torture: each sends the same until the server has answered for it, and writes down what was acknowledged."""

import collections
import json
import re
import struct
import threading
import time
import zlib
from http.client import HTTPConnection, HTTPException

from torture_product import Line

PASSWORD = "sallow-bridge"
PASSING = {0, 401, 403, 429, 500, 502, 503, 504}
"""Answers after which a device sends the same again, as the product's own outbox does; a 500 is counted as a fault of ours."""


class Ledger:
    """What was sent and what was acknowledged, by kind and UUID."""

    def __init__(self) -> None:
        self.sent: dict[str, set[str]] = collections.defaultdict(set)
        self.acknowledged: dict[str, set[str]] = collections.defaultdict(set)
        self.refused: list[str] = []
        self.faults_of_ours: list[str] = []
        self.tries = 0

    def count(self) -> int:
        """Writes of every kind that were acknowledged."""
        return sum(map(len, self.acknowledged.values()))


class Device:
    """Somebody's device: it sends the same until the server has answered for it."""

    def __init__(self, line: Line, ledger: Ledger, name: str, over: threading.Event) -> None:
        self.line, self.ledger, self.name, self.over = line, ledger, name, over
        self.cookies: dict[str, str] = {}
        self.token = ""

    def ask(self, method: str, path: str, body: bytes = b"", kind: str = "application/json") -> tuple[int, bytes]:
        headers = {
            "Content-Type": kind,
            "X-CSRFToken": self.token,
            "Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()),
        }
        way = HTTPConnection("127.0.0.1", self.line.port, timeout=15)
        try:
            way.request(method, path, body, headers)
            answer = way.getresponse()
            content = answer.read()
            for name, value in re.findall(r"(?:^|\n)Set-Cookie: (\w+)=([^;]*)", str(answer.headers), re.I):
                self.cookies[name] = value
            return answer.status, content
        except (OSError, HTTPException):
            return 0, b""
        finally:
            way.close()

    def sign_in(self) -> None:
        while True:
            status, content = self.ask("GET", "/api/session")
            if status == 200:
                self.token = json.loads(content)["csrf"]
                status, content = self.ask(
                    "POST", "/api/session/login", json.dumps({"username": self.name, "password": PASSWORD}).encode()
                )
                if status == 200:
                    self.token = json.loads(content)["csrf"]
                    return
            time.sleep(0.3)

    def get(self, path: str):
        while True:
            status, content = self.ask("GET", path)
            if status == 200:
                return json.loads(content)
            if status in (401, 403):
                self.sign_in()
            time.sleep(0.2)

    def write(
        self, what: str, path: str, body: bytes, *keys: str, kind: str = "application/json", rightly: int | None = None
    ) -> bool:
        """Until it is acknowledged or refused; also after the torture is over, as an outbox does. keys: UUIDs of what is in it;
        rightly: the status of a refusal that may be."""
        self.ledger.sent[what].update(keys)
        while True:
            self.ledger.tries += 1
            status, content = self.ask("POST", path, body, kind)
            if 200 <= status < 300:
                self.ledger.acknowledged[what].update(keys)
                return True
            if status == 500:
                self.ledger.faults_of_ours.append(f"{what}: {content[:200]!r}")
            if status == rightly:
                return False
            if status not in PASSING:
                self.ledger.refused.append(f"{what} {status}: {content[:200]!r}")
                return False
            if status in (401, 403):
                self.sign_in()
            time.sleep(0.1)

    def send(self, what: str, path: str, **body) -> bool:
        return self.write(what, path, json.dumps(body).encode(), str(body.get("uuid", "")))

    def send_together(self, what: str, path: str, field: str, bodies: list[dict]) -> bool:
        return self.write(what, path, json.dumps({field: bodies}).encode(), *(body["uuid"] for body in bodies))


def picture() -> bytes:
    """A small PNG."""
    row = b"\0" + b"\x80\x60\x40" * 32
    parts = [(b"IHDR", struct.pack(">IIBBBBB", 32, 32, 8, 2, 0, 0, 0)), (b"IDAT", zlib.compress(row * 32)), (b"IEND", b"")]
    whole = [struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data)) for kind, data in parts]
    return b"\x89PNG\r\n\x1a\n" + b"".join(whole)


def form(fields: dict[str, str], photo: bytes) -> bytes:
    parts = [
        f'--x\r\nContent-Disposition: form-data; name="{name}"\r\n\r\n{value}\r\n'.encode() for name, value in fields.items()
    ]
    head = b'--x\r\nContent-Disposition: form-data; name="photo"; filename="p.png"\r\nContent-Type: image/png\r\n\r\n'
    return b"".join(parts) + head + photo + b"\r\n--x--\r\n"
