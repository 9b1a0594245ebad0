"""Heat and cold for fitting: clearance from temperatures, its duration and probability, and the limits.

The files, in the order a reader needs them: `expansion` (clearance), `rates` (soak, window), `films`, `infrared` (what a gun shows),
`confidence`, `limits`, `ordering` (several parts in one heat), `seat` and `plan`
(one seat, whole).
"""

from shopmath.thermal.confidence import drop_confidence
from shopmath.thermal.convection import casting_time_constant_s, ring_contact_s, ring_time_constant_s
from shopmath.thermal.expansion import (
    clearance_mm,
    freeing_difference_k,
    outer_temperature_needed_c,
    wanted_clearance_mm,
)
from shopmath.thermal.infrared import Surface, infrared_band_c, infrared_true_c, surface, surfaces, water_drop_c
from shopmath.thermal.ordering import HeatOrder, HeatPart, one_heat
from shopmath.thermal.rates import (
    Body,
    seating_s,
    soak_time_s,
    temperature_at_c,
    time_constant_from_readings,
    time_constant_s,
    window_s,
)

__all__ = [
    "Body",
    "HeatOrder",
    "HeatPart",
    "Surface",
    "casting_time_constant_s",
    "clearance_mm",
    "drop_confidence",
    "freeing_difference_k",
    "infrared_band_c",
    "infrared_true_c",
    "one_heat",
    "outer_temperature_needed_c",
    "ring_contact_s",
    "ring_time_constant_s",
    "seating_s",
    "soak_time_s",
    "surface",
    "surfaces",
    "temperature_at_c",
    "time_constant_from_readings",
    "time_constant_s",
    "wanted_clearance_mm",
    "water_drop_c",
    "window_s",
]
