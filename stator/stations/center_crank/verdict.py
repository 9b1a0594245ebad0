"""The verdict on the crank in its case: centered, free to turn, end play, and leakage."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath.amounts import Amount, count, estimate, known_exactly, mm, plus_minus, thread_size
from shopmath.verdict import Conformity, severity
from stator.engines.fact_keys import FactKey, Location
from stator.engines.parts import JOINT
from stator.engines.properties import Property
from stator.stations.center_crank import messages
from stator.stations.center_crank.analysis import DRAG, END, GAPS, SPIN, CenteringAnalysis, Code, warmth
from stator.stations.framework import (
    Alternative,
    DerivedValue,
    MessageRef,
    Question,
    SafetyWarning,
    Scale,
    Source,
    State,
    Verdict,
    from_conformity,
    question_factory,
)
from stator.stations.framework.limits import limit_values
from stator.stations.framework.messages import format_message
from stator.ui.number_format import show, thicknesses

source = partial(question_factory.source, messages)
GAP_STEP = 0.01


def verdict(found: CenteringAnalysis, questions: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    if not found.stands_hard and found.middle is None:
        return Verdict(State.WAIT, Code.MEASURE, next="ask")
    wrong = list(_wrong(found))
    return min(wrong, key=lambda each: severity(each.state)) if wrong else _tested(found, questions)


def _wrong(found: CenteringAnalysis) -> Iterator[Verdict]:
    """All that is not as it should be, in the order of the work."""
    if not found.stands_hard and found.middle and found.middle.call.state != State.IN:
        yield _off_centre(found)
    if found.drags:
        where = found.own.said(DRAG)
        alternatives = (Alternative(SPIN, code="turns_free"), Alternative(page="run"))
        yield Verdict(State.STOP, Code.DRAGS, {"drag": where}, "drags_at" if where else "", ways=alternatives)
    against = found.against_prediction
    if against and against.state == State.OUT:
        yield from_conformity(against, Code.DIFFERS, values=_lengths(against), next=Code.DIFFERS)
    if found.float_call and found.float_call.state != State.IN:
        code = Code.FLOAT_OUT if found.float_call.state == State.OUT else Code.FLOAT_CLOSE
        yield from_conformity(found.float_call, code, values=limit_values(found.float_call), next="shim")
    for test, leaked in found.leaks:
        if leaked.state != State.IN:
            code = Code.LEAKS if leaked.state == State.OUT else Code.LEAK_CLOSE
            minutes = found.settled_in_min(leaked) if leaked.state == State.TOO_CLOSE else None
            longer = {"minutes": count(minutes)} if minutes else {}
            yield from_conformity(leaked, code, values={**_rates(test, leaked), **longer}, next="longer" if minutes else "soap")


def _off_centre(found: CenteringAnalysis) -> Verdict:
    assert found.middle is not None
    assert found.gaps is not None
    middle, move = found.middle.call, found.middle.move
    goal = sum(found.gaps) / 2
    blades = found.blades_for(goal)
    values: dict[str, Any] = {
        **limit_values(middle, "length", GAP_STEP),
        "goal": mm(goal, GAP_STEP),
        "blades": thicknesses(blades),
        "move": mm(move.move_mm, GAP_STEP),
        "side": found.card.side(move.toward),
        "turns": count(move.turns, 0.01 if move.turns < 1 else 0.1),
    }
    scale = Scale(abs(found.gaps[0] - found.gaps[1]), 1.41 * found.gap_uncertainty, None, found.limit_mm, "mm", 2)
    detail = "then_blades" if blades else "then"
    if middle.state == State.TOO_CLOSE:
        return Verdict(State.TOO_CLOSE, Code.TOO_CLOSE, values, "gaps_too_close", detail=detail, scale=scale)
    turned = "move" if move.turns < 1 else "move_turns"
    return Verdict(State.OUT, Code.OFF_CENTRE, values, "gaps_out", turned, detail, scale=scale)


def _tested(found: CenteringAnalysis, questions: list[Question]) -> Verdict:
    """Return what is still to be tested, or that all is well."""
    against = found.against_prediction
    if questions:
        return Verdict(State.WAIT, Code.TEST, reason="hard" if found.stands_hard else "in_the_middle", next="ask")
    detail = against.code if against else ""
    values = _lengths(against) if against else {}
    if found.leaks:
        test, leaked = found.leaks[-1]
        detail = detail or ("within_gauge" if leaked.values["within"] else "")
        return Verdict(State.IN, Code.DONE, {**values, **_rates(test, leaked)}, leaked.code, "sign", detail)
    return Verdict(State.IN, Code.CENTRED, values, "oil" if found.proof == "oil" else "not_tested", "sign", detail)


def _lengths(found: Conformity) -> dict[str, Amount]:
    return {name: mm(value) for name, value in found.values.items()}


def _rates(test: str, found: Conformity) -> dict[str, Any]:
    rates = {name: Amount(value, "pressure", 0.01) for name, value in found.values.items() if name != "within"}
    return {**rates, "test": messages.TEST[test]}


def checks(found: CenteringAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.checks(messages)


def warnings(found: CenteringAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.warnings(messages) if found.proof == "pressure" else question_factory.warnings(messages, "manual")


def results(found: CenteringAnalysis) -> Iterator[DerivedValue]:
    """Yield what the case loses a minute in each test."""
    for test, leaked in found.leaks:
        rate, limit = (Amount(leaked.values[name], "pressure", 0.1) for name in ("rate", "limit"))
        given = found.known.limit(Property.LEAK)
        origin = MessageRef("card", {"origin": given.source}) if given else MessageRef("shop_rule")
        yield DerivedValue(
            FactKey(JOINT, Property.LEAK, Location(depth=test)), Property.LEAK, rate, None, None, limit, origin, leaked.state
        )


def sources(found: CenteringAnalysis) -> Iterator[Source]:
    if found.gaps:
        limit = found.card_limit
        origin = {"origin": limit.source if limit else ""}
        yield source("limit_card" if limit else "limit_rule", show(mm(found.limit_mm, GAP_STEP)), origin)
        tool = {"tool": found.tool.name if found.tool else ""}
        yield source(
            "pitch" if found.tool else "pitch_assumed", known_exactly(thread_size(found.pitch_mm)), tool, estimated=found.tool is None
        )
        for fact_key, gap in zip(GAPS, found.gaps, strict=True):
            blades = found.blades_for(gap)
            values = {"side": found.card.side(fact_key.at.end), "blades": thicknesses(blades)}
            yield source("gap" if blades else "gap_no_blades", show(mm(gap, GAP_STEP)), values)
    if found.predicted and found.predicted.value is not None:
        wide = found.predicted.uncertainty or 0.0
        yield source("predicted", show(estimate(mm(found.predicted.value), wide)), {"uncertainty": plus_minus(mm(wide))})
    for test, leaked in found.leaks:
        values = {"test": str(messages.TEST[test]), "said": format_message(messages.REASON[leaked.code], _rates(test, leaked))}
        yield source("leak", messages.STATE[leaked.state], values)
        if found.own.has(warmth(test, END)):
            same = Amount(leaked.values["second"], "pressure", 0.1)
            yield source("warmth", show(same), {"test": str(messages.TEST[test])})
