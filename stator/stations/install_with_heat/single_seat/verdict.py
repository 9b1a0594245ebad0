"""The verdict on one seat in each phase of its heat, and the sources of its numbers."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from functools import partial
from typing import Any

from shopmath.amounts import (
    DOWN,
    UP,
    Amount,
    celsius,
    chance,
    duration,
    estimate,
    estimate_range,
    kelvin,
    known_exactly,
    mm,
    newtons,
    share,
)
from shopmath.estimate import Estimate
from shopmath.iso286 import fit as fit_of_limits
from shopmath.thermal.seat import Moment
from shopmath.verdict import IN, OUT, STOP, TOO_CLOSE
from stator.engines.properties import Property
from stator.jobs.facts import Finding, MeasuredReading
from stator.stations.common.seat_state import COMPOUND
from stator.stations.framework import (
    Alternative,
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
from stator.stations.framework.messages import format_message, lazily
from stator.stations.framework.registry import station_name
from stator.stations.install_with_heat import messages as shared
from stator.stations.install_with_heat import shared_messages, warm_fit
from stator.stations.install_with_heat.single_seat import messages
from stator.stations.install_with_heat.single_seat.analysis import Code, Phase, SingleSeatAnalysis
from stator.stations.install_with_heat.single_seat.questions import names, stop_name
from stator.ui.number_format import figure, rough_band, show
from stator.ui.table_texts import from_table
from stator.ui.times import short_day

source = partial(question_factory.source, messages)
READY_K = 1.5
SOONER_S = 60.0  # a cold that starts this much before the heat is said
PACE_HALF_WIDTH = 0.25  # of how much slower or quicker than the tables an earlier heat was
FOR_GOOD_S = 1e5  # a rate slower than this is none


def verdict(found: SingleSeatAnalysis, questions: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    if found.trouble:
        return Verdict(State.STOP, Code.NO_PLAN, {"said": found.trouble.message}, ways=shared_messages.ways_on(found.trouble))
    by_phase = {Phase.PLAN: _plan, Phase.HEATING: _heating, Phase.WINDOW: _window, Phase.AFTER: _after}
    judged = by_phase[found.phase](found, questions)
    return judged if found.phase == Phase.AFTER else replace(judged, assumed=_assumed(found))


def _assumed(found: SingleSeatAnalysis) -> tuple[MessageRef, ...]:
    code = [MessageRef("code", {"code": found.seat.code})] if found.seat.code_assumed and found.seat_known.size is None else []
    marking = [MessageRef("marking", {"marking": found.seat.marking})] if found.seat.marking_is_typical else []
    return (*marking, *code, *shared_messages.assumed(found, found.given.card, of_the_case=not found.onto_shaft))


def _scale(found: SingleSeatAnalysis, value: float, spread: float) -> Scale:
    return Scale(value, 2 * spread, found.plan.setup.wanted_mm, None, "mm")


def _goes(found: SingleSeatAnalysis, state: str) -> Code:
    """A bearing slides onto a shaft and drops into a case."""
    onto = {IN: Code.GOES_ON, OUT: Code.WONT_ON} if found.onto_shaft else {}
    return onto.get(state) or {IN: Code.GOES, TOO_CLOSE: Code.UNSURE, OUT: Code.WONT, STOP: Code.STOP}[state]


def _spare(at: Moment, *, measured: bool = False) -> dict[str, Any]:
    return {"chance": chance(at.confidence, measured=measured), "least": estimate(mm(max(at.low_mm, 0.0)), 2 * at.spread_mm, DOWN)}


def _plan(found: SingleSeatAnalysis, questions: list[Question]) -> Verdict:
    plan, named = found.plan, names(found)
    if found.seat_known.is_condemned:
        return Verdict(State.STOP, Code.SEAT_IS_OUT, ways=(Alternative(station="inspect"), Alternative(page="run")))
    if found.seat_known.holds_nothing(found.planned.fit):
        return Verdict(State.OUT, Code.NOTHING_HOLDS, detail="would_turn")
    state = plan.call.state
    values = {**named, **shared_messages.of_call(plan.call), **_spare(plan.offering)}
    if state == STOP:
        return Verdict(State.STOP, Code.STOP, values, plan.call.code, "change_method", ways=shared_messages.OTHER_HEAT)
    scale = _scale(found, plan.offering.clearance_mm, plan.offering.spread_mm)
    if state != IN:
        gains = shared_messages.helps(plan.wideners[:4], named)
        reason = "chance_no_room" if state == OUT else "chance_unsure"
        if plan.call.code == "sure_too_short":
            reason = plan.call.code
            values |= {"sure": shared_messages.promised(plan.sure_for_s, plan.window), "handling": duration(plan.setup.handling_s, 0.0)}
        detail = "helps" if gains else "jam"
        return Verdict(state, _goes(found, state), {**values, "helps": gains}, reason, "widen", detail, scale=scale)
    step, how = _how(found)
    values |= {**how, "sure": shared_messages.promised(plan.sure_for_s, plan.window), "seating": shared_messages.soon(plan.seating.low)}
    detail = "sure"
    if plan.soak and plan.chill and plan.chill.likely > plan.soak.likely + SOONER_S:
        detail, values["later"] = "cold_first", duration(plan.chill.likely - plan.soak.likely, shared_messages.half(plan.chill))
    return Verdict(State.IN, _goes(found, IN), values, "to_spare", step, detail, scale=scale)


def _how(found: SingleSeatAnalysis) -> tuple[str, dict[str, Any]]:
    """Return what goes where, how warm or cold, for how long: code and values."""
    plan, heat_c = found.plan, found.planned.heat_c
    values: dict[str, Any] = {"target": celsius(plan.target_c)}
    heat = ""
    if found.heater and plan.soak and heat_c:
        heat, values["setting"] = "oven", celsius(heat_c)
        values |= shared_messages.lasts(plan.soak, "soak")
    elif found.heater:
        heat = "flame"
    if plan.chill:
        values |= {"cold": celsius(plan.chill_c), "stay": duration(plan.chill.low, shared_messages.half(plan.chill), UP)}
    return "_".join(filter(None, (heat, "chill" if plan.chill else ""))) or "push", values


def _too_far(found: SingleSeatAnalysis) -> Verdict | None:
    """A part hotter or colder than something in it allows."""
    setup, named, here = found.plan.setup, names(found), found.run.here
    scale = _scale(found, here.clearance_mm, here.spread_mm)
    outer_c, inner_c = found.run.outer().c, found.run.inner().c
    for limit in setup.hot_limits:
        if outer_c > limit.limit_c:
            values = {**named, **shared_messages.of_limit(limit), "here": celsius(outer_c)}
            return Verdict(
                State.STOP,
                Code.STOP,
                values,
                "too_hot",
                "out_of_heat",
                scale=scale,
                ways=(Alternative(found.slot(Property.HOT_TEMPERATURE)),),
            )
    for limit in setup.cold_limits:
        if inner_c < limit.limit_c:
            values = {**named, **shared_messages.of_limit(limit), "here": celsius(inner_c)}
            return Verdict(
                State.STOP,
                Code.STOP,
                values,
                "too_cold",
                "out_of_cold",
                scale=scale,
                ways=(Alternative(found.slot(Property.COLD_TEMPERATURE)),),
            )
    return None


def _waits(found: SingleSeatAnalysis, named: dict[str, Any]) -> tuple[list[str], list[Any]]:
    """Return which parts are not where they should be yet, and what must be waited for."""
    run, plan = found.run, found.plan
    not_in: list[str] = []
    waits: list[Any] = []
    if found.heater and not found.timer("heat"):
        not_in.append("outer")
    elif run.outer().c < plan.target_c - READY_K:
        left = run.ready_in_s()
        values = {
            **named,
            "left": duration(left or 0.0, shared_messages.half(plan.soak) if plan.soak else None),
            "target": celsius(plan.target_c),
        }
        waits.append(lazily(messages.WAITS, "outer" if left else "outer_reads", values))
    if plan.chill and not found.timer("chill"):
        not_in.append("partner")
    elif plan.chill and run.inner().c > plan.chill_c + READY_K and run.inner_in:
        left = run.inner_in.reaches_in_s(plan.chill_c, found.now) or 0.0
        waits.append(lazily(messages.WAITS, "partner", {**named, "left": duration(left, shared_messages.half(plan.chill))}))
    return not_in, waits


def _heating(found: SingleSeatAnalysis, questions: list[Question]) -> Verdict:
    stopped = _too_far(found)
    if stopped:
        return stopped
    run, plan, named = found.run, found.plan, names(found)
    here, judgment = run.here, run.call
    scale = _scale(found, here.clearance_mm, here.spread_mm)
    if found.coarse:
        return Verdict(State.TOO_CLOSE, Code.UNSURE, shared_messages.coarse(found.coarse), "coarse", "coarse", scale=scale)
    lay_out = "lay_out_circlip" if found.has_circlip else "lay_out"
    not_in, waits = _waits(found, named)
    sure = shared_messages.promised(run.sure_for_s, plan.window)
    values = {
        **named,
        **_spare(here, measured=found.read_by_contact),
        "sure": sure,
        "seating": shared_messages.soon(plan.seating.low),
        "waits": waits,
    }
    if not_in or waits:
        values["not_in"] = [lazily(messages.NOT_IN, each, named) for each in not_in]
        values["not_yet"] = [lazily(messages.NOT_YET_IN, each, named) for each in not_in]
        if judgment.state == IN:
            values["later"] = shared_messages.promised(plan.sure_for_s, plan.window)
            step = "now_or_in" if not_in else "now_or_later"
            return Verdict(State.IN, _goes(found, IN), values, "already", step, lay_out, lay_out, scale)
        values |= {"now": mm(here.clearance_mm), "wanted": mm(plan.setup.wanted_mm)}
        step = "not_in_wait" if not_in and waits else "not_in" if not_in else "wait"
        return Verdict(State.WAIT, Code.NOT_YET, values, next=step, detail=lay_out, standing=lay_out, scale=scale)
    if judgment.state != IN:
        gains = shared_messages.helps(plan.wideners[:3], named)
        detail = "helps_now" if gains else ""
        return from_conformity(
            judgment, _goes(found, judgment.state), values={**values, "helps": gains}, next="longer", detail=detail, scale=scale
        )
    return Verdict(State.IN, _goes(found, IN), values, "to_spare", "out_oven" if found.heater else "out", "within", scale=scale)


def _window(found: SingleSeatAnalysis, questions: list[Question]) -> Verdict:
    run = found.run
    here, judgment = run.here, run.call
    scale = _scale(found, here.clearance_mm, here.spread_mm)
    values = {**_spare(here, measured=found.read_by_contact), "sure": shared_messages.promised(run.sure_for_s, found.plan.window)}
    if judgment.state == IN:
        return Verdict(State.IN, _goes(found, IN), values, "to_spare", "push_home", "say_jam", scale=scale)
    if judgment.state == TOO_CLOSE:
        return from_conformity(judgment, Code.UNSURE, next="one_try", detail="jam", scale=scale)
    return from_conformity(judgment, Code.SHUT, next=Code.SHUT, detail="jam", scale=scale)


def _after(found: SingleSeatAnalysis, questions: list[Question]) -> Verdict:
    if not found.went_in:
        code = Code.JAMMED if found.outcome == Code.JAMMED else Code.CROOKED
        return Verdict(State.OUT, code, {"clearance": mm(found.run.here.clearance_mm)}, detail="peels")
    if found.said(Property.CIRCLIP) == "loose":
        return Verdict(State.OUT, Code.CIRCLIP_LOOSE)
    seated = found.seated
    if seated is None:
        return Verdict(State.WAIT, Code.IS_IT_HOME, {"stop": stop_name(found)})
    values: dict[str, Any] = limit_values(seated, resolution=0.01)
    if seated.state != IN:
        code, step = (Code.NOT_HOME, "") if seated.state == OUT else (Code.UNSURE, "thinner")
        return from_conformity(seated, code, values=values, next=step)
    waiting = [question.text.lower() for question in questions if question.slot and question.slot.what != Property.NOTE]
    values["waiting"] = waiting
    detail = "agree_tapped" if found.outcome == "tapped" else "agree"
    return from_conformity(seated, Code.SEATED, values=values, next="to_do" if waiting else "sign", detail=detail)


def checks(found: SingleSeatAnalysis) -> tuple[SafetyWarning, ...]:
    """Return the checks before the heat, and what should be ready."""
    gates = shared_messages.gates(found.heater, [found.chiller.method] if found.chiller else [])
    return (*gates, *question_factory.checks(messages, "tools_circlip" if found.has_circlip else "tools", "bagged"))


def warnings(found: SingleSeatAnalysis) -> tuple[SafetyWarning, ...]:
    needed = []
    if found.heater and found.phase != Phase.AFTER:
        needed.append("hot")
    if found.chiller and found.is_live:
        needed.append("frost")
    if not found.trouble and found.planned.fit.outer_material.flammable:
        needed.append("magnesium")
    if found.phase in (Phase.PLAN, Phase.HEATING):
        needed.append("jam")
    values = dict(names(found))
    if not found.trouble and found.seat_known.mend != COMPOUND and warm_fit.may_creep(found.planned.fit):
        needed.append("creeps")
        values |= warm_fit.band_of(warm_fit.warm_fit(found.planned.fit))
    if found.phase == Phase.PLAN:
        needed.append("manual")
    return tuple(SafetyWarning(key, format_message(messages.WARNINGS[key], values)) for key in needed)


def sources(found: SingleSeatAnalysis) -> Iterator[Source]:
    """Yield where the numbers come from, in the order they build up."""
    if found.trouble:
        return
    yield from _of_the_fit(found)
    yield from _of_the_times(found)
    setup, bearing = found.plan.setup, found.planned.fit.bearing
    if found.plan.binding_limit:
        yield shared_messages.limit_trace(found.plan.binding_limit)
    if setup.cold_limits and setup.chilling:
        yield shared_messages.limit_trace(setup.cold_limits[0])
    values = {"understood": from_table("; ".join(bearing.understood)), "unknown": ", ".join(bearing.not_understood)}
    yield source("bearing_partly" if bearing.not_understood else "bearing", bearing.designation, values)
    if found.value(Property.AIR_TEMPERATURE) is None:
        yield source("air", known_exactly(celsius(setup.room_c)), estimated=True)


def _of_the_fit(found: SingleSeatAnalysis) -> Iterator[Source]:
    planned, plan, named = found.planned, found.plan, names(found)
    seat_fit, setup = planned.fit, plan.setup
    interference = fit_of_limits(seat_fit.inner.limits, seat_fit.outer.limits)
    of_fit = {"outer": seat_fit.outer.words, "inner": seat_fit.inner.words}
    if found.measured_at:
        where = format_message(messages.MEASURED_AT, {"station": station_name(found.measured_at)})
        of_fit["inner" if found.onto_shaft else "outer"] = where
    by_class = not (seat_fit.outer.measured and seat_fit.inner.measured)  # spread evenly over what the class allows
    ends = known_exactly(mm(interference.min_interference_mm)), known_exactly(mm(interference.max_interference_mm))
    yield source("grip", ends, of_fit, estimated=by_class)
    warm = warm_fit.warm_fit(seat_fit)
    yield source("warm", estimate_range(mm(warm.min_interference_mm), mm(warm.max_interference_mm)), estimated=True)
    stays = warm_fit.stays(seat_fit)
    if stays:
        pulls = {"case": _pull(stays.case_n), "crank": _pull(stays.crank_n)}
        yield source("stays", format_message(shared.STAYS[stays.where], {}), pulls, estimated=True)
    boss = bool(setup.heating and setup.heating.opening < 1)
    metal = {**named, "metal": from_table(seat_fit.outer_material.name), "rate": figure(1e6 * setup.outer_alpha, 1)}
    if setup.heating:
        metal["share"] = share(setup.heating.opening)
    yield source(
        "boss_opens" if boss else "opens",
        estimate(mm(found.opens_mm), 2 * setup.nominal_mm * setup.opening_alpha * setup.outer_u_k),
        metal,
        estimated=boss,
    )
    shrinks = estimate(mm(found.shrinks_mm), 2 * setup.nominal_mm * setup.inner_alpha * setup.inner_u_k)
    yield source("shrinks", shrinks, {**named, "metal": from_table(seat_fit.inner_material.name)})
    yield source("wanted", show(mm(setup.wanted_mm)), {"wanted": setup.wanted})
    uncertainties = {**named, "outer_u": kelvin(2 * setup.outer_u_k), "partner_u": kelvin(2 * setup.inner_u_k)}
    yield source("combined", f"± {show(mm(2 * plan.offering.spread_mm))}", uncertainties)


def _pull(force: Estimate) -> str:
    return rough_band(newtons(force.low), newtons(force.high))


def _of_the_times(found: SingleSeatAnalysis) -> Iterator[Source]:
    plan, named = found.plan, names(found)
    if found.hot:
        latest = found.hot[-1]
        by_contact = latest.corrected.get("means") == "contact"
        shown: str | Amount = latest.text
        if latest.value is not None:
            shown = celsius(latest.value) if by_contact else shared_messages.temperature_read(latest, latest.value)
        yield source("last", shown, {"note": shared_messages.note(latest)}, estimated=not by_contact)
    if found.is_live:
        drift = found.run.outer_out or found.run.outer_in
        if drift and drift.tau.likely < FOR_GOOD_S:
            rate = drift.rate()
            yield source(
                "rate",
                duration(rate.likely, shared_messages.half(rate)),
                {**named, "basis": from_table(rate.basis)},
                estimated=rate.estimated,
            )
    else:
        if plan.soak:
            yield source("soak", shared_messages.times(plan.soak), {"basis": from_table(plan.soak.basis)}, estimated=True)
        if plan.chill:
            yield source(
                "chill", shared_messages.times(plan.chill), {"basis": from_table(plan.chill.basis)}, estimated=plan.chill.estimated
            )
    yield source("window", shared_messages.times(plan.window), {"basis": from_table(plan.window.basis)}, estimated=True)
    yield source("home", shared_messages.times(plan.seating), {"basis": from_table(plan.seating.basis)}, estimated=True)


def derived(found: SingleSeatAnalysis) -> Iterator[Finding]:
    """Yield the fact that the bearing is seated, for other stations."""
    if found.is_home:
        yield Finding(found.slot(Property.BEARING_HOME), text="yes")


def note(found: SingleSeatAnalysis, reading: MeasuredReading) -> str:
    """Return the note on a temperature in the readings table."""
    return shared_messages.note(reading)


def history(found: SingleSeatAnalysis) -> list[dict[str, str]]:
    """Earlier heats with this heater as rows: when, how sure it was, what happened, how its rate compares."""
    rows = []
    for heat in found.past:
        speed = ""
        if heat.tau_ratio:
            table = messages.SLOWER if heat.tau_ratio > 1 else messages.QUICKER
            speed = format_message(table, {"share": estimate(share(abs(heat.tau_ratio - 1)), PACE_HALF_WIDTH)})
        happened = messages.HAPPENED.get(heat.outcome, heat.outcome)
        rows.append(
            {
                "when": short_day(heat.signed_at) if heat.signed_at else "",
                "tag": heat.tag,
                "entry": str(heat.entry),
                "predicted": show(chance(heat.confidence)),
                "happened": str(happened),
                "speed": speed,
            }
        )
    return rows
