"""Questions of Center crank: gaps, rotation, end play by dial indicator, pressure and vacuum with their times."""

from __future__ import annotations

from functools import partial
from typing import Any

from stator.stations.center_crank import messages
from stator.stations.center_crank.analysis import (
    BY_DIAL,
    DRAG,
    END,
    GAPS,
    HELD,
    NOT_PROVED,
    SPIN,
    START,
    TESTS,
    CenteringAnalysis,
    pressure,
    warmth,
)
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import format_message
from stator.stations.framework.question_factory import method, question

ask = partial(question, messages)
LEAST_KPA, MOST_KPA = 5.0, 60.0
SLACK_KPA = 1.0  # that a gauge may seem to gain


def questions(found: CenteringAnalysis) -> list[Question]:
    asked: list[Question] = []
    if not found.stands_hard:
        gap: dict[str, Any] = {"example": "0.15", "resolution": 0.01, "gauges": ("feeler",)}
        asked += [ask(fact_key, {"side": found.card.side(fact_key.at.end)}, **gap) for fact_key in GAPS]
    if not found.is_centred:
        return asked
    asked.append(ask(SPIN))
    if found.drags:
        return [*asked, ask(DRAG)]
    asked.append(ask(BY_DIAL, optional=True, gauges=("dial",), example="0.15"))
    if found.proof == "pressure":
        asked += _tests(found)
    if found.proof == "none":
        asked.append(ask(NOT_PROVED))
    return asked


def _tests(found: CenteringAnalysis) -> list[Question]:
    asked = [ask(HELD, unit="s", example="5 min", resolution=1.0)]
    for test in TESTS:
        values = {"test": messages.TEST[test]}
        start = {**values, "when": messages.WHEN[START], "how": messages.HOW[START]}
        asked.append(ask(pressure(test, START), start, example="40", resolution=0.1, limits=_between(LEAST_KPA, MOST_KPA, test)))
        warm: dict[str, Any] = {"optional": True, "resolution": 1.0, "example": "20", "gauges": ("contact",)}
        warm["quiet"] = found.kpa(test, END) is not None
        asked.append(ask(warmth(test, START), {**values, "when": messages.WHEN[START]}, **warm))
        first = found.kpa(test, START)
        if found.own.has(warmth(test, START)):
            asked.append(ask(warmth(test, END), {**values, "when": messages.WHEN[END]}, **warm))
        end = {**values, "when": messages.WHEN[END], "how": messages.HOW[END]}
        held: dict[str, Any] = (
            {"limits": _between(0.0, abs(first) + SLACK_KPA + found.warmed_kpa(test), test), "refusal": format_message(messages.GAINED, {})}
            if first
            else {}
        )
        asked.append(ask(pressure(test, END), end, example="38", resolution=0.1, **held))
    return asked


def _between(low: float, high: float, test: str) -> tuple[float, float]:
    """Return what a gauge may show: a vacuum is typed with or without its minus."""
    return (low, high) if test == "pressure" else (-high, high)


def methods(found: CenteringAnalysis) -> tuple[Method, ...]:
    return (method(messages, "school", "hard" if found.stands_hard else "centre"), method(messages, "proof", found.proof))
