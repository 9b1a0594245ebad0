"""A shaft under a fine dial indicator whose needle turns more than once, lags when reversed, and trembles."""

from __future__ import annotations

import math
import random
from collections.abc import Mapping
from dataclasses import dataclass
from typing import ClassVar

from stator.simulators.base import Part
from stator.simulators.crank import ENDS
from stator.simulators.dial_indicator import DialIndicator

ROUND_MM, STEP_MM, TRAVEL_MM, PRELOAD_MM = 0.2, 0.002, 2.0, 1.0
BY_DEG = 15  # that the shaft is turned at a time


@dataclass(frozen=True)
class Swings:
    """The hidden true values: runout of each end, mm, its high spot, °, the backlash of the gears, and the tremble of the needle."""

    left_mm: float
    right_mm: float
    left_deg: float
    right_deg: float
    backlash_mm: float = 0.0
    trembles_mm: float = 0.0005

    def tir_mm(self, end: str) -> float:
        return self.left_mm if end == "left" else self.right_mm

    def high_deg(self, end: str) -> float:
        return self.left_deg if end == "left" else self.right_deg


def swings(seed: int, level: str = "middle") -> Swings:
    """Return the true values of a seed. At the easy level the needle stays within one turn.

    >>> swings(5) == swings(5), swings(5, "easy").left_mm < ROUND_MM
    (True, True)
    """
    dice = random.Random(f"{seed}-{level}-swings")
    low, high, lost, trembles = {
        "easy": (0.05, 0.12, 0.0, 0.0003),
        "middle": (0.14, 0.42, 0.004, 0.0006),
        "hard": (0.25, 0.70, 0.006, 0.0012),
    }[level]
    sizes = [dice.uniform(low, high) for _ in ENDS]
    where = [float(dice.randrange(0, 360)) for _ in ENDS]
    return Swings(sizes[0], sizes[1], where[0], where[1], lost, trembles)


class ShaftRunout(Part):
    """A shaft that is turned step by step in either direction under a dial indicator with a small hand for turns."""

    name = "swinging"
    remark = "Stand-in shaft under a fine dial: 0.2 mm a round."
    levers: ClassVar[Mapping[str, str]] = {
        "on": "Turn on 15°",
        "on-far": "Turn on 90°",
        "back": "Turn back 15°",
        "other": "Other end",
    }

    def __init__(self, seed: int, truth: Swings | None = None) -> None:
        super().__init__(seed)
        self.truth = truth or swings(seed)
        self.angle, self.end = 0, 0
        self._set_up()

    def _set_up(self) -> None:
        self.dial = DialIndicator(STEP_MM, ROUND_MM, TRAVEL_MM, self.truth.backlash_mm, self.truth.trembles_mm, self.dice)
        self.shown_mm = self.dial.at(self._plunger_mm())

    def _plunger_mm(self) -> float:
        end = ENDS[self.end]
        return PRELOAD_MM + self.truth.tir_mm(end) / 2 * math.cos(math.radians(self.angle - self.truth.high_deg(end)))

    def turn(self, by_deg: int) -> None:
        """Turn it on, or back where below 0; the needle follows all the way."""
        for _ in range(abs(by_deg) // BY_DEG):
            self.angle = (self.angle + (BY_DEG if by_deg > 0 else -BY_DEG)) % 360
            self.shown_mm = self.dial.at(self._plunger_mm())

    def pull(self, control: str) -> None:
        if control == "other":
            self.end, self.angle = 1 - self.end, 0
            self._set_up()
        else:
            self.turn({"on": BY_DEG, "on-far": 90, "back": -BY_DEG}.get(control, 0))

    def after(self, seconds: float) -> str:
        return f"{self.shown_mm:+.3f} mm {ENDS[self.end]}@{self.angle}"
