"""An upgrade of the tables: what was there is kept first, and put back where the upgrade broke off.

MariaDB does not take back changes of tables. So an upgrade that is under way leaves a mark in the database: which file
holds what was there before. Whoever finds it later knows that nothing can be trusted but that file. Nobody works until the mark
is gone, so that nothing is lost by going back.
"""

import datetime as dt
import hashlib
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from enum import StrEnum
from pathlib import Path

from django.core.management import call_command
from django.db import connection
from django.db.migrations.loader import MigrationLoader

from . import backup, restoring, rows, tables
from .backup import Manifest, NotRestored

KEPT_UPGRADES = 5
"""Files of earlier upgrades that stay beside the newest."""


class Standing(StrEnum):
    """How the database stands to this version."""

    EMPTY = "empty"
    SAME = "same"
    OLDER = "older"
    NEWER = "newer"
    BROKEN_OFF = "broken off"


class NotUpgraded(Exception):
    """Why it cannot go on, and what to do, in a sentence or two."""


@dataclass(frozen=True)
class Mark:
    """An upgrade that is under way, or broke off. file: what was there before, empty where nothing was; digest: of it."""

    begun_at: str
    file: str
    digest: str

    @property
    def words(self) -> str:
        return f"{dt.datetime.fromisoformat(self.begun_at):%d %b %Y %H:%M} UTC"


def standing() -> Standing:
    loader = MigrationLoader(connection)
    applied, known = set(loader.applied_migrations), set(loader.disk_migrations or ())
    ours = {app for app, _ in known}
    missing = bool(known - applied)
    if missing and mark():
        return Standing.BROKEN_OFF
    if not applied:
        return Standing.EMPTY
    if any(app in ours for app, _ in applied - known):
        return Standing.NEWER
    return Standing.OLDER if missing else Standing.SAME


def mark() -> Mark | None:
    if rows.UPGRADE_MARK not in tables.there():
        return None
    with connection.cursor() as cursor:
        cursor.execute(f"SELECT begun_at, file, digest FROM {rows.UPGRADE_MARK}")  # noqa: S608  (a name of our own)
        found = cursor.fetchone()
    return Mark(*found) if found else None


def bring(folder: Path, say: Callable[[str], object]) -> None:
    """Bring the database to this version. What it holds is kept in `folder` before any table is changed.

    Raises NotUpgraded; OSError where the file cannot be written.
    """
    with _alone():
        match standing():
            case Standing.NEWER:
                raise NotUpgraded("This database was changed by a newer Lumvek: install that, or restore a backup of before.")
            case Standing.BROKEN_OFF:
                _begin_anew(say)
            case Standing.EMPTY:
                migrate(None, "")
            case Standing.OLDER:
                _upgrade(folder, say)
            case Standing.SAME:
                if mark():  # it had come to its end, but for saying so
                    migrate(None, "")


def _begin_anew(say: Callable[[str], object]) -> None:
    """A first set-up that broke off; where somebody had worked, only a person goes back."""
    begun = mark()
    if begun and begun.file:
        raise NotUpgraded(
            f"An upgrade broke off (begun {begun.words}). ./lumvek upgrade --back puts back what was there before it, kept in "
            f"{begun.file}; then start again."
        )
    say("A first set-up broke off before anybody worked here: it begins anew.")
    tables.drop(tables.there())
    migrate(None, "")


def _upgrade(folder: Path, say: Callable[[str], object]) -> None:
    file = folder / f"before-{_pair()}.zip"
    file.parent.mkdir(parents=True, exist_ok=True)
    try:
        manifest = backup.write(file)
    except NotRestored as problem:
        raise NotUpgraded(f"{problem} Nothing was changed: restore a backup into an empty database.") from None
    say(f"Before the upgrade: {manifest.words}, in {file}.")
    migrate(file, manifest.digest)
    _prune(folder, file)
    say("Upgraded.")


