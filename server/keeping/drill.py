"""A restore drill: a backup is put into a database beside, brought to this version, and counted: only that proves it."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from django.db import connection

from . import rows, tables, upgrade
from .backup import Manifest, NotRestored

SUFFIX = "_drill"


def drill(file: Path) -> Manifest:
    """Restore a file into the database beside, and leave that one empty. Raises NotRestored, DatabaseError."""
    with beside(SUFFIX):
        tables.drop(tables.there())  # of a drill that broke off
        try:
            return upgrade.restore(file)
        finally:
            tables.drop(tables.there())


def newest(folder: Path) -> Path:
    """Last night's file. Raises NotRestored where there is none."""
    found = sorted(folder.glob("lumvek-*.zip"))
    if not found:
        raise NotRestored(f"There is no backup in {folder}.")
    return found[-1]


@contextmanager
def beside(suffix: str) -> Iterator[str]:
    """All that is done within is done in a database of its own, called as ours with `suffix`."""
    ours, there = connection.settings_dict["NAME"], f"{connection.settings_dict['NAME']}{suffix}"
    with connection.cursor() as cursor:
        cursor.execute(f"CREATE DATABASE IF NOT EXISTS {rows.quoted(there)} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
    connection.close()
    connection.settings_dict["NAME"] = there
    try:
        yield there
    finally:
        connection.close()
        connection.settings_dict["NAME"] = ours
