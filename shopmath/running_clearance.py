"""Fit and end play in a warm engine, and the part that a bearing stays with when the hot half is lifted.

A case of light metal grows more than the steel in it: a press fit in it loosens, and the room for the crank grows.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from shopmath.bearings import Bearing, raceway_diameters_mm
from shopmath.compounds import seat_friction
from shopmath.estimate import Estimate
from shopmath.iso286 import Fit
from shopmath.materials import Material
from shopmath.press import interference_pressure_mpa, press_force_n
from shopmath.thermal.expansion import clearance_mm
from shopmath.validation import BadInput, finite, gettext_noop, positive
from shopmath.verdict import MOST_ALPHA

ROOM_C = 20.0
BOSS_WALL_MM = 10.0  # of a case round its bearing: estimate
CASE, CRANK, EITHER = "case", "crank", "either"


def _alpha(name: str, alpha: float) -> float:
    if not 0 <= finite(name, alpha) <= MOST_ALPHA:
        raise BadInput(name, gettext_noop("{alpha:g} is no coefficient of expansion in 1/K (aluminium: 21e-6)."), "no_alpha", alpha=alpha)
    return alpha


def _opened_mm(nominal_mm: float, outer_alpha: float, outer_c: float, inner_alpha: float, inner_c: float) -> float:
    outer, inner = _alpha("outer_alpha", outer_alpha), _alpha("inner_alpha", inner_alpha)
    return clearance_mm(nominal_mm, 0.0, outer, outer_c, inner, inner_c)


def warm_fit_mm(cold: Fit, nominal_mm: float, outer_alpha: float, outer_c: float, inner_alpha: float, inner_c: float) -> Fit:
    """Return the interference of a fit at running temperature.

    Parameters
    ----------
    cold : Fit
        Least and highest interference at 20 °C, mm.
    nominal_mm : float
        Diameter of the fit, mm.
    outer_alpha, inner_alpha : float
        Expansion of what is outside and inside, 1/K.
    outer_c, inner_c : float
        Their temperatures, °C.

    Returns
    -------
    Fit
        mm; a negative least interference is a gap, in which a ring may creep.

    Raises
    ------
    BadInput
        No diameter, no coefficient of expansion, below absolute zero.

    Source
    ------
    Linear expansion: I − D·[αo(To − 20) − αi(Ti − 20)].

    Examples
    --------
    >>> left = warm_fit_mm(Fit(-0.003, 0.033), 47, 21e-6, 90, 11.5e-6, 95)
    >>> round(left.min_interference_mm, 3), round(left.max_interference_mm, 3)
    (-0.032, 0.004)
    """
    opened = _opened_mm(nominal_mm, outer_alpha, outer_c, inner_alpha, inner_c)
    low = finite("min_interference_mm", cold.min_interference_mm)
    return Fit(low - opened, finite("max_interference_mm", cold.max_interference_mm) - opened)


def warm_float_mm(cold_mm: float, length_mm: float, case_alpha: float, case_c: float, crank_alpha: float, crank_c: float) -> float:
    """Return the end play at running temperature.

    Parameters
    ----------
    cold_mm : float
        At 20 °C, mm; negative is a clamped crank.
    length_mm : float
        Between the shoulders that end the float, mm.
    case_alpha, crank_alpha : float
        1/K.
    case_c, crank_c : float
        °C.

    Returns
    -------
    float
        mm.

    Raises
    ------
    BadInput
        No length, no coefficient of expansion, below absolute zero.

    Examples
    --------
    >>> round(warm_float_mm(0.15, 69.5, 21e-6, 90, 11.5e-6, 110), 3)
    0.18
    """
    return finite("cold_mm", cold_mm) + _opened_mm(length_mm, case_alpha, case_c, crank_alpha, crank_c)


@dataclass(frozen=True)
class BearingRetention:
    """The part that a bearing stays with when the halves separate: `case`, `crank`, or `either`; the force that frees each fit, N."""

    where: str
    case_n: Estimate
    crank_n: Estimate


def stays_with(
    bearing: Bearing,
    in_case: Fit,
    on_crank: Fit,
    case: Material,
    crank: Material,
    *,
    case_c: float = ROOM_C,
    ring_c: float = ROOM_C,
    crank_c: float = ROOM_C,
    boss_wall_mm: float = BOSS_WALL_MM,
) -> BearingRetention:
    """Return which of a main bearing's two fits releases first when a half is lifted off the crank.

    Parameters
    ----------
    bearing : Bearing
    in_case, on_crank : Fit
        Of its outer ring in the case and of its inner ring on the crank, at 20 °C, mm.
    case, crank : Material
    case_c, ring_c, crank_c : float
        Temperatures while lifting, °C: a hot half lets its ring go.
    boss_wall_mm : float
        Metal of the case round the bearing, mm, *estimate*.

    Returns
    -------
    Stays
        `case` when the fit in the case holds more at its least interference than the one on the crank at its highest, both dry or both
        oiled, or when the one on the crank holds nothing at all; `crank` the other way round; else `either`: be ready for both.

    Raises
    ------
    BadInput
        A wall not above 0, below absolute zero.

    Source
    ------
    Lamé for both rings and friction of the table, break-out, dry to oiled.

    Examples
    --------
    >>> from shopmath.bearings import lookup
    >>> from shopmath.materials import get
    >>> main, alloy, steel = lookup("6204"), get("al-si7-mg"), get("42crmo4")
    >>> stays_with(main, Fit(0.030, 0.040), Fit(-0.008, 0.001), alloy, steel).where
    'case'
    >>> stays_with(main, Fit(0.003, 0.033), Fit(0.002, 0.021), alloy, steel, case_c=100, ring_c=40).where
    'crank'
    """
    inner_track, outer_track = raceway_diameters_mm(bearing.bore_mm, bearing.outside_mm)
    ring_alpha, ring_e, ring_nu = crank.alpha, 208e3, 0.30
    outside = warm_fit_mm(in_case, bearing.outside_mm, case.alpha, case_c, ring_alpha, ring_c)
    inside = warm_fit_mm(on_crank, bearing.bore_mm, ring_alpha, ring_c, crank.alpha, crank_c)
    wall = bearing.outside_mm + 2 * positive("boss_wall_mm", boss_wall_mm)

    def in_the_case(overlap: float) -> float:
        return interference_pressure_mpa(overlap, bearing.outside_mm, wall, outer_track, case.e_mpa, case.nu, ring_e, ring_nu)

    def on_the_crank(overlap: float) -> float:
        return interference_pressure_mpa(overlap, bearing.bore_mm, inner_track, 0.0, ring_e, ring_nu, crank.e_mpa, crank.nu)

    holds_case = _holds(outside, in_the_case, bearing.outside_mm, bearing.width_mm, case.key)
    holds_crank = _holds(inside, on_the_crank, bearing.bore_mm, bearing.width_mm, crank.key)
    return BearingRetention(_where(holds_case, holds_crank), _pull(holds_case), _pull(holds_crank))


Holds = list[tuple[float, float]]  # pull at the least and at the greatest interference, N, oiled and dry


def _holds(fit: Fit, pressure: Callable[[float], float], diameter_mm: float, width_mm: float, metal: str) -> Holds:
    ends = [pressure(max(0.0, overlap)) for overlap in (fit.min_interference_mm, fit.max_interference_mm)]
    rubs = [seat_friction(metal, state).likely for state in ("oiled", "dry")]
    return [(press_force_n(ends[0], diameter_mm, width_mm, rub), press_force_n(ends[1], diameter_mm, width_mm, rub)) for rub in rubs]


def _pull(holds: Holds) -> Estimate:
    (oiled_low, oiled_high), (dry_low, dry_high) = holds
    likely = (oiled_low + oiled_high + dry_low + dry_high) / 4
    return Estimate(min(oiled_low, dry_low), likely, max(oiled_high, dry_high), "interference, boss wall and friction")


def _where(case: Holds, crank: Holds) -> str:
    """Return which fit holds more over its whole range."""
    for name, one, other in ((CASE, case, crank), (CRANK, crank, case)):
        surely = all(lowest > highest for (lowest, _), (_, highest) in zip(one, other, strict=True))
        if surely or (_pull(other).high == 0 < _pull(one).high):
            return name
    return EITHER
