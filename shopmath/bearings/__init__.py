"""Ball and cylindrical roller bearings: markings, tolerances, and the clearance after mounting."""

from shopmath.bearings.internal_clearance import (
    MountedClearance,
    inner_raceway_growth_mm,
    mounted_clearance,
    outer_raceway_shrink_mm,
    raceway_diameters_mm,
)
from shopmath.bearings.limits import bore_limits_um, outside_limits_um, radial_clearance_um
from shopmath.bearings.marking import Bearing, lookup
from shopmath.bearings.reuse import BearingCondition, Keeping, reuse_or_replace
from shopmath.iso286 import Fit, Limits, fit

__all__ = [
    "Bearing",
    "BearingCondition",
    "Fit",
    "Keeping",
    "Limits",
    "MountedClearance",
    "bore_limits_um",
    "fit",
    "inner_raceway_growth_mm",
    "lookup",
    "mounted_clearance",
    "outer_raceway_shrink_mm",
    "outside_limits_um",
    "raceway_diameters_mm",
    "radial_clearance_um",
    "reuse_or_replace",
]
