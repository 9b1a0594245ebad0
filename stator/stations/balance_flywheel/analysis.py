"""Analysis of a flywheel on its stand: whether to balance it, where it stops, its unbalance, the drill plan and the residual."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

from shopmath import materials
from shopmath.balance import (
    MARKS,
    Drilled,
    DrillLimits,
    DrillPlan,
    Proof,
    Stops,
    Unbalance,
    added_mass_g,
    after_holes,
    by_trial_mass,
    by_turning_masses,
    drill_plan,
    drilled_mass_g,
    force_n,
    looks_for,
    permissible_gmm,
    rim_limit_m_s,
    rim_speed_m_s,
    stops,
    wall_left_mm,
)
from shopmath.validation import BadInput
from shopmath.verdict import IN, Conformity, judge
from stator.engines.fact_keys import FactKey
from stator.engines.models import EngineCard
from stator.engines.properties import Property
from stator.jobs.facts import EntryData
from stator.stations.balance_flywheel.locations import (
    DRILLED,
    ENOUGH_STOPS,
    FEWEST_STOPS,
    GRADES,
    METALS,
    MOST_REMOVED,
    MOST_STOPS,
    REFUSED,
    ROLLED,
    STEP_KG,
    USUAL_DRILLS,
    WALL_MM,
    Phase,
    arcs,
    at,
    drills,
    hole,
    turning,
)
from stator.stations.framework import StationInput


@dataclass(frozen=True)
class BalanceAnalysis:
    """The analysis of one flywheel at Balance flywheel.

    Each attempt goes from stops to holes. Sizes in mm, unbalance in g·mm.
    """

    card: EngineCard
    own: EntryData

    @property
    def attempt(self) -> int:
        return self.own.attempt

    def value(self, what: Property) -> float | None:
        """Return a value of the flywheel from any attempt."""
        return self.own.value(at(what))

    def now(self, slot: FactKey) -> float | None:
        """Return the latest measurement of this attempt."""
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
    def speed(self) -> Conformity | None:
        """Compare the rim speed with the usual limit of its metal, m/s."""
        rim, limit = self.value(Property.RIM_DIAMETER), rim_limit_m_s(self.metal)
        if not rim or not self.rpm or limit is None:
            return None
        return judge(rim_speed_m_s(rim, self.rpm), high=limit.likely, uncertainty=limit.high - limit.likely)

    # whether to touch it

    @property
    def is_refused(self) -> bool:
        """Return True if it is cracked or repaired; such a flywheel is never balanced."""
        return self.said(Property.WHEEL_SOUND) in REFUSED

    @property
    def is_left(self) -> bool:
        """Return True if it did not vibrate and nobody chose to continue."""
        return not self.is_refused and self.said(Property.SHOOK) == "no" and not self.own.chosen.get("anyway")

    @property
    def to_touch(self) -> bool:
        answered = self.said(Property.SHOOK) and self.said(Property.WHEEL_SOUND)
        return bool(answered) and not self.is_refused and not self.is_left

    # stops, amount, plan

    @cached_property
    def marks(self) -> list[float]:
        """Return the angles at which it stopped in this attempt, °."""
        return [each.value for each in self.own.all(at(Property.STOP_ANGLE), self.attempt) if each.value is not None]

    @cached_property
    def stops(self) -> Stops | None:
        """Return the statistics of the stops, corrected for a test after every stop."""
        looks = looks_for(min(max(MOST_STOPS, len(self.marks)), 40))
        return stops(self.marks, looks) if len(self.marks) >= 2 else None

    @property
    def marks_tell(self) -> bool:
        return bool(self.stops and self.stops.telling and len(self.marks) >= FEWEST_STOPS)

    @property
    def heavy_deg(self) -> float:
        """Return the angle of the heavy spot, from the proof or from the stops."""
        if self.proof:
            return self.proof.unbalance.deg
        return self.stops.mean_deg if self.stops else 0.0

    @property
    def light_deg(self) -> float:
        """Opposite the heavy spot."""
        return (self.heavy_deg + 180) % 360

    @property
    def amount(self) -> Unbalance | None:
        """Return how much, by the proof, else by the trial mass; None before either."""
        return self.proof.unbalance if self.proof else self.weighed

    @cached_property
    def weighed(self) -> Unbalance | None:
        """Return the unbalance from the trial mass; None before that is measured."""
        stays, turns = self.now(at(Property.TRIAL_STAYS)), self.now(at(Property.TRIAL_TURNS))
        arm = self.value(Property.TRIAL_RADIUS)
        if not self.marks_tell or arm is None or stays is None or turns is None:
            return None
        assert self.stops is not None
        return by_trial_mass(1000 * stays, 1000 * turns, arm, self.stops.mean_deg)

    # the proof

    @property
    def turning(self) -> list[float | None]:
        """Return the lowest masses that turn it, kg, by the mark that is level."""
        return [self.now(turning(mark)) for mark in MARKS]

    @cached_property
    def proof(self) -> Proof | None:
        """Return the result of the four masses; None until all are measured, or if it turns without a mass."""
        arm, masses = self.value(Property.TRIAL_RADIUS), [each for each in self.turning if each is not None]
        if arm is None or len(masses) < len(MARKS):
            return None
        step = self.value(Property.MASS_STEP) or STEP_KG
        try:
            return by_turning_masses([1000 * each for each in masses], arm, step_g=1000 * step)
        except BadInput:
            return None

    @property
    def turns_by_itself(self) -> bool:
        """Return True if it turned without a mass at so many marks that it must be rolled again."""
        return None not in self.turning and self.value(Property.TRIAL_RADIUS) is not None and self.proof is None

    @property
    def needs_proof(self) -> bool:
        """Return True if neither the stops nor the trial mass show a heavy spot."""
        if self.weighed is not None:
            judged = self.judged(self.weighed.gmm, self.weighed.uncertainty_gmm)
            return bool(judged and judged.state == IN)
        return len(self.marks) >= ENOUGH_STOPS and not self.marks_tell

    @property
    def is_unproved(self) -> bool:
        """Return True if what the proof shows could be nothing, and is not surely permitted either."""
        return bool(self.proof and self.proof.unbalance.gmm <= self.proof.unbalance.uncertainty_gmm)

    def judged(self, gmm: float, uncertainty: float) -> Conformity | None:
        if self.permitted_gmm is None:
            return None
        return judge(gmm, high=self.permitted_gmm, uncertainty=uncertainty)

    @cached_property
    def amount_call(self) -> Conformity | None:
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
        """Return where it may be drilled."""
        radius, thick = self.value(Property.DRILL_RADIUS), self.value(Property.RIM_DEPTH)
        if radius is None or thick is None:
            return None
        keep, finish = arcs(self.said(Property.KEEP_OUT)), self.value(Property.FINISH_RADIUS)
        earlier = tuple(each for each, _gmm in self.earlier)
        return DrillLimits(radius, thick, WALL_MM, finish_radius_mm=finish, keep_out_deg=keep, earlier=earlier)

    @cached_property
    def plan(self) -> DrillPlan | None:
        """Return the drill plan of this attempt.

        It is None if the unbalance or the permitted places are unknown, or nothing needs drilling.
        """
        sizes = self.said(Property.DRILLS)
        unsaid = not sizes and not self.own.was_skipped(at(Property.DRILLS))
        if self.amount is None or self.limits is None or unsaid or self.amount.gmm <= 0:
            return None
        if self.is_adding or self.is_unproved or (self.amount_call and self.amount_call.state == IN):
            return None
        within = self.permitted_gmm or 0.0
        return drill_plan(self.amount, self.limits, self.density, drills(sizes or USUAL_DRILLS), within_gmm=within)

    def wall_under(self, number: int, depth_mm: float) -> float:
        """Return what is left under a hole's tip."""
        thick = self.value(Property.RIM_DEPTH)
        if self.plan is None or thick is None or number > len(self.plan.holes):
            return math.inf
        return wall_left_mm(thick, self.plan.holes[number - 1].diameter_mm, depth_mm)

    @cached_property
    def made(self) -> list[dict[str, float]]:
        """Return the holes of this attempt as drilled."""
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
        """Return the lowest wall thickness under a hole of this attempt."""
        walls = [self.wall_under(number, each["depth_mm"]) for number, each in enumerate(self.made, 1)]
        return min(walls, default=math.inf)

    @cached_property
    def rest(self) -> Unbalance | None:
        """Return what is expected to be left after the holes made so far."""
        if self.amount is None:
            return None
        took = [(each["gmm"], each["deg"]) for each in self.made]
        if self.added:  # a mass here is as good as a hole opposite
            took.append((self.added["mass_g"] * self.added["radius_mm"], self.added["deg"] + 180))
        return after_holes(self.amount, took)

    @property
    def is_past(self) -> bool:
        """Return True if too much was drilled: the residual is opposite the heavy spot and exceeds its limit."""
        if self.rest is None or self.permitted_gmm is None or not (self.made or self.added):
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
    def is_proved(self) -> bool:
        """Return True if the proof shows that it is within its grade; friction of the stand hides a residual from the stops."""
        return bool(self.proof and self.amount_call and self.amount_call.state == IN)

    @cached_property
    def phase(self) -> Phase:
        if not self.to_touch:
            return Phase.ASK
        if self.is_proved:
            return Phase.DONE
        if self.is_unproved:
            return Phase.UNPROVED
        if self.proof is None and self.needs_proof:
            return Phase.PROVE
        if self.proof is None and not self.marks_tell:
            return Phase.ROLL
        if self.is_adding:
            return Phase.ADD
        return Phase.DRILL if self.plan and self.plan.holes else Phase.WEIGH

    # mass added where drilling is refused

    @property
    def is_adding(self) -> bool:
        """Return True if mass is added in this attempt instead of drilled."""
        return bool(self.amount and self.own.chosen.get("adding") == self.attempt)

    @property
    def to_add_g(self) -> float | None:
        """Mass that balances it, g, opposite the heavy spot."""
        radius = self.now(at(Property.ADDED_RADIUS))
        return added_mass_g(self.amount, radius)[0] if self.amount and radius else None

    @cached_property
    def added(self) -> dict[str, float] | None:
        """Return the mass that was added in this attempt."""
        radius, mass = self.now(at(Property.ADDED_RADIUS)), self.now(at(Property.ADDED_MASS))
        if not self.is_adding or radius is None or mass is None:
            return None
        return {"deg": self.light_deg, "radius_mm": radius, "mass_g": 1000 * mass}

    def force_n(self, gmm: float) -> float | None:
        """Return what an unbalance pulls with at working speed."""
        return force_n(gmm, self.rpm) if self.rpm else None

    @property
    def amounts(self) -> dict[int, list[float]]:
        """Return the unbalance of earlier attempts with its uncertainty, by the number of the attempt."""
        return {each.attempt: [each.amount, each.detail["uncertainty"]] for each in self.own.done(ROLLED) if each.amount is not None}

    @property
    def amount_now(self) -> list[float] | None:
        return [round(self.amount.gmm, 1), round(self.amount.uncertainty_gmm, 1)] if self.amount else None


def balance_facts(given: StationInput) -> BalanceAnalysis:
    """Return what Balance knows, built once for a page or an act."""
    return BalanceAnalysis(given.card, given.own)
