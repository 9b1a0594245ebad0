"""A station bound to a job, a seat, a person and a moment, out of its definition.

Nothing here knows a trade: the definition computes, asks, judges and draws; this makes the sentences, in the reader's units.
"""

from __future__ import annotations

from collections.abc import Iterable
from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from shopmath.amounts import Amount, share, turns
from shopmath.quantity import Quantity
from shopmath.validation import BadInput
from stator.engines.fact_keys import FactKey
from stator.engines.properties import Property
from stator.engines.property_specs import ABOUT, WORDS
from stator.jobs import log
from stator.jobs.fact_loader import slot_of, taken_of
from stator.jobs.facts import Finding
from stator.jobs.models import Reading
from stator.shop.models import Equipment, Gauge
from stator.stations.framework import messages as shared
from stator.stations.framework import next_step
from stator.stations.framework.alternatives import alternatives_for
from stator.stations.framework.knowing import Knowing, format_value
from stator.stations.framework.messages import format_message
from stator.stations.framework.page_components import (
    Action,
    Method,
    Question,
    ReadingRow,
    RenderedAlternative,
    RenderedVerdict,
    ReportResult,
    SafetyWarning,
    Source,
)
from stator.stations.framework.prerequisites import unmet
from stator.stations.framework.question_factory import answer, label
from stator.stations.framework.renderer import render_drawing, render_verdict
from stator.stations.framework.results import results_of
from stator.stations.framework.verdict import Verdict
from stator.ui.number_format import as_read, band, show

REASONS = (Property.REASON.value, Property.PAGE.value)  # why something was done against advice, and the page it goes by
GAUGELESS = {"length": 0.001, "temperature": 1.0, "torque": 1.0, "angle": 1.0, "force": 100.0, "mass": 0.0001, "time": 1.0}


