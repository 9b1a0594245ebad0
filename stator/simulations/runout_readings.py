"""Turns of a shaft under a dial indicator, with and without a slipped reading: how often suspected, with the right angle."""

from __future__ import annotations

import math
import random
from collections.abc import Iterator

from shopmath.gauges import gauge_uncertainty
from shopmath.runout import check_turn
from stator.simulations.pass_rate import Share

SLIPS = ((0.03, 8, 0.75), (0.03, 12, 0.90), (0.045, 8, 0.97), (0.045, 12, 0.99))  # slip on a 0.01 dial, mm, angles, share suspected
GOOD = ((0.01, 0.002, 8), (0.01, 0.002, 12), (0.001, 0.002, 8), (0.001, 0.002, 12))  # step, scatter, angles


def _turn(dice: random.Random, step: float, scatter: float, angles: int, slip: float) -> tuple[bool, bool]:
    """Return whether one turn was suspected, and whether the slipped angle was among those asked again."""
    runout, high, oval = dice.uniform(0, 0.06), dice.uniform(0, 360), dice.uniform(0, 0.004)
    turn = [360 * index / angles for index in range(angles)]
    shaft = [runout * math.cos(math.radians(at - high)) + oval * math.cos(2 * math.radians(at)) for at in turn]
    read = [round(dice.gauss(each, scatter) / step) * step for each in shaft]
    bad = dice.randrange(angles)
    read[bad] += dice.choice((-1, 1)) * slip
    found = check_turn(turn, read, gauge_uncertainty(step, kind="dial"))
    return bool(found.code), turn[bad] in found.again


def turns(dice: random.Random, cases: int) -> Iterator[Share]:
    """False alarms, slips found, and the right angle asked again."""
    for step, scatter, angles in GOOD:
        alarms = sum(_turn(dice, step, scatter, angles, 0.0)[0] for _ in range(cases))
        yield Share(f"good turn, {step:g} dial, {angles} angles: suspected", alarms, cases, 0.02, at_most=True)
    for slip, angles, needed in SLIPS:
        seen = [_turn(dice, 0.01, dice.uniform(0.002, 0.004), angles, slip) for _ in range(cases)]
        suspected = [right for found, right in seen if found]
        yield Share(f"slip of {slip:g} mm, 0.01 dial, {angles} angles: suspected", len(suspected), cases, needed)
        yield Share(f"slip of {slip:g} mm, 0.01 dial, {angles} angles: the right angle asked again", sum(suspected), len(suspected), 0.9)
