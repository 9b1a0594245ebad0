"""A crankcase half that warms in an oven and cools out of it, under an infrared gun."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import ClassVar

from simulators.part import Part


class Case(Part):
    """A crankcase half out of the oven, under an infrared gun set to 0.95; a paint dot shows 0.93 of it, bare metal 0.2."""

    name = "case"
    remark = "Stand-in case: an infrared gun on a paint dot, room at 21 °C."
    every_s = 0.5
    levers: ClassVar[Mapping[str, str]] = {
        "oven": "Into the oven",
        "out": "Out of the oven",
        "paint": "Aim at the dot",
        "bare": "Aim at bare metal",
    }
    ROOM_C, OVEN_C, GUN, TAU_S = 21.0, 130.0, 0.95, {True: 420.0, False: 700.0}

    def __init__(self, seed: int) -> None:
        super().__init__(seed)
        self.true_c, self.heating, self.emits = 112.0, False, 0.93

    def pull(self, lever: str) -> None:
        self.heating = {"oven": True, "out": False}.get(lever, self.heating)
        self.emits = {"paint": 0.93, "bare": 0.2}.get(lever, self.emits)

    def after(self, seconds: float) -> str:
        toward = self.OVEN_C if self.heating else self.ROOM_C
        self.true_c = toward + (self.true_c - toward) * math.exp(-seconds / self.TAU_S[self.heating])
        true, room = self.true_c + 273.15, toward + 273.15
        fourth = (self.emits * true**4 + (1 - self.emits) * room**4 - (1 - self.GUN) * room**4) / self.GUN
        return f"{self.stepped(fourth**0.25 - 273.15 + self.dice.gauss(0, 0.2), 0.5, 1)} C"
