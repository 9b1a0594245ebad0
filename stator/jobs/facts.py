"""Facts of an engine: the readings and decisions of its job and the values of its card, by part and property.

Withdrawn readings and entries whose replacement is signed do not count. A replacement counts when it is signed.
"""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from enum import StrEnum
from functools import cached_property
from typing import Any

from shopmath.amounts import Amount
from shopmath.gauges import gauge_uncertainty
from stator.engines.card_facts import CardFigure, Limit
from stator.engines.fact_keys import ANYWHERE, FactKey, Location
from stator.engines.parts import Part
from stator.engines.properties import Property

NO_GAUGE_MM = 0.02  # resolution assumed for a reading whose gauge is not known


class Origin(StrEnum):
    """The origin of a fact, from the most to the least trusted."""

    MEASURED = "measured"
    DECIDED = "decided"
    CARD = "card"
    ASSUMED = "assumed"


ORIGIN_PRIORITY = list(Origin)


@dataclass(frozen=True)
class GaugeSnapshot:
    """The data of a gauge that the uncertainty of a reading depends on."""

    name: str
    resolution: float
    repeatability: float | None = None
    calibration: float = 0.0
    kind: str = ""

    def uncertainty(self, repeats: Sequence[float] = ()) -> float:
        """Expanded (k = 2), of the mean of the repeats."""
        return gauge_uncertainty(self.resolution, self.repeatability, repeats, self.calibration, kind=self.kind)


@dataclass(frozen=True)
class MeasuredReading:
    """A reading that was not withdrawn, as plain values in the core's units."""

    slot: FactKey
    value: float | None
    text: str = ""
    kind: str = "length"
    attempt: int = 1
    turn: int = 1
    gauge: GaugeSnapshot | None = None
    station: str = ""
    entry: int = 0
    signed: bool = True
    at: datetime | None = None
    by: str = ""
    number: int = 0
    carried: bool = False
    uncertainty: float | None = None  # of a value taken over from elsewhere, whose gauge is not at hand
    corrected: Mapping[str, Any] = field(default_factory=dict, hash=False)  # what was worked out as it was taken

    @property
    def step(self) -> float | None:
        """The step it was read to: the gauge's, else as many digits as were typed."""
        if self.gauge:
            return self.gauge.resolution
        digits = re.match(r"\s*[-+]?\d+(?:[.,](\d+))?", self.text)
        return 10.0 ** -len(digits[1] or "") if digits and self.kind == "length" else None


@dataclass(frozen=True)
class Fact:
    """A fact with its uncertainty and its origin."""

    slot: FactKey
    value: float | None
    text: str
    origin: Origin
    kind: str = "length"
    uncertainty: float | None = None
    resolution: float | None = None
    station: str = ""
    source: str = ""
    entry: int = 0
    signed: bool = True
    at: datetime | None = None
    by: str = ""
    reading: int = 0
    assumed: bool = False

    @property
    def amount(self) -> Amount:
        """As a number for a sentence; only of a fact that has a value."""
        assert self.value is not None
        return Amount(self.value, self.kind, self.resolution or 0.001, self.uncertainty)

    @property
    def measured(self) -> bool:
        return self.origin == Origin.MEASURED


def fact_of(readings: Sequence[MeasuredReading]) -> Fact:
    """Readings of one place in one attempt as a fact: their mean, and how sure it is."""
    last = readings[-1]
    values = [each.value for each in readings if each.value is not None]
    words = last.value is None
    gauge = last.gauge
    known = last.uncertainty
    if known is None and not words and last.kind == "length":
        known = (gauge or GaugeSnapshot("", NO_GAUGE_MM)).uncertainty(values)
    return Fact(
        slot=last.slot,
        value=None if words else sum(values) / len(values),
        text=last.text,
        origin=Origin.DECIDED if words else Origin.MEASURED,
        kind=last.kind,
        uncertainty=known,
        resolution=last.step,
        station=last.station,
        source=gauge.name if gauge else "",
        entry=last.entry,
        signed=last.signed,
        at=last.at,
        by=last.by,
        reading=last.number,
    )


