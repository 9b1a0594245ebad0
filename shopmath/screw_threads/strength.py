"""Strength of engaged threads and bolts."""

from __future__ import annotations

import math

from shopmath.screw_threads.profile import minor_diameter_mm, pitch_diameter_mm
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, one_of, positive

SHEAR_SHARE = 0.6  # of the tensile strength
WORST_LOSS = 0.29  # of the shear area, 6H/6g at their worst
PROOF_MPA = {"4.6": 225.0, "5.8": 380.0, "8.8": 580.0, "10.9": 830.0, "12.9": 970.0}


def internal_shear_area_mm2(d_mm: float, pitch_mm: float, engaged_mm: float) -> float:
    """Area along which a screw's crests tear out the internal thread.

    Parameters
    ----------
    d_mm, pitch_mm, engaged_mm : float
        Major diameter, pitch, engaged length, mm.

    Returns
    -------
    float
        π(L/P)·d·[P/2 + (d − d₂)/√3], mm², by basic sizes.

    Raises
    ------
    BadInput
        Sizes not above 0, negative engagement.

    Source
    ------
    FED-STD-H28/2B; VDI 2230-1.

    Examples
    --------
    >>> round(internal_shear_area_mm2(24, 1, 3), 1)
    197.9
    """
    flank = (d_mm - pitch_diameter_mm(d_mm, pitch_mm)) / math.sqrt(3)
    return math.pi * not_negative("engaged_mm", engaged_mm) / pitch_mm * d_mm * (pitch_mm / 2 + flank)


def external_shear_area_mm2(d_mm: float, pitch_mm: float, engaged_mm: float) -> float:
    """Area along which the internal crests tear off the screw's thread.

    Parameters
    ----------
    d_mm, pitch_mm, engaged_mm : float
        Major diameter, pitch, engaged length, mm.

    Returns
    -------
    float
        π(L/P)·D₁·[P/2 + (d₂ − D₁)/√3], mm², by basic sizes.

    Raises
    ------
    BadInput
        Sizes not above 0, negative engagement.

    Source
    ------
    FED-STD-H28/2B; VDI 2230-1.

    Examples
    --------
    >>> round(external_shear_area_mm2(24, 1, 3), 1)
    162.0
    """
    minor = minor_diameter_mm(d_mm, pitch_mm)
    flank = (pitch_diameter_mm(d_mm, pitch_mm) - minor) / math.sqrt(3)
    return math.pi * not_negative("engaged_mm", engaged_mm) / pitch_mm * minor * (pitch_mm / 2 + flank)


def full_turns(engaged_mm: float, pitch_mm: float) -> int:
    """Whole turns in an engaged length: a part of a turn is not counted on.

    Examples
    --------
    >>> full_turns(5.9, 1.5)
    3
    """
    return math.floor(not_negative("engaged_mm", engaged_mm) / positive("pitch_mm", pitch_mm) + 1e-9)


def stripping_force_n(
    d_mm: float, pitch_mm: float, engaged_mm: float, internal_uts_mpa: float, external_uts_mpa: float, tolerance_loss: float = 0.0
) -> float:
    """Pull at which the weaker of the two threads strips.

    Parameters
    ----------
    d_mm, pitch_mm, engaged_mm : float
        mm.
    internal_uts_mpa, external_uts_mpa : float
        Tensile strength of nut side and screw side, MPa.
    tolerance_loss : float
        Share of the area lost to tolerances: 0 for basic sizes, 0.29 for the worst of 6H/6g.

    Returns
    -------
    float
        N, at 0.6 of the tensile strength in shear.

    Raises
    ------
    BadInput
        Sizes or strengths not above 0, a loss outside 0 to 1.

    Source
    ------
    VDI 2230-1; FED-STD-H28/2B.

    Examples
    --------
    >>> round(stripping_force_n(24, 1, 3, 600, 800) / 1000, 1)
    71.3
    """
    if not 0 <= finite("tolerance_loss", tolerance_loss) < 1:
        raise BadInput(
            "tolerance_loss", gettext_noop("A loss is a share from 0 to under 1, not {tolerance_loss:g}."), tolerance_loss=tolerance_loss
        )
    inside = internal_shear_area_mm2(d_mm, pitch_mm, engaged_mm) * positive("internal_uts_mpa", internal_uts_mpa)
    outside = external_shear_area_mm2(d_mm, pitch_mm, engaged_mm) * positive("external_uts_mpa", external_uts_mpa)
    return SHEAR_SHARE * min(inside, outside) * (1 - tolerance_loss)


def stress_area_mm2(d_mm: float, pitch_mm: float) -> float:
    """Tensile stress area of a metric screw.

    Examples
    --------
    >>> round(stress_area_mm2(6, 1), 1)
    20.1
    """
    return math.pi / 4 * (positive("d_mm", d_mm) - 0.9382 * positive("pitch_mm", pitch_mm)) ** 2


def proof_force_n(bolt_class: str, d_mm: float, pitch_mm: float) -> float:
    """Return the load that a bolt of a property class withstands without permanent set.

    Parameters
    ----------
    bolt_class : str
        4.6, 5.8, 8.8, 10.9 or 12.9.
    d_mm, pitch_mm : float
        mm.

    Returns
    -------
    float
        N.

    Raises
    ------
    BadInput
        Another class, sizes not above 0.

    Source
    ------
    ISO 898-1, proof stress.

    Examples
    --------
    >>> round(proof_force_n("8.8", 6, 1) / 1000, 1)
    11.7
    """
    return PROOF_MPA[one_of("bolt_class", bolt_class, tuple(PROOF_MPA))] * stress_area_mm2(d_mm, pitch_mm)
