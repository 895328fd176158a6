from django.apps import AppConfig
from django.core.signals import request_finished, request_started


class ShopsConfig(AppConfig):
    """Who works where, and may do what."""

    name = "shops"

    def ready(self) -> None:
        """No request begins, and nothing after one goes on, in the time of whoever asked before."""
        from . import days

        for moment in (request_started, request_finished):
            moment.connect(days.as_nowhere, dispatch_uid=f"days {moment}")
