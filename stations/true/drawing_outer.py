"""A crank of several throws on its centre bearings: the outer shafts as they lean, each end with its pin and the way its web goes."""

from __future__ import annotations

import cmath
import math
from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from stations.true.drawing import end_view, ends, on_circle, swing_label
from ui.svg import Sheet, on_papers

if TYPE_CHECKING:
    from stations.true.outer import OuterTruing

LEAN_PX = 30.0


def draw(work: OuterTruing) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: OuterTruing, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, 560, "The crank on its centre bearings", f"{plate.words}. {plate.line} {plate.move}", name)
    _side(sheet, work, width)
    for side, key, centre, radius in ends(width):
        pin = 0.0 if key == "l" else (work.phase_deg or 0.0)
        end_view(sheet, work, centre, radius, side, key, pin)
        if work.worst and work.worst[0] == side and work.worst[1].turn.direction:
            _turn(sheet, centre, radius, pin, work.worst[1].turn.direction)
    sheet.text((width / 2, 554), "both seen from the right end, left outer pin up; counter-clockwise", "quiet", "middle")
    return sheet.render()


def _turn(sheet: Sheet, centre: tuple[float, float], radius: float, pin: float, direction: str) -> None:
    """An arc at the rim opposite the pin, the way the web goes."""
    sign = 1 if direction == "counter-clockwise" else -1
    points = [on_circle(centre, radius + 18, pin + 180 + sign * step) for step in range(-24, 21, 4)]
    sheet.trace(points, "hot bold")
    sheet.arrow(on_circle(centre, radius + 18, pin + 180 + sign * 26), points[-1], "hot bold", 11)


def _side(sheet: Sheet, work: OuterTruing, width: float) -> None:
    """Two throws between four webs; the middle lies on its supports, the outer shafts lean as measured, drawn large."""
    middle, edge = 160.0, 40.0 if width > 500 else 16.0
    span = width - 2 * edge
    phase = work.phase_deg if work.phase_deg is not None else 180.0

    def x(part: float) -> float:
        return edge + span * part

    leans: dict[str, complex] = {}
    for side, key in (("left", "l"), ("right", "r")):
        swing = work.swing(key)
        leans[side] = swing.vector if swing else 0j
    across = sum(value.imag**2 for value in leans.values()) > sum(value.real**2 for value in leans.values())
    seen = {side: (value.imag if across else value.real) for side, value in leans.items()}
    largest = max(abs(value) for value in seen.values())
    factor = LEAN_PX / largest if largest else 0.0
    sheet.shape([(x(0.40), middle - 11), (x(0.60), middle - 11), (x(0.60), middle + 11), (x(0.40), middle + 11)], "cut paper")
    for at in (0.44, 0.56):
        sheet.shape([(x(at), middle + 14), (x(at) + 12, middle + 38), (x(at) - 12, middle + 38)], "cut paper")
    for side, far, near, webs, turned in (("left", 0.0, 0.21, (0.21, 0.37), 0.0), ("right", 1.0, 0.79, (0.60, 0.76), phase)):
        off = -factor * seen[side]
        sheet.shape([(x(far), middle + off - 9), (x(near), middle - 9), (x(near), middle + 9), (x(far), middle + off + 9)], "cut paper")
        up = cmath.rect(52.0, math.radians(turned)).imag if across else cmath.rect(52.0, math.radians(turned)).real
        for web in webs:
            low, high = middle - max(up, 0) - 30, middle + max(-up, 0) + 46
            sheet.hatched([(x(web), low), (x(web) + 18, low), (x(web) + 18, high), (x(web), high)], "plain", 8)
        first, last = x(webs[0]) + 18, x(webs[1])
        sheet.hatched([(first, middle - up - 10), (last, middle - up - 10), (last, middle - up + 10), (first, middle - up + 10)], "cold", 7)
        gauge = x(0.08 if side == "left" else 0.92)
        here = bool(work.next_ask and work.next_ask.key.startswith(side[0] + "-"))
        if here:
            sheet.circle((gauge, 60), 22, "place")
        sheet.circle((gauge, 60), 14, "bore")
        sheet.line((gauge, 74), (gauge, middle + off * 0.6 - 16), "ink bold" if here else "ink")
        swing = work.swing(side[0])
        if swing:
            swing_label(sheet, (gauge, 32), swing.tir_mm, work.needle_mm(side[0]))
    sheet.line((x(0), middle), (x(1), middle), "chain")
    if factor:
        sheet.text((width / 2, 284), f"lean drawn ×{float(f'{factor / (span / 200):.2g}'):g}, centre bearings straight", "quiet", "middle")
    else:
        sheet.text((width / 2, 284), "it will lean here as the needles say", "quiet", "middle")
