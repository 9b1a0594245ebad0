"""Drawing of the part being inspected: rod and webs with both clearances, or a seat in section and around, with enlarged errors."""

from __future__ import annotations

import math

from shopmath.amounts import kilograms, mm
from shopmath.form import ANGLES_DEG, DEPTHS, oval
from stator.engines.fact_keys import FactKey
from stator.engines.parts import CRANK, rod
from stator.engines.properties import Property
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.inspect_parts import messages
from stator.stations.inspect_parts.analysis import MASSES, ROD, WIDTHS, InspectionAnalysis
from stator.stations.inspect_parts.rod_drawing import draw_rod
from stator.stations.inspect_parts.seats import SeatInspection
from stator.ui.graph import Rule
from stator.ui.number_format import bare, figure, plain, show, trade
from stator.ui.svg import Point

SHAPE_PX = 15.0  # the largest error of form as drawn
UNKNOWN = "?"


def draw(found: InspectionAnalysis, canvas: Canvas) -> None:
    if found.seat:
        _seat(found.seat, canvas)
    elif found.tab == MASSES:
        _rails(found, canvas)
    elif found.tab == ROD:
        draw_rod(found, canvas)
    else:
        _crank(found, canvas)


def _value(found: InspectionAnalysis, slot: FactKey) -> str:
    fact = found.own.fact(slot)
    return bare(fact.amount) if fact and fact.value is not None else UNKNOWN


def _place(canvas: Canvas, slot: FactKey, at: Point, said: str, anchor: str = "start") -> None:
    """Draw a reading at its place with a ring if it is the present question; tapping it opens its question."""
    known = not said.endswith(UNKNOWN)
    with canvas.question(slot):
        if canvas.asked == slot:
            half = 4.9 * len(said) + 8
            dx = {"start": half - 8, "middle": 0.0, "end": 8 - half}[anchor]
            canvas.sheet.rect(at[0] + dx - half, at[1] - 20, 2 * half, 29, "place")
        canvas.sheet.text(at, said, f"halo reading-label{' ink' if known else ''}", anchor)


def _crank(found: InspectionAnalysis, canvas: Canvas) -> None:
    sheet, width, wide = canvas.sheet, canvas.width, canvas.is_wide
    x, unit = (width * 0.31, 1.0) if wide else (150.0, 0.72)
    y = 300.0 if wide else 236.0

    def box(dx: float, dy: float, w: float, h: float) -> list[Point]:
        left, top = x + dx * unit, y + dy * unit
        return [(left, top), (left + w * unit, top), (left + w * unit, top + h * unit), (left, top + h * unit)]

    for sign in (-1, 1):
        sheet.hatched(box(-86 if sign < 0 else 58, -62, 28, 210), "plain", 9, rising=sign < 0)
        sheet.shape(box(-176 if sign < 0 else 86, 90, 90, 34), "cut paper")
    sheet.hatched(box(-58, -34, 116, 40), "brass", 7)
    sheet.shape(box(-34, -66, 68, 104), "cut paper")  # the big end
    sheet.shape(box(-18, -250, 36, 186), "cut paper")
    sheet.shape(box(-30, -286, 60, 44), "cut paper")
    sheet.line((x, y - 300 * unit), (x, y + 160 * unit), "chain")
    asked = canvas.asked.what if canvas.asked else None
    up = "ink bold" if asked == Property.BIG_END_RADIAL_PLAY else "ink thin"
    across = "ink bold" if asked == Property.BIG_END_SIDE_PLAY else "ink thin"
    for tip, tail in (((x, y - 118 * unit), (x, y - 92 * unit)), ((x, y - 72 * unit), (x, y - 98 * unit))):
        sheet.arrow(tip, tail, up, 11)
    for sign in (-1, 1):
        sheet.arrow((x + sign * 57 * unit, y + 22 * unit), (x + sign * 36 * unit, y + 22 * unit), across, 9)
    _plays(found, canvas, (x, y), unit)
    more = len(found.rods) - 1  # their lines reach as far as the crank's end, so it stands below them
    seen_at = (width * 0.76, y + (22.0 + 26.0 * more if more else 0.0))
    _widths(found, canvas, seen_at if wide else (300.0, 440.0), (86.0 if more else 96.0) if wide else 56.0)


