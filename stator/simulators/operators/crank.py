"""Operators that true a pressed crank: by Stator's verdicts, or by the needle only."""

from __future__ import annotations

import math
from dataclasses import dataclass

from shopmath import runout
from shopmath.gauges import gauge_uncertainty
from shopmath.truing import Misalignment, RunoutVector, decompose, next_move
from stator.simulators.crank import BLOW_DEG, NOISE_MM, SQUEEZE_DEG, STEP_MM, Crank

TURN = tuple(range(0, 360, 45))
MOST_MOVES = 24


@dataclass(frozen=True)
class Outcome:
    """The result: the true remaining runout, the number of moves, and whether it was given up as not truable."""

    left_mm: float
    moves: int
    gave_up: bool


def one_turn(crank: Crank, end: str) -> RunoutVector:
    """Return eight readings of a turn as the fitted runout."""
    found = runout.fit(TURN, [crank.read(end, angle) for angle in TURN])
    return RunoutVector(found.tir_mm, found.high_spot_deg)


def follow_the_calls(crank: Crank, limit_mm: float, most: int = MOST_MOVES) -> Outcome:
    """Measure both ends, make the one move that is called, measure again, until nothing is worth a blow."""
    uncertainty, history = gauge_uncertainty(STEP_MM, NOISE_MM, kind="dial") / math.sqrt(len(TURN)), list[Misalignment]()
    for _ in range(most):
        mis = decompose(one_turn(crank, "left"), one_turn(crank, "right"), crank.geometry, uncertainty)
        move = next_move(mis, crank.geometry, history, limit_mm=limit_mm)
        if move.kind in ("leave", "replace", "remeasure"):
            return Outcome(crank.truth.worst_mm, crank.moves, move.kind == "replace")
        history.append(mis)
        if move.kind == "strike":
            crank.strike(math.copysign(move.share * min(1.0, abs(mis.twist_deg) / BLOW_DEG), -mis.twist_deg))
        else:
            crank.squeeze(math.copysign(move.share * min(1.0, abs(mis.pinch_deg) / SQUEEZE_DEG), -mis.pinch_deg))
    return Outcome(crank.truth.worst_mm, crank.moves, gave_up=False)


def strike_where_high(crank: Crank, limit_mm: float, most: int = MOST_MOVES) -> Outcome:
    """Strike the web with the higher reading at its high spot until the needle shows the limit."""
    for _ in range(most):
        left, right = one_turn(crank, "left"), one_turn(crank, "right")
        if max(left.tir_mm, right.tir_mm) <= limit_mm:
            break
        web, high = (1, right) if right.tir_mm >= left.tir_mm else (-1, left)
        aim = math.sin(math.radians(high.high_spot_deg))
        crank.strike(web * aim)
    return Outcome(crank.truth.worst_mm, crank.moves, gave_up=False)
