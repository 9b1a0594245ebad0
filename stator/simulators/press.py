"""A press ram on a pin, with a load cell under it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from stator.simulators.base import Part


class Ram(Part):
    """A press ram on a pin: the force rises with every stroke, peaks at release, and falls to the sliding force."""

    name = "ram"
    remark = "Stand-in press: a load cell under the ram."
    levers: ClassVar[Mapping[str, str]] = {"pump": "Pump", "release": "Let off", "new": "Another pin"}
    BREAK_N = (24_000.0, 52_000.0)

    def __init__(self, seed: int) -> None:
        super().__init__(seed)
        self.force_n, self.breaks_n, self.slides = 0.0, 31_400.0, False

    def pull(self, control: str) -> None:
        if control == "new":
            self.breaks_n, self.slides, self.force_n = self.dice.uniform(*self.BREAK_N), False, 0.0
        if control == "release":
            self.force_n = 0.0
        if control == "pump":
            self.force_n += self.dice.uniform(3_500, 5_000)
            if self.slides or self.force_n > self.breaks_n:
                self.force_n = (0.75 if self.slides else 1.0) * self.breaks_n
                self.slides = True

    def after(self, seconds: float) -> str:
        text = f"{self.stepped((self.force_n + self.dice.gauss(0, 40)) / 1000, 0.1, 1)} kN"
        if self.slides and self.force_n >= self.breaks_n:
            self.force_n = 0.75 * self.breaks_n  # it has released: what is left slides it
        return text
