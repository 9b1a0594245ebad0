"""Results of readings for the job report."""

from __future__ import annotations

from typing import Any

from shopmath.amounts import Amount
from stator.stations.framework import messages as shared
from stator.stations.framework.definition import DerivedValue
from stator.stations.framework.messages import render_message
from stator.stations.framework.page_components import ReportResult
from stator.ui.number_format import between, shown


def results_of(words: Any, result: DerivedValue, name: str) -> ReportResult:
    """Return a result of a station as text and as plain numbers."""
    origins = {**shared.LIMIT_FROM, **getattr(words, "LIMIT_FROM", {})}
    source = render_message(origins, result.source.code, result.source.values) if result.source else ""
    compared = {"low": result.low or "", "high": result.high or ""}
    values = {name: str(each) for name, each in shown({"found": result.found, "left": result.left or "", **compared}).items()}
    left = values["left"]
    part = "" if result.slot.part.name.lower() in name.lower() else result.slot.part.name
    last = result.left if isinstance(result.left, Amount) else None if left else result.found
    number = {**numbered(last, result.low, result.high), "found": result.found.value} if last else None
    limits, key = between(result.low, result.high), f"{result.slot.key} {result.code}"
    kind, step = result.found.kind, result.found.resolution
    return ReportResult(name, values["found"], left, part, limits, source, result.state, key, str(result.code), kind, step, number)


def numbered(value: Amount, low: Amount | None, high: Amount | None) -> dict[str, float | None]:
    """Return a value and its limits as plain numbers, for a scale."""
    uncertainty = value.uncertainty or 0.0
    return {"value": value.value, "doubt": uncertainty, "low": low.value if low else None, "high": high.value if high else None}
