"""Drawing of the rod between two bars, upright and flat: the reading of each bar, and the enlarged tilt in the small end."""

from __future__ import annotations

from shopmath.amounts import mm
from stator.engines.fact_keys import FactKey
from stator.engines.parts import rod
from stator.engines.properties import Property
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.inspect_parts import messages
from stator.stations.inspect_parts.analysis import BARS, BIG_END, SMALL_END, InspectionAnalysis
from stator.ui.number_format import bare, show

LEANS_PX, MOST_PX = 400.0, 26.0  # how far a bar's end is drawn out of level, for a millimetre, and at most
APART = 210.0  # small end from big end, px


def draw_rod(found: InspectionAnalysis, canvas: Canvas) -> None:
    """Draw the rod from the front, and next to it as it lies."""
    half = canvas.width * (0.17 if canvas.is_wide else 0.2)
    for share, (what, lies) in zip((0.27, 0.73), BARS.items(), strict=True):
        _view(found, canvas, what, lies, (canvas.width * share, 130.0), half)
    span = FactKey(rod(1), Property.BAR_SPAN)
    fact = found.own.fact(span)
    text = show(mm(fact.value, 1.0)) if fact and fact.value else "?"
    y = canvas.sheet.height - 30
    canvas.labels.at(
        [((canvas.width / 2, y), "middle")],
        format_message(messages.ON_DRAWING["span"], {"span": text}),
        "strong",
        rank=2,
        link=canvas.link(span),
    )


def _view(found: InspectionAnalysis, canvas: Canvas, what: Property, lies: str, at: tuple[float, float], half: float) -> None:
    sheet, (x, top) = canvas.sheet, at
    low = top + APART
    sheet.shape([(x - 13, top), (x + 13, top), (x + 19, low), (x - 19, low)], "cut paper")
    sheet.circle((x, top), 25, "cut paper")
    sheet.circle((x, low), 37, "cut paper")
    sheet.text((x, top - 62), str(messages.ON_DRAWING[f"rod_{lies}"]), "strong", "middle")
    for end, y in ((SMALL_END, top), (BIG_END, low)):
        fact_key = found.bar(end, lies)
        value = found.own.value(fact_key)
        off = max(-MOST_PX, min(MOST_PX, LEANS_PX * (value or 0.0)))
        sheet.line((x - half, y + off / 2), (x + half, y - off / 2), "ink bold" if canvas.asked == fact_key else "outline")
        sheet.circle((x, y), 7, "ink solid")
        text = bare(mm(value, 0.01)) if value is not None else "?"
        cls = "reading-label ink" if value is not None else "quiet"
        canvas.labels.at([((x + half, y - MOST_PX / 2 - 10), "end")], text, cls, rank=1, link=canvas.link(fact_key))
    number = next((each for each in found.rod_figures if each.code == what), None)
    if number:
        named = format_message(messages.ON_DRAWING["over_100"], {"value": bare(number.amount)})
        sheet.text((x, low + 76), named, "reading-label ink", "middle")
