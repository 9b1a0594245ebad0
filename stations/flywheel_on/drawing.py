"""The wheel on its cone in section: contact in blue along the cone, key, nut; the angle the key shifts, drawn large, seen from the end."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from ui.svg import Sheet, on_papers

if TYPE_CHECKING:
    from stations.flywheel_on.station import FlywheelOn


def draw(work: FlywheelOn) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: FlywheelOn, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, 580, "The flywheel on its taper", f"{plate.words}. {plate.line} {plate.move}", name)
    unit, axis = width / 760, 230.0
    _section(sheet, work, unit, axis)
    _end(sheet, work, width)
    return sheet.render()


def _section(sheet: Sheet, work: FlywheelOn, unit: float, axis: float) -> None:
    """Shaft from the left, cone, nut; the wheel's boss round it and its rim above and below."""
    left, large, small, end = 70 * unit, 250 * unit, 470 * unit, 590 * unit
    high, low = (52.0, 34.0) if work.on_taper else (44.0, 44.0)
    for up in (-1, 1):
        boss = [(large, axis + up * high), (small, axis + up * low), (small, axis + up * 92), (large, axis + up * 92)]
        sheet.hatched(boss, "plain", 9, rising=up > 0)
        web = [(large + 20 * unit, axis + up * 92), (small - 110 * unit, axis + up * 92)]
        rim = [(small - 110 * unit, axis + up * 186), (large - 60 * unit, axis + up * 186), (large - 60 * unit, axis + up * 150)]
        sheet.hatched([*web, *rim, (large + 20 * unit, axis + up * 150)], "plain", 9, rising=up > 0)
        sheet.hatched([(x * unit, axis + up * y) for x, y in ((196, 150), (270, 150), (270, 134), (196, 134))], "brass", 5)
    shaft = [(left, axis - 56), (large, axis - high), (small, axis - low), (small, axis - 24), (end, axis - 24)]
    sheet.shape([*shaft, *((x, 2 * axis - y) for x, y in reversed(shaft))], "cut paper")
    sheet.line((left - 20, axis), (end + 30, axis), "chain")
    for up in (-1, 1):
        sheet.hatched([(x * unit, axis + up * y) for x, y in ((474, 24), (540, 24), (540, 58), (474, 58))], "plain", 6)
    share = (work.mean("blue") or 0.0) / 100
    if work.on_taper and share:
        reach = (small - large) * min(1.0, share)
        start = large if work.said("large") != "no" else small - reach
        for up in (-1, 1):
            a, b = start, start + reach
            slope = (high - low) / (small - large)
            sheet.line((a, axis + up * (high - slope * (a - large))), (b, axis + up * (high - slope * (b - large))), "needle")
        sheet.text(((large + small) / 2, axis - 104), f"{share:.0%} carries", "halo strong ink", "middle")
    asked = work.next_ask.key if work.next_ask else ""
    spots = {
        "blue": ((large + small) / 2, axis - 44),
        "torque": (507 * unit, axis),
        "runout": (large - 30 * unit, axis - 186),
        "gap": (233 * unit, axis - 128),
    }
    if asked in spots:
        sheet.circle(spots[asked], 22, "place")
    ratio = f"1:{work.job.card.taper_ratio:g}" if work.job.card.taper_ratio else "taper unknown"
    sheet.text((left, axis + 84), ratio if work.on_taper else "straight", "quiet")
    if work.torque_nm:
        sheet.text((548 * unit, axis - 66), f"{work.torque_nm:g} N·m", "reading-label ink")


def _end(sheet: Sheet, work: FlywheelOn, width: float) -> None:
    """The key as seen from the end, its step and the angle it makes, drawn larger than it is."""
    if work.shift_deg is None:
        sheet.text((width / 2, 520), "contact in ink along the cone; the key only places the wheel", "quiet", "middle")
        return
    centre, radius = (width * 0.3, 494.0), 56.0
    sheet.circle(centre, radius, "outline")
    factor = min(8.0, 40.0 / max(abs(work.shift_deg), 0.1))
    for degrees, cls in ((0.0, "outline nominal"), (factor * work.shift_deg, "ink bold")):
        turn = math.radians(90 + degrees)
        sheet.line(centre, (centre[0] + (radius + 22) * math.cos(turn), centre[1] - (radius + 22) * math.sin(turn)), cls)
    sheet.text((width * 0.44, 486), f"{work.shift_deg:+.1f}°", "big ink")
    sheet.text((width * 0.44, 510), f"by the key's step; drawn ×{factor:.0f}", "quiet")
