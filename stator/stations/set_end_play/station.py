"""Set end play: the stack from case to case with its uncertainty, the shims, and their measured thickness."""

from __future__ import annotations

from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.stations.framework import StationDefinition
from stator.stations.framework.prerequisites import MAIN_BEARINGS_SEATED
from stator.stations.set_end_play import actions, drawing, messages, questions, verdict
from stator.stations.set_end_play.analysis import EndPlayAnalysis, end_float_facts


def result(found: EndPlayAnalysis) -> dict[str, Any]:
    """Return what a file carries of it: `end-float/1`."""
    return {
        "schema": "end-float/1",
        "core_version": core_version,
        "how": found.how,
        "free_mm": round(found.free.value_mm, 4) if found.free else None,
        "shims_mm": [round(fact.value or 0.0, 4) for fact in found.measured],
        "side": found.side,
        "float_mm": round(found.predicted[0], 4) if found.predicted else None,
        "float_u_mm": round(found.predicted[1], 4) if found.predicted else None,
        "limits_mm": list(found.limits) if found.limits else None,
    }


STATION = StationDefinition(
    key="end-float",
    name=messages.NAME,
    words=messages,
    done=messages.DONE,
    rebuilds=True,
    sheet=(Property.END_FLOAT_PREDICTED, "by table"),
    drawn=True,
    needs=(MAIN_BEARINGS_SEATED,),
    gives=(Property.END_FLOAT_PREDICTED, Property.GASKET_THICKNESS, Property.SHIM_SIDE),
    facts=end_float_facts,
    questions=questions.questions,
    methods=questions.methods,
    verdict=verdict.verdict,
    checks=verdict.checks,
    warnings=verdict.warnings,
    sources=verdict.sources,
    results=verdict.results,
    derived=verdict.derived,
    draw=drawing.draw,
    actions=actions.actions,
    may_sign=actions.may_sign,
    result=result,
)
