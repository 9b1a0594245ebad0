"""The verdict on a ring installed cold: its force, whether heat is better, whether it starts square, whether it is seated."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath import __version__ as core_version
from shopmath.amounts import DOWN, UP, celsius, mm, newton_metres, newtons, rough
from shopmath.estimate import Estimate
from shopmath.verdict import Conformity
from stator.engines.fact_keys import Location
from stator.engines.properties import Property
from stator.jobs.facts import Finding
from stator.stations.common.seat_state import COMPOUND
from stator.stations.framework import Alternative, MessageRef, Question, SafetyWarning, Scale, Source, State, Verdict, question_factory
from stator.stations.framework.limits import limit_values
from stator.stations.framework.messages import format_message
from stator.stations.install_without_heat import messages
from stator.stations.install_without_heat.analysis import (
    CLOCKS,
    DRAW,
    FAILED,
    FIRST,
    LEVEL_MM,
    LOOSE,
    PRESS,
    SEATED_MM,
    STARTING,
    Code,
    ColdFitAnalysis,
)
from stator.stations.install_without_heat.questions import whole_turns
from stator.ui.number_format import band, bare, rough_band, show, stress
from stator.ui.table_texts import from_table

source = partial(question_factory.source, messages)
HEAT = (Alternative(station="heat-and-drop"),)  # no way on for a drawn cup, which has no size to reckon heat with


def verdict(found: ColdFitAnalysis, questions: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    if found.outcome:
        return _after(found, questions)
    if found.trouble:
        return Verdict(State.STOP, Code.NO_PLAN, {"said": found.trouble.message}, ways=(Alternative(page="card"),))
    if found.seat_known.is_condemned:
        return Verdict(State.STOP, Code.SEAT_IS_OUT, ways=(Alternative(station="inspect"), Alternative(page="run")))
    if found.holds_nothing and found.seat_known.mend != COMPOUND:
        alternatives = (Alternative(found.slot(Property.SEAT_SIZE)), Alternative(station="inspect"))
        return Verdict(State.OUT, Code.NOTHING_HOLDS, _grip(found), "no_grip", "mend", ways=alternatives)
    if found.starts is not None:
        return _started(found, questions)
    return _plan(found, questions)


def _forces(force: Estimate) -> dict[str, Any]:
    return {"low": rough(newtons(force.low)), "likely": rough(newtons(force.likely)), "high": rough(newtons(force.high))}


def _grip(found: ColdFitAnalysis) -> dict[str, Any]:
    lowest, _, highest = found.grip_mm or (0.0, 0.0, 0.0)
    return {"least": mm(lowest), "most": mm(highest)}


def _assumed(found: ColdFitAnalysis) -> tuple[MessageRef, ...]:
    seat = found.seat
    marking = [MessageRef("marking", {"marking": seat.marking})] if seat.marking_is_typical else []
    code = [MessageRef("code", {"code": seat.code})] if seat.code_assumed and found.seat_known.size is None else []
    wall = [MessageRef("wall", {"wall": mm(found.wall_mm, 0.1)})] if found.known_wall is None and not found.onto_shaft else []
    metal = [MessageRef("metal")] if found.given.card.case_material_assumed and not found.onto_shaft else []
    return (*marking, *code, *wall, *metal)


def _plan(found: ColdFitAnalysis, questions: list[Question]) -> Verdict:
    """Before it is started: the force, and whether heat would do it better."""
    how = _how(found)
    step = "required" if found.unchecked and not _sizes_open(questions) else "ask" if _sizes_open(questions) else "push"
    values: dict[str, Any] = {**how, "required": _required(found)}
    if found.force is None or found.instead is None:
        return Verdict(State.WAIT, Code.FORCE_UNKNOWN, values, "cup_unknown", step, assumed=_assumed(found))
    values |= {**_forces(found.force), **_grip(found), "case": celsius(found.instead.case_c)}
    more: dict[str, Any] = {"assumed": _assumed(found)}
    if found.way == PRESS and found.press is None:
        return Verdict(
            State.STOP, Code.NO_PRESS, values, "takes", "another_way", ways=(Alternative(choice="way"), Alternative(page="shop")), **more
        )
    able = found.able_n
    if able is not None:
        values["able"] = rough(newtons(able), DOWN)
        more["scale"] = Scale(found.force.likely, found.force.high - found.force.likely, None, able, "N", 0)
    warm = "warm_ring" if found.onto_shaft else "warm_case"
    codes = () if found.bearing.is_drawn_cup else found.instead.codes
    warmer = () if found.bearing.is_drawn_cup else HEAT
    if able is not None and found.force.likely > able:
        alternatives, move = (
            (*warmer, Alternative(choice="way"), Alternative(page="run")),
            "another_way" if found.bearing.is_drawn_cup else warm,
        )
        return Verdict(
            State.STOP, Code.NOT_COLD, {**values, "way": messages.WAY[found.way]}, "beyond_reach", move, ways=alternatives, **more
        )
    if codes:
        values |= {
            "stress": stress(found.instead.stress_mpa),
            "yields": stress(found.instead.yield_mpa or 0.0),
            "way": messages.WAY[found.way],
        }
        return Verdict(State.TOO_CLOSE, Code.WARM_IS_BETTER, values, codes[0], warm, step, ways=(*HEAT, Alternative(choice="way")), **more)
    return Verdict(State.IN, Code.GOES, values, "takes", step, "screw" if found.draw else "", **more)


def _sizes_open(questions: list[Question]) -> bool:
    """Return True if sizes or a screw are asked, before anything is pushed."""
    first = questions[0].slot if questions else None
    return bool(first and not (first.what == Property.SEATING_DEPTH or first.what == Property.FIT_OUTCOME))


def _required(found: ColdFitAnalysis) -> str:
    left = [key for key in FIRST if key in found.unchecked]
    return format_message(messages.CHECKS[left[0]][0], _check_values(found)) if left else ""


def _how(found: ColdFitAnalysis) -> dict[str, Any]:
    """Return what it is pushed with, and where the driver lands."""
    window = found.window
    sizes = {"low": mm(window.outside_low_mm, 1), "high": mm(window.outside_high_mm, 1), "inside": mm(window.inside_low_mm, 1)}
    driver = (
        format_message(messages.DRIVER, {"name": found.fitting[0].name}) if found.fitting else format_message(messages.ANY_DRIVER, sizes)
    )
    values: dict[str, Any] = {"driver": driver, "ring": messages.RING[window.presses_on], "way": messages.WAY[found.way]}
    if found.draw:
        torque = found.draw.torque_nm
        values |= {
            "turns": whole_turns(found.draw.turns),
            "torque_high": rough(newton_metres(torque.high)),
            "home": rough(newton_metres(found.draw.home_nm)),
        }
    return values


def _limit(call: Conformity) -> dict[str, Any]:
    return limit_values(call, "length", 0.01)


def _started(found: ColdFitAnalysis, questions: list[Question]) -> Verdict:
    """Return the verdict on its position at the start."""
    judgment = found.starts
    assert judgment is not None
    values = {**_how(found), **_limit(judgment), "required": _required(found), "high_at": _highest(found)}
    if judgment.state == State.OUT:
        again = Alternative(found.slot(Property.SEATING_DEPTH, Location(clock=CLOCKS[0], stage=STARTING)))
        return Verdict(State.OUT, Code.STARTS_CROOKED, values, judgment.code, "start_again", ways=(again,))
    code = Code.STARTED if judgment.state == State.IN else Code.STARTS_UNSURE
    step = "required" if found.unchecked else "by_screw" if found.draw else "on"
    return Verdict(State(judgment.state), code, values, judgment.code, step, "watch" if found.force else "", assumed=_assumed(found))


def _highest(found: ColdFitAnalysis) -> int:
    """Return the clock position at which it projects most at the start."""
    depths = {clock: found.fact(Property.SEATING_DEPTH, Location(clock=clock, stage=STARTING)) for clock in CLOCKS}
    return max(CLOCKS, key=lambda clock: (depths[clock].value or 0.0) if depths[clock] else 0.0)  # type: ignore[union-attr]


def _after(found: ColdFitAnalysis, questions: list[Question]) -> Verdict:
    """Return whether it is seated, and whether the force agrees with the expected one."""
    values: dict[str, Any] = {**_how(found), **(_forces(found.force) if found.force else {}), "way": messages.WAY[found.way]}
    if found.outcome in FAILED:
        alternatives = (
            (Alternative(station="inspect"), Alternative(page="run"))
            if found.outcome == LOOSE
            else ()
            if found.bearing.is_drawn_cup
            else HEAT
        )
        return Verdict(State.OUT, FAILED[found.outcome], values, found.outcome, f"after_{found.outcome}", ways=alternatives)
    if found.by_screw == "binds" and found.draw:
        values |= {"done": whole_turns(found.turned or 0.0), "felt": newton_metres(found.felt_nm or 0.0)}
        return Verdict(State.OUT, Code.BINDS, values, "binds", "back_it_out", ways=(Alternative(found.slot(Property.SCREW_TURNS_DONE)),))
    if any(not question.optional for question in questions):
        detail = "short_turns" if found.by_screw == "goes_on" else ""
        done = {"done": whole_turns(found.turned or 0.0)}
        return Verdict(State.WAIT, Code.IS_IT_HOME, {**values, **done}, "not_checked", "ask", detail)
    if found.said(Property.CIRCLIP) == "loose":
        return Verdict(State.OUT, Code.CIRCLIP_LOOSE, values, "circlip", "seat_circlip", ways=(Alternative(found.slot(Property.CIRCLIP)),))
    if found.stands_proud:
        return Verdict(State.OUT, Code.NOT_HOME, values, "proud", "push_on", ways=(_lies(found),))
    seated = found.seated
    assert seated is not None
    values |= _limit(seated)
    value, high = values["value"], LEVEL_MM if found.is_through else SEATED_MM
    scale = Scale(value.value, value.uncertainty or 0.0, None, high, "mm", 2)
    if seated.state == State.OUT:
        return Verdict(State.OUT, Code.NOT_HOME, values, seated.code, "push_on", scale=scale, ways=(_lies(found),))
    if found.by_force == "loose":
        values |= {"peak": newtons(found.peak_n or 0.0)}
        return Verdict(State.TOO_CLOSE, Code.TOO_LITTLE_FORCE, values, "little_force", "measure_or_sign", ways=(Alternative(page="run"),))
    return Verdict(
        State(seated.state), Code.HOME, values, seated.code, "sign", "force_high" if found.by_force == "binds" else "", scale=scale
    )


def _lies(found: ColdFitAnalysis) -> Alternative:
    what = Property.SEATING_DEPTH if found.is_through else Property.SEATING_GAP
    return Alternative(found.slot(what, Location(clock=CLOCKS[0])))


def _check_values(found: ColdFitAnalysis) -> dict[str, Any]:
    if found.is_plain:
        return {"end": messages.PLAIN_END}
    ring = {"ring": messages.RING[found.window.presses_on]}
    return {"end": messages.CUP_END if found.bearing.is_drawn_cup else format_message(messages.RING_END, ring)}


def checks(found: ColdFitAnalysis) -> tuple[SafetyWarning, ...]:
    values = _check_values(found)
    return tuple(SafetyWarning(key, format_message(said, values), required) for key, (said, required) in messages.CHECKS.items())


def warnings(found: ColdFitAnalysis) -> tuple[SafetyWarning, ...]:
    if found.outcome:
        return ()
    return question_factory.warnings(messages, found.way, *(("cup",) if found.bearing.is_drawn_cup else ()), "manual")


def derived(found: ColdFitAnalysis) -> Iterator[Finding]:
    """Yield the fact that the bearing is seated, for other stations."""
    if found.is_home:
        yield Finding(found.slot(Property.BEARING_HOME), text="yes")


def sources(found: ColdFitAnalysis) -> Iterator[Source]:
    if found.trouble:
        return
    interference, cold = found.grip_mm, found.cold
    if interference and cold and found.force and found.instead:
        by = found.fit.outer.words if found.fit else found.seat.code
        yield source(
            "grip",
            band(mm(interference[0]), mm(interference[2])),
            {"seat": by, "ring": found.fit.inner.words if found.fit else messages.MEASURED},
        )
        yield source("force", rough_band(newtons(found.force.low), newtons(found.force.high)), {"basis": from_table(found.force.basis)})
        measured = found.known_wall is not None or found.onto_shaft
        yield source(
            "boss", rough(mm(cold.boss_outside_mm, 0.1)) if not measured else mm(cold.boss_outside_mm, 0.1), estimated=not measured
        )
        yield source("inside", rough(mm(cold.raceway_mm, 0.1)), estimated=True)
        if found.instead.yield_mpa:
            yield source("stress", stress(found.instead.stress_mpa), {"yields": stress(found.instead.yield_mpa)})
        if not found.onto_shaft:
            yield source("warm", show(celsius(found.instead.case_c)))
    if found.draw:
        torque = found.draw.torque_nm
        yield source("turns", bare(whole_turns(found.draw.turns)), {"travel": mm(found.travel_mm, 0.1)})
        yield source("torque", rough_band(newton_metres(torque.low), newton_metres(torque.high)), {"basis": from_table(torque.basis)})
        yield source("home", rough(newton_metres(found.draw.home_nm)), estimated=True)
    yield source("lean", rough(mm(found.lean_limit_mm, 0.01), DOWN), estimated=True)
    window = found.window
    outside = mm(window.outside_low_mm, 0.1, toward=UP), mm(window.outside_high_mm, 0.1, toward=DOWN)
    yield source("driver", outside, {"on": messages.RING[window.presses_on], "basis": from_table(window.basis)}, estimated=True)
    named = ", ".join(each.name for each in found.fitting[:3]) or messages.NONE_FITS
    yield source("shelf", str(len(found.fitting)), {"names": named})


def result(found: ColdFitAnalysis) -> dict[str, Any]:
    """Return the basis of the verdict and its outcome, with units in the names: `fit-cold/1`."""
    interference, force, seated, draw = found.grip_mm, found.force, found.seated, found.draw
    return {
        "schema": "fit-cold/1",
        "core_version": core_version,
        "on": found.seat.on,
        "bearing": found.bearing.designation,
        "way": found.way,
        "oiled": found.is_oiled,
        "interference_mm": [round(each, 4) for each in interference] if interference else None,
        "wall_mm": None if found.onto_shaft else round(found.wall_mm, 2),
        "wall_measured": found.known_wall is not None,
        "force_n": [round(each) for each in (force.low, force.likely, force.high)] if force else None,
        "peak_n": found.peak_n,
        "turns_expected": round(draw.turns, 2) if draw else None,
        "turns": found.turned,
        "home_nm": round(draw.home_nm, 1) if draw else None,
        "torque_nm": found.felt_nm,
        "said_by_screw": found.by_screw if found.way == DRAW else "",
        "outcome": found.outcome,
        "seated_state": seated.state if seated else "not_checked",
    }
