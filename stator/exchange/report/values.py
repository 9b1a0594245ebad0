"""Values of the job report: each as found and as left, from the valid entries."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from shopmath.amounts import Amount
from stator.exchange.report import messages as words
from stator.exchange.report.signed_entries import Recorded
from stator.ui.number_format import beside, exact, reads_otherwise
from stator.ui.state_labels import state_words
from stator.workbench.registry import STATION_BY_KEY

MOST = 14
BAD = ("stop", "out", "too_close")
Line = Mapping[str, Any]  # a figure as its record has it


@dataclass(frozen=True)
class ReportValue:
    """A line of the appendix: value as found, as left, limits and author."""

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
        return state_words(self.state)


@dataclass(frozen=True)
class LimitPosition:
    """The position of a value between its limits, as fractions of the width of the scale."""

    at: float
    uncertainty: float
    limits: tuple[float, ...]


@dataclass(frozen=True)
class KeyValue:
    """A value on the first page."""

    name: str
    found: str
    left: str
    limits: str
    lies: LimitPosition | None
    state: str

    came: bool = True  # whether it was measured as it came
    again: bool = True  # whether it was measured as it is left

    @property
    def call(self) -> str:
        return state_words(self.state) if self.state else str(words.NO_LIMIT)

    @property
    def weight(self) -> int:
        """Return the rank of a value: the lowest rank is placed first."""
        return 0 if self.state in BAD else 1 if self.again and self.state else 2 if self.again else 3 if self.state else 4


def figures(stand: Iterable[Recorded]) -> list[ReportValue]:
    """Return every value once, in the order of work."""
    found: dict[tuple[str, str, str], list[Line]] = {}
    for each in stand:
        for line in in_both_units(each):
            found.setdefault((each.entry.station.key, line["part"], line["key"]), []).append(line)
    return [_figure(station, lines[-1]) for (station, _part, _key), lines in found.items()]


def in_both_units(each: Recorded) -> Iterator[Line]:
    """Yield the values of a record, each also in the units of the reader."""
    units = each.content.get("units", "")
    for line in each.content["figures"]:
        number, kind, step = line.get("number") or {}, line.get("kind", ""), line.get("step") or 0.001
        if not reads_otherwise(kind, units):
            yield line
            continue

        def of(name: str, number: Line = number, kind: str = kind, step: float = step) -> Amount | None:
            return Amount(number[name], kind, step) if number.get(name) is not None else None

        low, high = (exact(number[end], kind) if number.get(end) is not None else None for end in ("low", "high"))
        yield {
            **line,
            "value": beside(line["value"], units, of("found")),
            "left": beside(line["left"], units, of("value")),
            "limits": beside(line["limits"], units, None, low, high),
        }


def _figure(station: str, line: Line) -> ReportValue:
    found, left = line["value"], line["left"]
    if not left and not STATION_BY_KEY[station].as_found and not line["key"].startswith("as asked"):
        found, left = "", found
    saved = ("part", "words", "limits", "source", "state", "gauge", "by", "at")
    return ReportValue(station=str(STATION_BY_KEY[station].name), found=found, left=left, **{name: line[name] for name in saved})


# the first page


def mattering(stand: Iterable[Recorded]) -> list[KeyValue]:
    """Return the important values, one for each place: those of the registry, and all that are not OK.

    They are in the order of work. If there are too many, values that are not OK or changed come first.
    """
    places: dict[str, list[tuple[Recorded, Line]]] = {}
    for each in stand:
        for line in in_both_units(each):
            places.setdefault(_place(each, line), []).append((each, line))
    chosen = [_mattering(lines) for lines in places.values() if any(_matters(each, line) for each, line in lines)]
    first = sorted(chosen, key=lambda each: each.weight)[:MOST]
    return [each for each in chosen if each in first]


def _place(each: Recorded, line: Line) -> str:
    """The same for the same place of the same part, whichever station measured it."""
    return str(line.get("slot") or f"{each.entry.station.key} {line['part']} {line['key']}")


def _matters(each: Recorded, line: Line) -> bool:
    if line["state"] in BAD:
        return True
    if line.get("code"):
        return line["code"] in each.station.sheet
    told, _, _where = str(line["key"]).partition(".")  # of a record made before figures had codes
    return told in each.station.sheet or (told.startswith("told ") and bool(line["limits"]))


def _mattering(lines: list[tuple[Recorded, Line]]) -> KeyValue:
    (first, as_found), (last, as_left) = lines[0], lines[-1]
    came = as_found["value"] if first.station.as_found or as_found["left"] else ""
    left = as_left["left"] or ("" if last.station.as_found else as_left["value"])
    name, part = str(as_left["words"]), str(as_left["part"])
    return KeyValue(
        f"{name}, {part}" if part and part.lower() not in name.lower() else name,
        came or str(words.NOT_MEASURED),
        left or str(words.NOT_AGAIN),
        str(as_left["limits"]),
        _lies(as_left.get("number")),
        str(as_left["state"]),
        bool(came),
        bool(left),
    )


def _lies(number: Mapping[str, float | None] | None) -> LimitPosition | None:
    """A value on a scale that just holds it and its limits; from zero where there is one limit only."""
    if not number or number["value"] is None:
        return None
    value, uncertainty = float(number["value"]), float(number["doubt"] or 0.0)
    limits = [float(end) for end in (number["low"], number["high"]) if end is not None]
    if not limits:
        return None
    ends = [value - uncertainty, value + uncertainty, *limits, *([0.0] if len(limits) == 1 else [])]
    low, high = min(ends), max(ends)
    pad = 0.15 * (high - low or 1.0)
    low, wide = low - pad, high - low + 2 * pad
    return LimitPosition(
        round((value - low) / wide, 4), round(uncertainty / wide, 4), tuple(round((end - low) / wide, 4) for end in limits)
    )
