from django.apps import AppConfig


class ReportConfig(AppConfig):
    """A walk-around on paper, as PDF and as CSV."""

    name = "report"
