"""Load the made-up shop once."""

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.utils import timezone

from demo.scenario import load


class Command(BaseCommand):
    """``manage.py load_demo``: does nothing where there is a shop already."""

    help = "Load the demo data, once."

    def handle(self, *args: object, **options: object) -> None:
        if settings.MODE == "serve":
            raise CommandError("Demo data is not loaded into a served shop.")
        self.stdout.write("Loaded." if load(timezone.now()) else "There already.")
