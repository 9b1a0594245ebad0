"""Axes for a graph on a drawing: from numbers to px, with ticks a person would choose."""

from __future__ import annotations

import math
from dataclasses import dataclass

from shopmath.amounts import estimate, mm
from shopmath.quantity import decimals
from stator.ui.number_format import bare, exact, figure, plain
from stator.ui.svg import Point, Sheet


def step_for(span: float, most: int) -> float:
    """A round step (1, 2, 2.5 or 5 times a power of ten) that cuts a span into at most so many parts."""
    raw = span / most
    power = 10.0 ** math.floor(math.log10(raw))
    return next(power * factor for factor in (1, 2, 2.5, 5, 10) if power * factor >= raw * (1 - 1e-9))


@dataclass(frozen=True)
class Axes:
    """A rectangle of px over a range of numbers."""

    left: float
    top: float
    width: float
    height: float
    x_max: float
    y_min: float
    y_max: float

    def at(self, x: float, y: float) -> Point:
        across = self.left + self.width * x / self.x_max
        return across, self.top + self.height * (self.y_max - y) / (self.y_max - self.y_min)

    def draw(self, sheet: Sheet, x_scale: float, x_unit: str, per: float = 1.0) -> None:
        """Draw ticks and rules; `x_scale` numbers are one unit of the labels across, `per` numbers one unit of those upward."""
        bottom = self.top + self.height
        sheet.line((self.left, self.top), (self.left, bottom), "axis")
        sheet.line((self.left, bottom), (self.left + self.width, bottom), "axis thin")
        y_step = step_for((self.y_max - self.y_min) / per, 5)
        first, last = math.ceil(self.y_min / per / y_step - 1e-9), math.floor(self.y_max / per / y_step + 1e-9)
        digits = decimals(exact(y_step, finest=1e-6).resolution)
        for count_up in range(first, last + 1):
            _, y = self.at(0, count_up * y_step * per)
            sheet.line((self.left - 5, y), (self.left, y), "axis thin")
            sheet.text((self.left - 9, y + 4), figure(count_up * y_step, digits), "tick", "end")
        x_step = step_for(self.x_max / x_scale, 8)
        count = 0.0
        while count * x_scale <= self.x_max + 1e-9:
            x, _ = self.at(count * x_scale, 0)
            sheet.line((x, bottom), (x, bottom + 5), "axis thin")
            if x < self.left + self.width - 36:
                sheet.text((x, bottom + 19), plain(count), "tick", "middle")
            count = round(count + x_step, 9)
        sheet.text((self.left + self.width, bottom + 19), x_unit, "tick", "end")


@dataclass(frozen=True)
class Rule:
    """A value between its limits on a scale with its uncertainty, from `low` to `high` on the paper."""

    y: float
    left: float
    right: float
    low: float
    high: float

    def x(self, value: float) -> float:
        return self.left + (self.right - self.left) * (value - self.low) / (self.high - self.low)

    def draw(self, sheet: Sheet, limits: tuple[float, float], value: float, uncertainty: float, limit_words: tuple[str, str]) -> None:
        sheet.line((self.left, self.y), (self.right, self.y), "axis thin")
        sheet.rect(self.x(limits[0]), self.y - 12, self.x(limits[1]) - self.x(limits[0]), 24, "window")
        for limit, words, anchor, aside in zip(limits, limit_words, ("end", "start"), (-6, 6), strict=True):
            sheet.line((self.x(limit), self.y - 20), (self.x(limit), self.y + 20), "axis")
            sheet.text((self.x(limit) + aside, self.y + 31), words, "tick", anchor)
        sheet.line((self.x(value - uncertainty), self.y), (self.x(value + uncertainty), self.y), "ink bold")
        sheet.circle((self.x(value), self.y), 7, "ink solid")
        sheet.text((self.x(value), self.y - 22), bare(estimate(mm(value), uncertainty)), "halo reading-label ink", "middle")
