"""Axes for a graph on a drawing: from numbers to px, with ticks a person would choose."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ui.svg import Point, Sheet


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

    def draw(self, sheet: Sheet, x_scale: float, x_unit: str, digits: int) -> None:
        """Ticks and rules; `x_scale` numbers make one unit of the labels."""
        bottom = self.top + self.height
        sheet.line((self.left, self.top), (self.left, bottom), "axis")
        sheet.line((self.left, bottom), (self.left + self.width, bottom), "axis thin")
        y_step = step_for(self.y_max - self.y_min, 5)
        value = math.ceil(self.y_min / y_step) * y_step
        while value <= self.y_max + 1e-9:
            _, y = self.at(0, value)
            sheet.line((self.left - 5, y), (self.left, y), "axis thin")
            sheet.text((self.left - 9, y + 4), f"{value + 0.0:.{digits}f}", "tick", "end")
            value = round(value + y_step, 9)
        x_step = step_for(self.x_max / x_scale, 8)
        count = 0.0
        while count * x_scale <= self.x_max + 1e-9:
            x, _ = self.at(count * x_scale, 0)
            sheet.line((x, bottom), (x, bottom + 5), "axis thin")
            if x < self.left + self.width - 36:
                sheet.text((x, bottom + 19), f"{count:g}", "tick", "middle")
            count = round(count + x_step, 9)
        sheet.text((self.left + self.width, bottom + 19), x_unit, "tick", "end")
