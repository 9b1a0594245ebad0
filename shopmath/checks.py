"""The door of the core: what every public function refuses, and in which words."""

from __future__ import annotations

import dataclasses
from collections.abc import Sized
from typing import Any

ABSOLUTE_ZERO_C = -273.15
SMALLEST = 1e-12  # above 0 that counts as something
LARGEST = 1e12  # of anything that is measured on a bench, in whatever unit


class BadInput(ValueError):
    """A value that cannot be worked with: which field, and a sentence saying what was given and what is allowed.

    Examples
    --------
    >>> BadInput("nominal_mm", "A diameter must be above 0 mm, not -3.").field
    'nominal_mm'
    """

    def __init__(self, field: str, message: str, code: str = "", **values: Any) -> None:
        """`code` and `values` say the same as the message, for whoever words it anew; the message is the core's own English."""
        super().__init__(message)
        self.field = field
        self.message = message
        self.code = code
        self.values = values


def words(field: str) -> str:
    """The field's name without its unit, as it reads in a sentence."""
    for unit in ("_mm", "_um", "_c", "_s", "_kg", "_w_m2k", "_m2", "_deg", "_c_u"):
        field = field.removesuffix(unit)
    return field.replace("_", " ")


def finite(field: str, value: float) -> float:
    """Refuse NaN, infinity and what is no number."""
    if isinstance(value, bool) or not isinstance(value, (int, float)):
        raise BadInput(field, f"The {words(field)} must be a plain number, not {value!r:.40}.", "not_finite", value=value)
    if not abs(value) <= LARGEST:  # NaN and infinity too; a whole number may be larger than any float
        told = "far too large" if isinstance(value, int) else repr(value)
        raise BadInput(field, f"The {words(field)} must be a plain number, not {told}.", "not_finite")
    return float(value)


def positive(field: str, value: float) -> float:
    """Refuse zero and less, and what is so near it that nothing is measured by it."""
    if finite(field, value) < SMALLEST:
        raise BadInput(field, f"The {words(field)} must be above 0, not {value:g}.", "not_positive", value=value)
    return float(value)


def not_negative(field: str, value: float) -> float:
    """Refuse less than zero."""
    if finite(field, value) < 0:
        raise BadInput(field, f"The {words(field)} cannot be negative; {value:g} was given.", "negative", value=value)
    return float(value)


def temperature(field: str, value_c: float) -> float:
    """Refuse what is colder than absolute zero."""
    if finite(field, value_c) < ABSOLUTE_ZERO_C:
        raise BadInput(field, f"{value_c:g} °C is below absolute zero (-273.15 °C).", "below_absolute_zero", value=value_c)
    return float(value_c)


def numbers(of: Any) -> None:
    """Refuse NaN, and a whole number that no float holds, among the fields of a dataclass; infinity may be an answer."""
    for each in dataclasses.fields(of):
        value = getattr(of, each.name)
        if isinstance(value, int | float):
            number(each.name, value)


def number(field: str, value: float) -> float:
    """Refuse NaN, and a whole number that no float holds."""
    if value != value or (isinstance(value, int) and abs(value) > LARGEST):
        finite(field, value)
    return float(value)


def at_most(field: str, things: Sized, most: int) -> None:
    """Refuse more of something than anybody measures."""
    if len(things) > most:
        raise BadInput(field, f"At most {most} {words(field)} are looked at; {len(things)} were given.", "too_many", most=most)


def ordered(field: str, low: float, high: float) -> None:
    """Refuse a pair whose low end lies above its high end."""
    if not low <= high:
        finite(field, low)
        finite(field, high)
        raise BadInput(field, f"The lower limit {low:g} is above the upper limit {high:g}.", "limits_crossed", low=low, high=high)


def one_of(field: str, value: str, allowed: tuple[str, ...]) -> str:
    """Refuse a word that is not on the list."""
    if value not in allowed:
        raise BadInput(field, f"{value!r} is not known here. Known: {', '.join(allowed)}.", "not_known", value=value, allowed=allowed)
    return value
