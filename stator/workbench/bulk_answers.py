"""Several answers in one request: the same reading all round, optional questions skipped, a part described like the previous one.

Each answer is a reading of its own with a mark of its origin, and can be changed or withdrawn separately.
"""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from shopmath.notation import metric_thread
from shopmath.screw_threads import minor_diameter_mm
from stator.engines.properties import Property
from stator.jobs.models import Reading
from stator.stations.framework import BoundStation, Question
from stator.stations.framework.reading_notes import AS_AT, AS_WRITTEN, OF_ALL
from stator.workbench.reading_commands import again, save_reading

ROUND = frozenset({Property.GAP, Property.SEATING_GAP, Property.SEATING_DEPTH, Property.SEAL_DEPTH})  # read at places round one part
PITCH_OF = {  # of a thread whose diameter is asked
    Property.SPLITTER_SCREW_DIAMETER: Property.SPLITTER_SCREW_PITCH,
    Property.PULLER_DIAMETER: Property.PULLER_PITCH,
    Property.BOSS_DIAMETER: Property.BOSS_PITCH,
    Property.CENTRE_SCREW_DIAMETER: Property.CENTRE_SCREW_PITCH,
    Property.END_THREAD_DIAMETER: Property.END_THREAD_PITCH,
}
_CALLED = re.compile(r"[mM]\s*\d|\d[\d.,]*\s*[xX×]\s*\d")
ALL, SKIP_ALL = "all", "skip all"  # typed behind a reading; and in the place of one


def without_all(text: str) -> str | None:
    """Return what was typed for every place; None where it was for one.

    >>> without_all("0.05 all"), without_all("0.05")
    ('0.05', None)
    """
    value, _, word = text.strip().rpartition(" ")
    return value.strip() if word.lower() == ALL and value.strip() else None


def places_left(work: BoundStation, ask: Question | None) -> list[Question]:
    """Return a question and those at the other open places of its round; empty if it has no round."""
    fact_key = ask.slot if ask else None
    if fact_key is None or fact_key.what not in ROUND:
        return []
    part = None if fact_key.what == Property.GAP else fact_key.part  # the places of a gap are parts of their own
    found = [each for each in work.open_questions() if each.slot and each.slot.what == fact_key.what and part in (None, each.slot.part)]
    return found if ask in found else []


def skip_optional_questions(work: BoundStation, ask: Question | None) -> list[Question]:
    """Return an optional question and the optional ones that follow; empty if there is only one."""
    found: list[Question] = []
    waiting = work.open_questions()
    for each in waiting[waiting.index(ask) :] if ask in waiting else ():
        if not each.optional or each.offer or each.repeats:
            break
        found.append(each)
    return found if len(found) > 1 else []


def as_thread(ask: Question, text: str) -> tuple[Property, float, float] | None:
    """Return the property of the pitch, the diameter that a caliper measures, and the pitch, mm, if a thread was typed by its name."""
    what = ask.slot.what if ask.slot else None
    if what not in PITCH_OF or not _CALLED.match(text.strip()):
        return None
    diameter, pitch = metric_thread(text)
    crests = minor_diameter_mm(diameter, pitch) if what == Property.BOSS_DIAMETER else diameter
    return PITCH_OF[what], crests, pitch


def take_thread(work: BoundStation, ask: Question, called: str, found: tuple[Property, float, float], key: str) -> Reading:
    """Its diameter and its pitch, marked as written and not measured."""
    pitch_of, diameter, pitch = found
    extra = {AS_WRITTEN: called.strip()}
    save_reading(work, ask, f"{diameter:.2f} mm", key, extra=extra)
    work = again(work, only_here=not work.has_follow_up)
    same_thread = replace(ask.slot, what=pitch_of) if ask.slot else None
    other = next((each for each in work.current_questions if each.slot and each.slot == same_thread), None)
    saved = work.answers.live(ask.key)[-1]
    return save_reading(work, other, f"{pitch:g} mm", f"{key}.1", extra=extra) if other else saved


@dataclass(frozen=True)
class PreviousPart:
    """The description of the previous part: its name, and the answers by property."""

    name: str
    answers: Mapping[str, str]
    words: str


def as_before(work: BoundStation, ask: Question | None) -> PreviousPart | None:
    """Return the part described last at this station, if the present question was answered for it."""
    definition = work.station.at(work.seat)
    copies = definition.copies
    if work.seat is None or ask is None or ask.slot is None or not ask.options or ask.slot.what not in copies:
        return None
    rows = Reading.objects.filter(entry__station=work.stage, withdrawn_at=None, property__in=copies).exclude(entry=work.entry)
    found = list(rows.select_related("entry__seat").order_by("-entry_id", "pk")[: 2 * len(copies)])
    answers = {each.property: each.text for each in found if each.entry_id == found[0].entry_id}
    if ask.slot.what not in answers or found[0].entry.seat is None:
        return None
    options = {row[0]: str(row[1]) for what in answers for row in definition.words.OPTIONS.get(what, ())}  # type: ignore[union-attr]
    return PreviousPart(found[0].entry.seat.name, answers, ", ".join(options.get(text, text) for text in answers.values()))


def save_whole_round(work: BoundStation, asks: list[Question], text: str, key: str, more: Mapping[str, Any]) -> Reading:
    """The same reading at each of these places."""
    extra = {**more.get("extra", {}), OF_ALL: True}
    for number, each in enumerate(asks):
        saved = save_reading(work, each, text, f"{key}.{number}" if number else key, **{**more, "extra": extra})
    return saved


def saved_together(last: Reading, standing: Sequence[Reading]) -> list[Reading]:
    """Return a reading and those saved in the same request, from the oldest."""
    if not any(last.extra.get(mark) for mark in (OF_ALL, AS_AT, AS_WRITTEN)):
        return [last]
    return [each for each in standing if _act_of(each) == _act_of(last)]


def _act_of(reading: Reading) -> str:
    head, _, number = reading.client_key.rpartition(".")
    return head if number.isdigit() else reading.client_key


def take_as_before(work: BoundStation, before: PreviousPart, key: str) -> BoundStation:
    """Answer as the part before was, as far as the same is asked."""
    for number in range(len(before.answers)):
        question = work.next_question
        said = before.answers.get(question.slot.what) if question and question.slot else None
        if question is None or said not in {option.key for option in question.options}:
            break
        save_reading(work, question, said, f"{key}.{number}" if number else key, extra={AS_AT: before.name})
        work = again(work, only_here=not work.has_follow_up)
    return work
