"""Drawing of a shaft with its parts in order and its end on the mating surface, or of a rubber bushing in its boss."""

from __future__ import annotations

import math

from shopmath.amounts import degrees, mm
from stator.engines.models import Fitted
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.install_with_heat.shaft_assembly import messages
from stator.stations.install_with_heat.shaft_assembly.analysis import Assembly
from stator.ui.svg import Sheet, bar


def draw(found: Assembly, canvas: Canvas) -> None:
    canvas.sheet.title = format_message(messages.DRAWING, {"part": found.fitted.name})
    if found.is_rubber:
        _rubber(canvas.sheet, canvas.width)
    else:
        _spindle(canvas.sheet, found.fitted, canvas.width)
        _end(found, canvas.sheet, canvas.width)


def _spindle(sheet: Sheet, part: Fitted, width: float) -> None:
    """From the case outward: the boss in section, then each piece in its turn with its number."""
    axis, left = 150.0, 0.07 * width
    boss = left + 0.14 * width
    sheet.hatched(bar(left, boss, axis - 78, axis - 22), "plain", 9)
    sheet.hatched(bar(left, boss, axis + 22, axis + 78), "plain", 9)
    end = 0.93 * width if part.pieces else 0.5 * width
    sheet.shape(bar(left + 8, end, axis - 22, axis + 22), "cut paper")
    sheet.line((left - 12, axis), (end + 14, axis), "chain")
    sheet.text((left, axis - 90), str(messages.DRAWN["case"]), "quiet")
    step = (end - boss - 20) / max(len(part.pieces), 1)
    for index, piece in enumerate(part.pieces):
        thin = "washer" in piece.lower()
        wide, tall = (12.0, 44.0) if thin else (step * 0.62, 66.0)
        x = boss + 8 + step * (index + 0.5) - wide / 2
        for up in (-1, 1):
            sheet.hatched(bar(x, x + wide, axis + up * 22, axis + up * tall), "cold" if thin else "plain", 7, rising=up > 0)
        middle = x + wide / 2
        sheet.circle((middle, axis - 112), 15, "ring")
        sheet.text((middle, axis - 107), str(index + 1), "strong ink", "middle")
        sheet.line((middle, axis - 97), (middle, axis - tall - 4), "ink thin")
        row = 102 + 22 * (index % 2)
        sheet.text((middle, axis + row), piece, "strong", "middle")
        if "spring" in piece.lower():
            sheet.trace([(x, axis - 44), (x + wide, axis - 30), (x, axis - 22)], "ink")


def _end(found: Assembly, sheet: Sheet, width: float) -> None:
    """Draw its end as seen on the mating surface: the specified direction, its tolerance, and the measured direction."""
    part, angle_deg = found.fitted, found.angle_deg
    centre, radius = (width * 0.3, 400.0), 88.0
    sheet.circle(centre, radius, "bore")
    sheet.line((centre[0] - radius - 22, centre[1]), (centre[0] + radius + 22, centre[1]), "chain")
    sheet.line((centre[0], centre[1] - radius - 22), (centre[0], centre[1] + radius + 22), "chain")
    right = width * 0.56

    def at(degrees: float, reach: float) -> tuple[float, float]:
        turn = math.radians(degrees)
        return centre[0] + reach * math.cos(turn), centre[1] - reach * math.sin(turn)

    if part.angle_deg is not None:
        low, high = part.angle_deg - part.angle_within_deg, part.angle_deg + part.angle_within_deg
        rim = [at(low + (high - low) * step / 12, radius + 20) for step in range(13)]
        sheet.shape([centre, *rim], "window")
        if part.either_end:
            sheet.line(at(part.angle_deg + 180, radius), at(part.angle_deg, radius), "outline nominal")
        else:
            sheet.line(centre, at(part.angle_deg, radius), "outline nominal")
        sheet.text(
            (right, 350), format_message(messages.DRAWN["turned"], {"turned": part.turned, "angle": degrees(part.angle_deg)}), "strong"
        )
        sheet.text((right, 372), format_message(messages.DRAWN["within"], {"within": degrees(part.angle_within_deg)}), "quiet")
        if angle_deg is not None:
            sheet.arrow(at(angle_deg, radius + 16), at(angle_deg + 180, radius) if part.either_end else centre, "ink bold", 14)
            sheet.text(
                (right, 406),
                format_message(messages.DRAWN["measured"], {"angle": degrees(angle_deg, 0.5 if angle_deg % 1 else 1.0)}),
                "reading-label ink",
            )
    flush = "flush" if part.depth_mm == 0 else "below" if part.depth_mm > 0 else "proud"
    sheet.text((right, 446), format_message(messages.DRAWN[flush], {"depth": mm(abs(part.depth_mm), 0.1)}), "strong")
    sheet.text((right, 468), format_message(messages.DRAWN["within"], {"within": mm(part.depth_within_mm, 0.1)}), "quiet")
    sheet.text((centre[0], 530), format_message(messages.DRAWN["face"], {"half": found.half}), "quiet", "middle")


def _rubber(sheet: Sheet, width: float) -> None:
    """Draw a rubber bushing in its boss, with what projects on either side."""
    axis, middle = 230.0, width / 2
    for up in (-1, 1):
        sheet.hatched(bar(middle - 90, middle + 90, axis + up * 80, axis + up * 150), "plain", 10, rising=up > 0)
        sheet.hatched(bar(middle - 124, middle + 124, axis + up * 26, axis + up * 78), "brass", 6, rising=up < 0)
    sheet.shape(bar(middle - 132, middle + 132, axis - 24, axis + 24), "cut paper")
    sheet.line((middle - 170, axis), (middle + 170, axis), "chain")
    for sign, end in ((-1, "inside"), (1, "outside")):
        a, b = middle + sign * 90, middle + sign * 124
        for x in (a, b):
            sheet.line((x, axis + 152), (x, axis + 190), "thin")
        sheet.arrow((a, axis + 182), (a - sign * 30, axis + 182), "ink", 8)
        sheet.arrow((b, axis + 182), (b + sign * 30, axis + 182), "ink", 8)
        sheet.text(((a + b) / 2 + sign * 40, axis + 214), str(messages.ENDS[end]), "strong ink", "middle")
    sheet.text((middle, 490), str(messages.DRAWN["rubber"]), "quiet", "middle")
