"""Gaps around a joint, with and without an error: how often they are suspected, and the faulty place is named."""

from __future__ import annotations

import math
import random
from collections.abc import Iterator

from shopmath.gap_plane import Point, check_gaps
from stator.simulations.pass_rate import Share

NOISE_MM, MISREAD_MM = 0.02, 0.5


def _round(dice: random.Random, places: int, misread_mm: float) -> tuple[bool, bool]:
    """Return whether a round of gaps was suspected, and whether the faulty place is among those measured again."""
    start, tilt, toward = dice.uniform(0, 360), dice.uniform(0, 0.005), dice.uniform(0, 360)
    points = []
    for index in range(places):
        at = math.radians(start + 360 * index / places + dice.uniform(-12, 12))
        x, y = dice.uniform(60, 90) * math.cos(at), dice.uniform(50, 80) * math.sin(at)
        gap = 1.3 + tilt * (x * math.cos(math.radians(toward)) + y * math.sin(math.radians(toward)))
        points.append(Point(str(index), x, y, dice.gauss(gap, NOISE_MM)))
    wrong = dice.randrange(places)
    off = dice.choice((-1, 1)) * misread_mm
    points[wrong] = Point(str(wrong), points[wrong].x_mm, points[wrong].y_mm, points[wrong].gap_mm + off)
    found = check_gaps(points, NOISE_MM)
    return found.suspect, str(wrong) in found.again


def planes(dice: random.Random, cases: int) -> Iterator[Share]:
    """False alarms at four and five places, misread gaps found, and the right one named."""
    for places in (4, 5, 6):
        alarms = sum(_round(dice, places, 0.0)[0] for _ in range(cases))
        yield Share(f"good gaps at {places} places: suspected", alarms, cases, 0.02, at_most=True)
        seen = [_round(dice, places, MISREAD_MM) for _ in range(cases)]
        suspected = [right for found, right in seen if found]
        yield Share(f"a gap of {places} misread by {MISREAD_MM:g} mm: suspected", len(suspected), cases, 0.95)
        yield Share(f"a gap of {places} misread by {MISREAD_MM:g} mm: the right place asked again", sum(suspected), len(suspected), 0.95)
