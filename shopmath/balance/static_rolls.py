"""Stops of a flywheel on its stand: whether the marks show a heavy side yet, and which.

Angles in degrees, counter-clockwise on the wheel's face as seen when mounted; the mark at the bottom when it stops. A wheel without a
heavy side stops anywhere; one with a heavy side stops round it, the more loosely the more the stand rubs.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from shopmath.validation import BadInput, finite, gettext_noop

TELLING = 0.05  # p under which the marks are not chance, when they are tested once
LOOKS = ((1, TELLING), (7, 0.0155), (9, 0.0135), (13, 0.0108), (37, 0.0065))  # tests one after another, and p for 5 in 100 over them all
FIRST_LOOK = 4  # stops before the first of them
MOST = 40


@dataclass(frozen=True)
class Stops:
    """Mean direction, °, 0 to 360; resultant length, 0 to 1; probability on a balanced flywheel; whether they are significant."""

    mean_deg: float
    resultant: float
    p_value: float
    telling: bool
    count: int = 0
    threshold: float = TELLING

    @property
    def spread_deg(self) -> float:
        """Circular standard deviation of one stop."""
        return math.degrees(math.sqrt(-2 * math.log(self.resultant))) if self.resultant > 1e-9 else 180.0

    @property
    def unsure_deg(self) -> float:
        """Expanded uncertainty of the mean, k = 2."""
        return min(180.0, 2 * self.spread_deg / math.sqrt(self.count)) if self.count else 180.0


def _p_value(resultant: float, count: int) -> float:
    """Rayleigh's test with its second-order correction."""
    z = count * resultant**2
    first = (2 * z - z**2) / (4 * count)
    second = (24 * z - 132 * z**2 + 76 * z**3 - 9 * z**4) / (288 * count**2)
    return min(1.0, max(0.0, math.exp(-z) * (1 + first - second)))


def looks_for(most: int) -> int:
    """Return how often marks are tested that are looked at after every stop, from the fourth to the last.

    Examples
    --------
    >>> looks_for(10), looks_for(4), looks_for(2)
    (7, 1, 1)
    """
    if isinstance(most, bool) or not isinstance(most, int) or not 1 <= most <= MOST:
        raise BadInput("most", gettext_noop("1 to {largest} stops are looked at, not {given!r:.20}."), largest=MOST, given=most)
    return max(1, most - FIRST_LOOK + 1)


def _threshold(looks: int) -> float:
    """Return the p-value below which marks are significant, for 5 in 100 balanced flywheels over all looks."""
    if isinstance(looks, bool) or not isinstance(looks, int) or not 1 <= looks <= LOOKS[-1][0]:
        raise BadInput("looks", gettext_noop("1 to {largest} looks are allowed for, not {given!r:.20}."), largest=LOOKS[-1][0], given=looks)
    return next(p for highest, p in LOOKS if looks <= highest)


def stops(angles: Iterable[float], looks: int = 1) -> Stops:
    """Return the mean of the marks and whether they are significant.

    Parameters
    ----------
    angles : iterable of float
        The mark at the bottom at each stop, degrees; at least 2.
    looks : int
        How often the marks are tested in all: after every stop from the fourth on, at most 10 stops are 7 looks, 12 are 9, 16 are 13 and
        40 are 37 (see `looks_for`). Of balanced wheels at most 5 in 100 then ever tell.

    Returns
    -------
    Stops

    Raises
    ------
    BadInput
        Fewer than two, NaN or infinity; looks not from 1 to 37.

    Source
    ------
    K. V. Mardia and P. E. Jupp, Directional Statistics: circular mean, Rayleigh test with the correction of second order.

    Examples
    --------
    >>> found = stops([184, 201, 176, 220, 195, 190])
    >>> round(found.mean_deg, 1), round(found.resultant, 3), round(found.p_value, 4), found.telling
    (194.2, 0.971, 0.0003, True)
    >>> round(stops([12, 140, 260, 75, 310, 200]).p_value, 2)
    0.99
    """
    marks = [math.radians(finite("angles", angle)) for angle in angles]
    if len(marks) < 2:
        raise BadInput("angles", gettext_noop("Two stops at least: one alone tells nothing."))
    across, up = sum(map(math.cos, marks)) / len(marks), sum(map(math.sin, marks)) / len(marks)
    resultant = min(1.0, math.hypot(across, up))
    chance = _p_value(resultant, len(marks))
    mean = math.degrees(math.atan2(up, across)) % 360
    threshold = _threshold(looks)
    return Stops(mean, resultant, chance, chance < threshold, len(marks), threshold)


def stops_wanted(found: Stops) -> int | None:
    """Return how many more stops would be significant if they came like these.

    It is 0 if these are, None if no reasonable number would.

    Examples
    --------
    >>> stops_wanted(stops([10, 80, 330])), stops_wanted(stops([184, 201, 176, 220])), stops_wanted(stops([0, 90, 180, 270]))
    (3, 0, None)
    """
    if found.telling:
        return 0
    enough = next((count for count in range(found.count + 1, MOST + 1) if _p_value(found.resultant, count) < found.threshold), None)
    return None if enough is None else enough - found.count
