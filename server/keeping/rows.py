"""Rows of the database as lines of JSON and back: any column, to the last digit and byte."""

import base64
import datetime as dt
import json
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from decimal import Decimal
from typing import Any

from django.db import connection
from django.db.backends.utils import CursorWrapper
from MySQLdb.cursors import SSCursor

AT_ONCE = 500
UPGRADE_MARK = "lumvek_upgrade"
FORGOTTEN = frozenset(
    {"django_session", "guarding_asked", "guarding_guesses", "django_migrations", UPGRADE_MARK}
    | {"axes_accessattempt", "axes_accesslog", "axes_accessfailurelog"}  # of a version before
)
"""What is of the moment: who is signed in, who mistyped a password; when the tables were made, and how (upgrade.py)."""


def tables() -> list[str]:
    """Every table there is, but for what is of the moment."""
    with connection.cursor() as cursor:
        return sorted(set(connection.introspection.table_names(cursor)) - FORGOTTEN)


def columns_of(table: str) -> list[str]:
    with connection.cursor() as cursor:
        cursor.execute(f"SELECT * FROM {quoted(table)} LIMIT 0")  # noqa: S608  (a name of our own)
        return [column[0] for column in cursor.description or ()]


def rows_of(table: str, columns: Sequence[str]) -> Iterator[bytes]:
    """A table's rows in the order of their key, a line of JSON each; never all in memory."""
    connection.ensure_connection()
    assert connection.connection is not None  # noqa: S101 - it was just made
    cursor = connection.connection.cursor(SSCursor)
    try:
        cursor.execute(f"SELECT {_listed(columns)} FROM {quoted(table)} ORDER BY 1")  # noqa: S608
        while found := cursor.fetchmany(AT_ONCE):
            for row in found:
                yield json.dumps([_out(value) for value in row], ensure_ascii=False, separators=(",", ":")).encode() + b"\n"
    finally:
        cursor.close()


def put(table: str, columns: Sequence[str], lines: Iterator[bytes]) -> int:
    """Put rows into a table, in place of what is there. Returns how many."""
    into = f"INSERT INTO {quoted(table)} ({_listed(columns)}) VALUES ({', '.join(['%s'] * len(columns))})"  # noqa: S608
    count = 0
    with connection.cursor() as cursor:
        cursor.execute(f"DELETE FROM {quoted(table)}")  # noqa: S608
        batch: list[list[Any]] = []
        for line in lines:
            batch.append([_in(value) for value in json.loads(line)])
            count += 1
            if len(batch) == AT_ONCE:
                cursor.executemany(into, batch)
                batch = []
        if batch:
            cursor.executemany(into, batch)
    return count


@contextmanager
def keys_unchecked() -> Iterator[CursorWrapper]:
    """Tables and rows in any order: what points at what is not looked at within."""
    with connection.cursor() as cursor:
        cursor.execute("SET FOREIGN_KEY_CHECKS = 0")
        try:
            yield cursor
        finally:
            cursor.execute("SET FOREIGN_KEY_CHECKS = 1")


def quoted(name: str) -> str:
    """A table's or column's name as the database wants it."""
    return connection.ops.quote_name(name)


def _listed(columns: Sequence[str]) -> str:
    return ", ".join(quoted(column) for column in columns)


def _out(value: Any) -> Any:
    """What JSON has no word for carries its kind."""
    match value:
        case bytes():
            return {"bytes": base64.b64encode(value).decode()}
        case dt.datetime():
            return {"at": value.isoformat()}
        case dt.date():
            return {"day": value.isoformat()}
        case Decimal():
            return {"exact": str(value)}
    return value


def _in(value: Any) -> Any:
    match value:
        case {"bytes": text}:
            return base64.b64decode(text)
        case {"at": text}:
            return dt.datetime.fromisoformat(text)
        case {"day": text}:
            return dt.date.fromisoformat(text)
        case {"exact": text}:
            return Decimal(text)
    return value
