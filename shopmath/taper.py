"""Tapers: seating by the nut, release, torque capacity, and the effect of an offset key on the timing.

A taper of ratio 1:k has the half angle α = atan(1/(2k)). Pulled on with F it presses on its cone with N = F/(sin α + μ cos α); to let
go it wants N(μ cos α − sin α). Where that is nothing, the taper does not hold by itself.
"""

from __future__ import annotations

import math

from shopmath.estimate import Estimate
from shopmath.tables import rows
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, positive


def half_angle_deg(ratio: float) -> float:
    """Half angle of a taper 1:ratio.

    Examples
    --------
    >>> round(half_angle_deg(8), 3)
    3.576
    """
    return math.degrees(math.atan(1 / (2 * positive("ratio", ratio))))


def normal_force_n(seating_n: float, ratio: float, friction: float) -> float:
    """Return the force on the surface of the taper from a seating force.

    Examples
    --------
    >>> round(normal_force_n(18_000, 8, 0.15) / 1000, 1)
    84.9
    """
    angle = math.radians(half_angle_deg(ratio))
    rub = not_negative("friction", friction)
    return not_negative("seating_n", seating_n) / (math.sin(angle) + rub * math.cos(angle))


def release_force_n(seating_n: float, ratio: float, friction: float, *, breakout_friction: float | None = None) -> float:
    """Return the force that frees a taper.

    Parameters
    ----------
    seating_n : float
        Force it was drawn on with, N.
    ratio : float
        k of 1:k.
    friction : float
        Coefficient when it was seated.
    breakout_friction : float, optional
        Coefficient when it is pulled; the same unless it has stood long or fretted.

    Returns
    -------
    float
        N; 0.0 when it is not self-locking.

    Raises
    ------
    BadInput
        Negative force or friction, ratio not above 0.

    Source
    ------
    Equilibrium of a cone with Coulomb friction; machine element handbooks.

    Examples
    --------
    >>> round(release_force_n(18_000, 8, 0.15) / 1000, 2)
    7.41
    >>> release_force_n(18_000, 5, 0.08)
    0.0
    """
    angle = math.radians(half_angle_deg(ratio))
    rub = friction if breakout_friction is None else not_negative("breakout_friction", breakout_friction)
    return max(0.0, normal_force_n(seating_n, ratio, friction) * (rub * math.cos(angle) - math.sin(angle)))


def torque_capacity_nm(seating_n: float, ratio: float, friction: float, mean_diameter_mm: float) -> float:
    """Return the torque capacity of a taper by friction.

    Parameters
    ----------
    seating_n : float
        N.
    ratio, friction : float
    mean_diameter_mm : float
        Of the cone, mm.

    Returns
    -------
    float
        μ·N·d/2, N·m.

    Raises
    ------
    BadInput
        As `release_force_n`.

    Examples
    --------
    >>> round(torque_capacity_nm(18_000, 8, 0.15, 18), 1)
    114.6
    """
    return friction * normal_force_n(seating_n, ratio, friction) * positive("mean_diameter_mm", mean_diameter_mm) / 2000


def key_shift_deg(offset_mm: float, shaft_diameter_mm: float) -> float:
    """Return how far an offset key rotates the flywheel on its shaft.

    Parameters
    ----------
    offset_mm : float
        Step of the key, mm, either sign.
    shaft_diameter_mm : float
        At the key, mm.

    Returns
    -------
    float
        2·asin(offset/diameter), degrees.

    Raises
    ------
    BadInput
        A step wider than the shaft, a diameter not above 0.

    Examples
    --------
    >>> round(key_shift_deg(0.4, 16), 2)
    2.87
    """
    if abs(finite("offset_mm", offset_mm)) > positive("shaft_diameter_mm", shaft_diameter_mm):
        raise BadInput(
            "offset_mm",
            gettext_noop("A step of {offset_mm:g} mm is wider than the {shaft_diameter_mm:g} mm shaft."),
            "step_too_wide",
            step=offset_mm,
            shaft=shaft_diameter_mm,
            offset_mm=offset_mm,
            shaft_diameter_mm=shaft_diameter_mm,
        )
    return math.degrees(2 * math.asin(offset_mm / shaft_diameter_mm))


def taper_friction(condition: str) -> Estimate:
    """Friction of a taper by its condition, *estimate*: the friction table's band.

    Parameters
    ----------
    condition : str
        `clean`, `oiled` or `fretted`.

    Returns
    -------
    Estimate

    Raises
    ------
    BadInput
        Another word.

    Source
    ------
    Friction table; fretted is an effective value at break-out, of welded-up high spots.

    Examples
    --------
    >>> taper_friction("clean").likely
    0.15
    """
    for row in rows("friction_and_compounds"):
        if row["group"] == "taper_friction" and row["item"] == "steel cone in steel hub" and row["condition"].startswith(condition):
            return Estimate(float(row["low"]), float(row["typical"]), float(row["high"]), f"steel taper, {row['condition']}")
    raise BadInput("condition", gettext_noop("{condition!r} is none of clean, oiled, fretted."), condition=condition)


SPREAD_OF_MASS = (0.5, 0.6, 0.8)  # inertia of a wheel over mass times rim radius squared: a disc, usual, heavy-rimmed; estimate
UNEVEN = (0.005, 0.010, 0.020)  # half of how much a small engine's speed swings within a turn, of the speed itself; estimate


def asked_by_wheel_nm(mass_kg: float, rim_mm: float, rpm: float) -> Estimate:
    """Return the torque that the inertia of a flywheel needs from its taper, N·m (*estimate*).

    The crank speeds up and slows down within each turn.

    Parameters
    ----------
    mass_kg, rim_mm, rpm : float
        Mass of the wheel, diameter of its rim (mm), highest working speed.

    Returns
    -------
    Estimate
        Inertia times the largest acceleration of a speed that swings once a turn; what a blow or a kick back asks comes on top.

    Raises
    ------
    BadInput
        Sizes not above 0.

    Source
    ------
    Rigid body; shares of mass and of speed are estimates.

    Examples
    --------
    >>> asked = asked_by_wheel_nm(1.9, 124, 8500)
    >>> [round(each) for each in (asked.low, asked.likely, asked.high)]
    [14, 35, 93]
    """
    inertia = positive("mass_kg", mass_kg) * (positive("rim_mm", rim_mm) / 2000) ** 2
    speed = positive("rpm", rpm) * math.tau / 60
    low, likely, high = (share * inertia * uneven * speed**2 for share, uneven in zip(SPREAD_OF_MASS, UNEVEN, strict=True))
    return Estimate(low, likely, high, "the wheel's inertia, speed uneven within a turn")