class Room(Knowing):
    """A bound station."""

    # what it takes

    def check(self, ask: Question, quantity: Quantity) -> None:
        """Refuse what cannot be believed."""
        if ask.slot is None or ask.slot.about.kind == WORDS:
            return
        about = ask.slot.about
        low, high = ask.limits or (about.low, about.high)
        if not low <= quantity.canonical <= high:
            message = format_message(shared.NOT_BELIEVABLE, {"question": ask.words.rstrip("?"), "typed": quantity.text})
            if ask.refusal:
                message = ask.refusal
            elif ask.limits:
                ends = (Amount(end, about.kind, 0.1) for end in ask.limits)
                message = f"{message} {format_message(shared.BELIEVABLE, {'range': band(*ends)})}"
            raise BadInput(ask.key, message, "not_believable")

        if ask.check:
            ask.check(quantity.canonical)

    def read(self, ask: Question, text: str) -> Quantity:
        if ask.reads:
            ask.reads(text)
        return super().read(ask, text)

    def label(self, slot: FactKey, code: str = "") -> str:
        """Return what a reading is called in a table; by a code of its own where it is not just one reading."""
        side = self.job.card.side(slot.at.end) if slot.at.end else ""
        return label(self.words, slot, code, side)

    # what it says

    @cached_property
    def judged(self) -> Verdict:
        assert self.definition.verdict is not None
        return self.definition.verdict(self.found, self.open_questions())

    def displayed_verdict(self) -> RenderedVerdict:
        return self.signed_verdict() if self.signed else self.render_verdict(self.judged)

    def render_verdict(self, verdict: Verdict) -> RenderedVerdict:
        """A verdict in words."""
        return render_verdict(self.words, verdict, self._asked)

    def is_live(self) -> bool:
        return not self.signed and self.definition.live(self.found)

    def checks(self) -> tuple[SafetyWarning, ...]:
        return () if self.definition.checks_past(self.found) else self.every_check()

    def every_check(self) -> tuple[SafetyWarning, ...]:
        return self.definition.checks(self.found)

    def warnings(self) -> tuple[SafetyWarning, ...]:
        return (*self.raised_warnings(), *self.definition.warnings(self.found))

    def methods(self) -> tuple[Method, ...]:
        return () if self.signed else (*self.definition.methods(self.found), *self.gauge_methods())

    def tabs(self) -> Method | None:
        return self.definition.tabs(self.found) if self.definition.tabs else None

    def part_name(self, ask: str) -> str:
        reading = next((each for each in self.readings if each.ask == ask), None)
        slot = slot_of(reading) if reading else None
        return slot.part.name if slot else ""

    def sources(self) -> tuple[Source, ...]:
        return tuple(self.definition.sources(self.found))

    def contradictions(self) -> list[dict[str, str]]:
        return [
            {
                "what": self.label(each.slot, each.code),
                "found": str(format_value(each.found)),
                "card": str(format_value(each.card)),
                "where": str(self.station.name),
            }
            for each in self.definition.contradictions(self.found)
        ]

    def drawing(self, at_s: float | None = None) -> SafeString:
        ask = self.next_question
        more: dict[str, Any] = {"address": self.address, "asked": ask.slot if ask else None, "tappable": not self.signed, "at_s": at_s}
        return render_drawing(self.definition, self.found, self.call, self.papers, **more)

    def slider(self) -> tuple[float, float] | None:
        return (not self.signed and self.definition.slider(self.found)) or None

    def history(self) -> list[dict[str, str]]:
        return self.definition.history(self.found)

    def uses(self) -> Iterable[tuple[str, Equipment]]:
        return self.definition.uses(self.found)

    # what it is taken with

    def gauge_for(self, ask: Question) -> Gauge | None:
        own = self.definition.taken_with(self.found, ask.slot) if self.definition.taken_with and ask.slot else None
        return own or super().gauge_for(ask)

    def extra_for(self, ask: Question, quantity: Quantity, data: dict[str, str]) -> tuple[Gauge | None, dict[str, Any]]:
        corrected = self.definition.corrected
        return self.gauge_for(ask), dict(corrected(self.found, ask.slot, quantity)) if corrected and ask.slot else {}

    # what is recorded

    def shown(self, reading: Reading, ask: Question | None = None) -> str:
        slot = slot_of(reading)
        if reading.canonical is None or slot is None:
            options = {option.key: option.words for option in ask.options} if ask else {}
            return str(options.get(reading.text) or self.answered(reading))
        own = self.definition.spelled(self.found, slot, reading.canonical) if self.definition.spelled else ""
        if own:
            return own
        amount = self.amount(reading, ask)
        return as_read(amount.value, amount.kind, reading.unit, amount.resolution) if amount.kind == reading.kind else show(amount)

    def note(self, reading: Reading) -> str:
        taken = taken_of(reading) if self.definition.note else None
        return self.definition.note(self.found, taken) if self.definition.note and taken else ""

    def answered(self, reading: Reading) -> str:
        """An answer in words: the option's where it was one of several."""
        return answer(self.words, Property(reading.property), reading.text) if reading.property else reading.text

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

    def sheet(self) -> list[ReadingRow]:
        """This round's readings, then those of the rounds before."""
        rows = super().sheet()
        asked = {ask.key for ask in self.wanted}
        for attempt in range(self.attempt - 1, 0, -1):
            earlier = [reading for reading in self.readings if reading.attempt == attempt and not reading.withdrawn_at]
            for reading in earlier:
                slot = slot_of(reading)
                if slot and slot.what in self.definition.each_round:
                    name = format_message(shared.ROUND_LABEL, {"attempt": attempt, "label": self.label(slot)})
                    rows.append(ReadingRow(Question(reading.ask, name, slot=slot), reading, self.shown(reading)))
        if self.signed:
            rest = [each for each in self.readings if each.ask not in asked and not each.withdrawn_at and each.attempt == self.attempt]
            rows += [ReadingRow(Question(each.ask, self.label(slot)), each, self.shown(each)) for each in rest if (slot := slot_of(each))]
        return rows

    def verdict(self) -> RenderedVerdict:
        return (
            self.render_verdict(self.definition.overall(self.found))
            if self.definition.overall and not self.signed
            else self.displayed_verdict()
        )

    def told(self) -> list[ReportResult]:
        return [results_of(self.words, each, self.label(each.slot, each.code)) for each in self.definition.results(self.found)]

    def result(self) -> dict[str, Any]:
        found = dict(self.definition.result(self.found)) if self.definition.result else {}
        return {**found, "contradicts": self.contradictions()}

    def findings(self) -> list[Finding]:
        return list(self.definition.derived(self.found))

    def next_said(self) -> dict[str, Any]:
        if self.signed:
            return next_step.next_step_code(next_step.SIGNED, {"person": self.person.called}, whole=False)
        judged = self.judged
        code = judged.standing or judged.next or judged.code
        move = next_step.next_step_code(code, {"question": self._asked, **judged.values}, whole=self.definition is not self.station)
        return move if next_step.render_next_step(self.station, move) else {}

    @property
    def _asked(self) -> str:
        ask = next(iter(self.open_questions()), None)
        asked = ask.words if ask else ""
        return asked if asked.endswith("?") or not asked else f"{asked}."

    # what is done

    def actions(self) -> tuple[Action, ...]:
        return self._actions

    @cached_property
    def _actions(self) -> tuple[Action, ...]:
        found: tuple[Action, ...] = () if self.signed else self.definition.actions(self)
        return tuple(each for each in found if each.key != "sign") if self.job.practice else found

    def ways(self) -> tuple[RenderedAlternative, ...]:
        return () if self.signed or self.job.is_closed else alternatives_for(self)

    def act(self, key: str) -> None:
        self.opened(key)
        action = next(each for each in self.actions() if each.key == key)
        if action.do is None:
            raise BadInput(key, _("That cannot be done here."))
        action.do(self)

    def move(self, kind: str, slot: FactKey | None = None, amount: float | None = None, text: str = "", **detail: Any) -> None:
        """Write down something that hands did, with numbers that go with it."""
        assert self.entry is not None
        more: dict[str, Any] = {"text": text, "detail": detail, "attempt": self.attempt, "at": self.now}
        log.record_move(self.entry, self.person, kind, slot=slot, amount=amount, **more)

    @property
    def has_follow_up(self) -> bool:
        return self.definition.kept is not None

    def after_save(self, reading: Reading) -> None:
        if self.definition.kept:
            self.definition.kept(self, reading)

    def move_timers(self) -> None:
        if self.definition.move_timers:
            self.definition.move_timers(self)

    def unanswered_message(self) -> str:
        wanted = [ask for ask in self.open_questions() if not ask.optional and not (ask.repeats and self.live(ask.key))]
        missing = [ask.words.lower().rstrip("?") for ask in wanted]
        return format_message(shared.STILL_TO_ANSWER, {"questions": ", ".join(missing)}) if missing else ""

    def may_sign(self) -> str:
        first = next(iter(self.unmet_prerequisites), None)
        refused = self.definition.may_sign(self) if self.definition.may_sign else ""
        gate = self.refused() if self.definition.gates_signing else ""
        return super().may_sign() or refused or gate or self.unanswered_message() or (first[1] if first else "")

    # what it needs of other stations

    @cached_property
    def unmet_prerequisites(self) -> list[tuple[str, str]]:
        """Needs that are not met and that nobody has given a reason to go on without: code and sentence."""
        if self.signed:
            return []
        overruled = self.choices.get("against", {})
        return [need for need in unmet(self.definition.needs, self.job, self.known, self.seat) if need[0] not in overruled]

    def decisions(self) -> list[str]:
        """Reasons given for going on against advice."""
        against = [f"{shared.OVERRIDES.get(code, code)} {reason}" for code, reason in self.choices.get("against", {}).items()]
        given = [each for each in self.readings if not each.withdrawn_at and each.property in REASONS]
        return [*against, *(f"{self.called(each)}: {each.text}" for each in given)]

    def name_of(self, ask: Question) -> str:
        return self.label(ask.slot) if ask.slot else super().name_of(ask)

    def called(self, reading: Reading) -> str:
        slot = slot_of(reading)
        return self.label(slot) if slot else super().called(reading)

    def sign_action(self, main: bool = True) -> Action:
        """The button that signs, which every station ends with."""
        return Action("sign", str(shared.SIGN), "sign", main and not self.open_questions(), self.may_sign(), lambda bound: bound.sign())
