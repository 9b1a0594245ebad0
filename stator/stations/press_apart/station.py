"""Apart: what it takes to start the pin, whether the press can, what heat would do; marks and phase before anything moves."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from shopmath.amounts import DOWN, celsius
from shopmath.compounds import lets_go_c
from stator.engines.fact_keys import Slot
from stator.engines.parts import CRANK, rod
from stator.engines.properties import Property
from stator.stations.common.press_joint import drawing, questions, verdict
from stator.stations.common.press_joint.analysis import JointFacts
from stator.stations.common.press_joint.predicted import PREDICTION
from stator.stations.framework import Caution, Method, Question, Room, State, Station, Trace, Verdict, question_factory
from stator.stations.framework.messages import fill
from stator.stations.press_apart import messages
from stator.stations.press_apart.analysis import Code, apart_facts

ORDER, SCORED = Slot(CRANK, Property.PARTS_ORDER), Slot(CRANK, Property.SCORED)
OIL_SLOT = Slot(rod(1), Property.OIL_SLOT)


def asks(found: JointFacts) -> list[Question]:
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


def call(found: JointFacts, asked: list[Question]) -> Verdict:
    """The call as it stands; `asked` is what is still to be answered."""
    before = verdict.before(found, asked, "sizing")
    if before:
        return before
    assert found.plan is not None
    force = found.plan.force_n
    if found.peak_n is None:
        stop = min(force.high, found.press.capacity_n if found.press else 0.0)
        how = "pump_taper" if found.plan.lets_go_at_once else "pump"
        return verdict.ready(found, checks(found), Code.MARK_FIRST, how, {"stop": found.estimated(stop, DOWN)})
    code, state = Code.PARTED, State.IN
    if found.peak_n < force.low:
        code, state = Code.LOOSE, State.OUT
    elif found.peak_n > force.high:
        code, state = Code.HARDER, State.TOO_CLOSE
    values = {"peak": found.in_unit(found.peak_n), "low": found.estimated(force.low), "high": found.estimated(force.high)}
    return Verdict(state, code, values, scale=verdict.scale(found))


def methods(found: JointFacts) -> tuple[Method, ...]:
    measured = "measured" if found.is_measured else "usual"
    more = [
        question_factory.method(messages, "sizes", measured),
        *(question_factory.method(messages, key, found.chosen(key)) for key in ("compound", "scrap")),
    ]
    shared = questions.methods(messages, found)
    press = shared[:1] if found.press else []
    return (*press, *more, *shared[len(press) :])


def checks(found: JointFacts) -> tuple[Caution, ...]:
    return question_factory.checks(messages, "marked", "guard", *(("dry",) if found.is_warm else ()))


def warnings(found: JointFacts) -> tuple[Caution, ...]:
    shared = verdict.warnings(found)
    if not found.chosen("compound"):
        return shared
    frees = lets_go_c(found.chosen("compound"))
    return (Caution("lets-go", fill(messages.LETS_GO, {"low": celsius(frees.low), "high": celsius(frees.high)})), *shared)


def sources(found: JointFacts) -> Iterator[Trace]:
    return verdict.sources(messages, found)


def result(found: JointFacts) -> dict[str, Any]:
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


STATION = Station(
    key="apart",
    name=messages.NAME,
    binds=Room,
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