def _plays(found: InspectionAnalysis, canvas: Canvas, at: Point, unit: float) -> None:
    """Both plays of each rod and the small end, where they are felt."""
    x, y = at
    right, count = x + 66 * unit, len(found.rods)
    above, apart = (112 * unit, 26.0) if canvas.is_wide or count == 1 else (190 * unit, 40.0)  # on a phone each takes two lines
    left, below = x - 100 * unit if canvas.is_wide else 8.0, y + 176 * unit
    for number, each in enumerate(found.rods):
        of = format_message(messages.OF_ROD, {"rod": each.name}) if count > 1 else ""
        radial, side = FactKey(each, Property.BIG_END_RADIAL_PLAY), FactKey(each, Property.BIG_END_SIDE_PLAY)
        text = format_message(messages.ON_DRAWING["up_and_down"], {"of": of, "value": _value(found, radial)})
        _place(canvas, radial, (right, y - above + apart * number), text)
        text = format_message(messages.ON_DRAWING["sideways"], {"of": of, "value": _value(found, side)})
        _place(canvas, side, (left, below + 26.0 * number), text)
    canvas.labels.at([((right, y - above - 26), "start")], str(messages.ON_DRAWING["wear"]), "quiet")
    places = [((left, below + 26.0 * count - 2), "start"), ((left, 540.0), "start")]
    canvas.labels.at(places, str(messages.ON_DRAWING["design"]), "quiet")
    small = FactKey(rod(1), Property.SMALL_END_PLAY)
    text = format_message(messages.ON_DRAWING["small"], {"value": _value(found, small)})
    _place(canvas, small, (x + 44 * unit, y - 258 * unit), text)


def _widths(found: InspectionAnalysis, canvas: Canvas, centre: Point, radius: float) -> None:
    """The crank from its end, with the width over the webs at four places."""
    sheet, wide = canvas.sheet, canvas.is_wide
    sheet.circle(centre, radius, "outline")
    sheet.circle(centre, 14 if wide else 9, "bore")
    sheet.circle((centre[0], centre[1] - radius * 0.62), 18 if wide else 11, "cut solid")
    aside = (
        (((-radius + 12, 5.0), "start"), ((radius - 12, 5.0), "end"))
        if wide
        else (((-radius - 12, 5.0), "end"), ((radius + 12, 5.0), "start"))
    )
    labels = (((0.0, -radius - 14), "middle"), aside[0], ((0.0, radius + 28), "middle"), aside[1])
    for fact_key, ((dx, dy), anchor) in zip(WIDTHS, labels, strict=True):
        angle = math.radians(fact_key.at.angle_deg or 0.0)
        sheet.circle((centre[0] - radius * math.sin(angle), centre[1] - radius * math.cos(angle)), 5, "ink solid")
        _place(canvas, fact_key, (centre[0] + dx, centre[1] + dy), _value(found, fact_key), anchor)
    canvas.labels.keep_clear(centre, radius + 30 if wide else 0.75 * radius)
    text = str(messages.ON_DRAWING["width_seen" if wide else "width"])
    sheet.text((centre[0], centre[1] + radius + 56), text, "quiet", "middle")


def _seat(of: SeatInspection, canvas: Canvas) -> None:
    """In section with both depths, and the two rounds as measured over the nominal."""
    sheet, width, wide = canvas.sheet, canvas.width, canvas.is_wide
    x, half, top = (width * 0.27, 118.0, 110.0) if wide else (112.0, 66.0, 60.0)
    low = top + 190.0
    if of.on_shaft:
        sheet.hatched([(x - half, top), (x + half, top), (x + half, low), (x - half, low)], "plain", 10)
        sheet.shape([(x - half * 1.3, low), (x + half * 1.3, low), (x + half * 1.3, low + 34), (x - half * 1.3, low + 34)], "cut paper")
    else:
        for sign in (-1, 1):
            outer, step = x + sign * half * 1.5, x + sign * half * 0.72
            wall = [(x + sign * half, top), (outer, top), (outer, low + 40), (step, low + 40), (step, low), (x + sign * half, low)]
            sheet.hatched(wall, "plain", 10, rising=sign > 0)
    sheet.line((x, top - 22), (x, low + 52), "chain")
    for depth, y in zip(DEPTHS, (top + 44, low - 44), strict=True):
        sheet.arrow((x - half, y), (x - 40, y), "ink", 9)
        sheet.arrow((x + half, y), (x + 40, y), "ink", 9)
        if canvas.asked and canvas.asked.what == Property.SEAT_DIAMETER and canvas.asked.at.depth == depth:
            sheet.circle((x, y), 30, "place")
        read = [fact for fact in of.around if fact.slot.at.depth == depth]
        text = bare(mm(sum(fact.value or 0.0 for fact in read) / len(read), read[-1].amount.resolution)) if read else UNKNOWN
        sheet.text((x, y + 6), text, f"halo reading-label{' ink' if read else ''}", "middle")
    size = {"size": trade(of.nominal), "code": of.seat.code} if of.nominal else {}
    name = ("journal" if of.on_shaft else "bore") if of.nominal else "size_unknown"
    sheet.text((x, low + 78), format_message(messages.ON_DRAWING[name], size).strip(), "strong", "middle")
    sheet.text((x, top - 34), str(messages.ON_DRAWING["mouth"]), "quiet", "middle")
    _round(of, canvas, (width * 0.71, 240.0) if wide else (316.0, 190.0), 100.0 if wide else 58.0)
    _band(of, canvas)


