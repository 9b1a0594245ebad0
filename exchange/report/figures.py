"""Every figure of a job once: as it was found, as it was left, against what, by whom."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from engines.models import Spec
from engines.properties import Property
from jobs.models import Entry, Reading
from shopmath.checks import BadInput
from shopmath.quantity import SHOWN
from shopmath.verdict import call
from stations.base import Told, Work
from stations.pieces import between

AS_FOUND = ("book-in", "flywheel-off", "split", "strip", "bearings-out", "inspect", "apart")  # before anything is put right
NUMBER = re.compile(r"[+\-−]?[\d.,]+")
NOT_FIGURES = ("words", "count", "time")
OF_THE_CARD = {  # which figure of the card a reading belongs to, by station and the beginning of its ask
    ("inspect", "side"): Property.BIG_END_SIDE_PLAY,
    ("inspect", "radial"): Property.BIG_END_RADIAL_PLAY,
    ("inspect", "small"): Property.SMALL_END_BORE,
    ("inspect", "width"): Property.WIDTH_OVER_WEBS,
    ("together", "side"): Property.BIG_END_SIDE_PLAY,
    ("together", "width-"): Property.WIDTH_OVER_WEBS,
    ("end-float", "dial"): Property.END_FLOAT,
    ("centre", "float"): Property.END_FLOAT,
    ("flywheel-on", "runout"): Property.RIM_RUNOUT,
    ("flywheel-on", "gap"): Property.AIR_GAP,
}


@dataclass(frozen=True)
class Figure:
    """One line of the sheet."""

    station: str
    part: str
    words: str
    found: str
    left: str
    limits: str
    source: str
    state: str
    gauge: str
    by: str
    at: str

    @property
    def call(self) -> str:
        return self.state.replace("_", " ")


def _spec(work: Work, ask: str) -> Spec | None:
    key = next((names for (station, start), names in OF_THE_CARD.items() if station == work.station.key and ask.startswith(start)), None)
    return work.spec(key) if key else None


def _limits(spec: Spec | None) -> tuple[str, str]:
    if spec is None or (spec.low is None and spec.high is None):
        return "", ""
    return between(spec.low, spec.high), spec.origin


def _state(work: Work, spec: Spec | None, reading: Reading) -> str:
    if spec is None or (spec.low is None and spec.high is None) or reading.canonical is None or reading.kind != "length":
        return ""
    doubt = reading.gauge.unsure(reading.taken_at.date()) if reading.gauge else 0.04
    try:
        return call(reading.canonical, spec.low, spec.high, doubt, unit="mm").state
    except BadInput:
        return ""


def figures(works: Iterable[tuple[Entry, Work]], name_of: dict[str, str]) -> list[Figure]:
    """Figures of signed entries in working order: what readings came to, then each reading. The first is as found, the last as left."""
    places: dict[tuple[str, str, str], list[tuple[Work, Reading]]] = {}
    came_to: dict[tuple[str, str, str], list[tuple[Entry, Told]]] = {}
    order: dict[str, None] = {}
    for entry, work in works:
        key, seat = work.station.key, entry.seat.name if entry.seat else ""
        order[key] = None
        for each in work.told():
            came_to.setdefault((key, each.part or seat, each.words), []).append((entry, each))
        for reading in sorted(work.readings, key=lambda each: each.taken_at):
            if reading.kind not in NOT_FIGURES and reading.canonical is not None:
                places.setdefault((key, work.part_called(reading.ask), reading.ask), []).append((work, reading))
    found: list[Figure] = []
    named = Counter((key, seat, str(taken[-1][1].extra.get("asked", ask))) for (key, seat, ask), taken in places.items())
    for key in order:
        found += [_told(name_of.get(key, key), part, told) for (at, part, _), told in came_to.items() if at == key]
        for (at, part, ask), taken in places.items():
            if at == key:
                figure = _figure(key, part, ask, taken, name_of)
                where = _where(*taken[-1]) if named[key, part, figure.words] > 1 else ""
                found.append(replace(figure, words=f"{figure.words}: {where}") if where else figure)
    return found


def _told(station: str, part: str, told: Sequence[tuple[Entry, Told]]) -> Figure:
    """What readings came to; its gauges stand with the readings."""
    (_, first), (entry, last) = told[0], told[-1]
    by = entry.signed_by.called if entry.signed_by else ""
    at = f"{entry.signed_at:%d %b %H:%M}" if entry.signed_at else ""
    left = last.left or (last.found if len(told) > 1 else "")
    return Figure(station, part, last.words, first.found, left, last.limits, last.source, last.state, "", by, at)


def _where(work: Work, reading: Reading) -> str:
    """Where it was measured, told apart from others of the same name."""
    return next((ask.where for ask in work.wanted if ask.key == reading.ask), "")


def _shown(work: Work, reading: Reading) -> str:
    """In the shop's unit with the digits of its gauge; as it was typed where neither gauge nor ask says how many it has."""
    ask = next((each for each in work.wanted if each.key == reading.ask), None)
    if ask or reading.gauge:
        return work.shown(reading, ask)
    number = NUMBER.match(reading.text)
    return f"{number[0]} {SHOWN[reading.unit]}" if number and reading.unit in SHOWN else reading.text


def _figure(key: str, part: str, ask: str, taken: Sequence[tuple[Work, Reading]], name_of: dict[str, str]) -> Figure:
    standing = [pair for pair in taken if not pair[1].withdrawn_at] or list(taken)
    first, last = taken[0], standing[-1]
    work, reading = last
    spec = _spec(work, ask)
    limits, source = _limits(spec)
    shown, before = _shown(work, reading), _shown(*first)
    found = before if first[1].pk != reading.pk else shown if key in AS_FOUND else ""
    left = "" if key in AS_FOUND and first[1].pk == reading.pk else shown
    return Figure(
        name_of.get(key, key),
        part,
        str(reading.extra.get("asked", ask)),
        found,
        left,
        limits,
        source,
        _state(work, spec, reading),
        reading.gauge.name if reading.gauge else "",
        reading.by.called,
        f"{reading.taken_at:%d %b %H:%M}",
    )
