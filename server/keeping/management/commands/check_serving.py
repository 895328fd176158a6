"""Whether this installation can serve a shop, for who sets it up."""

import sys

from django.core.management.base import BaseCommand

from keeping import readiness


class Command(BaseCommand):
    """``manage.py check_serving``: a line for each point; ends with 1 where something is missing."""

    help = "Says point by point what is well and what is missing before ./lumvek serve."
    requires_system_checks = []

    def handle(self, *args: object, **options: object) -> None:
        if not readiness.told(self.stdout.write):
            sys.exit(1)
