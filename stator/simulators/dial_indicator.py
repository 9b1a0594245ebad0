"""A dial indicator whose needle lags when its plunger reverses, and turns more than once."""

from __future__ import annotations

import math
import random
from dataclasses import dataclass, field

from shopmath.validation import finite, not_negative, positive


@dataclass
class DialIndicator:
    """The reading of a dial indicator for a plunger position.

    `step_mm` is a line of its face, `round_mm` a turn of the needle, `backlash_mm` the backlash of its gears.

    >>> dial = DialIndicator(step_mm=0.01, backlash_mm=0.0, noise_mm=0.0)
    >>> dial.at(1.234), dial.turns, round(dial.face_mm, 2)
    (1.23, 1, 0.23)
    """

    step_mm: float = 0.01
    round_mm: float = 1.0
    travel_mm: float = 10.0
    backlash_mm: float = 0.004
    noise_mm: float = 0.001
    dice: random.Random = field(default_factory=lambda: random.Random(1))
    _gear: float = 0.0
    _shown: float = 0.0

    def __post_init__(self) -> None:
        for name in ("step_mm", "round_mm", "travel_mm"):
            positive(name, getattr(self, name))
        for name in ("backlash_mm", "noise_mm"):
            not_negative(name, getattr(self, name))

    def at(self, plunger_mm: float) -> float:
        """Push the plunger there; what the needle shows then, mm, turns and all, to a line of the face."""
        pushed = min(max(finite("plunger_mm", plunger_mm), 0.0), self.travel_mm)
        lag = self.backlash_mm / 2
        self._gear = min(max(self._gear, pushed - lag), pushed + lag)
        read = self._gear + self.dice.gauss(0, self.noise_mm)
        self._shown = min(max(round(read / self.step_mm) * self.step_mm, 0.0), self.travel_mm)
        return round(self._shown, 6)

    @property
    def turns(self) -> int:
        """Whole turns of the needle: what the small hand counts."""
        return math.floor(self._shown / self.round_mm + 1e-9)

    @property
    def face_mm(self) -> float:
        """Return what the needle points at on the face alone."""
        return self._shown - self.turns * self.round_mm

    @property
    def angle_deg(self) -> float:
        """Return where the needle points, clockwise from the top."""
        return 360.0 * self.face_mm / self.round_mm
