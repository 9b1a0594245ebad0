"""The seal in section in its seat with lip and spring, what it keeps and from where, and its depth round the clock."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from shopmath.seals import CLOCKS
from ui.svg import Sheet, bar, on_papers

if TYPE_CHECKING:
    from stations.seals.station import Seals

PX = 9.0  # a mm of depth as drawn


def draw(work: Seals) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: Seals, name: str, width: float) -> SafeString:
    plate, seal = work.call, work.in_hand
    sheet = Sheet(width, 560, f"{seal.name} in its seat", f"{plate.words}. {plate.line} {plate.move}", name)
    wide = width > 500
    _section(sheet, work, 250.0 if wide else 150.0, 1.0 if wide else 0.66)
    _clock(sheet, work, (width - 170.0 if wide else width - 86.0, 220.0), 92.0 if wide else 52.0)
    return sheet.render()


def _section(sheet: Sheet, work: Seals, x: float, unit: float) -> None:
    """Outside on the left, inside on the right; case above, shaft below."""
    seal = work.in_hand
    face, back, bore, shaft = x - 70 * unit, x + 150 * unit, 150.0, 300.0
    sheet.hatched(bar(face, back, 70, bore), "plain", 10)
    sheet.rect(face - 60 * unit, shaft, back - face + 60 * unit, 60, "cut")
    sheet.line((face - 80 * unit, 330), (back + 20 * unit, 330), "chain")
    seat = work.seating(seal)
    depth = seat.depth_mm if seat else seal.depth_mm
    left = face + depth * PX * unit
    wide = max(seal.width_mm, 4) * PX * unit
    way = work.said(f"{seal.pk}-way") or work.rule(seal) or seal.lip
    sheet.shape([(left, bore), (left + wide, bore), (left + wide, bore + 22), (left, bore + 22)], "cut paper")
    inward = way != "outside"
    wall = left if inward else left + wide  # the disc stands on the side away from the spring
    sign = 1 if inward else -1
    sheet.shape([(wall, bore + 22), (wall + sign * 12, bore + 22), (wall + sign * 12, shaft - 46), (wall, shaft - 46)], "cut paper")
    lip = [(wall, shaft - 46), (wall + sign * 12, shaft - 46), (wall + sign * wide * 0.9, shaft - 2), (wall + sign * wide * 0.62, shaft)]
    sheet.shape(lip, "lip")
    if way:
        sheet.circle((wall + sign * wide * 0.86, shaft - 22), 7, "ink solid")
        sheet.text((wall + sign * wide * 0.86, shaft - 36), "spring", "halo quiet", "middle")
    sheet.text((face - 66 * unit, 120), "outside", "quiet")
    sheet.text((back + 6 * unit, 120), "inside", "quiet", "end" if unit < 0.8 else "start")
    kept = work.said(f"{seal.pk}-kept")
    if kept:
        words = {"oil": "oil", "pressure": "pressure", "dirt": "dirt, water"}[kept]
        tip, tail = (left + wide + 8, back + 34 * unit) if kept != "dirt" else (left - 8, face - 60 * unit)
        sheet.arrow((tip, 226), (tail, 226), "hot bold", 12)
        sheet.text(((tip + tail) / 2, 216), words, "halo hot strong", "middle")
    behind = work.value(f"{seal.pk}-behind")
    if behind is not None:
        ring = face + behind * PX * unit
        sheet.shape(bar(ring, ring + 60 * unit, bore, shaft), "cut paper")
        sheet.circle((ring + 30 * unit, (bore + shaft) / 2), 26 * unit, "ball")
    said = f"{seat.depth_mm:.2f} deep" if seat else f"{seal.depth_mm:g} deep wanted" if seal.depth_mm else "flush wanted"
    sheet.text((x, 420), f"{seal.shaft_mm:g} × {seal.bore_mm:g} × {seal.width_mm:g}", "reading-label", "middle")
    sheet.text((x, 446), said, "reading-label ink" if seat else "quiet", "middle")
    if seat and seat.gap_mm is not None:
        sheet.text((x, 472), f"{seat.gap_mm:.2f} to the bearing", "reading-label ink", "middle")


def _clock(sheet: Sheet, work: Seals, centre: tuple[float, float], radius: float) -> None:
    """Depth at four places, from the face."""
    seal = work.in_hand
    sheet.circle(centre, radius, "outline")
    sheet.circle(centre, radius * seal.shaft_mm / seal.bore_mm, "bore")
    for index, clock in enumerate(CLOCKS):
        turn = math.radians(90 * index)
        at = (centre[0] + (radius + 30) * math.sin(turn), centre[1] - (radius + 24) * math.cos(turn) + 5)
        value = work.value(f"{seal.pk}-d{clock}")
        with sheet.link(f"{work.address}?ask={seal.pk}-d{clock}", f"Reading: depth at {clock} o'clock"):
            if work.next_ask and work.next_ask.key == f"{seal.pk}-d{clock}":
                sheet.circle((at[0], at[1] - 5), 22, "place")
            sheet.text(at, f"{value:.2f}" if value is not None else clock, "reading-label ink" if value is not None else "quiet", "middle")
    sheet.text((centre[0], centre[1] + radius + 66), "seen from outside", "quiet", "middle")
