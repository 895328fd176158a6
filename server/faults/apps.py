from django.apps import AppConfig


class FaultsConfig(AppConfig):
    name = "faults"
    verbose_name = "Faults"
