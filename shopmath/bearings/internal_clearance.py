"""Clearance left once the rings are fitted.

A ring pressed into a boss is squeezed, and one pressed onto a shaft is stretched: both take clearance from the bearing. Heat in
the case gives some back. Thick-ring theory says how much.
"""

from __future__ import annotations

from dataclasses import dataclass

from shopmath.bearings.marking import Bearing
from shopmath.iso286 import Fit
from shopmath.materials import Material, get
from shopmath.validation import BadInput, finite, gettext_noop, positive, temperature


def raceway_diameters_mm(bore_mm: float, outside_mm: float) -> tuple[float, float]:
    """Return mean inner and outer raceway diameters of a bearing (*estimate*): a quarter of the section from each face.

    Examples
    --------
    >>> raceway_diameters_mm(20, 47)
    (26.75, 40.25)
    """
    if positive("outside_mm", outside_mm) <= positive("bore_mm", bore_mm):
        raise BadInput(
            "outside_mm",
            gettext_noop("The outside {outside_mm:g} mm is not larger than the bore {bore_mm:g} mm."),
            outside_mm=outside_mm,
            bore_mm=bore_mm,
        )
    return (3 * bore_mm + outside_mm) / 4, (bore_mm + 3 * outside_mm) / 4


def _pressure(interference_mm: float, diameter_mm: float, outside_mm: float, hub: Material, bore_mm: float, core: Material) -> float:
    """Pressure between a hub and what is in it, MPa, by Lamé; 0 when there is no interference."""
    hub_ratio, core_ratio = (diameter_mm / outside_mm) ** 2, (bore_mm / diameter_mm) ** 2
    hub_give = ((1 + hub_ratio) / (1 - hub_ratio) + hub.nu) / hub.e_mpa
    core_give = ((1 + core_ratio) / (1 - core_ratio) - core.nu) / core.e_mpa
    return max(0.0, interference_mm) / diameter_mm / (hub_give + core_give)


def outer_raceway_shrink_mm(
    interference_mm: float, bore_mm: float, outside_mm: float, housing: Material, housing_outside_mm: float | None = None
) -> float:
    """Return how far a boss squeezes the outer raceway, on diameter.

    Parameters
    ----------
    interference_mm : float
        Outer ring in its bore, mm; a clearance (negative) squeezes nothing.
    bore_mm, outside_mm : float
        The bearing, mm.
    housing : Material
        Of the boss.
    housing_outside_mm : float, optional
        Outside of the boss; 1.5 × the ring when not given, *estimate*.

    Returns
    -------
    float
        mm.

    Raises
    ------
    BadInput
        Impossible rings, a boss no larger than its bore.

    Source
    ------
    Thick rings after Lamé; DIN 7190-1.

    Examples
    --------
    >>> round(1000 * outer_raceway_shrink_mm(0.030, 20, 47, get("al-si9-cu3")))
    13
    """
    finite("interference_mm", interference_mm)
    _, raceway = raceway_diameters_mm(bore_mm, outside_mm)
    boss = 1.5 * outside_mm if housing_outside_mm is None else positive("housing_outside_mm", housing_outside_mm)
    if boss <= outside_mm:
        raise BadInput(
            "housing_outside_mm", gettext_noop("A {boss:g} mm boss cannot hold a {outside_mm:g} mm ring."), boss=boss, outside_mm=outside_mm
        )
    steel = get("100cr6")
    pressure = _pressure(interference_mm, outside_mm, boss, housing, raceway, steel)
    return 2 * pressure * raceway / steel.e_mpa / (1 - (raceway / outside_mm) ** 2)


def inner_raceway_growth_mm(
    interference_mm: float, bore_mm: float, outside_mm: float, shaft: Material, shaft_bore_mm: float = 0.0
) -> float:
    """Return how far a shaft stretches the inner raceway, on diameter.

    Parameters
    ----------
    interference_mm : float
        Shaft in the inner ring, mm; a clearance (negative) stretches nothing.
    bore_mm, outside_mm : float
        The bearing, mm.
    shaft : Material
    shaft_bore_mm : float
        Of a hollow shaft, mm.

    Returns
    -------
    float
        mm.

    Raises
    ------
    BadInput
        Impossible rings, a shaft bored out to its outside.

    Source
    ------
    Thick rings after Lamé; DIN 7190-1.

    Examples
    --------
    >>> round(1000 * inner_raceway_growth_mm(0.010, 25, 52, get("42crmo4")), 1)
    7.9
    """
    finite("interference_mm", interference_mm)
    raceway, _ = raceway_diameters_mm(bore_mm, outside_mm)
    if not 0 <= finite("shaft_bore_mm", shaft_bore_mm) < bore_mm:
        raise BadInput(
            "shaft_bore_mm",
            gettext_noop("A {bore_mm:g} mm shaft cannot have a {shaft_bore_mm:g} mm hole."),
            bore_mm=bore_mm,
            shaft_bore_mm=shaft_bore_mm,
        )
    steel = get("100cr6")
    pressure = _pressure(interference_mm, bore_mm, raceway, steel, shaft_bore_mm, shaft)
    ratio = (bore_mm / raceway) ** 2
    return 2 * pressure * raceway / steel.e_mpa * ratio / (1 - ratio)


