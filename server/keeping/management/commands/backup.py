"""Keep everything in one file; prove that such a file will do."""

import datetime as dt
import time
from pathlib import Path

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import DatabaseError

from keeping import drill, offsite, retention
from keeping.backup import NotRestored, write
from keeping.readiness import backups_folder
from lumvek_core.counted import counted


class Command(BaseCommand):
    """``manage.py backup FILE``, ``manage.py backup --into FOLDER`` and ``manage.py backup --drill [FILE]``"""

    help = "Write a backup while the product is in use, and read it back; or restore one in a database beside."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", nargs="?", type=Path)
        parser.add_argument("--into", type=Path, help="a folder: the file is called after the moment, and older ones go")
        parser.add_argument("--days", type=int, default=retention.DAYS, help="with --into: of how many days the newest stays")
        parser.add_argument("--weeks", type=int, default=retention.WEEKS, help="with --into: of how many weeks")
        parser.add_argument("--drill", action="store_true", help="restore FILE, or the newest one, in a database beside")

    def handle(self, *, file: Path | None, into: Path | None, days: int, weeks: int, **options: object) -> None:
        if options["drill"]:
            self._drill(file, into or backups_folder())
            return
        if (file is None) == (into is None):
            raise CommandError("Say a file, or a folder with --into.")
        if days < 1 or weeks < 0:
            raise CommandError("--days must be 1 or more, and --weeks 0 or more.")
        if file is not None and file.exists():
            raise CommandError(f"{file} is there already; nothing is written over it.")
        path = file or (into or Path()) / retention.name_at(dt.datetime.now(dt.UTC))
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            manifest = write(path)
        except (OSError, NotRestored) as problem:
            raise CommandError(f"The backup was not written: {problem}") from None
        self.stdout.write(f"{path}: {manifest.words}.\ndigest {manifest.digest}")
        if into is not None:
            self._prune(into, days, weeks)
            self._copy(path)

    def _prune(self, folder: Path, days: int, weeks: int) -> None:
        names = {one.name for one in folder.glob("lumvek-*.zip")}
        for name in sorted(names - retention.staying(names, days, weeks)):
            (folder / name).unlink()
            self.stdout.write(f"{name} is of no day or week that is kept, and was removed.")

    def _copy(self, path: Path) -> None:
        if not offsite.wanted():
            return
        try:
            length = offsite.copy(path)
        except (offsite.NotCopied, OSError) as problem:
            raise CommandError(f"The backup is written, but there is no copy elsewhere: {problem}") from None
        self.stdout.write(f"Copied elsewhere and read back the same: {length} bytes.")

    def _drill(self, file: Path | None, folder: Path) -> None:
        begun = time.monotonic()
        try:
            file = file or drill.newest(folder)
            manifest = drill.drill(file)
        except (NotRestored, OSError) as problem:
            raise CommandError(f"The drill failed: {problem}") from None
        except DatabaseError as problem:
            said = problem.args[-1] if problem.args else problem
            raise CommandError(
                f"The drill failed: {said}. docs/deploy.md gives the account its right on the database beside."
            ) from None
        took = round(time.monotonic() - begun)
        self.stdout.write(
            f"{file} was restored beside in {counted(took, 'second')}: {manifest.words}.\ndigest {manifest.digest}"
        )
