"""Form for numbers next to the controls, in any unit."""

from __future__ import annotations

from typing import Any

from django import forms

from stator.practice import messages
from stator.practice.exercises.base import Exercise, Typed
from stator.ui.fields import QuantityField
from stator.ui.units import core_per


class TypedForm(forms.Form):
    """Numbers that an exercise lets a learner type; an empty field has its initial value."""

    def __init__(self, kind: Exercise, data: Any = None) -> None:
        self.typed = {each.key: each for each in kind.typed}
        super().__init__(data)
        for each in kind.typed:
            self.fields[each.key] = field = _field(each, messages.SAID[kind.key].typed[each.key])
            field.initial = f"{each.first / each.per / core_per(each.kind, field.unit):.3g}"

    def values(self) -> dict[str, float]:
        """In the part's own units, once they have been found good."""
        return {
            key: each.first if self.cleaned_data[key] is None else round(self.cleaned_data[key] * each.per, 6)
            for key, each in self.typed.items()
        }

    def wrong(self) -> str:
        """The first that cannot be, as a sentence; empty where all can."""
        return next((f"{self.fields[key].label}: {errors[0]}" for key, errors in self.errors.items()), "")


def _field(each: Typed, label: Any) -> QuantityField:
    low = None if each.low is None else each.low / each.per
    looks = forms.TextInput({"inputmode": "decimal", "autocomplete": "off", "size": "8"})
    return QuantityField(each.kind, low=low, high=each.high / each.per, required=False, label=label, widget=looks)
