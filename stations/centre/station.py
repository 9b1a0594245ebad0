"""Centre: equal gaps or hard on one side, the spin, end float by dial against what was predicted, and whether the case holds."""

from __future__ import annotations

from typing import Any

from engines.properties import Property
from shopmath import __version__ as core_version
from stations.base import Room, Station
from stations.base.needs import CLOSED
from stations.centre import actions, drawing, questions, verdict, words
from stations.centre.facts import SPIN, CentreFacts, centre_facts


def result(found: CentreFacts) -> dict[str, Any]:
    """What a file carries of it: `centre/2`."""
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


STATION = Station(
    key="centre",
    name=words.NAME,
    binds=Room,
    words=words,
    done=words.DONE,
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