@dataclass(frozen=True)
class MountedClearance:
    """Radial clearance after mounting, µm, lowest and highest, and the mean contributions of fits and temperatures, µm."""

    low_um: float
    high_um: float
    outer_ring_takes_um: float
    inner_ring_takes_um: float
    heat_gives_um: float
    estimated: bool = True


def mounted_clearance(
    bearing: Bearing,
    outer_fit: Fit,
    inner_fit: Fit,
    housing: Material,
    shaft: Material,
    housing_c: float = 20.0,
    outer_ring_c: float = 20.0,
    inner_ring_c: float = 20.0,
    shaft_c: float = 20.0,
    *,
    housing_outside_mm: float | None = None,
    shaft_bore_mm: float = 0.0,
) -> MountedClearance:
    """Return the clearance after mounting both rings, cold or at running temperature.

    Parameters
    ----------
    bearing : Bearing
    outer_fit, inner_fit : Fit
        Outer ring in the case, inner ring on the shaft, mm at 20 °C.
    housing, shaft : Material
    housing_c, outer_ring_c, inner_ring_c, shaft_c : float
        Temperatures, °C.
    housing_outside_mm, shaft_bore_mm : float
        Of the boss and of a hollow shaft, mm.

    Returns
    -------
    MountedClearance
        µm; negative is preload. *Estimate*: raceway sizes are those of a usual section, smoothing of the surfaces is left out.

    Raises
    ------
    BadInput
        Impossible rings or temperatures.

    Source
    ------
    Thick rings after Lamé; ISO 5753-1 for the clearance before fitting.

    Examples
    --------
    >>> from shopmath.bearings import fit, lookup
    >>> from shopmath.iso286 import limits
    >>> main = lookup("6205 C3")
    >>> left = mounted_clearance(main, fit(main.outside_limits_um, limits("N7", 52)), fit(limits("k5", 25), main.bore_limits_um),
    ...                          get("al-si9-cu3"), get("42crmo4"))
    >>> round(left.low_um), round(left.high_um)
    (-22, 26)
    """
    temperatures = {"housing_c": housing_c, "outer_ring_c": outer_ring_c, "inner_ring_c": inner_ring_c, "shaft_c": shaft_c}
    for name, value in temperatures.items():
        temperature(name, value)
    ring_alpha = get("100cr6").alpha
    inner_raceway, outer_raceway = raceway_diameters_mm(bearing.bore_mm, bearing.outside_mm)
    loosened = bearing.outside_mm * (housing.alpha * (housing_c - 20) - ring_alpha * (outer_ring_c - 20))
    tightened = bearing.bore_mm * (shaft.alpha * (shaft_c - 20) - ring_alpha * (inner_ring_c - 20))
    heat = 1000 * ring_alpha * (outer_raceway * (outer_ring_c - 20) - inner_raceway * (inner_ring_c - 20))

    def taken(outer_mm: float, inner_mm: float) -> tuple[float, float]:
        squeeze = outer_raceway_shrink_mm(outer_mm - loosened, bearing.bore_mm, bearing.outside_mm, housing, housing_outside_mm)
        stretch = inner_raceway_growth_mm(inner_mm + tightened, bearing.bore_mm, bearing.outside_mm, shaft, shaft_bore_mm)
        return 1000 * squeeze, 1000 * stretch

    before = bearing.clearance_um
    highest = sum(taken(outer_fit.max_interference_mm, inner_fit.max_interference_mm))
    lowest = sum(taken(outer_fit.min_interference_mm, inner_fit.min_interference_mm))
    middle = taken(*((each.min_interference_mm + each.max_interference_mm) / 2 for each in (outer_fit, inner_fit)))
    return MountedClearance(before.lower_um - highest + heat, before.upper_um - lowest + heat, middle[0], middle[1], heat)
