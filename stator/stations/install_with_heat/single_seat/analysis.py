"""Analysis of one bearing installed hot: the plan, the state of the heat, the outcome, and whether it is seated."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from enum import StrEnum
from functools import cached_property

from shopmath.thermal.plan import HeatPlan
from shopmath.validation import BadInput
from shopmath.verdict import OUT, Conformity, judge
from stator.engines.fact_keys import Location
from stator.engines.models import Seat
from stator.engines.parts import Part
from stator.engines.properties import Property
from stator.jobs.facts import Fact, MeasuredReading
from stator.shop.models import Heater
from stator.stations.common.seat_state import SeatState, seat_known, size_of
from stator.stations.framework import StationInput
from stator.stations.install_with_heat import live_temperatures, setup
from stator.stations.install_with_heat.heat import HOME, HeatState
from stator.stations.install_with_heat.single_seat import history

CLOCKS = (12, 3, 6, 9)
SEATED_MM = 0.03  # the thinnest feeler that should not go in
SQUARE_MM = 0.10
COLD_C = 20.0  # sizes hold there


class Phase(StrEnum):
    """Phases of a heat for one seat."""

    PLAN = "plan"
    HEATING = "heating"
    WINDOW = "window"
    AFTER = "after"


class Code(StrEnum):
    """Codes of the verdicts on one seat in one heat."""

    NO_PLAN = "no plan"
    SEAT_IS_OUT = "seat is out"
    NOTHING_HOLDS = "nothing holds the ring"
    STOP = "stop"
    GOES = "goes"
    GOES_ON = "goes on"
    UNSURE = "unsure"
    WONT = "won't"
    WONT_ON = "won't on"
    NOT_YET = "not yet"
    SHUT = "window shut"
    JAMMED = "jammed"
    CROOKED = "crooked"
    CIRCLIP_LOOSE = "circlip loose"
    IS_IT_HOME = "is it home"
    NOT_HOME = "not home"
    SEATED = "seated"


@dataclass(frozen=True)
class SingleSeatAnalysis(HeatState):
    """All that is computed of one seat. Sizes in mm, temperatures in °C, times in s."""

    seat: Seat
    past: list[history.Heat] = field(default_factory=list)

    @property
    def hot_part(self) -> Part:
        return self.seat.part

    @property
    def onto_shaft(self) -> bool:
        return self.seat.on == Seat.On.SHAFT

    @property
    def outer(self) -> str:
        """Return what is heated, by its key in `fit.words.NAMES`."""
        return "bearing" if self.onto_shaft else "case"

    @property
    def partner(self) -> str:
        return "shaft" if self.onto_shaft else "bearing"

    @property
    def is_through(self) -> bool:
        """Return True if nothing in the seat stops the ring."""
        return self.seat.stop == Seat.Stop.THROUGH

    @property
    def has_circlip(self) -> bool:
        return self.seat.stop == Seat.Stop.CIRCLIP

    @property
    def is_set(self) -> bool:
        """Return True if its heater has a temperature to be set to."""
        return self.heater is not None and self.heater.method in (Heater.Method.OVEN, Heater.Method.HOT_PLATE)

    # the plan

    @cached_property
    def seat_known(self) -> SeatState:
        here = size_of(self.own.fact(self.slot(Property.SEAT_SIZE)))
        return seat_known(self.given.facts, self.seat, here)

    @cached_property
    def planned(self) -> setup.SeatPlan:
        wishes = setup.PlanOptions(
            heater=self.heater,
            chiller=self.chiller,
            room_c=self.value(Property.AIR_TEMPERATURE),
            heat_c=self.value(Property.HEATER_SETTING),
            target_c=self.value(Property.HEAT_TARGET),
            chill_for_s=self.value(Property.CHILL_STAY),
            seat_mm=self.seat_known.size,
            ring_mm=size_of(self.own.fact(self.slot(Property.RING_SIZE))),
            wanted=self.wanted,
            slower=history.slower(self.past),
        )
        return setup.planned(self.seat, wishes, self.shop)

    @property
    def measured_at(self) -> str:
        """Return the key of the station whose seat size is used for the plan.

        It is empty if it was measured here or not at all.
        """
        known = self.seat_known
        return known.measured_at if known.measured_here is None and known.is_measured_before else ""

    @property
    def plan(self) -> HeatPlan:
        return self.planned.plan

    @cached_property
    def trouble(self) -> BadInput | None:
        """Return why no plan can be made."""
        try:
            _ = self.planned
        except BadInput as error:
            return error
        return None

    @property
    def opens_mm(self) -> float:
        """Return how much the heated part opens at the plan's temperature, from 20 °C."""
        setup = self.plan.setup
        return setup.nominal_mm * setup.opening_alpha * (self.plan.target_c - COLD_C)

    @property
    def shrinks_mm(self) -> float:
        """Return how much the chilled part shrinks at the plan's temperature, from 20 °C."""
        setup = self.plan.setup
        return setup.nominal_mm * setup.inner_alpha * (COLD_C - self.plan.chill_c)

    # the heat as it runs

    @cached_property
    def cold(self) -> list[MeasuredReading]:
        """Temperatures read of the cold part."""
        return self.own.all(self.slot(Property.COLD_TEMPERATURE), self.attempt)

    @cached_property
    def run(self) -> live_temperatures.Running:
        heat, chill, window = (self.timer(key) for key in ("heat", "chill", "window"))
        return live_temperatures.running(self.plan.setup, self.plan.target_c, lambda: self.now, heat, chill, window, self.hot, self.cold)

    @property
    def outcome(self) -> str:
        return self.said(Property.FIT_OUTCOME)

    @property
    def jams(self) -> int:
        """Return how often the bearing jammed or tilted, in this heat and earlier ones."""
        said = [each.text for each in self.own.all(self.slot(Property.FIT_OUTCOME))]
        return sum(each not in HOME for each in said)

    @property
    def went_in(self) -> bool:
        return self.outcome in HOME

    @cached_property
    def phase(self) -> Phase:
        if self.outcome:
            return Phase.AFTER
        if self.timer("window"):
            return Phase.WINDOW
        return Phase.HEATING if self.timer("heat") or self.timer("chill") else Phase.PLAN

    @property
    def is_live(self) -> bool:
        return self.phase in (Phase.HEATING, Phase.WINDOW)

    # is it home?

    def _at_clock(self, what: Property, clock: int) -> Fact | None:
        return self.own.fact(self.slot(what, Location(clock=clock)), self.attempt)

    @cached_property
    def seated(self) -> Conformity | None:
        """Return the verdict on the gaps (none larger than the thinnest feeler gauge), or on equal depths."""
        what = Property.SEATING_DEPTH if self.is_through else Property.SEATING_GAP
        found = [fact for clock in CLOCKS if (fact := self._at_clock(what, clock)) and fact.value is not None]
        if len(found) < len(CLOCKS):
            return None
        uncertainty = max(fact.uncertainty or 0.0 for fact in found)
        values = [float(fact.value or 0) for fact in found]
        if self.is_through:
            return judge(max(values) - min(values), high=SQUARE_MM, uncertainty=math.sqrt(2) * uncertainty, unit="mm", digits=2)
        cold = self.value(Property.SEATING_GAP_COLD)
        worst = max(values if cold is None else [*values, cold])
        return judge(worst, high=SEATED_MM, uncertainty=uncertainty, unit="mm", digits=2)

    @property
    def is_home(self) -> bool:
        """Return True if it went in and nothing says that it does not sit."""
        sits = self.seated is None or self.seated.state != OUT
        return self.went_in and sits and self.said(Property.CIRCLIP) != "loose"


def one_seat(given: StationInput) -> SingleSeatAnalysis:
    """Return the analysis of one seat's heat from card, facts, readings of the entry and shop equipment."""
    assert given.seat is not None
    return SingleSeatAnalysis(given, given.seat, list(given.past))
