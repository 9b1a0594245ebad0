"""Base of exercises with a crank under a dial indicator: it is turned by controls or by hand, and its runout is to be small."""

from __future__ import annotations

from typing import Any

from shopmath.amounts import Amount, mm
from stator.practice.exercises.base import ControlAction, DisplayedValue, Exercise, Read, Samples
from stator.simulators.crank import ENDS

TURNS = {"on-30": 30, "on-45": 45, "back-30": -30, "back-45": -45}  # lever: how far the crank is turned, °
BY_DEG, LINES = 5, 50  # that wheel, finger or key turns it at a time; of the dial
TURN_BY = "turn-by"  # turned by hand, so many steps


def angle(value_deg: float) -> Amount:
    return Amount(value_deg, "angle", 0.001)


def steps_of(pulled: ControlAction) -> int:
    return round(pulled.typed.get("steps", 0))


class UnderDial(Exercise):
    station = "true"
    looks = ((*TURNS, "other"),)
    hard = True

    def turned(self, part: Any, pulled: ControlAction) -> bool:
        """Return True if a control only turned it, or changed to its other end."""
        if pulled.lever in TURNS or pulled.lever == TURN_BY:
            part.angle = (part.angle + TURNS.get(pulled.lever, BY_DEG * steps_of(pulled))) % 360
            return True
        if pulled.lever == "other":
            part.pull("other")
        return pulled.lever == "other"

    def shows(self, part: Any) -> DisplayedValue:
        shown, values = part.shows_mm(), {"end": ENDS[part.end], "angle": part.angle}
        return DisplayedValue("at_angle", values, mm(shown, part.step_mm), dial_mm=shown, round_mm=LINES * part.step_mm)

    def samples(self, part: Any) -> Samples:
        """A whole turn of needle positions either way."""
        shown, here = [], part.angle
        for step in range(360 // BY_DEG):
            part.angle = (here + step * BY_DEG) % 360
            shown.append(round(part.shows_mm(), 4))
        part.angle = here
        return Samples(BY_DEG, (*shown, shown[0]), (shown[0], *reversed(shown)))

    def left(self, part: Any, read: Read) -> float:
        return float(part.truth.worst_mm)

    def least(self, part: Any) -> float:
        return float(part.truth.best_mm)
