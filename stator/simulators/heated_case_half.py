"""A case half with five bearings: an oven slower and colder than its dial, a misleading infrared thermometer, and a tight seat."""

from __future__ import annotations

import math
import random
from collections.abc import Mapping
from dataclasses import dataclass
from typing import ClassVar

from stator.simulators.base import Part
from stator.simulators.case import seen_c

BEARINGS: Mapping[str, float] = {"A": 62.0, "B": 52.0, "C": 47.0, "D": 42.0, "E": 40.0}  # outside diameters
CASE_ALPHA, STEEL_ALPHA = 21.5e-6, 11.9e-6  # 1/K
ROOM_C, HURTS_C = 20.0, 165.0  # above it the case's temper and paint go
AIR_TAU_S, DROP_S, SETS_C = 900.0, 20.0, (110, 125, 140)
LAGS_S, STEP_S = 90.0, 15.0  # by which a thick boss lags behind the wall that a gun sees; in such steps
PAINT, BARE = 0.93, 0.2


@dataclass(frozen=True)
class Oven:
    """The hidden true values: each bearing's interference when cold, µm, the speed of the oven, and its error."""

    tight_um: Mapping[str, float]
    tau_s: float
    below_k: float


def oven(seed: int, level: str = "middle") -> Oven:
    """Return the true values of a seed.

    At the middle level one seat is tight; at the hard level the oven is also slow.

    >>> oven(4) == oven(4)
    True
    """
    dice = random.Random(f"{seed}-{level}-oven")
    tight = {
        name: dice.uniform(0.3, 0.75) * 39.0 * (size / 62.0) ** 0.33 for name, size in BEARINGS.items()
    }  # within N7 and the ring's own
    if level != "easy":
        odd = dice.choice(tuple(BEARINGS))
        tight[odd] = dice.uniform(75, 95) * 1000 * CASE_ALPHA * BEARINGS[odd]  # enters only so many kelvins above the room
    pace = {"easy": (480.0, 0.0), "middle": (700.0, 4.0), "hard": (1000.0, 10.0)}[level]
    return Oven(tight, pace[0] * dice.uniform(0.9, 1.1), pace[1] * dice.uniform(0.5, 1.0))


class HotHalf(Part):
    """A case half that is heated, measured, taken out, and filled with bearings one by one while it is warm enough."""

    name = "hot-half"
    remark = "Stand-in case half with five bearings: an infrared gun set to 0.95."
    levers: ClassVar[Mapping[str, str]] = {
        **{f"set-{c}": f"Set the oven to {c} °C" for c in SETS_C},
        "oven": "Into the oven",
        "out": "Out of the oven",
        "paint": "Gun at the paint dot",
        "bare": "Gun at bare metal",
        **{f"drop-{name}": f"Drop bearing {name}" for name in BEARINGS},
        **{f"lift-{name}": f"Lift bearing {name} out again" for name in BEARINGS},
        **{f"knock-{name}": f"Knock bearing {name} down" for name in BEARINGS},
    }

    def __init__(self, seed: int, truth: Oven | None = None) -> None:
        super().__init__(seed)
        self.truth = truth or oven(seed)
        self.true_c, self.wall_c = ROOM_C, ROOM_C  # of the bosses that bearings go into; of the wall around them
        self.hottest_c, self.set_c, self.heating = ROOM_C, float(SETS_C[0]), False
        self.home: list[str] = []
        self.jammed: list[str] = []
        self.knocked, self.reading, self.shown_c = 0, "", 0.0
        self.seen = ""  # what hands looked at last

    def passes(self, seconds: float) -> None:
        toward = self.set_c - self.truth.below_k if self.heating else ROOM_C
        tau = self.truth.tau_s if self.heating else AIR_TAU_S
        while seconds > 0:
            step = min(seconds, STEP_S)
            self.wall_c = toward + (self.wall_c - toward) * math.exp(-step / tau)
            self.true_c = self.wall_c + (self.true_c - self.wall_c) * math.exp(-step / LAGS_S)
            self.hottest_c = max(self.hottest_c, self.wall_c)
            seconds -= step

    def open_um(self, name: str) -> float:
        """Return what the seat is wider than the ring now, µm; below 0 it is tighter."""
        grown = 1000 * BEARINGS[name] * CASE_ALPHA * (self.true_c - ROOM_C)
        return grown - self.truth.tight_um[name]

    @property
    def left(self) -> int:
        """Return the number of bearings that are not seated."""
        return len(BEARINGS) - len(self.home)

    @property
    def is_spoiled(self) -> bool:
        return self.hottest_c > HURTS_C

    def pull(self, control: str) -> None:
        what, _, of = control.partition("-")
        if what == "set":
            self.set_c = float(of)
        if what in ("oven", "out"):
            self.heating = what == "oven"
        if what in ("paint", "bare"):
            self._aim(what)
        if what in ("drop", "lift", "knock"):
            self._at(what, of)

    def _aim(self, at: str) -> None:
        around = self.set_c if self.heating else ROOM_C
        self.reading = at
        self.shown_c = round(2 * (seen_c(self.wall_c, PAINT if at == "paint" else BARE, around) + self.dice.gauss(0, 0.3))) / 2

    def _at(self, what: str, name: str) -> None:
        self.reading = ""
        if name in self.home or self.heating:
            return
        if what == "drop" and name not in self.jammed:
            left = -self.open_um(name) + self.dice.gauss(0, 1.0)
            if left > 0:
                self.jammed.append(name)
            else:
                self.home.append(name)
            self.passes(DROP_S)
        elif what == "lift" and name in self.jammed:
            self.jammed.remove(name)
            self.passes(DROP_S)
        elif what == "knock" and name in self.jammed:
            self.jammed.remove(name)
            self.home.append(name)  # it goes in, and is spoiled
            self.knocked += 1

    def after(self, seconds: float) -> str | None:
        self.passes(seconds)
        return f"{self.shown_c:.1f} C {self.reading}" if self.reading else None
