"""Run-out: what a dial gauge says while the crank turns once, told apart into swing, ovality and noise.

A shaft off its axis of turning shows once a turn, an oval one twice. Both harmonics are fitted by least squares; what is left is noise,
dirt or lobes. Angles are the crank's own: the reference is 0, counter-clockwise seen from the right end. High means shaft toward the
gauge. A manual's limit is the raw swing at the manual's supports; raw and fitted are never mixed.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from shopmath.checks import BadInput, finite

FEWEST = 5
SPREAD = 40.0  # condition of the fit past which the angles lie too close together


@dataclass(frozen=True)
class RunoutFit:
    """Fitted once-a-turn swing (peak to peak) and where it is high, ovality (peak to peak), raw swing, rms of what is left, mm."""

    tir_mm: float
    high_spot_deg: float
    ovality_mm: float
    raw_swing_mm: float
    residual_mm: float


def fit(angles_deg: Sequence[float], readings_mm: Sequence[float]) -> RunoutFit:
    """Fit one turn of readings.

    Parameters
    ----------
    angles_deg : sequence of float, shape (n,), n ≥ 5
        Crank angles, spread round the turn.
    readings_mm : sequence of float, shape (n,)
        Gauge readings, mm, from any zero.

    Returns
    -------
    RunoutFit

    Raises
    ------
    BadInput
        Fewer than five different angles, angles bunched together, lists of unlike length, NaN or infinity.

    Notes
    -----
    r(θ) = a₀ + a₁cos θ + b₁sin θ + a₂cos 2θ + b₂sin 2θ; swing 2√(a₁²+b₁²), ovality 2√(a₂²+b₂²).

    Source
    ------
    Linear least squares; harmonic analysis of roundness after ISO/TS 12181-1.

    Examples
    --------
    >>> turn = range(0, 360, 45)
    >>> found = fit(turn, [0.021, 0.034, 0.031, 0.012, -0.013, -0.027, -0.025, -0.008])
    >>> round(found.tir_mm, 4), round(found.high_spot_deg, 1), round(found.ovality_mm, 4), round(found.raw_swing_mm, 3)
    (0.0648, 60.9, 0.0018, 0.061)
    """
    if len(angles_deg) != len(readings_mm):
        raise BadInput("readings_mm", f"{len(angles_deg)} angles and {len(readings_mm)} readings do not pair up.")
    import numpy as np  # a fifth of a second, paid by the first turn and not by every start

    turns = np.radians([finite("angles_deg", float(angle)) for angle in angles_deg])
    values = np.array([finite("readings_mm", reading) for reading in readings_mm])
    different = {round(math.degrees(turn) % 360, 3) for turn in turns}
    if len(different) < FEWEST:
        raise BadInput("angles_deg", f"A turn wants at least {FEWEST} different angles; {len(different)} given.")
    shape = np.column_stack([np.ones_like(turns), np.cos(turns), np.sin(turns), np.cos(2 * turns), np.sin(2 * turns)])
    if np.linalg.cond(shape) > SPREAD:
        raise BadInput("angles_deg", "The angles lie bunched together: spread them round the whole turn.")
    found, *_ = np.linalg.lstsq(shape, values, rcond=None)
    left = values - shape @ found
    return RunoutFit(
        tir_mm=2 * math.hypot(found[1], found[2]),
        high_spot_deg=math.degrees(math.atan2(found[2], found[1])) % 360,
        ovality_mm=2 * math.hypot(found[3], found[4]),
        raw_swing_mm=float(values.max() - values.min()),
        residual_mm=float(math.sqrt(np.mean(left**2))),
    )


SLIPS = 3.0  # times the uncertainty of a reading: a turn that misses its own beginning by more has slipped
STANDS_OUT = 2.0  # times less scatter without one reading: that one is to be taken again


@dataclass(frozen=True)
class TurnDoubt:
    """Why a turn cannot come from a shaft on its supports, in words and as code and values (mm, °), and the angle to blame, if it is one.

    The code is `slipped`, `one_reading` or `scatter`; empty when nothing is wrong.
    """

    words: str = ""
    angle_deg: float | None = None
    code: str = ""
    values: Mapping[str, Any] = field(default_factory=dict, hash=False)


def turn_doubt(
    angles_deg: Sequence[float], readings_mm: Sequence[float], reading_u_mm: float, closing_mm: float | None = None
) -> tuple[str, float | None]:
    """Why a turn of readings cannot come from a shaft that turns on its supports, and the angle to blame.

    Parameters
    ----------
    angles_deg, readings_mm : sequence of float, shape (n,), n ≥ 7
    reading_u_mm : float
        Expanded uncertainty of one reading, mm.
    closing_mm : float, optional
        The reading back at the first angle.

    Returns
    -------
    tuple
        Words, empty when nothing is wrong, and the angle of the one reading that does not fit, if it is one.

    Raises
    ------
    BadInput
        As `fit`.

    Notes
    -----
    A turn ends where it began. What is left after swing and ovality is noise: more of it in one place is a wrong reading, more of it all
    round is a loose support, dirt, or a seat that is neither round nor oval.

    Examples
    --------
    >>> turn = range(0, 360, 45)
    >>> good = [0.021, 0.034, 0.031, 0.012, -0.013, -0.027, -0.025, -0.008]
    >>> turn_doubt(turn, good, 0.004)
    ('', None)
    >>> turn_doubt(turn, good, 0.004, closing_mm=0.055)[0]
    'Back at the start it reads 0.034 mm higher: the gauge or a support has slipped.'
    >>> turn_doubt(turn, [*good[:4], 0.030, *good[5:]], 0.004)[1]
    180.0
    """
    found = doubt_of_turn(angles_deg, readings_mm, reading_u_mm, closing_mm)
    return found.words, found.angle_deg


def doubt_of_turn(
    angles_deg: Sequence[float], readings_mm: Sequence[float], reading_u_mm: float, closing_mm: float | None = None
) -> TurnDoubt:
    """The same as `turn_doubt`, with its code and values.

    Examples
    --------
    >>> good = [0.021, 0.034, 0.031, 0.012, -0.013, -0.027, -0.025, -0.008]
    >>> doubt_of_turn(range(0, 360, 45), good, 0.004, closing_mm=0.055).code
    'slipped'
    """
    found = fit(angles_deg, readings_mm)
    if closing_mm is not None and abs(off := finite("closing_mm", closing_mm) - readings_mm[0]) > SLIPS * reading_u_mm:
        which = "higher" if off > 0 else "lower"
        words = f"Back at the start it reads {abs(off):.3f} mm {which}: the gauge or a support has slipped."
        return TurnDoubt(words, None, "slipped", {"off": off})
    if found.residual_mm <= reading_u_mm:
        return TurnDoubt()
    apart = {}
    for index, (angle, reading) in enumerate(zip(angles_deg, readings_mm, strict=True)):
        rest = [(a, r) for i, (a, r) in enumerate(zip(angles_deg, readings_mm, strict=True)) if i != index]
        without = fit([a for a, _ in rest], [r for _, r in rest])
        apart[float(angle)] = (without.residual_mm, reading)
    angle, (left, _) = min(apart.items(), key=lambda each: each[1][0])
    if left <= reading_u_mm and found.residual_mm > STANDS_OUT * left:
        return TurnDoubt(f"The reading at {angle:.0f}° does not fit the rest of its turn.", angle, "one_reading", {"angle": angle})
    words = f"Scatter of {found.residual_mm:.3f} mm is more than the gauge's own: a loose support, dirt, or a seat not round."
    return TurnDoubt(words, None, "scatter", {"scatter": found.residual_mm})
