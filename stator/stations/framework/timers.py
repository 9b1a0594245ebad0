"""Timers that a station starts. The message of each is stored as code and values."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from stator.jobs import log
from stator.jobs.models import Timer
from stator.stations.framework import next_step
from stator.stations.framework.bound_station import BoundStation

SAME = timedelta(seconds=1)  # two ends of a timer that are no farther apart are the same


def start(
    bound: BoundStation, key: str, tone: str, lasts_s: float | None, code: str = "", *, attempt: int | None = None, **values: Any
) -> None:
    """Start a clock of this attempt; `code` names its sentence where its key does not."""
    said = next_step.next_step_code(code or key, values, whole=bound.definition is not bound.station)
    number = bound.answers.attempt if attempt is None else attempt
    log.start_timer(bound.open_entry, bound.person, key, said, tone, lasts_s, attempt=number, at=bound.now)


def move(bound: BoundStation, timer: Timer, in_s: float, code: str = "", **values: Any) -> None:
    """Set the end of a timer to `in_s` seconds from now if that differs. A code also changes its message."""
    said = next_step.next_step_code(code, values, whole=bound.definition is not bound.station) if code else timer.said
    due_at = bound.now + timedelta(seconds=in_s)
    if timer.ended_at or (said == timer.said and timer.due_at and abs(due_at - timer.due_at) < SAME):
        return
    log.move_due(timer, due_at, said if code else None)
    timer.due_at, timer.said = due_at, said  # the page is made of this object
