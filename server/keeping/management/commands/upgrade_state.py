"""How the database stands to this version, for who starts the server."""

from django.core.management.base import BaseCommand
from django.db import connection
from django.db.migrations.loader import MigrationLoader


class Command(BaseCommand):
    """``manage.py upgrade_state``: prints ``empty``, ``same``, ``older`` or ``newer``."""

    help = "Says whether the database is empty, as this version wants it, older, or newer."

    def handle(self, *args: object, **options: object) -> None:
        loader = MigrationLoader(connection)
        applied, known = set(loader.applied_migrations), set(loader.disk_migrations or ())
        ours = {app for app, _ in known}
        if not applied:
            state = "empty"
        elif any(app in ours for app, _ in applied - known):
            state = "newer"
        else:
            state = "older" if known - applied else "same"
        self.stdout.write(state)
