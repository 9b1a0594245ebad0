"""A connecting rod over two bars: bend, twist, and the tilt of its small end over the length of its pin."""

from __future__ import annotations

import math
from dataclasses import dataclass

from shopmath.validation import finite, not_negative, positive

OVER_MM = 100.0  # the length that bend and twist are told over
BEND_MM, TWIST_MM = 0.05, 0.10  # over that length, where the manual gives none: shop rule


@dataclass(frozen=True)
class Lean:
    """One bar against the other: out of parallel by so much over 100 mm, mm, with its uncertainty (k = 2)."""

    over_100_mm: float
    uncertainty_mm: float

    def over(self, length_mm: float) -> float:
        """The same over another length, mm, such as that of the piston pin."""
        return self.over_100_mm * positive("length_mm", length_mm) / OVER_MM


def lean(small_end_mm: float, big_end_mm: float, span_mm: float, uncertainty_mm: float = 0.0) -> Lean:
    """Return how far the bar in the small end is out of parallel with the one in the big end.

    Parameters
    ----------
    small_end_mm, big_end_mm : float
        How much higher each bar stands at one side than at the other, the same side for both, mm.
    span_mm : float
        Between the two places where it is read, mm.
    uncertainty_mm : float
        Of one difference, k = 2, mm.

    Returns
    -------
    Lean
        Over 100 mm, without its sign. With the rod upright it is bend, with the rod lying flat it is twist.

    Raises
    ------
    BadInput
        A span that is not above 0, a negative uncertainty, NaN or infinity.

    Source
    ------
    Proportion; the big end's own lean is what the crank and its supports stand out of level.

    Examples
    --------
    >>> found = lean(0.06, 0.01, 80, 0.004)
    >>> round(found.over_100_mm, 4), round(found.uncertainty_mm, 4), round(found.over(50), 3)
    (0.0625, 0.0071, 0.031)
    """
    span = positive("span_mm", span_mm)
    difference = abs(finite("small_end_mm", small_end_mm) - finite("big_end_mm", big_end_mm))
    return Lean(difference / span * OVER_MM, math.sqrt(2) * not_negative("uncertainty_mm", uncertainty_mm) / span * OVER_MM)


def play_of_tilt_mm(tilt_mm: float, length_mm: float, width_mm: float) -> float:
    """Return the radial clearance of the big end that lets the small end move by so much along the crank, mm.

    Parameters
    ----------
    tilt_mm : float
        Of the small end, from one stop to the other, mm.
    length_mm, width_mm : float
        Of the rod from middle to middle, and of the big end's bearing, mm.

    Returns
    -------
    float

    Raises
    ------
    BadInput
        A negative tilt, a length or width not above 0, NaN or infinity.

    Source
    ------
    Proportion: the rod rocks about the middle of its bearing, whose edges take up the play.

    Examples
    --------
    >>> round(play_of_tilt_mm(1.5, 110, 16), 3)
    0.218
    """
    return not_negative("tilt_mm", tilt_mm) * positive("width_mm", width_mm) / positive("length_mm", length_mm)
