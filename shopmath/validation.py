"""Input checks of the core: what every public function refuses, and in which words."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Sized
from functools import cache
from typing import Any

ABSOLUTE_ZERO_C = -273.15
SMALLEST = 1e-12  # above 0 that counts as something
LARGEST = 1e12  # of anything that is measured on a bench, in whatever unit


class BadInput(ValueError):
    """A value that cannot be used: the field, and a message with the value and what is allowed.

    Examples
    --------
    >>> BadInput("nominal_mm", "A diameter must be above 0 mm, not -3.").field
    'nominal_mm'
    """

    def __init__(self, field: str, message: str, code: str = "", **values: Any) -> None:
        """Initialize the error; `code` and `values` have the same meaning as the message, which may contain the values."""
        super().__init__(message.format(**values) if values else message)
        self.field = field
        self.template = message
        self.code = code
        self.values = values

    @property
    def message(self) -> str:
        """The sentence in the reader's language, where the interface has one for it (`in_other_words`)."""
        text = _translate[0](self.template) if self.template else ""
        if not self.values:
            return text
        return text.format(**{name: _translate[0](each) if isinstance(each, MessageText) else each for name, each in self.values.items()})


class MessageText(str):
    """A word among the values of a refusal that is translated with its sentence, such as the name of a kind of quantity.

    Examples
    --------
    >>> BadInput("size", "Nothing was typed; {kind} is wanted.", kind=MessageText("a length")).message
    'Nothing was typed; a length is wanted.'
    """

    __slots__ = ()


_translate: list[Callable[[str], str]] = [str]


def in_other_words(translate: Callable[[str], str]) -> None:
    """Set the translation of the core's refusals: `translate` receives a sentence before its values are inserted."""
    _translate[0] = translate


def gettext_noop(sentence: str) -> str:
    """A sentence that an interface may translate; the name is the one that tools look for.

    Examples
    --------
    >>> gettext_noop("A size must be above 0.")
    'A size must be above 0.'
    """
    return sentence


def words(field: str) -> str:
    """Return the field's name without its unit, for a sentence."""
    for unit in ("_mm", "_um", "_c", "_s", "_kg", "_w_m2k", "_m2", "_deg", "_c_u"):
        field = field.removesuffix(unit)
    return field.replace("_", " ")


def finite(field: str, value: float) -> float:
    """Refuse NaN, infinity and what is not a number."""
    if isinstance(value, bool) or not isinstance(value, (int, float)):
        raise BadInput(
            field, gettext_noop("The {name} must be a plain number, not {value!r:.40}."), "not_finite", value=value, name=words(field)
        )
    if not abs(value) <= LARGEST:  # NaN and infinity too; a whole number may be larger than any float
        text = "far too large" if isinstance(value, int) else repr(value)
        raise BadInput(field, gettext_noop("The {name} must be a plain number, not {told}."), "not_finite", name=words(field), told=text)
    return float(value)


def positive(field: str, value: float) -> float:
    """Refuse zero and less, and what is so near it that nothing is measured by it."""
    if finite(field, value) < SMALLEST:
        raise BadInput(field, gettext_noop("The {name} must be above 0, not {value:g}."), "not_positive", value=value, name=words(field))
    return float(value)


def not_negative(field: str, value: float) -> float:
    """Refuse less than zero."""
    if finite(field, value) < 0:
        raise BadInput(
            field, gettext_noop("The {name} cannot be negative; {value:g} was given."), "negative", value=value, name=words(field)
        )
    return float(value)


def temperature(field: str, value_c: float) -> float:
    """Refuse what is colder than absolute zero."""
    if finite(field, value_c) < ABSOLUTE_ZERO_C:
        raise BadInput(
            field,
            gettext_noop("{value_c:g} °C is below absolute zero (-273.15 °C)."),
            "below_absolute_zero",
            value=value_c,
            value_c=value_c,
        )
    return float(value_c)


def numbers(of: Any) -> None:
    """Refuse NaN and too large whole numbers in the fields of a dataclass; infinity may be a result."""
    for name in _fields(type(of)):  # type: ignore[arg-type]  # a class is hashable
        value = getattr(of, name)
        if isinstance(value, (int, float)):
            number(name, value)


@cache
def _fields(kind: type) -> tuple[str, ...]:
    return tuple(each.name for each in dataclasses.fields(kind))


def number(field: str, value: float) -> float:
    """Refuse NaN, and a whole number that no float holds."""
    if value != value or (isinstance(value, int) and abs(value) > LARGEST):
        finite(field, value)
    return float(value)


def at_most(field: str, things: Sized, most: int) -> None:
    """Refuse more of something than anybody measures."""
    if len(things) > most:
        raise BadInput(
            field,
            gettext_noop("At most {most} {name} are looked at; {things} were given."),
            "too_many",
            most=most,
            name=words(field),
            things=len(things),
        )


def ordered(field: str, low: float, high: float) -> None:
    """Refuse a pair whose low end is above its high end."""
    if not low <= high:
        finite(field, low)
        finite(field, high)
        raise BadInput(
            field, gettext_noop("The lower limit {low:g} is above the upper limit {high:g}."), "limits_crossed", low=low, high=high
        )


def one_of(field: str, value: str, allowed: tuple[str, ...]) -> str:
    """Refuse a word that is not on the list."""
    if value not in allowed:
        raise BadInput(
            field,
            gettext_noop("{value!r} is not known here. Known: {allowed_words}."),
            "not_known",
            value=value,
            allowed=allowed,
            allowed_words=", ".join(allowed),
        )
    return value
