from django.apps import AppConfig


class FieldConfig(AppConfig):
    name = "field"
    verbose_name = "In the field"
