from django.apps import AppConfig


class SeasonConfig(AppConfig):
    """The season's work: what is to be done, by whom, where and when."""

    name = "season"
