"""Configuration of the app `demo`."""

from django.apps import AppConfig


class DemoConfig(AppConfig):
    """The demo shop."""

    name = "stator.demo"
