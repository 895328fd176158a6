"""A new server from a backup."""

from pathlib import Path

from django.core.management.base import BaseCommand, CommandError, CommandParser

from keeping.backup import NotRestored
from keeping.upgrade import restore


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
        self.stdout.write(f"Restored as it was {manifest.made_at}: {manifest.words}.\ndigest {manifest.digest}")
