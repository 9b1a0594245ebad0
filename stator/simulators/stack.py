"""A case and a crank to be shimmed: widths that gauges read, shims that differ from their marking, and the measured end play."""

from __future__ import annotations

import random
from collections.abc import Mapping
from dataclasses import dataclass
from typing import ClassVar

from stator.simulators.base import Part

PLACES = ("left", "right", "gasket", "crank")
CALLIPER_MM, MICROMETER_MM = 0.02, 0.002
BAGS_MM = (0.05, 0.10, 0.15, 0.20, 0.30, 0.50, 1.00)
MOST_SHIMS = 4


@dataclass(frozen=True)
class Widths:
    """The hidden true values: each dimension of the stack, mm, the largest error of a shim, and the two manuals.

    `manuals` are two pairs of limits; the one in `ours` (0 or 1) is for this crank.
    """

    left_mm: float
    right_mm: float
    gasket_mm: float
    crank_mm: float
    bags_off_mm: float
    manuals: tuple[tuple[float, float], tuple[float, float]]
    ours: int

    @property
    def room_mm(self) -> float:
        """The float without a shim."""
        return self.left_mm + self.right_mm + self.gasket_mm - self.crank_mm

    @property
    def limits_mm(self) -> tuple[float, float]:
        return self.manuals[self.ours]


def widths(seed: int, level: str = "middle") -> Widths:
    """Return the true values of a seed.

    >>> widths(9) == widths(9), 0.3 < widths(9).room_mm < 1.3
    (True, True)
    """
    dice = random.Random(f"{seed}-{level}-stack")
    left, right, gasket = dice.uniform(38, 39), dice.uniform(30.6, 31.6), dice.uniform(0.35, 0.5)
    room = dice.uniform(0.45, 1.15)
    off = {"easy": 0.0, "middle": 0.006, "hard": 0.015}[level]
    manuals = {
        "easy": ((0.10, 0.35), (0.10, 0.30)),
        "middle": ((0.10, 0.35), (0.05, 0.20)),
        "hard": ((0.20, 0.40), (0.05, 0.18)),
    }[level]
    return Widths(left, right, gasket, left + right + gasket - room, off, manuals, dice.randrange(2))


class Stack(Part):
    """Links to be measured, a box of shims, and a case that is closed to feel what is left."""

    name = "stack"
    remark = "Stand-in stack: calliper in the halves, micrometer on crank, gasket and shims."
    levers: ClassVar[Mapping[str, str]] = {
        **{f"measure-{place}": f"Measure: {place}" for place in PLACES},
        **{f"add-{bag:g}": f"Add a shim of {bag:g}" for bag in BAGS_MM},
        "off": "Take all shims off",
        "measure-shims": "Measure the shims",
        "close": "Close it and lift the crank under a dial",
    }

    def __init__(self, seed: int, truth: Widths | None = None) -> None:
        super().__init__(seed)
        self.truth = truth or widths(seed)
        self.shims: list[float] = []  # as they are
        self.bags: list[float] = []  # as their bags say
        self.reading, self.shown_mm, self.closed = "", 0.0, 0
        self.seen = ""  # what hands looked at last

    @property
    def float_mm(self) -> float:
        """Return what is left with the shims that are on; below 0 it binds."""
        return self.truth.room_mm - sum(self.shims)

    @property
    def is_within(self) -> bool:
        low, high = self.truth.limits_mm
        return low <= self.float_mm <= high

    def pull(self, control: str) -> None:
        what, _, of = control.partition("-")
        if what == "add" and len(self.bags) < MOST_SHIMS:
            bag = float(of)
            self.bags.append(bag)
            self.shims.append(bag + self.dice.uniform(-1, 1) * self.truth.bags_off_mm)
        if what == "off":
            self.bags, self.shims = [], []
        if what in ("measure", "close"):
            self.reading = of or "close"
            self.shown_mm = self._shown(self.reading)
            self.closed += what == "close"

    def _shown(self, reading: str) -> float:
        step, sigma = (CALLIPER_MM, 0.008) if reading in ("left", "right") else (MICROMETER_MM, 0.001)
        true_values = self.truth
        true = {
            "left": true_values.left_mm,
            "right": true_values.right_mm,
            "gasket": true_values.gasket_mm,
            "crank": true_values.crank_mm,
            "shims": sum(self.shims),
            "close": max(0.0, self.float_mm),
        }[reading]
        step, sigma = (0.01, 0.003) if reading == "close" else (step, sigma)
        return round(max(0.0, true + self.dice.gauss(0, sigma)) / step) * step

    def after(self, seconds: float) -> str | None:
        return f"{self.shown_mm:.3f} mm {self.reading}" if self.reading else None
