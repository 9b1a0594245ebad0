from django.apps import AppConfig


class InstrumentsConfig(AppConfig):
    name = "stator.instruments"
