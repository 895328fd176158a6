from django.apps import AppConfig


class GuardingConfig(AppConfig):
    """How much one may ask for, and how often somebody may guess: counted for all web workers together."""

    name = "guarding"
