"""A new server from a backup."""

from pathlib import Path

from django.core.management.base import BaseCommand, CommandError, CommandParser

from keeping.backup import NotRestored, restore
from lumvek_core.counted import counted


class Command(BaseCommand):
    """``manage.py restore FILE``: into a database that nobody works on yet."""

    help = "Restore a backup into an empty database, and read all of it back."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *, file: Path, **options: object) -> None:
        try:
            manifest = restore(file)
        except NotRestored as problem:
            raise CommandError(str(problem)) from None
        said = f"{counted(manifest.count, 'row')} in {counted(len(manifest.tables), 'table')}, read back and found the same"
        self.stdout.write(f"Restored as it was {manifest.made_at}: {said}.\ndigest {manifest.digest}")
