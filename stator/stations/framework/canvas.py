"""The canvas of a station's drawing: shapes, labels, and links to the questions of the places that can be tapped."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from types import ModuleType

from stator.engines.fact_keys import FactKey
from stator.stations.framework.messages import READING, format_message
from stator.stations.framework.page_components import RenderedVerdict
from stator.stations.framework.question_factory import label
from stator.ui.labels import Labels
from stator.ui.svg import Sheet

WIDE = 500.0  # wider than this there is room for words beside a drawing


@dataclass
class Canvas:
    """One drawing in the making, at one width. `asked` is where the reading belongs that is asked now."""

    sheet: Sheet
    width: float
    call: RenderedVerdict
    address: str
    words: ModuleType
    asked: FactKey | None = None
    tappable: bool = True
    at_s: float | None = None  # the instant that is drawn, s, where the drawing moves through time
    labels: Labels = field(init=False)

    def __post_init__(self) -> None:
        self.labels = Labels(self.sheet)

    @property
    def is_wide(self) -> bool:
        return self.width > WIDE

    def ask_address(self, slot: FactKey) -> str:
        return f"{self.address}?ask={slot.key}"

    def link(self, slot: FactKey) -> tuple[str, str] | None:
        """For a label that leads to a question."""
        return (self.ask_address(slot), format_message(READING, {"label": label(self.words, slot)})) if self.tappable else None

    @contextmanager
    def question(self, slot: FactKey) -> Iterator[None]:
        """Yield what is drawn inside leads to a question when it is tapped."""
        link = self.link(slot)
        if link is None:
            yield
            return
        with self.sheet.link(*link):
            yield
