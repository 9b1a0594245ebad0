"""The part in hand: rod and webs with both plays told apart, or a seat in section and round its circle, errors drawn large."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from engines.models import Seat
from shopmath.form import ANGLES_DEG, oval
from stations.inspect import figures
from stations.inspect.asks import ROUND, WIDTHS, rods
from ui.graph import Rule
from ui.svg import Point, Sheet, on_papers

if TYPE_CHECKING:
    from stations.inspect.station import Inspect

SHAPE_PX = 15.0  # the largest error of form as drawn


def draw(work: Inspect) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: Inspect, name: str, width: float) -> SafeString:
    plate, seat = work.call, work.seat_in_hand()
    sheet = Sheet(width, 560, f"Inspect: {seat.name if seat else 'the crank'}", f"{plate.words}. {plate.line} {plate.move}", name)
    if seat:
        _seat(sheet, work, seat, width)
    elif work.part == "masses":
        _rails(sheet, work, width)
    else:
        _crank(sheet, work, width)
    return sheet.render()


def _place(sheet: Sheet, work: Inspect, key: str, at: Point, words: str, anchor: str = "start") -> None:
    """A reading at its place on the drawing, ringed when it is asked now; tapping it asks for it again."""
    value, asked = work.mean(key), bool(work.next_ask and work.next_ask.key == key)
    with sheet.link(f"{work.address}?ask={key}", f"Reading: {words or key}"):
        said = f"{value:.{work.digits(key)}f}" if value is not None else "?"
        label = f"{words} {said}".strip()
        if asked:
            half = 4.9 * len(label) + 8
            dx = {"start": half - 8, "middle": 0.0, "end": 8 - half}[anchor]
            sheet.rect(at[0] + dx - half, at[1] - 20, 2 * half, 29, "place")
        sheet.text(at, label, f"halo reading-label{' ink' if value is not None else ''}", anchor)


def _crank(sheet: Sheet, work: Inspect, width: float) -> None:
    wide = width > 500
    x, unit = (width * 0.31, 1.0) if wide else (150.0, 0.72)
    y = 300.0

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
    asked = work.next_ask.key.partition("-")[0] if work.next_ask else ""
    up = "ink bold" if asked == "radial" else "ink thin"
    across = "ink bold" if asked == "side" else "ink thin"
    for tip, tail in (((x, y - 118 * unit), (x, y - 92 * unit)), ((x, y - 72 * unit), (x, y - 98 * unit))):
        sheet.arrow(tip, tail, up, 11)
    for sign in (-1, 1):
        sheet.arrow((x + sign * 57 * unit, y + 22 * unit), (x + sign * 36 * unit, y + 22 * unit), across, 9)
    right = x + 66 * unit
    count = rods(work.job.card)
    for rod in range(1, count + 1):
        dy = 26.0 * (rod - 1)
        name = f" {rod}" if count > 1 else ""
        _place(sheet, work, f"radial-{rod}", (right, y - 112 * unit + dy), f"up and down{name}")
        _place(sheet, work, f"side-{rod}", (x - 100 * unit, y + 176 * unit + dy), f"sideways{name}", "start")
    sheet.text((right, y - 134 * unit), "wear: none to be felt", "quiet")
    sheet.text((x - 100 * unit, y + (200 if count == 1 else 226) * unit), "design: the card says how much", "quiet")
    _place(sheet, work, "small", (x + 44 * unit, y - 258 * unit), "small end")
    centre = (width * 0.76, 300.0) if wide else (330.0, 440.0)
    radius = 96.0 if wide else 56.0
    sheet.circle(centre, radius, "outline")
    sheet.circle(centre, 14 if wide else 9, "bore")
    sheet.circle((centre[0], centre[1] - radius * 0.62), 18 if wide else 11, "cut solid")
    anchors = {
        "pin": ((0, -radius - 14), "middle"),
        "90": ((-radius + 12, 5), "start"),
        "180": ((0, radius + 28), "middle"),
        "270": ((radius - 12, 5), "end"),
    }
    for key, _ in WIDTHS:
        angle = math.radians(0.0 if key == "pin" else float(key))
        sheet.circle((centre[0] - radius * math.sin(angle), centre[1] - radius * math.cos(angle)), 5, "ink solid")
        (dx, dy), anchor = anchors[key]
        _place(sheet, work, f"width-{key}", (centre[0] + dx, centre[1] + dy), "", anchor)
    words = "width over the webs, seen from the right end" if wide else "width over the webs"
    sheet.text((centre[0], centre[1] + radius + 56), words, "quiet", "middle")


def _seat(sheet: Sheet, work: Inspect, seat: Seat, width: float) -> None:
    """In section with both depths, and the two rounds as measured over the nominal."""
    wide, onto = width > 500, seat.on == Seat.On.SHAFT
    x, half, top = (width * 0.27, 118.0, 110.0) if wide else (112.0, 66.0, 60.0)
    low = top + 190.0
    if onto:
        sheet.hatched([(x - half, top), (x + half, top), (x + half, low), (x - half, low)], "plain", 10)
        sheet.shape([(x - half * 1.3, low), (x + half * 1.3, low), (x + half * 1.3, low + 34), (x - half * 1.3, low + 34)], "cut paper")
    else:
        for sign in (-1, 1):
            outer, step = x + sign * half * 1.5, x + sign * half * 0.72
            wall = [(x + sign * half, top), (outer, top), (outer, low + 40), (step, low + 40), (step, low), (x + sign * half, low)]
            sheet.hatched(wall, "plain", 10, rising=sign > 0)
    sheet.line((x, top - 22), (x, low + 52), "chain")
    for depth, y in (("m", top + 44), ("b", low - 44)):
        sheet.arrow((x - half, y), (x - 40, y), "ink", 9)
        sheet.arrow((x + half, y), (x + 40, y), "ink", 9)
        asked = bool(work.next_ask and work.next_ask.key.startswith(f"{seat.pk}-{depth}") and work.next_ask.key.partition("-")[2] in ROUND)
        if asked:
            sheet.circle((x, y), 30, "place")
        values = [value for angle in ANGLES_DEG if (value := work.mean(f"{seat.pk}-{depth}{angle:.0f}")) is not None]
        said = f"{sum(values) / len(values):.3f}" if values else "?"
        sheet.text((x, y + 6), said, "halo reading-label ink" if values else "halo reading-label", "middle")
    nominal = work.nominal(seat)
    words = f"{'journal' if onto else 'bore'} {nominal:g} {seat.code}".strip() if nominal else "size unknown"
    sheet.text((x, low + 78), words, "strong", "middle")
    sheet.text((x, top - 34), "mouth", "quiet", "middle")
    centre = (width * 0.71, 240.0) if wide else (316.0, 190.0)
    _round(sheet, work, seat, centre, 100.0 if wide else 58.0, wide)
    _band(sheet, work, seat, width)


def _round(sheet: Sheet, work: Inspect, seat: Seat, centre: Point, radius: float, wide: bool) -> None:
    """Six diameters as chords, and the oval they make, exaggerated with the factor said."""
    found, shape = figures.diameters(work, seat), figures.form_of(work, seat)
    sheet.circle(centre, radius, "sure")
    for angle in ANGLES_DEG:
        turn = math.radians(angle)
        right, up = radius * math.sin(turn), radius * math.cos(turn)
        sheet.line((centre[0] + right, centre[1] - up), (centre[0] - right, centre[1] + up), "chain")
        out = (centre[0] + right * 1.42, centre[1] - up * 1.42 + 5)
        asked = bool(work.next_ask and work.next_ask.key in (f"{seat.pk}-m{angle:.0f}", f"{seat.pk}-b{angle:.0f}"))
        if asked:
            sheet.circle((out[0], out[1] - 5), 21, "place")
        sheet.text(out, f"{angle:.0f}°", "tick", "middle")
    if not found or not shape:
        sheet.text((centre[0], centre[1] + radius + 34), "its shape is drawn here, large", "quiet", "middle")
        return
    error = max(abs(value - shape.mean_mm) for value in found) or 1e-4
    factor = SHAPE_PX / error
    for values, cls in ((found[:3], "curve"), (found[3:], "ring")):
        ring = oval(values)
        reaches = [(math.radians(angle), radius + factor * (ring.across(angle) - shape.mean_mm)) for angle in range(0, 361, 6)]
        sheet.trace([(centre[0] + reach * math.sin(turn), centre[1] - reach * math.cos(turn)) for turn, reach in reaches], cls)
    larger = factor * shape.mean_mm / 2 / radius  # than the circle itself is drawn
    taper = f"{round(shape.taper_mm, 3) or 0.0:.3f}".replace("-", "−")
    said = f"oval {shape.ovality_mm:.3f}, taper {taper}; drawn ×{float(f'{larger:.2g}'):g}"
    sheet.text((centre[0], centre[1] + radius + 40), said if wide else f"oval {shape.ovality_mm:.3f}", "strong", "middle")
    if wide:
        sheet.text((centre[0], centre[1] + radius + 60), "thick: mouth, thin: bottom", "quiet", "middle")


def _band(sheet: Sheet, work: Inspect, seat: Seat, width: float) -> None:
    """The size on a rule with its limits."""
    size = next(iter(work.figures_of(f"s{seat.pk}")), None)
    if size is None or size.low is None or size.high is None:
        return
    span = max(size.high - size.low, 0.004)
    low = min(size.low, size.value - size.doubt) - 0.4 * span
    high = max(size.high, size.value + size.doubt) + 0.4 * span
    rule = Rule(500.0, width * 0.12, width * 0.88, low, high)
    rule.draw(sheet, (size.low, size.high), size.value, size.doubt, (f"{size.low:.3f}", f"{size.high:.3f}"))


def _rails(sheet: Sheet, work: Inspect, width: float) -> None:
    """A crank level on its rails with the mass that hangs it."""
    x, y = width * 0.42, 230.0
    reach = 150.0 if width > 500 else 96.0
    sheet.circle((x, y), 88, "outline")
    sheet.circle((x, y), 17, "bore")
    sheet.line((x - 150, y + 17), (x + 190, y + 17), "axis")
    sheet.circle((x + reach * 0.4, y), 12, "cut solid")
    sheet.line((x + reach * 0.4, y), (x + reach * 1.5, y), "axis")
    sheet.circle((x + reach * 1.5, y), 16, "bore")
    sheet.line((x + reach * 1.5, y + 16), (x + reach * 1.5, y + 110), "thin")
    sheet.rect(x + reach * 1.5 - 26, y + 110, 52, 46, "cut")
    hung = work.value("hung")
    sheet.text((x + reach * 1.5, y + 184), f"{1000 * hung:.0f} g" if hung else "hung", "reading-label ink" if hung else "", "middle")
    factor = work.factor()
    words = f"balance factor {factor[0]:.3f}" if factor else "(hung + small end) / all that goes up and down"
    sheet.text((width / 2, 500), words, "strong", "middle")
