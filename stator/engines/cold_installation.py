"""The force to push a ring into or out of its cold seat, computed from the engine card."""

from __future__ import annotations

from shopmath import materials
from shopmath.bearings import Bearing
from shopmath.bearings.internal_clearance import raceway_diameters_mm
from shopmath.cold_installation import ColdFit, inside_of_ring_mm
from stator.engines.fits import BEARING_STEEL
from stator.engines.models import EngineCard, Seat

WALL_SHARE, LEAST_WALL_MM = 0.2, 6.0  # of a boss nobody has measured: estimate


def typical_wall_mm(nominal_mm: float) -> float:
    """Return the usual wall thickness around a seat that nobody has measured, mm (*estimate*)."""
    return max(LEAST_WALL_MM, WALL_SHARE * nominal_mm)


def cold_fit(
    card: EngineCard, seat: Seat, bearing: Bearing, grip_mm: tuple[float, float, float], wall_mm: float, *, oiled: bool
) -> ColdFit:
    """Return what goes into what, without heat: into the case, or the bearing onto a solid shaft."""
    if seat.on == Seat.On.SHAFT:
        raceway, shaft = raceway_diameters_mm(bearing.bore_mm, bearing.outside_mm)[0], materials.get(seat.shaft_material)
        steel = materials.get(BEARING_STEEL)
        return ColdFit(grip_mm, bearing.bore_mm, bearing.width_mm, raceway, 0.0, steel, oiled, shaft.e_mpa, shaft.nu)
    boss, metal = bearing.outside_mm + 2 * wall_mm, materials.get(card.case_material)
    return ColdFit(grip_mm, bearing.outside_mm, bearing.width_mm, boss, inside_of_ring_mm(bearing), metal, oiled)