def migrate(file: Path | None, digest: str) -> None:
    """Change the tables, under the mark; `file` holds what is there now."""
    if not mark():
        with connection.cursor() as cursor:
            cursor.execute(
                f"CREATE TABLE IF NOT EXISTS {rows.UPGRADE_MARK} "
                "(id TINYINT PRIMARY KEY, begun_at VARCHAR(40) NOT NULL, file TEXT NOT NULL, digest CHAR(64) NOT NULL)"
            )
            cursor.execute(
                f"INSERT INTO {rows.UPGRADE_MARK} VALUES (1, %s, %s, %s)",  # noqa: S608
                [dt.datetime.now(dt.UTC).isoformat(), str(file.resolve()) if file else "", digest],
            )
    call_command("migrate", interactive=False, verbosity=0)
    tables.drop([rows.UPGRADE_MARK])


def back(moved_to: Path | None = None) -> tuple[Path, Manifest]:
    """Put back what was there before an upgrade that broke off; `moved_to`: where its file lies now, if it was moved.

    Raises NotUpgraded, NotRestored. Can be repeated where it breaks off itself.
    """
    with _alone():
        begun = mark()
        if begun is None or standing() is not Standing.BROKEN_OFF:
            raise NotUpgraded("No upgrade broke off here: there is nothing to put back.")
        if not begun.file:
            raise NotUpgraded("A first set-up broke off, before which there was nothing: start again, it begins anew.")
        file = moved_to or Path(begun.file)
        if not file.is_file():
            raise NotUpgraded(f"{file} is not there. Say where it lies now: ./lumvek upgrade --back --from FILE")
        manifest = backup.read(file)
        if manifest.digest != begun.digest:
            raise NotUpgraded(f"{file} is not what was kept before this upgrade (digest {begun.digest}).")
        restoring.put_back(file, manifest)
        tables.drop([rows.UPGRADE_MARK])
        return file, manifest


def restore(path: Path) -> Manifest:
    """A server that nobody works on yet becomes the one that was kept, at this version. Raises NotRestored."""
    manifest = backup.read(path)
    _nobody_works_here()
    restoring.put_back(path, manifest)
    migrate(path, manifest.digest)
    return manifest


def _pair() -> str:
    """A name for the two versions of an upgrade: nobody counts ours, so they go by the migrations they have."""
    loader = MigrationLoader(connection)
    ends = (set(loader.applied_migrations), set(loader.disk_migrations or ()))
    return "-".join(hashlib.sha256(repr(sorted(one)).encode()).hexdigest()[:10] for one in ends)


def _prune(folder: Path, newest: Path) -> None:
    older = sorted((one for one in folder.glob("before-*.zip") if one != newest), key=lambda one: one.stat().st_mtime)
    for one in older[:-KEPT_UPGRADES]:
        one.unlink()


@contextmanager
def _alone() -> Iterator[None]:
    """One at a time changes tables; the lock ends with whoever holds it."""
    name = f"{rows.UPGRADE_MARK}-{connection.settings_dict['NAME']}"[:64]
    with connection.cursor() as cursor:
        cursor.execute("SELECT GET_LOCK(%s, 0)", [name])
        if cursor.fetchone()[0] != 1:
            raise NotUpgraded("Another start is upgrading this database just now: wait until it is done.")
    try:
        yield
    finally:
        with connection.cursor() as cursor:
            cursor.execute("SELECT RELEASE_LOCK(%s)", [name])


def _nobody_works_here() -> None:
    """Refuse a server on which somebody works, and a database of something else."""
    there = tables.there()
    if strange := there - rows.FORGOTTEN - set(connection.introspection.django_table_names()):
        raise NotRestored(f"This database holds something else ({sorted(strange)[0]}). Say one that is empty.")
    if "shops_shop" in there:
        with connection.cursor() as cursor:
            cursor.execute("SELECT COUNT(*) FROM shops_shop")
            if cursor.fetchone()[0]:
                raise NotRestored("There is a shop in this database. A backup is restored into an empty one only.")
