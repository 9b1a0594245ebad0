"""The readings, choices and timers of an entry."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from stator.engines.properties import Property
from stator.jobs.models import Entry, Reading, Timer


@dataclass
class EntryReadings:
    """The readings of one entry by question, with the entry's choices and timers.

    `each_round` are the properties that are measured in every attempt. Everything else is measured in the first attempt only.
    """

    entry: Entry | None
    readings: list[Reading]
    timers: list[Timer]
    each_round: frozenset[Property]

    @property
    def attempt(self) -> int:
        """Return the number of the attempt."""
        return self.entry.attempt if self.entry else 1

    @property
    def choices(self) -> dict[str, Any]:
        return self.entry.choices if self.entry else {}

    @property
    def skipped(self) -> list[str]:
        """Return the questions that were skipped, by key."""
        return list(self.choices.get("skipped", []))

    def timer(self, key: str) -> Timer | None:
        """Return a timer of this attempt."""
        return next((timer for timer in self.timers if timer.key == key and timer.attempt == self.attempt), None)

    def live(self, key: str, every_attempt: bool = False) -> list[Reading]:
        """Return the readings of a question that are not withdrawn, the oldest first."""
        found = [reading for reading in self._by_question[key] if not reading.withdrawn_at]
        if every_attempt or not found or Property(found[0].property or Property.NOTE) not in self.each_round:
            return found
        return [reading for reading in found if reading.attempt == self.attempt]

    @cached_property
    def _by_question(self) -> dict[str, list[Reading]]:
        found: dict[str, list[Reading]] = defaultdict(list)
        for reading in self.readings:
            found[reading.ask].append(reading)
        return found

    def last(self, key: str) -> Reading | None:
        """Return the last reading of a question."""
        return next(reversed(self.live(key)), None)

    def value(self, key: str) -> float | None:
        """Return the last number of a question."""
        reading = self.last(key)
        return reading.canonical if reading else None

    def values(self, key: str) -> list[float]:
        """Return every number of a question."""
        return [reading.canonical for reading in self.live(key) if reading.canonical is not None]

    def said(self, key: str) -> str:
        """Return a choice or words as answered; empty if there is no answer yet."""
        reading = self.last(key)
        return reading.text if reading else ""
