"""Clearance left in a bearing once both its rings are fitted, cold and warm."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.bearings import Bearing, MountedClearance, mounted_clearance
from shopmath.iso286 import Fit, fit, limits
from shopmath.materials import get
from shopmath.validation import BadInput
from stator.engines.fits import bearing_of, fit_of
from stator.engines.models import Seat

PARTNER = {"case": ("k5", _("k5 on the shaft")), "shaft": ("M7", _("M7 in the case"))}
RUNNING_C = (90.0, 95.0, 105.0, 105.0)  # case, outer ring, inner ring, shaft: estimate


def clearance_left(
    seat: Seat, measured: Fit | None = None, bearing: Bearing | None = None
) -> tuple[MountedClearance, MountedClearance] | None:
    """Return the bearing clearance, cold and warm (*estimate*); None if too little is known.

    The seat counts as measured, or by its code. The other ring counts as usually fitted.
    """
    try:
        bearing = bearing or bearing_of(seat)
        if bearing.designation == "unmarked":
            return None
        if measured is None:
            coded = fit_of(seat)
            measured = fit(coded.inner.limits, coded.outer.limits)
        if seat.on == Seat.On.SHAFT:
            fits = (fit(bearing.outside_limits_um, limits(PARTNER["shaft"][0], bearing.outside_mm)), measured)
        else:
            fits = (measured, fit(limits(PARTNER["case"][0], bearing.bore_mm), bearing.bore_limits_um))
        metals = (get(seat.card.case_material), get(seat.shaft_material))
        return mounted_clearance(bearing, *fits, *metals), mounted_clearance(bearing, *fits, *metals, *RUNNING_C)
    except BadInput:
        return None
