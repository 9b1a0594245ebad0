"""Actions of Close crankcase: close the mating surfaces, sign after every bolt is tightened."""

from __future__ import annotations

from typing import Any

from stator.engines.properties import Property
from stator.jobs import log
from stator.stations.close_crankcase import messages
from stator.stations.close_crankcase.analysis import CANNOT_HOLD, EACH_CLOSING, OPEN, ClosingAnalysis, Code, Hands, fault_of, torque_of
from stator.stations.framework import Action, BoundStation, State, timers
from stator.stations.framework.messages import format_message
from stator.stations.framework.remeasure import request_remeasurement


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: ClosingAnalysis = bound.analysis
    again = Action("again", str(messages.ACTION["again"]), "again", bound.current_verdict.code == Code.SETTING, do=begin_again)
    if all(each.all_tight for each in found.every):
        return (bound.sign_action(), again)
    if found.is_closing:
        return (*_round(bound), again)
    if not found.bolts_can_be_asked:
        return ()
    stopped = bound.current_verdict.reason if bound.current_verdict.state == State.STOP else ""
    beads = "beads" if len(found.joints) > 1 else "sealed"
    name = str(messages.ACTION[beads if found.sealant else "close"])
    return (Action("close", name, "close", True, bound.blocking_check() or stopped or bound.unanswered_message(), close),)


def _round(bound: BoundStation) -> tuple[Action, ...]:
    """Return the action for a round in which no bolt failed.

    A bolt that did is tapped, and its torque typed, before.
    """
    found: ClosingAnalysis = bound.analysis
    number = found.round_now
    if number is None or not found.bolts_can_be_asked:
        return ()
    stopped = bound.current_verdict.reason if bound.current_verdict.state == State.STOP else ""
    text = format_message(messages.ACTION["round"], {"round": number, "rounds": len(found.rounds), "bolts": len(found.left_in(number))})
    return (Action("round", text, "round", False, stopped, do=round_done),)


def round_done(bound: BoundStation) -> None:
    """Record that every remaining bolt of this round was tightened to the torque of the round, without a measured torque."""
    found: ClosingAnalysis = bound.analysis
    number = found.round_now or 1
    done = [torque_of(mark, number).key for mark in found.left_in(number)]
    bound.choose(skipped=[*bound.answers.skipped, *done])


def kept(bound: BoundStation, reading: Any) -> None:
    """Tighten a bolt that failed from its first round after it was repaired."""
    found: ClosingAnalysis = bound.analysis
    bolt = next((mark for mark in found.ordered if fault_of(mark).key == reading.ask), None)
    if bolt and reading.text in CANNOT_HOLD:
        rounds = [torque_of(bolt, number) for number in range(1, len(found.rounds) + 1)]
        request_remeasurement(bound, rounds)
        bound.choose(skipped=[key for key in bound.answers.skipped if key not in {fact_key.key for fact_key in rounds}])


def close(bound: BoundStation) -> None:
    """The faces go together; a sealant that sets gets its clock."""
    found: ClosingAnalysis = bound.analysis
    bound.record_action(Hands.CLOSING, None if found.joints[0].is_first else found.of(Property.CASE_CLOSED))
    if found.films.open_s:
        timers.start(bound, found.clock_key, "wait", found.films.open_s, OPEN)


def begin_again(bound: BoundStation) -> None:
    """Open the case again: mating surfaces, gears and bolts are done again, and what was done before remains recorded."""
    for timer in bound.timers:
        log.stop_timer(timer, bound.now)
    found: ClosingAnalysis = bound.analysis
    bolts = {mark.part.key for mark in found.ordered}
    anew = [key for key in bound.answers.skipped if _is_done_anew(key, bolts, found)]
    entry = bound.next_attempt(skipped=[key for key in bound.answers.skipped if key not in anew])
    if len(found.every) > 1:
        more: dict[str, Any] = {"slot": found.of(Property.CASE_CLOSED), "attempt": entry.attempt, "at": bound.now}
        log.record_move(entry, bound.person, Hands.AGAIN, **more)
    log.untick(bound.open_entry)


def may_sign(bound: BoundStation) -> str:
    return "" if all(each.all_tight for each in bound.analysis.every) else str(messages.NOT_ALL)


def _is_done_anew(key: str, bolts: set[str], found: ClosingAnalysis) -> bool:
    """Return True if a skipped question is asked again, which concerns only the joints being closed."""
    what, _, rest = key.partition(".")
    if what == Property.BOLT_TORQUE:
        return rest.partition(".")[0] in bolts
    return what in EACH_CLOSING and not found.is_outside
