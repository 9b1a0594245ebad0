"""Analysis of a flywheel being installed: contact of the taper, its torque capacity, key and timing, nut, rim and air gap."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from shopmath.amounts import Amount, degrees, estimate
from shopmath.estimate import Estimate
from shopmath.flywheel_fit import TaperCapacity, contact, holds
from shopmath.screw_threads import STATES, UNKNOWN
from shopmath.taper import asked_by_wheel_nm, key_shift_deg
from shopmath.verdict import STOP, TOO_CLOSE, Conformity, judge, severity
from stator.engines.card_facts import Limit
from stator.engines.fact_keys import FactKey
from stator.engines.models import EngineCard
from stator.engines.parts import FLYWHEEL
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Fact, Facts
from stator.stations.framework import StationInput

TORQUE_SHARE = 0.05  # of the manual's torque: shop rule
TORQUE_WRENCH = 0.02  # uncertainty of a torque wrench, of what it shows
TIMING_DEG = 1.0  # a shift that a fixed ignition stands: shop rule
TIMING_U_DEG = 0.2


def shift_shown(shift_deg: float) -> Amount:
    """Return an angle of the key, °, for display."""
    return estimate(degrees(shift_deg, 0.1), TIMING_U_DEG)


CONE = 1.12  # mean diameter of the cone against the shaft at the key, where nobody measured it: estimate


class Code(StrEnum):
    """Codes of the verdicts of Install flywheel."""

    BLUE_IT = "blue it"
    LAP = "lap"
    TAPER_SLIPS = "taper slips"
    KEY_DIFFERS = "key differs"
    TIMING = "timing"
    NUT = "nut"
    RIM = "rim"
    AIR_GAP = "air gap"
    GOING_ON = "going on"
    OPTIONAL_LEFT = "optional left"
    ON = "on"


class Hands(StrEnum):
    """Actions that Install flywheel records."""

    LAPPED = "lapped"


def at(what: Property) -> FactKey:
    return FactKey(FLYWHEEL, what)


OLD_KEY = ("stepped", "sheared")  # answers that mean the key found when the wheel came off
DAMAGED = {"stepped", "sheared"}


@dataclass(frozen=True)
class Judged:
    """One thing that has something to be judged by."""

    code: Code
    call: Conformity
    next: str


@dataclass(frozen=True)
class FlywheelInstallationAnalysis:
    """The analysis of Install flywheel. Sizes in mm, torques in N·m."""

    card: EngineCard
    own: EntryData
    known: Facts

    def said(self, what: Property) -> str:
        return self.own.said(at(what))

    def value(self, what: Property) -> float | None:
        return self.own.value(at(what))

    # the taper

    @property
    def is_on_taper(self) -> bool:
        return self.card.cone != EngineCard.Cone.STRAIGHT

    @property
    def cone_assumed(self) -> bool:
        """Return True if the taper is assumed."""
        return not self.card.cone

    @property
    def share(self) -> float | None:
        """Return the fraction of the taper that shows contact, 0 to 1, since it was last lapped."""
        lapped = [move.when for move in self.own.moves if move.kind == Hands.LAPPED and move.when]
        blued = [each for each in self.own.all(at(Property.CONTACT_SHARE)) if not lapped or (each.at and each.at >= lapped[-1])]
        return (blued[-1].value or 0.0) / 100 if blued else None

    @cached_property
    def contact(self) -> Conformity | None:
        reaches = self.said(Property.CONTACT_AT_LARGE_END)
        return contact(self.share, reaches == "yes") if self.share is not None and reaches else None

    @property
    def lapped(self) -> int:
        """Return how often it was lapped."""
        return sum(move.kind == Hands.LAPPED for move in self.own.moves)

    @property
    def cone_mm(self) -> float | None:
        """Return the mean diameter of the taper, measured or estimated from the shaft."""
        shaft = self.card.shaft_d_mm
        return self.value(Property.CONE_DIAMETER) or (shaft * CONE if shaft else None)

    @property
    def nut_torque_nm(self) -> float | None:
        return self.value(Property.NUT_TORQUE) or self.card.nut_torque_nm

    @property
    def on_nut(self) -> str:
        """Return what is on the nut's thread."""
        chosen = self.own.choice("nut", UNKNOWN)
        return chosen if chosen in STATES else UNKNOWN

    @cached_property
    def holds(self) -> TaperCapacity | None:
        """Return the torque capacity of the taper; None if a value is unknown."""
        card, torque, taper = self.card, self.nut_torque_nm, self.cone_mm
        if not (self.is_on_taper and card.taper_ratio and card.nut_d_mm and torque and taper):
            return None
        return holds(torque, card.nut_d_mm, card.taper_ratio, taper, self.value(Property.TORQUE_TO_CARRY), nut=self.on_nut)

    @cached_property
    def asks(self) -> Estimate | None:
        """Return the torque that the flywheel's inertia needs from the taper.

        It is None if its mass, rim or speed is unknown.
        """
        mass, rim, rpm = (
            measured.value if (measured := self.known.best(FLYWHEEL, what)) else card
            for what, card in (
                (Property.WHEEL_MASS, self.card.wheel_kg),
                (Property.RIM_DIAMETER, None),
                (Property.WHEEL_SPEED, self.card.wheel_rpm),
            )
        )
        return asked_by_wheel_nm(mass, rim, rpm) if mass and rim and rpm else None

    # the key

    @property
    def key(self) -> str:
        return self.said(Property.KEY_CONDITION)

    @property
    def key_found(self) -> Fact | None:
        """Return what Remove flywheel recorded about the key; None if nothing."""
        return self.known.best(FLYWHEEL, Property.KEY_CONDITION)

    @property
    def step_found(self) -> Fact | None:
        return self.known.best(FLYWHEEL, Property.KEY_STEP)

    @property
    def key_differs(self) -> bool:
        """Return True if the key is called sound that came off stepped or sheared, and was not replaced."""
        found = self.key_found
        return self.key == "sound" and found is not None and found.text in DAMAGED

    @property
    def step_mm(self) -> float | None:
        """Return the offset of the key that is installed; None if it has none."""
        return self.value(Property.KEY_STEP) if self.key in OLD_KEY else None

    @property
    def shift_deg(self) -> float | None:
        """Return the angle by which the key rotates the flywheel on its shaft."""
        shaft = self.card.shaft_d_mm
        return key_shift_deg(self.step_mm, shaft) if self.step_mm is not None and shaft else None

    def _timing(self, shift_deg: float) -> tuple[Conformity, str]:
        """Return the verdict on the timing: an intended offset is a setting, an offset from wear lets the flywheel rotate."""
        values = {"shift": abs(shift_deg)}
        if self.key == "stepped":
            return Conformity(TOO_CLOSE, -abs(shift_deg), "", "ahead" if shift_deg > 0 else "back", values), "set_ignition"
        found = judge(abs(shift_deg), high=TIMING_DEG, uncertainty=TIMING_U_DEG, unit="°", digits=1)
        return found, "new_key"

    # what is judged

    def limit(self, what: Property) -> Limit | None:
        found = self.known.limit(what)
        return found if found and found.is_given else None

    def _by_card(self, what: Property) -> Conformity | None:
        """Compare a value with the card; None if the card has no limit."""
        fact, limit = self.own.fact(at(what)), self.limit(what)
        if fact is None or fact.value is None or limit is None:
            return None
        return judge(fact.value, limit.low, limit.high, fact.uncertainty or 0.0, unit="mm", digits=2)

    @cached_property
    def judged(self) -> list[Judged]:
        """Return what has something to be judged by, the worst first."""
        found: list[Judged] = []
        if self.key_differs:
            found.append(Judged(Code.KEY_DIFFERS, Conformity(STOP, 0.0, "", "key_differs"), "look_at_key"))
        if self.contact:
            found.append(Judged(Code.LAP, self.contact, "lap"))
        if self.holds and self.holds.call:
            found.append(Judged(Code.TAPER_SLIPS, self.holds.call, "more_grip"))
        if self.shift_deg is not None:
            found.append(Judged(Code.TIMING, *self._timing(self.shift_deg)))
        torque, manual = self.value(Property.NUT_TORQUE), self.card.nut_torque_nm
        if torque and manual:
            low, high = manual * (1 - TORQUE_SHARE), manual * (1 + TORQUE_SHARE)
            nut = judge(torque, low, high, TORQUE_WRENCH * torque, unit="N·m", digits=0)
            found.append(Judged(Code.NUT, nut, "to_torque"))
        for code, what, move in ((Code.RIM, Property.RIM_RUNOUT, "off_again"), (Code.AIR_GAP, Property.AIR_GAP, "shift_coil")):
            by_card = self._by_card(what)
            if by_card:
                found.append(Judged(code, by_card, move))
        return sorted(found, key=lambda each: severity(each.call.state))


def flywheel_on_facts(given: StationInput) -> FlywheelInstallationAnalysis:
    """Return the analysis of Install flywheel."""
    return FlywheelInstallationAnalysis(given.card, given.own, given.facts)
