"""What a bound station was given, what it finds in that, once for a page or an act, and what it asks."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import cached_property
from typing import Any, Self

from django.db.models import prefetch_related_objects

from shopmath.amounts import Amount
from stator.engines.card_loader import PREFETCHED, is_whole, load_card
from stator.engines.properties import Property
from stator.jobs.fact_loader import current_entry, own_of
from stator.jobs.facts import EntryData, Fact, Origin
from stator.jobs.models import Job, Reading
from stator.shop.equipment_snapshot import shelves, with_lent
from stator.stations.framework import messages as shared
from stator.stations.framework.definition import StationDefinition, StationInput, station_name
from stator.stations.framework.measured_markings import read_off
from stator.stations.framework.messages import format_message
from stator.stations.framework.page_components import Question
from stator.stations.framework.work import BoundStation
from stator.ui.number_format import shown as spelled
from stator.ui.times import short_day


class Knowing(BoundStation):
    """A bound station as far as what it was given, what it finds in that, and what it asks."""

    before: EntryData | None = None  # what its entry held when it had one reading less

    def __post_init__(self) -> None:
        super().__post_init__()
        if not is_whole(self.job.card):
            prefetch_related_objects([self.job.card], *PREFETCHED)
        if self.entry:
            self.entry.station = self.stage

    def anew(self, readings: Sequence[Reading] = ()) -> BoundStation:
        again = super().anew(readings)
        if readings and isinstance(again, Knowing):
            again.before = self.own
        return again

    def refreshed(self) -> Self:
        """The same work after something was written, at the same moment."""
        job = Job.every.select_related("card").get(pk=self.job.pk)
        job.card = load_card(job.card)
        entry = current_entry(self.stage, self.seat)
        return type(self)(self.station, job, self.stage, self.seat, entry, self.person, self.now, self.shop)

    # what it knows

    @property
    def definition(self) -> StationDefinition:
        """Return what describes this work: the station's, or that of all its seats at once."""
        return self.station.at(self.seat)

    @property
    def from_log(self) -> bool:  # type: ignore[override]
        return self.definition.from_log

    @cached_property
    def own(self) -> EntryData:
        """Return what this entry holds itself."""
        return own_of(self.entry, self.readings, self.before)

    @cached_property
    def given(self) -> StationInput:
        on_shelves, timers = shelves(self.shop), tuple(self.timers)
        on_shelves = with_lent(on_shelves) if self.job.practice else on_shelves
        read_off([*self.job.card.seats.all(), *([self.seat] if self.seat else [])], self.known, self.own)
        given = StationInput(self.job.card, self.known, self.own, on_shelves, self.shop, self.seat, self.job, timers, self.person, self.now)
        given = replace(given, tray=tuple(self.job.tray.all())) if self.definition.sees_tray else given
        besides = self.entry.pk if self.entry else 0
        return replace(given, past=self.definition.past(given, besides)) if self.definition.past else given

    @cached_property
    def found(self) -> Any:
        """Everything the station computes, once for a page or an act."""
        assert self.definition.facts is not None
        return self.definition.facts(self.given)

    @property
    def words(self) -> Any:
        return self.definition.words

    # what it asks

    def asks(self) -> list[Question]:
        return [self._offered(ask) for ask in self.definition.questions(self.found)]

    def _offered(self, ask: Question) -> Question:
        """A question whose answer another entry knows already: it is offered, and Enter alone uses it."""
        slot = ask.slot
        if slot is None or not slot.about.shared or ask.anew or ask.offer or self.own.has(slot):
            return ask
        fact = self.known.best(slot.part, slot.what, slot.at)
        if fact is None or fact.origin not in (Origin.MEASURED, Origin.DECIDED):
            return ask
        if ask.options and fact.text not in [option.key for option in ask.options]:
            return ask
        said = self.fact_words(fact, ask)
        at = short_day(fact.at) if fact.at else ""
        where = format_message(shared.OFFERED, {"station": station_name(fact.station), "value": said, "when": at})
        return replace(ask, where=where, offer=fact, enter=fact.text if ask.options else "")

    def fact_words(self, fact: Fact, ask: Question) -> str:
        """A fact of another entry, in the words of this question."""
        if fact.value is None:
            return next((option.words for option in ask.options if option.key == fact.text), fact.text)
        return format_value(Amount(fact.value, fact.kind, fact.resolution or ask.resolution))

    def question_for(self, key: str | None) -> Question | None:
        """The question jumped to, else the one that the station puts first, else the next in turn."""
        first = self.definition.asks_first(self.found) if self.definition.asks_first and not self.signed else None
        return super().question_for(key or first)

    def live(self, key: str, every_attempt: bool = False) -> list[Reading]:
        """Readings that stand. What is read anew in every round belongs to its round, everything else is asked once."""
        found = super().live(key, every_attempt=True)
        if every_attempt or not found or Property(found[0].property or Property.NOTE) not in self.definition.each_round:
            return found
        return [reading for reading in found if reading.attempt == self.attempt]


def format_value(value: Any) -> str:
    """A value as its reader sees it."""
    return str(spelled({"value": value})["value"])
