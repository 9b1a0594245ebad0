"""Installation without heat: the force to push or pull a ring, a bushing or a drawn cup in, and when heat is better."""

from __future__ import annotations

from dataclasses import dataclass

from shopmath.bearings import Bearing
from shopmath.bearings.internal_clearance import raceway_diameters_mm
from shopmath.compounds import seat_friction
from shopmath.crank_installation import SCREW_FRICTION
from shopmath.estimate import Estimate
from shopmath.materials import Material
from shopmath.press import hub_stress_mpa, interference_pressure_mpa, press_force_n
from shopmath.screw_threads import torque_for_force_nm
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, positive

RISE_SAYS_HOME = 1.5  # a torque that has grown by this on the highest that friction explains is the shoulder: estimate
TIGHT = 1e-3  # interference over the diameter from which a bore is scored rather than stretched when a ring is pushed in cold: estimate
STRAINED = 0.5  # share of the boss's yield from which it is better warmed: estimate
CUP_WALL = 0.3  # wall of a drawn cup, of half its section: estimate
STARTS_MM, TURNS_U = 0.10, 0.5  # lean that any start may have, mm; what turns are counted to
STEEL_E_MPA, STEEL_NU = 208e3, 0.30  # of a bearing ring


@dataclass(frozen=True)
class ColdFit:
    """The parts of a fit.

    Diameter, length and raceway of the ring, outside of the boss around it (mm), the boss's metal, dry or oiled.

    `interference_mm` is least, likely and highest; a negative one is a gap there.
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
    """Return the force that pushes a ring in cold.

    Parameters
    ----------
    fit : ColdFit
        Sizes in mm.

    Returns
    -------
    Estimate
        N: least interference with least friction, likely with likely, highest with highest; 0 where nothing overlaps.

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

    lowest, highest = force(low, friction.low), force(high, friction.high)
    return Estimate(lowest, force(likely, friction.likely), highest, "interference, boss wall, friction as in the table")


def cold_stress_mpa(fit: ColdFit) -> float:
    """Return the stress at the bore of the boss at the highest interference, MPa.

    Examples
    --------
    >>> from shopmath.materials import get
    >>> round(cold_stress_mpa(ColdFit((0.0, 0.020, 0.033), 47, 14, 67, 40, get("al-si7-mg"))))
    34
    """
    return hub_stress_mpa(_pressure_mpa(fit, fit.interference_mm[2]), fit.diameter_mm, fit.boss_outside_mm)


@dataclass(frozen=True)
class Draw:
    """A ring pulled in with a screw: turns to its shoulder, torque on the way (N·m), and the torque that shows that it is seated."""

    turns: float
    torque_nm: Estimate
    home_nm: float


def drawn_in(fit: ColdFit, travel_mm: float, screw_mm: float, pitch_mm: float, bearing_radius_mm: float) -> Draw:
    """Return turns and torques of a screw that pulls a ring to its shoulder.

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


def inside_of_ring_mm(bearing: Bearing) -> float:
    """Return the mean inside diameter of what is pressed in, mm (*estimate*): the raceway of an outer ring, the inside of a drawn cup.

    Examples
    --------
    >>> from shopmath.bearings import lookup
    >>> inside_of_ring_mm(lookup("6204")), round(inside_of_ring_mm(lookup("HK0810")), 1)
    (40.25, 10.8)
    """
    if bearing.is_drawn_cup:
        return bearing.outside_mm - CUP_WALL * (bearing.outside_mm - bearing.bore_mm)
    return raceway_diameters_mm(bearing.bore_mm, bearing.outside_mm)[1]


def start_lean_mm(fit: ColdFit) -> float:
    """Return how far out of square a ring may be when it starts, mm across its face.

    Pushed on, a ring that leans is as much wider in the bore as its lean times width over diameter: at most its interference again.

    Examples
    --------
    >>> from shopmath.materials import get
    >>> round(start_lean_mm(ColdFit((0.003, 0.020, 0.033), 47, 14, 67, 40, get("al-si7-mg"))), 2)
    0.11
    """
    own = max(finite("interference_mm", fit.interference_mm[2]), 0.0)
    return max(STARTS_MM, own * positive("diameter_mm", fit.diameter_mm) / positive("length_mm", fit.length_mm))


@dataclass(frozen=True)
class Instead:
    """Why heat is better, as codes; the temperature of the case at which no force is needed, °C; stress, MPa.

    `beyond_reach`: more force than there is; `tight`: more than a thousandth of the diameter; `strains`: more than half of yield.
    """

    codes: tuple[str, ...]
    case_c: float
    stress_mpa: float
    yield_mpa: float | None


def heat_instead(fit: ColdFit, able_n: float | None = None, room_c: float = 20.0) -> Instead:
    """Return whether a ring should rather go into a warm boss.

    Parameters
    ----------
    fit : ColdFit
        Sizes in mm.
    able_n : float, optional
        What the way chosen can push with, N.
    room_c : float
        Where both are now, °C; the ring stays there.

    Returns
    -------
    Instead
        Reasons, the temperature of the case at which even the tightest pair is free, stress at the bore and the metal's least yield.

    Raises
    ------
    BadInput
        As `cold_force`.

    Source
    ------
    Expansion and strength from the materials table; the thresholds are estimates.

    Examples
    --------
    >>> from shopmath.materials import get
    >>> seat = ColdFit((0.003, 0.020, 0.033), 47, 14, 67, 40, get("al-si7-mg"))
    >>> found = heat_instead(seat, 2000.0)
    >>> found.codes, round(found.case_c)
    (('beyond_reach',), 53)
    """
    force, stress = cold_force(fit), cold_stress_mpa(fit)
    greatest = max(fit.interference_mm[2], 0.0)
    least_yield = fit.metal.yield_mpa[0] if fit.metal.yield_mpa else None
    codes = []
    if able_n is not None and force.high > able_n:
        codes.append("beyond_reach")
    if greatest > TIGHT * fit.diameter_mm:
        codes.append("tight")
    if least_yield and stress > STRAINED * least_yield:
        codes.append("strains")
    return Instead(tuple(codes), room_c + greatest / (fit.diameter_mm * fit.metal.alpha), stress, least_yield)


def seated_by_screw(draw: Draw, turns: float, torque_nm: float | None = None) -> str:
    """Return the verdict of turns and torque on a ring that is pulled in: `home`, `binds`, `goes_on`, or `counted`.

    Examples
    --------
    >>> draw = Draw(8.0, Estimate(1.0, 2.0, 4.0, ""), 6.0)
    >>> seated_by_screw(draw, 8, 7), seated_by_screw(draw, 5, 7), seated_by_screw(draw, 8, 3), seated_by_screw(draw, 8)
    ('home', 'binds', 'goes_on', 'counted')
    """
    there = not_negative("turns", turns) >= draw.turns - TURNS_U
    if torque_nm is None:
        return "counted" if there else "goes_on"
    if not_negative("torque_nm", torque_nm) < draw.home_nm:
        return "goes_on"
    return "home" if there else "binds"


def pushed_with(force: Estimate, peak_n: float) -> str:
    """Return the verdict of the pressing force on a fit: `loose` below the expected range, `binds` above, else `as_expected`.

    Examples
    --------
    >>> force = Estimate(200.0, 1400.0, 3900.0, "")
    >>> [pushed_with(force, peak) for peak in (100, 1500, 5000)]
    ['loose', 'as_expected', 'binds']
    """
    if not_negative("peak_n", peak_n) < force.low:
        return "loose"
    return "binds" if peak_n > force.high else "as_expected"
