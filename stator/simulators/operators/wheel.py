"""Operators that balance a flywheel: with stops, trial mass, planned holes and a proof, or with a hole at each stop."""

from __future__ import annotations

from shopmath.balance import (
    MARKS,
    DrillLimits,
    Unbalance,
    by_trial_mass,
    by_turning_masses,
    drill_plan,
    looks_for,
    stops,
)
from shopmath.validation import BadInput
from stator.simulators.flywheel_balance import ARM_MM, STEEL, THICK_MM, WALL_MM, Wheel

FEWEST, ENOUGH, MOST_GOES = 4, 8, 5
STEP_G, MOST_G = 0.05, 6.0


def least_that(part: Wheel, mark_deg: float, answers: tuple[str, ...]) -> float:
    """Return the lowest mass at a level mark with which it answers so, g."""
    for number in range(round(MOST_G / STEP_G)):
        if part.let_go(mark_deg, number * STEP_G) in answers:
            return number * STEP_G
    return MOST_G


def proved(part: Wheel) -> Unbalance | None:
    """Return the result of four masses; None if it turns by itself at too many marks."""
    try:
        return by_turning_masses([least_that(part, mark, ("turns",)) for mark in MARKS], ARM_MM, step_g=STEP_G).unbalance
    except BadInput:
        return None


def heavy_there(part: Wheel) -> Unbalance | None:
    """Return the heavy spot from stops and the unbalance from a trial mass.

    It is None if the stops are not significant.
    """
    marks: list[float] = []
    while len(marks) < ENOUGH:
        marks.append(part.rolled_deg())
        if len(marks) >= FEWEST and (found := stops(marks, looks_for(10))).telling:
            light = (found.mean_deg + 180) % 360
            stays, turns = (least_that(part, light, answers) for answers in (("stays", "turns"), ("turns",)))
            return by_trial_mass(stays, max(stays, turns), ARM_MM, found.mean_deg, scale_g=STEP_G)
    return None


def by_the_calls(part: Wheel, permitted_gmm: float) -> float:
    """Balance until the proof is within the permitted unbalance; return the residual, g·mm.

    A flywheel that must not be balanced is left alone.
    """
    if part.truth.sound != "sound" or not part.truth.shook:
        return part.gmm
    for _ in range(MOST_GOES):
        found = heavy_there(part)
        if found is None or found.gmm + found.uncertainty_gmm <= permitted_gmm:
            found = proved(part)
            if found is None or found.gmm + found.uncertainty_gmm <= permitted_gmm:
                break
        limits = DrillLimits(ARM_MM, THICK_MM, WALL_MM, keep_out_deg=part.truth.keep_out)
        for hole in drill_plan(found, limits, STEEL, (4, 6, 8), within_gmm=permitted_gmm).holes:
            part.drill(hole.angle_deg, hole.diameter_mm, hole.depth_mm)
    return part.gmm


def where_it_rests(part: Wheel, permitted_gmm: float) -> float:
    """Six times: let it roll, drill where it comes to rest; the unbalance left, g·mm."""
    for _ in range(6):
        part.drill(part.rolled_deg(), 8.0, 6.0)
    return part.gmm
