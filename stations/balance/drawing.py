"""The wheel on its face: where it stopped, where it is heavy and how sure that is, what must not be touched, the holes to be drilled."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from ui.svg import Point, Sheet, on_papers

if TYPE_CHECKING:
    from stations.balance.station import Balance

Place = Callable[[float, float], Point]
RIM_MM = 95.0  # taken to draw while the rim is not measured


def draw(work: Balance) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: Balance, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, 580, "The wheel on its face, as seen when mounted", f"{plate.words}. {plate.line} {plate.move}", name)
    wide = width > 500
    centre, radius = (width / 2, 286.0), 206.0 if wide else 158.0
    scale = radius / ((work.every("rim") or 2 * RIM_MM) / 2)

    def at(degrees: float, reach: float) -> Point:
        turn = math.radians(degrees)
        return centre[0] + reach * math.cos(turn), centre[1] - reach * math.sin(turn)

    _arcs(sheet, work, at, radius)
    if work.stops and work.stops.resultant > 0:
        _heavy(sheet, work, at, radius)
    sheet.add("circle", cx=centre[0], cy=centre[1], r=radius, class_="outline dial", data_dial="1")
    sheet.circle(centre, radius * 0.72, "thin-ring")
    sheet.circle(centre, radius * 0.2, "bore")
    sheet.rect(centre[0] + radius * 0.2 - 3, centre[1] - 6, 11, 12, "cut plain solid")
    for degrees in range(0, 360, 10):
        long = 12 if degrees % 30 == 0 else 6
        sheet.line(at(degrees, radius), at(degrees, radius + long), "axis thin")
        if degrees % 30 == 0:
            x, y = at(degrees, radius + 28)
            sheet.text((x, y + 5), f"{degrees}°", "tick", "middle")
    for index, mark in enumerate(work.marks):
        sheet.line(at(mark, radius - 22), at(mark, radius - 2), "ink bold")
        if wide and work.phase == "roll":
            x, y = at(mark, radius - 34 - 13 * (index % 2))
            sheet.text((x, y + 4), str(index + 1), "quiet ink", "middle")
    _holes(sheet, work, at, scale, wide)
    words = "tap the rim, or type the angle" if work.phase == "roll" else "degrees counter-clockwise from the keyway, seen when mounted"
    sheet.text((width / 2, 566), words, "quiet", "middle")
    return sheet.render()


def _arcs(sheet: Sheet, work: Balance, at: Place, radius: float) -> None:
    """Magnets, rivets, vanes: hatched out of the rim."""
    if work.limits is None:
        return
    for start, end in work.limits.keep_out_deg:
        span = (end - start) % 360
        steps = [start + span * index / 12 for index in range(13)]
        outer, inner = [at(deg, radius) for deg in steps], [at(deg, radius * 0.72) for deg in reversed(steps)]
        sheet.hatched([*outer, *inner], "brass", 6)


def _heavy(sheet: Sheet, work: Balance, at: Place, radius: float) -> None:
    """The mean of the marks with its doubt as a wedge; thin while it tells nothing."""
    found = work.stops
    assert found is not None
    if found.telling:
        half = min(found.unsure_deg, 90.0)
        rim = [at(found.mean_deg - half + 2 * half * index / 16, radius - 2) for index in range(17)]
        sheet.shape([at(0, 0), *rim], "window")
    reach = radius * (0.5 if found.telling else 0.66 * found.resultant)
    sheet.arrow(at(found.mean_deg, reach), at(0, 0), "ink bold" if found.telling else "ink", 14)
    if found.telling:
        x, y = at(found.mean_deg, radius * 0.34)
        sheet.text((x, y - 8), f"{found.mean_deg:.0f}°", "halo reading-label ink", "middle")


def _holes(sheet: Sheet, work: Balance, at: Place, scale: float, wide: bool) -> None:
    for old, _ in work.earlier:
        sheet.circle(at(old.angle_deg, scale * old.radius_mm), max(4.0, scale * old.diameter_mm / 2), "bolt taken")
    for index, hole in enumerate(work.plan.holes if work.plan else ()):
        centre = at(hole.angle_deg, scale * hole.radius_mm)
        made = index < len(work.made)
        sheet.circle(centre, max(4.0, scale * hole.diameter_mm / 2), "bolt" if made else "bolt likely")
        if not made and index == len(work.made):
            sheet.circle(centre, max(4.0, scale * hole.diameter_mm / 2) + 9, "place")
        if wide and index == len(work.made):
            x, y = at(hole.angle_deg, scale * hole.radius_mm - 42)
            sheet.text((x, y - 12), f"{hole.diameter_mm:g} × {hole.depth_mm:.1f}", "halo strong hot", "middle")
    if work.rest and work.made:
        sheet.arrow(at(work.rest.deg, 90), at(0, 0), "hot bold", 12)
