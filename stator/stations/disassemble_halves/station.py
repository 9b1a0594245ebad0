"""Disassemble halves: the crank is pushed out straight, then all parts go on the tray in order, with a check for wear."""

from __future__ import annotations

from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.stations.disassemble_halves import actions, drawing, messages, questions, verdict
from stator.stations.disassemble_halves.analysis import DisassemblyAnalysis, strip_facts
from stator.stations.framework import StationDefinition
from stator.stations.framework.prerequisites import HALVES_APART
from stator.stations.framework.question_factory import checks, warnings


def result(found: DisassemblyAnalysis) -> dict[str, Any]:
    """Return what a file carries of a strip: `strip/1`."""
    tray = [
        {
            "number": place.number,
            "name": place.name,
            "count": place.count,
            "from": place.where_from,
            "way_round": place.way_round,
            "wear": place.wear,
        }
        for place in found.places
    ]
    came = found.came == "even" if found.came else None
    return {"schema": "strip/1", "core_version": core_version, "crank": found.crank or None, "came_evenly": came, "tray": tray}


STATION = StationDefinition(
    key="strip",
    sees_tray=True,
    name=messages.NAME,
    words=messages,
    done=messages.DONE,
    as_found=True,
    needs=(HALVES_APART,),
    gives=(Property.CRANK_OUT, Property.TRAY_PART),
    facts=strip_facts,
    questions=questions.questions,
    verdict=verdict.verdict,
    checks=lambda _found: checks(messages),
    warnings=lambda _found: warnings(messages),
    sources=verdict.sources,
    draw=drawing.draw,
    actions=actions.actions,
    kept=actions.kept,
    result=result,
)
