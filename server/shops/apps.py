from django.apps import AppConfig


class ShopsConfig(AppConfig):
    """Who works where, and may do what."""

    name = "shops"
