"""A flywheel on its taper under a puller: a hub thread that can strip, and a taper that releases suddenly."""

from __future__ import annotations

import random
from collections.abc import Mapping
from dataclasses import dataclass
from typing import ClassVar

from shopmath.screw_threads import stripping_force_n, torque_for_force_nm
from stator.simulators.base import Part

SCREW_MM, SCREW_PITCH_MM, POINT_RADIUS_MM, FRICTION = 16.0, 1.5, 3.0, 0.14  # of the puller's centre screw
BOSS_UTS_MPA, PULLER_UTS_MPA = 420.0, 800.0
CREEPS_A_MINUTE = 0.03  # of what it holds, that a taper under load gives up
KNOCK = 0.9  # of what it holds, after a blow on the screw's head


@dataclass(frozen=True)
class TaperTruth:
    """The hidden true values: the force that frees the taper, N, the hub's thread, and the engaged turns of the puller."""

    frees_n: float
    boss_d_mm: float = 27.0
    boss_pitch_mm: float = 1.0
    off_pitch_mm: float = 0.0  # how far the puller's thread is from the boss's
    turns: float = 7.0

    @property
    def strips_n(self) -> float:
        """Return the force that strips the thread, N; a puller of another pitch bears on its first turns only."""
        turns = self.turns if not self.off_pitch_mm else min(self.turns, 0.05 * self.boss_pitch_mm / self.off_pitch_mm)
        deep = max(0.5, turns) * self.boss_pitch_mm
        return stripping_force_n(self.boss_d_mm, self.boss_pitch_mm, deep, BOSS_UTS_MPA, PULLER_UTS_MPA, 0.2)

    @property
    def strips_nm(self) -> float:
        """Return the torque on the screw at which the thread strips, N·m."""
        return torque_nm(self.strips_n)


def torque_nm(pull_n: float) -> float:
    """On the screw, N·m, for a pull in N."""
    return torque_for_force_nm(pull_n, SCREW_MM, SCREW_PITCH_MM, FRICTION, FRICTION, POINT_RADIUS_MM)


def stuck(seed: int, level: str = "middle") -> TaperTruth:
    """Return the true values of a seed. At the hard level the puller's thread may differ slightly.

    >>> stuck(4) == stuck(4)
    True
    """
    dice = random.Random(f"{seed}-{level}-taper")
    low, high = {"easy": (12e3, 22e3), "middle": (18e3, 40e3), "hard": (25e3, 55e3)}[level]
    off = dice.choice((0.0, 25.4 / 26 - 1.0)) if level == "hard" else 0.0
    return TaperTruth(dice.uniform(low, high), off_pitch_mm=abs(off), turns=dice.choice((5.0, 6.0, 7.0, 8.0)))


class StuckWheel(Part):
    """A puller on a hub: its screw is tightened, left alone or struck, until the flywheel or the thread gives way."""

    name = "taper"
    remark = "Stand-in flywheel on its taper: a torque wrench on the puller's screw."
    levers: ClassVar[Mapping[str, str]] = {
        "more": "5 N·m more",
        "less": "Slacken",
        "wait": "Leave it loaded a minute",
        "knock": "A blow on the screw's head",
        "new": "Another wheel",
    }
    MORE_NM = 5.0

    def __init__(self, seed: int, truth: TaperTruth | None = None) -> None:
        super().__init__(seed)
        self.truth = truth or stuck(seed)
        self.torque_nm, self.holds, self.is_free, self.is_stripped, self.peak_nm = 0.0, 1.0, False, False, 0.0
        self.knocks, self.seen = 0, ""  # blows on the screw, which magnets do not forgive; what hands looked at last

    @property
    def pull_n(self) -> float:
        """Return what the screw pulls with now."""
        return self.torque_nm / torque_nm(1.0)

    def pull(self, control: str) -> None:
        if control == "new":
            self.__init__(self.dice.randrange(10**9))  # type: ignore[misc]
            return
        if self.is_free or self.is_stripped:
            return
        self.torque_nm = {"more": self.torque_nm + self.MORE_NM, "less": 0.0}.get(control, self.torque_nm)
        self.peak_nm = max(self.peak_nm, self.torque_nm)
        if control == "knock":
            self.knocks += 1
            self.holds *= KNOCK if self.torque_nm else 1.0
        if control == "wait":
            self.passes(60.0)
        self._gives()

    def passes(self, seconds: float) -> None:
        """Under load a taper creeps; without it, nothing happens."""
        if self.torque_nm:
            self.holds *= (1 - CREEPS_A_MINUTE * min(1.0, self.pull_n / self.truth.frees_n)) ** (seconds / 60)
            self._gives()

    def _gives(self) -> None:
        if self.pull_n >= self.truth.strips_n:
            self.is_stripped, self.torque_nm = True, 0.0
        elif self.pull_n >= self.holds * self.truth.frees_n:
            self.is_free, self.torque_nm = True, 0.0

    def after(self, seconds: float) -> str:
        self.passes(seconds)
        self._gives()
        text = "free" if self.is_free else "slips" if self.is_stripped else "holds"
        return f"{round(self.torque_nm + self.dice.gauss(0, 0.2)):d} Nm {text}"
