"""Probability that a part drops in, from the distributions of sizes and temperatures."""

from __future__ import annotations

import math

from shopmath.iso286 import Limits
from shopmath.thermal.expansion import clearance_mm as clearance_at
from shopmath.validation import finite, not_negative, number, one_of, positive

NORMAL, UNIFORM = "normal", "uniform"


def normal_cdf(z: float) -> float:
    """Share of a normal distribution below z standard deviations.

    Examples
    --------
    >>> normal_cdf(0.0)
    0.5
    """
    return 0.5 * math.erfc(-number("z", z) / math.sqrt(2))


def clearance_spread_mm(
    nominal_mm: float, bore_um: Limits, inner_um: Limits, outer_alpha: float, outer_c_u: float, inner_alpha: float, inner_c_u: float
) -> float:
    """Return the standard deviation of the clearance, mm: tolerances as ±3σ, temperatures by their standard uncertainties.

    Examples
    --------
    >>> round(clearance_spread_mm(52, Limits(-39, -9), Limits(-13, 0), 21e-6, 8, 11.5e-6, 3), 5)
    0.01045
    """
    return math.hypot(
        bore_um.width_um / 6000,
        inner_um.width_um / 6000,
        positive("nominal_mm", nominal_mm) * positive("outer_alpha", outer_alpha) * not_negative("outer_c_u", outer_c_u),
        nominal_mm * positive("inner_alpha", inner_alpha) * not_negative("inner_c_u", inner_c_u),
    )


def clearance_reach_mm(bore_um: Limits, inner_um: Limits, warmth_mm: float, bore_even: bool, inner_even: bool) -> float:
    """Return the expanded uncertainty of the clearance (k = 2), mm; a rectangular tolerance never extends past its limits.

    Parameters
    ----------
    bore_um, inner_um : Limits
    warmth_mm : float
        Standard deviation that the temperatures and the opening make, mm.
    bore_even, inner_even : bool
        Whether only the class is known: then its width is spread evenly (GUM 4.3.7), else ±3σ.

    Returns
    -------
    float
        mm.

    Raises
    ------
    BadInput
        A negative spread.

    Examples
    --------
    >>> round(clearance_reach_mm(Limits(-33, -8), Limits(-11, 0), 0.006, False, False), 4)
    0.0151
    >>> round(clearance_reach_mm(Limits(-33, -8), Limits(-11, 0), 0.006, True, True), 4)
    0.0198
    """
    normal = not_negative("warmth_mm", warmth_mm)
    even, highest = 0.0, 0.0
    for band, is_even in ((bore_um, bore_even), (inner_um, inner_even)):
        if is_even:
            even, highest = math.hypot(even, band.width_um / 1000 / math.sqrt(12)), highest + band.width_um / 2000
        else:
            normal = math.hypot(normal, band.width_um / 6000)
    return min(2 * math.hypot(even, normal), highest + 2 * normal)


def _density(z: float) -> float:
    return math.exp(-z * z / 2) / math.sqrt(2 * math.pi)


def _once(z: float) -> float:
    """Integral of the normal distribution."""
    return z * normal_cdf(z) + _density(z)


def _twice(z: float) -> float:
    """Integral of that."""
    return ((z * z + 1) * normal_cdf(z) + z * _density(z)) / 2


def evenly_spread(over: float, first: float, second: float, sigma: float) -> float:
    """Return the probability that `over` plus two rectangular errors and a normal one is above 0; all in one unit.

    Examples
    --------
    >>> evenly_spread(0.0, 1.0, 0.5, 0.2), evenly_spread(2.0, 1.0, 0.5, 0.0), round(evenly_spread(0.5, 1.0, 0.0, 0.0), 3)
    (0.5, 1.0, 0.75)
    """
    finite("over", over)
    wide, narrow = max(not_negative("first", first), not_negative("second", second)), min(first, second)
    not_negative("sigma", sigma)
    sigma = math.hypot(sigma, 1e-6 * (wide + narrow))  # so that a sharp edge is one too
    if narrow < 1e-3 * sigma or narrow < 1e-4 * wide:
        sigma, narrow = math.hypot(sigma, narrow / math.sqrt(3)), 0.0
    if wide < 1e-3 * sigma:
        sigma, wide = math.hypot(sigma, wide / math.sqrt(3)), 0.0
    if sigma == 0:
        return 1.0 if over >= 0 else 0.0
    z, a, b = over / sigma, wide / sigma, narrow / sigma
    if not a:
        share = normal_cdf(z)
    elif not b:
        share = (_once(z + a) - _once(z - a)) / (2 * a)
    else:
        share = (_twice(z + a + b) - _twice(z + a - b) - _twice(z - a + b) + _twice(z - a - b)) / (4 * a * b)
    return min(max(round(share, 9), 0.0), 1.0)


def drop_confidence(
    nominal_mm: float,
    bore_um: Limits,
    inner_um: Limits,
    outer_alpha: float,
    outer_c: float,
    outer_c_u: float,
    inner_alpha: float,
    inner_c: float,
    inner_c_u: float,
    clearance_mm: float = 0.0,
    *,
    shape: str = NORMAL,
) -> float:
    """Return the probability that the clearance is at least the desired one.

    Parameters
    ----------
    nominal_mm : float
        Diameter, mm.
    bore_um, inner_um : Limits
        Deviations of bore and inner part, µm: a measured size with its uncertainty, or a class.
    outer_alpha, inner_alpha : float
        Linear expansion, 1/K.
    outer_c, inner_c : float
        °C.
    outer_c_u, inner_c_u : float
        Standard uncertainties of the temperatures, K.
    clearance_mm : float
        Wanted, mm on diameter.
    shape : str
        `normal` takes the deviations as ±3σ of a normal spread, for measured sizes; `uniform` spreads each evenly over its width, which is
        all that somebody may assume who knows only the class.

    Returns
    -------
    float
        0 to 1.

    Raises
    ------
    BadInput
        As `expansion.clearance_mm`; negative uncertainty; another shape.

    Notes
    -----
    All independent. Normal: Φ((mean − wanted)/σ). Uniform: the two even spreads and the normal one of the temperatures, convolved exactly.

    Source
    ------
    JCGM 100 (GUM), 4.3.7 and 5.1.

    Examples
    --------
    >>> round(drop_confidence(52, Limits(-39, -9), Limits(-13, 0), 21e-6, 80, 8, 11.5e-6, 20, 3, 0.015), 4)
    0.9992
    >>> round(drop_confidence(52, Limits(-39, -9), Limits(-13, 0), 21e-6, 80, 8, 11.5e-6, 20, 3, 0.015, shape="uniform"), 4)
    0.9961
    """
    one_of("shape", shape, (NORMAL, UNIFORM))
    interference = (inner_um.mean_um - bore_um.mean_um) / 1000
    mean = clearance_at(nominal_mm, interference, outer_alpha, outer_c, inner_alpha, inner_c)
    spread = clearance_spread_mm(nominal_mm, bore_um, inner_um, outer_alpha, outer_c_u, inner_alpha, inner_c_u)
    over = mean - finite("clearance_mm", clearance_mm)
    if shape == UNIFORM:
        warmth = math.hypot(nominal_mm * outer_alpha * outer_c_u, nominal_mm * inner_alpha * inner_c_u)
        return evenly_spread(over, bore_um.width_um / 2000, inner_um.width_um / 2000, warmth)
    if spread == 0:
        return 1.0 if over >= 0 else 0.0
    return normal_cdf(over / spread)
