"""A pressed crank between its supports under a dial indicator: blows with uneven effect, and a gauge that reads the bend."""

from __future__ import annotations

import math
import random
from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import ClassVar

from shopmath.truing import Misalignment, PressedCrank, best_reachable, runout_from
from stator.simulators.base import Part

ENDS = ("left", "right")
GEOMETRY = PressedCrank(-92, 92, -34, 34, 29)  # supports 92 mm out, dial 34 mm out, stroke 58
STEP_MM, NOISE_MM = 0.002, 0.0008  # of the dial
BLOW_DEG, SQUEEZE_DEG = 0.06, 0.015  # what a whole blow turns a web, and a whole squeeze closes them, on the mean
SPRINGS_DEG = 0.006  # of every blow the joint gives back: a tap alone does nothing
ZERO_MM = {"left": 0.012, "right": -0.031}  # where the needle was set


class Fault(StrEnum):
    """A fault of a crank, or of its measurement."""

    PRESSED = "pressed"  # twisted and pinched, no more
    NOT_CURABLE = "not curable"  # a half bent beyond what truing reaches
    OVAL = "oval"  # a journal that is not round
    SLIPPED = "slipped"  # the gauge moves in its holder as it is read
    LOOSE = "loose"  # a support that rocks


@dataclass(frozen=True)
class Truth:
    """The hidden true values: misalignment of the halves, ovality of the journals, unevenness of blows, and faults of the gauge.

    Angles in degrees, sizes in mm. `slips_after` counts readings; 0 for a gauge that does not slip.
    """

    bent: Misalignment
    oval_mm: float = 0.002
    uneven: float = 1.5
    slips_mm: float = 0.0
    slips_after: int = 0
    rocks_mm: float = 0.0

    @property
    def worst_mm(self) -> float:
        """Return the larger runout of the two ends."""
        return max(runout.tir_mm for runout in runout_from(self.bent, GEOMETRY))

    @property
    def best_mm(self) -> float:
        """Return the larger runout that truing could leave."""
        return max(runout.tir_mm for runout in best_reachable(self.bent, GEOMETRY))


@dataclass(frozen=True)
class Level:
    """The difficulty: the largest misalignment, the size of what cannot be trued, and the unevenness of blows."""

    twist_deg: float
    pinch_deg: float
    offset_mm: float
    skew_deg: float
    uneven: float


LEVELS: Mapping[str, Level] = {
    "easy": Level(0.12, 0.0, 0.002, 0.001, 1.15),
    "middle": Level(0.20, 0.03, 0.004, 0.002, 1.5),
    "hard": Level(0.30, 0.06, 0.007, 0.003, 1.9),
}


def drawn(seed: int, level: str = "middle", fault: Fault = Fault.PRESSED) -> Truth:
    """Return the true values of a seed at a level, always the same.

    Parameters
    ----------
    seed : int
    level : str
        `easy`, `middle` or `hard`.
    fault : Fault

    Returns
    -------
    Truth

    Examples
    --------
    >>> drawn(7) == drawn(7), drawn(7) == drawn(8)
    (True, False)
    >>> drawn(3, fault=Fault.NOT_CURABLE).best_mm > 0.03
    True
    """
    dice, hard = random.Random(f"{seed}-{level}-{fault}"), LEVELS[level]

    def off(most: float) -> float:
        return dice.choice((-1, 1)) * dice.uniform(0.4, 1.0) * most

    bent = Misalignment(off(hard.twist_deg), off(hard.pinch_deg), off(hard.offset_mm), off(hard.skew_deg))
    found = Truth(bent, uneven=hard.uneven)
    if fault == Fault.NOT_CURABLE:
        found = replace(found, bent=replace(bent, offset_mm=off(0.15), skew_deg=off(0.01)))
    if fault == Fault.OVAL:
        found = replace(found, oval_mm=dice.uniform(0.02, 0.035))
    if fault == Fault.SLIPPED:
        found = replace(found, slips_mm=off(0.03), slips_after=dice.randint(3, 7))
    return replace(found, rocks_mm=dice.uniform(0.015, 0.03)) if fault == Fault.LOOSE else found


