"""Bearing in its half, crank on its way in, tool and bars; the turns to go as a rule, the torque with its stop."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from ui.svg import Sheet, bar, on_papers

if TYPE_CHECKING:
    from stations.crank_in.station import CrankIn

WAY_PX = 120.0  # the whole travel as drawn


def draw(work: CrankIn) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: CrankIn, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, 560, "The crank going into its bearing", f"{plate.words}. {plate.line} {plate.move}", name)
    unit, axis = width / 760, 176.0
    ring = 300.0 * unit  # face of the inner ring that the shoulder comes to
    wanted = work.wanted_turns
    done = 1.0 if work.home or work.sides else min(work.done_turns / wanted, 1.0) if wanted else 0.0
    off = WAY_PX * unit * (1 - done)
    _case(sheet, ring, axis, unit)
    _crank(sheet, ring + off, axis, unit)
    if work.school == "pull":
        _tool(sheet, ring, ring + off - 250 * unit, axis, unit)
    sheet.line((20 * unit, axis), (width - 20 * unit, axis), "chain")
    if work.school == "pull" and off > 2:
        travel = work.value("travel")
        sheet.dimension((ring, axis + 150), (ring + off, axis + 150), f"{travel * (1 - done):.0f}" if travel else "travel")
    for side, x in (("left", ring + 24 * unit), ("right", width - 120 * unit)):
        gap = work.mean(f"gap-{side}")
        if gap is not None:
            sheet.text((x, axis - 116), f"{side} gap {gap:.2f}", "halo reading-label ink", "middle")
    _rules(sheet, work, width)
    return sheet.render()


def _case(sheet: Sheet, ring: float, axis: float, unit: float) -> None:
    for up in (-1, 1):
        near, far = axis + up * 74, axis + up * 116
        top, bottom = sorted((near, far))
        sheet.hatched(bar(ring - 60 * unit, ring + 26 * unit, top, bottom), "plain", 10, rising=up > 0)
        y = axis - 74 if up < 0 else axis + 26
        sheet.shape(bar(ring - 44 * unit, ring, y, y + 48), "cut paper")
        sheet.circle((ring - 22 * unit, y + 24), 13, "ball")


def _crank(sheet: Sheet, at: float, axis: float, unit: float) -> None:
    sheet.shape(bar(at - 250 * unit, at, axis - 22, axis + 22), "cut paper")
    sheet.hatched(bar(at, at + 30 * unit, axis - 60, axis + 98), "plain", 9)
    sheet.hatched(bar(at + 30 * unit, at + 130 * unit, axis - 44, axis - 14), "cold", 7)
    sheet.hatched(bar(at + 130 * unit, at + 160 * unit, axis - 60, axis + 98), "plain", 9)
    sheet.shape(bar(at + 160 * unit, at + 270 * unit, axis - 22, axis + 22), "cut paper")


def _tool(sheet: Sheet, ring: float, end: float, axis: float, unit: float) -> None:
    """Bars on the case's wall, the bridge over them, the nut that turns, the screw in the crank's end."""
    sheet.rect(ring - 262 * unit, axis - 9, end - ring + 292 * unit, 18, "cut")
    for up in (-1, 1):
        top, bottom = sorted((axis + up * 84, axis + up * 106))
        sheet.hatched(bar(ring - 190 * unit, ring - 60 * unit, top, bottom), "brass", 8)
    sheet.hatched(bar(ring - 214 * unit, ring - 190 * unit, axis - 112, axis + 112), "brass", 8, rising=False)
    sheet.rect(ring - 246 * unit, axis - 34, 32 * unit, 68, "cut")
    sheet.text((ring - 230 * unit, axis - 122), "nut: this turns", "quiet", "start" if unit < 0.8 else "middle")


def _rules(sheet: Sheet, work: CrankIn, width: float) -> None:
    """Turns done of those wanted, and the last torque against where to stop."""
    left, right = width * 0.16, width * 0.84
    wanted = work.wanted_turns
    if wanted:
        y = 400.0
        sheet.line((left, y), (right, y), "axis thin")
        done = min(work.done_turns, wanted)
        sheet.rect(left, y - 9, (right - left) * done / wanted, 18, "ink solid")
        sheet.text((left, y - 18), f"{done:g} of {wanted:.1f} turns, {max(wanted - done, 0):.1f} to go", "strong")
    if work.torque:
        y, most = 484.0, work.torque.stop_nm * 1.3

        def x(nm: float) -> float:
            return left + (right - left) * min(nm, most) / most

        sheet.line((left, y), (right, y), "axis thin")
        sheet.rect(x(work.torque.expected.low), y - 9, x(work.torque.stop_nm) - x(work.torque.expected.low), 18, "band")
        sheet.line((x(work.torque.stop_nm), y - 22), (x(work.torque.stop_nm), y + 14), "hot bold")
        sheet.text((x(work.torque.stop_nm), y - 28), f"stop {work.torque.stop_nm:.0f} N·m", "hot strong", "middle")
        felt = work.values("torque")
        if felt:
            sheet.circle((x(felt[-1]), y), 8, "ink solid")
            sheet.text((x(felt[-1]), y + 30), f"{felt[-1]:.0f}", "reading-label ink", "middle")
