"""Values of an engine card by fact key, each with its source; typical values are marked as such."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from stator.engines.case import joints_of
from stator.engines.fact_keys import FactKey
from stator.engines.models import EngineCard
from stator.engines.properties import Property


@dataclass(frozen=True)
class CardFigure:
    """A number or a word on an engine card."""

    slot: FactKey
    value: float | None
    text: str = ""
    source: str = ""
    assumed: bool = False
    uncertainty: float | None = None


@dataclass(frozen=True)
class Limit:
    """A limit of the engine card for one property, in the kind's own unit."""

    what: Property
    low: float | None
    high: float | None
    source: str = ""
    setup: str = ""
    held: str = ""  # how the crank is held for it, where that matters
    assumed: bool = False  # what the figure limits was guessed from its name
    name: str = ""

    @property
    def is_given(self) -> bool:
        return self.low is not None or self.high is not None


def figures_of(card: EngineCard) -> Iterator[CardFigure]:
    """Yield every value of the card that a station may need."""
    for joint in joints_of(card):
        if joint.lifting:
            yield CardFigure(FactKey(joint.part, Property.LIFTING_HALF), None, joint.lifting)
    for mark in card.marks.all():
        if mark.is_fastener and mark.length_mm:
            yield CardFigure(FactKey(mark.part, Property.BOLT_LENGTH), mark.length_mm, source=mark.source, assumed=mark.assumed)


def limits_of(card: EngineCard) -> list[Limit]:
    """The limits of the card, by what they limit."""
    return [
        Limit(Property(spec.property), spec.low, spec.high, spec.origin, spec.setup, spec.held, spec.property_assumed, spec.name)
        for spec in card.specs.all()
        if spec.property
    ]
