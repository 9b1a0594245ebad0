"""Drawing of the flywheel on its taper in section with contact, key and nut, and the enlarged key angle seen from the end."""

from __future__ import annotations

import math

from shopmath.amounts import newton_metres, share
from stator.engines.properties import Property
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.install_flywheel import messages
from stator.stations.install_flywheel.analysis import FlywheelInstallationAnalysis, at, shift_shown
from stator.ui.number_format import figure, plain, show

AXIS_PX = 222.0


def draw(found: FlywheelInstallationAnalysis, canvas: Canvas) -> None:
    _section(found, canvas)
    _end(found, canvas)


def _section(found: FlywheelInstallationAnalysis, canvas: Canvas) -> None:
    """Draw the shaft from the left, taper and nut, with the hub of the flywheel around it and its rim above and below."""
    sheet, unit, axis = canvas.sheet, canvas.width / 760, AXIS_PX
    left, large, small, end = 70 * unit, 250 * unit, 470 * unit, 590 * unit
    high, low = (52.0, 34.0) if found.is_on_taper else (44.0, 44.0)
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
    _contact(found, canvas, (large, small), (high, low))
    _spots(canvas, large, small, unit)
    ratio = format_message(messages.ON_DRAWING["ratio"], {"ratio": plain(found.card.taper_ratio)}) if found.card.taper_ratio else ""
    text = (ratio or str(messages.ON_DRAWING["taper_unknown"])) if found.is_on_taper else str(messages.ON_DRAWING["straight"])
    canvas.labels.at([((left, axis + 84), "start")], text, "quiet", rank=2)
    if found.nut_torque_nm:
        torque = show(newton_metres(found.nut_torque_nm))
        canvas.labels.at([((548 * unit, axis - 66), "start"), ((540 * unit, axis - 84), "middle")], torque, "reading-label ink", rank=1)


def _contact(found: FlywheelInstallationAnalysis, canvas: Canvas, x: tuple[float, float], radius: tuple[float, float]) -> None:
    """Draw the fraction of the taper with contact, from the end that has it."""
    carries = found.share
    if not found.is_on_taper or not carries:
        return
    large, small = x
    reach = (small - large) * min(1.0, carries)
    start = large if found.said(Property.CONTACT_AT_LARGE_END) != "no" else small - reach
    slope = (radius[0] - radius[1]) / (small - large)
    for up in (-1, 1):
        ends = [(at_x, AXIS_PX + up * (radius[0] - slope * (at_x - large))) for at_x in (start, start + reach)]
        canvas.sheet.line(ends[0], ends[1], "needle")
    text = format_message(messages.ON_DRAWING["carries"], {"share": share(carries)})
    canvas.labels.at([(((large + small) / 2, AXIS_PX - 104), "middle")], text, "halo strong ink", rank=1)


def _spots(canvas: Canvas, large: float, small: float, unit: float) -> None:
    """Draw the place of the present question."""
    spots = {
        at(Property.CONTACT_SHARE): ((large + small) / 2, AXIS_PX - 44),
        at(Property.NUT_TORQUE): (507 * unit, AXIS_PX),
        at(Property.RIM_RUNOUT): (large - 30 * unit, AXIS_PX - 186),
        at(Property.AIR_GAP): (233 * unit, AXIS_PX - 128),
    }
    if canvas.asked in spots:
        canvas.sheet.circle(spots[canvas.asked], 22, "place")


def _end(found: FlywheelInstallationAnalysis, canvas: Canvas) -> None:
    """The key as seen from the end, its step and the angle it makes, drawn larger than it is."""
    sheet, shift = canvas.sheet, found.shift_deg
    if shift is None:
        canvas.labels.at([((canvas.width / 2, 520), "middle")], str(messages.ON_DRAWING["contact"]), "quiet", rank=1)
        return
    centre, radius = (canvas.width * 0.3, 484.0), 54.0
    sheet.circle(centre, radius, "outline")
    factor = min(8.0, 40.0 / max(abs(shift), 0.1))
    for turned, cls in ((0.0, "outline nominal"), (factor * shift, "ink bold")):
        turn = math.radians(90 + turned)
        sheet.line(centre, (centre[0] + (radius + 20) * math.cos(turn), centre[1] - (radius + 20) * math.sin(turn)), cls)
    canvas.labels.at([((canvas.width * 0.44, 478), "start")], show(shift_shown(shift)), "big ink", rank=1)
    canvas.labels.at(
        [((canvas.width * 0.44, 504), "start")], format_message(messages.ON_DRAWING["step"], {"times": figure(factor, 0)}), "quiet", rank=2
    )
