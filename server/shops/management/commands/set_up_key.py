"""Print the secret for the first set-up, while there is no shop."""

from django.core.management.base import BaseCommand

from shops.actions.founding import print_key


class Command(BaseCommand):
    """``manage.py set_up_key``: prints nothing once there is a shop."""

    help = "Make and print the secret that founds the first shop."

    def handle(self, *args: object, **options: object) -> None:
        if secret := print_key():
            self.stdout.write(secret)
