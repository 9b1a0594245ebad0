"""Two halves of a case under a splitter: screws that open one side first, dowels that bind, and a forgotten bolt."""

from __future__ import annotations

import math
import random
from collections.abc import Mapping
from dataclasses import dataclass
from typing import ClassVar

from stator.simulators.base import Part

PLACES: Mapping[str, tuple[float, float]] = {"front": (-110.0, 0.0), "top": (0.0, 95.0), "rear": (110.0, 0.0), "sump": (0.0, -95.0)}
DOWEL_MM, ENGAGED_MM = 0.03, 7.0  # clearance of a dowel, and how deep it sits
BINDS_SLOPE = DOWEL_MM / ENGAGED_MM  # of the half, at which a dowel binds while it is whole in its hole
PUSH_MM = 1.5  # that a turn of the screws opens
FEELER_MM = 0.05


@dataclass(frozen=True)
class Joint:
    """The hidden true values: which side leads and by how much, where a bolt remains, how tight the dowels are."""

    leads: float = 0.10  # share of a push by which one side is ahead of the other
    toward_deg: float = 0.0
    forgotten: str = ""  # the place that a bolt still holds
    tight: float = 1.0  # times the usual slope at which its dowels bind


def joined(seed: int, level: str = "middle") -> Joint:
    """Return the true values of a seed.

    >>> joined(2) == joined(2)
    True
    """
    dice = random.Random(f"{seed}-{level}-halves")
    highest = {"easy": 0.4, "middle": 0.9, "hard": 1.4}[level]
    forgotten = dice.choice((*PLACES, "", "")) if level == "hard" else ""
    return Joint(dice.uniform(0.3, 1.0) * highest, dice.uniform(0, 360), forgotten, dice.uniform(0.6, 1.0) if level == "hard" else 1.0)


class Halves(Part):
    """The lifting half as a plane over the joint: pushed, tapped where it lags, measured at four places."""

    name = "halves"
    remark = "Stand-in case halves: feeler blades at four places round the joint."
    levers: ClassVar[Mapping[str, str]] = {
        "quarter": "Each screw a quarter turn",
        "ease": "Ease the screws half a turn",
        **{f"tap-{place}": f"Tap at the {place}" for place in PLACES},
        **{f"gap-{place}": f"Measure at the {place}" for place in PLACES},
        "new": "Another case",
    }

    def __init__(self, seed: int, truth: Joint | None = None) -> None:
        super().__init__(seed)
        self.truth = truth or joined(seed)
        self.mean_mm, self.slope, self.blades, self.binds_often = 0.0, 0j, "front", 0
        self.seen = ""  # what hands looked at last

    def gap_mm(self, place: str) -> float:
        """The true gap at a place."""
        x, y = PLACES[place]
        held = 0.02 if place == self.truth.forgotten else 1.0  # a bolt that still holds lets nothing open there
        return max(0.0, held * (self.mean_mm + self.slope.real * x + self.slope.imag * y))

    @property
    def binds(self) -> bool:
        """Return True if the half is tilted more than its dowels allow, as far as they are engaged."""
        left = max(0.5, ENGAGED_MM - self.mean_mm)
        return self.mean_mm < ENGAGED_MM and abs(self.slope) > self.truth.tight * DOWEL_MM / left

    @property
    def is_free(self) -> bool:
        return self.mean_mm >= ENGAGED_MM and not self.truth.forgotten

    def push(self, turns: float) -> None:
        """Turn every screw by the same angle; a half that binds opens less and tilts more."""
        opened = turns * PUSH_MM
        if self.binds:
            self.binds_often += 1
            opened *= 0.3
        way = math.radians(self.truth.toward_deg)
        self.slope += opened * self.truth.leads / 220 * complex(math.cos(way), math.sin(way))
        self.mean_mm = max(0.0, self.mean_mm + opened)

    def tap(self, place: str) -> None:
        """Tap outward at a place, which removes about half of the tilt there."""
        x, y = PLACES[place]
        along = complex(x, y) / abs(complex(x, y))
        part = (self.slope.real * along.real + self.slope.imag * along.imag) * along
        if (part / along).real < 0:
            self.slope -= part * self.dice.uniform(0.5, 0.9)

    def pull(self, control: str) -> None:
        if control == "new":
            self.__init__(self.dice.randrange(10**9))  # type: ignore[misc]
        elif control == "quarter":
            self.push(0.25)
        elif control == "ease":
            self.mean_mm, self.slope = max(0.0, self.mean_mm - 0.5 * PUSH_MM), 0.6 * self.slope
        elif control.startswith("tap-"):
            self.tap(control.removeprefix("tap-"))
        elif control.startswith("gap-"):
            self.blades = control.removeprefix("gap-")

    def shown_mm(self) -> float:
        """Return the thickest feeler gauge that fits at the present place."""
        gap = max(0.0, self.gap_mm(self.blades) + self.dice.gauss(0, 0.01))
        return math.floor(gap / FEELER_MM + 1e-9) * FEELER_MM

    def after(self, seconds: float) -> str:
        return f"{self.shown_mm():.2f} mm {self.blades}"
