"""The values of one entry for the job report: results of the readings, then each reading with its limits and author.

Withdrawn readings are not included. An entry has one value for each place. As found and as left come from different entries of a job.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Mapping
from dataclasses import asdict, dataclass, replace
from typing import TYPE_CHECKING, Any

from shopmath.amounts import Amount
from shopmath.quantity import SHOWN
from shopmath.validation import BadInput
from shopmath.verdict import judge
from stator.engines.models import Spec
from stator.jobs.fact_loader import slot_of
from stator.jobs.models import Reading
from stator.stations.framework import messages as shared
from stator.stations.framework.messages import format_message
from stator.stations.framework.page_components import ReportResult
from stator.ui.number_format import between, exact, show
from stator.ui.times import day_time
from stator.ui.units import METRIC as SCALED

NUMBER = re.compile(r"[+\-−]?[\d.,]+")
GAUGELESS_MM = 0.04  # what a reading may be out by whose gauge nobody named, estimate
NOT_FIGURES = ("words", "count", "time")

if TYPE_CHECKING:
    from stator.stations.framework.bound_station import BoundStation


@dataclass(frozen=True)
class RecordedValue:
    """A value of one entry in the job report.

    `slot` is the same for the same quantity in all stations, `key` within one station.
    """

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
    slot: str = ""
    code: str = ""
    kind: str = ""
    step: float | None = None
    number: Mapping[str, float | None] | None = None

    def plain(self) -> dict[str, Any]:
        return asdict(self)


def figures_of(work: BoundStation) -> list[RecordedValue]:
    """Return all values of an entry."""
    told = [_told(work, each) for each in work.report_results()]
    taken: dict[str, list[Reading]] = {}
    for reading in work.readings:
        if reading.kind not in NOT_FIGURES and reading.canonical is not None and not reading.withdrawn_at:
            taken.setdefault(reading.ask, []).append(reading)
    lines = [(_figure(work, readings), readings[-1]) for readings in taken.values()]
    named = Counter((line.part, line.words) for line, _ in lines)
    where = {question.key: question.where for question in work.current_questions}
    apart = [
        replace(line, words=f"{line.words}: {where[reading.ask]}") if named[line.part, line.words] > 1 and where.get(reading.ask) else line
        for line, reading in lines
    ]
    return [*told, *apart, *_as_asked(work)]


def _as_asked(work: BoundStation) -> list[RecordedValue]:
    """Return what was done as asked and not read, a line for all that went alike."""
    skipped, read = set(work.answers.skipped), {reading.ask for reading in work.readings if not reading.withdrawn_at}
    alike = Counter(
        question.skip_means for question in work.current_questions if question.skip_means_done and question.key in skipped - read
    )
    by, at = work.person.called, day_time(work.now)
    return [
        RecordedValue(f"as asked {means}", format_message(shared.AS_ASKED, {"count": count}), "", means, "", "", "", "", "", by, at)
        for means, count in alike.items()
    ]


def _told(work: BoundStation, told: ReportResult) -> RecordedValue:
    """Return what readings came to; its gauges stand with the readings."""
    part = told.part or (work.seat.name if work.seat else "")
    name, by, at = _line(told.words), work.person.called, day_time(work.now)
    key, limits = f"told {part} {told.words}", (told.limits, told.source, told.state)
    return RecordedValue(
        key, name, part, told.found, told.left, *limits, "", by, at, told.slot, told.code, told.kind, told.step, told.number
    )


def _line(words: str) -> str:
    """Return what a line is called, its first letter large."""
    return words[:1].upper() + words[1:]


def _state(spec: Spec | None, reading: Reading) -> str:
    if spec is None or (spec.low is None and spec.high is None) or reading.canonical is None or reading.kind != "length":
        return ""
    try:
        return judge(reading.canonical, spec.low, spec.high, _unsure(reading), unit="mm").state
    except BadInput:
        return ""


def _unsure(reading: Reading) -> float:
    """Expanded uncertainty of a length, mm."""
    return reading.gauge.unsure(reading.taken_at.date()) if reading.gauge else GAUGELESS_MM


def _shown(work: BoundStation, reading: Reading) -> str:
    """With the digits of its gauge; as it was typed where neither gauge nor question says how many it has."""
    question = next((each for each in work.current_questions if each.key == reading.ask), None)
    if question or reading.gauge or reading.subject_id:
        said = work.format_reading(reading, question)
        return format_message(shared.TURNS, {"turns": said}) if reading.unit == "turn" else said
    number = NUMBER.match(reading.text)
    if number is None or reading.unit not in SHOWN or reading.canonical is None or reading.kind not in SCALED:
        return reading.text
    return show(exact(reading.canonical, reading.kind))


def _limits(spec: Spec | None, kind: str) -> tuple[Amount | None, Amount | None]:
    """A limit of the card with as many digits as it has."""
    ends = [end for end in (spec.low, spec.high) if end is not None] if spec else []
    steps = (0.01, 0.001) if kind == "length" else (1.0, 0.1, 0.01, 0.001)
    step = next((step for step in steps if all(abs(end / step - round(end / step)) < 1e-6 for end in ends)), 0.0001)
    low, high = (None if end is None else Amount(end, kind, step) for end in ((spec.low, spec.high) if spec else (None, None)))
    return low, high


def _figure(work: BoundStation, readings: list[Reading]) -> RecordedValue:
    """Return the value of one place: the first reading as found if there are several rounds, and the latest as left."""
    first, last = readings[0], readings[-1]
    fact_key = slot_of(last)
    spec = work.limit_for(fact_key.what) if fact_key else None
    low, high = _limits(spec, last.kind) if last.kind in SCALED else (None, None)
    limits = between(low, high)
    several = first.attempt != last.attempt
    words, part = work.reading_label(last), work.part_name(last.ask)
    number = {
        "value": last.canonical,
        "doubt": _unsure(last),
        "low": low.value if low else None,
        "high": high.value if high else None,
        "found": first.canonical,
    }
    return RecordedValue(
        last.ask,
        _line(words),
        "" if part.lower() in words.lower() else part,
        _shown(work, first if several else last),
        _shown(work, last) if several else "",
        limits,
        spec.origin if spec and limits else "",
        _state(spec, last),
        last.gauge.name if last.gauge else "",
        last.by.called,
        day_time(last.taken_at),
        slot=fact_key.key if fact_key else "",
        code=fact_key.what.value if fact_key else "",
        kind=last.kind if last.kind in SCALED else "",
        step=last.gauge.resolution if last.gauge else None,
        number=number if last.kind == "length" else None,
    )
