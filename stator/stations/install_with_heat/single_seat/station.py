"""A heat for one bearing: planned, timed by readings, judged when it comes out, checked hot and cold."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from shopmath import __version__ as core_version
from shopmath.quantity import Quantity
from stator.engines.fact_keys import FactKey
from stator.engines.properties import Property
from stator.stations.framework import StationDefinition, StationInput
from stator.stations.install_with_heat.heat import EACH_HEAT, HeatState
from stator.stations.install_with_heat.single_seat import actions, drawing, history, messages, questions, verdict
from stator.stations.install_with_heat.single_seat.analysis import Phase, SingleSeatAnalysis, one_seat
from stator.stations.install_with_heat.single_seat.predictions import PREDICTION


def past(given: StationInput, besides: int) -> list[history.Heat]:
    """The heats before with the same heater."""
    assert given.seat is not None
    return history.heats(HeatState(given).heater, given.seat.on, besides)


def corrected(found: SingleSeatAnalysis, slot: FactKey, quantity: Quantity) -> Mapping[str, Any]:
    heat_c = None if found.trouble else found.planned.heat_c
    return found.worth(slot, quantity, found.phase == Phase.HEATING, heat_c)


def result(found: SingleSeatAnalysis) -> dict[str, Any]:
    """Return the basis of the plan and its outcome, with units in the names: `heat-and-drop/1`."""
    plan, fit, run = found.plan, found.planned.fit, found.run
    setup, seated, window = plan.setup, found.seated, found.timer("window")
    soak_ratio = None
    if run.outer_in and run.outer_in.fitted and setup.heating and setup.heating.time_constant:
        soak_ratio = round(run.outer_in.rate().likely / setup.heating.time_constant.likely * history.slower(found.past), 3)
    return {
        "schema": "heat-and-drop/1",
        "core_version": core_version,
        "on": found.seat.on,
        "bearing": fit.bearing.designation,
        "nominal_mm": fit.nominal_mm,
        "outer_um": [fit.outer.limits.lower_um, fit.outer.limits.upper_um],
        "outer_source": fit.outer.words,
        "seat_measured_at": found.measured_at,
        "inner_um": [fit.inner.limits.lower_um, fit.inner.limits.upper_um],
        "inner_source": fit.inner.words,
        "outer_material": fit.outer_material.key,
        "inner_material": fit.inner_material.key,
        "heater_id": found.heater.pk if found.heater else None,
        "heater": found.heater.name if found.heater else "none",
        "heater_set_c": found.planned.heat_c,
        "chiller": found.chiller.name if found.chiller else "none",
        "room_c": setup.room_c,
        "target_c": plan.target_c,
        "chill_c": round(plan.chill_c, 1),
        "wanted_mm": setup.wanted_mm,
        "confidence": round(plan.confidence, 4),
        "plan_state": plan.call.state,
        "plan_reason": plan.call.reason,
        "soak_predicted_s": round(plan.soak.likely) if plan.soak else None,
        "soak_tau_ratio": soak_ratio,
        "cool_time_constant_s": round(run.outer_out.rate().likely) if run.outer_out and run.outer_out.fitted else None,
        "offered_outer_c": round(run.outer().c, 1),
        "offered_clearance_mm": round(run.here.clearance_mm, 4),
        "window_predicted_s": round(plan.sure_for_s) if plan.sure_for_s < 1e6 else None,
        "window_used_s": round(window.ran_s(found.now)) if window else None,
        "outcome": found.outcome,
        "jams": found.jams,
        "heats": found.attempt,
        "seated_state": seated.state if seated else "not_checked",
        "seated_reason": seated.reason if seated else "",
    }


ONE_SEAT = StationDefinition(
    key="heat-and-drop",
    name=messages.NAME,
    by_seat=True,
    drawn=True,
    from_log=False,
    words=messages,
    done=messages.DONE,
    rebuilds=True,
    sheet=(Property.SEATING_GAP_COLD,),
    equipment={"heater": "heaters", "chiller": "chillers", "means": "gauges"},
    gives=(Property.FIT_OUTCOME, Property.CIRCLIP, Property.BEARING_HOME, Property.SEAT_SIZE, Property.RING_SIZE),
    each_round=EACH_HEAT,
    past=past,
    facts=one_seat,
    questions=questions.questions,
    methods=questions.methods,
    verdict=verdict.verdict,
    checks=verdict.checks,
    checks_past=lambda found: found.phase == Phase.AFTER,
    warnings=verdict.warnings,
    sources=verdict.sources,
    derived=verdict.derived,
    history=verdict.history,
    prediction=PREDICTION,
    note=verdict.note,
    live=lambda found: found.is_live and not found.trouble,
    draw=drawing.draw,
    height=604.0,
    slider=drawing.slider,
    actions=actions.actions,
    gates_signing=False,
    may_sign=actions.may_sign,
    kept=actions.kept,
    move_timers=actions.move_timers,
    taken_with=SingleSeatAnalysis.taken_with,
    corrected=corrected,
    uses=SingleSeatAnalysis.uses,
    result=result,
)
