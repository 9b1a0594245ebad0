"""The verdict on a flywheel, and the sources of its numbers."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath import materials
from shopmath.amounts import Amount, chance, count, degrees, estimate, gram_millimetres, kilograms, mm, plus_minus, rough
from shopmath.balance import Unbalance, stops_wanted
from shopmath.balance.residual_check import Proof
from shopmath.verdict import Conformity
from stator.engines.properties import Property
from stator.stations.balance_flywheel import messages
from stator.stations.balance_flywheel.analysis import BalanceAnalysis
from stator.stations.balance_flywheel.locations import FEWEST_STOPS, Code, Phase, at, hole
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
from stator.ui.number_format import plain, pull, show, weigh
from stator.ui.table_texts import from_table

source = partial(question_factory.source, messages)
G = 9.81
THIN_MM = 1.0  # under a hole's tip: shop rule
FIGURES = (Property.WHEEL_MASS, Property.WHEEL_SPEED, Property.RIM_DIAMETER)


def verdict(found: BalanceAnalysis, questions: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    if found.is_refused:
        return Verdict(State.STOP, Code(found.said(Property.WHEEL_SOUND)), next="sign_off", ways=(Alternative(at(Property.WHEEL_SOUND)),))
    if found.is_left:
        return Verdict(State.IN, Code.LEAVE, detail="only_what_shook")
    if found.speed and found.speed.state == State.OUT and found.phase != Phase.DONE:
        values = limit_values(found.speed, "surface_speed", 1.0)
        alternatives = (Alternative(at(Property.WHEEL_SPEED)), Alternative(at(Property.RIM_DIAMETER)))
        return from_conformity(found.speed, Code.TOO_FAST, state=State.STOP, values=values, next="shop", ways=alternatives)
    if found.phase == Phase.ASK:
        return Verdict(State.WAIT, Code.TOUCH_IT, next="ask")
    by_phase = {
        Phase.ROLL: _roll,
        Phase.WEIGH: _weigh,
        Phase.DRILL: _drill,
        Phase.ADD: _add,
        Phase.PROVE: _prove,
        Phase.UNPROVED: _unproved,
        Phase.DONE: _done,
    }
    return by_phase[found.phase](found, questions)


def _roll(found: BalanceAnalysis, questions: list[Question]) -> Verdict:
    if any(question.slot and question.slot.what in FIGURES for question in questions):
        return Verdict(State.WAIT, Code.FIGURES, next="ask")
    told = found.stops
    if told is None:
        return Verdict(State.WAIT, Code.ROLL, next="push")
    values: dict[str, Any] = {"angle": estimate(degrees(told.mean_deg), told.unsure_deg), "chance": chance(told.p_value)}
    if told.telling:
        values["more"] = count(FEWEST_STOPS - len(found.marks))
        return Verdict(State.WAIT, Code.HEAVY_THERE, values, next="another")
    more = stops_wanted(told)
    if more is None:
        return Verdict(State.TOO_CLOSE, Code.SCATTERED, values, "all_round", "to_eight")
    return Verdict(State.TOO_CLOSE, Code.SCATTERED, {**values, "more": count(more)}, "about", "more")


def felt(found: BalanceAnalysis, gmm: float) -> tuple[str, dict[str, Any]]:
    """Return what an unbalance does at speed, as a mechanic feels it: code and values."""
    force = found.force_n(gmm)
    if force is None or found.rpm is None:
        return "", {}
    weight = force / G
    turns = count(found.rpm / 60)
    speed = Amount(found.rpm, "speed", 1.0)
    return "felt", {"force": pull(force), "speed": speed, "weight": weigh(weight), "turns": turns}


def _amount(of: Unbalance) -> Amount:
    return gram_millimetres(of.gmm, 1.0, of.uncertainty_gmm)


def _permitted(found: BalanceAnalysis) -> dict[str, Any]:
    return {"permitted": gram_millimetres(found.permitted_gmm)} if found.permitted_gmm else {}


def _scale(found: BalanceAnalysis) -> Scale | None:
    rest = found.rest
    return Scale(rest.gmm, rest.uncertainty_gmm, None, found.permitted_gmm, "g·mm", 0) if rest and found.permitted_gmm else None


def _prove(found: BalanceAnalysis, questions: list[Question]) -> Verdict:
    """Return the verdict when no heavy spot is found any longer, before the proof."""
    values: dict[str, Any] = {"stops": len(found.marks), **_permitted(found)}
    if found.turns_by_itself:
        return Verdict(State.OUT, Code.BY_ITSELF, values, next="roll_it")
    reason = "no_proof"
    if found.weighed:
        values["amount"] = _amount(found.weighed)
        reason = "one_way"
    mark = questions[0].slot.at.angle_deg if questions and questions[0].slot and questions[0].slot.what == Property.TURNING_MASS else None
    if mark is not None:
        values["mark"] = degrees(mark)
    return Verdict(State.WAIT, Code.PROVE, values, reason, "level" if mark is not None else "ask" if questions else "four_masses", "proof")


def _proved(found: BalanceAnalysis) -> dict[str, Any]:
    """The stand's friction, which the proof brings to light."""
    assert found.proof is not None
    friction, varies = _friction(found.proof)
    return {"friction": friction, "varies": varies}


