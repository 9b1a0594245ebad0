"""A crankcase half that heats up in an oven and cools outside, under an infrared thermometer."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import ClassVar

from stator.simulators.base import Part

GUN = 0.95  # what the gun is set to


def seen_c(true_c: float, emits: float, around_c: float, gun: float = GUN) -> float:
    """Return what an infrared thermometer shows of a surface that emits a fraction and reflects its surroundings.

    >>> round(seen_c(100.0, 0.93, 20.0), 1), round(seen_c(100.0, 0.2, 20.0), 1)
    (98.8, 42.4)
    """
    true, around = true_c + 273.15, around_c + 273.15
    fourth = (emits * true**4 + (1 - emits) * around**4 - (1 - gun) * around**4) / gun
    return float(fourth**0.25 - 273.15)


class Case(Part):
    """A crankcase half outside the oven, under an infrared thermometer set to 0.95; a paint dot emits 0.93, bare metal 0.2."""

    name = "case"
    remark = "Stand-in case: an infrared gun on a paint dot, room at 21 °C."
    every_s = 0.5
    levers: ClassVar[Mapping[str, str]] = {
        "oven": "Into the oven",
        "out": "Out of the oven",
        "paint": "Aim at the dot",
        "bare": "Aim at bare metal",
    }
    ROOM_C, OVEN_C, TAU_S = 21.0, 130.0, {True: 420.0, False: 700.0}

    def __init__(self, seed: int) -> None:
        super().__init__(seed)
        self.true_c, self.heating, self.emits = 112.0, False, 0.93

    def pull(self, control: str) -> None:
        self.heating = {"oven": True, "out": False}.get(control, self.heating)
        self.emits = {"paint": 0.93, "bare": 0.2}.get(control, self.emits)

    def passes(self, seconds: float) -> None:
        toward = self.OVEN_C if self.heating else self.ROOM_C
        self.true_c = toward + (self.true_c - toward) * math.exp(-seconds / self.TAU_S[self.heating])

    def after(self, seconds: float) -> str:
        self.passes(seconds)
        around = self.OVEN_C if self.heating else self.ROOM_C
        return f"{self.stepped(seen_c(self.true_c, self.emits, around) + self.dice.gauss(0, 0.2), 0.5, 1)} C"
