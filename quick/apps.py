from django.apps import AppConfig


class QuickConfig(AppConfig):
    name = "quick"
