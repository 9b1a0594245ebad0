"""The verdict of Close crankcase: what prevents closing, whether the torque is right, and the progress of tightening."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath.amounts import count, mm, newtons, rough, share
from shopmath.sealing import CRANK
from shopmath.verdict import Conformity
from stator.engines.fact_keys import FactKey
from stator.engines.properties import Property
from stator.jobs.facts import Finding
from stator.shop.models import Compound
from stator.stations.close_crankcase import messages
from stator.stations.close_crankcase.analysis import CANNOT_HOLD, DRY, ENGAGED_D, GASKET, ClosingAnalysis, Code, fault_of
from stator.stations.close_crankcase.questions import nm
from stator.stations.framework import (
    Alternative,
    MessageRef,
    Question,
    SafetyWarning,
    Source,
    State,
    Verdict,
    from_conformity,
    question_factory,
)
from stator.stations.framework.messages import format_message
from stator.ui.number_format import listed, minutes, show

source = partial(question_factory.source, messages)
MOST_PLACES = 4


def verdict(found: ClosingAnalysis, questions: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    stop = stopped(found)
    if stop:
        return stop
    if not found.is_closing:
        return _before(found, questions)
    if found.all_tight:
        return overall(found)
    values: dict[str, Any] = {"done": found.done, "to_do": found.to_do}
    opens = found.open_time
    if opens:
        values["open"] = format_message(messages.REASON[opens.code], _times(opens))
    state = State.TOO_CLOSE if opens and opens.state == State.TOO_CLOSE else State.WAIT
    reason = "progress_open" if opens else "progress"
    bolt = next((mark for mark in found.ordered if questions and questions[0].slot and questions[0].slot.part == mark.part), None)
    alternatives = (Alternative(fault_of(bolt), code="fault", values={"bolt": bolt.name}),) if bolt else ()
    return Verdict(state, Code.TIGHTEN, values, reason, "ask" if questions else "nothing", standing="bolts_left", ways=alternatives)


def overall(found: ClosingAnalysis) -> Verdict:
    """Return the verdict that is signed, on everything that is closed."""
    values = {"bolts": sum(len(each.ordered) for each in found.every), "rounds": len(found.rounds)}
    return Verdict(State.IN, Code.CLOSED, values)


def stopped(found: ClosingAnalysis) -> Verdict | None:
    """Return what must be corrected first; None if nothing."""
    failed = found.with_fault(*CANNOT_HOLD)
    if failed:
        bolt = failed[0]
        alternatives = (Alternative(fault_of(bolt), code="sound", values={"bolt": bolt.name}), Alternative(page="run"))
        return Verdict(State.STOP, Code.BOLT_FAULT, {"bolt": bolt.name}, found.fault(bolt), ways=alternatives)
    if found.on_the_tray and not found.is_closing:
        return _tray(found)
    if found.said(Property.GEARS) == "not":
        fault = found.said(Property.GEAR_FAULT)
        alternatives = (Alternative(found.of(Property.GEARS), code="gears"), Alternative(page="run"))
        return Verdict(State.STOP, Code.GEAR, {"fault": fault}, "" if fault else "gear_unknown", ways=alternatives)
    if not found.ordered:
        return Verdict(State.WAIT, Code.NO_BOLTS, ways=(Alternative(page="card"),))
    if found.joint_differs and not found.is_closing:
        counted = found.gasket_counted
        values = {"gasket": mm(counted.value or 0.0, 0.01)} if counted else {}
        return Verdict(
            State.STOP,
            Code.JOINT_DIFFERS,
            values,
            found.joint_differs,
            ways=(Alternative(choice=found.sealant_choice), Alternative(station="end-float")),
        )
    if found.films.unfit and not found.is_closing:
        named = {"sealant": found.films.unfit.product.name}
        return Verdict(State.STOP, Code.NOT_THERE, named, found.films.unfit.call.code, ways=(Alternative(choice=found.sealant_choice),))
    if found.is_stopped and found.worst_load:
        torque = Property.BOLT_TORQUE_INSTEAD if found.more_than_manual else Property.BOLT_TORQUE_WANTED
        other = Alternative(found.of(torque)) if found.more_than_manual or not found.by_card else Alternative(page="card")
        others: tuple[Alternative, ...] = (Alternative(choice="school", option="manual"), other, Alternative(choice="threads"))
        return from_conformity(found.worst_load, Code.TOO_MUCH, values=_forces(found.worst_load), next=Code.TOO_MUCH, ways=others)
    if found.open_time and found.open_time.state == State.STOP:
        return from_conformity(found.open_time, Code.SETTING, values=_times(found.open_time), next=Code.SETTING)
    return None


def _tray(found: ClosingAnalysis) -> Verdict:
    named = [f"{place.number} {place.name}" for place in found.on_the_tray[:MOST_PLACES]]
    more = len(found.on_the_tray) - len(named)
    if more > 0:
        return Verdict(
            State.STOP, Code.ON_THE_TRAY, {"places": ", ".join(named), "more": more}, "more_places", ways=(Alternative(page="tray"),)
        )
    return Verdict(State.STOP, Code.ON_THE_TRAY, {"places": listed(named)}, ways=(Alternative(page="tray"),))


def _forces(call: Conformity) -> dict[str, Any]:
    forces = {name: rough(newtons(value)) for name, value in call.values.items() if name != "part"}
    return {**forces, "part": messages.PART[call.values["part"]]}


def _times(call: Conformity) -> dict[str, Any]:
    return {name: minutes(value) for name, value in call.values.items()}


def _before(found: ClosingAnalysis, questions: list[Question]) -> Verdict:
    """Before the faces go together."""
    worst = found.worst_load
    values = _forces(worst) if worst else {}
    reason = worst.code if worst else "first"
    if questions:
        return Verdict(State.WAIT, Code.READY, values, reason, "ask")
    left = [warning.words for warning in checks(found) if warning.required and warning.key not in found.own.ticked]
    if left:
        return Verdict(State.WAIT, Code.READY, {**values, "required": left[0]}, "required", "tick")
    if found.sealant:
        values["sealant"] = listed([film.product.name for film in found.films])
    plan = found.plan
    if plan and plan.state == State.STOP:
        slow = (Alternative(choice=found.sealant_choice),)
        return Verdict(State.TOO_CLOSE, Code.TOO_LONG, {**_times(plan), "sealant": values["sealant"]}, ways=slow)
    move = {GASKET: "with_gasket", DRY: "with_nothing"}.get(found.between, "with_sealant")
    if move == "with_sealant" and found.films.wait_s:
        move, values["wait"] = "with_solvent", minutes(found.films.wait_s)
    move = "beads" if move in ("with_sealant", "with_solvent") and len(found.joints) > 1 else move
    state = State.TOO_CLOSE if worst and worst.state == State.TOO_CLOSE else State.WAIT
    assumed = (MessageRef("engaged", {"times": count(ENGAGED_D, 0.1)}),) if worst else ()
    return Verdict(state, Code.CLOSE, values, reason, move, assumed=assumed)


def checks(found: ClosingAnalysis) -> tuple[SafetyWarning, ...]:
    holes = {"holes": listed(found.holes)}
    rows = ((key, said, required) for key, (said, required) in messages.CHECKS.items() if key != "holes" or found.holes)
    return tuple(SafetyWarning(key, format_message(said, holes), required) for key, said, required in rows)


def warnings(found: ClosingAnalysis) -> tuple[SafetyWarning, ...]:
    silicone = any(film.product.kind == Compound.Kind.SILICONE and film.place == CRANK for film in found.films)
    softens = any(film.call.code == "softens_in_coolant" for film in found.films)
    skinned = found.said(Property.SQUEEZED_OUT) == "skinned"
    sealed = (*(("petrol",) if silicone else ()), *(("coolant",) if softens else ()), *(("meet",) if found.films.must_not_meet else ()))
    missing = found.with_fault("missing")
    named = format_message(messages.WARNINGS["missing"], {"bolts": listed([mark.name for mark in missing])})
    inside = ("skinned",) if skinned else ("wipe",) if found.films and not found.faces_together else ()
    usual = question_factory.warnings(messages, *sealed, *inside, "impact", "manual")
    return (*((SafetyWarning("missing", named),) if missing else ()), *usual)


def derived(found: ClosingAnalysis) -> Iterator[Finding]:
    """That the case is closed, for what is only done to a closed case."""
    for each in found.every:
        for joint in each.joints if each.all_tight else ():
            yield Finding(FactKey(joint.part, Property.CASE_CLOSED), text="yes")


def sources(found: ClosingAnalysis) -> Iterator[Source]:
    for mark, load in found.loads:
        forces = rough(newtons(load.preload_n.low)), rough(newtons(load.preload_n.high))
        values = {"thread": mark.thread, "torque": nm(found.torque(mark)), "times": count(ENGAGED_D, 0.1)}
        values |= {"proof": newtons(load.proof_n), "strip": newtons(load.strip_n)}
        yield source("load", forces, values, estimated=True)
    if found.ordered:
        why = found.said(Property.REASON)
        code = ("more" if why else "no_reason") if found.more_than_manual else "card" if found.by_card else "typed"
        rounds = ", ".join(show(share(each)) for each in found.rounds)
        yield source("rounds", rounds, {"origin": format_message(messages.ORIGIN[code], {"why": why})})
    for film in found.films:
        opens = minutes(film.product.open_s) if film.product.open_s else messages.UNKNOWN
        yield source("open", opens, {"sealant": film.product.name})
        values = {
            "place": messages.PLACE[film.place],
            "clean": messages.CLEAN[film.product.kind],
            "gap": rough(mm(film.by_table.gap_mm.likely, 0.01)),
        }
        yield source("film", film.product.name, values, estimated=True)
