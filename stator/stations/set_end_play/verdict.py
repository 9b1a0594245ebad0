"""The verdict on the end play: the shims, the result, and whether it is certain."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath.amounts import celsius, count, estimate, mm, plus_minus
from stator.engines.case import along
from stator.engines.clearance import RUNNING_C
from stator.engines.fact_keys import FactKey
from stator.engines.properties import Property
from stator.jobs.facts import Finding
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
from stator.stations.set_end_play import messages
from stator.stations.set_end_play.analysis import STACK, Code, EndPlayAnalysis, crank
from stator.ui.number_format import band, show, thicknesses

source = partial(question_factory.source, messages)


def verdict(found: EndPlayAnalysis, questions: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    if found.card.two_cranks:
        return Verdict(State.TOO_CLOSE, Code.TWO_CRANKS, ways=(Alternative(page="run"), Alternative(page="card")))
    if found.too_warm:
        return Verdict(State.TOO_CLOSE, Code.TOO_WARM)
    first = questions[0].slot if questions else None
    if found.call and not (first and first.what == Property.SHIM_THICKNESS):
        return _judged(found)
    if found.trouble:
        return Verdict(
            State.STOP, Code.NO_SHIM, _trouble(found), found.trouble.code, ways=(Alternative(page="shop"), Alternative(page="run"))
        )
    if found.pieces and found.limits:
        low, high = (mm(end, 0.01) for end in found.limits)
        left = found.left_by_bags
        values = {
            "shims": _shims(found),
            "whose": messages.WHOSE[found.how],
            "left": estimate(mm(left), found.uncertainty),
            "low": low,
            "high": high,
        }
        move = Code.MEASURE_SHIM if questions else "measure_it"
        nearer = ""
        if found.choice and found.choice.nearer_float_mm is not None:
            nearer = "nearer"
            others = thicknesses(found.choice.nearer_mm)
            values |= {"others": others, "others_left": estimate(mm(found.choice.nearer_float_mm), found.uncertainty)}
        return Verdict(State.WAIT, Code.MEASURE_SHIM, values, next=move, detail=nearer, scale=_scale(found, left, found.uncertainty))
    return Verdict(State.WAIT, Code.MEASURE, next=Code.MEASURE if questions else "limits")


def _trouble(found: EndPlayAnalysis) -> dict[str, Any]:
    values = found.trouble.values if found.trouble else {}
    return {name: count(value) if name == "most" else mm(value) for name, value in values.items()}


def _shims(found: EndPlayAnalysis) -> str:
    return thicknesses(found.pieces)


def _scale(found: EndPlayAnalysis, value: float, uncertainty: float) -> Scale | None:
    return Scale(value, uncertainty, *found.limits, "mm", 3) if found.limits else None


def _judged(found: EndPlayAnalysis) -> Verdict:
    assert found.call is not None
    assert found.predicted is not None
    value, uncertainty = found.predicted
    inside = Code.FIT if found.pieces else Code.FIT_NONE
    code = {State.IN: inside, State.OUT: Code.OUT}.get(State(found.call.state), Code.TOO_CLOSE)
    values = {**limit_values(found.call), "shims": _shims(found), "uncertainty": plus_minus(mm(uncertainty))}
    detail = "dial"
    if found.warm_mm is not None:
        detail, values["warm"] = "dial_warm", estimate(mm(found.warm_mm, 0.01), found.warm_u_mm)
    return from_conformity(found.call, code, values=values, next=code, detail=detail, scale=_scale(found, value, uncertainty))


def checks(found: EndPlayAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.checks(messages)


def warnings(found: EndPlayAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.warnings(messages)


def results(found: EndPlayAnalysis) -> Iterator[DerivedValue]:
    """The float that the stack or the table predicts."""
    if found.predicted and found.limits:
        low, high = (mm(end, 0.01) for end in found.limits)
        limit_from = MessageRef("card", {"origin": found.limit.source}) if found.limit else MessageRef("typed")
        code = Property.END_FLOAT_PREDICTED if found.how == STACK else "by table"
        value, uncertainty = found.predicted
        state = found.call.state if found.call else ""
        yield DerivedValue(crank(Property.END_FLOAT_PREDICTED), code, mm(value, 0.001, uncertainty), None, low, high, limit_from, state)


def derived(found: EndPlayAnalysis) -> Iterator[Finding]:
    """Yield what the float will be, and the gasket that it was worked out with; none is a thickness of 0."""
    if found.predicted is None:
        return
    value, uncertainty = found.predicted
    yield Finding(crank(Property.END_FLOAT_PREDICTED), value, uncertainty=uncertainty, resolution=0.001)
    if found.how == STACK:
        for part in (joint.part for joint in along(found.card)):
            gasket = found.own.fact(FactKey(part, Property.GASKET_CRUSHED))
            thick, unsure = (gasket.value or 0.0, gasket.uncertainty) if gasket else (0.0, None)
            yield Finding(FactKey(part, Property.GASKET_THICKNESS), thick, uncertainty=unsure, resolution=0.01)
            if thick:
                yield Finding(FactKey(part, Property.REPLACED), text="gasket")


def sources(found: EndPlayAnalysis) -> Iterator[Source]:
    for link, fact in found.links or ():
        values = {"link": question_factory.label(messages, link.slot), "uncertainty": plus_minus(mm(fact.uncertainty or 0.0))}
        yield source("makes" if link.sign > 0 else "takes", show(mm(fact.value or 0.0)), values)
    if found.free:
        values = {"squares": plus_minus(mm(found.free.rss_mm)), "worst": plus_minus(mm(found.free.worst_mm))}
        yield source("free", show(estimate(mm(found.free.value_mm), found.uncertainty)), values)
    if found.limits:
        low, high = (mm(end, 0.01) for end in found.limits)
        yield source("wanted", band(low, high), {"origin": found.limit.source if found.limit else messages.TYPED})
    if found.warm_mm is not None:
        case, crank_c = (celsius(each) for each in (RUNNING_C[0], RUNNING_C[-1]))
        yield source("warm", estimate(mm(found.warm_mm, 0.01), found.warm_u_mm), {"case": case, "crank": crank_c}, estimated=True)
    if found.kit and found.how == STACK:
        yield source("kit", found.kit.name, {"sizes": thicknesses(sorted(found.kit.sizes_mm), " ")})
    if found.table:
        for row, left in zip(found.table.rows, found.table.floats_mm, strict=True):
            values = {"low": mm(row.from_mm, 0.01), "high": mm(row.to_mm, 0.01), "left": mm(left)}
            yield source("row", show(mm(row.shim_mm)), values)
