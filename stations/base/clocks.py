"""Clocks that a station starts: what each counts is kept by code and values."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from jobs import log
from jobs.models import Timer
from stations.base import standing


def start(bound: Any, key: str, tone: str, lasts_s: float | None, code: str = "", *, attempt: int | None = None, **values: Any) -> None:
    """Start a clock of this attempt; `code` names its sentence where its key does not."""
    said = standing.kept(code or key, values, whole=bound.definition is not bound.station)
    number = bound.attempt if attempt is None else attempt
    log.start_timer(bound.entry, bound.person, key, said, tone, lasts_s, attempt=number, at=bound.now)


def move(bound: Any, timer: Timer, in_s: float, code: str = "", **values: Any) -> None:
    """It comes due sooner or later than thought; with a code it now counts for something else."""
    said = standing.kept(code, values, whole=bound.definition is not bound.station) if code else None
    log.move_due(timer, bound.now + timedelta(seconds=in_s), said)
