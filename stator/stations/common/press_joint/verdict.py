"""The verdict on a press joint before it is pressed: too hot, press too small, or how to press it."""

from __future__ import annotations

from collections.abc import Iterator
from types import ModuleType
from typing import Any

from shopmath import __version__ as core_version
from shopmath.amounts import UP, Amount, celsius, estimate, estimate_range, mm, newtons, plus_minus
from shopmath.verdict import Conformity
from stator.engines.fact_keys import FactKey
from stator.engines.properties import Property
from stator.stations.common.press_joint import messages
from stator.stations.common.press_joint.analysis import Code, PressJointAnalysis, at
from stator.stations.framework import (
    Action,
    Alternative,
    BoundStation,
    MessageRef,
    Question,
    SafetyWarning,
    Scale,
    Source,
    State,
    Verdict,
    question_factory,
)
from stator.ui.number_format import stress
from stator.ui.table_texts import from_table

KNOWN_FORCES = ("has", "peak")  # what the press can do and what its gauge showed; all other forces are estimates


def before(found: PressJointAnalysis, questions: list[Question], sizing: str) -> Verdict | None:
    """Return the verdict until the joint may be pressed, then None; `sizing` is the code of the reason to measure."""
    if found.plan is None:
        return Verdict(State.WAIT, Code.MEASURE, reason=sizing, next="ask" if questions else "sizes", assumed=assumed(found))
    hot = found.heat_call
    if hot and hot.state == State.STOP:
        less = "less_heat" if found.chosen("scrap") == "scrap" else "less_heat_or_scrap"
        cooler = (Alternative(at(Property.WEB_TEMPERATURE)), Alternative(choice="scrap"))
        return Verdict(State.STOP, Code.TOO_HOT, degrees(hot), hot.code, less, ways=cooler)
    force = found.plan.force_n
    if found.press is None or found.press_call is None:
        needed = {"low": found.estimated(force.low), "high": found.estimated(force.high)}
        return Verdict(State.STOP, Code.NO_PRESS, needed, "no_press", ways=(Alternative(page="shop"),))
    if found.press_call.state == State.STOP:
        values = {**forces(found, found.press_call), "needs": found.estimated(force.high, UP)}
        web = found.web_heat_c
        values |= {"web": celsius(web)} if web else {}
        move = "larger_press_or_heat" if web else "larger_press"
        alternatives = (Alternative(choice="press"), Alternative(page="shop"), Alternative(page="run"))
        return Verdict(State.STOP, Code.TOO_SMALL, values, found.press_call.code, move, scale=scale(found), ways=alternatives)
    return None


def ready(found: PressJointAnalysis, checks: tuple[SafetyWarning, ...], first: str, how: str, values: dict[str, Any]) -> Verdict:
    """Return the verdict if the press is strong enough: first the open checks, then how to press."""
    verdict = found.press_call
    assert verdict is not None
    said = {**forces(found, verdict), **values}
    detail = ""
    if found.plan and found.plan.past_yield:
        said["stress"] = stress(found.plan.hub_stress_mpa)
        detail = "past_yield" if found.grip and found.grip.origin == "measured" else "perhaps_past_yield"
    more: dict[str, Any] = {"detail": detail, "scale": scale(found), "assumed": assumed(found)}
    left = [each.words for each in checks if each.required and each.key not in found.own.ticked]
    if left:
        return Verdict(State.WAIT, first, {**said, "required": left[0]}, verdict.code, "required", **more)
    code = Code.STRONG_ENOUGH if verdict.state == State.IN else Code.MAY_NOT_DO
    return Verdict(verdict.state, code, said, verdict.code, how, **more)


def forces(found: PressJointAnalysis, call: Conformity) -> dict[str, Any]:
    """The forces of a call, in the press's own unit."""
    return {name: found.in_unit(value) if name in KNOWN_FORCES else found.estimated(value) for name, value in call.values.items()}


