"""A backup: everything in the database in one file, as it was at one moment, and a new server from it.

The file is a ZIP of one table a member (``tables/NAME.jsonl``, a row a line) and ``manifest.json``: the migrations it stands
at, and of each table the columns, the number of rows and the SHA-256 of its lines.
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

from django.core.management import call_command
from django.db import connection, transaction
from django.db.migrations.loader import MigrationLoader
from django.db.migrations.recorder import MigrationRecorder

from . import rows

FORMAT, VERSION = "lumvek-backup", 1


class NotRestored(Exception):
    """Why a file cannot be restored, in a sentence."""


@dataclass(frozen=True)
class Table:
    columns: list[str]
    rows: int
    sha256: str


@dataclass(frozen=True)
class Manifest:
    """migrations: app → the names that were applied, in order."""

    made_at: str
    migrations: dict[str, list[str]]
    tables: dict[str, Table]
    format: str = FORMAT
    version: int = VERSION
    digest: str = field(default="")

    @property
    def count(self) -> int:
        return sum(table.rows for table in self.tables.values())


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
                manifest = Manifest(dt.datetime.now(dt.UTC).isoformat(), _applied(), kept, digest=digest_of(kept))
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
                with archive.open(_member(name)) as lines:
                    count, digest = _counted(lines)
                if (count, digest) != (table.rows, table.sha256):
                    raise NotRestored(f"{path.name} is damaged: the table {name} is not what was written.")
    except (zipfile.BadZipFile, KeyError, ValueError, TypeError, EOFError, OSError) as problem:
        raise NotRestored(f"{path.name} is no backup that can be read: {problem}.") from None
    if digest_of(manifest.tables) != manifest.digest:
        raise NotRestored(f"{path.name} is damaged: its list of tables is not what was written.")
    return manifest


def restore(path: Path) -> Manifest:
    """A server that nobody works on yet becomes the one that was kept. Proves itself by reading all of it back.

    Raises NotRestored.
    """
    manifest = read(path)
    _known(manifest)
    _empty()
    _stand_at(manifest)
    load(path, manifest)
    call_command("migrate", interactive=False, verbosity=0)
    return manifest


def load(path: Path, manifest: Manifest) -> None:
    """Put all rows into tables that stand where the file stands, and read them back. Raises NotRestored."""
    with zipfile.ZipFile(path) as archive, transaction.atomic():
        with connection.cursor() as cursor:
            cursor.execute("SET FOREIGN_KEY_CHECKS = 0")
        try:
            for name, table in manifest.tables.items():
                with archive.open(_member(name)) as lines:
                    rows.put(name, table.columns, iter(lines))
        finally:
            with connection.cursor() as cursor:
                cursor.execute("SET FOREIGN_KEY_CHECKS = 1")
        connection.check_constraints()
        for name, table in manifest.tables.items():
            if _counted(rows.rows_of(name, table.columns)) != (table.rows, table.sha256):
                raise NotRestored(f"The table {name} did not come back as it was kept. Nothing was restored.")


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
    with archive.open(_member(table), "w", force_zip64=True) as out:
        for line in rows.rows_of(table, columns):
            out.write(line)
            digest.update(line)
            count += 1
    return Table(columns, count, digest.hexdigest())


def _counted(lines: "Iterator[bytes] | IO[bytes]") -> tuple[int, str]:
    count, digest = 0, hashlib.sha256()
    for line in lines:
        count += 1
        digest.update(line)
    return count, digest.hexdigest()


def _member(table: str) -> str:
    return f"tables/{table}.jsonl"


def _manifest(archive: zipfile.ZipFile) -> Manifest:
    told: dict[str, Any] = json.loads(archive.read("manifest.json"))
    if told.get("format") != FORMAT:
        raise ValueError("it says so itself")
    if told["version"] > VERSION:
        raise NotRestored("This backup was made by a newer Lumvek. Install that first.")
    return Manifest(**told | {"tables": {name: Table(**table) for name, table in told["tables"].items()}})


def _applied() -> dict[str, list[str]]:
    found: dict[str, list[str]] = {}
    for app, name in MigrationRecorder.Migration.objects.order_by("id").values_list("app", "name"):
        found.setdefault(app, []).append(name)
    return found


def _known(manifest: Manifest) -> None:
    """Refuse what a newer version made: this one does not know its tables."""
    known = set(MigrationLoader(None).disk_migrations or ())
    if strange := {(app, name) for app, names in manifest.migrations.items() for name in names} - known:
        app, name = sorted(strange)[0]
        raise NotRestored(f"This backup was made by a newer Lumvek ({app} {name}). Install that first.")


def _empty() -> None:
    """Refuse a server on which somebody works; take what an empty one has out of the way."""
    with connection.cursor() as cursor:
        there = connection.introspection.table_names(cursor)
        if strange := set(there) - rows.FORGOTTEN - set(connection.introspection.django_table_names()):
            raise NotRestored(f"This database holds something else ({sorted(strange)[0]}). Say one that is empty.")
        if "shops_shop" in there:
            cursor.execute("SELECT COUNT(*) FROM shops_shop")
            if cursor.fetchone()[0]:
                raise NotRestored("There is a shop in this database. A backup is restored into an empty one only.")
        cursor.execute("SET FOREIGN_KEY_CHECKS = 0")
        for table in there:
            cursor.execute(f"DROP TABLE {connection.ops.quote_name(table)}")
        cursor.execute("SET FOREIGN_KEY_CHECKS = 1")


def _stand_at(manifest: Manifest) -> None:
    """Make the tables as they were when the backup was made."""
    if not (set(MigrationLoader(None).disk_migrations or ()) - {(a, n) for a, ns in manifest.migrations.items() for n in ns}):
        call_command("migrate", interactive=False, verbosity=0)
        return
    for app, names in manifest.migrations.items():
        call_command("migrate", app, names[-1], interactive=False, verbosity=0)
