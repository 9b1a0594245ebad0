"""Drawing of a crank with several throws on its center bearings: the tilt of the outer shafts, and the move of each web."""

from __future__ import annotations

import cmath
import math

from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.true_crank import messages
from stator.stations.true_crank.analysis import SIDES
from stator.stations.true_crank.drawing import dial, end_view, ends, on_circle
from stator.stations.true_crank.outer_analysis import OuterWebAnalysis
from stator.ui.number_format import plain
from stator.ui.svg import Point, Sheet

LEAN_PX = 30.0


def draw(found: OuterWebAnalysis, canvas: Canvas) -> None:
    _side(found, canvas)
    for side, centre, radius in ends(canvas.width):
        pin = 0.0 if side == "left" else (found.phase_deg or 0.0)
        end_view(found, canvas, side, centre, radius, pin)
        if found.worst and found.worst[0] == side and found.worst[1].turn.direction:
            _turn(canvas.sheet, centre, radius, pin, found.worst[1].turn.direction)
    canvas.sheet.text((canvas.width / 2, 554), str(messages.ON_DRAWING["seen_outer"]), "quiet", "middle")


def _turn(sheet: Sheet, centre: Point, radius: float, pin: float, direction: str) -> None:
    """An arc at the rim opposite the pin, the way the web goes."""
    sign = 1 if direction == "counter-clockwise" else -1
    points = [on_circle(centre, radius + 18, pin + 180 + sign * step) for step in range(-24, 21, 4)]
    sheet.trace(points, "hot bold")
    sheet.arrow(on_circle(centre, radius + 18, pin + 180 + sign * 26), points[-1], "hot bold", 11)


def _side(found: OuterWebAnalysis, canvas: Canvas) -> None:
    """Draw two throws between four webs; the center is on its supports, and the outer shafts are tilted as measured, enlarged."""
    sheet, width = canvas.sheet, canvas.width
    middle, edge = 160.0, 40.0 if canvas.is_wide else 16.0
    span = width - 2 * edge

    def x(part: float) -> float:
        return edge + span * part

    leans = {side: runout.vector if (runout := found.swing(side)) else 0j for side in SIDES}
    across = sum(value.imag**2 for value in leans.values()) > sum(value.real**2 for value in leans.values())
    seen = {side: (value.imag if across else value.real) for side, value in leans.items()}
    largest = max(abs(value) for value in seen.values())
    factor = LEAN_PX / largest if largest else 0.0
    sheet.shape([(x(0.40), middle - 11), (x(0.60), middle - 11), (x(0.60), middle + 11), (x(0.40), middle + 11)], "cut paper")
    for at in (0.44, 0.56):
        sheet.shape([(x(at), middle + 14), (x(at) + 12, middle + 38), (x(at) - 12, middle + 38)], "cut paper")
    phase = found.phase_deg if found.phase_deg is not None else 180.0
    for side, far, near, webs, turned in (("left", 0.0, 0.21, (0.21, 0.37), 0.0), ("right", 1.0, 0.79, (0.60, 0.76), phase)):
        off = -factor * seen[side]
        sheet.shape([(x(far), middle + off - 9), (x(near), middle - 9), (x(near), middle + 9), (x(far), middle + off + 9)], "cut paper")
        pin = cmath.rect(52.0, math.radians(turned))
        _throw(sheet, (x(webs[0]), x(webs[1])), middle, pin.imag if across else pin.real)
        dial(found, canvas, side, (x(0.08 if side == "left" else 0.92), 72), middle + off * 0.6 - 16)
    sheet.line((x(0), middle), (x(1), middle), "chain")
    times = {"times": plain(factor / (span / 200), 2)}
    sheet.text((width / 2, 284), format_message(messages.ON_DRAWING["lean" if factor else "lean_later"], times), "quiet", "middle")


def _throw(sheet: Sheet, webs: tuple[float, float], middle: float, up: float) -> None:
    """Two webs and the pin between them."""
    for web in webs:
        low, high = middle - max(up, 0) - 30, middle + max(-up, 0) + 46
        sheet.hatched([(web, low), (web + 18, low), (web + 18, high), (web, high)], "plain", 8)
    first, last = webs[0] + 18, webs[1]
    sheet.hatched([(first, middle - up - 10), (last, middle - up - 10), (last, middle - up + 10), (first, middle - up + 10)], "cold", 7)
