"""The real product for the browser tests: its own MariaDB, migrated and loaded with the demo, behind gunicorn."""

import json
import os
import subprocess
import time
import urllib.request
import uuid
from contextlib import closing, contextmanager
from dataclasses import dataclass, field
from getpass import getuser
from pathlib import Path

import pytest
from hands import until_planned
from MySQLdb import connect
from playwright.sync_api import expect

from testing.mail_server import MailServer

WORKER = os.environ.get("PYTEST_XDIST_WORKER", "")
"""Each worker has a product of its own: database, ports, desk."""
NAME = f"browser{WORKER}"
RUN = os.environ.get("LUMVEK_TEST_RUN") or os.environ.get("PYTEST_XDIST_TESTRUNUID") or str(uuid.uuid4())
"""The demo is loaded once a run, and copied for every worker."""
APART = 200 * (1 + int(WORKER.removeprefix("gw"))) if WORKER else 0
"""Ports of one product lie within 150 of each other."""
# A busy machine is not a fault of the product.
expect.set_options(timeout=15_000)

ROOT = Path(__file__).resolve().parent.parent
AXE = ROOT / "web/node_modules/axe-core/axe.min.js"
SETTLED = """() => document.getAnimations().every((one) =>
  one.playState !== 'running' || one.effect.getComputedTiming().endTime === Infinity)"""
"""Nothing on the page is passing over into something else."""
DRAWN = "() => new Promise((go) => requestAnimationFrame(() => requestAnimationFrame(go)))"
LOGGED_IN = {"django_session", "django_migrations"}  # what goes on from test to test
COUNTED = "$RELAXED --userstat=1"
"""The database counts what is changed in each table."""
CHROMIUM_FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


def script(*lines, **environment):
    """Run functions of scripts/database.sh on this worker's instance; returns what they print last."""
    program = "\n".join([". scripts/common.sh", ". scripts/database.sh", f"instance {NAME} test >&2", *lines])
    done = subprocess.run(
        ["bash", "-c", program], cwd=ROOT, env={**os.environ, **environment}, capture_output=True, text=True, check=True
    )
    return done.stdout.strip()


@dataclass
class Product:
    """Where it answers, and how to take its database away and bring it back."""

    url: str
    environment: dict[str, str] = field(repr=False)
    desk: Path
    mail: MailServer
    socket: str
    """Of its database, for whoever runs it."""
    _every_table: bool = False
    _kept: set[str] = field(default_factory=set)

    def stop_database(self):
        script("db_stop")

    def start_database(self):
        script(f'db_start "{COUNTED}"', LUMVEK_DB_PORT=self.environment["LUMVEK_DB_PORT"])
        self._every_table = True  # it counts anew

    def ask_database(self, statement):
        return script(f'sql lumvek -e "{statement}"')

    def ordered(self):
        """What the suppliers' desk has on its books."""
        return json.loads(self.desk.read_text()) if self.desk.exists() else {}

    def keep_demo(self):
        """Lay the loaded demo aside, so that every test can have it as it was."""
        with self._tables() as cursor:
            cursor.execute("SHOW TABLES")
            self._copy(cursor, [name for (name,) in cursor.fetchall()], "demo")
            cursor.execute("FLUSH TABLE_STATISTICS")

    def restore_demo(self):
        """Every table in which something was changed since, as it was."""
        with self._tables() as cursor:
            cursor.execute("SELECT table_name FROM information_schema.tables WHERE table_schema = 'demo'")
            every = [name for (name,) in cursor.fetchall()]
            for table in every if self._every_table else self._changed(cursor):
                self._fill(cursor, "lumvek", table, "demo")
            cursor.execute("FLUSH TABLE_STATISTICS")
        self._every_table = False

    def keep_changes(self, name):
        """Lay what has changed in the demo aside, under a name."""
        with self._tables() as cursor:
            self._copy(cursor, self._changed(cursor), name)
        self._kept.add(name)

    def restore_changes(self, name):
        """Make the same changes to the demo again, if they were ever kept; returns whether."""
        if name not in self._kept:
            return False
        with self._tables() as cursor:
            cursor.execute("SELECT table_name FROM information_schema.tables WHERE table_schema = %s", [name])
            for (table,) in cursor.fetchall():
                self._fill(cursor, "lumvek", table, name)
        return True

    @contextmanager
    def _tables(self):
        """What is done with them is done in one transaction."""
        with closing(connect(unix_socket=self.socket, user=getuser(), database="lumvek")) as connection:
            cursor = connection.cursor()
            cursor.execute("SET FOREIGN_KEY_CHECKS = 0")
            yield cursor
            connection.commit()

    def _changed(self, cursor):
        cursor.execute(
            "SELECT table_name FROM information_schema.table_statistics WHERE table_schema = 'lumvek' AND rows_changed > 0"
        )
        return [name for (name,) in cursor.fetchall() if name not in LOGGED_IN]

    def _copy(self, cursor, tables, database):
        cursor.execute(f"CREATE DATABASE {database}")
        for table in tables:
            if table not in LOGGED_IN:
                cursor.execute(f"CREATE TABLE {database}.{table} LIKE lumvek.{table}")
                self._fill(cursor, database, table, "lumvek")

    def _fill(self, cursor, database, table, source):
        cursor.execute(f"DELETE FROM {database}.{table}")
        cursor.execute(f"INSERT INTO {database}.{table} SELECT * FROM {source}.{table}")


