"""Form fields that take any unit and keep what was typed."""

from __future__ import annotations

from typing import Any

from django import forms

from shopmath.checks import BadInput
from shopmath.quantity import parse


class QuantityField(forms.CharField):
    """A quantity of one kind in any unit, kept in the core's own; between two bounds when they are given."""

    def __init__(self, kind: str, unit: str, *, low: float | None = None, high: float | None = None, **kwargs: Any) -> None:
        super().__init__(max_length=60, **kwargs)
        self.kind, self.unit, self.low, self.high = kind, unit, low, high

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
