"""What an installation needs to serve a shop, point by point: what is well, and what is missing with how to put it right."""

import os
import shutil
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path

import urllib3
from django.conf import settings
from django.db import DatabaseError, connection

from outside import mails

from . import upgrade

MOST_WAIT_S = 3.0
LEAST_FREE = 2 * 1024**3
"""Bytes: room for a year of pictures of a small shop, and for a backup beside them."""
OLDEST = (10, 6)


@dataclass(frozen=True)
class Point:
    """state: ``well``, ``missing`` (it cannot serve so) or ``note`` (it can, and somebody should know)."""

    what: str
    state: str
    words: str


def points() -> Iterator[Point]:
    """Everything that is looked at, in the order in which it is put right."""
    yield from _answering()
    yield from _database()
    yield _front_end()
    yield from _folders()
    yield _mail()
    yield _reached("The suppliers’ desk", settings.DESK_URL, "/health")
    yield _reached("The machines’ modems", settings.TELEMATICS_URL, "/")
    yield _reached("The weather forecast", settings.FORECAST_URL, "")


def _answering() -> Iterator[Point]:
    outside = [name for name in settings.ALLOWED_HOSTS if name not in ("127.0.0.1", "localhost")]
    if "*" in outside:
        yield Point("Names", "missing", "LUMVEK_HOSTS must not be *: name the hosts.")
    elif not outside:
        yield Point("Names", "note", "It answers on this machine alone: LUMVEK_HOSTS names no other host.")
    else:
        yield Point("Names", "well", f"It answers to {', '.join(outside)}.")
    if not settings.SECURE:
        yield Point("TLS", "note", "LUMVEK_PLAIN_HTTP is 1: passwords and cookies go over the line in the clear.")
    elif outside and not settings.PROXIES:
        yield Point("Proxy", "missing", "LUMVEK_PROXIES names no proxy: everybody would seem to come from one address.")
    else:
        yield Point("TLS", "well", "Cookies go over TLS alone.")
    wrong = [one for one in settings.CSRF_TRUSTED_ORIGINS if not one.startswith(("https://", "http://"))]
    if wrong:
        yield Point("Origins", "missing", f"LUMVEK_ORIGINS needs whole origins, such as https://{wrong[0]}.")


def _database() -> Iterator[Point]:
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT VERSION(), @@innodb_flush_log_at_trx_commit, @@character_set_database")
            version, flushes, letters = cursor.fetchone()
            cursor.execute("SHOW GRANTS")
            grants = " ".join(row[0] for row in cursor.fetchall())
    except DatabaseError as problem:
        reason = str(problem.args[-1]) if problem.args else "it does not answer"
        yield Point("Database", "missing", f"It cannot be used: {reason}")
        return
    number = tuple(int(one) for one in version.split("-")[0].split(".")[:2])
    if "MariaDB" not in version or number < OLDEST:
        yield Point("Database", "missing", f"It is {version}; MariaDB {OLDEST[0]}.{OLDEST[1]} or newer is needed.")
    else:
        yield Point("Database", "well", f"MariaDB {version.split('-')[0]} answers.")
    if flushes != 1:
        yield Point("Durability", "missing", "innodb_flush_log_at_trx_commit must be 1: what was saved could be lost.")
    if not letters.startswith("utf8mb4"):
        yield Point("Letters", "missing", f"The database is {letters}; it must be utf8mb4 (docs/deploy.md).")
    yield from _tables()
    if "ON *.* TO" in grants.replace("GRANT USAGE ON *.* TO", ""):
        yield Point("Rights", "note", "The database account may do more than it needs: give it its own database alone.")


def _tables() -> Iterator[Point]:
    match upgrade.standing():
        case upgrade.Standing.NEWER:
            yield Point("Tables", "missing", "They were changed by a newer Lumvek than this one.")
        case upgrade.Standing.BROKEN_OFF:
            yield Point("Tables", "missing", "An upgrade broke off: ./lumvek upgrade --back puts back what was there before.")
        case upgrade.Standing.OLDER:
            yield Point("Tables", "note", "The start will bring them to this version; what they hold is kept before.")


def _front_end() -> Point:
    if (settings.WEB_DIST / "index.html").is_file():
        return Point("Front end", "well", "It is built.")
    return Point("Front end", "missing", "It is not built: ./lumvek serve builds it.")


def _folders() -> Iterator[Point]:
    kept = backups_folder()
    there = next(one for one in (kept, *kept.parents) if one.exists())
    if not os.access(there, os.W_OK):
        yield Point("Backups", "missing", f"{kept} cannot be written to.")
    else:
        yield Point("Backups", "well", f"They go to {kept}.")
    free = shutil.disk_usage(there).free
    if free < LEAST_FREE:
        yield Point("Disk", "missing", f"{free // 1024**2} MB are free at {there}; {LEAST_FREE // 1024**3} GB should be.")


def backups_folder() -> Path:
    return Path(os.environ.get("LUMVEK_BACKUPS") or settings.ROOT / ".lumvek" / "backups")


def _mail() -> Point:
    if not mails.can_send():
        return Point("Mail", "note", "LUMVEK_EMAIL_HOST is not set: no letter goes out, links are given on by hand.")
    try:
        mails.log_in()
    except mails.NotSent as problem:
        return Point("Mail", "missing", f"{problem} See LUMVEK_EMAIL_… in docs/deploy.md.")
    return Point("Mail", "well", f"{settings.EMAIL_HOST or 'The folder'} takes letters.")


def _reached(what: str, address: str, path: str) -> Point:
    if not address:
        return Point(what, "note", "Not connected.")
    try:
        answer = urllib3.request("GET", address + path, timeout=MOST_WAIT_S, retries=False, redirect=False)
    except urllib3.exceptions.HTTPError:
        return Point(what, "missing", f"{address} does not answer.")
    return Point(what, "well" if answer.status < 500 else "missing", f"{address} answers with {answer.status}.")


def told(write: Callable[[str], object]) -> bool:
    """Write every point in a line. Returns whether it can serve."""
    found = list(points())
    wide = max(len(one.what) for one in found)
    marks = {"well": "ok     ", "missing": "MISSING", "note": "note   "}
    for one in found:
        write(f"  {marks[one.state]}  {one.what:<{wide}}  {one.words}")
    return all(one.state != "missing" for one in found)
