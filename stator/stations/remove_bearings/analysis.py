"""Analysis of a seat with its bearing and the seal in front: how it sat, what retains it, removal methods, and the result."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from shopmath import drivers, materials
from shopmath.amounts import NEAREST, Amount, celsius, estimate
from shopmath.bearing_removal import RemovalMethod, SeatPicture, ways
from shopmath.bearings import Bearing
from shopmath.cold_installation import cold_force
from shopmath.estimate import Estimate
from shopmath.gauges import gauge_uncertainty
from shopmath.iso286 import fit as fit_of_limits
from shopmath.seals import CLOCKS, SealSeat, seat_of_seal
from shopmath.thermal.bearing_removal import Freeing, freeing
from shopmath.thermal.limits import case_limits, method_refusal, ring_hot_limits
from stator.engines.case import OUTSIDE
from stator.engines.cold_installation import cold_fit, typical_wall_mm
from stator.engines.fact_keys import FactKey, Location
from stator.engines.fits import SeatFit, bearing_of, fit_of
from stator.engines.models import EngineCard, Seal, Seat
from stator.engines.models.case import case_part
from stator.engines.models.places import seal_in_front_of
from stator.engines.parts import Part
from stator.engines.properties import Property
from stator.jobs.facts import EntryData
from stator.shop.equipment_snapshot import EquipmentSnapshot
from stator.shop.models import Driver
from stator.stations.framework import StationInput

CALLIPER_U_MM = 0.05
STUCK, TRIED = "stuck", "tried"  # the answer that it is still in; a way that did not bring it out, as a move
WITH_CRANK, WITH_SHAFT = "with_crank", "with_shaft"  # the answers that it left its seat on the crank, or on the shaft of a cover
FIRST = ("dry", "side")  # what must be so before the bearing is touched


class Code(StrEnum):
    """Codes of the verdicts of Remove bearings."""

    STILL_IN = "still in"
    SEAL_FIRST = "seal first"
    SEAL_GOOD = "seal good"
    SEAL_UNSURE = "seal unsure"
    SEAL_BAD = "seal bad"
    RETAINED = "retained"
    REFUSED = "refused"
    LOOK_FIRST = "look first"
    DROP = "drop"
    SPRAY = "spray"
    DRIVE = "drive"
    OTHER_WAY = "other way"
    LAST_RESORT = "last resort"
    LOOK_NOW = "look now"
    OUT_DAMAGED = "out, damaged"
    OUT_UNLIKE_CARD = "out, not as the card says"
    OUT = "out"
    ON_CRANK = "on the crank"
    ON_SHAFT = "on its shaft"


WAY_CODES = {"drop": Code.DROP, "spray": Code.SPRAY, "drive": Code.DRIVE, "cut": Code.LAST_RESORT}
STOPS = {Seat.Stop.CIRCLIP: "circlip", Seat.Stop.PLATE: "plate"}


@dataclass(frozen=True)
class BearingRemovalAnalysis:
    """The analysis of one seat at Remove bearings. Sizes in mm, temperatures in °C."""

    card: EngineCard
    seat: Seat
    own: EntryData
    shelves: EquipmentSnapshot | None
    seal: Seal | None
    wall_mm: float | None = None  # of its boss, where that was measured

    @property
    def part(self) -> Part:
        return self.seat.part

    def at(self, what: Property) -> FactKey:
        """The address of something about this seat."""
        return FactKey(self.part, what)

    def of_seal(self, what: Property, clock: str = "") -> FactKey:
        """The address of something about the seal in front of it."""
        assert self.seal is not None
        return FactKey(self.seal.part, what, Location(clock=int(clock)) if clock else Location())

    def said(self, what: Property) -> str:
        return self.own.said(self.at(what))

    @cached_property
    def bearing(self) -> Bearing:
        return bearing_of(self.seat)

    @cached_property
    def fit(self) -> SeatFit | None:
        """The fit of a ring that has a size of its own."""
        return None if self.bearing.is_drawn_cup else fit_of(self.seat)

    @property
    def is_on_shaft(self) -> bool:
        return self.seat.on == Seat.On.SHAFT

    # the seal

    @property
    def seal_answered(self) -> bool:
        return bool(self.seal and self.own.said(self.of_seal(Property.SEAL_OUT)))

    @property
    def seal_is_out(self) -> bool:
        return bool(self.seal and self.own.said(self.of_seal(Property.SEAL_OUT)) == "yes")

    @property
    def lip_is_wrong(self) -> bool:
        """Return True if its lip faced the other way than the card has it."""
        return bool(self.seal and self.lip and self.seal.lip and self.lip != self.seal.lip)

    @property
    def lip(self) -> str:
        """Return which way its lip faced, as found; empty where nobody looked."""
        return self.own.said(self.of_seal(Property.SEAL_LIP)) if self.seal else ""

    def depth(self, clock: str) -> float | None:
        return self.own.value(self.of_seal(Property.SEAL_DEPTH, clock)) if self.seal else None

    @property
    def uncertainty_mm(self) -> float:
        """Of one depth."""
        gauges = self.shelves.gauges if self.shelves else ()
        gauge = next((each for each in gauges if each.kind == "calliper"), None)
        return gauge_uncertainty(gauge.resolution, gauge.repeatability, kind=gauge.kind) if gauge else CALLIPER_U_MM

    @cached_property
    def seal_seat(self) -> SealSeat | None:
        """Return how the seal sat, once its depth is known at four places."""
        depths = [self.depth(clock) for clock in CLOCKS]
        if not self.seal or None in depths:
            return None
        behind = self.own.value(self.at(Property.BEARING_FACE_DEPTH))
        sizes = [float(depth or 0) for depth in depths]
        return seat_of_seal(
            sizes, self.seal.bore_mm, self.seal.depth_mm, self.uncertainty_mm, width_mm=self.seal.width_mm, bearing_depth_mm=behind
        )

    # what holds the bearing

    @property
    def retained(self) -> str:
        """Return what still holds the ring, as found; by the card until somebody looked."""
        found = self.said(Property.RETAINED_BY)
        if found:
            return "" if found in ("none", "removed") else found
        return STOPS.get(Seat.Stop(self.seat.stop), "")

    @property
    def is_blind(self) -> bool | None:
        found = self.said(Property.REACH) or self.seat.bottom
        return None if not found else found == "blind"

    @property
    def shields(self) -> str:
        """Open or closed, as found; by the marking until somebody looked."""
        both = any("both" in part for part in self.bearing.understood)
        marked = "open" if self.bearing.seal == "open" else "both" if both else "one"
        return self.said(Property.SHIELDS) or marked

    @property
    def is_scrap(self) -> bool:
        return self.said(Property.BEARING_DECISION) == "scrap"

    @cached_property
    def freeing(self) -> Freeing | None:
        """Return how hot the case must be; None for a ring on a shaft, and for a drawn cup."""
        if self.fit is None or self.fit.onto_shaft:
            return None
        interference = fit_of_limits(self.fit.inner.limits, self.fit.outer.limits)
        left_in = tuple(self.seat.left_in) + (("nitrile_seal",) if self.seal and not self.seal_is_out else ())
        ring = [] if self.is_scrap else ring_hot_limits(self.bearing)
        limits = sorted((*case_limits(self.fit.outer_material, left_in), *ring), key=lambda limit: limit.limit_c)
        return freeing(
            self.fit.nominal_mm,
            max(0.0, interference.min_interference_mm),
            max(0.0, interference.max_interference_mm),
            self.fit.outer_material.alpha,
            self.fit.inner_material.alpha,
            limits[0] if limits else None,
        )

    @cached_property
    def holds(self) -> Estimate | None:
        """Return the force to pull it out cold and dry, N; None if nothing grips or its size is unknown."""
        if self.fit is None:
            return None
        interference = fit_of_limits(self.fit.inner.limits, self.fit.outer.limits)
        lowest, highest = interference.min_interference_mm, interference.max_interference_mm
        wall = self.wall_mm or typical_wall_mm(self.fit.nominal_mm)
        pushed = cold_fit(self.card, self.seat, self.bearing, (lowest, (lowest + highest) / 2, highest), wall, oiled=False)
        return cold_force(pushed) if highest > 0 else None

    # ways out

    @cached_property
    def tools(self) -> frozenset[str]:
        """Return the kinds of the shop's tools that fit this seat."""
        if self.shelves is None:
            return frozenset()
        size = self.bearing.outside_mm if self.is_on_shaft else self.bearing.bore_mm
        found = {each.kind for each in self.shelves.extractors if each.low_mm <= size <= each.high_mm}
        found |= {"press"} if self.shelves.presses else set()
        found |= {"spray"} if any(each.method == "spray" for each in self.shelves.chillers) else set()
        return frozenset(found)

    @cached_property
    def ways(self) -> tuple[RemovalMethod, ...]:
        """Every way out, the gentlest first."""
        found = self.freeing
        return ways(
            SeatPicture(
                on_shaft=self.is_on_shaft,
                blind=self.is_blind,
                retained=self.retained,
                shields=self.shields,
                thin_wall=self.seat.thin_wall,
                magnesium=materials.get(self.card.case_material).flammable,
                frees_by_heat=found.call.state if found else "in",
                frees_sprayed=found.sprayed_call.state if found else "in",
                tools=self.tools,
                drawn_cup=self.bearing.is_drawn_cup,
            )
        )

    @cached_property
    def way(self) -> RemovalMethod:
        """The way chosen, else the gentlest."""
        chosen = self.own.choice("way")
        return next((method for method in self.ways if method.key == chosen), self.ways[0])

    @property
    def other_ways(self) -> list[RemovalMethod]:
        """Return what else may be tried."""
        usable = [method for method in self.ways if method.state != "stop" and method.key != self.way.key]
        return [method for method in usable if method.key not in self.tried] or usable

    @property
    def tried(self) -> list[str]:
        """Ways that did not bring it out."""
        return [each.text for each in self.own.done(TRIED)]

    @cached_property
    def window(self) -> drivers.Window:
        return drivers.inner_ring(self.bearing) if self.is_on_shaft else drivers.outer_ring(self.bearing)

    @cached_property
    def fitting(self) -> list[Driver]:
        """The shop's drivers that land on the tight ring and nothing else."""
        shelf = self.shelves.drivers if self.shelves else ()
        return [each for each in shelf if not self.window.refusal(each.outside_mm, each.inside_mm)]

    @property
    def torch_is_refused(self) -> bool:
        return bool(method_refusal(materials.get(self.card.case_material), "torch"))

    @property
    def unchecked(self) -> set[str]:
        """Lines that must be ticked before the bearing is touched, and are not."""
        return set() if self.outcome else set(FIRST) - self.own.ticked

    # how it came out

    @property
    def outcome(self) -> str:
        return self.own.said(self.at(Property.CAME_OUT), self.own.attempt)

    @property
    def may_come_with_crank(self) -> bool:
        """Return True if it may leave its seat in the case on the crank."""
        return self.seat.is_main and not self.is_on_shaft

    @property
    def may_come_with_shaft(self) -> bool:
        """Return True if it may leave its seat in a cover on the shaft that ran in it."""
        part = case_part(self.seat.card, self.seat.half)
        return part is not None and part.what in OUTSIDE and not self.is_on_shaft and not self.seat.is_main

    @property
    def stayed(self) -> tuple[str, ...]:
        """Answers that there are here for a bearing that left its seat and is on something still."""
        return (*((WITH_CRANK,) if self.may_come_with_crank else ()), *((WITH_SHAFT,) if self.may_come_with_shaft else ()))

    @property
    def is_out(self) -> bool:
        return self.outcome not in ("", STUCK)

    @property
    def faults(self) -> list[str]:
        """Return what is wrong with bearing, seat and seal, as codes."""
        found = []
        if self.said(Property.HIT_THROUGH_BALLS) == "yes":
            found.append("hit_through_balls")
        if self.outcome == "broke":
            found.append("in_pieces")
        found += {"spun": ["seat_spun"], "scored": ["seat_scored"]}.get(self.said(Property.SEAT_CONDITION), [])
        sat = self.seal_seat
        if sat and sat.clear and sat.clear.state == "out":
            found.append("seal_pressed")
        return found

    @property
    def is_replaced(self) -> bool:
        """Return True if the bearing cannot go back: scrap, in pieces, or driven through its balls."""
        return self.is_scrap or self.outcome == "broke" or self.said(Property.HIT_THROUGH_BALLS) == "yes"

    def way_round_differs(self) -> bool:
        faced = self.said(Property.WAY_ROUND)
        return bool(faced and self.seat.faces and faced != self.seat.faces)

    def marking_differs(self) -> bool:
        marking = self.said(Property.BEARING_MARKING)
        return bool(marking) and "".join(marking.upper().split()) != "".join(self.bearing.designation.upper().split())

    @property
    def stop_on_card(self) -> str:
        return STOPS.get(Seat.Stop(self.seat.stop), "none")


def bearings_out_facts(given: StationInput) -> BearingRemovalAnalysis:
    """Return the analysis of the present seat."""
    assert given.seat is not None
    given.seat.card = given.card
    wall = given.facts.best(given.seat.part, Property.WALL_THICKNESS)
    seal = seal_in_front_of(given.card, given.seat)
    return BearingRemovalAnalysis(given.card, given.seat, given.own, given.shelves, seal, wall.value if wall else None)


def estimated_c(found: Estimate, toward: str = "") -> Amount:
    """Return an estimated temperature as it is shown: the likely one, or the high end rounded up."""
    return estimate(celsius(found.high if toward else found.likely), (found.high - found.low) / 2, toward or NEAREST)
