"""A built-up crank with two throws on its center bearings under a dial indicator, whose webs have rotated about their pins."""

from __future__ import annotations

import cmath
import math
import random
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import ClassVar

from shopmath.crank_runout import RunoutVector
from stator.simulators.base import Part
from stator.simulators.crank import ENDS, NOISE_MM, STEP_MM, ZERO_MM

THROW_MM, RIM_MM = 29.0, 50.0
PIN_DEG = {"left": 0.0, "right": 180.0}
BLOW_DEG, SPRINGS_DEG = 0.05, 0.004  # what a whole blow turns an outer web about its pin, and what the joint gives back


@dataclass(frozen=True)
class Webs:
    """The hidden true values: the rotation of each outer web about its pin, °, and the offset of its shaft along the throw, mm."""

    left_deg: float = 0.04
    right_deg: float = -0.02
    left_along_mm: float = 0.003
    right_along_mm: float = 0.003
    uneven: float = 1.5

    def turned_deg(self, end: str) -> float:
        return self.left_deg if end == "left" else self.right_deg

    def swing(self, end: str) -> RunoutVector:
        """Return what a gauge at an outer shaft reads."""
        along = self.left_along_mm if end == "left" else self.right_along_mm
        off = complex(along, THROW_MM * math.radians(self.turned_deg(end))) * cmath.exp(1j * math.radians(PIN_DEG[end]))
        return RunoutVector(2 * abs(off), math.degrees(cmath.phase(off)) % 360)

    @property
    def worst_mm(self) -> float:
        """Return the larger runout of the two."""
        return max(self.swing(end).tir_mm for end in ENDS)

    @property
    def best_mm(self) -> float:
        """Return what no rotation can remove: the offset along the throw."""
        return 2 * max(abs(self.left_along_mm), abs(self.right_along_mm))

    def turned(self, end: str, by_deg: float) -> Webs:
        """One web turned further, counter-clockwise where above 0, which takes from what it has turned."""
        if end == "left":
            return replace(self, left_deg=self.left_deg - by_deg)
        return replace(self, right_deg=self.right_deg - by_deg)


@dataclass(frozen=True)
class Level:
    turned_deg: float
    along_mm: float
    uneven: float
    both: bool  # whether both webs have turned


LEVELS: Mapping[str, Level] = {
    "easy": Level(0.10, 0.003, 1.15, both=False),
    "middle": Level(0.14, 0.006, 1.5, both=True),
    "hard": Level(0.20, 0.010, 1.9, both=True),
}


def turned(seed: int, level: str = "middle") -> Webs:
    """Return the true values of a seed.

    >>> turned(3) == turned(3)
    True
    """
    dice, hard = random.Random(f"{seed}-{level}-webs"), LEVELS[level]
    off = [dice.choice((-1, 1)) * dice.uniform(0.5, 1.0) * hard.turned_deg for _ in ENDS]
    if not hard.both:
        off[dice.randrange(2)] *= 0.05
    along = [dice.uniform(-1.0, 1.0) * hard.along_mm for _ in ENDS]
    return Webs(off[0], off[1], along[0], along[1], hard.uneven)


class TwinCrank(Part):
    """Two outer shafts, a dial at one of them, a block that turns an outer web about its pin."""

    name = "twin"
    remark = "Stand-in crank of two throws: on its centre bearings, throw 29, rim 50, pins opposite."
    levers: ClassVar[Mapping[str, str]] = {
        "turn": "Turn on 45°",
        "back": "Turn back 45°",
        "other": "Other end",
        **{f"{end}-ccw": f"Turn the {end} web counter-clockwise" for end in ENDS},
        **{f"{end}-cw": f"Turn the {end} web clockwise" for end in ENDS},
    }

    def __init__(self, seed: int, truth: Webs | None = None) -> None:
        super().__init__(seed)
        self.truth = truth or turned(seed)
        self.angle, self.end, self.moves = 0, 0, 0
        self.step_mm, self.noise_mm = STEP_MM, NOISE_MM

    def blow(self, end: str, share: float) -> None:
        """A blow on a web's rim: turned counter-clockwise where the share is above 0."""
        fell = share * BLOW_DEG * self.truth.uneven ** self.dice.uniform(-1, 1)
        self.truth = self.truth.turned(end, math.copysign(max(0.0, abs(fell) - SPRINGS_DEG), fell))
        self.moves += 1

    def pull(self, control: str) -> None:
        self.angle = (self.angle + {"turn": 45, "back": -45}.get(control, 0)) % 360
        if control == "other":
            self.end, self.angle = 1 - self.end, 0
        end, _, way = control.partition("-")
        if end in ENDS:
            self.blow(end, 1.0 if way == "ccw" else -1.0)

    def shows_mm(self) -> float:
        """Return the reading, rounded to the resolution of the dial indicator."""
        runout = self.truth.swing(ENDS[self.end])
        value = runout.tir_mm / 2 * math.cos(math.radians(self.angle - runout.high_spot_deg))
        value += ZERO_MM[ENDS[self.end]] + self.dice.gauss(0, self.noise_mm)
        return round(value / self.step_mm) * self.step_mm + 0.0

    def read(self, end: str, angle_deg: float) -> float:
        """Turn it there and read the needle, mm."""
        self.end, self.angle = ENDS.index(end), int(angle_deg) % 360
        return self.shows_mm()

    def after(self, seconds: float) -> str:
        return f"{self.shows_mm():+.3f} mm {ENDS[self.end]}@{self.angle}"
