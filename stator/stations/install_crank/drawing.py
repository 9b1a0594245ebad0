"""Drawing of the bearing in its half, the crank, the tool and bars, with scales of the remaining turns and the torque limit."""

from __future__ import annotations

from shopmath.amounts import DOWN, count, mm, newton_metres, rough
from stator.engines.properties import Property
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.install_crank import messages
from stator.stations.install_crank.analysis import PULL, CrankInstallationAnalysis
from stator.ui.number_format import bare
from stator.ui.svg import Sheet, bar

WAY_PX = 120.0  # the whole travel as drawn
AXIS = 176.0


def draw(found: CrankInstallationAnalysis, canvas: Canvas) -> None:
    sheet, width, unit = canvas.sheet, canvas.width, canvas.width / 760
    ring = 300.0 * unit  # face of the inner ring that the shoulder comes to
    off = WAY_PX * unit * (1 - found.share_done)
    _case(sheet, ring, unit)
    _crank(sheet, ring + off, unit)
    if found.way == PULL:
        _tool(sheet, ring, ring + off - 250 * unit, unit)
    sheet.line((20 * unit, AXIS), (width - 20 * unit, AXIS), "chain")
    if found.way == PULL and off > 2:
        travel = found.value(Property.TRAVEL)
        text = bare(mm(travel * (1 - found.share_done), 1.0)) if travel else str(messages.ON_DRAWING["travel"])
        sheet.dimension((ring, AXIS + 150), (ring + off, AXIS + 150), text)
    for number, x in enumerate((ring + 24 * unit, width - 120 * unit)):
        if found.gaps:
            code = "gap_right" if number else "gap_left"
            text = format_message(messages.ON_DRAWING[code], {"gap": bare(mm(found.gaps[number].value or 0.0, 0.01))})
            sheet.text((x, AXIS - 130), text, "halo reading-label ink", "middle")
    for number, each in enumerate(found.ends):
        _turns(each, canvas, 400.0 if len(found.ends) == 1 else 366.0 + 56.0 * number)
    _torque(found, canvas)


def _case(sheet: Sheet, ring: float, unit: float) -> None:
    for up in (-1, 1):
        top, bottom = sorted((AXIS + up * 74, AXIS + up * 116))
        sheet.hatched(bar(ring - 60 * unit, ring + 26 * unit, top, bottom), "plain", 10, rising=up > 0)
        y = AXIS - 74 if up < 0 else AXIS + 26
        sheet.shape(bar(ring - 44 * unit, ring, y, y + 48), "cut paper")
        sheet.circle((ring - 22 * unit, y + 24), 13, "ball")


def _crank(sheet: Sheet, at: float, unit: float) -> None:
    sheet.shape(bar(at - 250 * unit, at, AXIS - 22, AXIS + 22), "cut paper")
    sheet.hatched(bar(at, at + 30 * unit, AXIS - 60, AXIS + 98), "plain", 9)
    sheet.hatched(bar(at + 30 * unit, at + 130 * unit, AXIS - 44, AXIS - 14), "cold", 7)
    sheet.hatched(bar(at + 130 * unit, at + 160 * unit, AXIS - 60, AXIS + 98), "plain", 9)
    sheet.shape(bar(at + 160 * unit, at + 270 * unit, AXIS - 22, AXIS + 22), "cut paper")


def _tool(sheet: Sheet, ring: float, end: float, unit: float) -> None:
    """Bars on the case's wall, the bridge over them, the nut that turns, the screw in the crank's end."""
    sheet.rect(ring - 262 * unit, AXIS - 9, end - ring + 292 * unit, 18, "cut")
    for up in (-1, 1):
        top, bottom = sorted((AXIS + up * 84, AXIS + up * 106))
        sheet.hatched(bar(ring - 190 * unit, ring - 60 * unit, top, bottom), "brass", 8)
    sheet.hatched(bar(ring - 214 * unit, ring - 190 * unit, AXIS - 112, AXIS + 112), "brass", 8, rising=False)
    sheet.rect(ring - 246 * unit, AXIS - 34, 32 * unit, 68, "cut")
    sheet.text((ring - 230 * unit, AXIS - 122), str(messages.ON_DRAWING["nut"]), "quiet", "start" if unit < 0.8 else "middle")


def _turns(found: CrankInstallationAnalysis, canvas: Canvas, y: float) -> None:
    """Draw the turns done and needed at one end."""
    left, right, needed = canvas.width * 0.16, canvas.width * 0.84, found.wanted_turns
    if not needed:
        return
    done = min(found.done_turns, needed)
    canvas.sheet.line((left, y), (right, y), "axis thin")
    canvas.sheet.rect(left, y - 9, (right - left) * done / needed, 18, "ink solid")
    values = {"done": count(done), "wanted": count(needed, 0.1), "left": count(max(needed - done, 0.0), 0.1)}
    text = format_message(messages.ON_DRAWING["turns_at"], {**values, "side": found.card.side(found.end)}) if found.end else ""
    canvas.sheet.text((left, y - 18), text or format_message(messages.ON_DRAWING["turns"], values), "strong")


def _torque(found: CrankInstallationAnalysis, canvas: Canvas) -> None:
    """The last torque against where to stop."""
    sheet, left, right, y = canvas.sheet, canvas.width * 0.16, canvas.width * 0.84, 484.0
    if not found.torque:
        return
    stop = found.torque.stop_nm
    highest = stop * 1.3

    def x(nm: float) -> float:
        return left + (right - left) * min(nm, highest) / highest

    sheet.line((left, y), (right, y), "axis thin")
    sheet.rect(x(found.torque.expected.low), y - 9, x(stop) - x(found.torque.expected.low), 18, "band")
    sheet.line((x(stop), y - 22), (x(stop), y + 14), "hot bold")
    sheet.text(
        (x(stop), y - 28), format_message(messages.ON_DRAWING["stop"], {"torque": rough(newton_metres(stop), DOWN)}), "hot strong", "middle"
    )
    felt = found.every(Property.SCREW_TORQUE)
    if felt:
        sheet.circle((x(felt[-1]), y), 8, "ink solid")
        sheet.text((x(felt[-1]), y + 30), bare(newton_metres(felt[-1])), "reading-label ink", "middle")
