"""Center crank: equal gaps or one side, rotation, measured against predicted end play, and leakage."""

from __future__ import annotations

from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.stations.center_crank import actions, drawing, messages, questions, verdict
from stator.stations.center_crank.analysis import SPIN, CenteringAnalysis, centre_facts
from stator.stations.framework import StationDefinition
from stator.stations.framework.prerequisites import CLOSED


def result(found: CenteringAnalysis) -> dict[str, Any]:
    """Return what a file carries of it: `centre/2`."""
    return {
        "schema": "centre/2",
        "core_version": core_version,
        "school": "hard" if found.stands_hard else "centre",
        "gaps_mm": list(found.gaps) if found.gaps else None,
        "spin": found.own.said(SPIN),
        "float_mm": found.by_dial.value if found.by_dial else None,
        "float_predicted_mm": found.predicted.value if found.predicted else None,
        "proof": found.proof,
        "leaks": {test: {"state": leaked.state, "kpa_a_minute": round(leaked.values["rate"], 3)} for test, leaked in found.leaks},
    }


STATION = StationDefinition(
    key="centre",
    name=messages.NAME,
    words=messages,
    done=messages.DONE,
    rebuilds=True,
    sheet=(Property.END_FLOAT, Property.LEAK),
    drawn=True,
    needs=(CLOSED,),
    gives=(Property.END_FLOAT, Property.SIDE_GAP),
    each_round=frozenset({Property.SIDE_GAP}),
    facts=centre_facts,
    questions=questions.questions,
    methods=questions.methods,
    verdict=verdict.verdict,
    checks=verdict.checks,
    warnings=verdict.warnings,
    sources=verdict.sources,
    results=verdict.results,
    draw=drawing.draw,
    actions=actions.actions,
    may_sign=actions.may_sign,
    result=result,
)
