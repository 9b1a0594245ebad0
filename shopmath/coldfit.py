"""Fitting without heat: what it takes to push or draw a ring, a bush or a needle shell home cold, and when heat is the better way."""

from __future__ import annotations

from dataclasses import dataclass

from shopmath.checks import BadInput, finite, gettext_noop, not_negative, positive
from shopmath.compounds import seat_friction
from shopmath.estimate import Estimate
from shopmath.materials import Material
from shopmath.press import hub_stress_mpa, interference_pressure_mpa, press_force_n
from shopmath.pullin import SCREW_FRICTION
from shopmath.threads import torque_for_force_nm

RISE_SAYS_HOME = 1.5  # a torque that has grown by this on the highest that friction explains is the shoulder: estimate
STEEL_E_MPA, STEEL_NU = 208e3, 0.30  # of a bearing ring


@dataclass(frozen=True)
class ColdFit:
    """What goes into what: diameter, length and raceway of the ring, outside of the boss round it (mm), the boss's metal, dry or oiled.

    `interference_mm` is least, likely and greatest; a negative one is a gap there.
    """

    interference_mm: tuple[float, float, float]
    diameter_mm: float
    length_mm: float
    boss_outside_mm: float
    raceway_mm: float
    metal: Material
    oiled: bool = True
    ring_e_mpa: float = STEEL_E_MPA
    ring_nu: float = STEEL_NU


def _pressure_mpa(fit: ColdFit, interference_mm: float) -> float:
    boss, ring = (fit.metal.e_mpa, fit.metal.nu), (fit.ring_e_mpa, fit.ring_nu)
    return interference_pressure_mpa(interference_mm, fit.diameter_mm, fit.boss_outside_mm, fit.raceway_mm, *boss, *ring)


def cold_force(fit: ColdFit) -> Estimate:
    """Force that pushes a ring home cold.

    Parameters
    ----------
    fit : ColdFit
        Sizes in mm.

    Returns
    -------
    Estimate
        N: least interference with least friction, likely with likely, greatest with greatest; 0 where nothing overlaps.

    Raises
    ------
    BadInput
        Sizes not above 0, a boss no larger than the ring, a raceway no smaller, a band of interference that falls.

    Source
    ------
    Lamé; DIN 7190-1 with its friction table (`compounds.seat_friction`).

    Examples
    --------
    >>> from shopmath.materials import get
    >>> seat = ColdFit((0.003, 0.020, 0.033), 47, 14, 67, 40, get("al-si7-mg"))
    >>> force = cold_force(seat)
    >>> force.low < force.likely < force.high
    True
    """
    low, likely, high = (finite("interference_mm", value) for value in fit.interference_mm)
    if not low <= likely <= high:
        raise BadInput("interference_mm", gettext_noop("Interference goes from the least to the greatest."), "limits_crossed")
    friction = seat_friction(fit.metal.key, "oiled" if fit.oiled else "dry")

    def force(overlap: float, rub: float) -> float:
        return press_force_n(_pressure_mpa(fit, overlap), fit.diameter_mm, fit.length_mm, rub)

    least, most = force(low, friction.low), force(high, friction.high)
    return Estimate(least, force(likely, friction.likely), most, "interference, boss wall, friction as in the table")


def cold_stress_mpa(fit: ColdFit) -> float:
    """Stress at the bore of the boss at the greatest interference, MPa.

    Examples
    --------
    >>> from shopmath.materials import get
    >>> round(cold_stress_mpa(ColdFit((0.0, 0.020, 0.033), 47, 14, 67, 40, get("al-si7-mg"))))
    34
    """
    return hub_stress_mpa(_pressure_mpa(fit, fit.interference_mm[2]), fit.diameter_mm, fit.boss_outside_mm)


@dataclass(frozen=True)
class Draw:
    """Drawing a ring in with a screw: turns to its shoulder, torque on the way (N·m), the torque that says it is home."""

    turns: float
    torque_nm: Estimate
    home_nm: float


def drawn_in(fit: ColdFit, travel_mm: float, screw_mm: float, pitch_mm: float, bearing_radius_mm: float) -> Draw:
    """What a screw takes that draws a ring to its shoulder.

    Parameters
    ----------
    fit : ColdFit
        Sizes in mm.
    travel_mm : float
        From where the ring starts to its shoulder, mm.
    screw_mm, pitch_mm, bearing_radius_mm : float
        Diameter and pitch of the screw, mean radius where its nut rubs, mm.

    Returns
    -------
    Draw
        A greased screw; the torque grows with the length that is in, and stands here for the whole length.

    Raises
    ------
    BadInput
        As `cold_force`; sizes of the screw not above 0.

    Source
    ------
    VDI 2230-1.

    Examples
    --------
    >>> from shopmath.materials import get
    >>> draw = drawn_in(ColdFit((0.003, 0.020, 0.033), 47, 14, 67, 40, get("al-si7-mg")), 14, 12, 1.75, 9)
    >>> draw.turns, draw.home_nm > draw.torque_nm.high
    (8.0, True)
    """
    force = cold_force(fit)
    turns = not_negative("travel_mm", travel_mm) / positive("pitch_mm", pitch_mm)

    def torque(pull_n: float, rub: float) -> float:
        return torque_for_force_nm(pull_n, screw_mm, pitch_mm, rub, rub, bearing_radius_mm)

    low, likely, high = (torque(*each) for each in zip((force.low, force.likely, force.high), SCREW_FRICTION, strict=True))
    return Draw(turns, Estimate(low, likely, high, "greased screw"), RISE_SAYS_HOME * high)
