"""Drawings of practice: the dial, the residual after each move compared with the best possible, and the history of attempts."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from shopmath.amounts import Amount
from stator.ui.number_format import show
from stator.ui.svg import Sheet, on_papers

FACE, LINES = 92.0, 50  # radius of the dial's face, px; lines on it
WIDE, HIGH = 220.0, 220.0
CURVE_HIGH, HALVES_HIGH = 290.0, 240.0
HISTORY = (300.0, 96.0)
TIMES, SHAFT_MM, THROW_MM = 300, 92.0, 29.0  # how much halves are enlarged, px a mm; of the crank


def dial(reading_mm: float, said: str, round_mm: float, small_hand: int | None = None) -> SafeString:
    """Draw a dial with its needle at a reading: 50 lines per turn, every fifth longer, zero at the top, with a small hand for turns."""
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


def curve(result: dict[str, Any]) -> SafeString:
    """Draw the residual before and after every move with the limit and the best possible; moves are numbered, wrong ones red."""
    return on_papers(("wide", "narrow"), lambda name, wide: _curve(result, name, (wide, CURVE_HIGH)))


def _curve(result: dict[str, Any], name: str, size: tuple[float, float]) -> SafeString:
    wide, high = size
    kind, step = str(result["kind"]), float(result["step"])

    def said(value: float) -> str:
        return show(Amount(value, kind, step))

    moves = result["moves"]
    after = [float(result["began"]), *(float(move["after"]) for move in moves)]
    limit, lowest = float(result["limit"]), float(result["least"])
    highest = 1.12 * max(*after, limit, lowest, 1e-9)
    left, right, top, floor = 104.0, wide - 24, 22.0, high - 48
    text = _("From {began} to {ended}; the limit is {limit}.")
    values = {"began": said(after[0]), "ended": said(after[-1]), "limit": said(limit)}
    sheet = Sheet(wide, high, _("Move by move"), text.format(**values), f"curve-{name}")

    def y(value: float) -> float:
        return floor - (floor - top) * value / highest

    sheet.line((left, floor), (right, floor), "axis")
    sheet.line((left, floor), (left, top), "axis")
    sheet.text((left - 8, y(after[0]) + 5), said(after[0]), "quiet", "end", wrap=False)
    if abs(y(limit) - y(after[0])) > 18:
        sheet.text((left - 8, y(limit) + 5), said(limit), "quiet", "end", wrap=False)
    sheet.line((left, y(limit)), (right, y(limit)), "hot thin")
    sheet.text((left + 8, y(limit) - 6), _("limit"), "hot halo")
    if lowest > 0 and y(lowest) - y(limit) > 20:
        sheet.line((left, y(lowest)), (right, y(lowest)), "cold thin")
        sheet.text((left + 8, y(lowest) - 5), _("best"), "cold halo")
    along = (right - left) / max(1, len(moves))
    points = [(left + along * number, y(value)) for number, value in enumerate(after)]
    sheet.trace(points, "ink bold")
    every = math.ceil(22 / along)
    for number, point in enumerate(points):
        wrong = number > 0 and not moves[number - 1]["right"]
        sheet.circle(point, 5, "hot solid" if wrong else "ink solid")
        if number and (number % every == 0 or every == 1):
            sheet.text((point[0], floor + 20), str(number), "hot" if wrong else "quiet", "middle", wrap=False)
    sheet.text(((left + right) / 2, high - 6), _("moves; red ones went wrong"), "quiet", "middle")
    return sheet.render()


Bent = dict[str, float]  # twist, pinch and skew in °, offset in mm; empty where nobody knows


def halves(first: Bent, last: Bent, found: Bent) -> SafeString:
    """Draw a crank's halves as they were, as they are and as measured, enlarged, from the side and from above."""
    return on_papers(("wide", "narrow"), lambda name, wide: _halves(((first, "thin"), (last, "axis bold"), (found, "ink")), name, wide))


def _halves(stands: Sequence[tuple[Bent, str]], name: str, wide: float) -> SafeString:
    high = HALVES_HIGH
    text = _("From the side: web opening and offset. From above: twist and skew. {times} times as large.").format(times=TIMES)
    sheet = Sheet(wide, high, _("The halves as they really stand"), text, f"halves-{name}")
    long = 0.40 * wide
    for row, (bends, shifts, view) in enumerate((("pinch", "offset", _("from the side")), ("skew", "twist", _("from above")))):
        middle = (wide / 2, 50.0 + row * (high - 50) / 2)
        sheet.line((middle[0] - long - 30, middle[1]), (middle[0] + long + 30, middle[1]), "chain")
        for of, cls in stands:
            if of:
                _shafts(sheet, middle, long, of[bends], of[shifts] if shifts == "offset" else math.radians(of[shifts]) * THROW_MM, cls)
        sheet.text((middle[0] - long - 30, middle[1] - 30), view, "quiet")
    sheet.text((wide / 2, high - 6), _("thin: as it was; black: as it is; violet: as you measured it last"), "quiet", "middle")
    return sheet.render()


def _shafts(sheet: Sheet, middle: tuple[float, float], long: float, bend_deg: float, shift_mm: float, cls: str) -> None:
    """Both shafts, each turned by half the bend, shifted apart at the webs."""
    rises = TIMES * math.tan(math.radians(bend_deg) / 2) * SHAFT_MM
    for side in (-1, 1):
        web = (middle[0] + side * 14, middle[1] - side * TIMES * shift_mm / 2)
        sheet.line(web, (middle[0] + side * long, web[1] + rises), cls)
        sheet.line((web[0], web[1] - 20), (web[0], web[1] + 20), cls)


def history(over: Sequence[float]) -> SafeString:
    """Draw the results of successive attempts, where less is better; the latest is shown as a number."""
    wide, high = HISTORY
    message = ", ".join(f"{each:.0f}" if each >= 10 or each == round(each) else f"{each:.1f}" for each in over)
    text = _("The last {count} goes: {over}.").format(count=len(over), over=message)
    sheet = Sheet(wide, high, _("How goes went"), text, "history")
    highest, floor, right = max(1.0, *over), high - 14, wide - 40
    sheet.line((10, floor), (right, floor), "axis")
    along = (right - 10) / max(1, len(over) - 1)
    points = [(10 + along * number, floor - (floor - 12) * value / highest) for number, value in enumerate(over)]
    if len(points) > 1:
        sheet.trace(points, "ink bold")
    for point in points:
        sheet.circle(point, 4, "ink solid")
    if points:
        sheet.text((points[-1][0] + 10, points[-1][1] + 5), message.rpartition(", ")[2], "strong", wrap=False)
    return sheet.render()
