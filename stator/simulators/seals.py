"""Three similar seals and three places, with a caliper, lips with a direction, and a driver that tilts."""

from __future__ import annotations

import random
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import ClassVar

from shopmath.seals import CLOCKS, SQUARE_MM
from shopmath.seals import DEPTH_MM as OFF_MM
from stator.simulators.base import Part

PLACES: Mapping[str, tuple[float, float]] = {"drive": (25.0, 40.0), "magneto": (25.0, 42.0), "output": (26.0, 40.0)}  # shaft, bore
WIDTH_MM, DEPTH_MM = 7.0, 0.8
FLAT_MM = 0.01  # of a face that a depth is measured from
LETTERS = ("A", "B", "C")


@dataclass(frozen=True)
class Lot:
    """The hidden true values: the place of each seal, its orientation, the tilt of a blow, and the error of the caliper."""

    made_for: tuple[str, str, str]
    inside_up: tuple[bool, bool, bool]
    leans_mm: float
    reads_off_mm: float


def lot(seed: int, level: str = "middle") -> Lot:
    """Return the true values of a seed.

    >>> lot(2) == lot(2), sorted(lot(2).made_for) == sorted(PLACES)
    (True, True)
    """
    dice = random.Random(f"{seed}-{level}-seals")
    made_for = list(PLACES)
    dice.shuffle(made_for)
    up = [dice.random() < 0.5 for _ in LETTERS]
    leans, off = {"easy": (0.10, 0.02), "middle": (0.45, 0.06), "hard": (0.8, 0.12)}[level]
    return Lot((made_for[0], made_for[1], made_for[2]), (up[0], up[1], up[2]), leans, off)


@dataclass
class Seated:
    """A seal in a place: its depth at the four clocks, mm, and whether its lip faces inside."""

    letter: str
    inside: bool
    depths_mm: dict[str, float] = field(default_factory=dict)

    @property
    def lean_mm(self) -> float:
        return max(self.depths_mm.values()) - min(self.depths_mm.values())


class SealSet(Part):
    """A seal that is picked up, measured, turned, driven, tapped square, or pulled out, which spoils it."""

    name = "alike"
    remark = "Stand-in seals: a calliper on the seal in hand, a depth gauge on the one in its place."
    levers: ClassVar[Mapping[str, str]] = {
        **{f"take-{letter}": f"Take seal {letter}" for letter in LETTERS},
        "shaft": "Calliper: the shaft it is for",
        "bore": "Calliper: the bore it is for",
        "lip": "Look which way its lip faces",
        "round": "Turn it round",
        **{f"place-{place}": f"Go to the place: {place}" for place in PLACES},
        "drive": "Drive it in",
        **{f"depth-{clock}": f"Depth at {clock}" for clock in CLOCKS},
        **{f"tap-{clock}": f"Tap at {clock}" for clock in CLOCKS},
        "draw": "Draw it out",
    }

    def __init__(self, seed: int, truth: Lot | None = None) -> None:
        super().__init__(seed)
        self.truth = truth or lot(seed)
        self.hand, self.place, self.reading, self.shown = "A", next(iter(PLACES)), "", 0.0
        self.inside = dict(zip(LETTERS, self.truth.inside_up, strict=True))
        self.seated: dict[str, Seated] = {}
        self.spoiled, self.refused = 0, False
        self.seen = ""  # what hands looked at last

    def made_for(self, letter: str) -> str:
        return dict(zip(LETTERS, self.truth.made_for, strict=True))[letter]

    @property
    def in_hand(self) -> str:
        """Return the letter of the seal being handled; empty if it is in a place."""
        return "" if self.hand in {each.letter for each in self.seated.values()} else self.hand

    def is_right(self, place: str) -> bool:
        """Return True if the place has its own seal, its lip inside, square and deep enough."""
        here = self.seated.get(place)
        if here is None or self.made_for(here.letter) != place or not here.inside:
            return False
        return here.lean_mm <= SQUARE_MM and abs(sum(here.depths_mm.values()) / 4 - DEPTH_MM) <= OFF_MM

    @property
    def wrong(self) -> int:
        """Places that are not right."""
        return sum(not self.is_right(place) for place in PLACES)

    def pull(self, control: str) -> None:
        what, _, of = control.partition("-")
        self.refused = False
        if what == "take":
            self.hand, self.reading = of, ""
        elif what == "place":
            self.place, self.reading = of, ""
        elif what == "round" and self.in_hand:
            self.inside[self.hand], self.reading = not self.inside[self.hand], ""
        elif what in ("drive", "draw", "tap"):
            self._works(what, of)
        elif what in ("shaft", "bore", "lip", "depth"):
            self._looks(what, of)

    def _works(self, what: str, clock: str) -> None:
        here, self.reading = self.seated.get(self.place), ""
        if what == "drive" and self.in_hand and here is None:
            self._drive()
        elif what == "draw" and here is not None:
            self.seated.pop(self.place)
            self.spoiled += 1  # a new one of its kind is taken from the bag
            self.hand = here.letter
        elif what == "tap" and here is not None:
            self._tap(here, clock)

    def _drive(self) -> None:
        bore = PLACES[self.made_for(self.hand)][1]
        if bore > PLACES[self.place][1] + 0.5:
            self.refused = True  # it does not enter a smaller bore
            return
        lean, deep = self.dice.uniform(0.3, 1.0) * self.truth.leans_mm, CLOCKS[self.dice.randrange(4)]
        across = CLOCKS[(CLOCKS.index(deep) + 2) % 4]
        mean = DEPTH_MM - lean / 2
        depths = {clock: mean + {deep: lean / 2, across: -lean / 2}.get(clock, 0.0) for clock in CLOCKS}
        self.seated[self.place] = Seated(self.hand, self.inside[self.hand], depths)

    def _tap(self, here: Seated, clock: str) -> None:
        """A tap drives that side in by part of what it lags, and a little more where it lags no more."""
        lags = max(here.depths_mm.values()) - here.depths_mm[clock]
        self_in = max(0.04, lags * self.dice.uniform(0.5, 0.9))
        across = CLOCKS[(CLOCKS.index(clock) + 2) % 4]
        for each in CLOCKS:
            here.depths_mm[each] += {clock: 1.0, across: 0.0}.get(each, 0.5) * self_in

    def _looks(self, what: str, clock: str) -> None:
        self.reading = f"{what}-{clock}" if clock else what
        if what in ("shaft", "bore") and self.in_hand:
            true = PLACES[self.made_for(self.hand)][what == "bore"]
            self.shown = round((true + self.dice.gauss(0, self.truth.reads_off_mm)) / 0.02) * 0.02
        elif what == "depth" and self.place in self.seated:
            true = self.seated[self.place].depths_mm[clock]
            self.shown = round((true + self.dice.gauss(0, FLAT_MM)) / 0.02) * 0.02
        elif not (what == "lip" and self.in_hand):
            self.reading = ""

    def after(self, seconds: float) -> str | None:
        return f"{self.shown:.2f} mm {self.reading}" if self.reading and self.reading != "lip" else None
