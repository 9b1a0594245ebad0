"""Base of all quick checks: form, inputs, and the answer of the station that judges the same on a job.

A check stores nothing. The input becomes readings by fact key, and the station's own analysis, verdict and drawing answer.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from django import forms
from django.utils import timezone
from django.utils.functional import Promise
from django.utils.safestring import SafeString

from stator.engines.fact_keys import FactKey
from stator.engines.models import EngineCard, Mark, Seat
from stator.jobs.fact_loader import seen
from stator.jobs.facts import EntryData, Facts, MeasuredReading
from stator.shop.equipment_snapshot import EquipmentSnapshot, shelves
from stator.shop.models import Gauge, Shop
from stator.stations.framework import RenderedVerdict, SafetyWarning, Source, StationDefinition, StationInput
from stator.stations.framework.renderer import render_drawing, render_verdict
from stator.ui.fields import QuantityField
from stator.ui.plain_text import PlainTextMixin

Sentence = str | Promise


class CheckForm(PlainTextMixin, forms.Form):
    """The form of a check. Choices with few options are rendered as buttons (`chips`)."""

    chips: tuple[str, ...] = ()

    def rows(self) -> list[tuple[Any, bool]]:
        """Fields in their order, each with whether it is a row of keys."""
        return [(field, field.name in self.chips) for field in self]


@dataclass(frozen=True)
class InputFact:
    """An input of a check: its fact key, its value in the core's unit or its answer, and the typed text."""

    slot: FactKey
    value: float | str
    text: str = ""
    gauges: tuple[str, ...] = ()  # kinds that it is read with, as a rule


@dataclass(frozen=True)
class CheckInputs:
    """The inputs of a check, and the job that they can become."""

    card: EngineCard
    said: tuple[InputFact, ...] = ()
    chosen: Mapping[str, str] = field(default_factory=dict)
    seat: Seat | None = None
    skipped: tuple[FactKey, ...] = ()
    facts: Facts = field(default_factory=Facts)
    station: str = ""  # that takes it up on a job, where the check's own is not always the one
    marks: tuple[Mark, ...] = ()  # of the joint face


@dataclass(frozen=True)
class Row:
    """A line of a table: what it is, its number, and a remark."""

    name: Sentence
    value: str
    note: Sentence = ""
    best: bool = False


@dataclass(frozen=True)
class Answer:
    """The answer of a check."""

    call: RenderedVerdict
    drawing: SafeString | str = ""
    rows: tuple[Row, ...] = ()
    changes: tuple[Sentence, ...] = ()  # what would change the answer
    warnings: tuple[SafetyWarning, ...] = ()
    sources: tuple[Source, ...] = ()


@dataclass(frozen=True)
class CheckContext:
    """The context of a check: the shop with its equipment, and the paper sizes that the page may need."""

    shop: Shop
    shelves: EquipmentSnapshot
    papers: tuple[str, ...] = ("narrow",)  # the drawing stands beside what is asked, on a desk too

    @classmethod
    def here(cls) -> CheckContext:
        shop = Shop.current()
        return cls(shop, shelves(shop))

    def gauge(self, kinds: Iterable[str]) -> Gauge | None:
        """The shop's first gauge of the kinds that a size is read with."""
        return next((each for kind in kinds for each in self.shelves.gauges if each.kind == kind), None)

    def with_shelf(self, **more: Any) -> CheckContext:
        """Return the context with equipment that the shop may lack, such as an oven."""
        return replace(self, shelves=replace(self.shelves, **more))


@dataclass(frozen=True)
class QuickCheck:
    """A quick check: its question, its form, its answer, and the job that it can become."""

    key: str
    name: Sentence  # among the others
    question: Sentence
    form: type[CheckForm]
    answer: Callable[[dict[str, Any], CheckContext], Answer]
    begin: Sentence  # what is said before anything is typed
    example: Mapping[str, str]  # a whole set of answers to try
    known: Callable[[dict[str, Any], CheckContext], CheckInputs] | None = None
    order: str = ""  # the work order of the job it becomes
    station: str = ""


def given(known: CheckInputs, desk: CheckContext, ticked: Iterable[str] = ()) -> StationInput:
    """Return what a station's facts are built from, without a job.

    The check list is ticked: its lines stand among the warnings.
    """
    now = timezone.now()
    taken = []
    for number, each in enumerate(known.said, 1):
        words = isinstance(each.value, str)
        gauge = None if words else seen(desk.gauge(each.gauges), now.date())
        value = None if words else float(each.value)
        text = str(each.value) if words else each.text
        taken.append(MeasuredReading(each.slot, value, text, each.slot.about.kind, gauge=gauge, at=now, number=number))
    own = EntryData(
        tuple(taken),
        chosen=dict(known.chosen),
        skipped=frozenset(fact_key.key for fact_key in known.skipped),
        ticked=frozenset(ticked),
    )
    return StationInput(known.card, known.facts, own, desk.shelves, desk.shop, known.seat, now=now)


def by_station(definition: StationDefinition, known: CheckInputs, desk: CheckContext) -> Answer:
    """Return the verdict, the drawing, the warnings and the sources of the station for the inputs."""
    assert definition.facts is not None
    assert definition.verdict is not None
    assert definition.words is not None
    of = given(known, desk, definition.words.CHECKS)
    found = definition.facts(of)
    waiting = [
        question
        for question in definition.questions(found)
        if not question.quiet and question.slot and not of.own.has(question.slot) and question.slot.key not in of.own.skipped
    ]
    question_text = waiting[0].text if waiting else ""
    verdict = render_verdict(
        definition.words,
        definition.verdict(found, waiting),
        question_text if question_text.endswith("?") or not question_text else f"{question_text}.",
    )
    drawing = render_drawing(definition, found, verdict, desk.papers)
    warnings = (*definition.warnings(found), *(each for each in definition.checks(found) if each.required))
    return Answer(verdict, drawing, warnings=warnings, sources=tuple(definition.sources(found)))


def quantity(kind: str, label: Sentence, **more: Any) -> QuantityField:
    """Return a field for an optional number."""
    more.setdefault("required", False)
    return QuantityField(kind, label=label, **more)
