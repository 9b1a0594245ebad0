"""What was kept in an entry, and how a room reads it back: by ask, by attempt, with the uncertainty of its gauge."""

from __future__ import annotations

from collections import defaultdict
from datetime import datetime
from functools import cached_property
from typing import Any

from shopmath.gauges import gauge_uncertainty
from shopmath.quantity import decimals
from stator.jobs.models import Entry, Reading, Timer
from stator.stations.framework.page_components import Question

NO_GAUGE_MM = 0.02  # taken for a reading whose gauge is not on the shelf


class EntryReadings:
    """Readings, choices and clocks of one entry."""

    entry: Entry | None
    now: datetime
    readings: list[Reading]
    timers: list[Timer]

    @property
    def attempt(self) -> int:
        """Return which attempt this is."""
        return self.entry.attempt if self.entry else 1

    def name_of(self, ask: Question) -> str:
        """Return what a question asks for, for a list."""
        return ask.words.rstrip("?")

    @property
    def choices(self) -> dict[str, Any]:
        return self.entry.choices if self.entry else {}

    def timer(self, key: str) -> Timer | None:
        return next((timer for timer in self.timers if timer.key == key and timer.attempt == self.attempt), None)

    def live(self, key: str, every_attempt: bool = False) -> list[Reading]:
        """Readings of an ask that still stand, oldest first."""
        standing = (reading for reading in self._of_asks[key] if not reading.withdrawn_at)
        return [reading for reading in standing if every_attempt or reading.attempt == self.attempt]

    @cached_property
    def _of_asks(self) -> dict[str, list[Reading]]:
        """Readings by what they answer, also those withdrawn since."""
        found: dict[str, list[Reading]] = defaultdict(list)
        for reading in self.readings:
            found[reading.ask].append(reading)
        return found

    def last(self, key: str) -> Reading | None:
        return next(iter(reversed(self.live(key))), None)

    def value(self, key: str) -> float | None:
        reading = self.last(key)
        return reading.canonical if reading else None

    def said(self, key: str) -> str:
        """A choice or words as answered; empty when not yet."""
        reading = self.last(key)
        return reading.text if reading else ""

    def unsure(self, key: str) -> float:
        """Expanded uncertainty of the mean of what was read at one place, mm."""
        reading = self.last(key)
        found = reading.gauge if reading else None
        return found.unsure(self.now.date(), self.values(key)) if found else gauge_uncertainty(NO_GAUGE_MM)

    def digits(self, key: str) -> int:
        """Digits after the point that the gauge of a place supports."""
        reading = self.last(key)
        return decimals(reading.gauge.resolution) if reading and reading.gauge else 2

    def values(self, key: str) -> list[float]:
        """Every reading that stands at one place."""
        return [reading.canonical for reading in self.live(key) if reading.canonical is not None]

    def mean(self, key: str) -> float | None:
        """The mean of what was read at one place."""
        found = self.values(key)
        return sum(found) / len(found) if found else None
