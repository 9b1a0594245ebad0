"""Flywheels with a hidden heavy spot on a stand with friction, balanced by following the core from the first roll to the proof."""

from __future__ import annotations

import cmath
import math
import random
from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from shopmath.balance import (
    MARKS,
    Drilled,
    DrillLimits,
    Unbalance,
    by_trial_mass,
    by_turning_masses,
    drill_plan,
    drilled_mass_g,
    looks_for,
    permissible_gmm,
    stops,
)
from shopmath.validation import BadInput
from shopmath.verdict import IN, judge
from stator.simulations.pass_rate import Share

STEEL, ARM_MM, STEP_G = 7850.0, 80.0, 0.1
DRILLS = (4, 6, 8, 10)
RIM = DrillLimits(radius_mm=80, thickness_mm=18, finish_radius_mm=45)
FEWEST, ENOUGH, MOST_HOLES, GOES = 4, 8, 6, 8
VARIES = 0.1  # standard deviation of the stand's friction, as a share of it


@dataclass
class Wheel:
    """A flywheel that is independent of the plan. Unbalance and friction in g·mm."""

    dice: random.Random
    permitted: float
    heavy: complex
    rubs: float
    holes: list[Drilled] = field(default_factory=list)
    over_drilled: bool = False

    def friction(self) -> float:
        return max(0.0, self.dice.gauss(self.rubs, VARIES * self.rubs))

    def stop(self) -> float:
        """Return where it comes to rest: anywhere that friction holds it, about its heavy spot."""
        share = self.rubs / abs(self.heavy) if self.heavy else 2.0
        dead = math.asin(share) if share < 1 else math.pi
        return math.degrees(cmath.phase(self.heavy) + self.dice.uniform(-dead, dead)) + self.dice.gauss(0, 3)

    def turning_mass(self, mark_deg: float) -> float:
        """Return the lowest mass that turns it with a mark level, g; 0 if it turns by itself."""
        along = (self.heavy * cmath.rect(1, -math.radians(mark_deg))).real
        needed = self.friction() - along
        return max(0.0, math.ceil(needed / ARM_MM / STEP_G) * STEP_G)

    def opposite(self, deg: float) -> tuple[float, float]:
        """Return the lowest masses opposite the heavy spot at which it stays, and at which it turns the other way."""
        along = (self.heavy * cmath.rect(1, -math.radians(deg))).real
        stays, turns = (math.ceil(max(0.0, along + sign * self.friction()) / ARM_MM / STEP_G) * STEP_G for sign in (-1, 1))
        return stays, max(stays, turns)

    def drill(self, deg: float, radius_mm: float, diameter_mm: float, depth_mm: float) -> None:
        """A hole as hands make it: the punch and the depth are off by a little."""
        before = self.heavy
        at, depth = deg + self.dice.gauss(0, 1.5), max(0.0, depth_mm + self.dice.gauss(0, 0.15))
        self.heavy -= cmath.rect(drilled_mass_g(diameter_mm, depth, STEEL) * radius_mm, math.radians(at))
        past = -(self.heavy * (before / abs(before)).conjugate()).real if before else 0.0
        self.over_drilled |= past > self.permitted
        self.holes.append(Drilled(at, radius_mm, diameter_mm))


@dataclass(frozen=True)
class Outcome:
    """The core's last verdict, whether it is right, and whether six holes could have sufficed."""

    said: str
    within: bool
    over_drilled: bool
    could: bool


def random_wheel(dice: random.Random, rubs: tuple[float, float] = (5, 20)) -> Wheel:
    permitted = permissible_gmm(6.3, dice.uniform(1, 3), dice.uniform(3000, 9000))
    return Wheel(dice, permitted, cmath.rect(dice.uniform(20, 400), dice.uniform(0, math.tau)), dice.uniform(*rubs))


