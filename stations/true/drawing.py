"""The crank from the side, bent as measured, and each end's readings round its circle."""

from __future__ import annotations

import cmath
import math
from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from shopmath.truing import Swing, bend_at
from stations.true.asks import TURN
from ui.svg import Point, Sheet, on_papers

if TYPE_CHECKING:
    from stations.true.rounds import Rounds
    from stations.true.station import CrankTruing

BEND_PX = 34.0  # the largest bend as drawn
POLAR_PX = 26.0  # the largest reading as drawn


def draw(work: CrankTruing) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: CrankTruing, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, 560, "The crank between its supports", f"{plate.words}. {plate.line} {plate.move}", name)
    _side(sheet, work, width)
    for side, key, centre, radius in ends(width):
        end_view(sheet, work, centre, radius, side, key)
        _strike(sheet, work, centre, radius, side)
    sheet.text((width / 2, 554), "both seen from the right end, pin up; angles counter-clockwise", "quiet", "middle")
    return sheet.render()


def ends(width: float) -> list[tuple[str, str, Point, float]]:
    """Where the end views stand: side, its key, middle and radius."""
    radius = 84.0 if width > 500 else 50.0
    return [(side, key, (width * at, 408.0), radius) for side, key, at in (("left", "l", 0.27), ("right", "r", 0.73))]


def _side(sheet: Sheet, work: CrankTruing, width: float) -> None:
    """Shafts, webs and pin in the plane of the throw; the line of turning is straight, the crank bends from it."""
    geometry, mis, middle = work.geometry, work.mis, 170.0
    a, b = (geometry.support_left_mm, geometry.support_right_mm) if geometry else (-92.0, 92.0)
    gauges = (geometry.gauge_left_mm, geometry.gauge_right_mm) if geometry else (-34.0, 34.0)
    low, high = min(a, gauges[0]) - 14, max(b, gauges[1]) + 14
    edge = 50.0 if width > 500 else 22.0

    def x(z: float) -> float:
        return edge + (width - 2 * edge) * (z - low) / (high - low)

    bent = {z: bend_at(mis, geometry, z) if mis and geometry else 0j for z in (low, -10.0, 10.0, high)}
    # drawn in the plane where it bends most: the throw's for offset and pinch, the one across it for twist and skew
    across = sum(value.imag**2 for value in bent.values()) > sum(value.real**2 for value in bent.values())
    seen = {z: (value.imag if across else value.real) for z, value in bent.items()}
    factor = BEND_PX / max(max(abs(value) for value in seen.values()), 1e-9) if mis else 0.0

    def y(z: float) -> float:
        return middle - factor * seen[z]

    throw = 62.0 if not across else 0.0
    for near, far in ((-10.0, low), (10.0, high)):
        sheet.shape([(x(far), y(far) - 11), (x(near), y(near) - 11), (x(near), y(near) + 11), (x(far), y(far) + 11)], "cut paper")
        wide = 9 * (1 if near > 0 else -1)
        web = [
            (x(near), y(near) - throw - 30),
            (x(near) + wide, y(near) - throw - 30),
            (x(near) + wide, y(near) + 58),
            (x(near), y(near) + 58),
        ]
        sheet.hatched(web, "plain", 8)
    sheet.hatched(
        [
            (x(-10.0), y(-10.0) - throw - 11),
            (x(10.0), y(10.0) - throw - 11),
            (x(10.0), y(10.0) - throw + 11),
            (x(-10.0), y(-10.0) - throw + 11),
        ],
        "cold",
        7,
    )
    sheet.line((x(low), middle), (x(high), middle), "chain")
    for z in (a, b):
        sheet.shape([(x(z), middle + 15), (x(z) + 12, middle + 38), (x(z) - 12, middle + 38)], "cut paper")
    ask = work.next_ask
    for z, side in zip(gauges, ("left", "right"), strict=True):
        with sheet.link(f"{work.address}?ask=gauge-{side}", f"Reading: place of the {side} gauge"):
            here = bool(ask and ask.key.startswith(side[0] + "-"))
            if here:
                sheet.circle((x(z), 62), 22, "place")
            sheet.circle((x(z), 62), 14, "bore")
            sheet.line((x(z), 76), (x(z), middle - 22), "ink bold" if here else "ink")
            swing = work.swing(side[0])
            if swing:
                swing_label(sheet, (x(z), 36), swing.tir_mm, work.needle_mm(side[0]))
    if mis:
        plane = "seen across the throw" if across else "seen in the plane of the throw"
        sheet.text(
            (width / 2, 276), f"bend drawn ×{float(f'{factor / ((width - 2 * edge) / (high - low)):.2g}'):g}, {plane}", "quiet", "middle"
        )
    else:
        sheet.text((width / 2, 276), "it will bend here as the needles say", "quiet", "middle")