def _round(of: SeatInspection, canvas: Canvas, centre: Point, radius: float) -> None:
    """Draw six diameters as chords and their oval, exaggerated by the factor in the text."""
    sheet, read, shape = canvas.sheet, of.diameters, of.form
    sheet.circle(centre, radius, "sure")
    for angle in ANGLES_DEG:
        turn = math.radians(angle)
        right, up = radius * math.sin(turn), radius * math.cos(turn)
        sheet.line((centre[0] + right, centre[1] - up), (centre[0] - right, centre[1] + up), "chain")
        out = (centre[0] + right * 1.42, centre[1] - up * 1.42 + 5)
        if canvas.asked and canvas.asked.what == Property.SEAT_DIAMETER and canvas.asked.at.angle_deg == angle:
            sheet.circle((out[0], out[1] - 5), 21, "place")
        sheet.text(out, f"{plain(angle)}°", "tick", "middle")
    if not read or not shape:
        sheet.text((centre[0], centre[1] + radius + 34), str(messages.ON_DRAWING["shape_later"]), "quiet", "middle")
        return
    error = max(abs(value - shape.mean_mm) for value in read) or 1e-4
    factor = SHAPE_PX / error
    for values, cls in ((read[:3], "curve"), (read[3:], "ring")):
        ring = oval(values)
        reaches = [(math.radians(angle), radius + factor * (ring.across(angle) - shape.mean_mm)) for angle in range(0, 361, 6)]
        sheet.trace([(centre[0] + reach * math.sin(turn), centre[1] - reach * math.cos(turn)) for turn, reach in reaches], cls)
    larger = factor * shape.mean_mm / 2 / radius  # than the circle itself is drawn
    sizes = {"ovality": bare(mm(shape.ovality_mm)), "taper": bare(mm(shape.taper_mm)), "times": plain(larger, 2)}
    text = format_message(messages.ON_DRAWING["shape" if canvas.is_wide else "oval"], sizes)
    rings = [(str(messages.ON_DRAWING["rings"]), "quiet")] if canvas.is_wide else []
    canvas.labels.at([((centre[0], centre[1] + radius + 40), "middle")], text, "strong", rank=1, beneath=rings)


def _band(of: SeatInspection, canvas: Canvas) -> None:
    """The size on a rule with its limits."""
    size = next(iter(of.figures), None)
    if size is None or size.bounds.low is None or size.bounds.high is None:
        return
    bounds = (size.bounds.low, size.bounds.high)
    span = max(bounds[1] - bounds[0], 0.004)
    low = min(bounds[0], size.value - size.uncertainty) - 0.4 * span
    high = max(bounds[1], size.value + size.uncertainty) + 0.4 * span
    rule = Rule(500.0, canvas.width * 0.12, canvas.width * 0.88, low, high)
    rule.draw(canvas.sheet, bounds, size.value, size.uncertainty, (bare(mm(bounds[0])), bare(mm(bounds[1]))))


def _rails(found: InspectionAnalysis, canvas: Canvas) -> None:
    """A crank level on its rails with the mass that hangs it."""
    sheet, x, y = canvas.sheet, canvas.width * 0.42, 230.0
    reach = 150.0 if canvas.is_wide else 96.0
    sheet.circle((x, y), 88, "outline")
    sheet.circle((x, y), 17, "bore")
    sheet.line((x - 150, y + 17), (x + 190, y + 17), "axis")
    sheet.circle((x + reach * 0.4, y), 12, "cut solid")
    sheet.line((x + reach * 0.4, y), (x + reach * 1.5, y), "axis")
    sheet.circle((x + reach * 1.5, y), 16, "bore")
    sheet.line((x + reach * 1.5, y + 16), (x + reach * 1.5, y + 110), "thin")
    sheet.rect(x + reach * 1.5 - 26, y + 110, 52, 46, "cut")
    hung = found.own.value(FactKey(CRANK, Property.HUNG_MASS))
    text = show(kilograms(hung)) if hung else str(messages.ON_DRAWING["hung"])
    sheet.text((x + reach * 1.5, y + 184), text, "reading-label ink" if hung else "", "middle")
    factor = found.factor
    named = {"factor": figure(factor.new, 3)} if factor else {}
    sheet.text((canvas.width / 2, 500), format_message(messages.ON_DRAWING["factor" if factor else "formula"], named), "strong", "middle")
