"""Numbers for display: a value with its kind, the resolution to which it is known, and its uncertainty.

A rule or a judgement hands these on; which unit and how many digits a reader sees is decided where the sentence is made.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from shopmath.validation import number, numbers

COUNT = "count"  # a plain number: pieces, turns, rounds
SHARE = "share"  # 0 to 1
CHANCE = "chance"  # 0 to 1, said as so many in a hundred, never rounded up to certain
DURATION = "duration"  # s, shown in minutes or seconds, no finer than it is known
AS_GIVEN, NEAREST, DOWN, UP = "", "nearest", "down", "up"  # how a number is rounded when it is shown: a promise down, a minimum up
FINE, COARSE = 0.01, 0.05  # steps of a chance


@dataclass(frozen=True)
class Amount:
    """One number in the core's unit of its kind (mm, N, N·m, °C, s, °, kg, rpm; see `quantity.CANONICAL`).

    `resolution` is the step it is known to, in the same unit; `uncertainty` the expanded one (k = 2), None where nobody knows it.
    `toward` states how it is rounded when it is shown: as it is, with its uncertainty behind it (``""``), or without its uncertainty
    to the `nearest` step, `down` (a promise, a limit not to exceed) or `up` (a minimum).

    Examples
    --------
    >>> mm(0.0391, 0.001, 0.004)
    Amount(value=0.0391, kind='length', resolution=0.001, uncertainty=0.004, toward='')
    """

    value: float
    kind: str
    resolution: float
    uncertainty: float | None = None
    toward: str = AS_GIVEN

    def __post_init__(self) -> None:
        numbers(self)

    @property
    def is_rounded(self) -> bool:
        """Return True if it is displayed with its uncertainty or rounded to it."""
        return self.uncertainty is not None or bool(self.toward) or self.kind in (DURATION, CHANCE)


def mm(value: float, resolution: float = 0.001, uncertainty: float | None = None, toward: str = AS_GIVEN) -> Amount:
    """A length, mm."""
    return Amount(value, "length", resolution, uncertainty, toward)


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


def chance(value: float, *, measured: bool = False) -> Amount:
    """Return a probability, 0 to 1, for display in steps of 5 %.

    Parameters
    ----------
    value : float
        The probability.
    measured : bool
        Whether a contact thermometer read a temperature that it depends on: only then may more than 99 % be claimed.

    Examples
    --------
    >>> chance(0.97).resolution, chance(0.97, measured=True).resolution
    (0.05, 0.01)
    """
    return Amount(value, CHANCE, FINE if measured else COARSE)


def duration(seconds: float, half_width: float | None = None, toward: str = NEAREST) -> Amount:
    """Return a time, s, for display no finer than it is known.

    Parameters
    ----------
    seconds : float
        The time; infinity if there is no limit.
    half_width : float, optional
        Half of the width of its uncertainty interval, s. 0 for a time that is known exactly; a fifth of the time if it is not given.
    toward : str
        `down` for a promise, `up` for a minimum.

    Examples
    --------
    >>> duration(900, 510).uncertainty, duration(900).uncertainty
    (510, 180.0)
    """
    seconds = number("seconds", seconds)
    wide = 0.2 * abs(seconds) if half_width is None or math.isinf(number("half_width", half_width)) else half_width
    return Amount(seconds, DURATION, 1.0, wide if math.isfinite(wide) else None, toward)


def mounted_clearance(value_mm: float, toward: str = NEAREST) -> Amount:
    """Return the clearance that a mounted bearing has left, mm, for display in steps of 5 µm.

    Examples
    --------
    >>> mounted_clearance(0.0123).resolution
    0.005
    """
    return Amount(value_mm, "length", 0.005, None, toward)


def estimate(amount: Amount, half_width: float, toward: str = NEAREST) -> Amount:
    """Return an estimate for display without its uncertainty, but rounded to it.

    Parameters
    ----------
    amount : Amount
        The estimate.
    half_width : float
        Half of the width of its uncertainty interval, in the unit of the amount.
    toward : str
        `down` for a promise, `up` for a minimum.

    Examples
    --------
    >>> estimate(celsius(94), 12).uncertainty
    12
    """
    return replace(amount, uncertainty=half_width if math.isfinite(number("half_width", half_width)) else None, toward=toward)


def estimate_range(low: Amount, high: Amount) -> tuple[Amount, Amount]:
    """Return the ends of a range of what is not known better, rounded outward to what its width allows.

    Examples
    --------
    >>> low, high = estimate_range(mm(0.0012), mm(0.0331))
    >>> low.toward, high.toward, round(low.uncertainty, 5)
    ('down', 'up', 0.01595)
    """
    half_width = (high.value - low.value) / 2
    return estimate(low, half_width, DOWN), estimate(high, half_width, UP)


def plus_minus(amount: Amount) -> Amount:
    """Return the half-width of an uncertainty interval for display after ±, rounded by itself.

    Examples
    --------
    >>> plus_minus(mm(0.066)).uncertainty
    0.066
    """
    return estimate(amount, amount.value)


def known_exactly(amount: Amount) -> Amount:
    """Return an exact number for display: an assumption, or a limit of a table or a tolerance class.

    Examples
    --------
    >>> known_exactly(celsius(20)).is_rounded
    True
    """
    return replace(amount, uncertainty=0.0, toward=NEAREST)


def rough(amount: Amount, toward: str = NEAREST) -> Amount:
    """Return an estimate that is known within a factor of 2 to 3, such as a friction force, with two digits.

    Examples
    --------
    >>> rough(newtons(12_340)).resolution, rough(newton_metres(48.0), DOWN).resolution
    (1000.0, 1.0)
    """
    size = abs(amount.value)
    step = 10.0 ** (math.floor(math.log10(size)) - 1) if size and math.isfinite(size) else amount.resolution
    return replace(amount, resolution=step, toward=toward)
