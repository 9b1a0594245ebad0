"""Inspect parts: the state of the parts before decisions.

Part by part, each value with its limit, or recorded without one.
"""

from __future__ import annotations

from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.stations.framework import StationDefinition
from stator.stations.inspect_parts import actions, drawing, messages, questions, verdict
from stator.stations.inspect_parts.analysis import InspectionAnalysis, inspect_facts


def result(found: InspectionAnalysis) -> dict[str, Any]:
    """Return what a file carries of it: `inspect/2`."""
    saved = {each.seat.name: each.keeping for each in found.seats}
    return {
        "schema": "inspect/2",
        "core_version": core_version,
        "figures": [
            {
                "figure": each.code,
                "part": each.slots[0].part.name,
                "value_mm": round(each.value, 4),
                "uncertainty_mm": round(each.uncertainty, 4),
                "low_mm": each.bounds.low,
                "high_mm": each.bounds.high,
                "limit_from": each.bounds.source.code,
                "call": each.state or None,
            }
            for each in found.all_figures
        ],
        "bearings": {name: {"verdict": each.verdict, "reasons": list(each.codes)} for name, each in saved.items() if each},
        "mends": {each.seat.name: mend for each in found.seats if (mend := each.said(Property.SEAT_MEND))},
        "damage": found.said(Property.DAMAGE_WHERE) or found.said(Property.DAMAGE),
        "balance_factor": round(found.factor.new, 4) if found.factor else None,
    }


STATION = StationDefinition(
    key="inspect",
    name=messages.NAME,
    words=messages,
    done=messages.DONE,
    sheet=("size", "mean width", Property.BIG_END_SIDE_PLAY, Property.BIG_END_RADIAL_PLAY),
    drawn=True,
    as_found=True,
    gives=(Property.SEAT_SIZE, Property.SEAT_VERDICT, Property.SEAT_MEND, Property.BEARING_DECISION, Property.BIG_END_SIDE_PLAY),
    facts=inspect_facts,
    questions=questions.questions,
    tabs=questions.tabs,
    verdict=verdict.verdict,
    overall=verdict.overall,
    checks=verdict.checks,
    warnings=verdict.warnings,
    sources=verdict.sources,
    results=verdict.results,
    derived=verdict.derived,
    contradictions=verdict.contradictions,
    note=verdict.note,
    draw=drawing.draw,
    actions=actions.actions,
    result=result,
)
