"""A station at work: bound to a job, a seat, a user and a time."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from functools import cached_property
from typing import Any, Self

from django.db.models import prefetch_related_objects
from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from shopmath.amounts import Amount, share, turns
from shopmath.quantity import Quantity
from shopmath.validation import BadInput
from stator.engines.card_loader import PREFETCHED, is_whole, load_card
from stator.engines.fact_keys import FactKey
from stator.engines.models import Seat, Spec
from stator.engines.properties import Property
from stator.engines.property_specs import ABOUT, WORDS
from stator.jobs import entry_replacement, log
from stator.jobs.fact_loader import current_entry, facts_of, own_of, readings_of, slot_of, taken_of
from stator.jobs.facts import EntryData, Fact, Facts, Finding, Origin
from stator.jobs.models import Entry, Job, Reading, RunStation, Timer
from stator.shop.equipment_snapshot import shelves, with_lent
from stator.shop.models import Equipment, Gauge, Person, Shop
from stator.stations.framework import messages as shared
from stator.stations.framework import next_step
from stator.stations.framework.alternatives import alternatives_for
from stator.stations.framework.answer_parser import understood
from stator.stations.framework.definition import StationDefinition, StationInput
from stator.stations.framework.entry_readings import EntryReadings
from stator.stations.framework.gauge_faults import faulty_gauge_warnings
from stator.stations.framework.measured_markings import read_off
from stator.stations.framework.messages import capital, format_message
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
from stator.stations.framework.page_state import PageOutdated, PageState
from stator.stations.framework.prerequisites import unmet
from stator.stations.framework.question_factory import answer, label
from stator.stations.framework.reading_notes import beside
from stator.stations.framework.record_snapshot import frozen
from stator.stations.framework.registry import station_name
from stator.stations.framework.renderer import render_drawing, render_verdict
from stator.stations.framework.results import results_of
from stator.stations.framework.verdict import Verdict, plain_values
from stator.ui.number_format import as_read, band, show
from stator.ui.number_format import shown as spelled
from stator.ui.times import short_day
from stator.ui.units import reading_in, units_now
from stator.ui.url_values import station_address

REASONS = (Property.REASON.value, Property.PAGE.value)  # why something was done against advice, and the page it goes by
GAUGELESS = {"length": 0.001, "temperature": 1.0, "torque": 1.0, "angle": 1.0, "force": 100.0, "mass": 0.0001, "time": 1.0}


@dataclass
class BoundStation:
    """A station bound to a job, a seat, a user and a time. It asks, shows, acts and records.

    It computes from what it was bound to. After a write, `refreshed` or `recomputed` returns the station in its new state.
    """

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
    papers: tuple[str, ...] = ("wide", "narrow")  # which sizes of the drawing this device may need
    computes_again: bool = False  # a signed entry, computed by today's core beside what was recorded
    seen: PageState | None = None  # what the page showed on which something is done now; None where no page is involved
    before: EntryData | None = None  # what its entry held when it had one reading less

    def __post_init__(self) -> None:
        self.reader_units = units_now()
        if not is_whole(self.job.card):
            prefetch_related_objects([self.job.card], *PREFETCHED)
        if self.entry:
            self.now = self.entry.signed_at or self.now  # a signed entry is shown as of its signature
            self.readings = self.readings or readings_of(self.entry, self.shop)
            self.entry.job, self.entry.station = self.job, self.stage
            self.timers = [timer for timer in self.job.timers.all() if timer.entry_id == self.entry.pk]
        self.answers = EntryReadings(self.entry, self.readings, self.timers, self.definition.each_round)

    # what it knows

    @property
    def definition(self) -> StationDefinition:
        """Return what describes this work: the station's, or that of all its seats at once."""
        return self.station.at(self.seat)

    @property
    def from_log(self) -> bool:
        return self.definition.from_log

    @cached_property
    def entry_data(self) -> EntryData:
        """Return what this entry holds itself."""
        return own_of(self.entry, self.readings, self.before)

    @cached_property
    def job_facts(self) -> Facts:
        """Return what the rest of the job knows."""
        return facts_of(self.job, self.entry)

    def share_facts(self, other: BoundStation) -> None:
        """Use the job facts of the same station before a write in its own entry; other entries have not changed."""
        self.job_facts = other.job_facts

    @cached_property
    def station_input(self) -> StationInput:
        """Return the input of the analysis: the card, facts, equipment and time."""
        on_shelves, timers = shelves(self.shop), tuple(self.timers)
        on_shelves = with_lent(on_shelves) if self.job.practice else on_shelves
        read_off([*self.job.card.seats.all(), *([self.seat] if self.seat else [])], self.job_facts, self.entry_data)
        given = StationInput(
            self.job.card, self.job_facts, self.entry_data, on_shelves, self.shop, self.seat, self.job, timers, self.person, self.now
        )
        given = replace(given, tray=tuple(self.job.tray.all())) if self.definition.sees_tray else given
        besides = self.entry.pk if self.entry else 0
        return replace(given, past=self.definition.past(given, besides)) if self.definition.past else given

    @cached_property
    def analysis(self) -> Any:
        """Return everything that the station computes."""
        assert self.definition.facts is not None
        return self.definition.facts(self.station_input)

    @property
    def words(self) -> Any:
        return self.definition.words

    @property
    def signed(self) -> bool:
        """Return True if the entry is shown as signed. An entry that is computed again is not."""
        return bool(self.entry and self.entry.is_signed) and not self.computes_again

    @cached_property
    def address(self) -> str:
        seat = self.seat.pk if self.seat else 0 if self.station.whole else None
        return station_address(self.job.tag, self.station.key, seat)

    @cached_property
    def limits(self) -> list[Spec]:
        """Return the limits of the card."""
        return list(self.job.card.specs.all())

    def limit_for(self, limited: Property) -> Spec | None:
        """Return the limit of a property on the card."""
        return next((each for each in self.limits if each.property == limited), None)

    def refreshed(self) -> Self:
        """Return the station as it is after a write, at the same time."""
        job = Job.every.select_related("card").get(pk=self.job.pk)
        job.card = load_card(job.card)
        entry = current_entry(self.stage, self.seat)
        return type(self)(self.station, job, self.stage, self.seat, entry, self.person, self.now, self.shop)

    def recomputed(self, readings: Sequence[Reading] = ()) -> BoundStation:
        """Return the same work with nothing computed yet; its readings are read unless they are passed."""
        again = type(self)(self.station, self.job, self.stage, self.seat, self.entry, self.person, self.now, self.shop, list(readings))
        again.papers, again.seen = self.papers, self.seen
        again.before = self.entry_data if readings else None
        return again

    # what it asks

    def questions(self) -> list[Question]:
        """Return the questions of this moment."""
        return [self._offered(question) for question in self.definition.questions(self.analysis)]

    def _offered(self, ask: Question) -> Question:
        """Return a question with the answer that another entry has already; Enter alone uses it."""
        fact_key = ask.slot
        if fact_key is None or not fact_key.about.shared or ask.measure_again or ask.offer or self.entry_data.has(fact_key):
            return ask
        fact = self.job_facts.best(fact_key.part, fact_key.what, fact_key.at)
        if fact is None or fact.origin not in (Origin.MEASURED, Origin.DECIDED):
            return ask
        if ask.options and fact.text not in [option.key for option in ask.options]:
            return ask
        said = self.fact_words(fact, ask)
        at = short_day(fact.at) if fact.at else ""
        where = format_message(shared.OFFERED, {"station": station_name(fact.station), "value": said, "when": at})
        return replace(ask, where=where, offer=fact, enter=fact.text if ask.options else "")

    def fact_words(self, fact: Fact, ask: Question) -> str:
        """Return a fact of another entry as an answer of this question."""
        if fact.value is None:
            return next((option.words for option in ask.options if option.key == fact.text), fact.text)
        return format_value(Amount(fact.value, fact.kind, fact.resolution or ask.resolution))

    @cached_property
    def current_questions(self) -> list[Question]:
        """Return the questions of this moment."""
        return self.questions()

    def open_questions(self) -> list[Question]:
        """Return the questions without an answer, in order.

        Places that are read several times follow round by round.
        """
        return list(self._open)

    @cached_property
    def _open(self) -> tuple[Question, ...]:
        done = self.answers.skipped
        waiting = (ask for ask in self.current_questions if not ask.quiet and ask.key not in done)
        found = [ask for ask in waiting if ask.repeats or len(self.answers.live(ask.key)) < ask.times]
        if not found or found[0].times == 1:
            return tuple(found)
        rounds = [ask for ask in found if ask.times == found[0].times]
        rounds.sort(key=lambda ask: len(self.answers.live(ask.key)))
        return (*rounds, *(ask for ask in found if ask.times != found[0].times))

    @property
    def next_question(self) -> Question | None:
        """Return the next question; None if all are answered."""
        return next(iter(self._open), None)

    def question_for(self, key: str | None) -> Question | None:
        """Return the question jumped to, else the one that the station puts first, else the next in turn."""
        if self.signed:
            return None
        first = self.definition.asks_first(self.analysis) if self.definition.asks_first else None
        needed = next((question for question in self.current_questions if question.key == (key or first)), None)
        return needed or self.next_question or self.command_question()

    def previous_question(self, ask: Question) -> Question | None:
        """Return the question before this one that was answered or skipped."""
        keys = [each.key for each in self.current_questions]
        earlier = self.current_questions[: keys.index(ask.key)] if ask.key in keys else self.current_questions
        done = self.answers.skipped
        return next((each for each in reversed(earlier) if not each.quiet and (each.key in done or self.answers.live(each.key))), None)

    def command_question(self) -> Question | None:
        """Return a question for the word of an action, if nothing is left to measure."""
        words = ", ".join(action.word for action in self.actions() if not action.refused)
        text = _("Type one of: {words}").format(words=words)
        return Question(WORD, _("Nothing more to measure"), text, "words", "") if words else None

    def name_of(self, ask: Question) -> str:
        """Return the name of a question for a list."""
        return self.label(ask.slot) if ask.slot else ask.text.rstrip("?")

    def label(self, slot: FactKey, code: str = "") -> str:
        """Return what a reading is called in a table; by a code of its own where it is not just one reading."""
        side = self.job.card.side(slot.at.end) if slot.at.end else ""
        return label(self.words, slot, code, side)

    # what it takes

    def parse_answer(self, ask: Question, text: str) -> Quantity:
        """Return what was typed as a quantity of the kind that is asked for; raise `BadInput` with a reason."""
        if ask.reads:
            ask.reads(text)
        quantity = understood(ask, text, self.shop.ton or None)
        if quantity.kind != "words":
            self.check(ask, quantity)
        return quantity

    def check(self, ask: Question, quantity: Quantity) -> None:
        """Raise `BadInput` for a number outside the limits of the question."""
        if ask.slot is None or ask.slot.about.kind == WORDS:
            return
        about = ask.slot.about
        low, high = ask.limits or (about.low, about.high)
        if not low <= quantity.canonical <= high:
            message = format_message(shared.NOT_BELIEVABLE, {"question": ask.text.rstrip("?"), "typed": quantity.text})
            if ask.refusal:
                message = ask.refusal
            elif ask.limits:
                ends = (Amount(end, about.kind, 0.1) for end in ask.limits)
                message = f"{message} {format_message(shared.BELIEVABLE, {'range': band(*ends)})}"
            raise BadInput(ask.key, message, "not_believable")

        if ask.check:
            ask.check(quantity.canonical)

    def gauge_for(self, ask: Question) -> Gauge | None:
        """Return the gauge of a reading.

        The order is: the station's choice, the user's choice, a connected gauge, the first gauge of the kind.
        """
        own = self.definition.taken_with(self.analysis, ask.slot) if self.definition.taken_with and ask.slot else None
        if own:
            return own
        for kind in ask.gauges:
            found = [gauge for gauge in shelves(self.shop).gauges if gauge.kind == kind]
            chosen = str(self.answers.choices.get(f"gauge-{kind}", ""))
            if found:
                return next((gauge for gauge in found if str(gauge.pk) == chosen), None) or max(found, key=lambda gauge: bool(gauge.port))
        return None

    def gauge_methods(self) -> tuple[Method, ...]:
        """Return the choice of a gauge for each kind of which the shop has more than one."""
        methods = []
        for kind in dict.fromkeys(kind for question in self.current_questions for kind in question.gauges):
            found = [gauge for gauge in shelves(self.shop).gauges if gauge.kind == kind]
            if len(found) > 1:
                using = self.gauge_for(Question("", "", gauges=(kind,)))
                options = tuple(Option(str(each.pk), each.name, each.step_shown) for each in found)
                methods.append(Method(f"gauge-{kind}", found[0].get_kind_display().capitalize(), options, str(using.pk if using else "")))
        return tuple(methods)

    def extra_for(self, ask: Question, quantity: Quantity, data: dict[str, str]) -> tuple[Gauge | None, dict[str, Any]]:
        """Return the gauge and the corrections that are stored with a reading."""
        corrected = self.definition.corrected
        return self.gauge_for(ask), dict(corrected(self.analysis, ask.slot, quantity)) if corrected and ask.slot else {}

    # what it shows

    @cached_property
    def computed_verdict(self) -> Verdict:
        assert self.definition.verdict is not None
        return self.definition.verdict(self.analysis, self.open_questions())

    @cached_property
    def current_verdict(self) -> RenderedVerdict:
        """Return the verdict of this moment as text."""
        return self.displayed_verdict()

    def displayed_verdict(self) -> RenderedVerdict:
        """Return the verdict that the page shows."""
        return self.signed_verdict() if self.signed else self.render_verdict(self.computed_verdict)

    def signed_verdict(self) -> RenderedVerdict:
        """Return the verdict as it was signed, whatever today's core computes."""
        assert self.entry is not None
        text = _("Signed by {by}.").format(by=self.entry.signed_by.called if self.entry.signed_by else "")
        return RenderedVerdict(self.entry.call_state, self.entry.call_words, self.entry.reason, text)

    def render_verdict(self, verdict: Verdict) -> RenderedVerdict:
        """Return a verdict as text."""
        return render_verdict(self.words, verdict, self._asked)

    @property
    def _asked(self) -> str:
        question = next(iter(self.open_questions()), None)
        question_text = question.text if question else ""
        return question_text if question_text.endswith("?") or not question_text else f"{question_text}."

    @property
    def page_state(self) -> PageState:
        """Return the verdict of this moment, to be sent back by the page."""
        return PageState.now(self.job.revision, self.current_verdict.state, self.current_verdict.code or self.current_verdict.headline)

    def is_live(self) -> bool:
        """Return True if the page changes with time because something cools or cures."""
        return not self.signed and self.definition.live(self.analysis)

    def drawing(self, at_s: float | None = None) -> SafeString:
        """Return the drawing; at an instant where time counts."""
        question = self.next_question
        more: dict[str, Any] = {
            "address": self.address,
            "asked": question.slot if question else None,
            "tappable": not self.signed,
            "at_s": at_s,
        }
        return render_drawing(self.definition, self.analysis, self.current_verdict, self.papers, **more)

    def slider(self) -> tuple[float, float] | None:
        """Return the longest time and the present one, s, if the drawing can be moved through time."""
        return (not self.signed and self.definition.slider(self.analysis)) or None

    def checks(self) -> tuple[SafetyWarning, ...]:
        """Return what is to be done before the work begins."""
        return () if self.definition.checks_past(self.analysis) else self.every_check()

    def every_check(self) -> tuple[SafetyWarning, ...]:
        """Return the whole checklist, for the record."""
        return self.definition.checks(self.analysis)

    def ticks(self, key: str) -> dict[str, str]:
        """Return who ticked a line of the check list, and when; empty where nobody did."""
        found: dict[str, str] = (self.entry.ticks if self.entry else {}).get(key, {})
        return found

    def warnings(self) -> tuple[SafetyWarning, ...]:
        """Return what the mechanic is warned of."""
        return (*self.raised_warnings(), *self.definition.warnings(self.analysis))

    def raised_warnings(self) -> tuple[SafetyWarning, ...]:
        """Return contradictions and gauges that are not trusted as warnings."""
        lines = [{**line, "what": capital(line["what"])} for line in self.contradictions()]
        text = _("{what}: found {found}, the card says {card}. Recorded.")
        found = tuple(SafetyWarning(f"otherwise{index}", text.format(**line)) for index, line in enumerate(lines))
        return (*found, *faulty_gauge_warnings(self.readings))

    def methods(self) -> tuple[Method, ...]:
        """Return the choices of method."""
        return () if self.signed else (*self.definition.methods(self.analysis), *self.gauge_methods())

    def tabs(self) -> Method | None:
        """Return parts of the work that are taken up one at a time, as tabs over the drawing."""
        return self.definition.tabs(self.analysis) if self.definition.tabs else None

    def sources(self) -> tuple[Source, ...]:
        """Return where the numbers on the page come from."""
        return tuple(self.definition.sources(self.analysis))

    def history(self) -> list[dict[str, str]]:
        """Return earlier work like this, as rows of a table."""
        return self.definition.history(self.analysis)

    def contradictions(self) -> list[dict[str, str]]:
        """Return what was found otherwise than the card says: what, found, card, where."""
        return [
            {
                "what": self.label(each.slot, each.code),
                "found": str(format_value(each.found)),
                "card": str(format_value(each.card)),
                "where": str(self.station.name),
            }
            for each in self.definition.contradictions(self.analysis)
        ]

    # readings on the page

    def readings_table(self) -> list[ReadingRow]:
        """Return the rows of this round's readings, then those of the rounds before."""
        rows = []
        for question in self.current_questions:
            found = self.answers.live(question.key)
            lines = [
                ReadingRow(question, reading, self.format_reading(reading, question), beside(reading, self.note(reading)))
                for reading in found
            ]
            rows += lines or ([] if question.hide_until_answered else [ReadingRow(question, None, "")])
        asked = {question.key for question in self.current_questions}
        for attempt in range(self.answers.attempt - 1, 0, -1):
            earlier = [reading for reading in self.readings if reading.attempt == attempt and not reading.withdrawn_at]
            for reading in earlier:
                fact_key = slot_of(reading)
                if fact_key and fact_key.what in self.definition.each_round:
                    name = format_message(shared.ROUND_LABEL, {"attempt": attempt, "label": self.label(fact_key)})
                    rows.append(ReadingRow(Question(reading.ask, name, slot=fact_key), reading, self.format_reading(reading)))
        if self.signed:
            rest = [
                each for each in self.readings if each.ask not in asked and not each.withdrawn_at and each.attempt == self.answers.attempt
            ]
            rows += [
                ReadingRow(Question(each.ask, self.label(fact_key)), each, self.format_reading(each))
                for each in rest
                if (fact_key := slot_of(each))
            ]
        return rows

    @cached_property
    def latest(self) -> ReadingRow | None:
        """Return the latest reading that was not withdrawn."""
        found = next((reading for reading in reversed(self.readings) if not reading.withdrawn_at), None)
        if found is None:
            return None
        question = next((each for each in self.current_questions if each.key == found.ask), Question(found.ask, found.ask))
        return ReadingRow(question, found, self.format_reading(found, question))

    def format_reading(self, reading: Reading, ask: Question | None = None) -> str:
        """Return a reading in the reader's unit, with no more digits than it has."""
        fact_key = slot_of(reading)
        if reading.canonical is None or fact_key is None:
            options = {option.key: option.words for option in ask.options} if ask else {}
            return str(options.get(reading.text) or self.answered(reading))
        own = self.definition.spelled(self.analysis, fact_key, reading.canonical) if self.definition.spelled else ""
        if own:
            return own
        amount = self.amount(reading, ask)
        return as_read(amount.value, amount.kind, reading.unit, amount.resolution) if amount.kind == reading.kind else show(amount)

    def amount(self, reading: Reading, ask: Question | None = None) -> Amount:
        """A reading as a number with the digits of its gauge."""
        assert reading.canonical is not None
        if reading.unit == "turn":
            return turns(reading.canonical)
        if reading.property and ABOUT[Property(reading.property)].unit == "%":
            return share(reading.canonical / 100)
        kind = "count" if reading.kind == "count" else reading.kind
        step = reading.gauge.resolution if reading.gauge else ask.resolution if ask else GAUGELESS.get(kind, 1.0)
        return Amount(reading.canonical, kind, 1.0 if kind == "count" else step)

    def answered(self, reading: Reading) -> str:
        """Return an answer as text: the text of its option, if it has options."""
        return answer(self.words, Property(reading.property), reading.text) if reading.property else reading.text

    def note(self, reading: Reading) -> str:
        """Return the note on a reading in the readings table."""
        taken = taken_of(reading) if self.definition.note else None
        return self.definition.note(self.analysis, taken) if self.definition.note and taken else ""

    def reading_label(self, reading: Reading) -> str:
        """Return the name of a reading in the readings table."""
        fact_key = slot_of(reading)
        return self.label(fact_key) if fact_key else str(reading.extra.get("asked", reading.ask))

    def part_name(self, ask: str) -> str:
        """Return which part a reading belongs to, for the job report."""
        reading = next((each for each in self.readings if each.ask == ask), None)
        fact_key = slot_of(reading) if reading else None
        return fact_key.part.name if fact_key else ""

    # what it does

    def actions(self) -> tuple[Action, ...]:
        """Return what can be done now."""
        return self._actions

    @cached_property
    def _actions(self) -> tuple[Action, ...]:
        found: tuple[Action, ...] = () if self.signed else self.definition.actions(self)
        return tuple(each for each in found if each.key != "sign") if self.job.practice else found

    def sign_action(self, main: bool = True) -> Action:
        """The button that signs, which every station ends with."""
        return Action("sign", str(shared.SIGN), "sign", main and not self.open_questions(), self.may_sign(), lambda bound: bound.sign())

    def alternatives(self) -> tuple[RenderedAlternative, ...]:
        """Return the alternatives to a verdict that is not OK."""
        return () if self.signed or self.job.is_closed else alternatives_for(self)

    def opened(self, key: str) -> Entry:
        """Return the open entry in which an action may be done now.

        Raises `BadInput` if the action is not allowed.
        """
        action = next((each for each in self.actions() if each.key == key), None)
        if self.entry is None or action is None or action.refused:
            raise BadInput(key, action.refused if action else _("That cannot be done at this point; the page has moved on."))
        return self.entry

    def act(self, key: str) -> None:
        """Do one of `actions`."""
        self.opened(key)
        action = next(each for each in self.actions() if each.key == key)
        if action.do is None:
            raise BadInput(key, _("That cannot be done here."))
        action.do(self)

    @property
    def open_entry(self) -> Entry:
        """Return the entry that is written into."""
        assert self.entry is not None, "An action needs an open entry."
        return self.entry

    def choose(self, **choices: Any) -> Entry:
        """Store choices in the entry."""
        return log.set_method(self.open_entry, **choices)

    def next_attempt(self, **choices: Any) -> Entry:
        """Begin the next attempt of the entry, with choices."""
        return log.next_attempt(self.open_entry, **choices)

    def record_action(self, kind: str, slot: FactKey | None = None, amount: float | None = None, text: str = "", **detail: Any) -> None:
        """Write down something that hands did, with numbers that go with it."""
        assert self.entry is not None
        more: dict[str, Any] = {"text": text, "detail": detail, "attempt": self.answers.attempt, "at": self.now}
        log.record_move(self.entry, self.person, kind, slot=slot, amount=amount, **more)

    @property
    def has_follow_up(self) -> bool:
        """Return True if something is done after a reading was saved."""
        return self.definition.kept is not None

    def after_save(self, reading: Reading) -> None:
        """Do what follows from a saved reading."""
        if self.definition.kept:
            self.definition.kept(self, reading)

    def move_timers(self) -> None:
        """Set the ends of the running timers to today's estimate."""
        if self.definition.move_timers:
            self.definition.move_timers(self)

    def update_work_plan(self) -> None:
        """Store the state of the station for the work plan and the list of open jobs, unless the job is closed."""
        if self.job.is_closed:
            return
        if self.entry and not self.signed:
            self.move_timers()
        verdict = self.current_verdict
        state = RunStation.State.DONE if self.whole_station_signed() else RunStation.State.NOW
        if self.entry or self.stage.state != RunStation.State.AHEAD:
            said = self.next_step_code()
            words = "" if said else (verdict.next_step_without_times or verdict.next_step)[:200]
            log.set_station(self.stage, state=state, call_state=verdict.state, next_move=words, next_said=said)

    def next_step_code(self) -> dict[str, Any]:
        """Return the next step as a code with values; empty if it has none."""
        if self.signed:
            return next_step.next_step_code(next_step.SIGNED, {"person": self.person.called}, whole=False)
        judged = self.computed_verdict
        code = judged.standing or judged.next or judged.code
        move = next_step.next_step_code(code, {"question": self._asked, **judged.values}, whole=self.definition is not self.station)
        return move if next_step.render_next_step(self.station, move) else {}

    # signing

    def blocking_check(self) -> str:
        """Return the text of the first required check that is not ticked; empty if there is none."""
        ticks = self.entry.ticks if self.entry else {}
        return next((warning.words for warning in self.checks() if warning.required and warning.key not in ticks), "")

    def unanswered_message(self) -> str:
        """Return what must be answered before this is signed; empty when nothing is."""
        needed = [
            question
            for question in self.open_questions()
            if not question.optional and not (question.repeats and self.answers.live(question.key))
        ]
        missing = [question.text.lower().rstrip("?") for question in needed]
        return format_message(shared.STILL_TO_ANSWER, {"questions": ", ".join(missing)}) if missing else ""

    @cached_property
    def unmet_prerequisites(self) -> list[tuple[str, str]]:
        """Return the prerequisites that are not met and not overruled with a reason, as code and sentence."""
        if self.signed:
            return []
        overruled = self.answers.choices.get("against", {})
        return [need for need in unmet(self.definition.needs, self.job, self.job_facts, self.seat) if need[0] not in overruled]

    def may_sign(self) -> str:
        """Return why the entry cannot be signed yet; empty when it can."""
        if self.job.practice:
            return _("Practice is not signed: finish it, and see what it came to.")
        if not self.entry or all(reading.withdrawn_at for reading in self.readings):
            return _("Nothing is written down yet.")
        refused = self.definition.may_sign(self) if self.definition.may_sign else ""
        gate = self.blocking_check() if self.definition.gates_signing else ""
        unmet_need = next((sentence for _code, sentence in self.unmet_prerequisites), "")
        return refused or gate or self.unanswered_message() or unmet_need

    def sign(self) -> None:
        if self.may_sign() or not self.entry:
            raise BadInput("sign", self.may_sign())
        if self.seen is not None and self.seen != self.page_state:
            raise PageOutdated(self.seen.revision)
        with reading_in(self.shop.units):
            told = self if units_now() == self.reader_units else self.recomputed()
            rendered = told.verdict()
            verdict = log.VerdictSnapshot(
                rendered.state, rendered.headline, rendered.reason or rendered.next_step, rendered.code, plain_values(rendered.values)
            )
            self.entry = log.sign(self.entry, self.person, verdict, told.result(), told.findings(), frozen(told, rendered), at=self.now)

    def verdict(self) -> RenderedVerdict:
        """Return the verdict that is signed."""
        return (
            self.render_verdict(self.definition.overall(self.analysis))
            if self.definition.overall and not self.signed
            else self.displayed_verdict()
        )

    def report_results(self) -> list[ReportResult]:
        """Return what the readings came to, for the job report."""
        return [results_of(self.words, each, self.label(each.slot, each.code)) for each in self.definition.results(self.analysis)]

    def result(self) -> dict[str, Any]:
        """Return the values that are stored with the verdict, so that it can be computed again."""
        found = dict(self.definition.result(self.analysis)) if self.definition.result else {}
        return {**found, "contradicts": self.contradictions()}

    def findings(self) -> list[Finding]:
        """Return what follows from the readings, as facts for other stations."""
        return list(self.definition.derived(self.analysis))

    def decisions(self) -> list[str]:
        """Reasons given for going on against advice."""
        against = [f"{shared.OVERRIDES.get(code, code)} {reason}" for code, reason in self.answers.choices.get("against", {}).items()]
        given = [each for each in self.readings if not each.withdrawn_at and each.property in REASONS]
        return [*against, *(f"{self.reading_label(each)}: {each.text}" for each in given)]

    def uses(self) -> Iterable[tuple[str, Equipment]]:
        """Return the equipment that the verdict depends on besides the gauges, each with its kind."""
        return self.definition.uses(self.analysis)

    def replace(self, reason: str) -> None:
        """Begin a new entry that replaces the signed one.

        At the last station, open a job again that was handed over.
        """
        if self.station.open_when_closed and self.job.is_closed:
            if not self.person.is_owner:
                raise BadInput("reason", _("Only an owner of the shop opens a closed job again."))
            log.reopen(self.job)
        if self.entry:
            entry_replacement.replace_entry(self.entry, self.person, reason)

    def whole_station_signed(self) -> bool:
        return self.signed

    def every_seat_signed(self) -> bool:
        """Return True if every seat of the station is signed and no entry is open.

        Seats fitted at another station do not count.
        """
        signed = set(self.stage.entries.filter(signed_at__isnull=False, seat__isnull=False).values_list("seat_id", flat=True))
        left = [each for each in self.job.card.seats.all() if each.pk not in signed and not self.fitted_elsewhere(each)]
        return not left and not self.stage.entries.filter(signed_at__isnull=True).exists()

    def fitted_elsewhere(self, seat: Seat) -> bool:
        """Return True if this station fits bearings and another station has signed that this bearing is seated."""
        if Property.BEARING_HOME not in self.station.gives:
            return False
        home = self.job_facts.best(seat.part, Property.BEARING_HOME)
        return home is not None and home.station != self.station.key


def format_value(value: Any) -> str:
    """Return a value as its reader sees it."""
    return str(spelled({"value": value})["value"])
