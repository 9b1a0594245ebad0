"""A heat for a case half: every bearing, pin and bushing in its order, timed from the opening of the oven, one part at a time."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from shopmath import __version__ as core_version
from shopmath.quantity import Quantity
from stator.engines.fact_keys import FactKey
from stator.engines.properties import Property
from stator.stations.framework import StationDefinition
from stator.stations.install_with_heat import shared_messages
from stator.stations.install_with_heat.case_half import actions, drawing, messages, questions, verdict
from stator.stations.install_with_heat.case_half.analysis import CaseHalfAnalysis, Phase, whole_half
from stator.stations.install_with_heat.heat import EACH_HEAT, LONGEST_S
from stator.stations.install_with_heat.shaft_assembly.analysis import Assembly


def corrected(found: CaseHalfAnalysis, slot: FactKey, quantity: Quantity) -> Mapping[str, Any]:
    """Return the true temperature of a reading, and when a part was installed relative to the opening and its window."""
    if slot.what in (Property.FIT_OUTCOME, Property.CIRCLIP) and found.timer("door") and not found.trouble:
        part = next((each for each in found.plan.parts if each.slot == slot), None)
        gone = (found.now - found.door_at).total_seconds()
        left = found.live_heat.left_s(part) if part else 0.0
        return {"after_door_s": round(gone, 1), "left_s": round(min(left, LONGEST_S), 1)}
    heat_c = None if found.trouble else found.plan.heat_c
    return found.worth(slot, quantity, found.phase == Phase.WARMING, heat_c)


def of_assembly(found: Assembly) -> dict[str, Any]:
    return {
        "part": found.fitted.name,
        "order": found.fitted.pieces,
        "order_as_drawn": found.said(Property.PIECES_ORDER),
        "angle_deg": found.angle_deg,
        "angle_state": found.angle.state if found.angle else "not_measured",
        "depth_state": found.depth.state if found.depth else "not_measured",
        "side_play": found.said(Property.SPINDLE_PLAY),
    }


def result(found: CaseHalfAnalysis) -> dict[str, Any]:
    """Return what a file carries of it: `one-heat/1`."""
    order = []
    for part in found.everything:
        for said in found.fates(part):
            values = {name: said.corrected.get(name) for name in ("after_door_s", "left_s")}
            order.append({"part": part.name, "heat": said.attempt, "outcome": said.text, **values})
    return {
        "schema": "one-heat/1",
        "core_version": core_version,
        "half": found.half,
        "heats": found.attempt,
        "heater": found.heater.name if found.heater else "none",
        "target_c": None if found.trouble else round(found.plan.target_c, 1),
        "parts": order,
        "assemblies": [of_assembly(each) for each in found.assemblies],
    }


WHOLE = StationDefinition(
    key="heat-and-drop",
    name=messages.NAME,
    drawn=True,
    from_log=False,
    words=messages,
    equipment={"heater": "heaters", "means": "gauges", "part-": "chillers"},
    passing=frozenset({"turns"}),
    gives=(Property.FIT_OUTCOME, Property.CIRCLIP, Property.WAY_SETTLED, Property.DIRECTION, Property.END_DEPTH),
    each_round=EACH_HEAT,
    facts=whole_half,
    questions=questions.questions,
    tabs=questions.tabs,
    methods=questions.methods,
    verdict=verdict.verdict,
    overall=verdict.overall,
    checks=verdict.checks,
    warnings=verdict.warnings,
    sources=verdict.sources,
    note=lambda found, reading: shared_messages.note(reading),
    live=lambda found: not found.trouble and found.is_live,
    draw=drawing.draw,
    height=604.0,
    actions=actions.actions,
    gates_signing=False,
    may_sign=actions.may_sign,
    kept=actions.kept,
    move_timers=actions.move_timers,
    waits=frozenset({Property.HOT_TEMPERATURE, Property.WATER_DROP}),
    taken_with=CaseHalfAnalysis.taken_with,
    corrected=corrected,
    uses=CaseHalfAnalysis.uses,
    result=result,
)
