"""Clearance between two parts at two temperatures.

outer (case, or a bearing on its way onto a shaft)   grows by  D · αo · (To − 20)
inner (bearing, or the shaft)                        grows by  D · αi · (Ti − 20)
clearance = what the outer gained − what the inner gained − the interference at 20 °C
"""

from __future__ import annotations

import math

from shopmath.validation import finite, one_of, positive, temperature

REFERENCE_C = 20.0
WANTED = {"tight start": 4000.0, "usual": 2000.0, "generous": 1000.0}


def clearance_mm(
    nominal_mm: float, interference_mm: float, outer_alpha: float, outer_c: float, inner_alpha: float, inner_c: float
) -> float:
    """Diametral clearance between an outer and an inner part at their temperatures.

    Parameters
    ----------
    nominal_mm : float
        Diameter, mm.
    interference_mm : float
        Overlap at 20 °C, mm; negative for a clearance fit.
    outer_alpha, inner_alpha : float
        Linear expansion, 1/K.
    outer_c, inner_c : float
        °C.

    Returns
    -------
    float
        mm on diameter, positive when the parts are free.

    Raises
    ------
    BadInput
        Diameter or expansion not above 0, temperature below absolute zero, NaN or infinity.

    Notes
    -----
    D·[αo(To−20) − αi(Ti−20)] − I.

    Source
    ------
    DIN 7190-1, shrink fitting; ISO 1 for the reference temperature.

    Examples
    --------
    >>> round(clearance_mm(47, 0.030, 21e-6, 110, 11.5e-6, -18), 4)
    0.0794
    """
    positive("nominal_mm", nominal_mm)
    finite("interference_mm", interference_mm)
    opened = positive("outer_alpha", outer_alpha) * (temperature("outer_c", outer_c) - REFERENCE_C)
    grown = positive("inner_alpha", inner_alpha) * (temperature("inner_c", inner_c) - REFERENCE_C)
    return nominal_mm * (opened - grown) - interference_mm


def outer_temperature_needed_c(
    nominal_mm: float, interference_mm: float, clearance_mm: float, outer_alpha: float, inner_alpha: float, inner_c: float
) -> float:
    """Return the temperature that the outer part needs for a desired clearance.

    Parameters
    ----------
    nominal_mm, interference_mm, clearance_mm : float
        Diameter, overlap at 20 °C and clearance wanted, mm.
    outer_alpha, inner_alpha : float
        Linear expansion, 1/K.
    inner_c : float
        Temperature of the inner part, °C.

    Returns
    -------
    float
        °C; may lie below the room's, when nothing need be heated.

    Raises
    ------
    BadInput
        As `clearance_mm`; a temperature below absolute zero would be needed.

    Source
    ------
    DIN 7190-1.

    Examples
    --------
    >>> round(outer_temperature_needed_c(47, 0.030, 0.0235, 21e-6, 11.5e-6, -18), 1)
    53.4
    """
    positive("nominal_mm", nominal_mm)
    grown = positive("inner_alpha", inner_alpha) * (temperature("inner_c", inner_c) - REFERENCE_C)
    gap = finite("interference_mm", interference_mm) + finite("clearance_mm", clearance_mm)
    return temperature("outer_c", REFERENCE_C + (gap / nominal_mm + grown) / positive("outer_alpha", outer_alpha))


def wanted_clearance_mm(nominal_mm: float, preset: str = "usual") -> float:
    """Clearance to aim for so that a part can be offered up by hand.

    Parameters
    ----------
    nominal_mm : float
        Diameter, mm.
    preset : str
        `tight start` D/4000, `usual` D/2000, `generous` D/1000.

    Returns
    -------
    float
        mm on diameter.

    Raises
    ------
    BadInput
        Diameter not above 0, unknown preset.

    Source
    ------
    Shrink-fit practice of DIN 7190-1 (D/1000), halved and quartered for rings guided by hand.

    Examples
    --------
    >>> wanted_clearance_mm(47)
    0.0235
    """
    return positive("nominal_mm", nominal_mm) / WANTED[one_of("preset", preset, tuple(WANTED))]


def freeing_difference_k(nominal_mm: float, interference_mm: float, outer_alpha: float, inner_alpha: float) -> float:
    """Return how far above 20 °C both parts must be heated together until the outer releases the inner.

    Parameters
    ----------
    nominal_mm, interference_mm : float
        Diameter and overlap at 20 °C, mm.
    outer_alpha, inner_alpha : float
        Linear expansion, 1/K.

    Returns
    -------
    float
        K; 0 when there is no grip, infinity when the outer expands no more than the inner.

    Raises
    ------
    BadInput
        Diameter or expansion not above 0.

    Notes
    -----
    A ring that warms with its case grows too: only the difference of the expansions frees it.

    Examples
    --------
    >>> round(freeing_difference_k(47, 0.030, 21e-6, 12e-6))
    71
    """
    positive("nominal_mm", nominal_mm)
    if finite("interference_mm", interference_mm) <= 0:
        return 0.0
    difference = positive("outer_alpha", outer_alpha) - positive("inner_alpha", inner_alpha)
    if difference <= 0:
        return math.inf
    return interference_mm / (nominal_mm * difference)
