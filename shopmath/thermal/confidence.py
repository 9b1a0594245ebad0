"""How sure it is that a part drops in, given what the sizes and the temperatures may be."""

from __future__ import annotations

import math

from shopmath.checks import not_negative
from shopmath.iso286 import Limits
from shopmath.thermal.expansion import clearance_mm as clearance_at


def normal_cdf(z: float) -> float:
    """Share of a normal distribution below z standard deviations.

    Examples
    --------
    >>> normal_cdf(0.0)
    0.5
    """
    return 0.5 * math.erfc(-z / math.sqrt(2))


def clearance_spread_mm(
    nominal_mm: float, bore_um: Limits, inner_um: Limits, outer_alpha: float, outer_c_u: float, inner_alpha: float, inner_c_u: float
) -> float:
    """Standard deviation of the clearance, mm: tolerance bands as ±3σ, temperatures by their standard uncertainties.

    Examples
    --------
    >>> round(clearance_spread_mm(52, Limits(-39, -9), Limits(-13, 0), 21e-6, 8, 11.5e-6, 3), 5)
    0.01045
    """
    return math.hypot(
        bore_um.width_um / 6000,
        inner_um.width_um / 6000,
        nominal_mm * outer_alpha * not_negative("outer_c_u", outer_c_u),
        nominal_mm * inner_alpha * not_negative("inner_c_u", inner_c_u),
    )


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
) -> float:
    """Chance that the clearance is at least what is wanted.

    Parameters
    ----------
    nominal_mm : float
        Diameter, mm.
    bore_um, inner_um : Limits
        Deviations of bore and inner part, µm, taken as ±3σ of a normal spread.
    outer_alpha, inner_alpha : float
        Linear expansion, 1/K.
    outer_c, inner_c : float
        °C.
    outer_c_u, inner_c_u : float
        Standard uncertainties of the temperatures, K.
    clearance_mm : float
        Wanted, mm on diameter.

    Returns
    -------
    float
        0 to 1.

    Raises
    ------
    BadInput
        As `expansion.clearance_mm`; negative uncertainty.

    Notes
    -----
    All independent, so the clearance is normal: Φ((mean − wanted)/σ).

    Source
    ------
    JCGM 100 (GUM), 5.1.

    Examples
    --------
    >>> round(drop_confidence(52, Limits(-39, -9), Limits(-13, 0), 21e-6, 80, 8, 11.5e-6, 20, 3, 0.015), 4)
    0.9992
    """
    interference = (inner_um.mean_um - bore_um.mean_um) / 1000
    mean = clearance_at(nominal_mm, interference, outer_alpha, outer_c, inner_alpha, inner_c)
    spread = clearance_spread_mm(nominal_mm, bore_um, inner_um, outer_alpha, outer_c_u, inner_alpha, inner_c_u)
    over = mean - clearance_mm
    if spread == 0:
        return 1.0 if over >= 0 else 0.0
    return normal_cdf(over / spread)
