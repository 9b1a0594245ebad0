"""Drawing of the flywheel: stops, heavy spot with its uncertainty, areas that must not be drilled, and planned holes."""

from __future__ import annotations

import math
from collections.abc import Callable

from shopmath.amounts import degrees, estimate, kilograms, mm
from shopmath.balance import MARKS
from stator.engines.properties import Property
from stator.stations.balance_flywheel import messages
from stator.stations.balance_flywheel.analysis import BalanceAnalysis
from stator.stations.balance_flywheel.locations import Phase, turning
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.ui.number_format import bare, show, trade
from stator.ui.svg import Point, Sheet

Place = Callable[[float, float], Point]
RIM_MM = 95.0  # assumed, to draw it while the rim is not measured
CENTRE_PX = 272.0


def draw(found: BalanceAnalysis, canvas: Canvas) -> None:
    sheet, wide = canvas.sheet, canvas.is_wide
    centre, radius = (canvas.width / 2, CENTRE_PX), 206.0 if wide else 158.0
    scale = radius / ((found.value(Property.RIM_DIAMETER) or 2 * RIM_MM) / 2)

    def at(angle: float, reach: float) -> Point:
        turn = math.radians(angle)
        return centre[0] + reach * math.cos(turn), centre[1] - reach * math.sin(turn)

    _arcs(found, sheet, at, radius)
    if found.stops and found.stops.resultant > 0:
        _heavy(found, sheet, at, radius)
    sheet.add("circle", cx=centre[0], cy=centre[1], r=radius, class_="outline dial", data_dial="1")
    sheet.circle(centre, radius * 0.72, "thin-ring")
    sheet.circle(centre, radius * 0.2, "bore")
    sheet.rect(centre[0] + radius * 0.2 - 3, centre[1] - 6, 11, 12, "cut plain solid")
    for angle in range(0, 360, 10):
        long = 12 if angle % 30 == 0 else 6
        sheet.line(at(angle, radius), at(angle, radius + long), "axis thin")
        if angle % 30 == 0:
            x, y = at(angle, radius + 28)
            sheet.text((x, y + 5), f"{angle}°", "tick", "middle")
    for index, mark in enumerate(found.marks):
        sheet.line(at(mark, radius - 22), at(mark, radius - 2), "ink bold")
        if wide and found.phase == Phase.ROLL:
            x, y = at(mark, radius - 34 - 13 * (index % 2))
            sheet.text((x, y + 4), str(index + 1), "quiet ink", "middle")
    _holes(found, canvas, at, scale)
    _masses(found, canvas, at, radius)
    text = str(messages.ON_DRAWING["tap" if found.phase == Phase.ROLL and canvas.tappable else "degrees"])
    sheet.text((canvas.width / 2, 548), text, "quiet", "middle")


def _arcs(found: BalanceAnalysis, sheet: Sheet, at: Place, radius: float) -> None:
    """Magnets, rivets, vanes: hatched out of the rim."""
    if found.limits is None:
        return
    for start, end in found.limits.keep_out_deg:
        span = (end - start) % 360
        steps = [start + span * index / 12 for index in range(13)]
        outer, inner = [at(deg, radius) for deg in steps], [at(deg, radius * 0.72) for deg in reversed(steps)]
        sheet.hatched([*outer, *inner], "brass", 6)


def _heavy(found: BalanceAnalysis, sheet: Sheet, at: Place, radius: float) -> None:
    """Draw the mean of the marks with its uncertainty as a wedge, thin if it is not significant."""
    told = found.stops
    assert told is not None
    if told.telling:
        half = min(told.unsure_deg, 90.0)
        rim = [at(told.mean_deg - half + 2 * half * index / 16, radius - 2) for index in range(17)]
        sheet.shape([at(0, 0), *rim], "window")
    reach = radius * (0.5 if told.telling else 0.66 * told.resultant)
    sheet.arrow(at(told.mean_deg, reach), at(0, 0), "ink bold" if told.telling else "ink", 14)
    if told.telling:
        x, y = at(told.mean_deg, radius * 0.34)
        sheet.text((x, y - 8), show(estimate(degrees(told.mean_deg), told.unsure_deg)), "halo reading-label ink", "middle")


def _masses(found: BalanceAnalysis, canvas: Canvas, at: Place, radius: float) -> None:
    """Draw the marks of the proof: the masses that turned the flywheel, and the place of the next one."""
    sheet = canvas.sheet
    for mark, mass in zip(MARKS, found.turning, strict=True):
        asked = canvas.asked == turning(mark)
        if asked:
            sheet.circle(at(mark, radius - 14), 13, "place")
        if mass is None and not asked:
            continue
        x, y = at(mark, radius - 86)
        text = str(messages.ON_DRAWING["mass"]) if mass is None else show(kilograms(mass, 0.00001))
        sheet.text((x, y + 5), text, "halo strong hot" if mass is None else "halo reading-label ink", "middle")


def _holes(found: BalanceAnalysis, canvas: Canvas, at: Place, scale: float) -> None:
    sheet = canvas.sheet
    for old, _gmm in found.earlier:
        sheet.circle(at(old.angle_deg, scale * old.radius_mm), max(4.0, scale * old.diameter_mm / 2), "bolt taken")
    for index, hole in enumerate(found.plan.holes if found.plan else ()):
        centre = at(hole.angle_deg, scale * hole.radius_mm)
        made, drawn = index < len(found.made), max(4.0, scale * hole.diameter_mm / 2)
        sheet.circle(centre, drawn, "bolt" if made else "bolt likely")
        if index != len(found.made):
            continue
        sheet.circle(centre, drawn + 9, "place")
        if canvas.is_wide:
            x, y = at(hole.angle_deg, scale * hole.radius_mm - 42)
            text = format_message(messages.ON_DRAWING["hole"], {"drill": trade(hole.diameter_mm), "depth": bare(mm(hole.depth_mm, 0.1))})
            sheet.text((x, y - 12), text, "halo strong hot", "middle")
    if found.rest and found.made:
        sheet.arrow(at(found.rest.deg, 90), at(0, 0), "hot bold", 12)
