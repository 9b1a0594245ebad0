"""Remove flywheel: whether the puller fits, what its thread withstands, the torque limit, and the state of the taper."""

from __future__ import annotations

from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.stations.framework import StationDefinition
from stator.stations.remove_flywheel import actions, drawing, messages, questions, verdict
from stator.stations.remove_flywheel.analysis import FlywheelRemovalAnalysis, at, flywheel_off_facts


def result(found: FlywheelRemovalAnalysis) -> dict[str, Any]:
    """Return what a file carries of a pull: `flywheel-off/1`."""
    pull, own = found.pull, found.own
    puller, boss = found.match("puller"), found.match("boss")
    needed = pull.wanted if pull else None
    happened = [each for each in own.taken if each.slot.what in (Property.PULLING_TORQUE, Property.MOVED)]
    return {
        "schema": "flywheel-off/1",
        "core_version": core_version,
        "puller_thread": puller.designation if puller else None,
        "boss_thread": boss.designation if boss else None,
        "turns": pull.turns if pull else None,
        "strength_n": [round(pull.strength.low), round(pull.strength.high)] if pull else None,
        "wanted_n": [round(value) for value in (needed.low, needed.likely, needed.high)] if needed else None,
        "stop_torque_nm": round(pull.stop_nm, 1) if pull else None,
        "peak_torque_nm": max(found.torques_nm, default=None),
        "attempts": len(found.torques_nm),
        "expected_nm": [round(end, 1) for end in (pull.frees_nm.low, pull.frees_nm.high)] if pull and pull.frees_nm else None,
        "released_hard": found.released_hard,
        "taper": own.said(at(Property.TAPER_CONDITION)),
        "key": own.said(at(Property.KEY_CONDITION)),
        "key_step_mm": own.value(at(Property.KEY_STEP)),
        "magnets": own.said(at(Property.MAGNETS)),
        "coils": own.said(at(Property.COILS)),
        "log": [
            {
                **({"moved": each.text} if each.value is None else {"torque_nm": each.value}),
                "at": each.at.isoformat(timespec="seconds") if each.at else None,
            }
            for each in happened
        ],
    }


STATION = StationDefinition(
    key="flywheel-off",
    name=messages.NAME,
    words=messages,
    done=messages.DONE,
    as_found=True,
    equipment={"puller": "pullers"},
    gives=(Property.FLYWHEEL_OFF, Property.KEY_CONDITION, Property.KEY_STEP, Property.TAPER_CONDITION),
    sheet=(Property.KEY_STEP,),
    facts=flywheel_off_facts,
    questions=questions.questions,
    asks_first=questions.asks_first,
    methods=questions.methods,
    verdict=verdict.verdict,
    checks=verdict.checks,
    warnings=verdict.warnings,
    sources=verdict.sources,
    derived=verdict.derived,
    note=verdict.note,
    draw=drawing.draw,
    actions=actions.actions,
    kept=actions.kept,
    waits=frozenset({Property.PULLING_TORQUE, Property.MOVED}),
    result=result,
)
