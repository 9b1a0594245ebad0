"""The dial that is read, and the swing after each blow against the best that could be."""

from __future__ import annotations

import math
from typing import Any

from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from shopmath.amounts import mm
from simulators.crank import STEP_MM
from ui.numbers import show
from ui.svg import Sheet

FACE, LINES = 92.0, 50  # radius of the dial's face, px; lines on it, a step each
WIDE, HIGH = 220.0, 220.0
CURVE = (520.0, 220.0)


def dial(reading_mm: float, where: str) -> SafeString:
    """A dial whose needle stands at a reading: one line a step, longer lines every fifth, zero at the top."""
    sheet = Sheet(WIDE, HIGH, _("The dial"), f"{where}: {show(mm(reading_mm, STEP_MM))}", "dial")
    middle = (WIDE / 2, HIGH / 2)

    def at(lines: float, radius: float) -> tuple[float, float]:
        turned = 2 * math.pi * lines / LINES
        return middle[0] + radius * math.sin(turned), middle[1] - radius * math.cos(turned)

    sheet.circle(middle, FACE, "outline")
    for line in range(LINES):
        long = line % 5 == 0
        sheet.line(at(line, FACE - (14 if long else 8)), at(line, FACE), "axis" if long else "thin")
        if long:
            signed = line if line <= LINES // 2 else line - LINES
            sheet.text(
                (at(line, FACE - 26)[0], at(line, FACE - 26)[1] + 5), f"{1000 * signed * STEP_MM:.0f}", "quiet", "middle", wrap=False
            )
    sheet.arrow(at(reading_mm / STEP_MM, FACE - 6), middle, "ink bold", 14)
    sheet.circle(middle, 6, "ink solid")
    sheet.text((middle[0], middle[1] + 44), "µm", "quiet", "middle")
    return sheet.render()


def curve(result: dict[str, Any]) -> SafeString:
    """The true swing before and after every blow, with the limit and the best that truing could leave."""
    wide, high = CURVE
    swings = [float(result["began"]["swing_mm"]), *(float(move["after_mm"]) for move in result["moves"])]
    most = 1.1 * max(*swings, float(result["limit_mm"]), float(result["best_mm"]))
    left, right, top, floor = 84.0, wide - 20, 16.0, high - 34
    said = _("From {began} to {ended}; {best} was the best that truing could leave.")
    values = {name: show(mm(value, 0.001)) for name, value in (("began", swings[0]), ("ended", swings[-1]), ("best", result["best_mm"]))}
    sheet = Sheet(wide, high, _("The swing, blow by blow"), said.format(**values), "curve")

    def y(value: float) -> float:
        return floor - (floor - top) * value / most

    sheet.line((left, floor), (right, floor), "axis")
    sheet.line((left, floor), (left, top), "axis")
    for value, cls, words in ((result["limit_mm"], "hot", _("limit")), (result["best_mm"], "cold", _("best"))):
        sheet.line((left, y(value)), (right, y(value)), f"{cls} thin")
        sheet.text((left + 8, y(value) - 5), words, f"{cls} halo", "start")
    step = (right - left) / max(1, len(swings) - 1)
    points = [(left + step * number, y(value)) for number, value in enumerate(swings)]
    sheet.trace(points, "ink bold")
    for point in points:
        sheet.circle(point, 4.5, "ink solid")
    sheet.text((left - 8, y(swings[0]) + 5), show(mm(swings[0], 0.001)), "quiet", "end", wrap=False)
    sheet.text(((left + right) / 2, high - 8), _("blows"), "quiet", "middle")
    return sheet.render()
