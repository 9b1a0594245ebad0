"""Analysis of two halves being separated: fasteners, the splitter's thread, the plane of each round of gaps, and loose parts."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import cached_property
from itertools import combinations
from typing import Any

from shopmath import materials
from shopmath.estimate import Estimate
from shopmath.gap_plane import GapCheck, GapPlane, Point, check_gaps, fit
from shopmath.splitting import (
    Census,
    DowelFit,
    Move,
    Place,
    Screws,
    census,
    journal_grip_n,
    lead_allowed_mm,
    next_move,
    split_call,
    splitter_screws,
)
from shopmath.validation import BadInput
from shopmath.verdict import Conformity
from stator.engines.case import is_outside, joints_of
from stator.engines.fact_keys import FactKey
from stator.engines.fits import bearing_of
from stator.engines.models import EngineCard, Joint, Mark, Seat
from stator.engines.parts import JOINT, Kind, Part
from stator.engines.properties import Property
from stator.jobs.facts import EntryData
from stator.shop.models import Splitter
from stator.stations.framework import StationInput
from stator.stations.split_crankcase.locations import MOST_SIGMA_MM, GapPlace, gap_places

LENGTH_OFF_MM = 1.0  # a bolt this much off its card is not that bolt
UNCERTAIN_MM = {"feeler": 0.03, "calliper": 0.05, "rule": 0.5}  # of a gap, by what it is measured with
FLATNESS_MM = 0.02  # of a joint face, as a standard uncertainty
MOST_LOOSE = 24
TAB = "tab"  # the choice of the joint in hand
USUAL_UTS_MPA, USUAL_SCREWS, USUAL_PUSH_PITCH_MM = 200.0, 2, 1.5


class Code(StrEnum):
    """Codes of the verdicts of Split crankcase."""

    COUNT_AGAIN = "count again"
    BOLT_STILL_IN = "bolt still in"
    FASTENERS_OUT = "fasteners out"
    COUNT = "count"
    MORE_THREAD = "more thread"
    SCREWS_UNSURE = "screws unsure"
    READY = "ready"
    ALL_OUT = "all out"
    THREAD_NOT_CHECKED = "thread not checked"
    MEASURE = "measure"
    DISAGREE = "disagree"
    LEVEL = "level"
    UNEVEN = "uneven"
    BINDING = "binding"
    FREE = "free"
    LOOK_FOR_LOOSE = "look for loose parts"
    APART = "apart"
    BY_HAND = "by hand"
    OFF = "off"
    ALL_APART = "all apart"


class Done(StrEnum):
    """Actions that Split crankcase records."""

    LOADED = "loaded"
    PARTED = "parted"
    LEFT = "left closed"


def length_of(mark: Mark) -> FactKey:
    return FactKey(mark.part, Property.BOLT_LENGTH)


def fault_of(mark: Mark) -> FactKey:
    """Return the key of a fastener's failure (snapped, or missing)."""
    return FactKey(mark.part, Property.FASTENER_FAULT)


@dataclass(frozen=True)
class Loose:
    """A washer or shim found on a half: its place on the tray, what it is, where it was."""

    part: Part
    what: str
    from_where: str
    half: str

    def slot(self, what: Property) -> FactKey:
        return FactKey(self.part, what)


