"""Analysis of an engine at handover: open stations, parts on the tray, and entries signed against the verdict."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from functools import cached_property

from stator.engines.fact_keys import FactKey
from stator.engines.models import EngineCard
from stator.engines.parts import ENGINE
from stator.engines.properties import Property
from stator.jobs.facts import EntryData
from stator.jobs.models import Entry, Job, RunStation
from stator.stations.framework import State, StationInput
from stator.stations.framework.log_labels import words_of

HERE = "hand-over"
ADVISED_AGAINST = (State.OUT, State.STOP, State.TOO_CLOSE)
FINISHED = (RunStation.State.DONE, RunStation.State.SKIPPED)


class Code(StrEnum):
    """Codes of the verdicts of Hand over engine."""

    NOT_FINISHED = "not finished"
    ON_THE_TRAY = "on the tray"
    CURING = "curing"
    LAST_WORDS = "last words"
    OWNER_SIGNS = "owner signs"
    READY = "ready"
    RESERVATIONS = "reservations"


def of_engine(what: Property) -> FactKey:
    return FactKey(ENGINE, what)


@dataclass(frozen=True)
class Line:
    """The state of a station: its key, its latest signed verdict, and the reason if it was skipped."""

    key: str
    state: str
    call_state: str
    words: str
    because: str


@dataclass(frozen=True)
class HandOverAnalysis:
    """All that Hand over looks at."""

    card: EngineCard
    job: Job
    own: EntryData
    now: datetime | None
    by_owner: bool

    def said(self, what: Property) -> str:
        return self.own.said(of_engine(what))

    @cached_property
    def entries(self) -> list[Entry]:
        """Entries of the other stations that stand, oldest first."""
        return list(
            Entry.objects.filter(job=self.job.pk, superseded_by=None)
            .exclude(station__key=HERE)
            .select_related("station")
            .only("station__key", "signed_at", "call_state", "call_words")
        )

    @cached_property
    def signed(self) -> list[Entry]:
        return [entry for entry in self.entries if entry.is_signed]

    @cached_property
    def lines(self) -> list[Line]:
        found = []
        for stage in self.job.run.all():
            if stage.key == HERE:
                continue
            last = next((entry for entry in reversed(self.signed) if entry.station_id == stage.pk), None)
            call_state, words = (last.call_state, last.call_words) if last else ("", "")
            found.append(Line(stage.key, stage.state, call_state, words, stage.because))
        return found

    @cached_property
    def unsigned(self) -> list[str]:
        """Return the stations that are begun and not signed, or neither done nor skipped with a reason."""
        begun = [entry.station.key for entry in self.entries if not entry.is_signed]
        ahead = [line.key for line in self.lines if line.state not in FINISHED]
        return list(dict.fromkeys([*begun, *ahead]))

    @cached_property
    def on_the_tray(self) -> list[str]:
        return [f"{place.number} {place.name}" for place in self.job.tray.all() if not place.emptied_at]

    @cached_property
    def curing(self) -> list[str]:
        """Clocks that still run."""
        timers = self.job.timers.all()
        return [words_of(timer) for timer in timers if not timer.ended_at and timer.due_at and self.now and timer.due_at > self.now]

    @cached_property
    def against(self) -> list[Entry]:
        """Return the entries that were signed although the verdict was not OK."""
        return [entry for entry in self.signed if entry.call_state in ADVISED_AGAINST]

    @property
    def parts(self) -> list[str]:
        return [each.text for each in self.own.all(of_engine(Property.PARTS_USED))]


def hand_over_facts(given: StationInput) -> HandOverAnalysis:
    """Return what Hand over knows, built once for a page or an act."""
    assert given.job is not None
    return HandOverAnalysis(given.card, given.job, given.own, given.now, bool(given.person and given.person.is_owner))
