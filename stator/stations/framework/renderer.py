"""A verdict as text and a drawing for each paper size, from a station's definition.

Used by jobs and quick checks.
"""

from __future__ import annotations

from collections.abc import Iterable
from types import ModuleType
from typing import Any

from django.utils.safestring import SafeString

from stator.engines.fact_keys import FactKey
from stator.stations.framework.canvas import Canvas
from stator.stations.framework.definition import StationDefinition
from stator.stations.framework.messages import render_message, sentence
from stator.stations.framework.page_components import RenderedVerdict
from stator.stations.framework.verdict import Verdict
from stator.ui.svg import Sheet, on_papers


def render_verdict(words: ModuleType, verdict: Verdict, question_text: str) -> RenderedVerdict:
    """A verdict in the sentences of its station; `asked` is the question that is open."""
    values = {"question": question_text, **verdict.values}
    return RenderedVerdict(
        verdict.state,
        sentence(words.HEADLINE, verdict.code, values, str(verdict.code)),
        sentence(words.REASON, verdict.reason or verdict.code, values),
        sentence(words.NEXT, verdict.next or verdict.code, values),
        sentence(words.DETAIL, verdict.detail, values) if verdict.detail else "",
        verdict.scale,
        sentence(words.NEXT, verdict.standing, values) if verdict.standing else "",
        tuple(render_message(words.ASSUMED, each.code, each.values) for each in verdict.assumed),
        str(verdict.code),
        dict(verdict.values),
    )


def render_drawing(
    definition: StationDefinition,
    found: Any,
    call: RenderedVerdict,
    papers: Iterable[str],
    *,
    address: str = "",
    asked: FactKey | None = None,
    tappable: bool = False,
    at_s: float | None = None,
) -> SafeString:
    """The station's drawing of what it found, on the papers that the page may need."""
    words = definition.words
    assert definition.draw is not None
    assert words is not None
    draw = definition.draw

    def one(name: str, width: float) -> SafeString:
        sheet = Sheet(width, definition.height, str(words.DRAWING), f"{call.headline}. {call.reason} {call.next_step}", name)
        canvas = Canvas(sheet, width, call, address, words, asked, tappable, at_s)
        draw(found, canvas)
        canvas.labels.put()
        return sheet.render()

    return on_papers(papers, one)