@pytest.fixture(scope="session")
def mail_server():
    """Where the product's letters go."""
    with MailServer() as server:
        yield server


@pytest.fixture(scope="session")
def product(mail_server):
    """One product for all browser tests; each test makes the walk-around it needs."""
    script("db_stop", f"demo_lay {RUN} >&2", "demo_copy")
    port, socket, password, key = script(
        f'{{ db_start "{COUNTED}"',
        "db_allow lumvek; } >&2",
        'echo "$LUMVEK_DB_PORT $SOCKET $LUMVEK_DB_PASSWORD $LUMVEK_SECRET_KEY"',
        LUMVEK_DB_PORT=str(8621 + APART),
    ).split()
    address, desk_port = script(f"free_port {8721 + APART}"), script(f"free_port {8771 + APART}")
    environment = {
        **os.environ,
        "LUMVEK_MODE": "test",
        "LUMVEK_DB_NAME": "lumvek",
        "LUMVEK_DB_USER": "lumvek",
        "LUMVEK_DB_HOST": "127.0.0.1",
        "LUMVEK_DB_PORT": port,
        "LUMVEK_DB_PASSWORD": password,
        "LUMVEK_SECRET_KEY": key,
        "LUMVEK_EMAIL_HOST": "127.0.0.1",
        "LUMVEK_EMAIL_PORT": str(mail_server.port),
        "LUMVEK_EMAIL_TLS": "none",
        "LUMVEK_EMAIL_TIMEOUT": "3",
        "LUMVEK_DESK_URL": f"http://127.0.0.1:{desk_port}",
        "LUMVEK_TELEMATICS_URL": f"http://127.0.0.1:{desk_port}/telematics",
        "LUMVEK_FORECAST_URL": f"http://127.0.0.1:{desk_port}/forecast",
        "PYTHONPATH": "core:server",
    }
    orders = ROOT / f".lumvek/{NAME}-desk.json"
    orders.unlink(missing_ok=True)
    desk = subprocess.Popen(
        [".venv/bin/python", "server/manage.py", "supplier_desk", "--port", desk_port, "--state", str(orders)],
        cwd=ROOT, env=environment,
    )  # fmt: skip
    log = (ROOT / f".lumvek/logs/{NAME}-server.log").open("w")
    server = subprocess.Popen(
        [".venv/bin/gunicorn", "--config", "server/gunicorn.conf.py", "--bind", f"127.0.0.1:{address}", "--workers", "1"],
        cwd=ROOT, env=environment, stdout=log, stderr=subprocess.STDOUT,
    )  # fmt: skip
    url = f"http://127.0.0.1:{address}"
    try:
        wait_for(url + "/health")
        wait_for(environment["LUMVEK_DESK_URL"] + "/health")
        product = Product(url, environment, orders, mail_server, socket)
        product.keep_demo()
        yield product
    finally:
        desk.terminate()
        server.terminate()
        server.wait(40)  # longer than what is under way may take there
        script("db_stop")


