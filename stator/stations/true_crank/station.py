"""True crank: a crank between its supports.

Two runouts, what they show about the halves or each outer web, and the next move.
"""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from shopmath import __version__ as core_version
from shopmath.multi_throw import OuterShaft
from stator.engines.models import EngineCard
from stator.engines.properties import Property
from stator.jobs.models import Job
from stator.stations.framework import StationDefinition
from stator.stations.true_crank import actions, drawing, drawing_outer, messages, outer_verdict, questions, verdict
from stator.stations.true_crank.analysis import RunoutRoundAnalysis
from stator.stations.true_crank.outer_analysis import OuterWebAnalysis, outer_facts
from stator.stations.true_crank.predicted import PREDICTION
from stator.stations.true_crank.single_analysis import SingleThrowAnalysis, single_facts
from stator.stations.work_notes.station import by_hand


def _turned(found: RunoutRoundAnalysis) -> dict[str, Any]:
    """Return the measurements that are stored with the verdict."""
    return {
        "core_version": core_version,
        "held": found.held,
        "rounds": found.attempt,
        "raw_swing_mm": round(found.raw_mm, 4) if found.raw_mm is not None else None,
        "reading_u_mm": round(found.reading_u_mm, 5),
        "limit_mm": found.limit_mm,
        "moves": found.moves,
        "joint": found.joint or None,
    }


def result(found: SingleThrowAnalysis) -> dict[str, Any]:
    """Return what a file carries of a single crank: `true/1`."""
    mis = found.mis
    return {
        "schema": "true/1",
        **_turned(found),
        "twist_deg": round(mis.twist_deg, 4) if mis else None,
        "pinch_deg": round(mis.pinch_deg, 4) if mis else None,
        "offset_mm": round(mis.offset_mm, 4) if mis else None,
        "skew_deg": round(mis.skew_deg, 4) if mis else None,
        "best_reachable_mm": round(found.best_mm, 4) if found.best_mm is not None else None,
    }


def outer_result(found: OuterWebAnalysis) -> dict[str, Any]:
    """Return what a file carries of a crank of several throws: `true-outer/1`."""
    shafts = [_written(side, shaft) for side, shaft in found.shafts]
    return {"schema": "true-outer/1", **_turned(found), "phase_deg": found.phase_deg, "shafts": shafts}


def _written(side: str, shaft: OuterShaft) -> dict[str, Any]:
    return {
        "side": side,
        "tir_mm": round(shaft.swing.tir_mm, 4),
        "high_deg": round(shaft.swing.high_spot_deg, 1),
        "turn_deg": round(shaft.turn.turn_deg, 4),
        "best_mm": round(shaft.best_mm, 4),
    }


def variant(station: StationDefinition, job: Job) -> StationDefinition:
    """Return the definition for one throw, for several, or work notes for a one-piece crank, which cannot be trued."""
    if job.card.crank == EngineCard.Crank.ONE_PIECE:
        return by_hand(station.key, station.name)
    return station if job.card.layout == EngineCard.Layout.SINGLE else OF_SEVERAL


STATION = StationDefinition(
    key="true",
    name=messages.NAME,
    variant=variant,
    words=messages,
    done=messages.DONE,
    rebuilds=True,
    sheet=(Property.CRANK_RUNOUT,),
    prediction=PREDICTION,
    drawn=True,
    gives=(Property.CRANK_RUNOUT,),
    each_round=frozenset({Property.SHAFT_READING, Property.SHAFT_TIR, Property.HIGH_SPOT}),
    facts=single_facts,
    questions=questions.of_single,
    methods=questions.methods,
    verdict=verdict.single,
    checks=verdict.checks,
    warnings=verdict.warnings,
    sources=verdict.single_sources,
    results=verdict.results,
    derived=verdict.derived,
    draw=drawing.draw,
    actions=actions.of_single,
    gates_signing=False,
    may_sign=actions.may_sign,
    result=result,
)
OF_SEVERAL = replace(
    STATION,
    facts=outer_facts,
    questions=questions.of_several,
    verdict=outer_verdict.several,
    sources=outer_verdict.sources,
    draw=drawing_outer.draw,
    actions=actions.of_several,
    result=outer_result,
)
