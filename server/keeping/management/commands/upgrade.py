"""The tables as this version wants them; or back to what they were where that broke off."""

from pathlib import Path

from django.core.management.base import BaseCommand, CommandError, CommandParser

from keeping import upgrade
from keeping.backup import NotRestored
from keeping.readiness import backups_folder


class Command(BaseCommand):
    """``manage.py upgrade``; ``manage.py upgrade --back [--from FILE]``"""

    help = "Bring the database to this version, what it holds kept before; or put back an upgrade that broke off."
    requires_system_checks = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--back", action="store_true", help="put back what was there before an upgrade that broke off")
        parser.add_argument("--from", dest="moved_to", type=Path, help="with --back: where the file lies, if it was moved")

    def handle(self, *, back: bool, moved_to: Path | None, **options: object) -> None:
        try:
            if not back:
                upgrade.bring(backups_folder() / "upgrades", self.stdout.write)
                return
            file, manifest = upgrade.back(moved_to)
        except (upgrade.NotUpgraded, NotRestored, OSError) as problem:
            raise CommandError(str(problem)) from None
        self.stdout.write(f"Put back as it was {manifest.made_at}, from {file}: {manifest.words}.\ndigest {manifest.digest}")
