from django.apps import AppConfig


class QuickConfig(AppConfig):
    name = "stator.quick_checks"
