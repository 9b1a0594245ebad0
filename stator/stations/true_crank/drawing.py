"""The crank from the side, bent as measured, and each end's readings round its circle."""

from __future__ import annotations

import cmath
import math

from shopmath.amounts import degrees, mm
from shopmath.truing import RunoutVector, bend_at
from stator.engines.properties import Property
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.true_crank import messages
from stator.stations.true_crank.analysis import SIDES, RunoutRoundAnalysis, crank, reading
from stator.stations.true_crank.single_analysis import SingleThrowAnalysis
from stator.ui.number_format import bare, plain, show
from stator.ui.svg import Point, Sheet

BEND_PX = 34.0  # the largest bend as drawn
LEAN_PX = 9.0  # of a web that is not parallel to the other, at its rim opposite the crankpin
OPENING = {"squeeze": 1, "wedge": -1}  # move -> whether the webs are open (1) or closed (-1) opposite the crankpin
POLAR_PX = 26.0  # the largest reading as drawn


def draw(found: SingleThrowAnalysis, canvas: Canvas) -> None:
    _side(found, canvas)
    for side, centre, radius in ends(canvas.width):
        end_view(found, canvas, side, centre, radius)
        _strike(found, canvas.sheet, side, centre, radius)
    canvas.sheet.text((canvas.width / 2, 554), str(messages.ON_DRAWING["seen"]), "quiet", "middle")


def ends(width: float) -> list[tuple[str, Point, float]]:
    """Return where the end views stand: side, middle and radius."""
    radius = 84.0 if width > 500 else 50.0
    return [(side, (width * at, 408.0), radius) for side, at in zip(SIDES, (0.27, 0.73), strict=True)]


def _side(found: SingleThrowAnalysis, canvas: Canvas) -> None:
    """Draw shafts, webs and crankpin in the plane of the throw; the axis is straight, and the crank bends from it."""
    sheet, width, geometry, mis, middle = canvas.sheet, canvas.width, found.geometry, found.mis, 170.0
    a, b = (geometry.support_left_mm, geometry.support_right_mm) if geometry else (-92.0, 92.0)
    gauges = (geometry.gauge_left_mm, geometry.gauge_right_mm) if geometry else (-34.0, 34.0)
    low, high = min(a, gauges[0]) - 14, max(b, gauges[1]) + 14
    edge = 50.0 if canvas.is_wide else 22.0

    def x(z: float) -> float:
        return edge + (width - 2 * edge) * (z - low) / (high - low)

    bent = {z: bend_at(mis, geometry, z) if mis and geometry else 0j for z in (low, -10.0, 10.0, high)}
    # drawn in the plane where it bends most: the throw's for offset and pinch, the one across it for twist and skew
    opening = OPENING.get(found.move.kind, 0) if found.move else 0
    across = not opening and sum(value.imag**2 for value in bent.values()) > sum(value.real**2 for value in bent.values())
    seen = {z: (value.imag if across else value.real) for z, value in bent.items()}
    factor = BEND_PX / max(max(abs(value) for value in seen.values()), 1e-9) if mis else 0.0
    y = {z: middle - factor * off for z, off in seen.items()}
    throw = 62.0 if not across else 0.0
    for near, far in ((-10.0, low), (10.0, high)):
        sheet.shape([(x(far), y[far] - 11), (x(near), y[near] - 11), (x(near), y[near] + 11), (x(far), y[far] + 11)], "cut paper")
        outer, top = x(near) + 9 * (1 if near > 0 else -1), y[near] - throw - 30
        lean, bottom = math.copysign(LEAN_PX, near) * opening, y[near] + 58
        sheet.hatched([(x(near), top), (outer, top), (outer + lean, bottom), (x(near) + lean, bottom)], "plain", 8)
        if opening:
            _at_the_rims(sheet, x(near) + lean if opening < 0 else outer + lean, bottom - 10, math.copysign(1, near), opening)
    pin = [(x(z), y[z] - throw + dy) for z, dy in ((-10.0, -11), (10.0, -11), (10.0, 11), (-10.0, 11))]
    sheet.hatched(pin, "cold", 7)
    if opening and found.move:
        sheet.text((x(0), max(y[-10.0], y[10.0]) + 78), str(messages.ON_DRAWING[found.move.kind]), "strong hot", "middle")
    sheet.line((x(low), middle), (x(high), middle), "chain")
    for z in (a, b):
        sheet.shape([(x(z), middle + 15), (x(z) + 12, middle + 38), (x(z) - 12, middle + 38)], "cut paper")
    for z, side in zip(gauges, SIDES, strict=True):
        with canvas.question(crank(Property.GAUGE_PLACE, side)):
            dial(found, canvas, side, (x(z), 70), middle - 22)
    times = factor / ((width - 2 * edge) / (high - low))
    code = ("across" if across else "in_plane") if mis else "later"
    sheet.text((width / 2, 276), format_message(messages.ON_DRAWING[code], {"times": plain(times, 2)}), "quiet", "middle")


