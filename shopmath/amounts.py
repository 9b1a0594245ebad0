"""Numbers on their way to a reader: a value with its kind, the step it is known to, and its uncertainty.

A rule or a judgement hands these on; which unit and how many digits a reader sees is decided where the sentence is made.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from shopmath.checks import number, numbers

COUNT = "count"  # a plain number: pieces, turns, rounds
SHARE = "share"  # 0 to 1
CHANCE = "chance"  # 0 to 1, said as so many in a hundred, never rounded up to certain
DURATION = "duration"  # s, said in minutes and seconds


@dataclass(frozen=True)
class Amount:
    """One number in the core's unit of its kind (mm, N, N·m, °C, s, °, kg, rpm; see `quantity.CANONICAL`).

    `resolution` is the step it is known to, in the same unit; `uncertainty` the expanded one (k = 2), None where nobody knows it.

    Examples
    --------
    >>> mm(0.0391, 0.001, 0.004)
    Amount(value=0.0391, kind='length', resolution=0.001, uncertainty=0.004)
    """

    value: float
    kind: str
    resolution: float
    uncertainty: float | None = None

    def __post_init__(self) -> None:
        numbers(self)


def mm(value: float, resolution: float = 0.001, uncertainty: float | None = None) -> Amount:
    """A length, mm."""
    return Amount(value, "length", resolution, uncertainty)


def thread_size(value: float, resolution: float = 0.01) -> Amount:
    """A diameter or a pitch of a thread, mm: a trade size, which stays metric for every reader.

    Examples
    --------
    >>> thread_size(1.0, 0.001).kind
    'thread_pitch'
    """
    return Amount(value, "thread_pitch", resolution)


def newton_metres(value: float, resolution: float = 1.0) -> Amount:
    """A torque, N·m."""
    return Amount(value, "torque", resolution)


def newtons(value: float, resolution: float = 100.0) -> Amount:
    """A force, N."""
    return Amount(value, "force", resolution)


def celsius(value: float, resolution: float = 1.0) -> Amount:
    """A temperature, °C."""
    return Amount(value, "temperature", resolution)


def kelvin(value: float, resolution: float = 1.0) -> Amount:
    """A difference of temperatures, K."""
    return Amount(value, "temperature_difference", resolution)


def degrees(value: float, resolution: float = 1.0) -> Amount:
    """An angle, °."""
    return Amount(value, "angle", resolution)


def turns(value_deg: float, resolution: float = 0.25) -> Amount:
    """Turns of a screw, given as an angle in °; the resolution in turns."""
    return Amount(number("value_deg", value_deg) / 360, "turns", resolution)


def seconds(value: float, resolution: float = 1.0) -> Amount:
    """A time, s."""
    return Amount(value, "time", resolution)


def kilograms(value: float, resolution: float = 0.001) -> Amount:
    """A mass, kg."""
    return Amount(value, "mass", resolution)


def gram_millimetres(value: float, resolution: float = 1.0, uncertainty: float | None = None) -> Amount:
    """An unbalance, g·mm."""
    return Amount(value, "unbalance", resolution, uncertainty)


def quarters(value: float) -> Amount:
    """A number that comes in quarters, with no more digits than it needs.

    >>> quarters(4.0).resolution, quarters(2.5).resolution, quarters(1.75).resolution
    (1.0, 0.5, 0.25)
    """
    if math.isinf(number("value", value)):
        return Amount(value, COUNT, 1.0)
    step = next((step for step in (1.0, 0.5) if abs(value / step - round(value / step)) < 1e-6), 0.25)
    return Amount(value, COUNT, step)


def count(value: float, resolution: float = 1.0) -> Amount:
    """A plain number."""
    return Amount(number("value", value), COUNT, resolution)


def share(value: float, resolution: float = 0.01) -> Amount:
    """A part of one, 0 to 1."""
    return Amount(value, SHARE, resolution)


def chance(value: float) -> Amount:
    """How likely something is, 0 to 1."""
    return Amount(value, CHANCE, 0.01)


def duration(seconds: float) -> Amount:
    """How long something lasts, s."""
    return Amount(seconds, DURATION, 1.0)
