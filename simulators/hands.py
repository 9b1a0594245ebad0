"""Hands that work at simulated parts by themselves: ones that do what Stator's calls say, and ones that go by the needle alone."""

from __future__ import annotations

import math
from dataclasses import dataclass

from shopmath import runout
from shopmath.gapplane import Point
from shopmath.gapplane import fit as fit_plane
from shopmath.gauges import gauge_uncertainty
from shopmath.splitting import DowelFit, lead_allowed_mm, split_call
from shopmath.splitting import next_move as next_move_of_halves
from shopmath.truing import Misalignment, Swing, decompose, next_move
from simulators.crank import BLOW_DEG, NOISE_MM, SQUEEZE_DEG, STEP_MM, Crank
from simulators.halves import DOWEL_MM, ENGAGED_MM, FEELER_MM, PLACES, PUSH_MM, Halves
from simulators.wheel_on_taper import StuckWheel

TURN = tuple(range(0, 360, 45))
MOST_MOVES = 24
SPAN_MM = 220.0  # across the joint


@dataclass(frozen=True)
class Outcome:
    """How it ended: the true swing that is left, moves made, and whether it was given up as beyond truing."""

    left_mm: float
    moves: int
    gave_up: bool


def one_turn(crank: Crank, end: str) -> Swing:
    """Eight readings of a turn, as the fitted swing."""
    found = runout.fit(TURN, [crank.read(end, angle) for angle in TURN])
    return Swing(found.tir_mm, found.high_spot_deg)


def follow_the_calls(crank: Crank, limit_mm: float, most: int = MOST_MOVES) -> Outcome:
    """Measure both ends, make the one move that is called, measure again, until nothing is worth a blow."""
    unsure, history = gauge_uncertainty(STEP_MM, NOISE_MM, kind="dial") / math.sqrt(len(TURN)), list[Misalignment]()
    for _ in range(most):
        mis = decompose(one_turn(crank, "left"), one_turn(crank, "right"), crank.geometry, unsure)
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
    """Strike the web that reads higher, at the angle where it reads high, until the needle shows the limit."""
    for _ in range(most):
        left, right = one_turn(crank, "left"), one_turn(crank, "right")
        if max(left.tir_mm, right.tir_mm) <= limit_mm:
            break
        web, high = (1, right) if right.tir_mm >= left.tir_mm else (-1, left)
        aim = math.sin(math.radians(high.high_spot_deg))
        crank.strike(web * aim)
    return Outcome(crank.truth.worst_mm, crank.moves, gave_up=False)


def part_by_the_calls(halves: Halves, most: int = 120) -> bool:
    """Push, measure, tap or ease as Split says, until the dowels are out; whether it came apart without ever binding twice."""
    dowels = [DowelFit(DOWEL_MM, ENGAGED_MM)]
    for _ in range(most):
        if halves.mean_mm >= ENGAGED_MM:
            return halves.is_free
        halves.push(0.25)
        for _ in range(8):
            points = [Point(name, x, y, halves.gap_mm(name)) for name, (x, y) in PLACES.items()]
            plane = fit_plane(points)
            allowed = lead_allowed_mm(dowels, max(0.0, plane.mean_mm), SPAN_MM)
            state = split_call(plane, allowed, FEELER_MM).state
            move = next_move_of_halves(plane, allowed, state, PUSH_MM)
            if move.kind == "tap":
                halves.tap(move.place)
            elif move.kind == "back":
                halves.pull("ease")
                halves.tap(plane.lagging_name)
            else:
                break
        if min(halves.gap_mm(name) for name in PLACES) < 0.1 * halves.mean_mm and halves.mean_mm > 1.0:
            return False  # one place does not open: a bolt is still in, and nothing is forced
    return False


def push_on(halves: Halves, most: int = 120) -> bool:
    """Turn the screws and look at nothing."""
    for _ in range(most):
        if halves.mean_mm >= ENGAGED_MM:
            return halves.is_free
        halves.push(0.25)
    return False


def free_by_the_torque(wheel: StuckWheel, stop_nm: float) -> bool:
    """Five more, wait, knock, and never past the torque at which the thread may go; whether the wheel came off whole."""
    while not wheel.is_free and not wheel.is_stripped:
        if wheel.torque_nm + wheel.MORE_NM <= stop_nm:
            wheel.pull("more")
            continue
        before = wheel.holds
        for lever in ("wait", "knock") * 10:
            wheel.pull(lever)
            if wheel.is_free:
                return True
        if wheel.holds > 0.5 * before:
            return False
    return wheel.is_free
