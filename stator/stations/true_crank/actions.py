"""Actions of True crank: another turn, the cure timer, measure again after a move, sign."""

from __future__ import annotations

from shopmath.amounts import degrees
from stator.engines.properties import Property
from stator.jobs import log
from stator.stations.framework import Action, BoundStation, timers
from stator.stations.framework.messages import format_message
from stator.stations.framework.remeasure import request_remeasurement
from stator.stations.true_crank import messages
from stator.stations.true_crank.analysis import MOVED, RunoutRoundAnalysis, crank, reading
from stator.stations.true_crank.outer_analysis import OuterWebAnalysis
from stator.stations.true_crank.single_analysis import CURES, SingleThrowAnalysis
from stator.stations.true_crank.verdict import left_for_the_next, suspect_said

CURE = log.CURE
WELDED = "welded"  # as a move: what was read before it is of another crank


def of_single(bound: BoundStation) -> tuple[Action, ...]:
    found: SingleThrowAnalysis = bound.analysis
    if found.mis is None:
        return ()
    if found.move is None:
        return _suspect(found)
    if found.is_welded_since:
        return _welded()
    first = (*_turn(bound), *_cure(bound))
    sign = bound.sign_action(main=found.is_done and not first)
    if found.move.kind not in (*CURES, "remeasure"):
        return (*first, sign)
    cures = found.move.kind in CURES
    again = _again("done" if cures else "again", not found.is_done and not _turn(bound), bound.blocking_check() if cures else "")
    return (*first, again, sign)


def of_several(bound: BoundStation) -> tuple[Action, ...]:
    found: OuterWebAnalysis = bound.analysis
    if not found.shafts or found.is_held_wrong:
        return ()
    if found.suspect:
        return _suspect(found)
    if found.is_welded_since:
        return _welded()
    first = (*_turn(bound), *_cure(bound))
    sign = bound.sign_action(main=found.is_done and not first)
    if found.worst is None:
        return (*first, sign)
    return (*first, _again("turned", not found.is_done and not _turn(bound), bound.blocking_check()), sign)


def _again(code: str, main: bool = True, refused: str = "") -> Action:
    return Action("again", str(messages.ACTION[code]), "again", main, refused, measure_again)


def _suspect(found: RunoutRoundAnalysis) -> tuple[Action, ...]:
    """The readings to blame again, or the whole round."""
    again = found.suspect[1].again if found.suspect else ()
    if not again:
        return (_again("round"),)
    name = format_message(messages.ACTION["these"], {"angles": tuple(degrees(each) for each in again)})
    return (Action("these", name, "these", True, do=read_again), _again("round", main=False))


def _welded() -> tuple[Action, ...]:
    return (Action("again", str(messages.ACTION["welded"]), "again", True, do=after_weld),)


def after_weld(bound: BoundStation) -> None:
    """Begin a round after welding, when the crank is cold; the answers on the joint remain."""
    bound.record_action(WELDED)
    bound.next_attempt(skipped=left_for_the_next(bound.analysis))


def _turn(bound: BoundStation) -> tuple[Action, ...]:
    """Return the action for another turn if that decides the verdict."""
    found: RunoutRoundAnalysis = bound.analysis
    if found.settled_by is None or bound.open_questions():
        return ()
    name = format_message(messages.ACTION["turn"], {"more": found.settled_by - found.turns})
    return (Action("turn", name, "turn", True, do=turn_more),)


def _cure(bound: BoundStation) -> tuple[Action, ...]:
    """The clock of a compound that locks the joint."""
    if bound.analysis.joint != "compound" or any(timer.key == CURE for timer in bound.timers):
        return ()
    return (Action("cure", str(messages.ACTION["cure"]), "cure", True, do=start_cure),)


def turn_more(bound: BoundStation) -> None:
    found: RunoutRoundAnalysis = bound.analysis
    if found.settled_by:
        bound.choose(turns={**bound.answers.choices.get("turns", {}), str(found.attempt): found.settled_by})


def read_again(bound: BoundStation) -> None:
    """Withdraw the suspect readings so that they are measured again."""
    assert bound.analysis.suspect is not None
    side, suspect = bound.analysis.suspect
    request_remeasurement(bound, [reading(side, angle) for angle in suspect.again])


def start_cure(bound: BoundStation) -> None:
    timers.start(bound, CURE, "wait", bound.analysis.cures_s, attempt=1)


def measure_again(bound: BoundStation) -> None:
    """Begin a round after a move, or measure the round again; the expected result of the move remains stored."""
    found = bound.analysis
    done = found.as_written()
    fact_key = crank(Property.CRANK_RUNOUT, done.pop("web"), done.get("at_deg"))
    bound.record_action(MOVED, fact_key, text=done.pop("kind"), **done)
    bound.next_attempt(skipped=left_for_the_next(found))


def may_sign(bound: BoundStation) -> str:
    found: RunoutRoundAnalysis = bound.analysis
    if not found.is_measured:
        return str(messages.MEASURE_FIRST)
    if found.is_welded_since:
        return str(messages.WELDED_SINCE)
    if not found.suspect:
        return ""
    code, values = suspect_said(found)
    return format_message(messages.REASON[code], values)
