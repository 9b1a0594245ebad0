"""End float: the stack from case to case, how sure it is, the shims that put it right, and the shim measured again."""

from __future__ import annotations

from typing import Any

from engines.properties import Property
from shopmath import __version__ as core_version
from stations.base import Room, Station
from stations.base.needs import MAINS_HOME
from stations.end_float import actions, drawing, questions, verdict, words
from stations.end_float.facts import EndFloatFacts, end_float_facts


def result(found: EndFloatFacts) -> dict[str, Any]:
    """What a file carries of it: `end-float/1`."""
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


STATION = Station(
    key="end-float",
    name=words.NAME,
    binds=Room,
    words=words,
    done=words.DONE,
    rebuilds=True,
    sheet=(Property.END_FLOAT_PREDICTED, "by table"),
    drawn=True,
    needs=(MAINS_HOME,),
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
