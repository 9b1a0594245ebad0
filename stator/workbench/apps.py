"""Configuration of the app `workbench`."""

from django.apps import AppConfig


class WorkbenchConfig(AppConfig):
    """The pages around the stations: open jobs, station page, work plan, search, photos, parts tray, check-in."""

    name = "stator.workbench"

    def ready(self) -> None:
        from stator.workbench import registry  # noqa: F401  # it registers the stations
