"""The dial that is read, what is left after each move against the best that could be, and how goes went one after the other."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from shopmath.amounts import Amount
from ui.numbers import show
from ui.svg import Sheet

FACE, LINES = 92.0, 50  # radius of the dial's face, px; lines on it
WIDE, HIGH = 220.0, 220.0
CURVE, HISTORY = (640.0, 280.0), (300.0, 96.0)
LABELS = 8  # moves that can be named under the curve


def dial(reading_mm: float, said: str, round_mm: float, small_hand: int | None = None) -> SafeString:
    """A dial whose needle stands at a reading: 50 lines a round, longer lines every fifth, zero at the top; a small hand for the rounds."""
    sheet = Sheet(WIDE, HIGH, _("The dial"), said, "dial")
    middle, step = (WIDE / 2, HIGH / 2), round_mm / LINES

    def at(share: float, radius: float, about: tuple[float, float] = middle) -> tuple[float, float]:
        turned = 2 * math.pi * share
        return about[0] + radius * math.sin(turned), about[1] - radius * math.cos(turned)

    sheet.circle(middle, FACE, "outline")
    for line in range(LINES):
        long = line % 5 == 0
        sheet.line(at(line / LINES, FACE - (14 if long else 8)), at(line / LINES, FACE), "axis" if long else "thin")
        if long:
            signed = line if small_hand is not None or line <= LINES // 2 else line - LINES
            x, y = at(line / LINES, FACE - 26)
            sheet.text((x, y + 5), f"{1000 * signed * step:.0f}", "quiet", "middle", wrap=False)
    if small_hand is not None:
        about = (middle[0], middle[1] + 34)
        sheet.circle(about, 20, "outline")
        for number in range(10):
            sheet.line(at(number / 10, 16, about), at(number / 10, 20, about), "thin")
        with sheet.turned("rounds", 36.0 * small_hand, about):
            sheet.arrow(at(0, 15, about), about, "ink", 6)
    with sheet.turned("needle", 360 * reading_mm / round_mm, middle):
        sheet.arrow(at(0, FACE - 6), middle, "ink bold", 14)
    sheet.circle(middle, 6, "ink solid")
    sheet.text((middle[0], middle[1] - 34), "µm", "quiet", "middle")
    return sheet.render()


def curve(result: dict[str, Any], names: Sequence[str]) -> SafeString:
    """What is left before and after every move, with the limit and the best that hands could leave; each move named where there is room."""
    wide, high = CURVE
    kind, step = str(result["kind"]), float(result["step"])

    def said(value: float) -> str:
        return show(Amount(value, kind, step))

    moves = result["moves"]
    left_after = [float(result["began"]), *(float(move["after"]) for move in moves)]
    limit, least = float(result["limit"]), float(result["least"])
    most = 1.12 * max(*left_after, limit, least, 1e-9)
    left, right, top, floor = 104.0, wide - 24, 16.0, high - 62
    told = _("From {began} to {ended}; the limit is {limit}.")
    values = {"began": said(left_after[0]), "ended": said(left_after[-1]), "limit": said(limit)}
    sheet = Sheet(wide, high, _("Move by move"), told.format(**values), "curve")

    def y(value: float) -> float:
        return floor - (floor - top) * value / most

    sheet.line((left, floor), (right, floor), "axis")
    sheet.line((left, floor), (left, top), "axis")
    sheet.text((left - 8, y(left_after[0]) + 5), said(left_after[0]), "quiet", "end", wrap=False)
    if abs(y(limit) - y(left_after[0])) > 16:
        sheet.text((left - 8, y(limit) + 5), said(limit), "quiet", "end", wrap=False)
    sheet.line((left, y(limit)), (right, y(limit)), "hot thin")
    sheet.text((right, y(limit) - 5), _("limit"), "hot halo", "end")
    if least > 0:
        sheet.line((left, y(least)), (right, y(least)), "cold thin")
        sheet.text((right, y(least) + 16), _("best"), "cold halo", "end")
    along = (right - left) / max(1, len(moves))
    points = [(left + along * number, y(value)) for number, value in enumerate(left_after)]
    sheet.trace(points, "ink bold")
    for number, point in enumerate(points):
        wrong = number > 0 and not moves[number - 1]["right"]
        sheet.circle(point, 5, "hot solid" if wrong else "ink solid")
    if len(moves) <= LABELS:
        for number, name in enumerate(names, 1):
            cls = "quiet" if moves[number - 1]["right"] else "hot"
            sheet.text((left + along * (number - 0.5), floor + 20 + 17 * (number % 2)), name, cls, "middle", wrap=False)
    else:
        sheet.text(((left + right) / 2, floor + 24), _("{moves} moves; red ones went wrong").format(moves=len(moves)), "quiet", "middle")
    return sheet.render()


def history(over: Sequence[float]) -> SafeString:
    """Moves over the shortest way, go after go: fewer is better."""
    wide, high = HISTORY
    said = _("The last {count} goes, moves over the shortest way: {over}.").format(
        count=len(over), over=", ".join(f"{each:.0f}" for each in over)
    )
    sheet = Sheet(wide, high, _("How goes went"), said, "history")
    most, floor = max(1.0, *over), high - 14
    sheet.line((10, floor), (wide - 10, floor), "axis")
    along = (wide - 20) / max(1, len(over) - 1)
    points = [(10 + along * number, floor - (floor - 12) * value / most) for number, value in enumerate(over)]
    if len(points) > 1:
        sheet.trace(points, "ink bold")
    for point in points:
        sheet.circle(point, 4, "ink solid")
    return sheet.render()
