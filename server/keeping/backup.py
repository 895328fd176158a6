"""A backup: everything in the database in one file, as it was at one moment, and a new server from it.

The file is a ZIP of one table a member (``tables/NAME.jsonl``, a row a line) and ``manifest.json``: the migrations it stands
at, and of each table the columns, the number of rows, the SHA-256 of its lines and the statement that makes it. It proves
itself against the migrations it names: tables that a broken-off upgrade left are no backup.
"""

import datetime as dt
import hashlib
import json
import os
import zipfile
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from dataclasses import asdict, dataclass, field
from pathlib import Path
from typing import IO, Any

from django.db import connection
from django.db.migrations.loader import MigrationLoader

from lumvek_core.counted import counted as how_many

from . import rows, tables

FORMAT, VERSION = "lumvek-backup", 2


class NotRestored(Exception):
    """Why a file cannot be restored, in a sentence."""


@dataclass(frozen=True)
class Table:
    """create: the statement that makes it; empty in files of version 1."""

    columns: list[str]
    rows: int
    sha256: str
    create: str = ""


@dataclass(frozen=True)
class Manifest:
    """migrations: app → the names that were applied, in order. others: what makes the tables whose rows are not kept."""

    made_at: str
    migrations: dict[str, list[str]]
    tables: dict[str, Table]
    format: str = FORMAT
    version: int = VERSION
    digest: str = field(default="")
    others: list[str] = field(default_factory=list)

    @property
    def count(self) -> int:
        return sum(table.rows for table in self.tables.values())

    @property
    def words(self) -> str:
        return f"{how_many(self.count, 'row')} in {how_many(len(self.tables), 'table')}, read back and found the same"


def write(path: Path) -> Manifest:
    """Everything as it is now, while others go on working; the file is read back before it takes its place.

    Raises OSError, and NotRestored where what was written does not read as it should.
    """
    aside = path.with_name(path.name + ".part")
    try:
        with one_moment(), aside.open("wb") as out:
            os.fchmod(out.fileno(), 0o600)
            with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED, compresslevel=6) as archive:
                kept = {name: _keep(archive, name) for name in rows.tables()}
                others = [tables.creating(name) for name in sorted(tables.there() & rows.FORGOTTEN - tables.OF_UPGRADES)]
                now = dt.datetime.now(dt.UTC).isoformat()
                manifest = Manifest(now, tables.applied(), kept, digest=digest_of(kept), others=others)
                archive.writestr("manifest.json", json.dumps(asdict(manifest), indent=1))
            out.flush()
            os.fsync(out.fileno())
        read(aside)
        aside.replace(path)
    finally:
        aside.unlink(missing_ok=True)
    return manifest


def read(path: Path) -> Manifest:
    """What a file holds, every line of it held against its digest. Raises NotRestored."""
    try:
        with zipfile.ZipFile(path) as archive:
            manifest = _manifest(archive)
            for name, table in manifest.tables.items():
                with archive.open(member(name)) as lines:
                    count, digest = counted(lines)
                if (count, digest) != (table.rows, table.sha256):
                    raise NotRestored(f"{path.name} is damaged: the table {name} is not what was written.")
    except (zipfile.BadZipFile, KeyError, ValueError, TypeError, EOFError, OSError) as problem:
        raise NotRestored(f"{path.name} is no backup that can be read: {problem}.") from None
    if digest_of(manifest.tables) != manifest.digest:
        raise NotRestored(f"{path.name} is damaged: its list of tables is not what was written.")
    _known(manifest)
    if wrong := tables.unlike(manifest.migrations, {name: table.columns for name, table in manifest.tables.items()}):
        raise NotRestored(f"{wrong} It was kept from a database in which an upgrade had broken off; {path.name} is no backup.")
    return manifest


def digest_of(tables: Mapping[str, Table]) -> str:
    """One digest of all tables, to hold two installations against each other."""
    return hashlib.sha256("\n".join(f"{name} {table.sha256}" for name, table in sorted(tables.items())).encode()).hexdigest()


@contextmanager
def one_moment() -> Iterator[None]:
    """All reading within sees the database as it was at the beginning, whatever others write meanwhile. Within a transaction it
    is that one's moment.
    """
    if connection.in_atomic_block:
        yield
        return
    with connection.cursor() as cursor:
        cursor.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ")
        cursor.execute("START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY")
    try:
        yield
    finally:
        with connection.cursor() as cursor:
            cursor.execute("ROLLBACK")


def _keep(archive: zipfile.ZipFile, table: str) -> Table:
    columns, count, digest = rows.columns_of(table), 0, hashlib.sha256()
    with archive.open(member(table), "w", force_zip64=True) as out:
        for line in rows.rows_of(table, columns):
            out.write(line)
            digest.update(line)
            count += 1
    return Table(columns, count, digest.hexdigest(), tables.creating(table))


def counted(lines: "Iterator[bytes] | IO[bytes]") -> tuple[int, str]:
    count, digest = 0, hashlib.sha256()
    for line in lines:
        count += 1
        digest.update(line)
    return count, digest.hexdigest()


def member(table: str) -> str:
    return f"tables/{table}.jsonl"


def _manifest(archive: zipfile.ZipFile) -> Manifest:
    told: dict[str, Any] = json.loads(archive.read("manifest.json"))
    if told.get("format") != FORMAT:
        raise ValueError("it says so itself")
    if told["version"] > VERSION:
        raise NotRestored("This backup was made by a newer Lumvek. Install that first.")
    return Manifest(**told | {"tables": {name: Table(**table) for name, table in told["tables"].items()}})


def _known(manifest: Manifest) -> None:
    """Refuse what a newer version made: this one does not know its tables."""
    known = set(MigrationLoader(None).disk_migrations or ())
    if strange := tables.nodes(manifest.migrations) - known:
        app, name = sorted(strange)[0]
        raise NotRestored(f"This backup was made by a newer Lumvek ({app} {name}). Install that first.")
