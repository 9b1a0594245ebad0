"""Units that readers see, and who reads: metric, inch, or each kind of quantity as it was typed last.

Who reads is set once a request (`reading_in`). Conversion itself is `shopmath.conversion`'s.
"""

from __future__ import annotations

import math
from collections.abc import Hashable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from enum import StrEnum

from django.utils.timezone import get_current_timezone
from django.utils.translation import get_language
from django.utils.translation import gettext_lazy as _

from shopmath.amounts import COUNT, SHARE
from shopmath.conversion import scale_of
from shopmath.quantity import CANONICAL


class Units(StrEnum):
    """The unit system of a person."""

    METRIC = "metric"
    INCH = "inch"
    TYPED = "typed"  # each kind of quantity in the system it was last typed in


@dataclass(frozen=True)
class Unit:
    """A unit: its name on the page, its word for `shopmath.quantity`, and the spelling of a bare number typed in it."""

    name: str
    word: str
    typed: str = ""


@dataclass(frozen=True)
class Reader:
    """A reader: the system of units, and for "as typed" the system of each kind."""

    units: Units = Units.METRIC
    typed: Mapping[str, Units] = field(default_factory=dict)

    def system(self, kind: str) -> Units:
        return self.typed.get(kind, Units.METRIC) if self.units == Units.TYPED else self.units


reader: ContextVar[Reader] = ContextVar("reader", default=Reader())  # noqa: B039  frozen


def current_reader() -> Hashable:
    """Return what the text and numbers of a page depend on: the language, the time zone and the units."""
    told = reader.get()
    return get_language(), str(get_current_timezone()), told.units, tuple(sorted(told.typed.items()))


MM, MICRON, INCH, THOU = Unit("mm", "mm", "mm"), Unit("µm", "um", "um"), Unit("in", "inch", "in"), Unit("thou", "thou", "thou")
FT_LB, IN_LB = Unit("ft-lb", "ft_lb", "ft-lb"), Unit("in-lb", "inch*lbf", "in-lb")
KN, LBF, SHORT_TON = Unit("kN", "kN", "kN"), Unit("lbf", "lbf", "lbf"), Unit(_("short tons"), "US_ton_force", "short ton")  # type: ignore[arg-type]
METRIC = {
    "length": MM,
    "thread_pitch": MM,
    "temperature": Unit("°C", "degC", "C"),
    "temperature_difference": Unit("K", "K", "K"),
    "torque": Unit("N·m", "N*m", "Nm"),
    "force": KN,
    "mass": Unit("g", "g", "g"),
    "angle": Unit("°", "deg", "deg"),
    "speed": Unit("rpm", "rpm", "rpm"),
    "time": Unit("s", "s", "min"),
    "pressure": Unit("kPa", "kPa", "kPa"),
    "unbalance": Unit("g·mm", "g*mm"),
    "surface_speed": Unit("m/s", "m/s"),
    "turns": Unit("", ""),
    COUNT: Unit("", ""),
    SHARE: Unit("%", "percent"),
}
KG, LB = Unit("kg", "kg", "kg"), Unit("lb", "lb", "lb")
IN_INCHES = {  # threads, fits and bearings keep their trade names, and masses their grams
    **METRIC,
    "length": INCH,
    "temperature": Unit("°F", "degF", "F"),
    "temperature_difference": Unit("°F", "delta_degF", "°F"),
    "torque": FT_LB,
    "force": LBF,
    "pressure": Unit("psi", "psi", "psi"),
    "unbalance": Unit("g·in", "g*inch"),
    "surface_speed": Unit("ft/min", "ft/min"),
}
UNITS = {Units.METRIC: METRIC, Units.INCH: IN_INCHES}
KINDS_ADDED = {"unbalance": "g*mm", "surface_speed": "m/s", SHARE: "", COUNT: "", "turns": ""}
SMALL_MM, SMALL_IN_MM = 0.01, 2.54  # under these a length is told in µm and in thou
SMALL_TORQUE_NM, LARGE_FORCE_N = 13.5, 17_800.0  # under 10 ft-lb in in-lb, from 2 short tons in short tons
ASKED_SMALL_MM = 4.0  # a length that is usually no larger is asked for in thou


@contextmanager
def reading_in(units: str, typed: Mapping[str, Units] | None = None) -> Iterator[None]:
    """Numbers in a reader's units while this lasts."""
    token = reader.set(Reader(Units(units), typed or {}))
    try:
        yield
    finally:
        reader.reset(token)


def read_as_typed(units: Mapping[str, str]) -> None:
    """Use the unit in which each kind was typed last, for a reader who prefers numbers as typed."""
    now = reader.get()
    if now.units == Units.TYPED:
        reader.set(Reader(now.units, {kind: Units.INCH if unit in INCH_WORDS else Units.METRIC for kind, unit in units.items()}))


BY_WORD = {  # units that a reading is told in again as it was typed
    "length": {each.word: each for each in (MM, MICRON, INCH, THOU)},
    "torque": {each.word: each for each in (METRIC["torque"], FT_LB, IN_LB)},
    "force": {each.word: each for each in (KN, LBF, SHORT_TON)},
    "temperature": {each.word: each for each in (METRIC["temperature"], IN_INCHES["temperature"])},
    "pressure": {each.word: each for each in (METRIC["pressure"], IN_INCHES["pressure"])},
}
INCH_WORDS = {"inch", "thou", "tenth_thou", "foot", "degF", "delta_degF", "ft_lb", "inch*lbf", "lbf", "US_ton_force", "psi", "tpi", "inHg"}


def units_now() -> Units:
    """Return the unit system of the reader."""
    return reader.get().units


def unit_for(kind: str, value: float | None = None, resolution: float = 0.001) -> Unit:
    """Return the unit of a value of a kind: µm or thou for small lengths, in-lb for small torques, tons for large forces."""
    system = reader.get().system(kind)
    usual = UNITS[system][kind]
    if value is None or math.isinf(value):
        return usual
    size = abs(value)
    if kind == "length" and system == Units.METRIC and resolution <= 0.001 and 0 < round(size / resolution) < SMALL_MM / resolution:
        return MICRON
    if system == Units.INCH:
        if kind == "length" and size < SMALL_IN_MM and resolution < 0.1:
            return THOU
        if kind == "torque" and size < SMALL_TORQUE_NM:
            return IN_LB
        if kind == "force" and size >= LARGE_FORCE_N:
            return SHORT_TON
    return usual


def scale_to(kind: str, unit: Unit) -> tuple[float, float]:
    """Factor and offset from the core's unit of a kind to the one shown."""
    if kind == SHARE:
        return 100.0, 0.0
    return scale_of(CANONICAL.get(kind) or KINDS_ADDED[kind], unit.word)


def question_unit(kind: str, largest: float | None = None) -> Unit:
    """Return the unit of a bare number in a question, by the largest usual value of the quantity."""
    small = kind == "length" and largest is not None and largest <= ASKED_SMALL_MM
    return THOU if small and reader.get().system(kind) == Units.INCH else unit_for(kind)


def core_per_shown(kind: str) -> float:
    """Return how much of the core's unit one unit that a reader sees is: 25.4 for a length in inches."""
    return 1 / scale_to(kind, unit_for(kind))[0]


def core_per(kind: str, unit: Unit) -> float:
    """Return how much of the core's unit one of a unit is."""
    return 1 / scale_to(kind, unit)[0]