@dataclass(frozen=True)
class Finding:
    """A fact that follows from an entry's readings and is stored for other stations when the entry is signed."""

    slot: FactKey
    value: float | None = None
    text: str = ""
    uncertainty: float | None = None
    resolution: float | None = None
    assumed: bool = False


Where = tuple[str, str, Property]  # kind and identity of a part, and what is known of it


def _where(slot: FactKey) -> Where:
    return slot.part.kind, slot.part.uid, slot.what


def _of_card(value: CardFigure) -> Fact:
    """Return what a card says, as a fact."""
    return Fact(
        slot=value.slot,
        value=value.value,
        text=value.text,
        origin=Origin.ASSUMED if value.assumed else Origin.CARD,
        kind=value.slot.about.kind,
        uncertainty=value.uncertainty,
        source=value.source,
        assumed=value.assumed,
    )


class Facts:
    """All facts of one engine.

    It records which were used, so that a record can list what a verdict depends on.
    """

    def __init__(
        self,
        taken: Iterable[MeasuredReading] = (),
        derived: Iterable[Fact] = (),
        card: Iterable[CardFigure] = (),
        limits: Iterable[Limit] = (),
    ) -> None:
        self._taken: dict[Where, list[MeasuredReading]] = defaultdict(list)
        self._told: dict[Where, list[Fact]] = defaultdict(list)  # what follows from readings, then what the card says
        for reading in taken:
            if not reading.carried:  # counted where it was taken
                self._taken[_where(reading.slot)].append(reading)
        for fact in (*derived, *map(_of_card, card)):
            self._told[_where(fact.slot)].append(fact)
        self._by_place: dict[Where, dict[Location, list[Fact]]] = {}
        self.used: dict[str, Fact] = {}
        self.limits_used: dict[str, Limit] = {}
        self._limits = {limit.what: limit for limit in limits}

    @property
    def taken(self) -> list[MeasuredReading]:
        """Return the readings that it is made of."""
        return [each for readings in self._taken.values() for each in readings]

    def _facts(self, where: Where) -> dict[Location, list[Fact]]:
        """Return the facts of a property of a part by place, from the oldest; each round of readings is one fact."""
        if where not in self._by_place:
            rounds: dict[tuple[int, Location, int], list[MeasuredReading]] = defaultdict(list)
            for each in self._taken.get(where, ()):
                rounds[each.entry, each.slot.at, each.attempt].append(each)
            places: dict[Location, list[Fact]] = defaultdict(list)
            for fact in (*map(fact_of, rounds.values()), *self._told.get(where, ())):
                places[fact.slot.at].append(fact)
            self._by_place[where] = {at: sorted(facts, key=_when) for at, facts in places.items()}
        return self._by_place[where]

    def history(self, part: Part, known: Property, at: Location = ANYWHERE) -> list[Fact]:
        """Everything known of one place, oldest first, the card's word before all."""
        return list(self._facts((part.kind, part.uid, known)).get(at, ()))

    def best(self, part: Part, known: Property, at: Location = ANYWHERE) -> Fact | None:
        """The most trusted fact, the latest of those; None where nothing is known."""
        found = self.history(part, known, at)
        if not found:
            return None
        best = min(reversed(found), key=lambda fact: ORIGIN_PRIORITY.index(fact.origin))
        self.used[best.slot.key] = best
        return best

    def said(self, part: Part, known: Property, at: Location = ANYWHERE) -> str:
        """Return what was decided or seen, as the key of its answer; empty where nothing is known."""
        best = self.best(part, known, at)
        return best.text if best else ""

    def places(self, part: Part, known: Property) -> list[Location]:
        """Return where on a part a property is known."""
        return list(self._facts((part.kind, part.uid, known)))

    def as_found(self, part: Part, known: Property, at: Location = ANYWHERE) -> Fact | None:
        """The first that was measured or decided."""
        return next((fact for fact in self.history(part, known, at) if fact.origin in (Origin.MEASURED, Origin.DECIDED)), None)

    def as_left(self, part: Part, known: Property, at: Location = ANYWHERE) -> Fact | None:
        """The last that was measured or decided."""
        found = [fact for fact in self.history(part, known, at) if fact.origin in (Origin.MEASURED, Origin.DECIDED)]
        return found[-1] if found else None

    def limit(self, known: Property) -> Limit | None:
        """Return what the card allows; None where it says nothing."""
        found = self._limits.get(known)
        if found:
            self.limits_used[known.value] = found
        return found

    def all_of(self, known: Property) -> list[Fact]:
        """Return every fact of one property for any part, from the oldest."""
        needed = dict.fromkeys(where for where in (*self._taken, *self._told) if where[2] == known)
        found = [fact for where in needed for facts in self._facts(where).values() for fact in facts]
        return sorted(found, key=_when)

    def parts_with(self, known: Property) -> list[Part]:
        """Parts of which a property is known."""
        return list({fact.slot.part: None for fact in self.all_of(known)})


