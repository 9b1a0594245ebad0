"""Analysis of a ring installed cold: its interference, the force, the turns of the screw, squareness, and whether it is seated."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from shopmath import drivers
from shopmath.bearings import Bearing
from shopmath.cold_installation import (
    ColdFit,
    Draw,
    Instead,
    cold_force,
    drawn_in,
    heat_instead,
    pushed_with,
    seated_by_screw,
    start_lean_mm,
)
from shopmath.estimate import Estimate
from shopmath.gauges import gauge_uncertainty
from shopmath.iso286 import fit as fit_of_limits
from shopmath.iso286 import limits, measured_um
from shopmath.screw_threads.strength import proof_force_n
from shopmath.validation import BadInput
from shopmath.verdict import OUT, Conformity, judge
from stator.engines.cold_installation import cold_fit, typical_wall_mm
from stator.engines.fact_keys import FactKey, Location
from stator.engines.fits import SeatFit, bearing_of, fit_of
from stator.engines.models import Seat
from stator.engines.properties import Property
from stator.jobs.facts import Fact
from stator.shop.models import Driver, Press
from stator.stations.common.seat_state import SeatState, Size, seat_known, size_of
from stator.stations.framework import StationInput

CLOCKS = (12, 3, 6, 9)
STARTING = 1  # stage of the depths at which it stands when it starts
SEATED_MM, LEVEL_MM = 0.03, 0.10  # the thinnest feeler that should not go in; how even depths must be
NUT_RADIUS = 0.65  # mean radius where a nut rubs, of its screw's diameter
BY_HAMMER_N = 2000.0  # more than this is no work for a driver and a hammer: estimate
SCREW_CLASS = "8.8"
CALLIPER_U_MM = 0.05
TAP, PRESS, DRAW = "tap", "press", "draw"
HOME, STOPPED, CROOKED, LOOSE = "home", "stopped", "crooked", "loose"
FIRST = ("support", "driver")  # what must be so before it is pushed


class Code(StrEnum):
    """Codes of the verdicts of Install without heat."""

    NO_PLAN = "no plan"
    SEAT_IS_OUT = "seat is out"
    NOTHING_HOLDS = "nothing holds the ring"
    FORCE_UNKNOWN = "force unknown"
    NO_PRESS = "no press"
    GOES = "goes cold"
    WARM_IS_BETTER = "warm is better"
    NOT_COLD = "not cold"
    STARTS_CROOKED = "starts crooked"
    STARTS_UNSURE = "starts unsure"
    STARTED = "started square"
    STOPPED = "stopped"
    CROOKED = "crooked"
    LOOSE = "fell in"
    BINDS = "binds"
    IS_IT_HOME = "is it home"
    NOT_HOME = "not home"
    CIRCLIP_LOOSE = "circlip loose"
    TOO_LITTLE_FORCE = "too little force"
    HOME = "home"
    NO_PARTS = "no parts"
    PARTS_IN = "parts in"


FAILED = {STOPPED: Code.STOPPED, CROOKED: Code.CROOKED, LOOSE: Code.LOOSE}


@dataclass(frozen=True)
class ColdFitAnalysis:
    """All that is computed of one ring pushed into, or onto, its seat cold. Sizes in mm, forces in N."""

    given: StationInput
    seat: Seat

    # what is said

    def slot(self, what: Property, at: Location | None = None) -> FactKey:
        return FactKey(self.seat.part, what, at or Location())

    def said(self, what: Property) -> str:
        return self.given.own.said(self.slot(what), self.given.own.attempt)

    def value(self, what: Property, at: Location | None = None) -> float | None:
        return self.given.own.value(self.slot(what, at))

    def fact(self, what: Property, at: Location | None = None) -> Fact | None:
        """Return a fact from this attempt."""
        return self.given.own.fact(self.slot(what, at), self.given.own.attempt)

    def size(self, what: Property) -> Fact | None:
        """Return a size that is measured once for all attempts."""
        return self.given.own.fact(self.slot(what))

    # the parts

    @cached_property
    def bearing(self) -> Bearing:
        return bearing_of(self.seat)

    @property
    def onto_shaft(self) -> bool:
        return self.seat.on == Seat.On.SHAFT

    @property
    def nominal_mm(self) -> float:
        return self.bearing.bore_mm if self.onto_shaft else self.bearing.outside_mm

    @property
    def is_through(self) -> bool:
        """Return True if nothing in the seat stops it; a drawn cup goes to a depth."""
        return self.seat.stop == Seat.Stop.THROUGH or self.bearing.is_drawn_cup

    @property
    def is_plain(self) -> bool:
        """Return True if it is a pin or a bushing, which has no rings."""
        return False

    @property
    def has_circlip(self) -> bool:
        return self.seat.stop == Seat.Stop.CIRCLIP

    @cached_property
    def seat_known(self) -> SeatState:
        return seat_known(self.given.facts, self.seat, size_of(self.size(Property.SEAT_SIZE)))

    @property
    def ring_size(self) -> Size | None:
        return size_of(self.size(Property.RING_SIZE))

    @cached_property
    def trouble(self) -> BadInput | None:
        """Return why the fit cannot be computed."""
        try:
            _ = self.grip_mm, self.cold
        except BadInput as error:
            return error
        return None

    @cached_property
    def fit(self) -> SeatFit | None:
        """The fit of a ring that has a size of its own."""
        return None if self.bearing.is_drawn_cup else fit_of(self.seat, self.seat_known.size, self.ring_size)

    @cached_property
    def grip_mm(self) -> tuple[float, float, float] | None:
        """Return the interference, lowest, likely and highest; None for a drawn cup that nobody has measured."""
        if self.fit:
            pair = fit_of_limits(self.fit.inner.limits, self.fit.outer.limits)
        elif self.ring_size:
            known = self.seat_known.size
            seat = measured_um(known[0], self.nominal_mm, known[1]) if known else limits(self.seat.code, self.nominal_mm)
            pair = fit_of_limits(measured_um(self.ring_size[0], self.nominal_mm, self.ring_size[1]), seat)
        else:
            return None
        lowest, highest = pair.min_interference_mm, pair.max_interference_mm
        return lowest, (lowest + highest) / 2, highest

    @property
    def holds_nothing(self) -> bool:
        return self.grip_mm is not None and self.grip_mm[2] <= 0

    @property
    def wall_mm(self) -> float:
        """Of the boss where it is thinnest: measured, else typical."""
        known = self.known_wall
        return known.value if known and known.value else typical_wall_mm(self.nominal_mm)

    @cached_property
    def known_wall(self) -> Fact | None:
        return self.size(Property.WALL_THICKNESS) or self.given.facts.best(self.seat.part, Property.WALL_THICKNESS)

    @property
    def is_oiled(self) -> bool:
        return self.given.own.choice("oil", "oiled") == "oiled"

    # what it takes

    @cached_property
    def cold(self) -> ColdFit | None:
        """Return the parts of the fit; None if the interference is unknown."""
        interference = self.grip_mm
        if interference is None:
            return None
        return cold_fit(self.given.card, self.seat, self.bearing, interference, self.wall_mm, oiled=self.is_oiled)

    @cached_property
    def force(self) -> Estimate | None:
        return cold_force(self.cold) if self.cold else None

    @property
    def way(self) -> str:
        return self.given.own.choice("way", DRAW if not self.presses else PRESS)

    @cached_property
    def presses(self) -> tuple[Press, ...]:
        return self.given.shelves.presses if self.given.shelves else ()

    @cached_property
    def press(self) -> Press | None:
        """The press chosen, else the strongest there is."""
        chosen = self.given.own.choice("press")
        named = next((each for each in self.presses if str(each.pk) == chosen), None)
        return named or max(self.presses, key=lambda each: each.capacity_n, default=None)

    @property
    def screw(self) -> tuple[float, float] | None:
        """Diameter and pitch of the screw that draws it in."""
        d, pitch = self.value(Property.CENTRE_SCREW_DIAMETER), self.value(Property.CENTRE_SCREW_PITCH)
        return (d, pitch) if d and pitch else None

    @property
    def able_n(self) -> float | None:
        """Return what the way chosen can push with; None where that is not known."""
        if self.way == TAP:
            return BY_HAMMER_N
        if self.way == PRESS:
            return self.press.capacity_n if self.press else None
        return proof_force_n(SCREW_CLASS, *self.screw) if self.screw else None

    @cached_property
    def instead(self) -> Instead | None:
        """Return whether heat is the better way."""
        return heat_instead(self.cold, self.able_n) if self.cold else None

    @property
    def travel_mm(self) -> float:
        """From the start to the shoulder: measured, else its width."""
        return self.value(Property.TRAVEL) or self.bearing.width_mm

    @cached_property
    def draw(self) -> Draw | None:
        if self.cold is None or self.screw is None or self.way != DRAW:
            return None
        return drawn_in(self.cold, self.travel_mm, *self.screw, NUT_RADIUS * self.screw[0])

    # the driver

    @cached_property
    def window(self) -> drivers.Window:
        return drivers.inner_ring(self.bearing) if self.onto_shaft else drivers.outer_ring(self.bearing)

    @cached_property
    def fitting(self) -> list[Driver]:
        """The shop's drivers that land on the tight ring and nothing else."""
        shelf = self.given.shelves.drivers if self.given.shelves else ()
        return [each for each in shelf if not self.window.refusal(each.outside_mm, each.inside_mm)]

    # how it goes

    @property
    def unchecked(self) -> set[str]:
        """Lines that must be ticked before it is pushed, and are not."""
        return set() if self.outcome else set(FIRST) - self.given.own.ticked

    def _even(self, what: Property, stage: int | None, high: float) -> Conformity | None:
        """Return how even the depths at the four clocks are, once all are read."""
        found = [self.fact(what, Location(clock=clock, stage=stage)) for clock in CLOCKS]
        values = [each.value for each in found if each and each.value is not None]
        if len(values) < len(CLOCKS):
            return None
        u = max((each.uncertainty or 0.0) for each in found if each) or self.calliper_u_mm
        return judge(max(values) - min(values), high=high, uncertainty=2**0.5 * u, unit="mm", digits=2)

    @property
    def calliper_u_mm(self) -> float:
        gauges = self.given.shelves.gauges if self.given.shelves else ()
        found = next((each for each in gauges if each.kind == "calliper"), None)
        return gauge_uncertainty(found.resolution, found.repeatability, kind=found.kind) if found else CALLIPER_U_MM

    @property
    def lean_limit_mm(self) -> float:
        return max(start_lean_mm(self.cold) if self.cold else LEVEL_MM, LEVEL_MM)

    @cached_property
    def starts(self) -> Conformity | None:
        """Return whether it is square enough to be pushed in."""
        return self._even(Property.SEATING_DEPTH, STARTING, self.lean_limit_mm)

    @property
    def outcome(self) -> str:
        return self.said(Property.FIT_OUTCOME)

    @property
    def went_in(self) -> bool:
        return self.outcome == HOME

    @property
    def turned(self) -> float | None:
        return self._now(Property.SCREW_TURNS_DONE)

    @property
    def felt_nm(self) -> float | None:
        return self._now(Property.SCREW_TORQUE)

    @property
    def peak_n(self) -> float | None:
        return self._now(Property.PRESS_PEAK)

    def _now(self, what: Property) -> float | None:
        found = self.fact(what)
        return found.value if found else None

    @property
    def by_screw(self) -> str:
        """Return the verdict from turns and torque; empty if they were not recorded."""
        return seated_by_screw(self.draw, self.turned, self.felt_nm) if self.draw and self.turned is not None else ""

    @property
    def by_force(self) -> str:
        """Return what the force of the press says; empty where it was not read."""
        return pushed_with(self.force, self.peak_n) if self.force and self.peak_n is not None and self.way == PRESS else ""

    @cached_property
    def seated(self) -> Conformity | None:
        """Return the verdict on the gaps at its shoulder, or on equal depths if nothing locates it."""
        if self.is_through:
            return self._even(Property.SEATING_DEPTH, None, LEVEL_MM)
        found = [self.fact(Property.SEATING_GAP, Location(clock=clock)) for clock in CLOCKS]
        values = [each.value for each in found if each and each.value is not None]
        if len(values) < len(CLOCKS):
            return None
        u = max((each.uncertainty or 0.0) for each in found if each)
        return judge(max(values), high=SEATED_MM, uncertainty=u, unit="mm", digits=2)

    @property
    def stands_proud(self) -> bool:
        """Return True if any of it projects from the face, where it should be flush or below."""
        found = [self.fact(Property.SEATING_DEPTH, Location(clock=clock)) for clock in CLOCKS] if self.bearing.is_drawn_cup else []
        return any(each is not None and each.value is not None and each.value < -self.calliper_u_mm for each in found)

    @property
    def is_home(self) -> bool:
        """Return True if it went in and nothing says that it does not sit."""
        sits = self.seated is None or self.seated.state != OUT
        return self.went_in and sits and not self.stands_proud and self.said(Property.CIRCLIP) != "loose" and self.by_screw != "binds"


def cold_facts(given: StationInput) -> ColdFitAnalysis:
    """Return the analysis of the present seat."""
    assert given.seat is not None
    given.seat.card = given.card
    return ColdFitAnalysis(given, given.seat)
