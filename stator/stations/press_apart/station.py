"""Press apart: the force to start the pin, the capacity of the press, the effect of heat; marks and phase before anything moves."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from shopmath.amounts import DOWN, celsius
from shopmath.compounds import release_temperature_c
from stator.engines.fact_keys import FactKey
from stator.engines.parts import CRANK, rod
from stator.engines.properties import Property
from stator.stations.common.press_joint import drawing, questions, verdict
from stator.stations.common.press_joint.analysis import PressJointAnalysis
from stator.stations.common.press_joint.predicted import PREDICTION
from stator.stations.framework import (
    Method,
    Question,
    SafetyWarning,
    Source,
    State,
    StationDefinition,
    Verdict,
    question_factory,
)
from stator.stations.framework.messages import format_message
from stator.stations.press_apart import messages
from stator.stations.press_apart.analysis import Code, apart_facts

ORDER, SCORED = FactKey(CRANK, Property.PARTS_ORDER), FactKey(CRANK, Property.SCORED)
OIL_SLOT = FactKey(rod(1), Property.OIL_SLOT)


def asks(found: PressJointAnalysis) -> list[Question]:
    past = found.peak_n is not None
    asked = [questions.throw_angle(messages, str(messages.WHERE[Property.THROW_ANGLE]), quiet=past)] if found.has_several_throws else []
    asked += questions.sizes(messages, found, past)
    if found.plan and not found.is_stopped:
        asked.append(questions.peak(messages, found))
    if past:
        asked.append(question_factory.question(messages, OIL_SLOT, questions.sides(found), optional=True))
        asked.append(question_factory.question(messages, ORDER, optional=True))
        asked.append(question_factory.question(messages, SCORED))
    return asked


def call(found: PressJointAnalysis, asked: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    before = verdict.before(found, asked, "sizing")
    if before:
        return before
    assert found.plan is not None
    force = found.plan.force_n
    if found.peak_n is None:
        stop = min(force.high, found.press.capacity_n if found.press else 0.0)
        how = "pump_taper" if found.plan.releases_at_once else "pump"
        return verdict.ready(found, checks(found), Code.MARK_FIRST, how, {"stop": found.estimated(stop, DOWN)})
    code, state = Code.PARTED, State.IN
    if found.peak_n < force.low:
        code, state = Code.LOOSE, State.OUT
    elif found.peak_n > force.high:
        code, state = Code.HARDER, State.TOO_CLOSE
    values = {"peak": found.in_unit(found.peak_n), "low": found.estimated(force.low), "high": found.estimated(force.high)}
    return Verdict(state, code, values, scale=verdict.scale(found))


def methods(found: PressJointAnalysis) -> tuple[Method, ...]:
    measured = "measured" if found.is_measured else "usual"
    more = [
        question_factory.method(messages, "sizes", measured),
        *(question_factory.method(messages, key, found.chosen(key)) for key in ("compound", "scrap")),
    ]
    shared = questions.methods(messages, found)
    press = shared[:1] if found.press else []
    return (*press, *more, *shared[len(press) :])


def checks(found: PressJointAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.checks(messages, "marked", "guard", *(("dry",) if found.is_warm else ()))


def warnings(found: PressJointAnalysis) -> tuple[SafetyWarning, ...]:
    shared = verdict.warnings(found)
    if not found.chosen("compound"):
        return shared
    frees = release_temperature_c(found.chosen("compound"))
    return (SafetyWarning("lets-go", format_message(messages.LETS_GO, {"low": celsius(frees.low), "high": celsius(frees.high)})), *shared)


def sources(found: PressJointAnalysis) -> Iterator[Source]:
    return verdict.sources(messages, found)


def result(found: PressJointAnalysis) -> dict[str, Any]:
    """Return what a file carries of it: `apart/1`."""
    scored = found.own.said(SCORED)
    return {
        "schema": "apart/1",
        **verdict.result(found),
        "phase_deg": found.own.value(questions.THROW_ANGLE),
        "scored": scored == "yes" if scored else None,
        "oil_slot": found.own.said(OIL_SLOT),
        "order": found.own.said(ORDER),
    }


STATION = StationDefinition(
    key="apart",
    name=messages.NAME,
    words=messages,
    done=messages.DONE,
    as_found=True,
    equipment={"press": "presses"},
    prediction=PREDICTION,
    gives=(
        Property.OIL_SLOT,
        Property.THROW_ANGLE,
        Property.PIN_DIAMETER,
        Property.PIN_HOLE,
        Property.PIN_LENGTH,
        Property.WEB_WALL,
        Property.WEB_WIDTH,
    ),
    facts=apart_facts,
    questions=asks,
    methods=methods,
    verdict=call,
    checks=checks,
    warnings=warnings,
    sources=sources,
    draw=drawing.draw,
    actions=verdict.actions,
    spelled=verdict.spelled,
    result=result,
)
