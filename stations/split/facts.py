"""What is known of two halves coming apart: fasteners out, the splitter's hold, the plane of every round of gaps, what hangs loose."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property
from itertools import combinations
from typing import Any

from engines.fits import bearing_of
from engines.models import EngineCard, Mark, Seat
from engines.parts import JOINT, Kind, Part
from engines.properties import Property
from engines.slots import Slot
from jobs.facts import Own
from shop.models import Splitter
from shopmath import materials
from shopmath.checks import BadInput
from shopmath.estimate import Estimate
from shopmath.gapplane import GapCheck, GapPlane, Point, check_gaps, fit, further_place
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
from shopmath.verdict import Call
from stations.base import Given

LENGTH_OFF_MM = 1.0  # a bolt this much off its card is not that bolt
UNCERTAIN_MM = {"feeler": 0.03, "calliper": 0.05, "rule": 0.5}  # of a gap, by what it is measured with
FLATNESS_MM, MOST_SIGMA_MM = 0.02, 0.05  # of a joint face, as a standard uncertainty; and of a gap in all, where a rule is not used
MOST_LOOSE = 24
USUAL_UTS_MPA, USUAL_SCREWS, USUAL_PUSH_PITCH_MM = 200.0, 2, 1.5


class Code(StrEnum):
    """What a call at Split can say."""

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


class Done(StrEnum):
    """What hands do at Split."""

    LOADED = "loaded"
    PARTED = "parted"


def of_joint(what: Property) -> Slot:
    return Slot(JOINT, what)


def length_of(mark: Mark) -> Slot:
    return Slot(mark.part, Property.BOLT_LENGTH)


def fault_of(mark: Mark) -> Slot:
    """Where it is kept that a fastener snapped, or that there was none."""
    return Slot(mark.part, Property.FASTENER_FAULT)


@dataclass(frozen=True)
class GapPlace:
    """Where the gap is measured: on the card, or one of four assumed round the face."""

    part: Part
    place: Place

    @property
    def slot(self) -> Slot:
        return Slot(self.part, Property.GAP)


@dataclass(frozen=True)
class Loose:
    """A washer or shim that hung on a half: its place on the tray, what it is, where it was."""

    part: Part
    what: str
    from_where: str
    half: str

    def slot(self, what: Property) -> Slot:
        return Slot(self.part, what)


@dataclass(frozen=True)
class SplitFacts:
    """All that Split computes. Gaps and lengths in mm, forces in N."""

    card: EngineCard
    own: Own
    marks: tuple[Mark, ...]
    places: tuple[GapPlace, ...]
    splitter: Splitter | None
    splitters: tuple[Splitter, ...]
    lifts: str

    # what hands did

    @property
    def is_loaded(self) -> bool:
        return self.own.did(Done.LOADED)

    @property
    def is_apart(self) -> bool:
        return self.own.did(Done.PARTED)

    @property
    def how(self) -> str:
        """What the gaps are measured with."""
        chosen = self.own.choice("how", "feeler")
        return chosen if chosen in UNCERTAIN_MM else "feeler"

    # fasteners

    @property
    def fasteners(self) -> list[Mark]:
        return [mark for mark in self.marks if mark.is_fastener]

    @property
    def counted(self) -> float | None:
        return self.own.value(of_joint(Property.FASTENERS_COUNTED))

    def is_out(self, mark: Mark) -> bool:
        """Ticked out, by its length or by a bare Enter; or snapped, or never there."""
        ticked = self.own.has(length_of(mark)) or self.own.was_skipped(length_of(mark))
        return ticked or self.own.has(fault_of(mark))

    def with_fault(self, *faults: str) -> list[Mark]:
        """Fasteners that were found so: `snapped`, `missing`, `stripped`."""
        return [mark for mark in self.fasteners if self.own.said(fault_of(mark)) in faults]

    @property
    def out(self) -> list[str]:
        return [mark.name for mark in self.fasteners if self.is_out(mark)]

    @cached_property
    def census(self) -> Census:
        """Fasteners out against those on the card, or against the parts list where the card has none."""
        counted, out, never = self.counted, self.out, self.with_fault("missing")
        places = [Place(mark.name, mark.x_mm, mark.y_mm) for mark in self.fasteners if mark not in never]
        if not places:
            expected = self.own.value(of_joint(Property.FASTENERS_EXPECTED))
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
        """The length found, where it is not that of the card; None where it is, or where nothing tells."""
        found = self.own.value(length_of(mark))
        if found is None or not mark.length_mm or abs(found - mark.length_mm) <= LENGTH_OFF_MM:
            return None
        return found

    # the splitter's screws in the case

    @cached_property
    def grip_n(self) -> Estimate:
        """What the mains of the lifting half may hold the crank with."""
        mains = [seat for seat in self.card.seats.all() if seat.on == Seat.On.CASE and seat.half == self.lifts and seat.is_main]
        return journal_grip_n([bearing_of(seat) for seat in mains])

    @cached_property
    def screws(self) -> Screws | None:
        """None while the splitter is not measured."""
        turns = self.own.value(of_joint(Property.SPLITTER_SCREW_TURNS))
        d = self.splitter.thread_mm if self.splitter else self.own.value(of_joint(Property.SPLITTER_SCREW_DIAMETER))
        pitch = self.splitter.pitch_mm if self.splitter else self.own.value(of_joint(Property.SPLITTER_SCREW_PITCH))
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
        """The plane through one round's gaps; None while it cannot be told."""
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
        """Why this round's gaps cannot all be right, with the places to measure again; None where they can."""
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
            return self.card.face_w_mm
        if self.plane.leading_name == self.plane.lagging_name:
            pairs = combinations([each.place for each in self.places], 2)
            return max(math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm) for a, b in pairs)
        a, b = self.place_named(self.plane.leading_name).place, self.place_named(self.plane.lagging_name).place
        return max(math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm), 1.0)

    @property
    def allowed_mm(self) -> float:
        """How far one side may lead before a dowel binds."""
        return lead_allowed_mm(self.dowels, max(0.0, self.plane.mean_mm) if self.plane else 0.0, self.span_mm)

    @property
    def uncertainty_mm(self) -> float:
        """Of a lead, which is the difference of two gaps."""
        return math.sqrt(2) * UNCERTAIN_MM[self.how]

    @cached_property
    def lead(self) -> Call | None:
        return split_call(self.plane, self.allowed_mm, self.uncertainty_mm) if self.plane else None

    @cached_property
    def move(self) -> Move | None:
        pitch = self.splitter.push_pitch_mm if self.splitter else USUAL_PUSH_PITCH_MM
        return next_move(self.plane, self.allowed_mm, self.lead.state, pitch) if self.plane and self.lead else None

    # what hangs loose

    def loose_number(self, number: int) -> Loose:
        part = Part(Kind.TRAY, f"split-{number}")
        said = [self.own.said(Slot(part, what)) for what in (Property.LOOSE_PART, Property.LOOSE_FROM, Property.LOOSE_HALF)]
        return Loose(part, *said)

    @property
    def loose(self) -> list[Loose]:
        """Every loose part named so far."""
        return [each for number in range(1, MOST_LOOSE + 1) if (each := self.loose_number(number)).what]