def _when(fact: Fact) -> tuple[int, float, int]:
    return (fact.entry, fact.at.timestamp() if fact.at else 0.0, fact.reading)


@dataclass(frozen=True)
class RecordedAction:
    """One thing that hands did, as plain values."""

    kind: str
    attempt: int = 1
    part: Part | None = None
    at: Location = ANYWHERE
    amount: float | None = None
    text: str = ""
    when: datetime | None = None
    detail: Mapping[str, Any] = field(default_factory=dict, hash=False)  # numbers that go with it


@dataclass(frozen=True)
class EntryData:
    """The data of one entry: valid readings, recorded actions, choices and skipped questions."""

    taken: tuple[MeasuredReading, ...] = ()
    moves: tuple[RecordedAction, ...] = ()
    chosen: dict[str, object] = field(default_factory=dict)
    skipped: frozenset[str] = frozenset()
    attempt: int = 1
    ticked: frozenset[str] = frozenset()  # lines of the check list

    @cached_property
    def _by_slot(self) -> dict[FactKey, list[MeasuredReading]]:
        found: dict[FactKey, list[MeasuredReading]] = defaultdict(list)
        for each in self.taken:
            found[each.slot].append(each)
        return found

    @cached_property
    def _facts(self) -> dict[tuple[FactKey, int | None], Fact | None]:
        return {}  # filled as they are asked for

    def all(self, slot: FactKey, attempt: int | None = None) -> list[MeasuredReading]:
        """Readings of a place, oldest first; of one attempt, or of all."""
        return [each for each in self._by_slot.get(slot, []) if attempt is None or each.attempt == attempt]

    def fact(self, slot: FactKey, attempt: int | None = None) -> Fact | None:
        """Return what the readings of a place come to, of one attempt or of the last that has any."""
        if (slot, attempt) not in self._facts:
            found = self.all(slot, attempt)
            self._facts[slot, attempt] = fact_of([each for each in found if each.attempt == found[-1].attempt]) if found else None
        return self._facts[slot, attempt]

    def value(self, slot: FactKey, attempt: int | None = None) -> float | None:
        """Return the mean of the readings."""
        fact = self.fact(slot, attempt)
        return fact.value if fact else None

    def said(self, slot: FactKey, attempt: int | None = None) -> str:
        """Return what was answered; empty where nothing was."""
        fact = self.fact(slot, attempt)
        return fact.text if fact else ""

    def has(self, slot: FactKey) -> bool:
        return bool(self._by_slot.get(slot))

    def times(self, slot: FactKey) -> int:
        """Return how often a place is read: once, or as often as a verdict that was too close needs."""
        needed = self.chosen.get("times", {})
        return int(needed.get(slot.key, 1)) if isinstance(needed, dict) else 1

    def was_skipped(self, slot: FactKey) -> bool:
        return slot.key in self.skipped

    def choice(self, key: str, default: str = "") -> str:
        return str(self.chosen.get(key, default))

    def done(self, kind: str, attempt: int | None = None) -> list[RecordedAction]:
        """Return what hands have done of one kind, in its order; in one attempt, or in all."""
        return [each for each in self.moves if each.kind == kind and (attempt is None or each.attempt == attempt)]

    def did(self, kind: str, attempt: int | None = None) -> bool:
        """Return True if hands have done something."""
        return bool(self.done(kind, attempt))