def _friction(proof: Proof) -> tuple[Amount, Amount]:
    """Return the friction and its standard deviation, which is known within a factor of 2 to 3."""
    return estimate(gram_millimetres(proof.friction_gmm), 2 * proof.varies_gmm), rough(gram_millimetres(proof.varies_gmm))


def _unproved(found: BalanceAnalysis, questions: list[Question]) -> Verdict:
    """Return what the stand and the step of the masses leave open reaches past what is permitted."""
    assert found.proof is not None
    values = {"amount": _amount(found.proof.unbalance), **_proved(found), **_permitted(found)}
    return Verdict(State.TOO_CLOSE, Code.UNPROVED, values, next="finer", detail="friction", scale=_scale(found))


def _add(found: BalanceAnalysis, questions: list[Question]) -> Verdict:
    """A mass opposite instead of a hole."""
    assert found.amount is not None and found.rest is not None
    values: dict[str, Any] = {"amount": _amount(found.amount), "light": degrees(found.light_deg), "angle": degrees(found.rest.deg)}
    values |= {"rest": gram_millimetres(found.rest.gmm), **_permitted(found)}
    if found.is_past:
        return Verdict(State.OUT, Code.PAST, values, "added_too_much", "take_off", scale=_scale(found))
    if found.added:
        return Verdict(State.WAIT, Code.CHECK, values, "" if found.permitted_gmm else "check_unknown", scale=_scale(found))
    if found.to_add_g is None:
        return Verdict(State.WAIT, Code.ADD, values, next="ask")
    return Verdict(State.WAIT, Code.ADD, {**values, "wanted": kilograms(found.to_add_g / 1000, 0.0001)}, next="fasten", detail="fastened")


def _weigh(found: BalanceAnalysis, questions: list[Question]) -> Verdict:
    told, amount = found.stops, found.amount
    values: dict[str, Any] = {"angle": degrees(found.heavy_deg), "light": degrees(found.light_deg)}
    if amount is None:
        assert told is not None
        values |= {
            "angle": estimate(degrees(told.mean_deg), told.unsure_deg),
            "uncertainty": plus_minus(degrees(told.unsure_deg)),
            "chance": chance(told.p_value),
        }
        return Verdict(State.WAIT, Code.HOW_MUCH, values, next="putty", detail="direction")
    detail, said = felt(found, amount.gmm)
    values = {**values, **said, "amount": _amount(amount), **_permitted(found)}
    if found.plan is not None and not found.plan.holes:
        return Verdict(State.OUT, Code.NOWHERE, values, "nowhere", detail=detail)
    reason = "too_heavy" if found.permitted_gmm else "too_heavy_unknown"
    return Verdict(State.OUT, Code.TOO_HEAVY, values, reason, "ask" if questions else "where", detail, scale=_scale(found))


def _last_hole(found: BalanceAnalysis) -> tuple[Alternative, ...]:
    return (Alternative(hole(len(found.made))),) if found.made else ()


