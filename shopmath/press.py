"""Press joints: pressure from interference, the force that moves it, and the stress in the hub.

Both parts are thick rings of one length. Pressure p between them follows from how much each gives (Lamé); the force to slide them is
friction times pressure times surface.
"""

from __future__ import annotations

import math

from shopmath.validation import BadInput, finite, gettext_noop, not_negative, positive

MOST_POISSON = 0.5


def _share(hub_outside_mm: float, diameter_mm: float) -> float:
    """(Do² + D²)/(Do² − D²) of the hub."""
    if hub_outside_mm <= diameter_mm:
        raise BadInput(
            "hub_outside_mm",
            gettext_noop("A hub of {hub_outside_mm:g} mm cannot hold a {diameter_mm:g} mm fit: it must be larger."),
            hub_outside_mm=hub_outside_mm,
            diameter_mm=diameter_mm,
        )
    return (hub_outside_mm**2 + diameter_mm**2) / (hub_outside_mm**2 - diameter_mm**2)


def interference_pressure_mpa(
    interference_mm: float,
    diameter_mm: float,
    hub_outside_mm: float,
    shaft_bore_mm: float,
    hub_e_mpa: float,
    hub_nu: float,
    shaft_e_mpa: float,
    shaft_nu: float,
    *,
    smoothing_mm: float = 0.0,
) -> float:
    """Pressure in an elastic interference fit.

    Parameters
    ----------
    interference_mm, diameter_mm, hub_outside_mm, shaft_bore_mm : float
        Overlap on diameter, diameter of the fit, outside of the hub, bore of the shaft (0 when solid), mm.
    hub_e_mpa, hub_nu, shaft_e_mpa, shaft_nu : float
        Young's modulus, MPa, and Poisson's ratio.
    smoothing_mm : float
        Taken off the interference first: 0.8·(Rz₁ + Rz₂).

    Returns
    -------
    float
        MPa; 0 when nothing overlaps.

    Raises
    ------
    BadInput
        Sizes or moduli not above 0, a Poisson's ratio outside 0 to 0.5, a hub no larger than the fit, a shaft bore no smaller.

    Notes
    -----
    Elastic: past yield it is an upper bound.

    Source
    ------
    Lamé; DIN 7190-1.

    Examples
    --------
    >>> round(interference_pressure_mpa(0.060, 22, 80, 0, 206e3, 0.3, 206e3, 0.3), 1)
    259.7
    """
    interference = finite("interference_mm", interference_mm) - not_negative("smoothing_mm", smoothing_mm)
    positive("diameter_mm", diameter_mm)
    if not_negative("shaft_bore_mm", shaft_bore_mm) >= diameter_mm:
        raise BadInput(
            "shaft_bore_mm",
            gettext_noop("A shaft of {diameter_mm:g} mm cannot have a bore of {shaft_bore_mm:g} mm."),
            diameter_mm=diameter_mm,
            shaft_bore_mm=shaft_bore_mm,
        )
    for field, ratio in (("hub_nu", hub_nu), ("shaft_nu", shaft_nu)):
        if not 0 <= finite(field, ratio) <= MOST_POISSON:
            raise BadInput(
                field,
                gettext_noop("Poisson's ratio lies between 0 and {most_poisson:g}, not at {ratio:g}."),
                "not_poisson",
                value=ratio,
                most_poisson=MOST_POISSON,
                ratio=ratio,
            )
    hub = (_share(positive("hub_outside_mm", hub_outside_mm), diameter_mm) + hub_nu) / positive("hub_e_mpa", hub_e_mpa)
    thin = (diameter_mm**2 + shaft_bore_mm**2) / (diameter_mm**2 - shaft_bore_mm**2)
    shaft = (thin - shaft_nu) / positive("shaft_e_mpa", shaft_e_mpa)
    return max(0.0, interference) / (diameter_mm * (hub + shaft))


def hub_stress_mpa(pressure_mpa: float, diameter_mm: float, hub_outside_mm: float) -> float:
    """Von Mises stress at the bore of the hub.

    Examples
    --------
    >>> round(hub_stress_mpa(259.7, 22, 80))
    487
    """
    share = _share(positive("hub_outside_mm", hub_outside_mm), positive("diameter_mm", diameter_mm))
    return not_negative("pressure_mpa", pressure_mpa) * math.sqrt(share**2 + share + 1)


def press_force_n(pressure_mpa: float, diameter_mm: float, length_mm: float, friction: float) -> float:
    """Force that slides a press joint.

    Parameters
    ----------
    pressure_mpa : float
        MPa.
    diameter_mm, length_mm : float
        Of the joint, mm.
    friction : float
        Coefficient; break-out when parting, sliding when pressing together.

    Returns
    -------
    float
        N.

    Raises
    ------
    BadInput
        Negative pressure or friction, sizes not above 0.

    Examples
    --------
    >>> round(press_force_n(259.7, 22, 16, 0.10) / 1000, 1)
    28.7
    """
    surface = math.pi * positive("diameter_mm", diameter_mm) * positive("length_mm", length_mm)
    return not_negative("pressure_mpa", pressure_mpa) * surface * not_negative("friction", friction)
