"""Notes on work that is not computed, one after another."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum

from stator.engines.fact_keys import FactKey
from stator.engines.parts import ENGINE
from stator.engines.properties import Property
from stator.jobs.facts import EntryData
from stator.stations.framework import StationInput

NOTE = FactKey(ENGINE, Property.NOTE)


class Code(StrEnum):
    """Codes of the verdicts of work notes."""

    NOTHING_YET = "nothing yet"
    WRITTEN = "written"
    DONE = "done"


@dataclass(frozen=True)
class WorkNotes:
    """The notes of one entry."""

    own: EntryData
    station: str

    @property
    def notes(self) -> list[str]:
        return [each.text for each in self.own.all(NOTE)]


def facts_for(station: str) -> Callable[[StationInput], WorkNotes]:
    """Return what makes the facts of a station of this key."""

    def by_hand_facts(given: StationInput) -> WorkNotes:
        return WorkNotes(given.own, station)

    return by_hand_facts
