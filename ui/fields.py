"""Form fields that take any unit and keep what was typed."""

from __future__ import annotations

import re
from typing import Any

from django import forms

from shopmath.checks import BadInput
from shopmath.quantity import parse


class SizesField(forms.CharField):
    """Several lengths with spaces or semicolons between, kept in mm, rising, each once."""

    def __init__(self, **kwargs: Any) -> None:
        super().__init__(max_length=600, **kwargs)

    def prepare_value(self, value: Any) -> Any:
        return " ".join(f"{size:g}" for size in value) if isinstance(value, list) else value

    def clean(self, value: Any) -> list[float]:
        text = super().clean(value)
        parts = [part for part in re.split(r"[;\s]+(?![a-zµ\"])|,\s+", text.strip()) if part]
        sizes = set()
        for part in parts:
            try:
                size = round(parse(part, "length", "mm").canonical, 4)
            except BadInput as error:
                raise forms.ValidationError(f"{part}: {error.message}") from error
            if not 0 < size <= 20:
                raise forms.ValidationError(f"{part}: a thickness lies above 0 and up to 20 mm.")
            sizes.add(size)
        return sorted(sizes)


class QuantityField(forms.CharField):
    """A quantity of one kind in any unit, kept in the core's own; between two bounds when they are given."""

    def __init__(self, kind: str, unit: str, *, low: float | None = None, high: float | None = None, **kwargs: Any) -> None:
        super().__init__(max_length=60, **kwargs)
        self.kind, self.unit, self.low, self.high = kind, unit, low, high

    def prepare_value(self, value: Any) -> Any:
        if not isinstance(value, float):
            return value
        return f"{value / 60:g} min" if self.kind == "time" else f"{round(value, 4):g}"

    def has_changed(self, initial: Any, data: Any) -> bool:
        """Whether another quantity was typed: 240 and 240.0 mm are the same."""
        try:
            return bool(self.clean(data) != initial)
        except forms.ValidationError:
            return True

    def clean(self, value: Any) -> float | None:
        text = super().clean(value)
        if not text:
            return None
        try:
            found = round(parse(text, self.kind, self.unit).canonical, 6)
        except BadInput as error:
            raise forms.ValidationError(error.message) from error
        if (self.low is not None and found <= self.low) or (self.high is not None and found > self.high):
            raise forms.ValidationError(f"It lies above {self.low:g} and up to {self.high:g} {self.unit}; {found:g} was understood.")
        return found
