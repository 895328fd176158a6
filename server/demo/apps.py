from django.apps import AppConfig


class DemoConfig(AppConfig):
    """The made-up shop that the demo starts with."""

    name = "demo"
