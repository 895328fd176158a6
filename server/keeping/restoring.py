"""From a file into the database: its tables as they were made, every row, and all of it read back."""

import zipfile
from pathlib import Path

from django.core.management import call_command
from django.db import connection, transaction
from django.db.migrations.loader import MigrationLoader

from . import rows, tables
from .backup import Manifest, NotRestored, counted, member


def put_back(path: Path, manifest: Manifest) -> None:
    """The database becomes what the file holds, whatever it was, at the file's own version. Can be repeated."""
    tables.drop(tables.there() - {rows.UPGRADE_MARK})
    if all(table.create for table in manifest.tables.values()):
        tables.lay([*(table.create for table in manifest.tables.values()), *manifest.others], manifest.migrations)
    else:
        _stand_at(manifest)
    load(path, manifest)


def load(path: Path, manifest: Manifest) -> None:
    """Put all rows into tables that stand where the file stands, and read them back. Raises NotRestored."""
    with zipfile.ZipFile(path) as archive, transaction.atomic():
        with rows.keys_unchecked():
            for name, table in manifest.tables.items():
                with archive.open(member(name)) as lines:
                    rows.put(name, table.columns, iter(lines))
        connection.check_constraints()
        for name, table in manifest.tables.items():
            if counted(rows.rows_of(name, table.columns)) != (table.rows, table.sha256):
                raise NotRestored(f"The table {name} did not come back as it was kept. Nothing was restored.")


def _stand_at(manifest: Manifest) -> None:
    """Make the tables as they were when a backup of version 1 was made, which does not say how they are made."""
    if not (set(MigrationLoader(None).disk_migrations or ()) - tables.nodes(manifest.migrations)):
        call_command("migrate", interactive=False, verbosity=0)
        return
    for app, names in manifest.migrations.items():
        call_command("migrate", app, names[-1], interactive=False, verbosity=0)
