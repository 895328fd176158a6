from django.apps import AppConfig


class OutsideConfig(AppConfig):
    """Whoever is reached outside – mail, the suppliers' desk, the machines' modems – and that nobody here waits for them."""

    name = "outside"
