"""Install crank: dropped into a hot bearing or pulled in by the inner ring, with turns counted, torque judged and both sides measured."""

from __future__ import annotations

from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.stations.framework import StationDefinition
from stator.stations.framework.prerequisites import MAIN_BEARINGS_SEATED
from stator.stations.install_crank import actions, drawing, messages, questions, verdict
from stator.stations.install_crank.analysis import CrankInstallationAnalysis, crank_in_facts


def result(found: CrankInstallationAnalysis) -> dict[str, Any]:
    """Return the stored result, `crank-in/1`; if both ends were pulled, each of them."""
    more: dict[str, Any] = {"ends": [{"end": each.end, **_pulled(each)} for each in found.both]} if found.both else {}
    if found.has_two:
        more["cranks_gaps_mm"] = [found.own.value(fact_key) for fact_key in found.gap_slots]
    gaps = [fact.value for fact in found.gaps] if found.gaps else [None, None]
    return {"schema": "crank-in/1", "core_version": core_version, "school": found.way, **_pulled(found), "gaps_mm": gaps, **more}


def _pulled(found: CrankInstallationAnalysis) -> dict[str, Any]:
    return {
        "turns": found.done_turns,
        "turns_wanted": round(found.wanted_turns, 2) if found.wanted_turns else None,
        "peak_torque_nm": max(found.every(Property.SCREW_TORQUE), default=None),
        "stop_torque_nm": round(found.torque.stop_nm, 1) if found.torque else None,
    }


STATION = StationDefinition(
    key="crank-in",
    name=messages.NAME,
    words=messages,
    done=messages.DONE,
    rebuilds=True,
    drawn=True,
    equipment={"tool": "pull_ins"},
    needs=(MAIN_BEARINGS_SEATED,),
    gives=(Property.CRANK_HOME,),
    facts=crank_in_facts,
    questions=questions.questions,
    methods=questions.methods,
    verdict=verdict.verdict,
    checks=verdict.checks,
    warnings=verdict.warnings,
    sources=verdict.sources,
    derived=verdict.derived,
    draw=drawing.draw,
    actions=actions.actions,
    may_sign=actions.may_sign,
    result=result,
)
