"""What every heat shares: the shop's heaters, chillers and thermometers, and what a temperature read with them is worth."""

from __future__ import annotations

from dataclasses import replace
from functools import cached_property
from typing import Any

from shop.models import Chiller, Gauge, Heater
from shop.shelves import shelves
from shopmath.quantity import Quantity
from stations.base import Ask, Work
from stations.heat_and_drop import thermometers

GAUGE_FOR = {"seat": "bore", "ring": "micrometer", "gap": "feeler", "cold": "feeler", "depth": "calliper"}


class Heated(Work):
    """Work with something hot and something cold in it. Its clocks start with its readings, so none is read in afterwards."""

    from_log = False

    @property
    def gauges(self) -> tuple[Gauge, ...]:
        return shelves(self.shop).gauges

    @property
    def heaters(self) -> tuple[Heater, ...]:
        return shelves(self.shop).heaters

    @property
    def chillers(self) -> tuple[Chiller, ...]:
        return shelves(self.shop).chillers

    def _picked(self, key: str, shelf: tuple[Any, ...], usual: str) -> Any:
        chosen = str(self.choices.get(key, ""))
        if chosen == "none":
            return None
        named = next((each for each in shelf if str(each.pk) == chosen), None)
        return named or next((each for each in shelf if each.method == usual), None)

    @cached_property
    def heater(self) -> Heater | None:
        found: Heater | None = self._picked("heater", self.heaters, Heater.Method.OVEN)
        return found

    @cached_property
    def chiller(self) -> Chiller | None:
        found: Chiller | None = self._picked("chiller", self.chillers, Chiller.Method.FREEZER)
        return found

    @property
    def means(self) -> str:
        known = [option.key for option in thermometers.means_of(self.gauges)]
        chosen = str(self.choices.get("means", ""))
        return chosen if chosen in known else known[0]

    def gauge_for(self, ask: Ask) -> Gauge | None:
        if ask.key == "case":
            return next((each for each in self.gauges if str(each.pk) == self.means.partition(":")[0]), None)
        kind = GAUGE_FOR.get(ask.key.rstrip("0123456789"))
        return super().gauge_for(replace(ask, gauges=(kind,))) if kind else None

    def worth_of_case(self, quantity: Quantity, in_heat: bool, heat_c: float | None, room_c: float) -> tuple[Gauge | None, dict[str, Any]]:
        """Gauge and true temperature of a reading on the hot part; inside an oven its walls are what a gun sees reflected."""
        if self.means == "drop":
            return None, thermometers.drop_worth(quantity.text)
        gauge = self.gauge_for(Ask("case", ""))
        in_oven = in_heat and self.heater is not None and self.heater.method == Heater.Method.OVEN
        return gauge, thermometers.worth(quantity.canonical, gauge, self.means, heat_c if in_oven and heat_c else room_c)
