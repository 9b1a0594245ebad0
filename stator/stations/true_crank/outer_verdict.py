"""The verdict on a crank with several throws: which outer web has rotated, how far, and how to move it back."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath.amounts import Amount, mm, plus_minus
from shopmath.multi_throw import phase_error_deg
from stator.stations.framework import Alternative, Question, Source, State, Verdict, question_factory
from stator.stations.framework.messages import format_message
from stator.stations.true_crank import messages
from stator.stations.true_crank.analysis import Code
from stator.stations.true_crank.outer_analysis import OuterWebAnalysis
from stator.stations.true_crank.verdict import FINE, clearance_said, disagree, runout_said, scale, shared_sources, told, turn_it, welded
from stator.ui.number_format import show

source = partial(question_factory.source, messages)


def several(found: OuterWebAnalysis, questions: list[Question]) -> Verdict:
    """`asked` is what is still to be answered."""
    if found.is_held_wrong:
        return Verdict(State.STOP, Code.NOT_HELD_SO, reason=found.held, next="centre_bearings", ways=(Alternative(choice="held"),))
    if not found.shafts:
        if not found.is_set_up:
            return Verdict(State.WAIT, Code.SET_UP, reason="sizes", next="ask" if questions else "give_sizes")
        return turn_it(found, questions)
    if found.suspect:
        return disagree(found)
    return welded(found) if found.is_welded_since else _judged(found)


def _judged(found: OuterWebAnalysis) -> Verdict:
    rest = format_message(messages.TOLD["rest"], {"rest": mm(max(shaft.best_mm for _side, shaft in found.shafts))})
    values: dict[str, Any] = {"runout": runout_said(found), **told(rest, clearance_said(found))}
    if found.call and found.call.state == State.IN:
        return Verdict(State.IN, Code.WITHIN, values, "runout", Code.WITHIN, "told", scale=scale(found))
    state = found.call.state if found.call else State.TOO_CLOSE
    if found.worst is None:
        return Verdict(state, Code.LEAVE, values, "runout", "accept", "told", scale=scale(found))
    side, shaft = found.worst
    web = found.card.side(side)
    turned = {"web": web, "turned": Amount(shaft.turn.turn_deg, "angle", FINE, 2 * shaft.turn_u_deg)}
    expected = format_message(messages.TOLD["expected_one"], {"expected": mm(shaft.best_mm)})
    values |= {
        "why": format_message(messages.WHY["turned"], turned),
        "web": web,
        "direction": messages.DIRECTION[shaft.turn.direction],
        "travel": mm(shaft.turn.rim_mm),
        **told(expected, rest, clearance_said(found)),
    }
    return Verdict(state, Code.WEB_TURNED, values, "runout_why", Code.WEB_TURNED, "told", scale=scale(found))


def sources(found: OuterWebAnalysis) -> Iterator[Source]:
    yield from shared_sources(found)
    for side, shaft in found.shafts:
        values = {
            "side": found.card.side(side),
            "travel": mm(shaft.turn.rim_mm),
            "direction": messages.DIRECTION[shaft.turn.direction],
            "uncertainty": plus_minus(Amount(2 * shaft.turn_u_deg, "angle", FINE)),
        }
        yield source("turned", show(Amount(shaft.turn.turn_deg, "angle", FINE)), values)
    phase = found.phase_deg
    if phase is not None:
        off = phase_error_deg(phase, round(phase / 90) * 90)
        yield source("throws", show(Amount(phase, "angle", 0.1)), {"off": Amount(off, "angle", 0.01)})
    for done in reversed(found.moves):
        yield _move(found, done)


def _move(found: OuterWebAnalysis, done: dict[str, Any]) -> Source:
    """A web turned in an earlier round: what was expected of it and what was measured after."""
    after = found.shaft(done["web"], done["round"] + 1)
    values = {
        "round": done["round"],
        "web": found.card.side(done["web"]),
        "travel": mm(done["rim_mm"]),
        "direction": messages.DIRECTION[done["direction"]],
        "expected": mm(done["expected_mm"]),
        "got": format_message(messages.GOT, {"got": mm(after.swing.tir_mm)}) if after else str(messages.NOT_SINCE),
    }
    return source("web", show(Amount(done["turn_deg"], "angle", FINE)), values)