def degrees(call: Conformity) -> dict[str, Any]:
    return {name: celsius(value) for name, value in call.values.items()}


def assumed(found: PressJointAnalysis) -> tuple[MessageRef, ...]:
    return (MessageRef("usual_grip"),) if found.grip and found.grip.origin == "usual" else ()


def scale(found: PressJointAnalysis) -> Scale | None:
    """Likely force and its band against the press."""
    if found.plan is None or found.press is None:
        return None
    unit, per = found.press_unit
    band = found.plan.force_n
    uncertainty = max(band.high - band.likely, band.likely - band.low)
    return Scale(band.likely / per, uncertainty / per, None, found.press.capacity_n / per, unit, 1)


def warnings(found: PressJointAnalysis) -> tuple[SafetyWarning, ...]:
    fumes = ("fumes",) if found.chosen("compound") and found.is_warm else ()
    taper = ("taper",) if found.is_tapered else ()
    return question_factory.warnings(messages, *fumes, *taper, "go", "manual")


def sources(station: ModuleType, found: PressJointAnalysis) -> Iterator[Source]:
    def source(
        code: str, value: str | Amount | tuple[Amount, Amount], values: dict[str, Any] | None = None, estimated: bool = True
    ) -> Source:
        return question_factory.source(station, code, value, values, estimated=estimated)

    interference, plan, joint = found.grip, found.plan, found.joint
    if interference:
        values = {"uncertainty": plus_minus(mm(interference.uncertainty)), "origin": found.card_grip.source if found.card_grip else ""}
        yield source(
            f"grip_{interference.origin}",
            estimate(mm(interference.value), interference.uncertainty),
            values,
            interference.origin != "measured",
        )
    if plan and joint:
        force = plan.force_n
        values = {"low": found.estimated(force.low), "high": found.estimated(force.high), "basis": from_table(force.basis)}
        yield source("force", found.estimated(force.likely), values)
        if plan.compound_n.high:
            yield source("compound", found.estimated(plan.compound_n.likely), {"basis": from_table(plan.compound_n.basis)})
        yields = {"yield_mpa": stress(plan.yield_mpa)}
        yield source("stress_past" if plan.past_yield else "stress", stress(plan.hub_stress_mpa), yields)
        yield source("ring", estimate_range(mm(joint.diameter_mm + 2 * joint.wall_mm, 1.0), mm(joint.web_mm, 1.0)))
    if found.press:
        values = {"force": newtons(found.press.capacity_n, 1000.0), "name": found.press.name}
        yield source("press", found.press.capacity_text, values, False)
    if found.peak_n is not None:
        yield source("peak", found.in_unit(found.peak_n), None, False)


def result(found: PressJointAnalysis) -> dict[str, Any]:
    """Return what a file carries of the joint."""
    plan, interference = found.plan, found.grip
    return {
        "core_version": core_version,
        "interference_mm": round(interference.value, 4) if interference else None,
        "interference_measured": interference.origin == "measured" if interference else None,
        "force_n": [round(value) for value in (plan.force_n.low, plan.force_n.likely, plan.force_n.high)] if plan else None,
        "hub_stress_mpa": round(plan.hub_stress_mpa) if plan else None,
        "press": found.press.name if found.press else None,
        "peak_n": round(found.peak_n) if found.peak_n is not None else None,
        "web_c": found.value(Property.WEB_TEMPERATURE),
        "pin_c": found.value(Property.PIN_TEMPERATURE),
        "compound": found.chosen("compound"),
        "scrap": found.chosen("scrap") == "scrap",
    }


def spelled(found: PressJointAnalysis, slot: FactKey, value: float) -> str:
    """A force is read as the press's own gauge shows it."""
    return found.in_unit(value) if slot.what == Property.PRESS_PEAK else ""


def actions(bound: BoundStation) -> tuple[Action, ...]:
    """It is signed once the peak is in."""
    return (bound.sign_action(),) if bound.analysis.peak_n is not None else ()
