"""Rings and bores drawn from their tolerances and temperatures from their uncertainties: as many drop in as predicted."""

from __future__ import annotations

import random
from collections.abc import Iterator

from shopmath.iso286 import Limits
from shopmath.thermal import drop_confidence
from stator.simulations.pass_rate import Share

CLASSES = ((52, Limits(-39, -9), Limits(-13, 0), 80, 8, 0.015), (47, Limits(-33, -8), Limits(-11, 0), 50, 5, 0.0))
ALLOY, STEEL, COLD_C, COLD_U = 21e-6, 11.5e-6, 20, 3


def drops(dice: random.Random, cases: int) -> Iterator[Share]:
    """Return, for parts spread over their tolerances and for a measured pair, how many drop in, at least the predicted share."""
    for size, bore, ring, hot, hot_u, needed in CLASSES:
        for shape in ("uniform", "normal"):
            promised = drop_confidence(size, bore, ring, ALLOY, hot, hot_u, STEEL, COLD_C, COLD_U, needed, shape=shape)
            dropped = 0
            for _ in range(cases):
                hole, part = (_drawn(dice, band, shape) / 1000 for band in (bore, ring))
                outer, inner = dice.gauss(hot, hot_u), dice.gauss(COLD_C, COLD_U)
                dropped += hole - part + size * (ALLOY * (outer - 20) - STEEL * (inner - 20)) >= needed
            yield Share(f"{size} mm, sizes {shape}: drop in, {100 * promised:.2f} % promised", dropped, cases, promised)


def _drawn(dice: random.Random, band: Limits, shape: str) -> float:
    if shape == "uniform":
        return dice.uniform(band.lower_um, band.upper_um)
    return dice.gauss(band.mean_um, band.width_um / 6)
