"""What is known of a wheel on its stand: whether to touch it, where it stops, how much is heavy, where to drill, what is left after."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from engines.models import EngineCard
from engines.parts import FLYWHEEL
from engines.properties import Property
from engines.slots import At, Slot
from jobs.facts import Own
from shopmath import materials
from shopmath.balance import (
    Drilled,
    DrillLimits,
    DrillPlan,
    Stops,
    Unbalance,
    after_holes,
    by_trial_mass,
    drill_plan,
    drilled_mass_g,
    force_n,
    permissible_gmm,
    rim_limit_m_s,
    rim_speed_m_s,
    stops,
    wall_left_mm,
)
from shopmath.checks import BadInput
from shopmath.verdict import IN, Call, call
from stations.base import Given

GRADES = ("6.3", "2.5", "16")
METALS = ("c45", "gjl-250", "gjs-500-7", "al-si9-cu3")
FEWEST_STOPS, ENOUGH_STOPS = 4, 8
WALL_MM = 3.0  # left under a drill's tip, shop rule
MOST_REMOVED = 0.02  # of the wheel's mass, shop rule
USUAL_DRILLS = "4 6 8"
ARC = re.compile(r"^\s*(-?\d+(?:[.]\d+)?)\s*(?:-|to|…)\s*(-?\d+(?:[.]\d+)?)\s*$")
REFUSED = ("cracked", "repaired")  # wheels that are never balanced here
DRILLED, ROLLED = "drilled", "rolled"  # what hands did in a go that is over: each hole, and what was to be taken off


class Code(StrEnum):
    """What a call at Balance can say."""

    CRACKED = "cracked"
    REPAIRED = "repaired"
    TOO_FAST = "too fast"
    LEAVE = "leave"
    TOUCH_IT = "touch it"
    FIGURES = "figures"
    ROLL = "roll"
    HEAVY_THERE = "heavy there"
    SCATTERED = "scattered"
    HOW_MUCH = "how much"
    NOWHERE = "nowhere"
    TOO_HEAVY = "too heavy"
    ENOUGH_OFF = "enough off"
    THIN = "thin"
    PAST = "past"
    DRILL = "drill"
    CHECK = "check"
    BALANCED = "balanced"


class Phase(StrEnum):
    """Which part of the work a wheel is at."""

    ASK = "ask"
    ROLL = "roll"
    WEIGH = "weigh"
    DRILL = "drill"
    DONE = "done"


def at(what: Property, angle: float | None = None) -> Slot:
    return Slot(FLYWHEEL, what, At(angle_deg=angle))


def hole(number: int) -> Slot:
    """Where the depth of a hole is kept, counted from 1."""
    return Slot(FLYWHEEL, Property.HOLE_DEPTH, At(stage=number))


def arcs(text: str) -> tuple[tuple[float, float], ...]:
    """Arcs to keep out of, as typed: 350-20, 90 to 110."""
    found = []
    for part in filter(str.strip, text.split(",")):
        match = ARC.match(part)
        if not match:
            message = f"{part.strip()!r} is no arc. Type from-to in degrees, commas between: 350-20, 90-110."
            raise BadInput("keep-out", message, "no_arc", arc=part.strip())
        found.append((float(match[1]) % 360, float(match[2]) % 360))
    return tuple(found)


def drills(text: str) -> list[float]:
    """Drills at hand, as typed: 4 6 8."""
    try:
        found = sorted({float(part) for part in text.replace(",", " ").split()})
    except ValueError:
        found = []
    if not found or not 1 <= found[0] <= found[-1] <= 25:
        message = f"{text.strip()!r}: type the drills in mm, spaces between, such as 4 6 8; from 1 to 25."
        raise BadInput("drills", message, "no_drills", drills=text.strip())
    return found


@dataclass(frozen=True)
class BalanceFacts:
    """All that Balance computes of one wheel. Each go, from stops to holes, is one attempt. Sizes in mm, unbalance in g·mm."""

    card: EngineCard
    own: Own

    @property
    def attempt(self) -> int:
        return self.own.attempt

    def value(self, what: Property) -> float | None:
        """A figure of the wheel, whichever go it was measured in."""
        return self.own.value(at(what))

    def now(self, slot: Slot) -> float | None:
        """What was measured last in this go."""
        taken = self.own.all(slot, self.attempt)
        return taken[-1].value if taken else None

    def said(self, what: Property) -> str:
        return self.own.said(at(what))

    # what is known of the wheel

    @property
    def mass_kg(self) -> float | None:
        return self.card.wheel_kg or self.value(Property.WHEEL_MASS)

    @property
    def rpm(self) -> float | None:
        return self.card.wheel_rpm or self.value(Property.WHEEL_SPEED)

    @property
    def grade(self) -> float:
        chosen = self.own.choice("grade", GRADES[0])
        return float(chosen if chosen in GRADES else GRADES[0])

    @property
    def metal(self) -> str:
        chosen = self.own.choice("metal", METALS[0])
        return chosen if chosen in METALS else METALS[0]

    @property
    def permitted_gmm(self) -> float | None:
        return permissible_gmm(self.grade, self.mass_kg, self.rpm) if self.mass_kg and self.rpm else None

    @cached_property
    def speed(self) -> Call | None:
        """Rim speed against what the metal usually stands, m/s."""
        rim, limit = self.value(Property.RIM_DIAMETER), rim_limit_m_s(self.metal)
        if not rim or not self.rpm or limit is None:
            return None
        return call(rim_speed_m_s(rim, self.rpm), high=limit.likely, uncertainty=limit.high - limit.likely)

    # whether to touch it

    @property
    def is_refused(self) -> bool:
        """Cracked or mended: it is never balanced here."""
        return self.said(Property.WHEEL_SOUND) in REFUSED

    @property
    def is_left(self) -> bool:
        """It did not shake, and nobody said to go on."""
        return not self.is_refused and self.said(Property.SHOOK) == "no" and not self.own.chosen.get("anyway")

    @property
    def to_touch(self) -> bool:
        answered = self.said(Property.SHOOK) and self.said(Property.WHEEL_SOUND)
        return bool(answered) and not self.is_refused and not self.is_left

    # stops, amount, plan

    @cached_property
    def marks(self) -> list[float]:
        """Where it stopped in this go, °."""
        return [each.value for each in self.own.all(at(Property.STOP_ANGLE), self.attempt) if each.value is not None]

    @cached_property
    def stops(self) -> Stops | None:
        return stops(self.marks) if len(self.marks) >= 2 else None

    @property
    def marks_tell(self) -> bool:
        return bool(self.stops and self.stops.telling and len(self.marks) >= FEWEST_STOPS)

    @property
    def heavy_deg(self) -> float:
        return self.stops.mean_deg if self.stops else 0.0

    @property
    def light_deg(self) -> float:
        """Opposite the heavy spot."""
        return (self.heavy_deg + 180) % 360

    @cached_property
    def amount(self) -> Unbalance | None:
        """How much, once the trial mass has said it."""
        stays, turns = self.now(at(Property.TRIAL_STAYS)), self.now(at(Property.TRIAL_TURNS))
        arm = self.value(Property.TRIAL_RADIUS)
        if not self.marks_tell or arm is None or stays is None or turns is None:
            return None
        return by_trial_mass(1000 * stays, 1000 * turns, arm, self.heavy_deg)

    def judged(self, gmm: float, uncertainty: float) -> Call | None:
        if self.permitted_gmm is None:
            return None
        return call(gmm, high=self.permitted_gmm, uncertainty=uncertainty)

    @cached_property
    def amount_call(self) -> Call | None:
        return self.judged(self.amount.gmm, self.amount.uncertainty_gmm) if self.amount else None

    @property
    def density(self) -> float:
        return materials.get(self.metal).density_kg_m3

    @cached_property
    def drilled(self) -> list[dict[str, float]]:
        """Holes of earlier goes."""
        return [{"deg": each.at.angle_deg or 0.0, "depth_mm": each.amount or 0.0, **each.detail} for each in self.own.done(DRILLED)]

    @cached_property
    def earlier(self) -> list[tuple[Drilled, float]]:
        """Holes of earlier goes, with what each took."""
        return [(Drilled(each["deg"], each["radius_mm"], each["diameter_mm"]), each["gmm"]) for each in self.drilled]

    @cached_property
    def limits(self) -> DrillLimits | None:
        """Where it may be drilled."""
        radius, thick = self.value(Property.DRILL_RADIUS), self.value(Property.RIM_DEPTH)
        if radius is None or thick is None:
            return None
        keep, finish = arcs(self.said(Property.KEEP_OUT)), self.value(Property.FINISH_RADIUS)
        earlier = tuple(each for each, _gmm in self.earlier)
        return DrillLimits(radius, thick, WALL_MM, finish_radius_mm=finish, keep_out_deg=keep, earlier=earlier)

    @cached_property
    def plan(self) -> DrillPlan | None:
        """Where to drill in this go; None while it is not known how much or where it may be done, or nothing need be."""
        sizes = self.said(Property.DRILLS)
        unsaid = not sizes and not self.own.was_skipped(at(Property.DRILLS))
        if self.amount is None or self.limits is None or unsaid or self.amount.gmm <= 0:
            return None
        if self.amount_call and self.amount_call.state == IN:
            return None
        within = self.permitted_gmm or 0.0
        return drill_plan(self.amount, self.limits, self.density, drills(sizes or USUAL_DRILLS), within_gmm=within)

    def wall_under(self, number: int, depth_mm: float) -> float:
        """What is left under a hole's tip."""
        thick = self.value(Property.RIM_DEPTH)
        if self.plan is None or thick is None or number > len(self.plan.holes):
            return math.inf
        return wall_left_mm(thick, self.plan.holes[number - 1].diameter_mm, depth_mm)

    @cached_property
    def made(self) -> list[dict[str, float]]:
        """Holes of this go as they were made."""
        found = []
        for number, each in enumerate(self.plan.holes if self.plan else (), 1):
            depth = self.now(hole(number))
            if depth is not None:
                gmm = drilled_mass_g(each.diameter_mm, depth, self.density) * each.radius_mm
                size = {"radius_mm": each.radius_mm, "diameter_mm": each.diameter_mm, "depth_mm": depth}
                found.append({"deg": each.angle_deg, **size, "gmm": gmm})
        return found

    @property
    def all_drilled(self) -> bool:
        return bool(self.plan and self.made and len(self.made) == len(self.plan.holes))

    @property
    def thinnest(self) -> float:
        """The least wall under a hole of this go."""
        walls = [self.wall_under(number, each["depth_mm"]) for number, each in enumerate(self.made, 1)]
        return min(walls, default=math.inf)

    @cached_property
    def rest(self) -> Unbalance | None:
        """What is expected to be left after the holes made so far."""
        if self.amount is None:
            return None
        return after_holes(self.amount, [(each["gmm"], each["deg"]) for each in self.made])

    @property
    def is_past(self) -> bool:
        """Drilled too much: what is left lies opposite the heavy spot, and is more than permitted."""
        if self.rest is None or self.permitted_gmm is None or not self.made:
            return False
        opposite = math.cos(math.radians(self.rest.deg - self.heavy_deg)) < 0
        return opposite and self.rest.gmm > self.permitted_gmm

    @property
    def removed_g(self) -> float:
        old = sum(gmm / each.radius_mm for each, gmm in self.earlier)
        return old + sum(each["gmm"] / each["radius_mm"] for each in self.made)

    @property
    def removed_too_much(self) -> bool:
        return bool(self.mass_kg and self.removed_g > 1000 * MOST_REMOVED * self.mass_kg)

    @property
    def is_settled(self) -> bool:
        """Nothing more to do: little enough is left, or the stops tell nothing any more."""
        if self.amount is not None:
            return bool(self.amount_call and self.amount_call.state == IN)
        return len(self.marks) >= ENOUGH_STOPS and not self.marks_tell

    @cached_property
    def phase(self) -> Phase:
        if not self.to_touch:
            return Phase.ASK
        if self.is_settled:
            return Phase.DONE
        if not self.marks_tell:
            return Phase.ROLL
        return Phase.DRILL if self.plan and self.plan.holes else Phase.WEIGH

    def force_n(self, gmm: float) -> float | None:
        """What an unbalance pulls with at working speed."""
        return force_n(gmm, self.rpm) if self.rpm else None

    @property
    def amounts(self) -> dict[int, list[float]]:
        """Unbalance of earlier goes with its uncertainty, by the number of the go."""
        return {each.attempt: [each.amount, each.detail["uncertainty"]] for each in self.own.done(ROLLED) if each.amount is not None}

    @property
    def amount_now(self) -> list[float] | None:
        return [round(self.amount.gmm, 1), round(self.amount.uncertainty_gmm, 1)] if self.amount else None


def balance_facts(given: Given) -> BalanceFacts:
    """What Balance knows, built once for a page or an act."""
    return BalanceFacts(given.card, given.own)
