"""A plug or a pin turned on a lathe for a hole that must remain closed: its size, and how it is installed."""

from __future__ import annotations

import math
from dataclasses import dataclass

from shopmath.cold_installation import ColdFit, cold_force
from shopmath.estimate import Estimate
from shopmath.materials import Material
from shopmath.press import hub_stress_mpa, interference_pressure_mpa
from shopmath.validation import BadInput, gettext_noop, not_negative, positive, temperature
from shopmath.verdict import IN, OUT, TOO_CLOSE

HOLDS = 0.3e-3  # interference that a plug keeps at its hottest, of its diameter: estimate
TURNED_MM = 0.01  # what a lathe holds a diameter to
SIZES_C = 20.0  # sizes hold there
STRAINED = 0.7  # share of the least yield that a bore may be strained to
LIGHTEST_C = 120.0  # a cast case is not made hotter for a plug


@dataclass(frozen=True)
class Plug:
    """The size of a plug, and its effects.

    Sizes in mm at 20 °C, least and most; interference cold and hot, mm; stress at the bore and the case's least yield, MPa; force to
    push it in cold, N; the case's temperature at which it drops in, the plug left cold, °C; `in`, `too_close` or `out`, and why.
    """

    low_mm: float
    high_mm: float
    cold_mm: tuple[float, float]
    hot_mm: tuple[float, float]
    stress_mpa: float
    yield_mpa: float | None
    force_n: Estimate
    drops_in_c: float
    state: str
    code: str


def plug_for(
    hole_mm: float,
    hole_u_mm: float,
    length_mm: float,
    wall_mm: float,
    case: Material,
    plug: Material,
    hottest_c: float,
    bore_mm: float = 0.0,
) -> Plug:
    """Return the size of a plug that holds at its hottest, and whether the case withstands it cold.

    Parameters
    ----------
    hole_mm, hole_u_mm : float
        Hole as measured at 20 °C, and the uncertainty of that (k = 2), mm.
    length_mm, wall_mm : float
        Length of the plug in the case, and the thinnest metal round it, mm.
    case, plug : Material
        From the materials table.
    hottest_c : float
        Case and plug in the running engine, °C.
    bore_mm : float
        Hole through the plug, 0 for none, mm.

    Returns
    -------
    Plug
        `grips`; `strained` where the tightest strains the bore past seven tenths of the least yield, `yields` where the likely one is past
        it; `unsure` where the metal has no yield in the table.

    Raises
    ------
    BadInput
        Sizes not above 0, a bore as large as the plug, an engine that is not warmer than the room.

    Source
    ------
    Expansion, moduli and yield from the materials table; Lamé, DIN 7190-1; what must be left of the grip is an estimate.

    Examples
    --------
    >>> from shopmath.materials import get
    >>> steel = plug_for(20.012, 0.004, 12, 8, get("al-si7-mg"), get("c45"), 110)
    >>> round(steel.low_mm, 3), round(steel.high_mm, 3), steel.state
    (20.04, 20.05, 'too_close')
    >>> same = plug_for(20.012, 0.004, 12, 8, get("al-si7-mg"), get("al-6082"), 110)
    >>> same.low_mm < steel.low_mm, same.state
    (True, 'in')
    """
    hole, length, wall = positive("hole_mm", hole_mm), positive("length_mm", length_mm), positive("wall_mm", wall_mm)
    uncertainty = not_negative("hole_u_mm", hole_u_mm)
    if temperature("hottest_c", hottest_c) <= SIZES_C:
        raise BadInput("hottest_c", gettext_noop("A running engine is warmer than the room."))
    if not_negative("bore_mm", bore_mm) >= hole:
        raise BadInput("bore_mm", gettext_noop("The hole through a plug is smaller than the plug."))
    warm = hottest_c - SIZES_C
    lost = hole * (case.alpha - plug.alpha) * warm
    lowest = HOLDS * hole + max(0.0, lost)
    low = hole + uncertainty + lowest
    cold = (lowest, lowest + TURNED_MM + 2 * uncertainty)
    hot = (cold[0] - lost, cold[1] - lost)
    boss = hole + 2 * wall
    tightest = max(cold[1], hot[1])
    pressure = interference_pressure_mpa(tightest, hole, boss, bore_mm, case.e_mpa, case.nu, plug.e_mpa, plug.nu)
    stress = hub_stress_mpa(pressure, hole, boss)
    yields = case.yield_mpa[0] if case.yield_mpa else None
    force = cold_force(ColdFit((cold[0], sum(cold) / 2, cold[1]), hole, length, boss, bore_mm, case, True, plug.e_mpa, plug.nu))
    share = stress / yields if yields else math.nan
    usual = share * (cold[0] + cold[1]) / 2 / cold[1]
    state, code = (IN, "grips") if share <= STRAINED else (OUT, "yields") if usual > 1 else (TOO_CLOSE, "strained" if yields else "unsure")
    return Plug(low, low + TURNED_MM, cold, hot, stress, yields, force, SIZES_C + cold[1] / (hole * case.alpha), state, code)
