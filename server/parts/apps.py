from django.apps import AppConfig


class PartsConfig(AppConfig):
    """Parts books and the parts a walk-around calls for."""

    name = "parts"
