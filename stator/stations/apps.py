from django.apps import AppConfig


class StationsConfig(AppConfig):
    name = "stator.stations"
