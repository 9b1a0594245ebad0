"""Analysis of each seal: whether it belongs here, the direction of its lip, depth, squareness and distance from the bearing."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from shopmath import drivers
from shopmath.seals import (
    CLOCKS,
    Candidate,
    SealSeat,
    identify_seal,
    lip_side,
    lip_speed_m_s,
    lips_for,
    runout_under_lip_mm,
    seat_of_seal,
)
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import EngineCard, Seal
from stator.engines.parts import CRANK
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Fact
from stator.shop.equipment_snapshot import EquipmentSnapshot
from stator.shop.models import Driver
from stator.stations.framework import StationInput

TAB = "part"
USUAL_LIP = "nitrile"  # what a seal is of that says nothing else


class Code(StrEnum):
    """Codes of the verdicts of Install seals."""

    MEASURE = "measure"
    NOT_THIS_ONE = "not this one"
    WRONG_WAY = "wrong way"
    LIP = "lip"
    DRIVE = "drive"
    TOUCHES = "touches"
    TOUCH_CLOSE = "touch too close"
    CROOKED = "crooked"
    SQUARE_CLOSE = "square too close"
    DEPTH_OUT = "depth out"
    DEPTH_CLOSE = "depth too close"
    SEATED = "seated"


def depth_of(seal: Seal, clock: str) -> FactKey:
    """Return the key of the depth of a seal at one place."""
    return FactKey(seal.part, Property.SEAL_DEPTH, Location(clock=int(clock)))


@dataclass(frozen=True)
class SealFound:
    """All that Seals computes of one seal. Sizes in mm."""

    seal: Seal
    own: EntryData
    others: tuple[Seal, ...]
    shelves: EquipmentSnapshot | None
    rpm: float | None = None  # of the shaft under its lip, where the card says
    runs_out: Fact | None = None  # the shaft there, as trued

    def at(self, what: Property) -> FactKey:
        return FactKey(self.seal.part, what)

    def said(self, what: Property) -> str:
        return self.own.said(self.at(what))

    @cached_property
    def found_as(self) -> tuple[Candidate, ...] | None:
        """Return where a seal of the measured sizes belongs; None until it is measured."""
        shaft, bore = self.own.value(self.at(Property.SEAL_SHAFT)), self.own.value(self.at(Property.SEAL_BORE))
        if shaft is None or bore is None:
            return None
        return identify_seal(shaft, bore, [Candidate(each.uid, each.shaft_mm, each.bore_mm) for each in self.others])

    @property
    def shaft_mm(self) -> float:
        """As measured, once both sizes are, where the card's are only typical."""
        return self._size(Property.SEAL_SHAFT, self.seal.shaft_mm)

    @property
    def bore_mm(self) -> float:
        return self._size(Property.SEAL_BORE, self.seal.bore_mm)

    def _size(self, what: Property, on_card: float) -> float:
        measured = self.own.value(self.at(what)) if self.seal.sizes_assumed and self.found_as is not None else None
        return on_card if measured is None else measured

    @property
    def lip_speed(self) -> float | None:
        """m/s."""
        return lip_speed_m_s(self.shaft_mm, self.rpm) if self.rpm else None

    @property
    def is_too_fast(self) -> bool:
        """Return True if a plain lip does not stand the speed."""
        return self.lip_speed is not None and USUAL_LIP not in lips_for(self.lip_speed)

    @property
    def runout_most_mm(self) -> float | None:
        return runout_under_lip_mm(self.rpm) if self.rpm else None

    @property
    def runs_out_too_far(self) -> bool:
        """Return True if the shaft as trued runs out more than a lip follows."""
        highest, fact = self.runout_most_mm, self.runs_out
        return highest is not None and fact is not None and fact.value is not None and fact.value - (fact.uncertainty or 0.0) > highest

    @property
    def is_the_one(self) -> bool:
        found = self.found_as or ()
        if self.seal.sizes_assumed:  # what is measured is the first thing known of it, unless it is another one's for certain
            sure = {each.uid for each in self.others if not each.sizes_assumed}
            return not any(place.name in sure for place in found)
        return any(place.name == self.seal.uid for place in found)

    @property
    def belongs_at(self) -> str:
        """The place whose sizes it has; empty where the card has none."""
        uid = self.found_as[0].name if self.found_as else ""
        return next((each.name for each in self.others if each.uid == uid), "")

    @property
    def lip(self) -> str:
        """Return which way the lip faces, in the hand."""
        return self.said(Property.SEAL_LIP)

    @property
    def lip_by_rule(self) -> str:
        """Return the direction of the lip from what it retains; empty until answered."""
        saved = self.said(Property.SEAL_KEEPS)
        return lip_side(saved) if saved else ""

    @property
    def against_rule(self) -> bool:
        return bool(self.lip and self.lip_by_rule and self.lip != self.lip_by_rule)

    @property
    def page(self) -> str:
        """The page that allows an exception."""
        return self.said(Property.PAGE)

    @property
    def way_settled(self) -> bool:
        return bool(self.lip and self.lip_by_rule) and (not self.against_rule or bool(self.page))

    @property
    def depth_uncertainty(self) -> float:
        """The largest of the four."""
        facts = (self.own.fact(depth_of(self.seal, clock)) for clock in CLOCKS)
        return max((fact.uncertainty or 0.0 for fact in facts if fact), default=0.0)

    @cached_property
    def seating(self) -> SealSeat | None:
        """Return how it sits, once its four depths are in."""
        depths = [self.own.value(depth_of(self.seal, clock)) for clock in CLOCKS]
        if None in depths:
            return None
        sizes = [float(depth or 0) for depth in depths]
        behind = self.own.value(self.at(Property.BEARING_FACE_DEPTH))
        width = self.seal.width_mm if behind is not None else None
        return seat_of_seal(sizes, self.bore_mm, self.seal.depth_mm, self.depth_uncertainty, width_mm=width, bearing_depth_mm=behind)

    @cached_property
    def window(self) -> drivers.Window:
        return drivers.seal(self.shaft_mm, self.bore_mm)

    @cached_property
    def drivers(self) -> list[Driver]:
        """The shop's drivers that press on its rim and clear its spring."""
        shelf = self.shelves.drivers if self.shelves else ()
        return [each for each in shelf if not self.window.refusal(each.outside_mm, each.inside_mm)]


