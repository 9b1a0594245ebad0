"""Base of all exercises: a part restored from recorded controls, what it shows, and its result."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Iterable, Mapping
from copy import copy
from dataclasses import dataclass, field
from typing import Any, ClassVar

from shopmath.amounts import Amount
from stator.engines.models import EngineCard
from stator.simulators.base import Part

SHARES = {"tap": 0.25, "half": 0.5, "whole": 1.0}  # how hard
Read = Mapping[str, list[float]]  # what was kept at the station, by the address of the question
ExerciseOutcome = Amount | str  # a value of the truth: a quantity, or the code of a word


@dataclass(frozen=True)
class ControlAction:
    """A control as used: its strength, the seconds since the beginning, and what was typed with it."""

    lever: str
    share: float = 1.0
    at_s: float = 0.0
    typed: Mapping[str, float] = field(default_factory=dict)
    against: bool = False  # done although the call was to stop

    def row(self) -> dict[str, Any]:
        """Return the control for storage."""
        row: dict[str, Any] = {"lever": self.lever, "share": self.share, "at_s": round(self.at_s, 1)}
        if self.typed:
            row["typed"] = dict(self.typed)
        if self.against:
            row["against"] = True
        return row


@dataclass(frozen=True)
class DisplayedValue:
    """What the learner sees now: the place, the reading of a gauge or a code, and whether it is a dial."""

    where: str = ""
    values: Mapping[str, Any] = field(default_factory=dict)
    amount: Amount | None = None
    said: str = ""
    dial_mm: float | None = None
    round_mm: float = 0.1
    small_hand: int | None = None


@dataclass(frozen=True)
class Samples:
    """Positions of the needle, mm, for the next steps in degrees, forward and backward; the first of each is the present one."""

    by_deg: int
    on_mm: tuple[float, ...]
    back_mm: tuple[float, ...]


@dataclass(frozen=True)
class Typed:
    """A number typed next to the controls: its kind, its limits and its initial value, in the part's own unit.

    `per` is the number of that unit in one of the core's, 1000 g for a kilogram.
    """

    key: str
    kind: str
    low: float | None
    high: float
    first: float
    per: float = 1.0


class Exercise(ABC):
    """An exercise.

    `looks` and `works` are rows of controls: those that only measure, and those that change the part.
    """

    key: ClassVar[str]
    station: ClassVar[str]
    seat: ClassVar[int | None] = None  # 0 where the station's page is for all seats at once
    chooses: ClassVar[Mapping[str, str]] = {}  # ways of the station that are taken at the beginning
    kind: ClassVar[str] = "length"  # of what is to be made small
    step: ClassVar[float] = 0.001
    looks: ClassVar[tuple[tuple[str, ...], ...]]
    works: ClassVar[tuple[tuple[str, ...], ...]]
    hard: ClassVar[bool] = False  # whether it matters how hard
    timed: ClassVar[bool] = False  # whether it changes while nothing is done
    typed: ClassVar[tuple[Typed, ...]] = ()
    takes_s: ClassVar[Mapping[str, float]] = {}  # levers that take their time, s
    usual_limit: ClassVar[float] = 0.0
    presets: ClassVar[tuple[tuple[str, str], ...]] = ()  # questions of the station that are answered at the beginning
    goal: float | None = None  # how small an instructor's file wants it
    gauge: Mapping[str, float] = {}  # what that file says of the gauge, by the part's own names

    def aimed(self, content: Mapping[str, Any]) -> Exercise:
        """The same with the goal and the gauge of an instructor's file."""
        found = copy(self)
        found.goal, found.gauge = content.get("goal"), content.get("gauge") or {}
        return found

    def held_to(self, part: Any) -> Any:
        """A part under the file's gauge."""
        for name, value in self.gauge.items():
            setattr(part, name, value)
        return part

    @property
    def levers(self) -> tuple[str, ...]:
        return tuple(control for row in (*self.looks, *self.works) for control in row)

    @property
    def working(self) -> frozenset[str]:
        return frozenset(control for row in self.works for control in row)

    # the part

    @abstractmethod
    def card(self) -> EngineCard:
        """An engine that does not exist."""

    @abstractmethod
    def part(self, seed: int, level: str, truth: Mapping[str, Any] | None = None) -> Any:
        """Return the untouched part, with true values from the seed or a file."""

    def pull(self, part: Any, pulled: ControlAction) -> None:
        """Run a control."""
        part.pull(pulled.lever)

    def standing(
        self, seed: int, level: str, pulls: Iterable[ControlAction], truth: Mapping[str, Any] | None = None, at_s: float = 0.0
    ) -> Any:
        """The part after everything that was done to it; what falls by chance falls the same way every time."""
        part, passed = self.held_to(self.part(seed, level, truth)), 0.0
        for each in pulls:
            self.waits(part, each.at_s - passed)
            passed = max(passed, each.at_s)
            self.pull(part, each)
        self.waits(part, at_s - passed)
        return part

    def waits(self, part: Part, seconds: float) -> None:
        if self.timed and seconds > 0:
            part.passes(seconds)

    # what it shows, and what it is worth

    @abstractmethod
    def shows(self, part: Any) -> DisplayedValue:
        """Return what a gauge or an eye says now."""

    def samples(self, part: Any) -> Samples | None:
        """Return what a page needs to move the needle as it is turned by hand; None where nothing is turned."""
        return None

    @abstractmethod
    def left(self, part: Any, read: Read) -> float:
        """Return what is to be made small, as it really is."""

    def limit(self, part: Any) -> float:
        """Return how small it is to be."""
        return self.usual_limit if self.goal is None else self.goal

    def least(self, part: Any) -> float:
        """The best that hands could leave of an untouched part."""
        return 0.0

    def reached(self, part: Any, read: Read) -> bool:
        return self.left(part, read) <= self.limit(part) + 1e-9

    def beyond(self, part: Any) -> bool:
        """Return True if no hands could reach the goal, so that giving it up is right."""
        return self.least(part) > self.limit(part)

    @abstractmethod
    def best(self, part: Any) -> tuple[str, ...]:
        """Return the controls that would improve the part now; empty if it is best left alone."""

    def is_right(self, part: Any, pulled: ControlAction) -> bool:
        """Return True if a move helps, before it is made."""
        return pulled.lever in self.best(part)

    def damage(self, part: Any) -> list[str]:
        """Return what was spoiled, as codes, the gravest first."""
        return []

    @abstractmethod
    def truth(self, part: Any) -> dict[str, ExerciseOutcome]:
        """Return the true values of a part by code, for the debriefing."""

    def found(self, found: Any) -> dict[str, ExerciseOutcome]:
        """The same as the station worked it out from what was measured, as far as it did; from its facts."""
        return {}

    @abstractmethod
    def shortest(self, part: Any) -> int:
        """Return how many moves a learner who follows Stator needs for an untouched part, which is changed by this."""

    def fault(self, part: Any) -> str:
        """Return the code of the part's fault; empty if it has none."""
        return ""

    def verdict(self, part: Any) -> str:
        """Return the true verdict: `in` or `out`."""
        return "in" if self.reached(part, {}) else "out"

    def advice(self, first: Any, now: Any, moves: list[dict[str, Any]], read: Read) -> str:
        """The largest loss, as a code."""
        if self.beyond(first):
            return "beaten" if moves else "given_up_rightly"
        if damage := self.damage(now):
            return damage[0]
        done, wrong = self.reached(now, read), sum(not move["right"] for move in moves)
        if not moves and self.works and not done:
            return "not_begun"
        if 2 * wrong > len(moves):
            return "wrong_way"
        if not done:
            return "stopped_early"
        return "overshot" if wrong > 1 else "well_done"

    # the debrief

    def came_to(
        self,
        seed: int,
        level: str,
        pulls: list[ControlAction],
        read: Read,
        found: Mapping[str, ExerciseOutcome],
        truth: Mapping[str, Any] | None = None,
    ) -> dict[str, Any]:
        """Return the result with the true values after each move."""
        first, now, passed = self.part(seed, level, truth), self.held_to(self.part(seed, level, truth)), 0.0
        moves, began = [], self.left(first, {})
        for each in pulls:
            self.waits(now, each.at_s - passed)
            passed = max(passed, each.at_s)
            if each.lever not in self.working:
                self.pull(now, each)
                continue
            best, right, before = self.best(now), self.is_right(now, each), self.left(now, {})
            self.pull(now, each)
            row = {"before": before, "after": self.left(now, {}), "right": right, "best": best[0] if best else ""}
            moves.append({"lever": each.lever, "share": each.share, **row})
        at_first, at_last = self.truth(first), self.truth(now)
        return {
            "kind": self.kind,
            "step": self.step,
            "fault": self.fault(first),
            "began": began,
            "left": self.left(now, read),
            "limit": self.limit(first),
            "least": self.least(first),
            "reached": self.reached(now, read),
            "beyond": self.beyond(first),
            "moves": moves,
            "right": sum(move["right"] for move in moves),
            "stops": sum(each.against for each in pulls),
            "shortest": self.shortest(self.part(seed, level, truth)),
            "damage": self.damage(now),
            "truth": [[code, _plain(at_first[code]), _plain(at_last[code]), _plain(found.get(code, ""))] for code in at_first],
            "advice": self.advice(first, now, moves, read),
        }


def _plain(told: ExerciseOutcome) -> Any:
    """Return a value for storage."""
    return told if isinstance(told, str) else [told.value, told.kind, told.resolution]