def swing_label(sheet: Sheet, at: Point, fitted_mm: float, needle_mm: float | None) -> None:
    """The swing as fitted to the turn; over it how far the needle itself went, where that is not the same: a limit means the needle."""
    sheet.text(at, f"{fitted_mm:.3f}", "reading-label ink", "middle")
    if needle_mm is not None and f"{needle_mm:.3f}" != f"{fitted_mm:.3f}":
        sheet.text((at[0], at[1] - 19), f"needle {needle_mm:.3f}", "quiet", "middle")


def on_circle(centre: Point, radius: float, degrees: float) -> Point:
    turn = math.radians(degrees)
    return centre[0] - radius * math.sin(turn), centre[1] - radius * math.cos(turn)


def end_view(sheet: Sheet, work: Rounds, centre: Point, radius: float, side: str, key: str, pin_deg: float = 0.0) -> None:
    """Readings round the circle, the circle that fits them, where it is high."""
    swing, values = work.swing(key), [work.mean(f"{key}-{angle}") for angle in TURN]
    known = [value for value in values if value is not None]
    sheet.circle(centre, radius, "sure")
    sheet.text((centre[0], centre[1] + radius + 42), work.job.card.side(side), "strong", "middle")
    sheet.circle(on_circle(centre, radius + 9, pin_deg), 6, "cut solid")
    ask = work.next_ask
    if known:
        mean = sum(known) / len(known)
        factor = POLAR_PX / max(max(abs(value - mean) for value in known), 1e-6)
        for angle, value in zip(TURN, values, strict=True):
            if value is not None:
                with sheet.link(f"{work.address}?ask={key}-{angle}", f"Reading: {side} at {angle} degrees"):
                    sheet.circle(on_circle(centre, radius + factor * (value - mean), angle), 5, "ink solid")
    if ask and ask.key.startswith(f"{key}-") and ask.key.partition("-")[2].isdigit():
        sheet.circle(on_circle(centre, radius, float(ask.key.partition("-")[2])), 12, "place")
    if swing and swing.tir_mm > 0:
        _fitted(sheet, centre, radius, swing)


def _strike(sheet: Sheet, work: CrankTruing, centre: Point, radius: float, side: str) -> None:
    """Where to strike, squeeze or wedge."""
    move = work.move
    if move and move.kind == "strike" and move.web == side:
        reach = 66 if radius > 60 else 52  # a phone's edge is near
        tip, tail = on_circle(centre, radius + 32, move.at_deg), on_circle(centre, radius + reach, move.at_deg)
        sheet.arrow(tip, tail, "hot bold", 12)
        outward = "start" if tail[0] < centre[0] else "end"
        sheet.text((tail[0], tail[1] - 12), "strike", "strong hot", outward)
    elif move and move.kind in ("squeeze", "wedge"):
        tip, tail = on_circle(centre, radius + 12, 180), on_circle(centre, radius + 32, 180)
        sheet.arrow(tip, tail, "hot bold", 12)


def _fitted(sheet: Sheet, centre: Point, radius: float, swing: Swing) -> None:
    """The circle of the fit, moved toward its high spot, and an arrow to it."""
    moved = cmath.rect(POLAR_PX, math.radians(swing.high_spot_deg))
    middle = (centre[0] - moved.imag, centre[1] - moved.real)
    sheet.circle(middle, radius, "ring")
    sheet.arrow(on_circle(centre, radius * 0.62, swing.high_spot_deg), centre, "ink bold", 10)
    at = on_circle(centre, radius * 0.3, swing.high_spot_deg + 180)
    if radius < 60:  # too narrow beside the arrow: under its tail, or over it when it points down
        at = (centre[0], centre[1] + (-12 if abs(swing.high_spot_deg - 180) < 60 else 24))
    sheet.text(at, f"{swing.high_spot_deg:.0f}°", "halo reading-label ink", "middle")
