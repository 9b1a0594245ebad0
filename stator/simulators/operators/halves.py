"""Operators that split a case: level as Split crankcase recommends, or by turning the screws only."""

from __future__ import annotations

from shopmath.gap_plane import GapPlane, Point, fit
from shopmath.splitting import DowelFit, Move, lead_allowed_mm, next_move, split_call
from stator.simulators.case_halves import DOWEL_MM, ENGAGED_MM, FEELER_MM, PLACES, PUSH_MM, Halves

SPAN_MM = 220.0  # across the joint


def call_on(halves: Halves) -> tuple[Move, GapPlane]:
    """Return the move of Split crankcase for the present gaps, and the plane that it computes."""
    plane = fit([Point(name, x, y, halves.gap_mm(name)) for name, (x, y) in PLACES.items()])
    allowed = lead_allowed_mm([DowelFit(DOWEL_MM, ENGAGED_MM)], max(0.0, plane.mean_mm), SPAN_MM)
    return next_move(plane, allowed, split_call(plane, allowed, FEELER_MM).state, PUSH_MM), plane


def part_by_the_calls(halves: Halves, most: int = 120) -> bool:
    """Push, measure, tap or ease as Split crankcase recommends; return whether it came apart without binding twice."""
    for _ in range(most):
        if halves.mean_mm >= ENGAGED_MM:
            return halves.is_free
        halves.push(0.25)
        for _ in range(8):
            move, plane = call_on(halves)
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
    """Turn the screws without measuring."""
    for _ in range(most):
        if halves.mean_mm >= ENGAGED_MM:
            return halves.is_free
        halves.push(0.25)
    return False
