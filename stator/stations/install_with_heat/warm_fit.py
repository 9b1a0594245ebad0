"""The fit in a running engine, and the part that a main bearing stays with when the hot half is lifted."""

from __future__ import annotations

from shopmath.amounts import Amount, mm
from shopmath.iso286 import Fit, limits
from shopmath.iso286 import fit as fit_of_limits
from shopmath.running_clearance import BearingRetention, stays_with, warm_fit_mm
from shopmath.validation import BadInput
from stator.engines.clearance import PARTNER, RUNNING_C
from stator.engines.fits import SeatFit

LIFTED_CASE_C, LIFTED_RING_C = 100.0, 40.0  # of a half that is lifted hot, and of the ring in it by then: estimate


def cold_fit(fit: SeatFit) -> Fit:
    """Interference at 20 °C, as measured or by the codes."""
    return fit_of_limits(fit.inner.limits, fit.outer.limits)


def warm_fit(fit: SeatFit) -> Fit:
    """Return the interference in a running engine (*estimate*): case 90 °C, its ring 95 °C; a ring and its shaft 105 °C."""
    case_c, outer_ring_c, inner_ring_c, shaft_c = RUNNING_C
    outer_c, inner_c = (inner_ring_c, shaft_c) if fit.onto_shaft else (case_c, outer_ring_c)
    return warm_fit_mm(cold_fit(fit), fit.nominal_mm, fit.outer_material.alpha, outer_c, fit.inner_material.alpha, inner_c)


def may_creep(fit: SeatFit) -> bool:
    """Return True if the loosest pair holds cold and has play when warm."""
    return not fit.onto_shaft and warm_fit(fit).min_interference_mm < 0 < cold_fit(fit).max_interference_mm


def band_of(fit: Fit) -> dict[str, Amount]:
    return {"low": mm(fit.min_interference_mm), "high": mm(fit.max_interference_mm)}


def stays(fit: SeatFit) -> BearingRetention | None:
    """Return what a main bearing stays with when its half is lifted hot off the crank; None for other bearings."""
    if fit.onto_shaft or not fit.seat.is_main or fit.bearing.designation == "unmarked":
        return None
    try:
        on_crank = fit_of_limits(limits(PARTNER["case"][0], fit.bearing.bore_mm), fit.bearing.bore_limits_um)
        hot = {"case_c": LIFTED_CASE_C, "ring_c": LIFTED_RING_C}
        return stays_with(fit.bearing, cold_fit(fit), on_crank, fit.outer_material, fit.inner_material, **hot)
    except BadInput:
        return None
