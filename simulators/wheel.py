"""A flywheel on a balance stand, with a heavy spot that nobody sees."""

from __future__ import annotations

import cmath
import math
from collections.abc import Mapping
from typing import ClassVar

from shopmath.balance import drilled_mass_g
from simulators.part import Part


class Wheel(Part):
    """A flywheel on a balance stand: rolled, it stops with its heavy spot near the bottom, as near as the stand's rubbing lets it.

    Putty goes on opposite to where it was seen to stop; holes are drilled there, 80 mm out. Speaks once a stop.
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
    ARM_MM, STEEL = 80.0, 7850.0
    HOLES = {"small": (4.0, 5.0), "large": (8.0, 6.0)}

    def __init__(self, seed: int) -> None:
        super().__init__(seed)
        self.heavy, self.rubs_gmm = cmath.rect(150.0, math.radians(194)), 12.0
        self.stopped, self.putty_g, self.lowest_deg = False, 0.0, 194.0

    @property
    def felt(self) -> complex:
        """The heavy spot with the putty opposite to where it was seen."""
        return self.heavy - cmath.rect(self.putty_g * self.ARM_MM, math.radians(self.lowest_deg))

    def pull(self, lever: str) -> None:
        if lever == "new":
            amount = self.dice.uniform(40, 180)
            self.heavy, self.putty_g = cmath.rect(amount, self.dice.uniform(0, math.tau)), 0.0
        if lever == "more":
            self.putty_g += 0.2
        if lever == "less":
            self.putty_g = 0.0
        if lever in self.HOLES:
            took = drilled_mass_g(*self.HOLES[lever], self.STEEL) * self.ARM_MM
            self.heavy -= cmath.rect(took, math.radians(self.lowest_deg + self.dice.gauss(0, 2)))
        self.stopped = lever == "roll"

    def after(self, seconds: float) -> str | None:
        if not self.stopped:
            return None
        self.stopped = False
        share = self.rubs_gmm / max(abs(self.felt), 1e-9)
        dead = math.asin(share) if share < 1 else math.pi
        at = math.degrees(cmath.phase(self.felt) + self.dice.uniform(-dead, dead)) + self.dice.gauss(0, 3)
        if not self.putty_g:  # the mean of what was seen: where putty and drill go
            seen = cmath.rect(0.7, math.radians(self.lowest_deg)) + cmath.rect(0.3, math.radians(at))
            self.lowest_deg = math.degrees(cmath.phase(seen)) % 360
        return f"{at % 360:.0f} deg stop"
