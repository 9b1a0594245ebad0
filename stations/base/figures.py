"""The figures of one entry for the job sheet: what its readings came to, then each reading, against what, by whom.

Only readings that stand are shown. An entry tells one value a place; as found and as left are told apart by the entries of a job.
"""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import asdict, dataclass, replace
from typing import Any

from engines.models import Spec
from jobs.gather import slot_of
from jobs.models import Reading
from shopmath.checks import BadInput
from shopmath.quantity import SHOWN
from shopmath.verdict import call
from stations.base.bound import Bound
from stations.pieces import Told, between

NUMBER = re.compile(r"[+\-−]?[\d.,]+")
NOT_FIGURES = ("words", "count", "time")


@dataclass(frozen=True)
class RecordedFigure:
    """One line of the sheet, as one entry tells it. `key` is the same in every entry that measures the same."""

    key: str
    words: str
    part: str
    value: str
    left: str
    limits: str
    source: str
    state: str
    gauge: str
    by: str
    at: str

    def plain(self) -> dict[str, Any]:
        return asdict(self)


def figures_of(work: Bound) -> list[RecordedFigure]:
    """Every figure of an entry."""
    told = [_told(work, each) for each in work.told()]
    taken: dict[str, list[Reading]] = {}
    for reading in work.readings:
        if reading.kind not in NOT_FIGURES and reading.canonical is not None and not reading.withdrawn_at:
            taken.setdefault(reading.ask, []).append(reading)
    lines = [(_figure(work, readings), readings[-1]) for readings in taken.values()]
    named = Counter((line.part, line.words) for line, _ in lines)
    where = {ask.key: ask.where for ask in work.wanted}
    apart = [
        replace(line, words=f"{line.words}: {where[reading.ask]}") if named[line.part, line.words] > 1 and where.get(reading.ask) else line
        for line, reading in lines
    ]
    return [*told, *apart]


def _told(work: Bound, told: Told) -> RecordedFigure:
    """What readings came to; its gauges stand with the readings."""
    part = told.part or (work.seat.name if work.seat else "")
    by, at = work.person.called, f"{work.now:%d %b %H:%M}"
    return RecordedFigure(
        f"told {part} {told.words}", _line(told.words), part, told.found, told.left, told.limits, told.source, told.state, "", by, at
    )


def _line(words: str) -> str:
    """What a line is called, its first letter large."""
    return words[:1].upper() + words[1:]


def _spec(work: Bound, reading: Reading) -> Spec | None:
    slot = slot_of(reading)
    return work.spec(slot.what) if slot else None


def _state(spec: Spec | None, reading: Reading) -> str:
    if spec is None or (spec.low is None and spec.high is None) or reading.canonical is None or reading.kind != "length":
        return ""
    uncertainty = reading.gauge.unsure(reading.taken_at.date()) if reading.gauge else 0.04
    try:
        return call(reading.canonical, spec.low, spec.high, uncertainty, unit="mm").state
    except BadInput:
        return ""


def _shown(work: Bound, reading: Reading) -> str:
    """With the digits of its gauge; as it was typed where neither gauge nor question says how many it has."""
    ask = next((each for each in work.wanted if each.key == reading.ask), None)
    if ask or reading.gauge or reading.subject_id:
        return work.shown(reading, ask)
    number = NUMBER.match(reading.text)
    return f"{number[0]} {SHOWN[reading.unit]}" if number and reading.unit in SHOWN else reading.text


def _figure(work: Bound, readings: list[Reading]) -> RecordedFigure:
    """Readings of one place: as found the first of them where rounds follow one another, the last as it stands."""
    first, last = readings[0], readings[-1]
    spec = _spec(work, last)
    known = spec is not None and (spec.low is not None or spec.high is not None)
    several = first.attempt != last.attempt
    value = _shown(work, first) if several else _shown(work, last)
    left = _shown(work, last) if several else ""
    limits = between(spec.low, spec.high) if spec and known else ""
    words, part = work.called(last), work.part_called(last.ask)
    return RecordedFigure(
        last.ask,
        _line(words),
        "" if part.lower() in words.lower() else part,
        value,
        left,
        limits,
        spec.origin if spec and known else "",
        _state(spec, last),
        last.gauge.name if last.gauge else "",
        last.by.called,
        f"{last.taken_at:%d %b %H:%M}",
    )