class Crank(Part):
    """A single pressed crank with a dial indicator at one end or the other."""

    name = "crank"
    remark = "Stand-in crank: supports at 92, dial at 34 mm, stroke 58."
    levers: ClassVar[Mapping[str, str]] = {
        "turn": "Turn on 45°",
        "other": "Other end",
        "back": "Turn back 45°",
        "ahead": "Strike right, 270°",
        "behind": "Strike right, 90°",
        "squeeze": "Squeeze",
        "wedge": "Wedge",
        "new": "Another crank",
    }
    geometry = GEOMETRY

    def __init__(self, seed: int, truth: Truth | None = None) -> None:
        super().__init__(seed)
        self.angle, self.end, self.readings, self.moves = 0, 0, 0, 0
        self.step_mm, self.noise_mm = STEP_MM, NOISE_MM
        self.truth = truth or Truth(Misalignment(0.15, -0.006, 0.004, 0.001))

    # what hands do

    def strike(self, share: float) -> None:
        """Strike a rim of the right web with a fraction of a full blow: forward if positive, backward if negative."""
        bent = self.truth.bent
        self._bend(replace(bent, twist_deg=bent.twist_deg + self._given(share * BLOW_DEG)))

    def squeeze(self, share: float) -> None:
        """Wedge the rims opposite the crankpin apart if positive, so that the webs close at the pin; squeeze them if negative."""
        bent = self.truth.bent
        self._bend(replace(bent, pinch_deg=bent.pinch_deg + self._given(share * SQUEEZE_DEG, SPRINGS_DEG / 4)))

    def _given(self, meant_deg: float, springs_deg: float = SPRINGS_DEG) -> float:
        """Return the effect of a blow, which is uneven and reduced by the spring-back of the joint."""
        fell = meant_deg * self.truth.uneven ** self.dice.uniform(-1, 1)
        return math.copysign(max(0.0, abs(fell) - springs_deg), fell)

    def _bend(self, bent: Misalignment) -> None:
        self.truth = replace(self.truth, bent=bent)
        self.moves += 1

    def turn_to(self, end: str, angle_deg: float) -> None:
        self.end, self.angle = ENDS.index(end), int(angle_deg) % 360

    def pull(self, control: str) -> None:
        self.angle = (self.angle + {"turn": 45, "back": -45}.get(control, 0)) % 360
        if control in ("ahead", "behind"):
            self.strike(-1.0 if control == "ahead" else 1.0)
        if control in ("squeeze", "wedge"):
            self.squeeze(-1.0 if control == "squeeze" else 1.0)
        if control == "other":
            self.end, self.angle = 1 - self.end, 0
        if control == "new":
            self.truth = drawn(self.dice.randrange(10**9), self.dice.choice(tuple(LEVELS)))
            self.angle = self.end = self.readings = self.moves = 0

    # what the dial says

    def shows_mm(self) -> float:
        """Return the reading, rounded to the resolution of the dial indicator."""
        true_values, end = self.truth, ENDS[self.end]
        runout = runout_from(true_values.bent, self.geometry)[self.end]
        turned = math.radians(self.angle)
        value = runout.tir_mm / 2 * math.cos(turned - math.radians(runout.high_spot_deg)) + true_values.oval_mm / 2 * math.cos(2 * turned)
        value += ZERO_MM[end] + self.dice.gauss(0, self.noise_mm) + self.dice.uniform(-0.5, 0.5) * true_values.rocks_mm
        if true_values.slips_after and self.readings > true_values.slips_after:
            value += true_values.slips_mm
        return round(value / self.step_mm) * self.step_mm + 0.0

    def read(self, end: str, angle_deg: float) -> float:
        """Turn it there and read the needle, mm."""
        self.turn_to(end, angle_deg)
        self.readings += 1
        return self.shows_mm()

    def after(self, seconds: float) -> str:
        return f"{self.shows_mm():+.3f} mm {ENDS[self.end]}@{self.angle}"
