"""The verdict of Install crank: whether it may be pulled, how the pull proceeds, whether it is seated."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath.amounts import DOWN, Amount, count, known_exactly, mm, newton_metres, rough, thread_size
from shopmath.crank_installation import LEAD_MM, InTurn
from shopmath.verdict import Conformity
from stator.engines.fact_keys import FactKey
from stator.engines.parts import CRANK
from stator.engines.properties import Property
from stator.jobs.facts import Finding
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
from stator.stations.install_crank import messages
from stator.stations.install_crank.analysis import (
    DROP,
    FEWEST_TURNS,
    JOURNAL,
    NUT_RADIUS_MM,
    PULL,
    SCREW_MM,
    SEATED_MM,
    Code,
    CrankInstallationAnalysis,
)
from stator.ui.number_format import show

source = partial(question_factory.source, messages)
SIDES = {
    "home": Code.HOME,
    "not_home": Code.NOT_HOME,
    "too_close": Code.TOO_CLOSE,
    "against_float": Code.AGAINST_FLOAT,
    "one_side": Code.HOME,
    "one_side_unknown": Code.IS_IT_HOME,
    "over_float": Code.NOT_HOME,
}
STEPS = {
    "over_float": "over_float",
    "one_side": "one_side",
    "one_side_unknown": "one_side_unknown",
}
WRENCH = {
    "as_expected": (Code.AS_EXPECTED, "ask"),
    "binds": (Code.BINDS, Code.BINDS),
    "come_home": (Code.COME_HOME, "ask"),
    "felt_nothing": (Code.FELT_NOTHING, Code.FELT_NOTHING),
}


def verdict(found: CrankInstallationAnalysis, questions: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    if found.is_refused:
        alternatives = (Alternative(choice="school", option=PULL), Alternative(choice="school", option=DROP))
        return Verdict(
            State.STOP, Code.NOT_THAT_WAY, {}, found.way, "by_hand" if found.way == "impact" else "pull_or_drop", ways=alternatives
        )
    if found.sides:
        code = SIDES[found.sides.code]
        gaps = (
            () if found.sides.state == State.IN else tuple(Alternative(fact_key) for fact_key in found.gap_slots if found.own.has(fact_key))
        )
        return from_conformity(found.sides, code, values=sides_said(found, found.sides), next=STEPS.get(found.sides.code, code), ways=gaps)
    if found.way == DROP:
        return Verdict(State.WAIT, Code.DROP, next="once_cold" if questions else "nothing")
    if found.all_home:
        return Verdict(State.WAIT, Code.IS_IT_HOME, next="ask" if questions else "nothing")
    return _pulling(found, questions)


def sides_said(found: CrankInstallationAnalysis, call: Conformity) -> dict[str, Any]:
    """The gaps of both sides, for a sentence."""
    sizes = {name: mm(value, 0.01) for name, value in call.values.items() if name not in ("side", "where")}
    if "side" not in call.values:
        return sizes
    side = found.card.side(call.values["side"])
    return {**sizes, "side": format_message(messages.SIDE_OF[call.values["where"]], {"side": side}) if "where" in call.values else side}


def turn_said(found: CrankInstallationAnalysis, turn: InTurn) -> dict[str, Any]:
    """Return which end is ahead of which, for a sentence."""
    ends = {name: found.card.side(turn.call.values[name]) for name in ("ahead", "behind")}
    return {**ends, "side": found.card.side(turn.end), "lead": mm(turn.lead_mm, 0.1), "allowed": mm(LEAD_MM, 0.1)}


def thread_said(call: Conformity) -> dict[str, Any]:
    """Return why a thread is another, for a sentence."""
    return {name: thread_size(value) if name in ("adapter", "end") else value for name, value in call.values.items()}


def wrench_said(call: Conformity) -> dict[str, Amount]:
    return {name: count(max(value, 0.0), 0.1) if name == "left" else newton_metres(value) for name, value in call.values.items()}


def _pulling(found: CrankInstallationAnalysis, questions: list[Question]) -> Verdict:
    if found.tool is None:
        return Verdict(State.STOP, Code.NO_TOOL, ways=(Alternative(page="shop"), Alternative(choice="school", option=DROP)))
    if found.thread and found.thread_is_wrong:
        alternatives = (
            Alternative(choice="tool"),
            Alternative(found.at(Property.END_THREAD_DIAMETER)),
            Alternative(found.at(Property.END_THREAD_PITCH)),
        )
        return from_conformity(
            found.thread, Code.THREAD_DIFFERS, values=thread_said(found.thread), next=Code.THREAD_DIFFERS, ways=alternatives
        )
    if found.too_shallow:
        values = {"turns": count(found.turns_by_hand or 0.0), "fewest": count(FEWEST_TURNS)}
        return Verdict(
            State.STOP, Code.MORE_THREAD, values, ways=(Alternative(found.at(Property.ADAPTER_TURNS)), Alternative(choice="tool"))
        )
    if not found.has_begun:
        return Verdict(State.WAIT, Code.SET_UP, next="ask") if questions else _ready(found)
    binds = found.wrench is not None and found.wrench.state == State.STOP
    if found.turn and found.turn.call.state == State.STOP and found.end == found.turn.end and not binds:
        return Verdict(State.TOO_CLOSE, Code.OTHER_END, turn_said(found, found.turn), found.turn.call.code, Code.OTHER_END)
    if found.wrench:
        return _felt(found, found.wrench, questions)
    reason, values = _expected(found)
    return Verdict(State.WAIT, Code.PULL, values, reason, "ask" if questions else "nothing", assumed=_assumed(found))


def _ready(found: CrankInstallationAnalysis) -> Verdict:
    reason, values = _expected(found)
    left = [said for key, (said, required) in messages.CHECKS.items() if required and key not in found.own.ticked]
    if left:
        values["required"] = str(left[0])
    return Verdict(State.WAIT, Code.READY, values, reason, "required" if left else "begin", assumed=_assumed(found))


def _felt(found: CrankInstallationAnalysis, wrench: Conformity, questions: list[Question]) -> Verdict:
    """Return what the wrench says of the pull."""
    code, move = WRENCH[wrench.code]
    if wrench.state == State.IN and found.wanted_turns and found.done_turns >= found.wanted_turns:
        code = Code.COME_HOME
    move = "call_it_home" if move == "ask" and not questions else move
    return from_conformity(wrench, code, values=wrench_said(wrench), next=move)


def _expected(found: CrankInstallationAnalysis) -> tuple[str, dict[str, Any]]:
    """Return what the wrench should feel, before it has felt anything."""
    if found.torque is None:
        return "bearing_unknown", {}
    values: dict[str, Any] = {
        "low": rough(newton_metres(found.torque.expected.low)),
        "stop": rough(newton_metres(found.torque.stop_nm), DOWN),
    }
    if not found.wanted_turns:
        return "expected", values
    return "expected_turns", {**values, "wanted": count(found.wanted_turns, 0.1)}


def _assumed(found: CrankInstallationAnalysis) -> tuple[MessageRef, ...]:
    if found.torque is None:
        return ()
    screw = {"screw": mm(SCREW_MM, 1.0), "radius": mm(NUT_RADIUS_MM, 1.0)}
    return MessageRef("screw", screw), MessageRef("journal", {"code": JOURNAL})


def checks(found: CrankInstallationAnalysis) -> tuple[SafetyWarning, ...]:
    rows = messages.CHECKS_DROP if found.way == DROP else messages.CHECKS
    return tuple(SafetyWarning(key, str(said), required) for key, (said, required) in rows.items())


def warnings(found: CrankInstallationAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.warnings(
        messages, *(key for key in messages.WARNINGS if (found.both and not found.has_two) or key != "in_turn")
    )


def derived(found: CrankInstallationAnalysis) -> Iterator[Finding]:
    """Yield the fact that the crank is seated in its half, for other stations."""
    if found.sides and found.sides.state == State.IN:
        yield Finding(FactKey(CRANK, Property.CRANK_HOME), text="yes")


def sources(found: CrankInstallationAnalysis) -> Iterator[Source]:
    if found.end_thread:
        values = {"system": found.end_thread.system, "off": mm(found.end_thread.diameter_error_mm, 0.01)}
        yield source("end", found.end_thread.designation, values)
    if found.tool:
        adapter = {"diameter": thread_size(found.tool.thread_mm, 0.1), "pitch": thread_size(found.tool.thread_pitch_mm)}
        yield source("tool", show(thread_size(found.tool.pitch_mm)), {"tool": found.tool.name, **adapter})
    if found.torque and found.bearing and found.way == PULL:
        band = found.torque.expected
        values = {
            "low": rough(newton_metres(band.low)),
            "high": rough(newton_metres(band.high)),
            "code": JOURNAL,
            "bearing": found.bearing.designation,
        }
        yield source("torque", rough(newton_metres(band.likely)), values, estimated=True)
        yield source("screw", known_exactly(mm(SCREW_MM, 1.0)), {"radius": mm(NUT_RADIUS_MM, 1.0)}, estimated=True)
    if found.turn:
        yield source("in_turn", known_exactly(mm(LEAD_MM, 0.1)), turn_said(found, found.turn), estimated=True)
    if found.sides:
        yield source("gaps", show(mm(SEATED_MM, 0.01)))
