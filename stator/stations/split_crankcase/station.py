"""Split: is every fastener out, does the splitter hold, how far is one side ahead, what hangs loose."""

from __future__ import annotations

from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.stations.framework import StationDefinition
from stator.stations.split_crankcase import actions, drawing, messages, questions, verdict
from stator.stations.split_crankcase.analysis import SplitAnalysis, split_facts


def result(found: SplitAnalysis) -> dict[str, Any]:
    """Return the stored result, `split/1`; of a case with several joints, each of them after the values of the first."""
    first = next(each for each in found.every if each.joint.is_first)
    several = {"joints": [{"joint": each.joint.uid, **_of_joint(each)} for each in found.every]} if len(found.every) > 1 else {}
    return {"schema": "split/1", "core_version": core_version, **_of_joint(first), **several}


def _of_joint(found: SplitAnalysis) -> dict[str, Any]:
    screws = found.screws
    return {
        "lifted": found.lifts or None,
        "fasteners": len(found.fasteners) or None,
        "counted": found.counted,
        "screw_turns": screws.turns if screws else None,
        "screw_strength_n": [round(screws.strength.low), round(screws.strength.high)] if screws else None,
        "rounds": [
            {
                "mean_mm": round(plane.mean_mm, 3),
                "lead_mm": round(plane.lead_mm, 3),
                "leading": plane.leading_name,
                "lagging": plane.lagging_name,
            }
            for _, plane in found.rounds
        ],
        "loose": [each.what for each in found.loose],
    }


STATION = StationDefinition(
    key="split",
    name=messages.NAME,
    words=messages,
    done=messages.DONE,
    as_found=True,
    equipment={"splitter": "splitters"},
    gives=(Property.BOLT_LENGTH, Property.GAP, Property.LOOSE_PART, Property.HALVES_APART),
    each_round=frozenset({Property.GAP}),
    facts=split_facts,
    questions=questions.questions,
    methods=questions.methods,
    tabs=questions.tabs,
    verdict=verdict.verdict,
    overall=verdict.overall,
    checks=verdict.checks,
    checks_past=lambda found: found.is_apart,
    warnings=verdict.warnings,
    sources=verdict.sources,
    contradictions=verdict.contradictions,
    derived=verdict.derived,
    draw=drawing.draw,
    actions=actions.actions,
    kept=actions.kept,
    result=result,
)