def wait_for(url):
    for _ in range(200):
        try:
            urllib.request.urlopen(url)
        except OSError:
            time.sleep(0.1)
        else:
            return
    raise RuntimeError(f"{url} does not answer; its log in .lumvek/logs says why")


@pytest.fixture(autouse=True)
def as_loaded(request):
    """Every test that uses the product begins with the demo as it was loaded, and with a mail server that takes letters."""
    if "product" in request.fixturenames:
        product = request.getfixturevalue("product")
        product.restore_demo()
        product.mail.mode, product.mail.letters = "takes", []


@pytest.fixture(scope="session")
def base_url(product):
    return product.url


@pytest.fixture(scope="session")
def browser_type_launch_args():
    return {"executable_path": "/usr/bin/chromium-headless-shell", "args": CHROMIUM_FLAGS}


@pytest.fixture(scope="session")
def browser_context_args(base_url):
    # Each context would lay the whole product on its device; what is about that makes a context of its own.
    return {"base_url": base_url, "viewport": {"width": 1280, "height": 800}, "service_workers": "block"}


@pytest.fixture
def page(page):
    """A page that fails its test when the browser complains."""
    complaints = []
    page.on("pageerror", lambda error: complaints.append(str(error)))
    page.on(
        "console",
        lambda message: (
            complaints.append(message.text)
            if message.type == "error" and "Failed to load resource" not in message.text
            else None
        ),
    )
    page.set_default_timeout(15_000)
    yield page
    assert complaints == []


@pytest.fixture
def quiet(page):
    """Until nothing is on its way, and what came is drawn."""
    asked = set()
    page.on("request", lambda one: asked.add(one))
    page.on("requestfinished", lambda one: asked.discard(one))
    page.on("requestfailed", lambda one: asked.discard(one))

    def waited():
        for _ in range(1500):
            if not asked:
                page.evaluate(DRAWN)
                if not asked:
                    return
            page.wait_for_timeout(10)
        raise AssertionError(f"still on their way: {[one.url for one in asked]}")

    return waited


@pytest.fixture(scope="session")
def sessions():
    """Cookies of the members who have logged in already."""
    return {}


@pytest.fixture
def sign_in(page, sessions):
    """As a member of the demo, by keyboard the first time, later with the cookies of that time; then `at` a screen, or at none that
    is loaded for nothing."""

    def entered(name="tomas", at="/", on=page):
        if name in sessions:
            on.context.add_cookies(sessions[name])
        else:
            typed_in(name, on)
            at = None if at == "/" else at  # that is where it leads
        if at is not None:
            on.goto(at)
        if at == "/":
            on.get_by_role("heading", name="Machines").wait_for()

    def typed_in(name, on):
        on.goto("/sign-in")
        on.get_by_label("Name").wait_for()
        on.keyboard.type(name)
        on.keyboard.press("Tab")
        on.keyboard.type("sallow-bridge")
        on.keyboard.press("Enter")
        on.get_by_role("heading", name="Machines").wait_for()
        sessions[name] = on.context.cookies()

    return entered


@pytest.fixture
def planned(page, sign_in):
    """The demo's season, as it was planned when it was loaded, before its lead."""
    sign_in("ada", at="/plan")
    until_planned(page)
    return page


@pytest.fixture
def accessible():
    """Scan what is on screen with axe against WCAG A and AA; with `rules`, by these alone."""

    def scanned(page, rules=()):
        page.wait_for_function(SETTLED)  # colours pass over into each other
        if not page.evaluate("() => Boolean(window.axe)"):
            page.evaluate(AXE.read_text())
        levels = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
        only = {"type": "rule", "values": list(rules)} if rules else {"type": "tag", "values": levels}
        found = page.evaluate("only => axe.run(document, {runOnly: only, resultTypes: ['violations']})", only)
        problems = [f"{v['id']}: {v['help']} – {[n['html'][:140] for n in v['nodes'][:3]]}" for v in found["violations"]]
        assert problems == []

    return scanned
