"""Analysis of pins, bushings and plugs installed cold, each from its own fit, one part at a time."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

from shopmath import drivers, materials
from shopmath.bearings import Bearing
from shopmath.cold_installation import ColdFit
from shopmath.iso286 import Limits, limits, measured_um
from shopmath.iso286 import fit as fit_of_limits
from shopmath.verdict import OUT, Conformity, judge
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import Fitted, Seat
from stator.engines.properties import Property
from stator.jobs.facts import Fact
from stator.stations.common.seat_state import Size
from stator.stations.framework import StationInput
from stator.stations.install_without_heat.analysis import CLOCKS, LEVEL_MM, ColdFitAnalysis

TAB = "tab"  # the choice of the part in hand


@dataclass(frozen=True)
class PressInAnalysis(ColdFitAnalysis):
    """The analysis of one pin, bushing or plug pushed into its hole cold. Sizes in mm, forces in N."""

    thing: Fitted
    things: tuple[PressInAnalysis, ...] = ()  # the same of every part

    def slot(self, what: Property, at: Location | None = None) -> FactKey:
        return FactKey(self.thing.part, what, at or Location())

    @cached_property
    def bearing(self) -> Bearing:
        """Its sizes, as those of a ring."""
        thing = self.thing
        return Bearing(thing.name, thing.bore_mm, thing.d_mm, thing.length_mm, None, "N", (), source="card")

    def _limits(self, code: str, known: Size | None) -> Limits:
        return measured_um(known[0], self.nominal_mm, known[1]) if known else limits(code, self.nominal_mm)

    @cached_property
    def fit(self) -> None:
        """Hole and part go by their own codes."""
        return None

    @cached_property
    def grip_mm(self) -> tuple[float, float, float] | None:
        part, hole = self._limits(self.thing.part_code, self.ring_size), self._limits(self.thing.hole_code, self.seat_known.size)
        pair = fit_of_limits(part, hole)
        lowest, highest = pair.min_interference_mm, pair.max_interference_mm
        return lowest, (lowest + highest) / 2, highest

    @cached_property
    def cold(self) -> ColdFit | None:
        if self.grip_mm is None:
            return None
        thing, metal, own = self.thing, materials.get(self.given.card.case_material), materials.get(self.thing.metal)
        boss = thing.d_mm + 2 * self.wall_mm
        return ColdFit(self.grip_mm, thing.d_mm, thing.length_mm, boss, thing.bore_mm, metal, self.is_oiled, own.e_mpa, own.nu)

    @cached_property
    def window(self) -> drivers.Window:
        return drivers.pin_end(self.thing.d_mm)

    @cached_property
    def deep(self) -> Conformity | None:
        """Its end against the depth that the card gives."""
        found = [self.fact(Property.SEATING_DEPTH, Location(clock=clock)) for clock in CLOCKS]
        values = [each.value for each in found if each and each.value is not None]
        if len(values) < len(CLOCKS):
            return None
        thing, u = self.thing, max((each.uncertainty or 0.0) for each in found if each) or self.calliper_u_mm
        low, high = thing.depth_mm - thing.depth_within_mm, thing.depth_mm + thing.depth_within_mm
        return judge(sum(values) / len(values), low=low, high=high, uncertainty=u, unit="mm", digits=2)

    @cached_property
    def seated(self) -> Conformity | None:
        """Return the verdict on equal depths, or on the depth if they are equal."""
        even = self._even(Property.SEATING_DEPTH, None, LEVEL_MM)
        return even if even is None or even.state == OUT or self.deep is None else self.deep

    @cached_property
    def known_wall(self) -> Fact | None:
        return self.size(Property.WALL_THICKNESS)

    @property
    def is_through(self) -> bool:
        """Nothing stops it but its depth."""
        return True

    @property
    def is_plain(self) -> bool:
        return True

    @property
    def is_done(self) -> bool:
        """Return True if nothing is left to do with it."""
        return bool(self.outcome) and (not self.went_in or self.seated is not None)

    @property
    def all_done(self) -> bool:
        return bool(self.things) and all(each.is_done for each in self.things)


def part_facts(given: StationInput) -> PressInAnalysis:
    """Return the analysis of every part, and which is present: the selected one, or the first that is not installed."""
    things = [thing for thing in given.card.fitted.all() if thing.goes_in_tight]
    every = tuple(_of(given, thing) for thing in things)
    chosen = next((each for each in every if each.thing.uid == given.own.choice(TAB) and not each.is_done), None)
    left = chosen or next((each for each in every if not each.is_done), None) or next(iter(reversed(every)), None)
    return replace(left, things=every) if left else _of(given, Fitted(card=given.card, d_mm=10.0, length_mm=10.0))


def _of(given: StationInput, thing: Fitted) -> PressInAnalysis:
    thing.card = given.card
    sizes = {"bore_mm": thing.bore_mm, "outside_mm": thing.d_mm, "width_mm": thing.length_mm, "code": thing.hole_code}
    where = {"half": thing.half, "loads_from": thing.loads_from, "stop": Seat.Stop.THROUGH}
    return PressInAnalysis(given, Seat(card=given.card, uid=thing.uid, name=thing.name, **where, **sizes), thing)