def _at_the_rims(sheet: Sheet, face: float, y: float, side: float, opening: int) -> None:
    """Arrow that moves the rim of one web opposite the crankpin: inward to squeeze, outward to wedge."""
    reach = 30.0 if opening > 0 else 18.0
    tail = face + side * reach if opening > 0 else face - side * reach
    sheet.arrow((face, y), (tail, y), "hot bold", 10)


def dial(found: RunoutRoundAnalysis, canvas: Canvas, side: str, at: Point, down_to: float) -> None:
    """Draw a gauge over the shaft with its reading."""
    sheet, asked = canvas.sheet, canvas.asked
    here = bool(asked and asked.at.end == side and asked.what in (Property.SHAFT_READING, Property.SHAFT_TIR, Property.HIGH_SPOT))
    if here:
        sheet.circle(at, 22, "place")
    sheet.circle(at, 14, "bore")
    canvas.labels.keep_clear(at, 16)
    sheet.line((at[0], at[1] + 14), (at[0], down_to), "ink bold" if here else "ink")
    runout, needle = found.swing(side), found.needle_mm(side)
    if runout is None:
        return
    fitted = bare(mm(runout.tir_mm))
    canvas.labels.at([((at[0], at[1] - 26), "middle")], fitted, "reading-label ink", rank=1)
    # over it how far the needle itself went, where that is not the same: a limit means the needle
    if needle is not None and bare(mm(needle)) != fitted:
        text = format_message(messages.ON_DRAWING["needle"], {"needle": bare(mm(needle))})
        canvas.labels.at([((at[0], at[1] - 49), "middle")], text, "quiet", rank=2)


def on_circle(centre: Point, radius: float, angle_deg: float) -> Point:
    turn = math.radians(angle_deg)
    return centre[0] - radius * math.sin(turn), centre[1] - radius * math.cos(turn)


def end_view(found: RunoutRoundAnalysis, canvas: Canvas, side: str, centre: Point, radius: float, pin_deg: float = 0.0) -> None:
    """Draw the readings around the circle, the fitted circle, and the high spot."""
    sheet, runout, values = canvas.sheet, found.swing(side), found.round_of(side)
    known = [value for value in values if value is not None]
    sheet.circle(centre, radius, "sure")
    sheet.text((centre[0], centre[1] + radius + 42), found.card.side(side), "strong", "middle")
    sheet.circle(on_circle(centre, radius + 9, pin_deg), 6, "cut solid")
    if known:
        mean = sum(known) / len(known)
        factor = POLAR_PX / max(max(abs(value - mean) for value in known), 1e-6)
        for angle, value in zip(found.angles(), values, strict=True):
            if value is not None:
                with canvas.question(reading(side, angle)):
                    sheet.circle(on_circle(centre, radius + factor * (value - mean), angle), 5, "ink solid")
    asked = canvas.asked
    if asked and asked.what == Property.SHAFT_READING and asked.at.end == side:
        sheet.circle(on_circle(centre, radius, asked.at.angle_deg or 0.0), 12, "place")
    if runout and runout.tir_mm > 0:
        _fitted(sheet, centre, radius, runout)


def _strike(found: SingleThrowAnalysis, sheet: Sheet, side: str, centre: Point, radius: float) -> None:
    """Draw where to strike, and where the rims are squeezed or wedged opposite the crankpin."""
    move = found.move
    if move and move.kind == "strike" and move.web == side:
        reach = 66 if radius > 60 else 52  # a phone's edge is near
        tip, tail = on_circle(centre, radius + 32, move.at_deg), on_circle(centre, radius + reach, move.at_deg)
        sheet.arrow(tip, tail, "hot bold", 12)
        outward = "start" if tail[0] < centre[0] else "end"
        sheet.text((tail[0], tail[1] - 12), str(messages.ON_DRAWING["strike"]), "strong hot", outward)
    elif move and move.kind in ("squeeze", "wedge"):
        sheet.circle(on_circle(centre, radius + 9, 180), 6, "hot solid")


def _fitted(sheet: Sheet, centre: Point, radius: float, runout: RunoutVector) -> None:
    """The circle of the fit, moved toward its high spot, and an arrow to it."""
    moved = cmath.rect(POLAR_PX, math.radians(runout.high_spot_deg))
    middle = (centre[0] - moved.imag, centre[1] - moved.real)
    sheet.circle(middle, radius, "ring")
    sheet.arrow(on_circle(centre, radius * 0.62, runout.high_spot_deg), centre, "ink bold", 10)
    at = on_circle(centre, radius * 0.3, runout.high_spot_deg + 180)
    if radius < 60:  # too narrow beside the arrow: under its tail, or over it when it points down
        at = (centre[0], centre[1] + (-12 if abs(runout.high_spot_deg - 180) < 60 else 24))
    sheet.text(at, show(degrees(runout.high_spot_deg)), "halo reading-label ink", "middle")
