"""Numbers as a reader sees them: the unit of the reader's system, no more digits than are known, the uncertainty beside.

Every number on a page, a drawing, the job sheet or in a message comes through here.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Any

from django.utils.functional import Promise
from django.utils.translation import gettext as _

from shopmath.amounts import CHANCE, COUNT, DURATION, SHARE, Amount
from shopmath.quantity import decimals

MINUS, PLUS_MINUS = "−", "±"
SCALED = {  # kind -> factor from the core's unit, unit; metric
    "length": (1.0, "mm"),
    "thread_pitch": (1.0, "mm"),
    "temperature": (1.0, "°C"),
    "temperature_difference": (1.0, "K"),
    "torque": (1.0, "N·m"),
    "force": (1e-3, "kN"),
    "mass": (1e3, "g"),
    "angle": (1.0, "°"),
    "speed": (1.0, "rpm"),
    "time": (1.0, "s"),
    "pressure": (1.0, "kPa"),
    "unbalance": (1.0, "g·mm"),
    "surface_speed": (1.0, "m/s"),
    "turns": (1.0, ""),
    COUNT: (1.0, ""),
    SHARE: (100.0, "%"),
}


def figure(value: float, digits: int) -> str:
    """A number with so many digits after the point; a minus that is one."""
    text = f"{value:.{digits}f}"
    if not text.strip("-0."):
        text = text.lstrip("-")
    return text.replace("-", MINUS)


def unit_of(kind: str) -> str:
    """The unit a reader sees for a kind of quantity."""
    return SCALED[kind][1]


def scaled(value: float, kind: str) -> float:
    """A value of the core in the unit a reader sees."""
    return value * SCALED[kind][0]


def bare(amount: Amount) -> str:
    """A number without its unit, for a drawing whose unit is said once."""
    factor, _unit = SCALED[amount.kind]
    return figure(amount.value * factor, decimals(amount.resolution * factor))


def lasting(seconds: float | None) -> str:
    """A time as a clock shows it: `6:52` or `1:04:10`."""
    if seconds is None:
        return _("an unknown time")
    if math.isinf(seconds):
        return _("as long as you like")
    whole = max(0, round(seconds))
    hours, rest = divmod(whole, 3600)
    return f"{hours}:{rest // 60:02d}:{rest % 60:02d}" if hours else f"{rest // 60}:{rest % 60:02d}"


def odds(chance: float) -> str:
    """A chance as a mechanic says it, never rounded up to certain."""
    if chance > 0.999:
        return _("more than 99.9 %")
    if chance < 0.01:
        return _("less than 1 %")
    return _("{count} %").format(count=math.floor(100 * chance))


IN_WORDS = {CHANCE: odds, DURATION: lasting}  # kinds that are not said as a number with a unit


def show(amount: Amount) -> str:
    """A number with its unit and, where it is known, its uncertainty: `0.039 ± 0.004 mm`.

    >>> from shopmath.amounts import mm, newtons
    >>> show(mm(0.0391, 0.001, 0.004)), show(mm(-0.5, 0.01)), show(newtons(4230)), show(mm(9, 1, 0.4))
    ('0.039 ± 0.004 mm', '−0.50 mm', '4.2 kN', '9 ± 0.4 mm')
    """
    if amount.kind in IN_WORDS:
        return IN_WORDS[amount.kind](amount.value)
    factor, unit = SCALED[amount.kind]
    if math.isinf(amount.value):
        return _("no limit")
    text = bare(amount)
    if amount.uncertainty is not None:
        text = f"{text} {PLUS_MINUS} {figure(amount.uncertainty * factor, _told(amount.uncertainty * factor, amount.resolution * factor))}"
    space = "" if unit == "°" else " "
    return f"{text}{space}{unit}" if unit else text


def _told(uncertainty: float, resolution: float) -> int:
    """Digits of an uncertainty: the value's own, or as many more as it takes for it not to read as none."""
    digits = decimals(resolution)
    return next((more for more in range(digits, digits + 3) if round(uncertainty, more)), digits)


def between(low: Amount | None, high: Amount | None) -> str:
    """Limits in words: `0.10 to 0.20 mm`, `max 0.030 mm`, `min 0.10 mm`; empty where there are none."""
    if low is not None and high is not None:
        return _("{low} to {high}").format(low=bare(low), high=show(high))
    if high is not None:
        return _("max {high}").format(high=show(high))
    return _("min {low}").format(low=show(low)) if low is not None else ""


def band(low: Amount, high: Amount) -> str:
    """A range of what is not known better: `1.0 to 9.0 kN`."""
    return _("{low} to {high}").format(low=bare(low), high=show(high))


def listed(names: Sequence[str]) -> str:
    """Names in a row: `1, 2 and 3`."""
    if len(names) < 2:
        return "".join(names)
    return _("{first} and {last}").format(first=", ".join(names[:-1]), last=names[-1])


def shown(values: Mapping[str, Any]) -> dict[str, Any]:
    """Values for a sentence: amounts spelled for the reader, names listed, words as they are."""
    return {name: _shown(value) for name, value in values.items()}


def _shown(value: Any) -> Any:
    if isinstance(value, Amount):
        return show(value)
    if isinstance(value, (tuple, list)):
        return listed([str(_shown(each)) for each in value])
    return str(value) if isinstance(value, Promise) else value
