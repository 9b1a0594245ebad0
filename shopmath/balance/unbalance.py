"""Unbalance of a flywheel: permitted amount, force at speed, measurement, and the residual after drilling.

Unbalance U = m·r in g·mm, with its direction: where the heavy spot lies, degrees counter-clockwise on the face as seen when mounted.
"""

from __future__ import annotations

import cmath
import math
from collections.abc import Iterable
from dataclasses import dataclass

from shopmath.estimate import Estimate
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, positive


@dataclass(frozen=True)
class Unbalance:
    """Amount, g·mm, direction, °, and the expanded uncertainty of the amount."""

    gmm: float
    deg: float
    uncertainty_gmm: float = 0.0

    @property
    def vector(self) -> complex:
        return cmath.rect(self.gmm, math.radians(self.deg))


def permissible_gmm(grade: float, mass_kg: float, rpm: float) -> float:
    """Return the unbalance that a balance grade permits.

    Parameters
    ----------
    grade : float
        G, mm/s: 6.3 for flywheels, 2.5 where it runs fast and must be smooth, 16 for rough service.
    mass_kg : float
        Of the wheel, kg.
    rpm : float
        Highest working speed, 1/min.

    Returns
    -------
    float
        g·mm.

    Raises
    ------
    BadInput
        Anything not above 0.

    Source
    ------
    ISO 21940-11: U = 9549·G·m/n, in g·mm with kg and 1/min.

    Examples
    --------
    >>> round(permissible_gmm(6.3, 1.9, 8500), 1)
    13.4
    """
    return 9549 * positive("grade", grade) * positive("mass_kg", mass_kg) / positive("rpm", rpm)


def force_n(unbalance_gmm: float, rpm: float) -> float:
    """Return what an unbalance pulls at a speed, N: U·ω².

    Examples
    --------
    >>> round(force_n(120, 8500), 1)
    95.1
    """
    return not_negative("unbalance_gmm", unbalance_gmm) * 1e-6 * (math.tau * not_negative("rpm", rpm) / 60) ** 2


def by_trial_mass(stays_g: float, turns_g: float, radius_mm: float, heavy_deg: float, *, scale_g: float = 0.1) -> Unbalance:
    """Return the amount from masses opposite the heavy spot.

    The first is the lowest at which it stays anywhere, the second the lowest at which it turns the other way.

    Parameters
    ----------
    stays_g, turns_g : float
        g; the stand's friction hides as much below as above, so the mean is the amount.
    radius_mm : float
        Where the mass sits, mm.
    heavy_deg : float
        From the stops.
    scale_g : float
        Step in which the mass was added.

    Returns
    -------
    Unbalance
        Its uncertainty: half of what friction hides, and the step.

    Raises
    ------
    BadInput
        Negative masses, the second less than the first, no radius.

    Examples
    --------
    >>> found = by_trial_mass(1.2, 1.6, 80, 194)
    >>> round(found.gmm), round(found.uncertainty_gmm, 1)
    (112, 8.9)
    """
    first, second = not_negative("stays_g", stays_g), not_negative("turns_g", turns_g)
    if second < first:
        raise BadInput(
            "turns_g",
            gettext_noop("It turns the other way with more than keeps it still ({first:g} g), not with {second:g} g."),
            first=first,
            second=second,
        )
    arm = positive("radius_mm", radius_mm)
    uncertainty = arm * math.hypot((second - first) / 4, positive("scale_g", scale_g) / 2)
    return Unbalance(arm * (first + second) / 2, finite("heavy_deg", heavy_deg), uncertainty)


def from_hole(before_deg: float, after_deg: float, hole_gmm: float, hole_deg: float, unsure_deg: float = 3.0) -> Unbalance:
    """Amount before a hole from how the heavy spot moved: U·e^(iθ₁) − h·e^(iθh) points to θ₂.

    Parameters
    ----------
    before_deg, after_deg : float
        Heavy spot before and after, °.
    hole_gmm, hole_deg : float
        What the hole took, and where.
    unsure_deg : float
        Expanded, of each direction.

    Returns
    -------
    Unbalance
        Before the hole.

    Raises
    ------
    BadInput
        The heavy spot did not move by more than its uncertainty, or not as any hole there could move it.

    Examples
    --------
    >>> found = from_hole(200, 188, 60, 212)
    >>> round(found.gmm, 1), round(found.deg)
    (117.4, 200)
    """
    took = positive("hole_gmm", hole_gmm)
    moved = math.radians(finite("after_deg", after_deg) - finite("before_deg", before_deg))
    aside = math.radians(after_deg - finite("hole_deg", hole_deg))
    limit = math.sin(math.radians(min(max(not_negative("unsure_deg", unsure_deg), 0.1), 90.0)))
    if abs(math.sin(moved)) <= limit:
        raise BadInput("after_deg", gettext_noop("The heavy spot did not move enough to tell the amount: a trial mass does."))
    amount = took * math.sin(aside) / math.sin(moved)
    rest = cmath.rect(amount, math.radians(before_deg)) - cmath.rect(took, math.radians(hole_deg))
    if amount <= 0 or math.cos(cmath.phase(rest) - math.radians(after_deg)) < 0:
        raise BadInput("after_deg", gettext_noop("No hole there moves the heavy spot like that: mark the stops again."))
    return Unbalance(amount, before_deg % 360, abs(amount) * limit / abs(math.sin(moved)))


def after_holes(found: Unbalance, took: Iterable[tuple[float, float]]) -> Unbalance:
    """Return what is left after holes, each as (g·mm, °).

    Examples
    --------
    >>> rest = after_holes(Unbalance(100, 90), [(60, 90)])
    >>> round(rest.gmm), round(rest.deg)
    (40, 90)
    """
    not_negative("gmm", found.gmm)
    finite("deg", found.deg)
    rest = found.vector - sum(cmath.rect(finite("took", gmm), math.radians(finite("took", deg))) for gmm, deg in took)
    return Unbalance(abs(rest), math.degrees(cmath.phase(rest)) % 360 if abs(rest) > 1e-9 else found.deg, found.uncertainty_gmm)


def rim_speed_m_s(diameter_mm: float, rpm: float) -> float:
    """Speed of the rim.

    Examples
    --------
    >>> round(rim_speed_m_s(170, 8500), 1)
    75.7
    """
    return math.pi * positive("diameter_mm", diameter_mm) / 1000 * positive("rpm", rpm) / 60


RIM_LIMITS = {
    "gjl-250": Estimate(25.0, 30.0, 35.0, "grey iron rims: a mile a minute, workshop rule"),
    "gjs-500-7": Estimate(40.0, 50.0, 60.0, "ductile iron rims, workshop rule"),
    "c45": Estimate(80.0, 100.0, 120.0, "forged or turned steel, workshop rule"),
    "al-si9-cu3": Estimate(50.0, 65.0, 80.0, "cast aluminium with magnets in it, workshop rule"),
}


def rim_limit_m_s(material: str) -> Estimate | None:
    """Return the usual limit of the rim speed for a material; None if nothing is known.

    Examples
    --------
    >>> rim_limit_m_s("gjl-250").high
    35.0
    """
    return RIM_LIMITS.get(material)
