from django.apps import AppConfig


class LogbookConfig(AppConfig):
    """What happened to a machine, what is to be expected of it, and what is due."""

    name = "logbook"
