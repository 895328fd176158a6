from django.apps import AppConfig


class SupplyConfig(AppConfig):
    """From findings to parts on the shelf: the list, suppliers, plans, orders, stock, fitting and cost."""

    name = "supply"
