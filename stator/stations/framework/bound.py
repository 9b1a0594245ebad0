"""What every station shares: one drawing, one reading, one call.

A `StationDefinition` is described once. `bind` ties it to a job, a seat and a person and returns a `BoundStation`, which asks, judges and
draws. Subclasses override the few methods below; the page, the strip, the log and the print are the same for all.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import datetime
from functools import cached_property
from typing import Any, ClassVar

from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from shopmath.quantity import Quantity
from shopmath.validation import BadInput
from stator.engines.models import Seat, Spec
from stator.engines.properties import Property
from stator.jobs import entry_replacement, log
from stator.jobs.fact_loader import facts_of, readings_of
from stator.jobs.facts import Facts, Finding
from stator.jobs.models import Entry, Job, Reading, RunStation, Timer
from stator.shop.equipment_snapshot import shelves
from stator.shop.models import Equipment, Gauge, Person, Shop
from stator.stations.framework.answer_parser import understood
from stator.stations.framework.definition import StationDefinition
from stator.stations.framework.entry_readings import EntryReadings
from stator.stations.framework.gauge_faults import faulty_gauge_warnings
from stator.stations.framework.messages import capital
from stator.stations.framework.page_components import (
    WORD,
    Action,
    Method,
    Option,
    Question,
    ReadingRow,
    RenderedAlternative,
    RenderedVerdict,
    ReportResult,
    SafetyWarning,
    Source,
)
from stator.stations.framework.page_state import PageState
from stator.stations.framework.reading_notes import beside
from stator.ui.number_format import as_read, figure
from stator.ui.units import units_now
from stator.ui.url_values import station_address


@dataclass
class Bound(EntryReadings, ABC):
    """A station bound to a job, a seat and a person, now: what it asks, says, draws and has recorded."""

    station: StationDefinition
    job: Job
    stage: RunStation
    seat: Seat | None
    entry: Entry | None
    person: Person
    now: datetime
    shop: Shop
    readings: list[Reading] = field(default_factory=list)
    timers: list[Timer] = field(default_factory=list)
    from_log: ClassVar[bool] = True  # whether readings may be read in afterwards from a gauge's own log
    papers: tuple[str, ...] = ("wide", "narrow")  # which sizes of the drawing this device may need
    computes_again: bool = False  # a signed entry, computed by today's core beside what was recorded
    seen: PageState | None = None  # what the page showed on which something is done now; None where no page is involved

    def __post_init__(self) -> None:
        self.reader_units = units_now()
        if self.entry:
            self.now = self.entry.signed_at or self.now  # a signed entry stands as it stood
            self.readings = self.readings or readings_of(self.entry, self.shop)
            self.entry.job = self.job
            self.timers = [timer for timer in self.job.timers.all() if timer.entry_id == self.entry.pk]

    # what rooms override

    def asks(self) -> list[Question]:
        return []

    @abstractmethod
    def displayed_verdict(self) -> RenderedVerdict:
        """The call as it stands."""

    def verdict(self) -> RenderedVerdict:
        """The call that is signed: the one on the page, unless the room says otherwise."""
        return self.displayed_verdict()

    @abstractmethod
    def drawing(self, at_s: float | None = None) -> SafeString:
        """The part, where to measure now, and what the readings say; at an instant where time counts."""

    def slider(self) -> tuple[float, float] | None:
        """Longest time and the present one, s, when the drawing can be moved through time."""
        return None

    def checks(self) -> tuple[SafetyWarning, ...]:
        """Before you start."""
        return ()

    def every_check(self) -> tuple[SafetyWarning, ...]:
        """The whole check list, for the record: also what is past."""
        return self.checks()

    def warnings(self) -> tuple[SafetyWarning, ...]:
        return ()

    def methods(self) -> tuple[Method, ...]:
        return ()

    def tabs(self) -> Method | None:
        """Parts of the work that are taken up one at a time, as tabs over the drawing."""
        return None

    def sources(self) -> tuple[Source, ...]:
        return ()

    def actions(self) -> tuple[Action, ...]:
        return ()

    def act(self, key: str) -> None:
        """Do one of `actions`."""

    def ways(self) -> tuple[RenderedAlternative, ...]:
        """Ways on from a call that is not OK."""
        return ()

    def after_save(self, reading: Reading) -> None:
        """What a kept reading moves: clocks, mostly."""

    @property
    def has_follow_up(self) -> bool:
        """Return True if something is done after a reading was kept."""
        return type(self).after_save is not Bound.after_save

    def result(self) -> dict[str, Any]:
        """Return what is kept beside the call so that it can be computed again."""
        return {}

    def part_name(self, ask: str) -> str:
        """Return which part a reading belongs to, for the job's sheet."""
        return self.seat.name if self.seat else ""

    def told(self) -> list[ReportResult]:
        """Return what the readings came to, for the job's sheet, beside the readings themselves."""
        return []

    def is_live(self) -> bool:
        """Return True if the page changes by itself, because something cools or cures."""
        return False

    def extra_for(self, ask: Question, quantity: Quantity, data: dict[str, str]) -> tuple[Gauge | None, dict[str, Any]]:
        """Gauge and corrections kept with a reading."""
        return self.gauge_for(ask), {}

    def gauge_for(self, ask: Question) -> Gauge | None:
        """What a reading is taken with: the gauge chosen, else one of the right kind that can be heard, else the first of that kind."""
        for kind in ask.gauges:
            found = [gauge for gauge in shelves(self.shop).gauges if gauge.kind == kind]
            chosen = str(self.choices.get(f"gauge-{kind}", ""))
            if found:
                return next((gauge for gauge in found if str(gauge.pk) == chosen), None) or max(found, key=lambda gauge: bool(gauge.port))
        return None

    def check(self, ask: Question, quantity: Quantity) -> None:
        """Refuse a value that cannot be, with `BadInput`."""

    def note(self, reading: Reading) -> str:
        """Return what the sheet says beside a reading: a correction, a number that looks mistyped."""
        return ""

    def history(self) -> list[dict[str, str]]:
        return []

    def uses(self) -> Iterable[tuple[str, Equipment]]:
        """Shelf and thing that the call rests on, besides the gauges that read."""
        return ()

    # what all share

    @cached_property
    def wanted(self) -> list[Question]:
        """The asks of this moment. A work lives for one act; after a write it is bound anew."""
        return self.asks()

    @cached_property
    def call(self) -> RenderedVerdict:
        """The plate of this moment."""
        return self.displayed_verdict()

    @property
    def shows(self) -> PageState:
        """The call of this moment, as a page tells it back."""
        return PageState.now(self.job.revision, self.call.state, self.call.code or self.call.words)

    @property
    def signed(self) -> bool:
        """Return True if the entry is shown as signed; one that is computed again is not."""
        return bool(self.entry and self.entry.is_signed) and not self.computes_again

    def ticks(self, key: str) -> dict[str, str]:
        """Return who ticked a line of the check list, and when; empty where nobody did."""
        found: dict[str, str] = (self.entry.ticks if self.entry else {}).get(key, {})
        return found

    def called(self, reading: Reading) -> str:
        """Return what a reading is called on the sheet."""
        return str(reading.extra.get("asked", reading.ask))

    @cached_property
    def address(self) -> str:
        seat = self.seat.pk if self.seat else 0 if self.station.whole else None
        return station_address(self.job.tag, self.station.key, seat)

    @cached_property
    def specs(self) -> list[Spec]:
        """The card's figures."""
        return list(self.job.card.specs.all())

    def spec(self, limited: Property) -> Spec | None:
        """The figure of the card that limits a property."""
        return next((each for each in self.specs if each.property == limited), None)

    def gauge_methods(self) -> tuple[Method, ...]:
        """Return which gauge is in use, where the shelf has more than one of a kind."""
        methods = []
        for kind in dict.fromkeys(kind for ask in self.wanted for kind in ask.gauges):
            found = [gauge for gauge in shelves(self.shop).gauges if gauge.kind == kind]
            if len(found) > 1:
                using = self.gauge_for(Question("", "", gauges=(kind,)))
                options = tuple(Option(str(each.pk), each.name, each.step_shown) for each in found)
                methods.append(Method(f"gauge-{kind}", found[0].get_kind_display().capitalize(), options, str(using.pk if using else "")))
        return tuple(methods)

    def skipped(self) -> list[str]:
        return list(self.choices.get("skipped", []))

    def open_questions(self) -> list[Question]:
        """Return what is still to be asked, in turn: where places are read several times, round after round; a list until it is left."""
        return list(self._open)

    @cached_property
    def _open(self) -> tuple[Question, ...]:
        done = self.skipped()
        waiting = (ask for ask in self.wanted if not ask.quiet and ask.key not in done)
        found = [ask for ask in waiting if ask.repeats or len(self.live(ask.key)) < ask.times]
        if not found or found[0].times == 1:
            return tuple(found)
        rounds = [ask for ask in found if ask.times == found[0].times]
        rounds.sort(key=lambda ask: len(self.live(ask.key)))
        return (*rounds, *(ask for ask in found if ask.times != found[0].times))

    def question_for(self, key: str | None) -> Question | None:
        """The ask jumped to, else the next in turn."""
        if self.signed:
            return None
        wanted = next((ask for ask in self.wanted if ask.key == key), None)
        return wanted or self.next_question or self.command_question()

    def previous_question(self, ask: Question) -> Question | None:
        """The question before this one that was answered or left out; only what is asked in turn, so the subject stays the same."""
        keys = [each.key for each in self.wanted]
        earlier = self.wanted[: keys.index(ask.key)] if ask.key in keys else self.wanted
        done = self.skipped()
        return next((each for each in reversed(earlier) if not each.quiet and (each.key in done or self.live(each.key))), None)

    @property
    def next_question(self) -> Question | None:
        """The next measurement or answer in turn; None when all are in."""
        return next(iter(self._open), None)

    def command_question(self) -> Question | None:
        """Nothing is left to measure: the strip waits for a word that does the next thing."""
        words = ", ".join(action.word for action in self.actions() if not action.refused)
        said = _("Type one of: {words}").format(words=words)
        return Question(WORD, _("Nothing more to measure"), said, "words", "") if words else None

    def read(self, ask: Question, text: str) -> Quantity:
        """Return what was typed, as a quantity of the ask's kind; refused in words."""
        quantity = understood(ask, text, self.shop.ton or None)
        if quantity.kind != "words":
            self.check(ask, quantity)
        return quantity

    def shown(self, reading: Reading, ask: Question | None = None) -> str:
        """A reading in the reader's unit, with no more digits than it has."""
        if reading.canonical is None:
            options = {option.key: option.words for option in ask.options} if ask else {}
            return options.get(reading.text, reading.text)
        if reading.kind == "count":
            return figure(reading.canonical, 0)
        step = reading.gauge.resolution if reading.gauge else (ask.resolution if ask else 0.001)
        return as_read(reading.canonical, reading.kind, reading.unit, step)

    def sheet(self) -> list[ReadingRow]:
        rows = []
        for ask in self.wanted:
            found = self.live(ask.key)
            lines = [ReadingRow(ask, reading, self.shown(reading, ask), beside(reading, self.note(reading))) for reading in found]
            rows += lines or ([] if ask.hide_until_answered else [ReadingRow(ask, None, "")])
        return rows

    @cached_property
    def latest(self) -> ReadingRow | None:
        """The reading taken last, whatever it was."""
        found = next((reading for reading in reversed(self.readings) if not reading.withdrawn_at), None)
        if found is None:
            return None
        ask = next((each for each in self.wanted if each.key == found.ask), Question(found.ask, found.ask))
        return ReadingRow(ask, found, self.shown(found, ask))

    def refused(self) -> str:
        """The gate that is still shut: a caution not ticked."""
        ticks = self.entry.ticks if self.entry else {}
        return next((caution.words for caution in self.checks() if caution.gate and caution.key not in ticks), "")

    def signed_verdict(self) -> RenderedVerdict:
        """The call as it was signed; it stands whatever the core says today."""
        assert self.entry is not None
        said = _("Signed by {by}.").format(by=self.entry.signed_by.called if self.entry.signed_by else "")
        return RenderedVerdict(self.entry.call_state, self.entry.call_words, self.entry.reason, said)

    def opened(self, key: str) -> Entry:
        """The open entry in which one of `actions` may be done now; refused in words when it may not."""
        action = next((each for each in self.actions() if each.key == key), None)
        if self.entry is None or action is None or action.refused:
            raise BadInput(key, action.refused if action else _("That cannot be done at this point; the page has moved on."))
        return self.entry

    def unanswered_message(self) -> str:
        """Return what must be answered before this is signed; empty when nothing is."""
        return ""

    def contradictions(self) -> list[dict[str, str]]:
        """Return what was found otherwise than the card says: what, found, card, where."""
        return []

    @property
    def unmet_prerequisites(self) -> list[tuple[str, str]]:
        """Return what this station needs of others and does not have."""
        return []

    def decisions(self) -> list[str]:
        """Return what was decided against advice or the card, with the reason given."""
        given = [each for each in self.readings if not each.withdrawn_at and each.ask.rpartition("-")[2] in ("why", "cite")]
        return [f"{self.called(each)} {each.text}" for each in given]

    def raised_warnings(self) -> tuple[SafetyWarning, ...]:
        """The contradictions as cautions, and gauges that are not trusted any more."""
        lines = [{**line, "what": capital(line["what"])} for line in self.contradictions()]
        said = _("{what}: found {found}, the card says {card}. Recorded.")
        found = tuple(SafetyWarning(f"otherwise{index}", said.format(**line)) for index, line in enumerate(lines))
        return (*found, *faulty_gauge_warnings(self.readings))

    def may_sign(self) -> str:
        """Return why the entry cannot be signed yet; empty when it can."""
        if self.job.practice:
            return _("Practice is not signed: finish it, and see what it came to.")
        return "" if self.entry and any(not reading.withdrawn_at for reading in self.readings) else _("Nothing is written down yet.")

    @cached_property
    def known(self) -> Facts:
        """Return what the rest of the job knows."""
        return facts_of(self.job, self.entry)

    def share_facts(self, other: Bound) -> None:
        """What the rest of the job knows is as another reading of the same work had it."""
        if "known" in vars(other):
            self.known = other.known

    def findings(self) -> list[Finding]:
        """Return what follows from the readings, kept as facts for other stations."""
        return []

    def supersede(self, reason: str) -> None:
        """Begin a new entry in place of the signed one; at the last station that opens a job that was handed over."""
        if self.station.open_when_closed and self.job.is_closed:
            if not self.person.is_owner:
                raise BadInput("reason", _("Only an owner of the shop opens a closed job again."))
            log.reopen(self.job)
        if self.entry:
            entry_replacement.replace_entry(self.entry, self.person, reason)

    def update_work_plan(self) -> None:
        """Write where the station stands, for the run and the bench page; of a closed job nothing changes any more."""
        if self.job.is_closed:
            return
        if self.entry and not self.signed:
            self.move_timers()
        plate = self.call
        state = RunStation.State.DONE if self.whole_station_signed() else RunStation.State.NOW
        if self.entry or self.stage.state != RunStation.State.AHEAD:
            said = self.next_said()
            words = "" if said else (plate.standing or plate.move)[:200]
            log.set_station(self.stage, state=state, call_state=plate.state, next_move=words, next_said=said)

    def move_timers(self) -> None:
        """Set the ends of the running timers to what is known now."""

    def next_said(self) -> dict[str, Any]:
        """The next move by its code and values; empty where only words can say it."""
        return {}

    def whole_station_signed(self) -> bool:
        return self.signed
