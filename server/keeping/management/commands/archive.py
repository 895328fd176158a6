"""Everything of one shop in an open file; a shop from such a file; a shop deleted for good."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from keeping import archive
from shops.models import Shop


class Command(BaseCommand):
    help = "write, read or delete one shop"

    def add_arguments(self, parser: CommandParser) -> None:
        ways = parser.add_subparsers(dest="way", required=True)
        for way, what in (("write", "everything of a shop into FILE"), ("read", "a shop from FILE, beside those there are")):
            one = ways.add_parser(way, help=what)
            one.add_argument("file", type=Path)
            if way == "write":
                one.add_argument("--shop", default="", help="its name; not needed where there is one only")
        gone = ways.add_parser("delete", help="a shop and everything of it, for good")
        gone.add_argument("--shop", required=True)
        gone.add_argument("--for-good", action="store_true")

    def handle(self, *args: Any, **options: Any) -> None:
        if options["way"] == "read":
            self._read(options["file"])
        elif options["way"] == "write":
            self._write(self._shop(options["shop"]), options["file"])
        else:
            self._delete(self._shop(options["shop"]), options["for_good"])

    def _shop(self, name: str) -> Shop:
        found = Shop.objects.filter(name=name) if name else Shop.objects.all()
        if len(found) != 1:
            names = ", ".join(Shop.objects.order_by("name").values_list("name", flat=True))
            raise CommandError(f"Say which shop with --shop: {names or 'there is none'}.")
        return found[0]

    def _write(self, shop: Shop, file: Path) -> None:
        try:
            with file.open("xb") as out:
                counts = archive.write(shop, out)
        except OSError as problem:
            raise CommandError(f"{file}: {problem.strerror}.") from None
        self.stdout.write(f"{shop.name}: {sum(counts.values())} rows in {file}")

    def _read(self, file: Path) -> None:
        try:
            shop = archive.read(file)
        except archive.NotRead as problem:
            raise CommandError(str(problem)) from None
        people = ", ".join(shop.members.filter(left_at=None).values_list("user__username", flat=True))
        self.stdout.write(f"{shop.name} is here. Its people choose a password by a link: {people}")

    def _delete(self, shop: Shop, for_good: bool) -> None:
        if not for_good:
            raise CommandError(
                f"{shop.name} with all its machines, walk-arounds, pictures, orders and people would be gone for good. Keep it "
                "first (archive write), then say --for-good. Backups made before still hold it."
            )
        counts = archive.delete(shop)
        self.stdout.write(f"{shop.name} is gone: {sum(counts.values())} rows")
