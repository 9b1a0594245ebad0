"""Install seals: each seal by its sizes, the direction of its lip, depth, squareness and distance from the bearing."""

from __future__ import annotations

from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.jobs.models import Job
from stator.stations.framework import StationDefinition
from stator.stations.framework.prerequisites import HOME_BEHIND_SEALS
from stator.stations.install_seals import actions, drawing, messages, questions, verdict
from stator.stations.install_seals.analysis import SealAnalysis, SealFound, seals_facts
from stator.stations.work_notes.station import by_hand


def result(found: SealAnalysis) -> dict[str, Any]:
    """Return what a file carries of it: `seals/1`."""
    seals = {each.seal.name: _one(each) for each in found.seals}
    return {"schema": "seals/1", "core_version": core_version, "when": found.own.choice("when", "after"), "seals": seals}


def _one(of: SealFound) -> dict[str, Any]:
    seat = of.seating
    return {
        "lip": of.lip,
        "keeps": of.said(Property.SEAL_KEEPS),
        "cited": of.page,
        "depth_mm": round(seat.depth_mm, 3) if seat else None,
        "lean_mm": round(seat.lean_mm, 3) if seat else None,
        "gap_mm": round(seat.gap_mm, 3) if seat and seat.gap_mm is not None else None,
    }


def variant(station: StationDefinition, job: Job) -> StationDefinition:
    """Return work notes for a card without seals."""
    return station if job.card.seals.all() else by_hand(station.key, station.name)


STATION = StationDefinition(
    key="seals",
    name=messages.NAME,
    variant=variant,
    words=messages,
    done=messages.DONE,
    rebuilds=True,
    sheet=("mean depth",),
    drawn=True,
    needs=(HOME_BEHIND_SEALS,),
    gives=(Property.SEAL_LIP, Property.SEAL_DEPTH),
    facts=seals_facts,
    questions=questions.questions,
    tabs=questions.tabs,
    methods=questions.methods,
    verdict=verdict.verdict,
    overall=verdict.overall,
    checks=verdict.checks,
    warnings=verdict.warnings,
    sources=verdict.sources,
    results=verdict.results,
    contradictions=verdict.contradictions,
    draw=drawing.draw,
    actions=actions.actions,
    may_sign=actions.may_sign,
    result=result,
)
