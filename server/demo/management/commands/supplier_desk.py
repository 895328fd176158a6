"""The simulated supplier desk as a small service on loopback. What it answered is on disk before the answer goes out.

The machines' simulated telematics answer there as well, under /telematics/SERIAL, and a simulated forecast under /forecast.
"""

import datetime as dt
import json
import os
import time
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from threading import Lock
from typing import Any
from urllib.parse import parse_qs, unquote, urlsplit

from django.core.management.base import BaseCommand, CommandParser

from demo.desk_book import SHELVES
from demo.telematics_book import SENT
from lumvek_core.errors import BadInput
from lumvek_core.simulators.desk import Desk
from lumvek_core.simulators.telematics import newest
from lumvek_core.simulators.weather import dry_spells

MODES = ("normal", "slow", "deaf", "down")
SLOW_S = 20


class Command(BaseCommand):
    help = (
        "Runs the simulated supplier desk: GET /health, POST /quotes, PUT /orders/KEY, PUT /orders/KEY/rest/NUMBER, "
        "PUT /behave, GET /telematics/SERIAL, GET /forecast?from=DAY."
    )

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--port", type=int, required=True)
        parser.add_argument("--state", type=Path, required=True)

    def handle(self, **options: Any) -> None:
        serve(options["port"], options["state"]).serve_forever()


def serve(port: int, state: Path) -> ThreadingHTTPServer:
    """A server on loopback that keeps its orders in the file `state`."""
    orders = json.loads(state.read_text()) if state.exists() else {}
    desk, lock, mode = Desk(SHELVES, orders), Lock(), {"now": "normal"}

    class Handler(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            if self.path.startswith("/telematics/"):
                return self._sent(unquote(self.path.removeprefix("/telematics/")))
            if self.path.startswith("/forecast"):
                return self._forecast(parse_qs(urlsplit(self.path).query).get("from", [""])[0])
            if self.path == "/health":
                self._answer(503 if mode["now"] == "down" else 200, {"mode": mode["now"], "orders": len(desk.orders)})
            else:
                self._answer(404, {"error": "There is nothing here."})

        def _sent(self, serial: str) -> None:
            try:
                self._answer(200, newest(SENT, serial, dt.datetime.now(dt.UTC)))
            except BadInput as problem:
                self._answer(404, {"error": f"{problem.field} {problem.message}"})

        def _forecast(self, day: str) -> None:
            try:
                self._answer(200, {"dry": dry_spells(dt.date.fromisoformat(day))})
            except ValueError:
                self._answer(422, {"error": "from must be a day"})

        def do_POST(self) -> None:
            self._work()

        def do_PUT(self) -> None:
            self._work()

        def _work(self) -> None:
            try:
                body = json.loads(self.rfile.read(int(self.headers.get("Content-Length", 0))) or b"{}")
                if self.path == "/behave":
                    mode["now"] = body["mode"] if body.get("mode") in MODES else "normal"
                    return self._answer(200, {"mode": mode["now"]})
                if mode["now"] == "down":
                    return self._answer(503, {"error": "Closed for stocktaking."})
                if mode["now"] == "slow":
                    time.sleep(SLOW_S)
                with lock:
                    answer = self._do(body)
                    _keep(state, desk)
                if mode["now"] == "deaf":
                    self.close_connection = True  # the work is done, and the answer is lost on the way
                    self.connection.close()
                else:
                    self._answer(200, answer)
            except BadInput as problem:
                self._answer(422, {"error": f"{problem.field} {problem.message}"})
            except (ValueError, KeyError, TypeError):
                self._answer(422, {"error": "This cannot be read."})
            except BrokenPipeError:
                pass  # whoever asked has gone

        def _do(self, body: dict[str, Any]) -> dict[str, Any]:
            match self.path.strip("/").split("/"):
                case ["quotes"]:
                    return {"offers": desk.quote(body["supplier"], body["numbers"])}
                case ["orders", key]:
                    return desk.place(key, body)
                case ["orders", key, "rest", number]:
                    return desk.drop_rest(key, number)
            raise BadInput("path", "is not known")

        def _answer(self, status: int, body: dict[str, Any]) -> None:
            data = json.dumps(body).encode()
            self.send_response(status)
            self.send_header("Content-Type", "application/json")
            self.send_header("Content-Length", str(len(data)))
            self.end_headers()
            self.wfile.write(data)

        def log_message(self, format: str, *args: Any) -> None:
            pass

    return ThreadingHTTPServer(("127.0.0.1", port), Handler)


def _keep(state: Path, desk: Desk) -> None:
    aside = state.with_suffix(".new")
    aside.write_text(json.dumps(desk.orders))
    os.replace(aside, state)