def gap_places(card: EngineCard, marks: Sequence[Mark]) -> tuple[GapPlace, ...]:
    """The card's places, else four round the face, assumed; one more where a misreading at one of them would not be seen."""
    found = [GapPlace(mark.part, Place(mark.name, mark.x_mm, mark.y_mm)) for mark in marks if mark.what == Mark.What.GAP]
    if found:
        return (*found, *_further(card, found))
    w, h = 0.46 * card.face_w_mm, 0.46 * card.face_h_mm
    usual = (("right", w, 0.0), ("top", 0.0, h), ("left", -w, 0.0), ("bottom", 0.0, -h))
    return tuple(GapPlace(Part(Kind.GAP, name, name), Place(name, x, y)) for name, x, y in usual)


def _further(card: EngineCard, places: Sequence[GapPlace]) -> tuple[GapPlace, ...]:
    """A place well apart from the card's, where these would not show that one of them is misread."""
    points = [Point(each.place.name, each.place.x_mm, each.place.y_mm, 0.0) for each in places]
    w, h = 0.46 * card.face_w_mm, 0.46 * card.face_h_mm
    names = ("right", "top right", "top", "top left", "left", "bottom left", "bottom", "bottom right")
    round_it = [(math.cos(math.radians(angle)), math.sin(math.radians(angle))) for angle in range(0, 360, 45)]
    offered = [Point(name, w * x, h * y, 0.0) for name, (x, y) in zip(names, round_it, strict=True)]
    taken = {each.place.name for each in places}
    try:
        blind = len(points) < 4 or check_gaps(points, MOST_SIGMA_MM).blind
        best = further_place(points, [each for each in offered if each.name not in taken]) if blind else None
    except BadInput:
        return ()
    return (GapPlace(Part(Kind.GAP, best.name, best.name), Place(best.name, best.x_mm, best.y_mm)),) if best else ()


def split_facts(given: Given) -> SplitFacts:
    """What Split knows, built once for a page or an act."""
    marks = tuple(given.card.marks.all())
    shelf = given.shelves.splitters if given.shelves else ()
    chosen = given.own.choice("splitter", str(shelf[0].pk) if len(shelf) == 1 else "")
    lifts = given.own.said(of_joint(Property.LIFTING_HALF)) or given.facts.said(JOINT, Property.LIFTING_HALF)
    splitter = next((each for each in shelf if str(each.pk) == chosen), None)
    return SplitFacts(given.card, given.own, marks, gap_places(given.card, marks), splitter, shelf, lifts)
