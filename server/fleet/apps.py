from django.apps import AppConfig


class FleetConfig(AppConfig):
    """Machines and their models."""

    name = "fleet"
