"""Work that Stator does not compute: what was done, in the mechanic's own words, signed like any entry."""

from __future__ import annotations

from functools import partial
from typing import Any

from stator.stations.framework import Action, BoundStation, Canvas, Question, State, StationDefinition, Verdict
from stator.stations.framework.messages import Sentence
from stator.stations.framework.question_factory import question, warnings
from stator.stations.work_notes import messages
from stator.stations.work_notes.analysis import NOTE, Code, WorkNotes, facts_for
from stator.ui.svg import wrapped

ask = partial(question, messages)
LINES = 10
LETTERS, LETTERS_NARROW = 62, 38


def questions(found: WorkNotes) -> list[Question]:
    return [ask(NOTE, repeats=True)]


def verdict(found: WorkNotes, asked: list[Question]) -> Verdict:
    if not found.notes:
        special = found.station if found.station in messages.NEXT else ""
        return Verdict(State.WAIT, Code.NOTHING_YET, next=special)
    values = {"notes": len(found.notes), "last": found.notes[-1]}
    return Verdict(State.WAIT, Code.WRITTEN, values, standing="last")


def overall(found: WorkNotes) -> Verdict:
    """Return the verdict that is signed: the last note."""
    return Verdict(State.IN, Code.DONE, {"last": found.notes[-1] if found.notes else ""})


def draw(found: WorkNotes, canvas: Canvas) -> None:
    """Ruled paper with the notes on it."""
    margin, letters = (60, LETTERS) if canvas.is_wide else (12, LETTERS_NARROW)
    for index in range(LINES):
        canvas.sheet.line((margin, 90 + 46 * index), (canvas.width - margin, 90 + 46 * index), "rule")
    lines = [line for text in found.notes for line in wrapped(text, letters)]
    for index, line in enumerate((lines or wrapped(str(messages.ON_DRAWING["empty"]), letters))[-LINES:]):
        canvas.sheet.text((margin, 80 + 46 * index), line, "note" if lines else "note quiet")


def actions(bound: BoundStation) -> tuple[Action, ...]:
    """A list of notes is never complete: it may be signed with one."""
    sign: Action = bound.sign_action()
    return (Action(sign.key, sign.words, sign.word, bool(bound.analysis.notes), sign.refused, sign.do),)


def result(found: WorkNotes) -> dict[str, Any]:
    return {"schema": "by-hand/1", "notes": found.notes}


def by_hand(key: str, name: Sentence) -> StationDefinition:
    """A station whose work is written down."""
    return StationDefinition(
        key=key,
        name=name,
        built=False,
        words=messages,
        facts=facts_for(key),
        questions=questions,
        verdict=verdict,
        overall=overall,
        warnings=lambda _found: warnings(messages),
        draw=draw,
        actions=actions,
        result=result,
    )
