"""Close crankcase: nothing left on the tray, the sealant's open time against the remaining steps, and every bolt in its order and round."""

from __future__ import annotations

import math
from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.stations.close_crankcase import actions, drawing, messages, questions, verdict
from stator.stations.close_crankcase.analysis import EACH_CLOSING, ClosingAnalysis, close_facts
from stator.stations.framework import StationDefinition
from stator.stations.framework.prerequisites import CRANK_SEATED, EVERY_BEARING_SEATED


def result(found: ClosingAnalysis) -> dict[str, Any]:
    """Return the stored result, `close/1`, with each cover that was installed later."""
    first, *covers = found.every
    more = {"covers": [{"joint": each.joints[0].uid, **_closed(each)} for each in covers]} if covers else {}
    return {"schema": "close/1", "core_version": core_version, **_closed(first), "gears": first.said(Property.GEARS), **more}


def _closed(found: ClosingAnalysis) -> dict[str, Any]:
    margin = found.worst_load.margin if found.worst_load else math.nan
    return {
        "order": [mark.name for mark in found.ordered],
        "rounds": [round(share, 2) for share in found.rounds],
        "torque_nm": {mark.name: round(found.reached(mark), 1) for mark in found.ordered},
        "more_because": found.said(Property.REASON) if found.more_than_manual else "",
        "joint": found.between,
        "sealant": found.sealant.name if found.sealant else None,
        "faces": found.faces if found.sealant else None,
        "films": {film.place: film.product.name for film in found.films},
        "margin_n": round(margin) if math.isfinite(margin) else None,
    }


STATION = StationDefinition(
    key="close",
    sees_tray=True,
    name=messages.NAME,
    words=messages,
    done=messages.DONE,
    rebuilds=True,
    drawn=True,
    each_round=EACH_CLOSING,
    equipment={"sealant": "compounds", "sealant-": "compounds"},
    needs=(EVERY_BEARING_SEATED, CRANK_SEATED),
    gives=(Property.CASE_CLOSED, Property.BOLT_TORQUE),
    facts=close_facts,
    questions=questions.questions,
    methods=questions.methods,
    verdict=verdict.verdict,
    overall=verdict.overall,
    checks=verdict.checks,
    warnings=verdict.warnings,
    sources=verdict.sources,
    derived=verdict.derived,
    live=lambda found: found.open_time is not None,
    draw=drawing.draw,
    actions=actions.actions,
    kept=actions.kept,
    may_sign=actions.may_sign,
    result=result,
)
