"""Balance flywheel: whether to balance, where it stops and whether that is significant, the unbalance, the drill plan and the residual."""

from __future__ import annotations

from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.stations.balance_flywheel import actions, drawing, messages, questions, verdict
from stator.stations.balance_flywheel.analysis import BalanceAnalysis, balance_facts
from stator.stations.framework import StationDefinition


def result(found: BalanceAnalysis) -> dict[str, Any]:
    """Return what a file carries of it: `balance/1`."""
    return {
        "schema": "balance/1",
        "core_version": core_version,
        "shook": found.said(Property.SHOOK),
        "sound": found.said(Property.WHEEL_SOUND),
        "grade": found.grade,
        "permitted_gmm": found.permitted_gmm,
        "goes": found.attempt,
        "stops_deg": found.marks,
        "rest_gmm": found.amount.gmm if found.amount else None,
        "rest_u_gmm": found.amount.uncertainty_gmm if found.amount else None,
        "holes": found.drilled + found.made,
        "friction_gmm": round(found.proof.friction_gmm, 2) if found.proof else None,
        "is_proved": found.is_proved,
        "removed_g": round(found.removed_g, 3),
    }


PROVING = (Property.TURNING_MASS, Property.ADDED_RADIUS, Property.ADDED_MASS)
STATION = StationDefinition(
    key="balance",
    name=messages.NAME,
    words=messages,
    done=messages.DONE,
    rebuilds=True,
    sheet=(Property.UNBALANCE,),
    drawn=True,
    gives=(Property.UNBALANCE,),
    each_round=frozenset({Property.STOP_ANGLE, Property.TRIAL_STAYS, Property.TRIAL_TURNS, Property.HOLE_DEPTH, *PROVING}),
    facts=balance_facts,
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
