"""Drawing of the seal in section in its seat with lip and spring, what it retains, and its depth around the clock."""

from __future__ import annotations

import math

from shopmath.amounts import mm
from shopmath.seals import CLOCKS
from stator.engines.properties import Property
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.install_seals import messages
from stator.stations.install_seals.analysis import SealAnalysis, SealFound, depth_of
from stator.ui.number_format import bare, trade
from stator.ui.svg import Point, bar

PX = 9.0  # a mm of depth as drawn
BORE, SHAFT = 150.0, 300.0  # where both are drawn, px


def draw(found: SealAnalysis, canvas: Canvas) -> None:
    of, wide = found.in_hand, canvas.is_wide
    _section(of, canvas, 250.0 if wide else 150.0, 1.0 if wide else 0.66)
    _clock(of, canvas, (canvas.width - 170.0 if wide else canvas.width - 86.0, 220.0), 92.0 if wide else 52.0)


def _section(of: SealFound, canvas: Canvas, x: float, unit: float) -> None:
    """Outside on the left, inside on the right; case above, shaft below."""
    sheet, seal, seat = canvas.sheet, of.seal, of.seating
    face, back = x - 70 * unit, x + 150 * unit
    sheet.hatched(bar(face, back, 70, BORE), "plain", 10)
    sheet.rect(face - 60 * unit, SHAFT, back - face + 60 * unit, 60, "cut")
    sheet.line((face - 80 * unit, 330), (back + 20 * unit, 330), "chain")
    left = face + (seat.depth_mm if seat else seal.depth_mm) * PX * unit
    thick = max(seal.width_mm, 4) * PX * unit
    _lip(of, canvas, left, thick)
    sheet.text((face - 66 * unit, 120), str(messages.ON_DRAWING["outside"]), "quiet")
    sheet.text((back + 6 * unit, 120), str(messages.ON_DRAWING["inside"]), "quiet", "end" if unit < 0.8 else "start")
    saved = of.said(Property.SEAL_KEEPS)
    if saved:
        tip, tail = (left + thick + 8, back + 34 * unit) if saved != "dirt" else (left - 8, face - 60 * unit)
        sheet.arrow((tip, 226), (tail, 226), "hot bold", 12)
        sheet.text(((tip + tail) / 2, 216), str(messages.ON_DRAWING[saved]), "halo hot strong", "middle")
    behind = of.own.value(of.at(Property.BEARING_FACE_DEPTH))
    if behind is not None:
        ring = face + behind * PX * unit
        sheet.shape(bar(ring, ring + 60 * unit, BORE, SHAFT), "cut paper")
        sheet.circle((ring + 30 * unit, (BORE + SHAFT) / 2), 26 * unit, "ball")
    _sizes(of, canvas, x)


def _lip(of: SealFound, canvas: Canvas, left: float, thick: float) -> None:
    """Draw rim, disc and lip; the spring is on the side of what it retains."""
    sheet, right = canvas.sheet, left + thick
    way = of.lip or of.lip_by_rule or of.seal.lip
    sheet.shape([(left, BORE), (right, BORE), (right, BORE + 22), (left, BORE + 22)], "cut paper")
    inward = way != "outside"
    wall = left if inward else right  # the disc stands on the side away from the spring
    sign = 1 if inward else -1
    sheet.shape([(wall, BORE + 22), (wall + sign * 12, BORE + 22), (wall + sign * 12, SHAFT - 46), (wall, SHAFT - 46)], "cut paper")
    tip = [(wall + sign * thick * 0.9, SHAFT - 2), (wall + sign * thick * 0.62, SHAFT)]
    sheet.shape([(wall, SHAFT - 46), (wall + sign * 12, SHAFT - 46), *tip], "lip")
    if way:
        spring = wall + sign * thick * 0.86
        sheet.circle((spring, SHAFT - 22), 7, "ink solid")
        sheet.text((spring, SHAFT - 36), str(messages.ON_DRAWING["spring"]), "halo quiet", "middle")


def _sizes(of: SealFound, canvas: Canvas, x: float) -> None:
    sheet, seal, seat = canvas.sheet, of.seal, of.seating
    sheet.text((x, 420), trade(of.shaft_mm, of.bore_mm, seal.width_mm), "reading-label", "middle")
    code = "deep" if seat else "wanted" if seal.depth_mm else "flush"
    text = format_message(messages.ON_DRAWING[code], {"depth": bare(mm(seat.depth_mm if seat else seal.depth_mm, 0.01))})
    sheet.text((x, 446), text, "reading-label ink" if seat else "quiet", "middle")
    if seat and seat.gap_mm is not None:
        gap = format_message(messages.ON_DRAWING["gap"], {"gap": bare(mm(seat.gap_mm, 0.01))})
        sheet.text((x, 472), gap, "reading-label ink", "middle")


def _clock(of: SealFound, canvas: Canvas, centre: Point, radius: float) -> None:
    """Depth at four places, from the face."""
    sheet, seal = canvas.sheet, of.seal
    sheet.circle(centre, radius, "outline")
    sheet.circle(centre, radius * of.shaft_mm / of.bore_mm, "bore")
    for index, clock in enumerate(CLOCKS):
        turn = math.radians(90 * index)
        at = (centre[0] + (radius + 30) * math.sin(turn), centre[1] - (radius + 24) * math.cos(turn) + 5)
        fact_key = depth_of(seal, clock)
        value = of.own.value(fact_key)
        with canvas.question(fact_key):
            if canvas.asked == fact_key:
                sheet.circle((at[0], at[1] - 5), 22, "place")
            said, cls = (clock, "quiet") if value is None else (bare(mm(value, 0.01)), "reading-label ink")
            sheet.text(at, said, cls, "middle")
    sheet.text((centre[0], centre[1] + radius + 66), str(messages.ON_DRAWING["seen"]), "quiet", "middle")
