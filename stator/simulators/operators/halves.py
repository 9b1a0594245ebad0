"""Hands that part a case: levelling it as Split says, or turning the screws and looking at nothing."""

from __future__ import annotations

from shopmath.gap_plane import GapPlane, Point, fit
from shopmath.splitting import DowelFit, Move, lead_allowed_mm, next_move, split_call
from stator.simulators.case_halves import DOWEL_MM, ENGAGED_MM, FEELER_MM, PLACES, PUSH_MM, Halves

SPAN_MM = 220.0  # across the joint


def call_on(halves: Halves) -> tuple[Move, GapPlane]:
    """Return what Split would say of the gaps as they are, and the plane that it sees."""
    plane = fit([Point(name, x, y, halves.gap_mm(name)) for name, (x, y) in PLACES.items()])
    allowed = lead_allowed_mm([DowelFit(DOWEL_MM, ENGAGED_MM)], max(0.0, plane.mean_mm), SPAN_MM)
    return next_move(plane, allowed, split_call(plane, allowed, FEELER_MM).state, PUSH_MM), plane


def part_by_the_calls(halves: Halves, most: int = 120) -> bool:
    """Push, measure, tap or ease as Split says, until the dowels are out; whether it came apart without ever binding twice."""
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
    """Turn the screws and look at nothing."""
    for _ in range(most):
        if halves.mean_mm >= ENGAGED_MM:
            return halves.is_free
        halves.push(0.25)
    return False
