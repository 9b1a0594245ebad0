"""The definition of a station, and the input of its analysis."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from datetime import datetime
from types import ModuleType
from typing import TYPE_CHECKING, Any

from django.utils.functional import Promise

from shopmath.amounts import Amount
from shopmath.quantity import Quantity
from stator.engines.fact_keys import FactKey
from stator.engines.models import EngineCard, Seat
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Facts, Finding, MeasuredReading
from stator.jobs.models import Job, Reading, Timer, TrayPlace
from stator.shop.equipment_snapshot import EquipmentSnapshot
from stator.shop.models import Equipment, Gauge, Person, Shop
from stator.stations.framework.canvas import Canvas
from stator.stations.framework.messages import Sentence
from stator.stations.framework.page_components import Action, Method, Question, SafetyWarning, Source
from stator.stations.framework.predictions import Prediction
from stator.stations.framework.prerequisites import Prerequisite
from stator.stations.framework.verdict import MessageRef, Verdict

if TYPE_CHECKING:
    from stator.stations.framework.bound_station import BoundStation


@dataclass(frozen=True)
class StationInput:
    """The input of a station's analysis: engine card, job facts, data of its own entry and shop equipment."""

    card: EngineCard
    facts: Facts = field(default_factory=Facts)
    own: EntryData = field(default_factory=EntryData)
    shelves: EquipmentSnapshot | None = None
    shop: Shop | None = None
    seat: Seat | None = None
    job: Job | None = None
    timers: tuple[Timer, ...] = ()
    person: Person | None = None
    now: datetime | None = None
    past: Any = ()  # what earlier jobs tell, where the station looks back
    tray: tuple[TrayPlace, ...] = ()  # what lies on the parts tray, where the station looks at it

    def timer(self, key: str) -> Timer | None:
        """A clock of this attempt, running or run down."""
        return next((each for each in self.timers if each.key == key and each.attempt == self.own.attempt), None)


@dataclass(frozen=True)
class Contradiction:
    """A measured value that differs from the engine card: place, measured value and value of the card."""

    slot: FactKey
    found: Any
    card: Any
    code: str = ""


@dataclass(frozen=True)
class DerivedValue:
    """A value that is computed from several readings, for the job report: as found, as left, limits and verdict."""

    slot: FactKey
    code: str
    found: Amount
    left: Amount | str | None = None
    low: Amount | None = None
    high: Amount | None = None
    source: MessageRef | None = None
    state: str = ""


def _nothing(*of: Any) -> tuple[()]:
    return ()


def _no(found: Any) -> bool:
    return False


def _none(found: Any) -> list[Any]:
    return []


