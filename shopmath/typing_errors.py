"""Numbers that look mistyped: a decimal point lost or moved, the whole part missing, or the digits of another unit."""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass

from shopmath.validation import at_most, finite, number, ordered

SHIFTS = (-1, 1, -2, 2, -3, 3)  # places that a decimal point is moved by
NEAR = 1.6  # times what is expected, either way: where a moved point must lead
MOST = 500


@dataclass(frozen=True)
class Unlikely:
    """Why a number looks mistyped: the expected value or the usual range, and the number probably meant; all in one unit."""

    expected: float | None = None
    low: float | None = None
    high: float | None = None
    meant: float | None = None


def why_unlikely(
    value: float, expected: Sequence[float] = (), *, factor: float = 0.0, low: float = -math.inf, high: float = math.inf
) -> Unlikely | None:
    """Return whether a plausible number was probably not meant.

    Parameters
    ----------
    value : float
        As understood.
    expected : sequence of float
        What it should be like: the same size of other parts, or what the page asks for. In the same unit.
    factor : float
        How many times more or less than their middle it may be; 0 where they tell nothing.
    low, high : float
        The usual range of such a size, narrower than what can be believed.

    Returns
    -------
    Unlikely or None
        `meant` is the same digits with the point moved, or the fraction after the whole part of what is expected; None where neither fits.

    Raises
    ------
    BadInput
        NaN; a range that falls; more than 500 values.

    Examples
    --------
    >>> why_unlikely(350, [35, 35, 40], factor=4).meant
    35.0
    >>> why_unlikely(0.35, [55.03], factor=1.5).meant
    55.35
    >>> why_unlikely(650, low=-20, high=300).meant, why_unlikely(110, low=-20, high=300)
    (65.0, None)
    >>> why_unlikely(40, [10], factor=2.5).meant is None
    True
    """
    finite("value", value)
    ordered("low", number("low", low), number("high", high))
    at_most("expected", expected, MOST)
    middle = statistics.median(abs(finite("expected", each)) for each in expected) if expected else 0.0
    allowed = number("factor", factor)
    if allowed > 1 and middle > 0 and not middle / allowed <= abs(value) <= middle * allowed:
        return Unlikely(expected=middle, meant=_meant(value, middle / NEAR, middle * NEAR, middle))
    if not low <= value <= high:
        return Unlikely(low=low, high=high, meant=_meant(value, low, high, 0.0))
    return None


def _meant(value: float, low: float, high: float, middle: float) -> float | None:
    moved = [float(f"{value * 10**shift:.9g}") for shift in SHIFTS]
    fits = [each for each in moved if each and low <= abs(each) <= high]
    if 0 < abs(value) < 1 <= middle:
        fits.append(math.floor(middle) + abs(value))
    if middle:
        fits.sort(key=lambda each: abs(abs(each) - middle))
    return fits[0] if fits else None
