"""Analysis of a press joint: interference, force to press it apart or together, capacity of the press, and temperature limits."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import cached_property

from shopmath.amounts import NEAREST
from shopmath.joints import JointPlan, PressJoint, heat_call, joint_plan, press_call, usual_interference, web_heat_for
from shopmath.quantity import parse
from shopmath.verdict import STOP, Conformity, combined
from stator.engines.card_facts import Limit
from stator.engines.fact_keys import FactKey
from stator.engines.models import EngineCard
from stator.engines.parts import throw
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Facts
from stator.shop.models import Press
from stator.stations.framework import StationInput
from stator.ui.number_format import plain, two_digits

PIN = throw(1)
CHOICES = {  # what may be chosen of a joint, the usual first
    "joint": ("plain", "taper"),
    "warmth": ("cold", "warm"),
    "scrap": ("keep", "scrap"),
    "condition": ("dry", "oiled"),
    "compound": ("", "medium", "high", "high temperature"),
}
USUAL_UNIT = ("kN", 1000.0)


class Code(StrEnum):
    """Codes of the verdicts on a press joint before it is pressed."""

    MEASURE = "measure"
    TOO_HOT = "too hot"
    NO_PRESS = "no press"
    TOO_SMALL = "press too small"
    CHECK_FIRST = "check first"
    STRONG_ENOUGH = "press strong enough"
    MAY_NOT_DO = "press may not do"


def at(what: Property) -> FactKey:
    """Return the fact key of a property of the joint."""
    return FactKey(PIN, what)


@dataclass(frozen=True)
class Interference:
    """The interference of a joint, its uncertainty (mm), and where it comes from."""

    value: float
    uncertainty: float
    origin: str  # measured, card or usual


@dataclass(frozen=True)
class PressJointAnalysis:
    """All that is computed of one joint. Sizes in mm, forces in N, temperatures in °C."""

    card: EngineCard
    own: EntryData
    known: Facts
    presses: tuple[Press, ...]
    ton: str
    moving: str  # parting or assembling
    is_heard: bool = False  # whether a load cell speaks to the page, in its own unit

    def value(self, what: Property) -> float | None:
        return self.own.value(at(what))

    def chosen(self, key: str) -> str:
        known = CHOICES[key]
        found = self.own.choice(key)
        return found if found in known else known[0]

    @property
    def is_warm(self) -> bool:
        return self.chosen("warmth") == "warm"

    @property
    def is_tapered(self) -> bool:
        return self.chosen("joint") == "taper"

    @property
    def is_measured(self) -> bool:
        """Return True if pin and hole can be got at."""
        return self.moving == "assembling" or self.own.choice("sizes") == "measured"

    @property
    def has_several_throws(self) -> bool:
        return self.card.layout != EngineCard.Layout.SINGLE

    # the press

    @cached_property
    def press(self) -> Press | None:
        """Return the chosen press, or the strongest one of the shop."""
        chosen = self.own.choice("press")
        found = next((each for each in self.presses if str(each.pk) == chosen), None)
        return found or max(self.presses, key=lambda each: each.capacity_n, default=None)

    @cached_property
    def press_unit(self) -> tuple[str, float]:
        """Return the press's own unit as text, and its value in newtons."""
        if self.press is None:
            return USUAL_UNIT
        typed = parse(self.press.capacity_text, "force", "N", ton=self.ton or None)
        word = re.sub(r"^[\d.,\s]+", "", self.press.capacity_text).strip()
        return word or "N", typed.canonical / typed.value

    def in_unit(self, force_n: float) -> str:
        """A force as the press's own gauge shows it."""
        unit, per = self.press_unit
        return f"{plain(force_n / per, 3)} {unit}"

    def estimated(self, force_n: float, toward: str = NEAREST) -> str:
        """Return an estimated force with two digits, in the unit of the press's gauge."""
        unit, per = self.press_unit
        return f"{two_digits(force_n / per, toward)} {unit}"

    # the joint

    @cached_property
    def card_grip(self) -> Limit | None:
        """The interference that the card gives, where it gives both ends."""
        found = self.known.limit(Property.PIN_INTERFERENCE)
        return found if found and found.low is not None and found.high is not None else None

    @cached_property
    def grip(self) -> Interference | None:
        """Return the interference; None if it is unknown."""
        pin, hole = self.own.fact(at(Property.PIN_DIAMETER)), self.own.fact(at(Property.PIN_HOLE))
        if pin and hole and pin.value is not None and hole.value is not None:
            return Interference(pin.value - hole.value, combined(pin.uncertainty or 0.0, hole.uncertainty or 0.0), "measured")
        d, limit = self.value(Property.PIN_SHOWN), self.card_grip
        if d is None:
            return None
        if limit and limit.low is not None and limit.high is not None:
            return Interference((limit.low + limit.high) / 2, (limit.high - limit.low) / 2, "card")
        band = usual_interference(d)
        return Interference((band.low + band.high) / 2, (band.high - band.low) / 2, "usual")

    @property
    def diameter(self) -> float | None:
        return self.value(Property.PIN_DIAMETER) or self.value(Property.PIN_SHOWN)

    @cached_property
    def sized(self) -> PressJoint | None:
        """The joint cold; None until its sizes are in."""
        interference, d = self.grip, self.diameter
        length, wall, web = (self.value(what) for what in (Property.PIN_LENGTH, Property.WEB_WALL, Property.WEB_WIDTH))
        if interference is None or d is None or length is None or wall is None or web is None:
            return None
        return PressJoint(
            d,
            length,
            interference.value,
            interference.uncertainty,
            wall,
            max(web, d + 2 * wall),
            pin_bore_mm=self.value(Property.PIN_BORE) or 0.0,
            condition=self.chosen("condition"),
            strength=self.chosen("compound"),
            taper_ratio=self.value(Property.PIN_TAPER) or 0.0 if self.is_tapered else 0.0,
        )

    @cached_property
    def joint(self) -> PressJoint | None:
        """The joint at the temperatures meant for it."""
        web_c, pin_c = self.value(Property.WEB_TEMPERATURE), self.value(Property.PIN_TEMPERATURE)
        if self.sized is None or not self.is_warm:
            return self.sized
        return None if web_c is None or pin_c is None else replace(self.sized, web_c=web_c, pin_c=pin_c)

    @cached_property
    def plan(self) -> JointPlan | None:
        return joint_plan(self.joint, self.moving) if self.joint else None

    @cached_property
    def press_call(self) -> Conformity | None:
        """Return whether the press is strong enough."""
        if self.plan is None or self.press is None:
            return None
        unit, per = self.press_unit
        return press_call(self.plan.force_n, self.press.capacity_n, unit=unit, per_unit_n=per)

    @cached_property
    def heat_call(self) -> Conformity | None:
        """Only where heat is meant."""
        if self.joint is None or not self.is_warm:
            return None
        return heat_call(self.joint, scrap=self.chosen("scrap") == "scrap")

    @property
    def web_heat_c(self) -> float | None:
        """The web's temperature at which the press would be enough, the pin left cold."""
        if self.sized is None or self.press is None or self.is_warm:
            return None
        found = web_heat_for(self.sized, self.press.capacity_n, self.moving)
        return found if found is not None and found > self.sized.web_c else None

    @property
    def is_stopped(self) -> bool:
        """Return True if nothing may be pressed in this state."""
        return self.press is None or any(verdict is not None and verdict.state == STOP for verdict in (self.heat_call, self.press_call))

    @cached_property
    def peak_n(self) -> float | None:
        """The highest force that was reached."""
        return self.value(Property.PRESS_PEAK)


def joint_facts(given: StationInput, moving: str) -> PressJointAnalysis:
    presses = tuple(given.shelves.presses) if given.shelves else ()
    heard = any(each.kind == "load" and each.port for each in given.shelves.gauges) if given.shelves else False
    return PressJointAnalysis(given.card, given.own, given.facts, presses, given.shop.ton if given.shop else "", moving, heard)
