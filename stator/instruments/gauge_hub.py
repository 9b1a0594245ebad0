"""Connected gauges, and the page that each of them feeds. Runs in the process that serves the pages."""

from __future__ import annotations

import threading
import time
from dataclasses import dataclass

from stator.instruments.gauge_reader import Reader
from stator.instruments.protocol import OWN_UNIT
from stator.shop.equipment_snapshot import shelves
from stator.shop.models import Shop

LETS_GO_S = 3.0  # a page that has not asked for so long holds its gauge no more


@dataclass
class GaugeAssignment:
    """The page a gauge feeds: which device, which job and station, which reading."""

    device: str
    place: str
    ask: str
    at: float


class Listener:
    """The readers of all gauges, started and stopped when the equipment changes."""

    def __init__(self) -> None:
        self.on = False
        self._readers: dict[int, tuple[str, Reader]] = {}
        self._holds: dict[int, GaugeAssignment] = {}
        self._stocked = ""
        self._lock = threading.Lock()

    def start(self) -> None:
        self.on = True
        self.sync(Shop.current())

    def stop(self) -> None:
        self.on = False
        with self._lock:
            for _, reader in self._readers.values():
                reader.stop()
            self._readers.clear()
            self._holds.clear()
            self._stocked = ""

    def sync(self, shop: Shop) -> None:
        """Readers for exactly the gauges that have a port now."""
        with self._lock:
            if not self.on or (shop.stocked and shop.stocked == self._stocked):
                return
            self._stocked = shop.stocked
            needed = {each.pk: each for each in shelves(shop).gauges if each.port}
            settings = {pk: f"{it.name} {it.port} {it.baud} {it.kind} {it.on_button}" for pk, it in needed.items()}
            for pk, (setting, reader) in list(self._readers.items()):
                if settings.get(pk) != setting:
                    reader.stop()
                    del self._readers[pk]
            for pk, gauge in needed.items():
                if pk not in self._readers:
                    unit = OWN_UNIT[gauge.measures]
                    reader = Reader(gauge.name, gauge.port, gauge.measures, unit, baud=gauge.baud, on_button=gauge.on_button)
                    self._readers[pk] = (settings[pk], reader)
                    reader.start()

    def reader(self, gauge: int) -> Reader | None:
        found = self._readers.get(gauge)
        return found[1] if found else None

    def hold(self, gauge: int, device: str, place: str, ask: str, *, take: bool = False) -> GaugeAssignment:
        """Return the page that a gauge feeds after this request.

        The first page keeps the gauge until it stops asking or another takes it.
        """
        now = time.monotonic()
        with self._lock:
            held = self._holds.get(gauge)
            if take or held is None or held.device == device or now - held.at > LETS_GO_S:
                held = self._holds[gauge] = GaugeAssignment(device, place, ask, now)
            return held

    def holder(self, gauge: int) -> GaugeAssignment | None:
        held = self._holds.get(gauge)
        return held if held and time.monotonic() - held.at <= LETS_GO_S else None


LISTENER = Listener()
