"""The registry of the stations."""

from __future__ import annotations

from collections.abc import Iterator

from stator.stations.framework.definition import StationDefinition


class StationRegistry:
    """The stations of the application by key, in working order."""

    def __init__(self) -> None:
        self.by_key: dict[str, StationDefinition] = {}

    def register(self, *stations: StationDefinition) -> None:
        """Add stations; raise `ValueError` for a key that is registered already."""
        for station in stations:
            if station.key in self.by_key:
                raise ValueError(f"The station {station.key!r} is registered already.")
            self.by_key[station.key] = station

    def get(self, key: str) -> StationDefinition | None:
        return self.by_key.get(key)

    def name(self, key: str) -> str:
        """Return the name of a station; its key if it is not registered."""
        station = self.get(key)
        return str(station.name) if station else key

    def __iter__(self) -> Iterator[StationDefinition]:
        return iter(self.by_key.values())


registry = StationRegistry()  # `stator.workbench.registry` registers every station


def station_name(key: str) -> str:
    """Return the name of a station, for a sentence that names where something was measured."""
    return registry.name(key)
