from django.apps import AppConfig


class KeepingConfig(AppConfig):
    """Keeping everything: backups, and a new server from one."""

    name = "keeping"