def _could(flywheel: Wheel) -> bool:
    """Return True if six holes placed and drilled to perfection bring it within its grade."""
    found = Unbalance(abs(flywheel.heavy), math.degrees(cmath.phase(flywheel.heavy)) % 360)
    if found.gmm <= flywheel.permitted:
        return True
    return drill_plan(found, RIM, STEEL, DRILLS, most=MOST_HOLES).rest.gmm <= flywheel.permitted


def balance_it(dice: random.Random) -> Outcome:
    """Roll until the stops are significant or eight are recorded, weigh, drill, and roll again; then the proof."""
    flywheel = random_wheel(dice)
    could = _could(flywheel)
    text = "goes"
    for _ in range(GOES):
        found = _measured(flywheel)
        judged = judge(found.gmm, high=flywheel.permitted, uncertainty=found.uncertainty_gmm)
        if judged.state == IN:
            text = "balanced"
            break
        plan = (
            drill_plan(
                found,
                replace(RIM, earlier=tuple(flywheel.holes)),
                STEEL,
                DRILLS,
                within_gmm=flywheel.permitted,
                most=MOST_HOLES - len(flywheel.holes),
            )
            if len(flywheel.holes) < MOST_HOLES and found.gmm > found.uncertainty_gmm
            else None
        )
        if plan is None or not plan.holes:
            text = judged.state
            break
        for hole in plan.holes:
            flywheel.drill(hole.angle_deg, hole.radius_mm, hole.diameter_mm, hole.depth_mm)
    return Outcome(text, abs(flywheel.heavy) <= flywheel.permitted, flywheel.over_drilled, could)


def _measured(flywheel: Wheel) -> Unbalance:
    """Return the unbalance from stops and a trial mass while they are significant, otherwise from the proof."""
    looks, marks = looks_for(10), [flywheel.stop() for _ in range(FEWEST)]
    while not stops(marks, looks).telling and len(marks) < ENOUGH:
        marks.append(flywheel.stop())
    told = stops(marks, looks)
    if told.telling:
        rough = by_trial_mass(*flywheel.opposite(told.mean_deg), ARM_MM, told.mean_deg)
        if judge(rough.gmm, high=flywheel.permitted, uncertainty=rough.uncertainty_gmm).state != IN:
            return rough
    try:
        return by_turning_masses([flywheel.turning_mass(mark) for mark in MARKS], ARM_MM, step_g=STEP_G).unbalance
    except BadInput:
        return by_trial_mass(*flywheel.opposite(told.mean_deg), ARM_MM, told.mean_deg)


def wheels(dice: random.Random, cases: int) -> Iterator[Share]:
    """Simulate flywheels balanced by following the verdicts, and balanced ones whose stops are significant by chance."""
    ended = [balance_it(dice) for _ in range(cases)]
    could = [each for each in ended if each.could]
    said = [each for each in ended if each.said == "balanced"]
    yield Share("friction 5 to 20, unbalance 20 to 400 g·mm: within grade", sum(each.within for each in could), len(could), 0.97)
    yield Share("the same: proved so on the stand", sum(each.said == "balanced" for each in could), len(could), 0.9)
    yield Share("of the wheels called balanced: past their grade", sum(not each.within for each in said), len(said), 0.01, at_most=True)
    yield Share("over-drilled past the grade", sum(each.over_drilled for each in ended), cases, 0.001, at_most=True)
    for highest in (10, 12, 16, 40):
        telling = sum(_ever_tells(dice, highest) for _ in range(cases))
        yield Share(f"no heavy side, looked at from the fourth stop to the {highest}th: tells", telling, cases, 0.05, at_most=True)


def _ever_tells(dice: random.Random, most: int) -> bool:
    """Return True if the stops of a balanced flywheel are ever significant."""
    marks = [dice.uniform(0, 360) for _ in range(most)]
    looks = looks_for(most)
    return any(stops(marks[:count], looks).telling for count in range(FEWEST, most + 1))
