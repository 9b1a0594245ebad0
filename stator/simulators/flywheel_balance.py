"""A flywheel on a balance stand, with a heavy spot that nobody sees."""

from __future__ import annotations

import cmath
import math
import random
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import ClassVar

from shopmath.balance import drilled_mass_g
from stator.simulators.base import Part

ARM_MM, THICK_MM, WALL_MM = 80.0, 18.0, 3.0  # where mass and holes go; the rim there, and what a hole must leave of it
STEEL = 7850.0
VARIES = 0.08  # of the stand's rubbing, from one time to the next
WANDERS_DEG, DEEPER_MM = 1.5, 0.15  # of a drill, from where and how deep it was meant


@dataclass(frozen=True)
class UnbalanceTruth:
    """The hidden true values of a flywheel on a stand.

    Unbalance, g·mm at °, friction of the stand, condition of the flywheel, and areas that must not be drilled.
    """

    gmm: float = 150.0
    deg: float = 194.0
    rubs_gmm: float = 12.0
    sound: str = "sound"
    shook: bool = True
    keep_out: tuple[tuple[float, float], ...] = field(default=())

    def may_be_drilled(self, deg: float) -> bool:
        return self.sound == "sound" and self.shook and not any((deg - low) % 360 <= (high - low) % 360 for low, high in self.keep_out)


def heavy(seed: int, level: str = "middle") -> UnbalanceTruth:
    """Return the true values of a seed.

    At the hard level the flywheel may be one that must not be balanced.

    >>> heavy(6) == heavy(6), heavy(6, "easy").keep_out
    (True, ())
    """
    dice = random.Random(f"{seed}-{level}-wheel")
    low, high, rubs = {"easy": (80, 160, 6.0), "middle": (60, 180, 10.0), "hard": (40, 200, 14.0)}[level]
    found = UnbalanceTruth(dice.uniform(low, high), dice.uniform(0, 360), rubs * dice.uniform(0.8, 1.1))
    kind = dice.choice(("cracked", "calm", "sound", "sound")) if level == "hard" else "sound"
    begins = dice.uniform(0, 360)
    arcs = () if level == "easy" else ((round(begins), round(begins + 30) % 360), (round(begins + 180) % 360, round(begins + 210) % 360))
    if kind == "calm":
        return UnbalanceTruth(dice.uniform(1, 6), found.deg, found.rubs_gmm, shook=False, keep_out=arcs)
    return UnbalanceTruth(found.gmm, found.deg, found.rubs_gmm, "cracked" if kind == "cracked" else "sound", keep_out=arcs)


class Wheel(Part):
    """A flywheel on a balance stand, which stops with its heavy spot near the bottom, as near as friction lets it.

    Putty is added opposite the stop; holes are drilled there, 80 mm from the center. It sends one line per stop.
    """

    name = "wheel"
    remark = "Stand-in stand: the mark's angle at the bottom, once a stop."
    levers: ClassVar[Mapping[str, str]] = {
        "roll": "Roll it",
        "more": "Putty +0.2 g",
        "less": "Putty off",
        "small": "Drill 4 × 5 there",
        "large": "Drill 8 × 6 there",
        "new": "Another wheel",
    }
    HOLES: ClassVar[Mapping[str, tuple[float, float]]] = {"small": (4.0, 5.0), "large": (8.0, 6.0)}

    def __init__(self, seed: int, truth: UnbalanceTruth | None = None) -> None:
        super().__init__(seed)
        self._set_up(truth or UnbalanceTruth())

    def _set_up(self, truth: UnbalanceTruth) -> None:
        self.truth, self.heavy = truth, cmath.rect(truth.gmm, math.radians(truth.deg))
        self.stopped, self.putty_g, self.lowest_deg = False, 0.0, truth.deg
        self.holes = self.in_ribs = self.thin = 0
        self.said, self.shown = "", 0.0  # what hands saw last, as a code, and the number with it

    @property
    def gmm(self) -> float:
        """Return the present unbalance."""
        return abs(self.heavy)

    @property
    def felt(self) -> complex:
        """The heavy spot with the putty opposite to where it was seen."""
        return self.heavy - cmath.rect(self.putty_g * ARM_MM, math.radians(self.lowest_deg))

    @property
    def _rubs(self) -> float:
        return self.truth.rubs_gmm * (1 + self.dice.gauss(0, VARIES))

    # what hands do

    def rolled_deg(self) -> float:
        """Roll the flywheel; return the angle of the mark at the bottom when it stops."""
        share = self._rubs / max(abs(self.felt), 1e-9)
        dead = math.asin(share) if share < 1 else math.pi
        at = math.degrees(cmath.phase(self.felt) + self.dice.uniform(-dead, dead)) + self.dice.gauss(0, 3)
        return round(at) % 360

    def let_go(self, mark_deg: float, mass_g: float) -> str:
        """With a mass at a mark and that mark level: `turns` down with it, `stays`, or turns `back`."""
        moment = mass_g * ARM_MM + (self.heavy * cmath.exp(-1j * math.radians(mark_deg))).real
        return "stays" if abs(moment) <= self._rubs else "turns" if moment > 0 else "back"

    def drill(self, deg: float, diameter_mm: float, depth_mm: float) -> float:
        """A hole 80 mm out: it wanders a little; how deep it came, mm."""
        at = deg + self.dice.gauss(0, WANDERS_DEG)
        deep = max(0.0, depth_mm + self.dice.gauss(0, DEEPER_MM))
        self.heavy -= cmath.rect(drilled_mass_g(diameter_mm, deep, STEEL) * ARM_MM, math.radians(at))
        self.holes += 1
        self.in_ribs += not self.truth.may_be_drilled(deg % 360)
        self.thin += THICK_MM - deep - 0.3 * diameter_mm < WALL_MM
        return round(deep, 1)

    def pull(self, control: str) -> None:
        if control == "new":
            self._set_up(UnbalanceTruth(self.dice.uniform(40, 180), math.degrees(self.dice.uniform(0, math.tau))))
        if control == "more":
            self.putty_g += 0.2
        if control == "less":
            self.putty_g = 0.0
        if control in self.HOLES:
            self.drill(self.lowest_deg, *self.HOLES[control])
        self.stopped = control == "roll"

    def after(self, seconds: float) -> str | None:
        if not self.stopped:
            return None
        self.stopped = False
        at = self.rolled_deg()
        if not self.putty_g:  # the mean of what was seen: where putty and drill go
            seen = cmath.rect(0.7, math.radians(self.lowest_deg)) + cmath.rect(0.3, math.radians(at))
            self.lowest_deg = math.degrees(cmath.phase(seen)) % 360
        return f"{at:.0f} deg stop"
