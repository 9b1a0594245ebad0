"""Questions of True crank: the supports, a turn of readings at each end, and again after each move."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from shopmath.amounts import mm
from shopmath.truing import refuse_on_support
from stator.engines.properties import Property
from stator.stations.framework import Method, Question
from stator.stations.framework.question_factory import method, question
from stator.stations.true_crank import messages
from stator.stations.true_crank.analysis import BY_SWING, CLOSING, DIAL, SIDES, RunoutRoundAnalysis, crank, reading
from stator.stations.true_crank.outer_analysis import THROW_ANGLE, OuterWebAnalysis
from stator.stations.true_crank.single_analysis import SingleThrowAnalysis
from stator.ui.number_format import plain

ask = partial(question, messages)
DIALS = (DIAL,)


def of_single(found: SingleThrowAnalysis) -> list[Question]:
    """Return where supports and gauges stand, then one turn at each end."""
    past = found.attempt > 1
    questions: list[Question] = []
    for side in SIDES:
        values = {"side": found.card.side(side)}
        support, gauge = crank(Property.SUPPORT_PLACE, side), crank(Property.GAUGE_PLACE, side)
        place: dict[str, Any] = {"quiet": past, "resolution": 1.0}
        questions.append(ask(support, values, example="92", check=_apart(side, found.own.value(gauge)), **place))
        questions.append(ask(gauge, values, example="34", check=_apart(side, found.own.value(support)), **place))
    questions += _stroke(found, past)
    if found.limit_is_elsewhere:
        questions += _limit_places(found, past)
    if found.geometry is not None:
        for side in SIDES:
            questions += _readings(found, side, str(messages.PIN))
    return [*questions, *_ends(found)] if found.mis is not None else questions


def _limit_places(found: SingleThrowAnalysis, past: bool) -> list[Question]:
    """Return where the limit's own supports and gauges stand: what it allows here follows from that."""
    support, gauge = crank(Property.LIMIT_SUPPORT_PLACE), crank(Property.LIMIT_GAUGE_PLACE)
    values = {"setup": setup_of(found)}
    more: dict[str, Any] = {"optional": True, "quiet": past, "resolution": 1.0}
    questions = [ask(support, values, example="92", check=_apart("left", found.own.value(gauge)), **more)]
    if found.own.value(support) is not None or found.own.value(gauge) is not None:
        questions.append(ask(gauge, values, example="34", check=_apart("left", found.own.value(support)), **more))
    return questions


def setup_of(found: RunoutRoundAnalysis) -> str:
    """Return the setup for which the card's limit is valid, as text."""
    if found.limit is None:
        return ""
    return found.limit.setup or next((str(row[1]) for row in messages.METHOD["held"][1] if row[0] == found.limit.held), "")


def _apart(side: str, other_mm: float | None) -> Callable[[float], None] | None:
    """A gauge on its support measures nothing."""
    return None if other_mm is None else lambda value: refuse_on_support(side, value, other_mm)


def _stroke(found: RunoutRoundAnalysis, past: bool) -> list[Question]:
    return [ask(crank(Property.STROKE), quiet=past, example="58", resolution=0.1)] if found.card.stroke_mm is None else []


def of_several(found: OuterWebAnalysis) -> list[Question]:
    """Throw, rim and the angle between the throws, then one turn at each outer shaft."""
    past = found.attempt > 1
    if found.is_held_wrong:
        return []
    asked = _stroke(found, past)
    asked.append(ask(crank(Property.RIM_RADIUS), quiet=past, example="60", resolution=0.5))
    if found.asks_phase:
        asked.append(ask(THROW_ANGLE, quiet=past, example="180", resolution=0.5))
    if found.is_set_up:
        for side in SIDES:
            asked += _readings(found, side, str(messages.LEFT_OUTER_PIN))
    return [*asked, *_ends(found)] if found.shafts else asked


def _ends(found: RunoutRoundAnalysis) -> list[Question]:
    done = found.is_done
    return [ask(crank(Property.JOINT_LOCK), quiet=not done), ask(crank(Property.NOTE), optional=True, quiet=not done)]


def _readings(found: RunoutRoundAnalysis, side: str, pin: str) -> list[Question]:
    """Return the questions of one end: one or two turns of readings back to the first, or the runout with its high spot."""
    name = found.card.side(side)
    named = {"side": name, "Side": f"{name[:1].upper()}{name[1:]}", "pin": pin}
    dial: dict[str, Any] = {"resolution": found.resolution, "gauges": DIALS}
    if found.how == BY_SWING:
        return [
            ask(crank(Property.SHAFT_TIR, side), named, example="0.06", times=found.turns, **dial),
            ask(crank(Property.HIGH_SPOT, side), named, example="75", resolution=1.0),
        ]
    questions = []
    times = found.turns_asked(side)
    for angle in found.angles():
        values = {**named, "angle": plain(angle), "count": times}
        where = messages.UNDER_GAUGE if angle == 0 else messages.TURNED_ON
        if found.is_coarse and angle == 0:
            values |= {"step": mm(found.resolution), "limit": mm(found.limit_mm or 0.0)}
            where = messages.SECOND_TURN if times > 1 else messages.COARSE
        questions.append(ask(reading(side, angle), values, where=where, example="0.02", times=times, **dial))
    back = {"text": messages.BACK_AT_START, "where": messages.ONCE_ROUND, "skip_means": str(messages.SLIP_UNSEEN)}
    return [*questions, ask(reading(side, CLOSING), named, optional=True, **back, **dial)]


def methods(found: RunoutRoundAnalysis) -> tuple[Method, ...]:
    rows = [row for row in messages.METHOD["held"][1] if row[0] in found.ways_held]
    held = method(messages, "held", found.held, sorted(rows, key=lambda row: found.ways_held.index(row[0])))
    return (held, method(messages, "how", found.how)) if found.attempt == 1 else (held,)
