"""Make a shop and its lead, for a start without demo data."""

from getpass import getpass

from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction

from shops.models import Member, Role, Shop


class Command(BaseCommand):
    """``manage.py make_shop "Name" username``"""

    help = "Make a shop and its lead."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name")
        parser.add_argument("username")

    def handle(self, *args: object, **options: str) -> None:
        if User.objects.filter(username=options["username"]).exists():
            raise CommandError(f"There is somebody called {options['username']} already.")
        password = getpass("Password: ")
        try:
            validate_password(password)
        except ValidationError as problem:
            raise CommandError(" ".join(problem.messages)) from None
        with transaction.atomic():
            shop = Shop.objects.create(name=options["name"])
            user = User.objects.create_user(options["username"], password=password)
            Member.objects.create(user=user, shop=shop, roles=[Role.LEAD])
        self.stdout.write(f"{options['username']} leads {options['name']}.")
