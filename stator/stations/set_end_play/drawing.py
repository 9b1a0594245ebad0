"""Drawing of case halves, bearings and crank in section, with the measured dimension, and end play and shims on the right."""

from __future__ import annotations

from shopmath.amounts import mm
from stator.engines.fact_keys import FactKey
from stator.engines.models.case import center_sections
from stator.engines.parts import CRANK, JOINT, LEFT_CASE, RIGHT_CASE
from stator.engines.properties import Property
from stator.stations.framework import Canvas
from stator.stations.set_end_play import messages
from stator.stations.set_end_play.analysis import EndPlayAnalysis
from stator.ui.graph import Rule
from stator.ui.number_format import bare
from stator.ui.svg import Sheet

GASKET, FITTED = FactKey(JOINT, Property.GASKET_CRUSHED), FactKey(CRANK, Property.SHIMS_FITTED)


def draw(found: EndPlayAnalysis, canvas: Canvas) -> None:
    unit = canvas.width / 760
    face, left, right = 400.0 * unit, 90.0 * unit, 670.0 * unit  # joint face, and where the rings stand
    centres = center_sections(found.card)
    half = 90.0 * unit if centres else 4.0 * unit
    _section(found, canvas.sheet, unit, (face, left, right), half)
    links = [
        ("left", FactKey(LEFT_CASE, Property.FACE_TO_BEARING), left, face - half, 372.0),
        ("right", FactKey(RIGHT_CASE, Property.FACE_TO_BEARING), face + half, right, 372.0),
        ("crank", FactKey(CRANK, Property.CRANK_SHOULDERS), left, right - 26 * unit, 420.0),
    ]
    asked = canvas.asked.part if canvas.asked else None
    centre = next((each for each in centres if each.part == asked), None) or next(iter(centres), None)
    if centre:
        links.append(("centre", FactKey(centre.part, Property.SECTION_WIDTH), face - half, face + half, 396.0))
    for code, fact_key, a, b, y in links:
        _link(found, canvas, code, fact_key, (a, b, y))
    _small(found, canvas, "gasket", GASKET, (face, 344.0))
    _small(found, canvas, "fitted", FITTED, (right - 13 * unit, 330.0))
    _float(found, canvas)


def _section(found: EndPlayAnalysis, sheet: Sheet, unit: float, x: tuple[float, float, float], half: float) -> None:
    top, low, axis = 70.0, 316.0, 196.0
    face, left, right = x
    for near, far, sign in ((face - half, left - 56 * unit, -1), (face + half, right + 56 * unit, 1)):
        ring = left if sign < 0 else right
        for up in (True, False):
            edge, inner = (top, axis - 78) if up else (low + 14, axis + 78)
            wall = [(near, edge), (far, edge), (far, axis + (-26 if up else 26)), (ring + sign * 34 * unit, axis + (-26 if up else 26))]
            sheet.hatched([*wall, (ring + sign * 34 * unit, inner), (near, inner)], "plain", 10, rising=up)
            y = axis - 72 if up else axis + 26
            box = [(ring, y), (ring + sign * 32 * unit, y), (ring + sign * 32 * unit, y + 46), (ring, y + 46)]
            sheet.shape(box, "cut paper")
            sheet.circle((ring + sign * 16 * unit, y + 23), 11, "ball")
    for edge, inner in ((top, axis - 78), (axis + 78, low + 14)) if found.card.has_center_section else ():
        across = (face - half + 4 * unit, face + half - 4 * unit)
        sheet.hatched([(across[0], edge), (across[1], edge), (across[1], inner), (across[0], inner)], "plain", 10)
    webs = (left + 96 * unit, right - 122 * unit)
    end = right - 26 * unit
    sheet.shape([(left, axis - 24), (end, axis - 24), (end, axis + 24), (left, axis + 24)], "cut paper")
    for web in webs:
        sheet.hatched([(web, axis - 62), (web + 26 * unit, axis - 62), (web + 26 * unit, axis + 66), (web, axis + 66)], "cold", 8)
    sheet.line((left - 70 * unit, axis), (right + 70 * unit, axis), "chain")
    if found.own.has(GASKET):
        sheet.rect(face - 4 * unit, top, 8 * unit, 250, "barred")
    if found.pieces or found.own.value(FITTED):
        sheet.rect(end, axis - 26, 26 * unit * 0.62, 52, "ink solid")


def _link(found: EndPlayAnalysis, canvas: Canvas, code: str, slot: FactKey, place: tuple[float, float, float]) -> None:
    """A link as a dimension, from one of its ends to the other."""
    sheet, (a, b, y) = canvas.sheet, place
    fact, name = found.own.fact(slot), str(messages.ON_DRAWING[code])
    text = f"{name if canvas.is_wide else ''} {bare(fact.amount)}".strip() if fact else name
    for x in (a, b):
        sheet.line((x, 330), (x, y + 8), "thin")
    with canvas.question(slot):
        half = 5.0 * len(text) + 8
        middle = (a + b) / 2
        cls = "ink bold" if canvas.asked == slot or fact else "dim"
        sheet.arrow((a, y), (middle - half, y), cls)
        sheet.arrow((b, y), (middle + half, y), cls)
        if canvas.asked == slot:
            sheet.rect(middle - half - 4, y - 18, 2 * half + 8, 34, "place")
        sheet.text((middle, y + 5), text, f"reading-label{' ink' if fact else ''}", "middle")


def _small(found: EndPlayAnalysis, canvas: Canvas, code: str, slot: FactKey, at: tuple[float, float]) -> None:
    """A thin link, named only when it is there or asked."""
    fact = found.own.fact(slot)
    if fact is None and canvas.asked != slot:
        return
    name = str(messages.ON_DRAWING[code])
    text = f"{name} {bare(mm(fact.value or 0.0, 0.01))}" if fact else name
    with canvas.question(slot):
        half = 4.8 * len(text) + 8
        if canvas.asked == slot:
            canvas.sheet.rect(at[0] - half, at[1] - 19, 2 * half, 28, "place")
        canvas.sheet.text(at, text, "halo reading-label ink", "middle")


def _float(found: EndPlayAnalysis, canvas: Canvas) -> None:
    """The float on a rule between its limits, with its uncertainty."""
    free, limits, width = found.free, found.limits, canvas.width
    shown = found.predicted or ((found.choice.float_mm, found.uncertainty) if found.choice else None)
    if limits is None or (shown is None and free is None):
        canvas.sheet.text((width / 2, 508.0), str(messages.ON_DRAWING["later"]), "quiet", "middle")
        return
    value, uncertainty = shown or ((free.value_mm, found.uncertainty) if free else (0.0, 0.0))
    low, high = min(limits[0], value - uncertainty, 0.0), max(limits[1], value + uncertainty)
    pad = 0.08 * (high - low)
    rule = Rule(508.0, width * 0.14, width * 0.86, low - pad, high + pad)
    ends = (bare(mm(limits[0], 0.01)), bare(mm(limits[1], 0.01)))
    rule.draw(canvas.sheet, limits, value, uncertainty, ends)
