"""Press together: squareness, measured interference, width and side clearance while pressing, and the peak force as evidence."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from shopmath.amounts import mm
from stator.engines.parts import HALVES
from stator.engines.properties import Property
from stator.stations.common.press_joint import drawing, questions, verdict
from stator.stations.common.press_joint.predicted import PREDICTION
from stator.stations.common.press_joint.questions import THROW_ANGLE
from stator.stations.framework import (
    Alternative,
    Method,
    Question,
    SafetyWarning,
    Source,
    State,
    StationDefinition,
    Verdict,
    question_factory,
)
from stator.stations.framework.limits import limit_values
from stator.stations.framework.messages import format_message
from stator.stations.press_together import messages
from stator.stations.press_together.analysis import (
    AS_IT_GOES,
    OIL_SLOT,
    SIDE_PLAY,
    WIDTHS,
    Code,
    Judged,
    PressTogetherAnalysis,
    together_facts,
)
from stator.ui.number_format import show

MOST_STOPS = 20  # at which the width is measured as it goes


def asks(found: PressTogetherAnalysis) -> list[Question]:
    past = found.peak_n is not None
    asked = questions.sizes(messages, found, past)
    noted = found.known.said(OIL_SLOT.part, OIL_SLOT.what) in HALVES
    asked.append(
        question_factory.question(
            messages, OIL_SLOT, questions.sides(found), measure_again=True, quiet=past or not noted, hide_until_answered=not noted
        )
    )
    if not found.plan or found.is_stopped:
        return asked
    thick: dict[str, Any] = {"gauges": ("micrometer", "calliper"), "resolution": 0.01, "example": "52.05"}
    asked.append(question_factory.question(messages, AS_IT_GOES, optional=True, times=MOST_STOPS, quiet=past, **thick))
    asked.append(questions.peak(messages, found))
    if past:
        asked += [
            question_factory.question(
                messages, fact_key, {"where": messages.WEB_PLACE[fact_key.at.angle_deg or 0.0]}, measure_again=True, **thick
            )
            for fact_key in WIDTHS
        ]
        asked.append(
            question_factory.question(messages, SIDE_PLAY, measure_again=True, example="0.30", resolution=0.01, gauges=("feeler",))
        )
        if found.has_several_throws:
            asked.append(questions.throw_angle(messages, str(messages.WHERE[Property.THROW_ANGLE]), measure_again=True))
    return asked


def call(found: PressTogetherAnalysis, asked: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    before = verdict.before(found, asked, "sizing")
    if before:
        return before
    assert found.plan is not None
    if found.evidence is None and found.rod_turned:
        values = {"side": found.card.side(found.rod_turned)}
        return Verdict(State.STOP, Code.ROD_TURNED, values, ways=(Alternative(OIL_SLOT),))
    if found.evidence is None:
        if found.holds_nothing and found.grip:
            alternatives = (Alternative(page="run"), Alternative(station="inspect"))
            return Verdict(
                State.STOP, Code.NO_GRIP, {"interference": mm(found.grip.value, 0.001, found.grip.uncertainty)}, ways=alternatives
            )
        return verdict.ready(found, checks(found), Code.SQUARE_FIRST, "press_slowly", {})
    return _pressed(found, asked)


def _pressed(found: PressTogetherAnalysis, asked: list[Question]) -> Verdict:
    """Return what the joint says once it is pressed."""
    evidence = found.evidence
    assert evidence is not None
    values = verdict.forces(found, evidence)
    scale = verdict.scale(found)
    if evidence.state == State.OUT:
        return Verdict(State.OUT, Code.LOOSE, values, evidence.code, Code.LOOSE, scale=scale)
    if any(not question.optional for question in asked):
        return Verdict(State.WAIT, Code.MEASURE_NOW, values, evidence.code, "ask", scale=scale)
    worst = found.judged[0]
    if worst.call.state == State.IN:
        return Verdict(State.IN, Code.DONE, values, evidence.code, Code.DONE, scale=scale)
    code = worst.code if worst.call.state == State.OUT or worst.code == Code.JOINT_TIGHT else f"{worst.code} close"
    return Verdict(worst.call.state, code, {**values, **_said(found, worst)}, worst.call.code, worst.code, evidence.code)


def _said(found: PressTogetherAnalysis, judged: Judged) -> dict[str, Any]:
    """Return the values for the sentence of one judgment."""
    if judged.kind == "force":
        return verdict.forces(found, judged.call)
    return limit_values(judged.call, judged.kind, judged.step)


def methods(found: PressTogetherAnalysis) -> tuple[Method, ...]:
    return (*questions.methods(messages, found), question_factory.method(messages, "compound", found.chosen("compound")))


def checks(found: PressTogetherAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.checks(messages)


def warnings(found: PressTogetherAnalysis) -> tuple[SafetyWarning, ...]:
    return verdict.warnings(found)


def sources(found: PressTogetherAnalysis) -> Iterator[Source]:
    yield from verdict.sources(messages, found)
    sizes = [fact.value or 0.0 for fact in found.widths]
    if len(sizes) > 1:
        yield question_factory.source(
            messages, "widths", show(mm(sum(sizes) / len(sizes), 0.01)), {"spread": mm(max(sizes) - min(sizes), 0.01)}
        )
    for each in found.judged:
        text = format_message(messages.REASON[each.call.code], _said(found, each))
        yield question_factory.source(
            messages, "judged", messages.STATE[each.call.state], {"figure": messages.JUDGED[each.code], "said": text}
        )


def result(found: PressTogetherAnalysis) -> dict[str, Any]:
    """Return what a file carries of it: `together/1`."""
    return {
        "schema": "together/1",
        **verdict.result(found),
        "evidence": found.evidence.state if found.evidence else None,
        "widths_mm": [fact.value for fact in found.widths],
        "oil_slot": found.own.said(OIL_SLOT),
        "side_play_mm": found.own.value(SIDE_PLAY),
        "phase_deg": found.own.value(THROW_ANGLE),
    }


STATION = StationDefinition(
    key="together",
    name=messages.NAME,
    words=messages,
    done=messages.DONE,
    rebuilds=True,
    sheet=(Property.BIG_END_SIDE_PLAY,),
    equipment={"press": "presses"},
    prediction=PREDICTION,
    gives=(Property.THROW_ANGLE, Property.WIDTH_OVER_WEBS, Property.BIG_END_SIDE_PLAY),
    facts=together_facts,
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
