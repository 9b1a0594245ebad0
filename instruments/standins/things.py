"""What the stand-ins stand for: a crank under a dial, a cooling case, a press ram, a wheel on a balance stand.

Each holds a truth that nobody sees, moves when a lever is pulled or time passes, and says what a gauge with noise and steps would say.
"""

from __future__ import annotations

import cmath
import math
import random
from abc import ABC, abstractmethod
from collections.abc import Mapping
from typing import ClassVar

from shopmath.balance import drilled_mass_g
from shopmath.truing import Misalignment, PressedCrank, runout_from


class Thing(ABC):
    """Something measured. `levers` are the words it takes and what they do; `every_s` is how often its gauge speaks."""

    name: ClassVar[str]
    remark: ClassVar[str]
    every_s: ClassVar[float] = 0.1
    levers: ClassVar[Mapping[str, str]]

    def __init__(self, seed: int) -> None:
        self.dice = random.Random(seed)  # noqa: S311  a made-up truth, the same every time

    @abstractmethod
    def pull(self, lever: str) -> None:
        """Do what a lever says."""

    @abstractmethod
    def after(self, seconds: float) -> str | None:
        """Let time pass; the line the gauge says then, if it says one."""

    def stepped(self, value: float, step: float, digits: int) -> str:
        return f"{round(value / step) * step + 0.0:+.{digits}f}"


class Crank(Thing):
    """A single pressed crank between supports 92 mm out, a dial 34 mm out, first on the left; stroke 58."""

    name = "crank"
    remark = "Stand-in crank: supports at 92, dial at 34 mm, stroke 58."
    levers = {
        "turn": "Turn on 45°",
        "other": "Other end",
        "back": "Turn back 45°",
        "ahead": "Strike right, 270°",
        "behind": "Strike right, 90°",
        "squeeze": "Squeeze",
        "wedge": "Wedge",
        "new": "Another crank",
    }
    geometry = PressedCrank(-92, 92, -34, 34, 29)
    STEP_MM, NOISE_MM, BLOW_DEG, SQUEEZE_DEG, UNEVEN = 0.002, 0.0008, 0.06, 0.015, 1.5

    def __init__(self, seed: int) -> None:
        super().__init__(seed)
        self.angle, self.end, self.oval_mm = 0, 0, 0.002
        self.bent = Misalignment(0.15, -0.006, 0.004, 0.001)

    def pull(self, lever: str) -> None:
        bent, uneven = self.bent, self.UNEVEN ** self.dice.uniform(-1, 1)
        blow = {"ahead": -self.BLOW_DEG, "behind": self.BLOW_DEG}.get(lever, 0.0) * uneven
        pinch = {"squeeze": -self.SQUEEZE_DEG, "wedge": self.SQUEEZE_DEG}.get(lever, 0.0) * uneven
        self.bent = Misalignment(bent.twist_deg + blow, bent.pinch_deg + pinch, bent.offset_mm, bent.skew_deg)
        self.angle = (self.angle + {"turn": 45, "back": -45}.get(lever, 0)) % 360
        if lever == "other":
            self.end, self.angle = 1 - self.end, 0
        if lever == "new":
            spread = self.dice.uniform
            self.bent = Misalignment(spread(-0.2, 0.2), spread(-0.03, 0.03), self.dice.gauss(0, 0.006), self.dice.gauss(0, 0.003))
            self.angle = self.end = 0

    def after(self, seconds: float) -> str:
        swing = runout_from(self.bent, self.geometry)[self.end]
        turned = math.radians(self.angle)
        value = swing.tir_mm / 2 * math.cos(turned - math.radians(swing.high_spot_deg)) + self.oval_mm / 2 * math.cos(2 * turned)
        zero = (0.012, -0.031)[self.end]
        shown = self.stepped(value + zero + self.dice.gauss(0, self.NOISE_MM), self.STEP_MM, 3)
        return f"{shown} mm {('left', 'right')[self.end]}@{self.angle}"


class Case(Thing):
    """A crankcase half out of the oven, under an infrared gun set to 0.95; a paint dot shows 0.93 of it, bare metal 0.2."""

    name = "case"
    remark = "Stand-in case: an infrared gun on a paint dot, room at 21 °C."
    every_s = 0.5
    levers = {"oven": "Into the oven", "out": "Out of the oven", "paint": "Aim at the dot", "bare": "Aim at bare metal"}
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


class Ram(Thing):
    """A press ram on a pin: the force climbs with every stroke of the pump, breaks out, falls to what sliding takes."""

    name = "ram"
    remark = "Stand-in press: a load cell under the ram."
    levers = {"pump": "Pump", "release": "Let off", "new": "Another pin"}
    BREAK_N = (24_000.0, 52_000.0)

    def __init__(self, seed: int) -> None:
        super().__init__(seed)
        self.force_n, self.breaks_n, self.slides = 0.0, 31_400.0, False

    def pull(self, lever: str) -> None:
        if lever == "new":
            self.breaks_n, self.slides, self.force_n = self.dice.uniform(*self.BREAK_N), False, 0.0
        if lever == "release":
            self.force_n = 0.0
        if lever == "pump":
            self.force_n += self.dice.uniform(3_500, 5_000)
            if self.slides or self.force_n > self.breaks_n:
                self.force_n = (0.75 if self.slides else 1.0) * self.breaks_n
                self.slides = True

    def after(self, seconds: float) -> str:
        said = f"{self.stepped((self.force_n + self.dice.gauss(0, 40)) / 1000, 0.1, 1)} kN"
        if self.slides and self.force_n >= self.breaks_n:
            self.force_n = 0.75 * self.breaks_n  # it has released: what is left slides it
        return said


class Wheel(Thing):
    """A flywheel on a balance stand: rolled, it stops with its heavy spot near the bottom, as near as the stand's rubbing lets it.

    Putty goes on opposite to where it was seen to stop; holes are drilled there, 80 mm out. Speaks once a stop.
    """

    name = "wheel"
    remark = "Stand-in stand: the mark's angle at the bottom, once a stop."
    levers = {
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


THINGS: tuple[type[Thing], ...] = (Crank, Case, Ram, Wheel)
