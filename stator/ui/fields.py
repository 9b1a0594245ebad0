"""Form fields that take any unit and keep what was typed."""

from __future__ import annotations

import re
from functools import lru_cache
from typing import Any

from django import forms
from django.forms.utils import flatatt
from django.utils.html import format_html, format_html_join
from django.utils.safestring import SafeString, mark_safe
from django.utils.translation import gettext as _

from shopmath.quantity import parse
from shopmath.validation import BadInput
from stator.ui.number_format import exact, plain, show, typed_number
from stator.ui.units import Unit, question_unit

LARGEST = 1e9  # in the core's unit; nothing in a shop is larger
OPTION = '<option value="{}">'
THICKEST_MM = 4.0  # of a shim or a feeler, as a rule


def typed_again(value: float, kind: str, unit: Unit | None = None) -> str:
    """Return a stored number as its reader would type it, with no more digits than necessary."""
    if kind == "time":
        return f"{value / 60:g} min"
    shown = unit or question_unit(kind, THICKEST_MM)
    return typed_number(value, kind, shown)


class SizesField(forms.CharField):
    """Several lengths separated by spaces or semicolons, stored in mm, sorted and without duplicates."""

    def __init__(self, **kwargs: Any) -> None:
        super().__init__(max_length=600, **kwargs)

    def prepare_value(self, value: Any) -> Any:
        return " ".join(typed_again(size, "length") for size in value) if isinstance(value, list) else value

    def clean(self, value: Any) -> list[float]:
        text = super().clean(value)
        parts = [part for part in re.split(r"[;\s]+(?![a-zµ\"])|,\s+", text.strip()) if part]
        sizes = set()
        for part in parts:
            try:
                size = round(parse(part, "length", question_unit("length", THICKEST_MM).typed).canonical, 4)
            except BadInput as error:
                raise forms.ValidationError(_("{part}: {reason}").format(part=part, reason=error.message)) from error
            if not 0 < size <= 20:
                highest = show(exact(20.0))
                raise forms.ValidationError(_("{part}: a thickness lies above 0 and up to {most}.").format(part=part, most=highest))
            sizes.add(size)
        return sorted(sizes)


class RatioField(forms.CharField):
    """A ratio of one to something, as `1:5`, `1 in 5` or `5`; stored as the second number."""

    WRITTEN = re.compile(r"(?:1\s*(?::|/|in|to)\s*)?(\d+(?:[.,]\d+)?)", re.IGNORECASE)

    def __init__(self, *, low: float, high: float, **kwargs: Any) -> None:
        super().__init__(max_length=20, **kwargs)
        self.low, self.high = low, high

    def prepare_value(self, value: Any) -> Any:
        return f"1:{plain(value)}" if isinstance(value, float) else value

    def has_changed(self, initial: Any, data: Any) -> bool:
        """Return True if another ratio was typed: 1:8 and 8 are the same."""
        return super().has_changed(self.prepare_value(initial), data)

    def clean(self, value: Any) -> float | None:
        text = str(super().clean(value)).strip()
        if not text:
            return None
        found = self.WRITTEN.fullmatch(text)
        ratio = float(found[1].replace(",", ".")) if found else 0.0
        if not self.low <= ratio <= self.high:
            values = {"typed": text, "low": f"1:{plain(self.low)}", "high": f"1:{plain(self.high)}"}
            raise forms.ValidationError(_("{typed} is no ratio from {low} to {high}. Write it as 1:5.").format(**values))
        return ratio


class QuantityField(forms.CharField):
    """A quantity of one kind in any unit, stored in the core's own unit, optionally with limits.

    A bare number is in the reader's unit, which the label shows; `small` lengths are then in thou. What has a trade name (a thread, a
    bearing, a seal) is in mm for everyone; its `unit` is fixed.
    """

    def __init__(
        self,
        kind: str,
        *,
        low: float | None = None,
        high: float | None = None,
        unit: Unit | None = None,
        small: bool = False,
        **kwargs: Any,
    ) -> None:
        super().__init__(max_length=60, **kwargs)
        self.kind, self.low, self.high, self.fixed, self.small = kind, low, high, unit, small

    @property
    def unit(self) -> Unit:
        """Return what a bare number is taken in."""
        return self.fixed or question_unit(self.kind, 0.0 if self.small else None)

    def prepare_value(self, value: Any) -> Any:
        return typed_again(value, self.kind, self.unit) if isinstance(value, float) else value

    def has_changed(self, initial: Any, data: Any) -> bool:
        """Return True if another quantity was typed: 240 and 240.0 mm are the same."""
        try:
            found = self.clean(data)
        except forms.ValidationError:
            return True
        if found is None or not isinstance(initial, float):
            return bool(found != initial)
        return bool(self.prepare_value(found) != self.prepare_value(initial))

    def clean(self, value: Any) -> float | None:
        text = super().clean(value)
        if not text:
            return None
        try:
            found = round(parse(text, self.kind, self.unit.typed).canonical, 6)
        except BadInput as error:
            raise forms.ValidationError(error.message) from error
        if abs(found) > LARGEST:
            raise forms.ValidationError(_("{typed} is too large. Check the number and its unit.").format(typed=text))
        if (self.low is not None and found <= self.low) or (self.high is not None and found > self.high):
            raise forms.ValidationError(self._outside(found))
        return found

    def _outside(self, found: float) -> str:
        values = {
            name: show(exact(value, self.kind, 1e-3)) for name, value in (("low", self.low), ("high", self.high)) if value is not None
        }
        values["found"] = show(exact(found, self.kind, 1e-3))
        if "low" not in values:
            return _("{found} was understood; it may be up to {high}.").format(**values)
        if "high" not in values:
            return _("{found} was understood; it must be above {low}.").format(**values)
        return _("{found} was understood; it must be above {low} and may be up to {high}.").format(**values)


class LongSelect(forms.Select):
    """A choice among hundreds of options, rendered in one string because a template for each option is slow."""

    def render(self, name: str, value: Any, attrs: dict[str, Any] | None = None, renderer: Any = None) -> SafeString:
        options = _options(tuple((str(key), str(said)) for key, said in self.choices))
        chosen = format_html(OPTION, "" if value is None else value)
        marked = options.replace(chosen, f"{chosen[:-1]} selected>", 1)
        return format_html("<select{}>{}</select>", flatatt({"name": name, **self.build_attrs(self.attrs, attrs)}), mark_safe(marked))  # noqa: S308  # both written by format_html


@lru_cache(8)
def _options(choices: tuple[tuple[str, str], ...]) -> str:
    return format_html_join("", OPTION + "{}</option>", choices)
