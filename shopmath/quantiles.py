"""Exact quantiles of chi-square and Student's t by bisection, and confidence intervals of shares."""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import cache

from shopmath.validation import BadInput, finite, gettext_noop, positive

TWO_SIGMA = 0.9544997361036416  # share of a normal distribution within two standard deviations
MOST_FREEDOM = 1000
Z_95 = 1.959963984540054  # of a normal distribution, 95 % lie within so many standard deviations


def _freedom(value: int) -> int:
    if isinstance(value, bool) or not isinstance(value, int) or not 1 <= value <= MOST_FREEDOM:
        raise BadInput(
            "freedom",
            gettext_noop("Degrees of freedom run from 1 to {most_freedom}, not {value!r}."),
            "not_freedom",
            value=value,
            most_freedom=MOST_FREEDOM,
        )
    return value


def _share(value: float) -> float:
    if not 0 < finite("share", value) < 1:
        raise BadInput("share", gettext_noop("A share lies between 0 and 1, not at {value:g}."), "not_share", value=value)
    return value


def _bisect(below: Callable[[float], float], wanted: float, high: float) -> float:
    """Return where a rising function reaches a value, above 0."""
    low = 0.0
    while below(high) < wanted:
        low, high = high, 2 * high
    for _ in range(80):
        middle = (low + high) / 2
        low, high = (middle, high) if below(middle) < wanted else (low, middle)
    return (low + high) / 2


def _gamma_share(half: float, x: float) -> float:
    """Regularised lower incomplete gamma function, by its series or its continued fraction."""
    if x <= 0:
        return 0.0
    scale = math.exp(half * math.log(x) - x - math.lgamma(half))
    if x < half + 1:
        term = total = 1 / half
        step = half
        while abs(term) > 1e-15 * abs(total):
            step += 1
            term *= x / step
            total += term
        return scale * total
    b = x + 1 - half
    c, d = 1e300, 1 / b
    fraction = d
    for count in range(1, 1000):
        a = -count * (count - half)
        b += 2
        d = 1 / (a * d + b)
        c = b + a / c
        fraction *= c * d
        if abs(c * d - 1) < 1e-15:
            break
    return 1 - scale * fraction


@cache
def chi_square(share: float, freedom: int) -> float:
    """Return the value below which a share of a chi-square distribution lies.

    Parameters
    ----------
    share : float
        Above 0 and below 1.
    freedom : int
        Degrees of freedom, 1 to 1000.

    Returns
    -------
    float

    Raises
    ------
    BadInput
        A share or degrees of freedom outside those.

    Source
    ------
    ISO 3534-1; checked against its printed tables.

    Examples
    --------
    >>> round(chi_square(0.95, 4), 3), round(chi_square(0.995, 5), 2)
    (9.488, 16.75)
    """
    half = _freedom(freedom) / 2
    return 2 * _bisect(lambda x: _gamma_share(half, x), _share(share), half + 1)


def _t_share(t: float, freedom: int) -> float:
    """Return the share of Student's distribution within ±t: finite sums for odd and even degrees of freedom."""
    theta = math.atan(t / math.sqrt(freedom))
    sine, square = math.sin(theta), math.cos(theta) ** 2
    term = total = 1.0
    if freedom % 2:
        total = 0.0
        term = math.cos(theta)
        for count in range(1, (freedom - 1) // 2 + 1):
            total += term
            term *= square * 2 * count / (2 * count + 1)
        return 2 / math.pi * (theta + sine * total)
    for count in range(1, freedom // 2):
        term *= square * (2 * count - 1) / (2 * count)
        total += term
    return sine * total


@cache
def student(share: float, freedom: int) -> float:
    """Return how many standard deviations on either side contain a share, if the deviation is estimated from few readings.

    Parameters
    ----------
    share : float
        Above 0 and below 1; `TWO_SIGMA` for what k = 2 means.
    freedom : int
        Readings less one, 1 to 1000.

    Returns
    -------
    float

    Raises
    ------
    BadInput
        A share or degrees of freedom outside those.

    Source
    ------
    JCGM 100 (GUM), annex G, table G.2.

    Examples
    --------
    >>> round(student(TWO_SIGMA, 9), 2), round(student(TWO_SIGMA, 1), 2), round(student(0.95, 10), 2)
    (2.32, 13.97, 2.23)
    """
    freedom = _freedom(freedom)
    return _bisect(lambda t: _t_share(t, freedom), _share(share), 2.0)


def share_band(happened: int, tried: int) -> tuple[float, float]:
    """Return the 95 % confidence interval of a share from the number of occurrences.

    Parameters
    ----------
    happened, tried : int
        Times.

    Returns
    -------
    (float, float)
        Shares from 0 to 1.

    Raises
    ------
    BadInput
        Nothing was tried, or it happened more often than it was tried.

    Source
    ------
    Wilson's score interval, which holds for few tries and at 0 and 1 too.

    Examples
    --------
    >>> [round(end, 2) for end in share_band(9, 10)], [round(end, 2) for end in share_band(3, 3)]
    ([0.6, 0.98], [0.44, 1.0])
    """
    positive("tried", tried)
    if not 0 <= happened <= tried:
        raise BadInput("happened", gettext_noop("It cannot have happened more often than it was tried."), "too_often")
    share, z2 = happened / tried, Z_95**2
    middle = (share + z2 / (2 * tried)) / (1 + z2 / tried)
    reach = Z_95 / (1 + z2 / tried) * math.sqrt(share * (1 - share) / tried + z2 / (4 * tried**2))
    return max(0.0, middle - reach), min(1.0, middle + reach)
