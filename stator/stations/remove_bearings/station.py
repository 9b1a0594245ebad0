"""Remove bearings and seals, seat by seat: the seal as found, the gentlest method, driver and heat, and differences from the card."""

from __future__ import annotations

from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.stations.framework import StationDefinition
from stator.stations.remove_bearings import actions, drawing, messages, questions, verdict
from stator.stations.remove_bearings.analysis import BearingRemovalAnalysis, bearings_out_facts


def result(found: BearingRemovalAnalysis) -> dict[str, Any]:
    """Return what a file carries of it: `bearings-out/1`."""
    freed, sat = found.freeing, found.seal_seat
    return {
        "schema": "bearings-out/1",
        "core_version": core_version,
        "way": found.way.key,
        "ranked": [method.key for method in found.ways],
        "frees_at_c": [round(freed.together.low), round(freed.together.high)] if freed and freed.together else None,
        "frees_sprayed_c": [round(freed.sprayed.low), round(freed.sprayed.high)] if freed else None,
        "driver_outside_mm": [round(found.window.outside_low_mm, 1), round(found.window.outside_high_mm, 1)],
        "outcome": found.outcome,
        "hit_through_balls": found.said(Property.HIT_THROUGH_BALLS) == "yes",
        "seat": found.said(Property.SEAT_CONDITION),
        "seal_depth_mm": round(sat.depth_mm, 3) if sat else None,
        "seal_lean_mm": round(sat.lean_mm, 3) if sat else None,
        "seal_gap_mm": round(sat.gap_mm, 3) if sat and sat.gap_mm is not None else None,
    }


STATION = StationDefinition(
    key="bearings-out",
    name=messages.NAME,
    by_seat=True,
    each_round=frozenset({Property.CAME_OUT}),
    as_found=True,
    copies=frozenset({Property.RETAINED_BY, Property.REACH, Property.SHIELDS, Property.WAY_ROUND, Property.BEARING_DECISION}),
    words=messages,
    done=messages.DONE,
    gives=(Property.BEARING_DECISION, Property.SEAT_CONDITION, Property.WAY_ROUND, Property.SEAL_LIP, Property.SEAL_DEPTH),
    facts=bearings_out_facts,
    questions=questions.questions,
    verdict=verdict.verdict,
    methods=questions.methods,
    checks=verdict.checks,
    checks_past=lambda found: bool(found.outcome),
    warnings=verdict.warnings,
    sources=verdict.sources,
    derived=verdict.derived,
    contradictions=verdict.contradictions,
    note=verdict.note,
    draw=drawing.draw,
    actions=actions.actions,
    result=result,
)
