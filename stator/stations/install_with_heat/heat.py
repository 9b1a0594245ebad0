"""Common parts of every heat: heaters, chillers, thermometers, timers and corrections of temperature readings."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from functools import cached_property
from typing import Any

from shopmath.quantity import Quantity
from stator.engines.fact_keys import ANYWHERE, FactKey, Location
from stator.engines.parts import ENGINE, Part
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, MeasuredReading
from stator.jobs.models import Timer
from stator.shop.models import Chiller, Driver, Equipment, Gauge, Heater, Shop
from stator.stations.framework import StationInput
from stator.stations.install_with_heat import thermometers
from stator.stations.install_with_heat.setup import ROOM_C
from stator.stations.install_with_heat.thermometers import CONTACT

LONGEST_S = 7200.0  # a clock never shows more
OF_THE_HEAT = (Property.AIR_TEMPERATURE, Property.HEATER_SETTING, Property.HEAT_TARGET, Property.CHILL_STAY, Property.NOTE)
AS_BEFORE = (Property.HEATER_SETTING, Property.HEAT_TARGET, Property.CHILL_STAY)  # what stays set from one heat to the next
HOME = ("dropped", "tapped", "in", "home")  # answers after which a part is where it belongs
EACH_HEAT = frozenset(
    {
        Property.HEATER_SETTING,
        Property.HEAT_TARGET,
        Property.CHILL_STAY,
        Property.HOT_TEMPERATURE,
        Property.WATER_DROP,
        Property.COLD_TEMPERATURE,
        Property.FIT_OUTCOME,
        Property.SEATING_GAP,
        Property.SEATING_GAP_COLD,
        Property.SEATING_DEPTH,
        Property.CIRCLIP,
    }
)


@dataclass(frozen=True)
class HeatState:
    """Something that is heated, with what was chosen and read for it.

    A thermometer's reading is worth what its means is.
    """

    given: StationInput

    @property
    def hot_part(self) -> Part:
        """Return what the temperatures are of."""
        return ENGINE

    @property
    def own(self) -> EntryData:
        return self.given.own

    @property
    def shop(self) -> Shop:
        assert self.given.shop is not None
        return self.given.shop

    @property
    def now(self) -> datetime:
        return self.given.now or datetime.now(UTC)

    @property
    def attempt(self) -> int:
        return self.own.attempt

    def timer(self, key: str) -> Timer | None:
        return self.given.timer(key)

    # the shelves

    @property
    def gauges(self) -> tuple[Gauge, ...]:
        return self.given.shelves.gauges if self.given.shelves else ()

    @property
    def heaters(self) -> tuple[Heater, ...]:
        return self.given.shelves.heaters if self.given.shelves else ()

    @property
    def chillers(self) -> tuple[Chiller, ...]:
        return self.given.shelves.chillers if self.given.shelves else ()

    @property
    def drivers(self) -> tuple[Driver, ...]:
        return self.given.shelves.drivers if self.given.shelves else ()

    def _picked(self, key: str, shelf: tuple[Any, ...], usual: str) -> Any:
        chosen = self.own.choice(key)
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

    def uses(self) -> Iterator[tuple[str, Equipment]]:
        if self.heater:
            yield "heaters", self.heater
        if self.chiller:
            yield "chillers", self.chiller

    @property
    def room_c(self) -> float:
        """The air, as measured or as taken."""
        measured = self.value(Property.AIR_TEMPERATURE)
        return ROOM_C if measured is None else measured

    @property
    def wanted(self) -> str:
        """Return the desired clearance."""
        return self.own.choice("wanted", "usual")

    # temperatures

    @property
    def means(self) -> thermometers.Means:
        known = thermometers.means_of(self.gauges)
        return next((each for each in known if each.key == self.own.choice("means")), known[0])

    @property
    def by_drop(self) -> bool:
        return self.means.surface == thermometers.DROP

    def slot(self, what: Property, at: Location = ANYWHERE) -> FactKey:
        """The address of something about this heat."""
        return FactKey(ENGINE if what in OF_THE_HEAT else self.hot_part, what, at)

    def value(self, what: Property, at: Location = ANYWHERE) -> float | None:
        fact_key = self.slot(what, at)
        if what in AS_BEFORE:
            return next((value for attempt in range(self.attempt, 0, -1) if (value := self.own.value(fact_key, attempt)) is not None), None)
        return self.own.value(fact_key, self.attempt if what in EACH_HEAT else None)

    def is_as_before(self, what: Property) -> bool:
        """Return True if an earlier heat was set so, and this one has not been set otherwise."""
        return self.attempt > 1 and self.value(what) is not None

    def said(self, what: Property, at: Location = ANYWHERE) -> str:
        fact_key = self.slot(what, at)
        return self.own.said(fact_key, self.attempt if what in EACH_HEAT else None)

    @cached_property
    def hot(self) -> list[MeasuredReading]:
        """Temperatures read of the hot part in this heat, oldest first; a drop of water is one too."""
        both = (Property.HOT_TEMPERATURE, Property.WATER_DROP)
        found = [each for what in both for each in self.own.all(self.slot(what), self.attempt)]
        return sorted(found, key=lambda each: each.number)

    @property
    def coarse(self) -> MeasuredReading | None:
        """The last temperature, when it is too coarse to judge by."""
        return self.hot[-1] if self.hot and self.hot[-1].corrected.get("trusted") is False else None

    @property
    def read_by_contact(self) -> bool:
        """Return True if a contact thermometer read the latest temperature of the hot part."""
        return bool(self.hot) and self.hot[-1].corrected.get("means") == CONTACT

    def taken_with(self, slot: FactKey) -> Gauge | None:
        """The thermometer in use, for the hot part; anything else is taken with the usual one."""
        return self.means.gauge if slot.what in (Property.HOT_TEMPERATURE, Property.WATER_DROP) else None

    def worth(self, slot: FactKey, quantity: Quantity, in_heat: bool, heat_c: float | None) -> dict[str, Any]:
        """Return the true temperature of a reading on the hot part; inside an oven an infrared thermometer sees the walls reflected."""
        if slot.what == Property.WATER_DROP:
            return thermometers.drop_worth(quantity.text)
        if slot.what != Property.HOT_TEMPERATURE:
            return {}
        in_oven = in_heat and self.heater is not None and self.heater.method == Heater.Method.OVEN
        return thermometers.worth(quantity.canonical, self.means, heat_c if in_oven and heat_c else self.room_c)
