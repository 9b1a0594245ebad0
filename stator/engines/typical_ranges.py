"""Usual ranges of properties, which are narrower than the plausible ones, and the usual difference between similar parts."""

from __future__ import annotations

from stator.engines.properties import Property

USUAL: dict[Property, tuple[float, float]] = {  # in the kind's own unit (mm, N·m, °C, kg)
    Property.BOLT_LENGTH: (6, 250),
    Property.HOT_TEMPERATURE: (-30, 320),
    Property.SEAT_TEMPERATURE: (-30, 200),
    Property.CASE_TEMPERATURE: (-30, 90),
    Property.AIR_TEMPERATURE: (-20, 45),
    Property.HEATER_SETTING: (30, 350),
    Property.HEAT_TARGET: (20, 320),
    Property.COLD_TEMPERATURE: (-100, 60),
    Property.WEB_TEMPERATURE: (-30, 350),
    Property.PIN_TEMPERATURE: (-60, 350),
    Property.NUT_TORQUE: (5, 250),
    Property.PULLING_TORQUE: (0, 200),
    Property.SCREW_TORQUE: (0, 200),
    Property.BOLT_TORQUE: (0, 150),
    Property.SIDE_GAP: (0, 2.5),
    Property.HOME_GAP: (0, 5),
    Property.SEATING_GAP: (0, 5),
    Property.GASKET_THICKNESS: (0, 2),
    Property.GASKET_CRUSHED: (0, 2),
    Property.SHIMS_FITTED: (0, 4),
    Property.SHIM_THICKNESS: (0.01, 4),
    Property.END_FLOAT: (0, 1.5),
    Property.END_FLOAT_LEAST: (0, 1.5),
    Property.END_FLOAT_MOST: (0, 2),
    Property.BIG_END_SIDE_PLAY: (0, 2),
    Property.BIG_END_RADIAL_PLAY: (0, 0.5),
    Property.SMALL_END_PLAY: (0, 0.5),
    Property.SMALL_END_TILT: (0, 6),
    Property.KEY_STEP: (-2, 2),
    Property.AIR_GAP: (0, 2),
    Property.RIM_RUNOUT: (0, 2),
    Property.VEE_RUNOUT: (0, 0.8),
    Property.SHAFT_READING: (-1.5, 1.5),
    Property.SHAFT_TIR: (0, 1.5),
    Property.TRIAL_STAYS: (0, 0.2),
    Property.TRIAL_TURNS: (0, 0.2),
    Property.TURNING_MASS: (0, 0.1),
}
ALIKE: dict[Property, float] = {  # how many times more or less than the others of its kind in one entry it may be
    Property.BOLT_LENGTH: 4.0,
    Property.WIDTH_AS_IT_GOES: 1.3,
    Property.WIDTH_OVER_WEBS: 1.3,
    Property.WEB_WALL: 3.0,
    Property.SEATING_DEPTH: 4.0,
}
AGAIN = frozenset({*ALIKE, Property.SEAL_SHAFT, Property.SEAL_BORE, Property.BEARING_MARKING})  # often the same at the next of its kind
ASKED = 2.5  # the same for what the question itself names, such as a torque
