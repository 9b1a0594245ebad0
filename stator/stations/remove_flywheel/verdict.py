"""The verdict in each phase of a pull, its checks and warnings, and the sources of its numbers."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath.amounts import DOWN, Amount, celsius, count, degrees, known_exactly, mm, newton_metres, newtons, quarters, rough, thread_size
from shopmath.flywheel_pulling import BOSS, PLAY_MM, PullerLoad
from shopmath.taper import key_shift_deg
from shopmath.verdict import Conformity
from stator.engines.fact_keys import FactKey
from stator.engines.parts import FLYWHEEL
from stator.engines.properties import Property
from stator.jobs.facts import MeasuredReading
from stator.stations.framework import Alternative, Finding, MessageRef, Question, SafetyWarning, Source, State, Verdict, question_factory
from stator.stations.framework.messages import format_message
from stator.stations.remove_flywheel import messages
from stator.stations.remove_flywheel.analysis import WARM_C, Code, FlywheelRemovalAnalysis, at
from stator.ui.number_format import rough_band
from stator.ui.table_texts import from_table

source = partial(question_factory.source, messages)


def verdict(found: FlywheelRemovalAnalysis, questions: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    if found.is_free:
        return _off(found, questions)
    if found.is_wrong:
        return _wrong(found)
    if found.pull is None:
        puller = found.match("puller")
        values: dict[str, Any] = {"thread": puller.designation} if puller else {}
        return Verdict(
            State.WAIT, Code.WHICH_THREAD, values, "puller_is" if puller else "nothing_measured", "ask" if questions else "measure"
        )
    if found.is_dirty and found.torque_nm is None and found.depth_turns:
        values = {"turns": quarters(found.turns or 0), "depth": count(found.depth_turns), **_more(found.pull)[1]}
        cleaned = (Alternative(at(Property.PULLER_TURNS), code="cleaned"),)
        return Verdict(State.TOO_CLOSE, Code.CLEAN_FIRST, values, "bound_early", "clean", _more(found.pull)[0], ways=cleaned)
    judgment = found.torque_call
    return _pulling(found.pull, judgment) if judgment else _weighed(found, found.pull)


def _wrong(found: FlywheelRemovalAnalysis) -> Verdict:
    same = found.same
    assert same is not None
    bound = format_message(messages.BOUND, {"turns": quarters(found.turns)}) if found.turns else ""
    hands = {f"{side}_hand": messages.HAND_NAME[found.hand(what)] for side, what in _HANDS.items()}
    code, move = (Code.WRONG_SIZE, "other_size") if found.is_wrong_size else (Code.WRONG_THREAD, "other_puller")
    alternatives = (
        *(Alternative(at(what)) for what in _SIZES if found.own.has(at(what))),
        Alternative(choice="puller"),
        Alternative(page="shop"),
    )
    return Verdict(State.STOP, code, {**same.values, **hands, "bound": bound}, same.code, move, assumed=_assumed(found), ways=alternatives)


_SIZES = (Property.PULLER_DIAMETER, Property.PULLER_PITCH, Property.BOSS_PITCH)
_HANDS = {"puller": Property.PULLER_HAND, "boss": Property.BOSS_HAND}


def _assumed(found: FlywheelRemovalAnalysis) -> tuple[MessageRef, ...]:
    return (MessageRef("hand"),) if found.hand_assumed else ()


def _pulling(pull: PullerLoad, call: Conformity) -> Verdict:
    """A torque is on the centre screw."""
    detail, more = _releases(pull)
    values = {**call.values, **more}
    if call.state == State.STOP:
        return Verdict(
            State.STOP, Code.STOP, values, call.code, "unload", ways=(Alternative(at(Property.PULLING_TORQUE)), Alternative(page="run"))
        )
    if call.state == State.OUT:
        return Verdict(State.TOO_CLOSE, Code.HOLDS_HARD, values, call.code, "warm")
    return Verdict(State.IN, Code.PULLING, values, call.code, "quarter_turn", detail)


def _weighed(found: FlywheelRemovalAnalysis, pull: PullerLoad) -> Verdict:
    """The thread against the taper, before anything is loaded."""
    move, more = _more(pull)
    detail, releases = _releases(pull)
    values: dict[str, Any] = {**more, **releases, **pull.call.values, "stop": rough(newton_metres(pull.stop_nm), DOWN)}
    if pull.call.state == State.STOP:
        alternatives = (Alternative(at(Property.PULLER_TURNS), code="further_in"), Alternative(choice="puller"))
        return Verdict(State.STOP, Code.MORE_THREAD, values, pull.call.code, move, assumed=_assumed(found), ways=alternatives)
    if pull.call.state == State.TOO_CLOSE:
        step = move if pull.turns_wanted else "go_slowly"
        return Verdict(State.TOO_CLOSE, Code.UNSURE, values, pull.call.code, step, detail, assumed=_assumed(found))
    values["frees"] = rough(newton_metres(pull.frees_nm.high)) if pull.frees_nm else ""
    return Verdict(State.IN, Code.THREAD_HOLDS, values, pull.call.code, "load_in_steps", detail, assumed=_assumed(found))


def _more(pull: PullerLoad) -> tuple[str, dict[str, Any]]:
    """Return what more turns would add."""
    values = {"per_turn": rough(newtons(pull.per_turn_n), DOWN)}
    if pull.turns_wanted and pull.turns_wanted > pull.turns:
        return "more_turns", {**values, "more": pull.turns_wanted - pull.turns, "needed": pull.turns_wanted}
    return "further_in", values


def _releases(pull: PullerLoad) -> tuple[str, dict[str, Amount]]:
    """Return the torque at which it may release and the torque limit, with names that differ from those of the reason."""
    stop = {"stop": rough(newton_metres(pull.stop_nm), DOWN)}
    if not pull.frees_nm:
        return "stop_at", stop
    frees = pull.frees_nm
    return "releases", {**stop, "from_nm": rough(newton_metres(frees.low)), "likely_nm": rough(newton_metres(frees.likely))}


def _off(found: FlywheelRemovalAnalysis, questions: list[Question]) -> Verdict:
    """Once it is off: damage first, then what is still to be looked at."""
    if found.faults:
        first, *others = found.faults
        values: dict[str, Any] = {"others": " ".join(str(messages.REASON[fault]) for fault in others)}
        return Verdict(State.OUT, Code.OFF_DAMAGED, values, first, "raise_it", "faults" if others else "")
    detail, hard = _hard(found)
    if any(not question.optional for question in questions):
        return Verdict(State.WAIT, Code.LOOK_AT_IT, hard, reason="look_first", next="ask", detail=detail)
    if found.step_mm:
        shift = found.shift_deg
        shifted: dict[str, Any] = {"shift": degrees(abs(shift), 0.1) if shift else "", "step": mm(found.step_mm, 0.01)}
        return Verdict(State.IN, Code.OFF_STEPPED, {**shifted, **hard}, "stepped" if shift else "stepped_unknown", "keep_key", detail)
    return Verdict(State.IN, Code.OFF, hard, reason="all_looked_at", next="sign", detail=detail)


def _hard(found: FlywheelRemovalAnalysis) -> tuple[str, dict[str, Any]]:
    """A remark where it released far above what was expected."""
    if not found.released_hard or found.pull is None or found.pull.frees_nm is None:
        return "", {}
    values = {"torque": newton_metres(max(found.torques_nm)), "expected": rough(newton_metres(found.pull.frees_nm.high))}
    return "released_hard", values


def checks(found: FlywheelRemovalAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.checks(messages)


def warnings(found: FlywheelRemovalAnalysis) -> tuple[SafetyWarning, ...]:
    keys = ("magnets",) if found.is_free else ("blows", "warm", "manual")
    return tuple(SafetyWarning(key, format_message(messages.WARNINGS[key], {"warm": celsius(WARM_C)})) for key in keys)


def derived(found: FlywheelRemovalAnalysis) -> Iterator[Finding]:
    """That the flywheel is off, for the stations that need it so."""
    if found.is_free:
        yield Finding(FactKey(FLYWHEEL, Property.FLYWHEEL_OFF), text="yes")
    if found.own.said(at(Property.KEY_CONDITION)) == "sheared":
        yield Finding(FactKey(FLYWHEEL, Property.REPLACED), text="key")


def note(found: FlywheelRemovalAnalysis, reading: MeasuredReading) -> str:
    """Return a note on a reading: the nearest standard thread, or the effect of an offset."""
    if reading.slot.what in (Property.PULLER_DIAMETER, Property.PULLER_PITCH, Property.BOSS_DIAMETER, Property.BOSS_PITCH):
        match = found.match("puller" if reading.slot.what.value.startswith("puller") else "boss")
        return format_message(messages.NEAREST, {"thread": match.designation}) if match else ""
    if reading.slot == at(Property.KEY_STEP) and reading.value and found.card.shaft_d_mm:
        return format_message(messages.SHIFTS, {"shift": degrees(key_shift_deg(reading.value, found.card.shaft_d_mm), 0.1)})
    return ""


def sources(found: FlywheelRemovalAnalysis) -> Iterator[Source]:
    for side in ("puller", "boss"):
        match = found.match(side)
        if match:
            off = {"diameter": thread_size(match.diameter_error_mm), "pitch": thread_size(match.pitch_error_mm, 0.001)}
            yield source(side, match.designation, {"system": match.system, **off})
    if found.is_wrong:
        yield source("play", known_exactly(mm(PLAY_MM, 0.01)), estimated=True)
    if found.pull:
        strength, needed = found.pull.strength, found.pull.wanted
        yield source(
            "strength", _band(strength.low, strength.high), {"turns": found.pull.turns, "basis": from_table(strength.basis)}, estimated=True
        )
        if needed:
            basis = {"basis": from_table(needed.basis), "source": found.card.flywheel_source or messages.CARD}
            yield source("wanted", _band(needed.low, needed.high), basis, estimated=True)
        yield source("stop" if found.pull.stop_by == BOSS else "stop_screw", rough(newton_metres(found.pull.stop_nm), DOWN), estimated=True)


def _band(low_n: float, high_n: float) -> str:
    return rough_band(newtons(low_n), newtons(high_n))
