"""Threads: identification, turns until a wrong one jams, strength, and torque to preload.

Basic profile of a 60° thread of major diameter d and pitch P: pitch diameter d₂ = d − 0.6495 P, minor diameter D₁ = d − 1.0825 P.
An external thread is known by its major diameter, an internal one by its minor, which is what a calliper reaches.
"""

from shopmath.screw_threads.friction import AS_RECEIVED, STATES, UNKNOWN, nut_factor
from shopmath.screw_threads.identify import HANDS, Match, identify, turns_to_jam
from shopmath.screw_threads.profile import minor_diameter_mm, pitch_diameter_mm
from shopmath.screw_threads.strength import (
    PROOF_MPA,
    WORST_LOSS,
    external_shear_area_mm2,
    full_turns,
    internal_shear_area_mm2,
    proof_force_n,
    stress_area_mm2,
    stripping_force_n,
)
from shopmath.screw_threads.torque import force_from_torque_n, preload_n, torque_for_force_nm

__all__ = [
    "AS_RECEIVED",
    "HANDS",
    "PROOF_MPA",
    "STATES",
    "UNKNOWN",
    "WORST_LOSS",
    "Match",
    "external_shear_area_mm2",
    "force_from_torque_n",
    "full_turns",
    "identify",
    "internal_shear_area_mm2",
    "minor_diameter_mm",
    "nut_factor",
    "pitch_diameter_mm",
    "preload_n",
    "proof_force_n",
    "stress_area_mm2",
    "stripping_force_n",
    "torque_for_force_nm",
    "turns_to_jam",
]
