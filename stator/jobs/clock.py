"""The clock of the shop's computer and its plausibility. Nothing is ordered by it."""

from __future__ import annotations

import time
from collections.abc import Iterable
from datetime import datetime, timedelta
from typing import Any, Protocol

from django.utils import timezone
from django.utils.translation import gettext as _

NOTICED = timedelta(minutes=2)  # less is the network's time service at work
PACE = 10  # times as fast as the machine's clock, where waits of practice are shortened


class Clocked(Protocol):
    """A job, as far as its clock goes."""

    practice: bool
    ahead_s: float
    fast_since: datetime | None

    def save(self, *, update_fields: Any = None) -> None: ...
    def touch(self) -> None: ...


def now(job: Clocked | None = None) -> datetime:
    """Return the time of a job: that of the computer, or of practice, where waits can be shortened."""
    machine = timezone.now()
    return machine if job is None or not job.practice else machine + _ahead(job, machine)


def _ahead(job: Clocked, machine: datetime) -> timedelta:
    fast = machine - job.fast_since if job.fast_since else timedelta()
    return timedelta(seconds=job.ahead_s) + (PACE - 1) * fast


def pace(job: Clocked) -> int:
    """Return how many times as fast as the machine's a job's clock runs."""
    return PACE if job.fast_since else 1


def set_pace(job: Clocked, *, fast: bool) -> None:
    """Let a practice job's clock run fast, or as usual; what it is ahead by stays."""
    machine = timezone.now()
    job.ahead_s, job.fast_since = _ahead(job, machine).total_seconds(), machine if fast else None
    job.save(update_fields=["ahead_s", "fast_since"])
    job.touch()


def _running_s() -> float:
    """Seconds that this machine has run, asleep or not; where that is not known, awake."""
    known = getattr(time, "CLOCK_BOOTTIME", None)
    return time.clock_gettime(known) if known is not None else time.monotonic()


class ClockJump:
    """The amount by which the clock was changed since this process began."""

    def __init__(self) -> None:
        self._apart = time.time() - _running_s()

    def jumped(self) -> timedelta:
        return timedelta(seconds=time.time() - _running_s() - self._apart)


DRIFT = ClockJump()


def _about(by: timedelta) -> str:
    minutes = round(abs(by).total_seconds() / 60)
    return f"{minutes} min" if minutes < 120 else f"{round(minutes / 60)} h"


def notes(now: datetime, taken: Iterable[datetime]) -> list[str]:
    """Return notes on the clock: set back behind recorded times, or changed while the server runs."""
    last = max(taken, default=None)
    if last is not None and last - now > NOTICED:
        return [
            _(
                "The clock of the shop's machine stands at {now:%H:%M} UTC, {about} before the last entry written here. Set it right; "
                "what is written keeps its order, but clocks that run are counted by it."
            ).format(now=now, about=_about(last - now))
        ]
    jumped = DRIFT.jumped()
    if abs(jumped) > NOTICED:
        forward = _("The clock of the shop's machine was set forward by {time} while Stator ran: clocks that run are wrong by that.")
        back = _("The clock of the shop's machine was set back by {time} while Stator ran: clocks that run are wrong by that.")
        return [(forward if jumped > timedelta(0) else back).format(time=_about(jumped))]
    return []
