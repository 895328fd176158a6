from django.apps import AppConfig


class InspectionConfig(AppConfig):
    """Walk-arounds, readings, verdicts and decisions."""

    name = "inspection"