def _drill(found: BalanceAnalysis, questions: list[Question]) -> Verdict:
    plan, rest = found.plan, found.rest
    assert plan is not None and rest is not None
    values: dict[str, Any] = {
        "rest": gram_millimetres(rest.gmm),
        "angle": degrees(rest.deg),
        "removed": kilograms(found.removed_g / 1000, 0.0001),
        **_permitted(found),
    }
    if found.removed_too_much:
        return Verdict(State.STOP, Code.ENOUGH_OFF, values, scale=_scale(found), ways=_last_hole(found))
    if found.thinnest < THIN_MM:
        return Verdict(State.STOP, Code.THIN, {**values, "wall": mm(found.thinnest, 0.1)}, ways=_last_hole(found))
    if found.is_past:
        detail, said = felt(found, rest.gmm)
        return Verdict(State.OUT, Code.PAST, {**values, **said}, detail=detail, scale=_scale(found))
    if found.all_drilled:
        reason = "" if found.permitted_gmm else "check_unknown"
        return Verdict(State.WAIT, Code.CHECK, values, reason, scale=_scale(found))
    done = len(found.made)
    hole = plan.holes[done]
    values |= {
        "number": done + 1,
        "holes": len(plan.holes),
        "after": gram_millimetres(plan.rest.gmm),
        "later": gram_millimetres(plan.later_gmm),
        "drill": mm(hole.diameter_mm, 1.0 if hole.diameter_mm == round(hole.diameter_mm) else 0.1),
        "angle": degrees(hole.angle_deg),
        "radius": mm(hole.radius_mm, 0.1),
        "depth": mm(hole.depth_mm, 0.1),
    }
    return Verdict(State.WAIT, Code.DRILL, values, detail=plan.code, scale=_scale(found))


def _done(found: BalanceAnalysis, questions: list[Question]) -> Verdict:
    assert found.amount_call is not None
    values = {**limit_values(found.amount_call, "unbalance", 1.0), **_proved(found)}
    return from_conformity(found.amount_call, Code.BALANCED, values=values, next="sign", detail="friction", scale=_scale(found))


def checks(found: BalanceAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.checks(messages) if found.to_touch else ()


def warnings(found: BalanceAnalysis) -> tuple[SafetyWarning, ...]:
    drilled = ("first",) if found.phase in (Phase.DRILL, Phase.ADD, Phase.DONE) else ()
    added = ("fastened",) if found.is_adding else ()
    return question_factory.warnings(messages, "burst", *drilled, *added, "manual")


def results(found: BalanceAnalysis) -> Iterator[DerivedValue]:
    """The unbalance before the first hole and at the last roll."""
    last = found.amount_now
    first = found.amounts.get(1) or last
    if not first:
        return
    left: Amount | str = gram_millimetres(last[0], 1.0, last[1]) if last else str(messages.NO_HEAVY_SPOT)
    verdict: Conformity | None = found.judged(*last) if last and found.proof else None
    state = verdict.state if verdict else ""
    high = gram_millimetres(found.permitted_gmm, 0.1) if found.permitted_gmm else None
    limit_from = MessageRef("grade", {"grade": plain(found.grade)}) if found.permitted_gmm else None
    yield DerivedValue(
        at(Property.UNBALANCE), Property.UNBALANCE, gram_millimetres(first[0], 1.0, first[1]), left, None, high, limit_from, state
    )


def sources(found: BalanceAnalysis) -> Iterator[Source]:
    if found.permitted_gmm and found.mass_kg and found.rpm:
        values = {"grade": plain(found.grade), "mass": weigh(found.mass_kg), "speed": Amount(found.rpm, "speed", 1.0)}
        yield source("permitted", show(gram_millimetres(found.permitted_gmm, 0.1)), values)
    if found.stops:
        spread = degrees(found.stops.spread_deg)
        told = {"stops": len(found.marks), "spread": spread, "p": plain(found.stops.p_value, 2)}
        yield source("heavy", show(estimate(degrees(found.stops.mean_deg), found.stops.unsure_deg)), told)
    if found.amount:
        yield source("proof" if found.proof else "unbalance", show(_amount(found.amount)))
        yield source("pulls", pull(found.force_n(found.amount.gmm) or 0.0))
    if found.proof:
        friction, varies = _friction(found.proof)
        yield source("friction", friction, {"varies": varies}, estimated=True)
    if found.speed:
        text = format_message(messages.REASON[found.speed.code], limit_values(found.speed, "surface_speed", 1.0))
        yield source("rim", messages.STATE[found.speed.state], {"said": text}, estimated=True)
    if found.earlier or found.made:
        yield source("removed", show(kilograms(found.removed_g / 1000, 0.00001)), {"metal": from_table(materials.get(found.metal).name)})