@dataclass(frozen=True)
class StationDefinition:
    """The definition of a station, from which a `BoundStation` works.

    `facts` computes the analysis from the `StationInput`. The other functions get this analysis and nothing else. Only `actions`,
    `may_sign`, `kept` and `move_timers` get the bound station, because they write or depend on the whole entry.
    """

    key: str
    name: str | Promise
    by_seat: bool = False
    built: bool = True
    whole: StationDefinition | None = None  # of a station that goes seat by seat: the work on all of them at once, or on what sits in none
    whole_name: Sentence = ""  # what its page calls that work
    at_once: bool = False  # whether that is how it is best taken up, where two seats of one part wait
    from_log: bool = True  # whether readings may be read in afterwards from a gauge's own log
    equipment: Mapping[str, str] = field(default_factory=dict)  # choices that name a thing on the shelves: key, or `key-`, -> shelf
    passing: frozenset[str] = frozenset()  # choices that mean something only while the work runs, and go into no file
    open_when_closed: bool = False  # whether a job that was handed over is opened again here
    drawn: bool = False  # whether the job sheet shows its drawing
    as_found: bool = False  # whether what it measures is how the engine came, before anything is put right
    sheet: tuple[str, ...] = ()  # figures that the owner's page shows: properties of readings, codes of results
    done: Sentence = ""  # what signing it says was done, for the owner's page; with {count} where it goes seat by seat
    rebuilds: bool = False  # whether it puts together: a photo taken from here on shows the engine as it is left
    needs: tuple[Prerequisite, ...] = ()
    gives: tuple[Property, ...] = ()
    copies: frozenset[Property] = frozenset()  # choices that are often the same at the next seat: answered in one act as there
    waits: frozenset[Property] = frozenset()  # readings that move a clock: none is taken while the machine cannot be reached
    each_round: frozenset[Property] = frozenset()  # what is read anew in every attempt; everything else is asked once
    # the room
    variant: Callable[[StationDefinition, Job], StationDefinition] | None = None  # the definition for a job, if it is not this one
    words: ModuleType | None = None
    facts: Callable[[StationInput], Any] | None = None
    questions: Callable[[Any], list[Question]] = _nothing  # type: ignore[assignment]
    verdict: Callable[[Any, list[Question]], Verdict] | None = None
    overall: Callable[[Any], Verdict] | None = None  # what is signed, where the page shows one part of the work at a time
    draw: Callable[[Any, Canvas], None] | None = None
    methods: Callable[[Any], tuple[Method, ...]] = _nothing
    asks_first: Callable[[Any], str | None] | None = None  # key of a question that goes before all others just now
    tabs: Callable[[Any], Method | None] | None = None
    checks: Callable[[Any], tuple[SafetyWarning, ...]] = _nothing
    checks_past: Callable[[Any], bool] = _no  # whether the work is past the point that the checks are for
    warnings: Callable[[Any], tuple[SafetyWarning, ...]] = _nothing
    sources: Callable[[Any], Iterable[Source]] = _nothing
    live: Callable[[Any], bool] = _no  # whether the page changes by itself just now
    actions: Callable[[BoundStation], tuple[Action, ...]] = _nothing
    results: Callable[[Any], Iterable[DerivedValue]] = _nothing
    derived: Callable[[Any], Iterable[Finding]] = _nothing
    contradictions: Callable[[Any], Iterable[Contradiction]] = _nothing
    result: Callable[[Any], Mapping[str, Any]] | None = None
    gates_signing: bool = True  # whether a required check keeps the entry from being signed, or only the step it stands before
    may_sign: Callable[[BoundStation], str] | None = None  # why the bound entry cannot be signed yet, beyond what all stations ask
    note: Callable[[Any, MeasuredReading], str] | None = None  # what stands beside a reading in the table
    spelled: Callable[[Any, FactKey, float], str] | None = (
        None  # how a reading is shown where that is not in its usual unit; empty: as usual
    )
    kept: Callable[[BoundStation, Reading], None] | None = None  # after a reading was kept
    move_timers: Callable[[BoundStation], None] | None = None  # sets the ends of its timers to what is known now; called after each write
    taken_with: Callable[[Any, FactKey], Gauge | None] | None = None  # the gauge of a reading that is not taken with the usual one
    corrected: Callable[[Any, FactKey, Quantity], Mapping[str, Any]] | None = (
        None  # what is worked out and kept with a reading as it is taken
    )
    uses: Callable[[Any], Iterable[tuple[str, Equipment]]] = _nothing  # shelf and thing that it rests on, besides the gauges that read
    height: float = 560.0  # of its drawing, px
    slider: Callable[[Any], tuple[float, float] | None] = _no  # type: ignore[assignment]  # longest time and now, s, where its drawing moves
    sees_tray: bool = False  # whether it is given what lies on the parts tray
    past: Callable[[StationInput, int], Any] | None = None  # what earlier jobs tell, but for one entry
    prediction: Prediction | None = None  # what it predicts, for the page that compares it with what happened
    history: Callable[[Any], list[dict[str, str]]] = _none  # that as rows of a table

    @property
    def goes_whole(self) -> bool:
        return self.whole is not None

    def at(self, seat: Seat | None) -> StationDefinition:
        """The definition of the work on a seat, or on all of them at once."""
        return self.whole if self.whole and seat is None else self
