from django.apps import AppConfig


class WorkbenchConfig(AppConfig):
    """The bench: calculations tied to a machine, kept in its log, taken away as a file."""

    name = "workbench"
