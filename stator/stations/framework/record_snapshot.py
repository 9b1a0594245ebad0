"""The record of a signed entry: verdict, sentences, values, facts and equipment with their sources, and the drawing."""

from __future__ import annotations

import zlib
from typing import TYPE_CHECKING, Any

from shopmath import __version__ as core_version
from stator.jobs.facts import Fact
from stator.jobs.log import RecordSnapshot
from stator.jobs.photos import photos_of
from stator.shop.equipment_snapshot import shelves
from stator.shop.models import Equipment
from stator.stations.framework.page_components import ReadingRow, RenderedVerdict
from stator.stations.framework.report_values import figures_of
from stator.stations.framework.verdict import plain_values
from stator.ui.static_svg import standalone_svg
from stator.ui.units import METRIC, units_now

VERSION = 3

if TYPE_CHECKING:
    from stator.stations.framework.bound_station import BoundStation


def frozen(work: BoundStation, verdict: RenderedVerdict) -> RecordSnapshot:
    """Return a bound station as plain values with its drawing."""
    known = work.job_facts
    unmeasured = _unmeasured(work)
    content = {
        "version": VERSION,
        "core_version": core_version,
        "units": units_now().value,
        "station": str(work.station.name),
        "part": work.seat.name if work.seat else "",
        "by": work.person.called,
        "call": {
            "state": str(verdict.state),
            "code": verdict.code,
            "values": plain_values(verdict.values),
            "headline": str(verdict.headline),
            "reason": str(verdict.reason),
            "next": str(verdict.next_step),
            "detail": str(verdict.detail),
            "assumed": list(verdict.assumed),
            "scale": verdict.scale.plain() if verdict.scale else None,
        },
        "figures": [each.plain() for each in figures_of(work)],
        "readings": [_reading(work, row) for row in work.readings_table() if row.reading],
        "sources": [{"label": t.label, "value": t.value, "source": t.source, "estimated": t.estimated} for t in work.sources()],
        "checks": [{"words": check.words, **work.ticks(check.key)} for check in work.every_check() if work.ticks(check.key)],
        "methods": [{"words": method.words, "chosen": str(method.chosen_words)} for method in work.methods()],
        "otherwise": work.contradictions(),
        "decisions": work.decisions(),
        "unmeasured": len(unmeasured),
        "unmeasured_what": unmeasured,
        "facts": [_fact(each) for each in known.used.values()] if known else [],
        "equipment": _equipment(work),
        "photos": [photo.digest for photo in photos_of(work.stage, work.seat)],
    }
    return RecordSnapshot(content, zlib.compress(_drawing(work).encode(), 9))


def _drawing(work: BoundStation) -> str:
    papers, work.papers = work.papers, ("wide",)
    try:
        return standalone_svg(str(work.drawing()))
    finally:
        work.papers = papers


def _reading(work: BoundStation, row: ReadingRow) -> dict[str, Any]:
    reading = row.reading
    assert reading is not None
    return {
        "words": row.question.text,
        "shown": row.shown,
        "typed": reading.text,
        "note": row.note,
        "gauge": reading.gauge.name if reading.gauge else "",
        "by": reading.by.called,
        "at": reading.taken_at.isoformat(timespec="seconds"),
        "attempt": reading.attempt,
        **_number(work, row),
    }


def _number(work: BoundStation, row: ReadingRow) -> dict[str, Any]:
    """Return a reading as a plain number, for a reader with other units."""
    reading = row.reading
    if reading is None or reading.canonical is None or reading.kind not in METRIC:
        return {}
    step = reading.gauge.resolution if reading.gauge else row.question.resolution
    return {"kind": reading.kind, "value": reading.canonical, "step": step}


def _fact(fact: Fact) -> dict[str, Any]:
    return {
        "part": {"kind": str(fact.slot.part.kind), "uid": fact.slot.part.uid, "name": fact.slot.part.name},
        "property": fact.slot.what.value,
        "place": fact.slot.at.key,
        "value": fact.value,
        "text": fact.text,
        "uncertainty": fact.uncertainty,
        "origin": fact.origin.value,
        "source": fact.source or fact.station,
        "assumed": fact.assumed,
    }


def _equipment(work: BoundStation) -> list[dict[str, Any]]:
    """Return the gauges and the chosen equipment with their present data."""
    used: dict[tuple[str, str], Equipment] = {}
    for reading in work.readings:
        if reading.gauge and not reading.withdrawn_at:
            used["gauges", reading.gauge.name] = reading.gauge
    for shelf, thing in work.uses():
        used[shelf, thing.name] = thing
    for key, shelf in work.station.equipment.items():
        chosen = str(work.answers.choices.get(key, ""))
        for thing in getattr(shelves(work.shop), shelf):
            if str(thing.pk) == chosen:
                used[shelf, thing.name] = thing
    return [{"kind": kind, "name": name, "figures": _figures(thing)} for (kind, name), thing in used.items()]


def _figures(thing: Equipment) -> dict[str, Any]:
    leave = ("id", "name", "retired", "from_file", "port", "baud", "on_button")
    values = {field.name: getattr(thing, field.name) for field in thing._meta.concrete_fields if field.name not in leave}
    plain = (int, float, str, bool, list, type(None))
    return {name: value if isinstance(value, plain) else str(value) for name, value in values.items()}


def _unmeasured(work: BoundStation) -> list[str]:
    """Return the labels of the questions that were not measured."""
    read, skipped = {reading.ask for reading in work.readings if not reading.withdrawn_at}, set(work.answers.skipped)
    left = [
        question
        for question in work.current_questions
        if question.key in skipped - read and not question.skip_means_done and not question.is_words
    ]
    return [work.name_of(question) for question in left]