@dataclass(frozen=True)
class SplitAnalysis:
    """All that Split computes of one joint. Gaps and lengths in mm, forces in N."""

    joint: Joint
    own: EntryData
    marks: tuple[Mark, ...]
    places: tuple[GapPlace, ...]
    splitter: Splitter | None
    splitters: tuple[Splitter, ...]
    lifts: str
    joints: tuple[SplitAnalysis, ...] = ()  # the same of every joint, in the order in which they open

    @property
    def card(self) -> EngineCard:
        return self.joint.card

    def of(self, what: Property) -> FactKey:
        """The place of a reading about this joint."""
        return FactKey(self.joint.part, what)

    @property
    def every(self) -> tuple[SplitAnalysis, ...]:
        return self.joints or (self,)

    @property
    def is_outside(self) -> bool:
        """Return True if a cover or a gearbox half comes off here, which no splitter pulls."""
        return is_outside(self.joint)

    # what hands did

    def did(self, kind: Done) -> bool:
        """Return True if hands did it at this joint; a move without a place was at the first."""
        return any((each.part or JOINT) == self.joint.part for each in self.own.done(kind))

    @property
    def is_loaded(self) -> bool:
        return self.did(Done.LOADED)

    @property
    def is_apart(self) -> bool:
        return self.did(Done.PARTED)

    @property
    def stays_closed(self) -> bool:
        return self.did(Done.LEFT) and not self.is_apart

    @property
    def is_through(self) -> bool:
        """Return True if the joint is finished: it remains closed, or is apart with its loose parts assigned."""
        left = self.loose_number(len(self.loose) + 1)
        return self.stays_closed or (self.is_apart and self.own.was_skipped(left.slot(Property.LOOSE_PART)))

    @property
    def all_through(self) -> bool:
        return all(each.is_through for each in self.every)

    @property
    def round_now(self) -> int:
        """Return which round of gaps this is, at this joint."""
        return 1 + sum(bool(self.points(number)) for number in range(1, self.own.attempt))

    @property
    def how(self) -> str:
        """Return what the gaps are measured with."""
        chosen = self.own.choice("how", "feeler")
        return chosen if chosen in UNCERTAIN_MM else "feeler"

    # fasteners

    @property
    def fasteners(self) -> list[Mark]:
        return [mark for mark in self.marks if mark.is_fastener]

    @property
    def counted(self) -> float | None:
        return self.own.value(self.of(Property.FASTENERS_COUNTED))

    def is_out(self, mark: Mark) -> bool:
        """Ticked out, by its length or by a bare Enter; or snapped, or never there."""
        ticked = self.own.has(length_of(mark)) or self.own.was_skipped(length_of(mark))
        return ticked or self.own.has(fault_of(mark))

    def with_fault(self, *faults: str) -> list[Mark]:
        """Fasteners that were found so: `snapped`, `missing`, `stripped`."""
        return [mark for mark in self.fasteners if self.own.said(fault_of(mark)) in faults]

    @property
    def held_elsewhere(self) -> bool:
        """Return True if this joint has no bolts of its own because bolts of another joint pass through it."""
        return not self.fasteners and not self.is_outside and any(each.fasteners for each in self.every if not each.is_outside)

    @property
    def out(self) -> list[str]:
        return [mark.name for mark in self.fasteners if self.is_out(mark)]

    @cached_property
    def census(self) -> Census:
        """Fasteners out against those on the card, or against the parts list where the card has none."""
        counted, out, never = self.counted, self.out, self.with_fault("missing")
        places = [Place(mark.name, mark.x_mm, mark.y_mm) for mark in self.fasteners if mark not in never]
        if not places:
            expected = self.own.value(self.of(Property.FASTENERS_EXPECTED))
            places = [Place(str(number), 0.0, 0.0) for number in range(1, int(expected or counted or 0) + 1)]
            out = [place.name for place in places]
        out = [name for name in out if name in {place.name for place in places}]
        unmeasured = [mark.name for mark in self.fasteners if not self.own.has(length_of(mark))]
        lagging = self.place_named(self.plane.lagging_name).place if self.plane else None
        near = (lagging.x_mm, lagging.y_mm) if lagging else None
        return census(places, out, None if counted is None else int(counted), unmeasured, near)

    @property
    def census_values(self) -> dict[str, Any]:
        """For the sentences about the count."""
        return {**self.census.call.values, "count": len(self.census.missing)}

    def length_off(self, mark: Mark) -> float | None:
        """Return the length of a fastener if it differs from the card; otherwise None."""
        found = self.own.value(length_of(mark))
        if found is None or not mark.length_mm or abs(found - mark.length_mm) <= LENGTH_OFF_MM:
            return None
        return found

    # the splitter's screws in the case

    @cached_property
    def grip_n(self) -> Estimate:
        """Return what the mains of the lifting half may hold the crank with."""
        mains = [seat for seat in self.card.seats.all() if seat.on == Seat.On.CASE and seat.half == self.lifts and seat.is_main]
        return journal_grip_n([bearing_of(seat) for seat in mains])

    @cached_property
    def screws(self) -> Screws | None:
        """None while the splitter is not measured."""
        turns = self.own.value(self.of(Property.SPLITTER_SCREW_TURNS))
        d = self.splitter.thread_mm if self.splitter else self.own.value(self.of(Property.SPLITTER_SCREW_DIAMETER))
        pitch = self.splitter.pitch_mm if self.splitter else self.own.value(self.of(Property.SPLITTER_SCREW_PITCH))
        if turns is None or d is None or pitch is None:
            return None
        metal = materials.get(self.card.case_material)
        strength = metal.uts_mpa[0] if metal.uts_mpa else USUAL_UTS_MPA
        return splitter_screws(d, pitch, turns / 360, strength, self.splitter.screws if self.splitter else USUAL_SCREWS, self.grip_n)

    # gaps, round by round

    def place_named(self, name: str) -> GapPlace:
        return next(each for each in self.places if each.place.name == name)

    def gap(self, place: GapPlace, attempt: int | None = None) -> float | None:
        return self.own.value(place.slot, attempt or self.own.attempt) if self.own.all(place.slot, attempt or self.own.attempt) else None

    def points(self, attempt: int) -> list[Point]:
        found = ((each.place, self.gap(each, attempt)) for each in self.places)
        return [Point(place.name, place.x_mm, place.y_mm, gap) for place, gap in found if gap is not None]

    def plane_of(self, attempt: int) -> GapPlane | None:
        """Return the plane through the gaps of one round; None if it is unknown."""
        points = self.points(attempt)
        try:
            return fit(points) if len(points) >= 3 else None
        except BadInput:
            return None

    @cached_property
    def plane(self) -> GapPlane | None:
        return self.plane_of(self.own.attempt)

    @cached_property
    def rounds(self) -> list[tuple[int, GapPlane]]:
        """Every round that made a plane, with its number."""
        return [(number, plane) for number in range(1, self.own.attempt + 1) if (plane := self.plane_of(number))]

    @property
    def taken_now(self) -> int:
        """Gaps of this round."""
        return len(self.points(self.own.attempt))

    @property
    def ends_mm(self) -> tuple[float, float]:
        """Fitted gap at the laggard and at the leader."""
        if not self.plane:
            return 0.0, 0.0
        points = self.points(self.own.attempt)
        fitted = {point.name: point.gap_mm - off for point, off in zip(points, self.plane.residuals, strict=True)}
        return fitted[self.plane.lagging_name], fitted[self.plane.leading_name]

    @property
    def sigma_mm(self) -> float:
        """Standard uncertainty of one gap: by what it is measured with, and of the face it is measured on."""
        found = math.hypot(UNCERTAIN_MM[self.how] / 2, FLATNESS_MM)
        return found if self.how == "rule" else min(found, MOST_SIGMA_MM)

    @cached_property
    def suspect(self) -> GapCheck | None:
        """Return why the gaps of this round cannot all be right, with the places to measure again; otherwise None."""
        found = check_gaps(self.points(self.own.attempt), self.sigma_mm) if self.plane else None
        return found if found and found.suspect else None

    @property
    def again(self) -> list[GapPlace]:
        """Places to measure again."""
        return [self.place_named(name) for name in self.suspect.again] if self.suspect else []

    @cached_property
    def dowels(self) -> list[DowelFit]:
        return [DowelFit(mark.clearance_mm, mark.engaged_mm) for mark in self.marks if mark.what == Mark.What.DOWEL] or [DowelFit()]

    @property
    def dowels_assumed(self) -> bool:
        dowels = [mark for mark in self.marks if mark.what == Mark.What.DOWEL]
        return not dowels or any(mark.assumed for mark in dowels)

    @property
    def tightest(self) -> DowelFit:
        return min(self.dowels, key=lambda each: each.clearance_mm / each.engaged_mm)

    @property
    def places_assumed(self) -> bool:
        return not any(mark.what == Mark.What.GAP for mark in self.marks)

    @property
    def span_mm(self) -> float:
        """Across the joint from leader to laggard; where none leads, across its farthest places."""
        if not self.plane:
            return self.joint.face_mm[0]
        if self.plane.leading_name == self.plane.lagging_name:
            pairs = combinations([each.place for each in self.places], 2)
            return max(math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm) for a, b in pairs)
        a, b = self.place_named(self.plane.leading_name).place, self.place_named(self.plane.lagging_name).place
        return max(math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm), 1.0)

    @property
    def allowed_mm(self) -> float:
        """Return how far one side may lead before a dowel binds."""
        return lead_allowed_mm(self.dowels, max(0.0, self.plane.mean_mm) if self.plane else 0.0, self.span_mm)

    @property
    def uncertainty_mm(self) -> float:
        """Of a lead, which is the difference of two gaps."""
        return math.sqrt(2) * UNCERTAIN_MM[self.how]

    @cached_property
    def lead(self) -> Conformity | None:
        return split_call(self.plane, self.allowed_mm, self.uncertainty_mm) if self.plane else None

    @cached_property
    def move(self) -> Move | None:
        pitch = self.splitter.push_pitch_mm if self.splitter else USUAL_PUSH_PITCH_MM
        return next_move(self.plane, self.allowed_mm, self.lead.state, pitch) if self.plane and self.lead else None

    # what hangs loose

    def loose_number(self, number: int) -> Loose:
        at = "" if self.joint.is_first else f"{self.joint.uid}-"
        part = Part(Kind.TRAY, f"split-{at}{number}")
        said = [self.own.said(FactKey(part, what)) for what in (Property.LOOSE_PART, Property.LOOSE_FROM, Property.LOOSE_HALF)]
        return Loose(part, *said)

    @property
    def loose(self) -> list[Loose]:
        """Every loose part named so far."""
        return [each for number in range(1, MOST_LOOSE + 1) if (each := self.loose_number(number)).what]


def split_facts(given: StationInput) -> SplitAnalysis:
    """Return the analysis of Split crankcase for the selected joint, or the first that is not finished."""
    every = tuple(_at_joint(given, joint) for joint in joints_of(given.card))
    left = [each for each in every if not each.is_through]
    chosen = next((each for each in left or every if each.joint.uid == given.own.choice(TAB)), None)
    at_hand = chosen or next(iter(left), every[-1])
    return replace(at_hand, joints=tuple(replace(each, joints=every) for each in every))


def _at_joint(given: StationInput, joint: Joint) -> SplitAnalysis:
    marks = tuple(mark for mark in given.card.marks.all() if mark.joint == joint.uid)
    shelf = given.shelves.splitters if given.shelves else ()
    chosen = given.own.choice("splitter", str(shelf[0].pk) if len(shelf) == 1 else "")
    lifting = FactKey(joint.part, Property.LIFTING_HALF)
    lifts = given.own.said(lifting) or given.facts.said(joint.part, Property.LIFTING_HALF)
    splitter = next((each for each in shelf if str(each.pk) == chosen), None)
    return SplitAnalysis(joint, given.own, marks, gap_places(joint, marks), splitter, shelf, lifts)