@dataclass(frozen=True)
class SealAnalysis:
    """The analysis of every seal of the card; one is being installed."""

    card: EngineCard
    own: EntryData
    seals: tuple[SealFound, ...]

    @property
    def case(self) -> str:
        """Return what its outside is: rubber, which most are, or bare metal, whose force can be reckoned."""
        return "metal" if self.own.choice("case") == "metal" else "rubber"

    @property
    def in_hand(self) -> SealFound:
        chosen = self.own.choice(TAB)
        return next((each for each in self.seals if each.seal.uid == chosen), self.seals[0])


def seals_facts(given: StationInput) -> SealAnalysis:
    """Return what Seals knows, built once for a page or an act."""
    seals = tuple(given.card.seals.all())
    return SealAnalysis(given.card, given.own, tuple(_of_one(given, seal, seals) for seal in seals))


def _of_one(given: StationInput, seal: Seal, seals: tuple[Seal, ...]) -> SealFound:
    """One seal; in front of a main bearing it runs on the crank."""
    on_crank = any(seat.pk == seal.seat_id and seat.is_main for seat in given.card.seats.all())
    runs_out = given.facts.best(CRANK, Property.CRANK_RUNOUT, Location(end=seal.half)) if on_crank else None
    return SealFound(seal, given.own, seals, given.shelves, given.card.wheel_rpm if on_crank else None, runs_out)
