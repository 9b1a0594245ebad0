"""Operators that read a dial: those that count its turns and approach from one side, and those that read the face only."""

from __future__ import annotations

from stator.simulators.crank import ENDS
from stator.simulators.shaft_runout import BY_DEG, ShaftRunout


def off(part: ShaftRunout, end: str, read_mm: float) -> float:
    """Return how far a runout that was read is from the true one."""
    return abs(read_mm - part.truth.tir_mm(end))


def count_rounds(part: ShaftRunout) -> float:
    """Approach from one side and count turns once around; return the larger error of the two ends, mm."""
    worst = 0.0
    for end in ENDS:
        seen = []
        part.turn(360)
        for _ in range(360 // BY_DEG):
            part.pull("on")
            seen.append(part.shown_mm)
        worst = max(worst, off(part, end, max(seen) - min(seen)))
        part.pull("other")
    return worst


def face_alone(part: ShaftRunout) -> float:
    """Read the face without counting turns; return the larger error of the two ends, mm."""
    worst = 0.0
    for end in ENDS:
        seen = []
        for _ in range(360 // BY_DEG):
            part.pull("on")
            seen.append(part.dial.face_mm)
        worst = max(worst, off(part, end, max(seen) - min(seen)))
        part.pull("other")
    return worst
