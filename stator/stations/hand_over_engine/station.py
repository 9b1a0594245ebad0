"""Hand over engine: open stations, parts used, decisions against advice and what remains unknown; then the job is closed."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.jobs import log
from stator.stations.framework import (
    Action,
    Alternative,
    BoundStation,
    Question,
    SafetyWarning,
    Source,
    State,
    StationDefinition,
    Verdict,
    question_factory,
)
from stator.stations.framework.messages import format_message
from stator.stations.framework.registry import station_name
from stator.stations.hand_over_engine import drawing, messages
from stator.stations.hand_over_engine.analysis import FINISHED, Code, HandOverAnalysis, hand_over_facts, of_engine

ask = partial(question_factory.question, messages)
MOST_NAMED = 4


def questions(found: HandOverAnalysis) -> list[Question]:
    asked = [ask(of_engine(Property.PARTS_USED), optional=True, repeats=True)]
    if found.against:
        calls = [
            format_message(messages.STATION_CALL, {"station": station_name(each.station.key), "call": each.call_words})
            for each in found.against
        ]
        asked.append(ask(of_engine(Property.AGAINST_ADVICE), {"calls": ", ".join(calls[:3])}))
    return [*asked, ask(of_engine(Property.STAYS_UNKNOWN), optional=True), ask(of_engine(Property.NOTE), optional=True)]


def verdict(found: HandOverAnalysis, asked: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    entries = {"entries": len(found.entries)}
    if found.unsigned:
        alternatives = tuple(Alternative(station=key) for key in found.unsigned[:MOST_NAMED])
        return Verdict(State.STOP, Code.NOT_FINISHED, _still_open(found), ways=alternatives)
    if found.on_the_tray:
        return Verdict(State.STOP, Code.ON_THE_TRAY, _on_the_tray(found), ways=(Alternative(page="tray"),))
    if found.curing:
        return Verdict(State.WAIT, Code.CURING, {"timers": ", ".join(found.curing)})
    if asked:
        return Verdict(State.WAIT, Code.LAST_WORDS, entries, next="ask")
    if not found.by_owner:
        return Verdict(State.WAIT, Code.OWNER_SIGNS)
    if found.against:
        return Verdict(State.TOO_CLOSE, Code.RESERVATIONS, entries, "ready", "sign")
    return Verdict(State.IN, Code.READY, entries, "ready", "sign")


def _still_open(found: HandOverAnalysis) -> dict[str, str]:
    return {"stations": ", ".join(station_name(key) for key in found.unsigned[:MOST_NAMED])}


def _on_the_tray(found: HandOverAnalysis) -> dict[str, str]:
    return {"places": ", ".join(found.on_the_tray[:MOST_NAMED])}


def warnings(found: HandOverAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.warnings(messages)


def sources(found: HandOverAnalysis) -> Iterator[Source]:
    for line in found.lines:
        if line.state in FINISHED and line.because:
            yield question_factory.source(
                messages, "left_out", messages.LEFT_OUT, {"station": station_name(line.key), "because": line.because}
            )


def actions(bound: BoundStation) -> tuple[Action, ...]:
    return (Action("sign", str(messages.SIGN_OUT), "sign", not bound.open_questions(), bound.may_sign(), sign_and_close_job),)


def sign_and_close_job(bound: BoundStation) -> None:
    """Sign the entry; the job is closed with it."""
    bound.sign()
    bound.__dict__.pop("call", None)  # the call is now the one that was signed
    bound.update_work_plan()
    log.close(bound.job, bound.now)


def may_sign(bound: BoundStation) -> str:
    found: HandOverAnalysis = bound.analysis
    if found.unsigned:
        return format_message(messages.REASON[Code.NOT_FINISHED], _still_open(found))
    if found.on_the_tray:
        return format_message(messages.STILL_ON_THE_TRAY, _on_the_tray(found))
    return "" if found.by_owner else str(messages.REASON[Code.OWNER_SIGNS])


def result(found: HandOverAnalysis) -> dict[str, Any]:
    """Return what a file carries of it: `hand-over/1`."""
    return {
        "schema": "hand-over/1",
        "core_version": core_version,
        "parts": found.parts,
        "against_advice": found.said(Property.AGAINST_ADVICE),
        "unknown": found.said(Property.STAYS_UNKNOWN),
        "note": found.said(Property.NOTE),
    }


STATION = StationDefinition(
    key="hand-over",
    name=messages.NAME,
    words=messages,
    open_when_closed=True,
    facts=hand_over_facts,
    questions=questions,
    verdict=verdict,
    warnings=warnings,
    sources=sources,
    draw=drawing.draw,
    actions=actions,
    may_sign=may_sign,
    result=result,
)
