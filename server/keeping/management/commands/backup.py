"""Keep everything in one file."""

import datetime as dt
from pathlib import Path

from django.core.management.base import BaseCommand, CommandError, CommandParser

from keeping.backup import NotRestored, write
from lumvek_core.counted import counted


class Command(BaseCommand):
    """``manage.py backup FILE`` or ``manage.py backup --into FOLDER --keep 14``"""

    help = "Write a backup while the product is in use, and read it back."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", nargs="?", type=Path)
        parser.add_argument("--into", type=Path, help="a folder: the file is called after the moment")
        parser.add_argument("--keep", type=int, default=0, help="with --into: how many of the newest stay")

    def handle(self, *, file: Path | None, into: Path | None, keep: int, **options: object) -> None:
        if (file is None) == (into is None):
            raise CommandError("Say a file, or a folder with --into.")
        if file is not None and file.exists():
            raise CommandError(f"{file} is there already; nothing is written over it.")
        path = file or (into or Path()) / f"lumvek-{dt.datetime.now(dt.UTC):%Y%m%d-%H%M%S}.zip"
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            manifest = write(path)
        except (OSError, NotRestored) as problem:
            raise CommandError(f"The backup was not written: {problem}") from None
        said = f"{counted(manifest.count, 'row')} in {counted(len(manifest.tables), 'table')}, read back and found the same"
        self.stdout.write(f"{path}: {said}.\ndigest {manifest.digest}")
        if into is not None and keep > 0:
            for old in sorted(into.glob("lumvek-*.zip"))[:-keep]:
                old.unlink()
                self.stdout.write(f"{old.name} is older than the {keep} that are kept, and was removed.")
