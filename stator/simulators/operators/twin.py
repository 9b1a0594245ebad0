"""Operators that true the outer webs of a twin: by Stator's verdict, or where the needle reads high."""

from __future__ import annotations

import math

from shopmath import runout
from shopmath.crank_runout import RunoutVector
from shopmath.gauges import gauge_uncertainty
from shopmath.multi_throw import OuterShaft, outer_shaft
from stator.simulators.crank import ENDS, NOISE_MM, STEP_MM
from stator.simulators.operators.crank import TURN
from stator.simulators.twin_crank import BLOW_DEG, PIN_DEG, RIM_MM, THROW_MM, TwinCrank

MOST_MOVES = 30


def measured(crank: TwinCrank, end: str) -> OuterShaft:
    """Return the result of one turn at an end."""
    found = runout.fit(TURN, [crank.read(end, angle) for angle in TURN])
    uncertainty = gauge_uncertainty(STEP_MM, NOISE_MM, kind="dial") / math.sqrt(len(TURN)) / 2
    return outer_shaft(RunoutVector(found.tir_mm, found.high_spot_deg), THROW_MM, PIN_DEG[end], RIM_MM, uncertainty)


def turn_back(crank: TwinCrank, limit_mm: float) -> float:
    """Turn the worst web back as the verdict says until both are within the limit or no blow helps; return the runout."""
    for _ in range(MOST_MOVES):
        shafts = {end: measured(crank, end) for end in ENDS}
        worth = [end for end in ENDS if shafts[end].worth_it]
        if not worth or max(each.swing.tir_mm for each in shafts.values()) <= limit_mm:
            break
        end = max(worth, key=lambda each: shafts[each].swing.tir_mm - shafts[each].best_mm)
        turn = shafts[end].turn
        share = min(1.0, turn.turn_deg / BLOW_DEG)
        crank.blow(end, share if turn.direction == "counter-clockwise" else -share)
    return crank.truth.worst_mm


def strike_where_high(crank: TwinCrank, limit_mm: float) -> float:
    """Strike the end that reads more at its high spot with full force; return the runout."""
    for _ in range(MOST_MOVES):
        shafts = {end: measured(crank, end) for end in ENDS}
        end = max(ENDS, key=lambda each: shafts[each].swing.tir_mm)
        if shafts[end].swing.tir_mm <= limit_mm:
            break
        crank.blow(end, math.copysign(1.0, math.cos(math.radians(shafts[end].swing.high_spot_deg))))
    return crank.truth.worst_mm
