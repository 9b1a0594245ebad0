"""Sizes around a limit, read with a gauge that scatters: how often a verdict is right, and the uncertainty covers the error."""

from __future__ import annotations

import random
from collections.abc import Iterator

from shopmath.gauges import gauge_uncertainty, usual_spread
from shopmath.verdict import IN, judge
from stator.simulations.pass_rate import Share

KINDS = (("micrometer", 0.001), ("bore", 0.001), ("dial", 0.01), ("dial", 0.001))
READINGS = (1, 2, 3, 5)
ABOUT_MM = 0.016  # sizes are spread evenly so far about the limit
SCATTERS = (0.3, 1.0)  # true scatter, as a share of what the kind is taken to have


def gauges(dice: random.Random, cases: int) -> Iterator[Share]:
    """Return, for each kind and number of readings, wrong OK verdicts, and intervals that contain the true size."""
    for kind, step in KINDS:
        for readings in READINGS:
            called = wrong = held = 0
            for _ in range(cases):
                true = dice.uniform(-ABOUT_MM, ABOUT_MM)
                scatter = usual_spread(kind, step) * dice.uniform(*SCATTERS)
                values = [round((true + dice.gauss(0, scatter)) / step) * step for _ in range(readings)]
                uncertainty, mean = gauge_uncertainty(step, None, values, kind=kind), sum(values) / readings
                held += abs(mean - true) <= uncertainty
                if judge(mean, high=0.0, uncertainty=uncertainty).state == IN:
                    called, wrong = called + 1, wrong + (true > 0)
            name = f"{kind} {step:g}, readings {readings}"
            yield Share(f"{name}: of the calls in, wrong", wrong, called, 0.01, at_most=True)
            yield Share(f"{name}: interval holds the size", held, cases, 0.95)
