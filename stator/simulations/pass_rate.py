"""A share from a simulation, with its target."""

from __future__ import annotations

import math
from dataclasses import dataclass

SLACK = 3.0  # standard deviations by which a share of few cases may fall short of what it would reach in the long run


@dataclass(frozen=True)
class Share:
    """Return a share with its target: so many of so many cases, at least or at most."""

    name: str
    count: int
    cases: int
    wanted: float
    at_most: bool = False

    @property
    def part(self) -> float:
        return self.count / self.cases if self.cases else 0.0

    @property
    def holds(self) -> bool:
        """Return True if the share meets its target, except for chance."""
        slack = SLACK * math.sqrt(self.wanted * (1 - self.wanted) / max(self.cases, 1))
        return self.part <= self.wanted + slack if self.at_most else self.part >= self.wanted - slack

    def __str__(self) -> str:
        sign = "at most" if self.at_most else "at least"
        mark = "" if self.holds else "   SHORT"
        return f"{self.name:<78} {100 * self.part:7.2f} %   {sign} {100 * self.wanted:g} %   of {self.cases}{mark}"
