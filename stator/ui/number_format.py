"""Formatting of numbers for a reader: in the reader's units, with no more digits than are known, with the uncertainty.

Every number on a page, in a drawing, in the job report or in a message is formatted here. The core computes in its own units, which are
converted to those of the reader (`stator.ui.units`).
"""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping, Sequence
from decimal import Decimal
from typing import Any

from django.utils.formats import get_format
from django.utils.functional import Promise
from django.utils.translation import gettext as _

from shopmath.amounts import CHANCE, DOWN, DURATION, NEAREST, UP, Amount, rough
from shopmath.amounts import COARSE as COARSE_CHANCE
from shopmath.amounts import FINE as FINEST_CHANCE
from shopmath.quantity import UNITS as WORDS_OF
from shopmath.quantity import decimals
from stator.ui.units import (
    BY_WORD,
    IN_INCHES,
    IN_LB,
    KG,
    LB,
    METRIC,
    MICRON,
    MM,
    SHORT_TON,
    THOU,
    Unit,
    Units,
    question_unit,
    reader,
    scale_to,
    unit_for,
)

MINUS, PLUS_MINUS = "−", "±"
DEGREES = ("temperature", "temperature_difference")
FINE = 1.4  # a step of the shown unit may be this much finer than what is known, and no more


def format_for(value: float, kind: str, unit: Unit, resolution: float) -> str:
    """A number without its unit in the unit that a question is asked in."""
    return _bare(Amount(value, kind, resolution), unit)


def typed_number(value: float, kind: str, unit: Unit) -> str:
    """Return a stored number as it is typed in a field that accepts bare numbers in a unit: exact in the unit in which it was entered.

    >>> from stator.ui.units import INCH
    >>> typed_number(25.4, "length", INCH), typed_number(0.0635, "length", THOU), typed_number(25.0, "length", INCH)
    ('1', '2.5', '25 mm')
    """
    factor, offset = scale_to(kind, unit)
    shown = value * factor + offset
    short = float(f"{shown:.5g}")
    if abs(short - shown) <= 1e-6 * max(abs(shown), 1.0):
        return plain(short, 9)
    usual = METRIC[kind]
    factor, offset = scale_to(kind, usual)
    return f"{plain(value * factor + offset, 9)} {usual.name}".strip()


def as_asked(amount: Amount, typed: str) -> str:
    """Return a number with its unit in the unit of a question's bare numbers, or in the reader's usual unit if that has none."""
    known = (*METRIC.values(), *IN_INCHES.values(), MICRON, THOU, IN_LB, SHORT_TON)
    word = WORDS_OF.get(amount.kind, {}).get(typed.lower(), "")
    unit = next((each for each in known if each.word == word), None) if word else None
    return _show(amount, unit) if unit else show(amount)


def figure(value: float, digits: int) -> str:
    """A number with so many digits after the point, with the reader's decimal sign; a minus that is one."""
    text = f"{value:.{max(digits, 0)}f}" if digits >= 0 else f"{round(value, digits):.0f}"
    if not text.strip("-0."):
        text = text.lstrip("-")
    sign = str(get_format("DECIMAL_SEPARATOR"))
    return text.replace(".", sign).replace("-", MINUS)


def plain(value: float, digits: int = 6) -> str:
    """A number with no more digits than it needs: a trade size, a count, a ratio.

    >>> plain(25.0), plain(1.25), plain(-3.5), plain(0.00012345, 2)
    ('25', '1.25', '−3.5', '0.00012')
    """
    rounded = float(f"{value:.{digits}g}")
    return figure(rounded, max(0, -Decimal(repr(rounded)).normalize().as_tuple().exponent))  # type: ignore[operator]


def two_digits(value: float, toward: str = NEAREST) -> str:
    """Return an estimate that is known within a factor of 2 to 3 with two digits.

    >>> two_digits(5.56), two_digits(5.56, "down"), two_digits(737), two_digits(0.0931), two_digits(0.0)
    ('5.6', '5.5', '740', '0.093', '0')
    """
    step = 10.0 ** (math.floor(math.log10(abs(value))) - 1) if value else 1.0
    return plain(to_step(value, step, toward))


def significant(value: float, digits: int) -> float:
    """Return a number rounded to significant digits, as it is stored."""
    return float(f"{value:.{digits}g}")


def trade(*sizes_mm: float) -> str:
    """Return a size by its trade name, which is metric for every reader: `25 × 52 × 15`."""
    return " × ".join(plain(size) for size in sizes_mm)


def thread(diameter_mm: float, pitch_mm: float) -> str:
    """A thread by its diameter and pitch, a pitch of the inch series in threads per inch.

    >>> thread(26.9, 1.0), thread(18.95, 25.4 / 26)
    ('26.9 × 1', '18.95 × 26 tpi')
    """
    per_inch = round(25.4 / pitch_mm)
    of_inch = abs(pitch_mm * per_inch - 25.4) < 0.01 and abs(pitch_mm / 0.05 - round(pitch_mm / 0.05)) > 0.01
    return f"{plain(diameter_mm)} × {per_inch} tpi" if of_inch else trade(diameter_mm, pitch_mm)


def exact(value: float, kind: str = "length", finest: float = 1e-5) -> Amount:
    """Return an exact number, such as a limit of a card: with all its digits, in another unit with three.

    >>> exact(0.25).resolution, exact(110.0, "temperature").resolution
    (0.01, 1.0)
    """
    unit = unit_for(kind, value)
    if value and not math.isinf(value) and unit not in (METRIC.get(kind), MICRON) and kind not in DEGREES:
        factor, offset = scale_to(kind, unit)
        return Amount(value, kind, 10.0 ** (math.floor(math.log10(abs(value * factor + offset))) - 2) / factor)
    for step in (1.0, 0.1, 0.01, 1e-3, 1e-4, 1e-5, 1e-6):
        if step >= finest and abs(value / step - round(value / step)) < 1e-6:
            return Amount(value, kind, max(step, _four_digits(value)))
    return Amount(value, kind, max(finest, _four_digits(value)))


def _four_digits(value: float) -> float:
    """The step of a number's fourth digit; a whole number loses none."""
    return min(1.0, 10.0 ** (math.floor(math.log10(abs(value))) - 3)) if value else 0.0


def size(value_mm: float) -> str:
    """A length that somebody wrote down, in the reader's unit."""
    return show(exact(value_mm))


def thicknesses(sizes_mm: Sequence[float], joined: str = " + ") -> str:
    """Return the thicknesses of stacked shims or blades with one unit: `0.10 + 0.25 mm`, or in thou."""
    unit = question_unit("length", 0.0)
    spelled = (plain(each) if unit == MM else _bare(Amount(each, "length", 0.01), unit) for each in sizes_mm)
    return with_unit(joined.join(spelled), unit)


def signed(value: float) -> str:
    """A whole number with its sign, for an axis on both sides of zero."""
    return f"{'+' if value > 0 else ''}{figure(value, 0)}"


def minutes(seconds: float) -> str:
    """A time to the minute."""
    return _("{count} min").format(count=figure(seconds / 60, 0))


def pull(force_n: float) -> str:
    """A small force, such as that of an unbalance: in N, or in lbf."""
    if reader.get().system("force") == Units.INCH:
        return show(Amount(force_n, "force", 1.0))
    return f"{figure(force_n, 0)} N"


def weigh(mass_kg: float) -> str:
    """A mass as it is felt in the hand: in kg, or in lb."""
    unit = LB if reader.get().system("force") == Units.INCH else KG
    shown = mass_kg * scale_to("mass", unit)[0]
    return with_unit(plain(shown, 2 if shown < 10 else 3), unit)


def stress(mpa: float) -> str:
    """Return a stress with two digits: in MPa, or in thousands of pounds per square inch."""
    if reader.get().system("force") == Units.INCH:
        return f"{two_digits(mpa * 0.1450377)} ksi"
    return f"{two_digits(mpa)} MPa"


def unit_of(kind: str) -> str:
    """The unit a reader sees for a kind of quantity."""
    return unit_for(kind).name


def digits_of(resolution: float, kind: str, unit: Unit) -> int:
    """Digits of a value known to a step of the core's unit: in another unit as many as lose nothing of it.

    >>> [digits_of(step, "length", THOU) for step in (0.01, 0.001, 0.0127)]
    [1, 2, 1]
    """
    step = resolution * scale_to(kind, unit)[0]
    whole = decimals(min(step, 1.0))  # no digits after the point for any larger step, however large
    if METRIC.get(kind) == unit or unit == MICRON:
        return whole
    even = 10.0**-whole
    return whole if abs(step / even - round(step / even)) < 1e-3 else math.ceil(-math.log10(FINE * step))


LARGEST_STEP = 0.5  # of a time, as a share of it
TIME_STEPS_S = (5.0, 10.0, 30.0, 60.0, 120.0, 300.0, 600.0, 1800.0, 3600.0)


def step_of(half_width: float) -> float:
    """Return the step for an uncertain number: the largest of 1, 2 and 5 times a power of ten up to a fifth of its half-width.

    >>> step_of(0.004), step_of(0.5), step_of(12), step_of(25)
    (0.0005, 0.1, 2.0, 5.0)
    """
    highest = half_width / 5 * (1 + 1e-9)
    power = 10.0 ** math.floor(math.log10(highest))
    return next(digit for digit in (5, 2, 1) if digit * power <= highest) * power


def time_step_of(half_width_s: float) -> float:
    """Return the step to which an uncertain time is rounded, s.

    The steps are 5, 10 and 30 s, 1, 2 and 5 min and so on; 1 s for an exact time.

    >>> time_step_of(0), time_step_of(20), time_step_of(50), time_step_of(510), time_step_of(300)
    (1.0, 5.0, 10.0, 60.0, 60.0)
    """
    if not half_width_s:
        return 1.0
    return max((step for step in TIME_STEPS_S if step <= half_width_s / 5 * (1 + 1e-9)), default=TIME_STEPS_S[0])


def to_step(value: float, step: float, toward: str = NEAREST) -> float:
    """Return a number rounded to a step: to the nearest one, down or up.

    >>> to_step(24.4, 5), to_step(24.4, 5, "down"), to_step(21.0, 5, "up"), to_step(20.0, 5, "up")
    (25.0, 20.0, 25.0, 20.0)
    """
    steps = value / step
    whole = math.floor(steps + 1e-9) if toward == DOWN else math.ceil(steps - 1e-9) if toward == UP else math.floor(steps + 0.5)
    return float(whole * step)


def _bare(amount: Amount, unit: Unit) -> str:
    factor, offset = scale_to(amount.kind, unit)
    value, digits = amount.value * factor + offset, digits_of(amount.resolution, amount.kind, unit)
    known = step_of(amount.uncertainty * factor) if amount.uncertainty else 0.0
    if known > amount.resolution * factor * (1 + 1e-9):
        return figure(to_step(value, known, amount.toward), decimals(min(known, 1.0)))
    if amount.toward:
        step = step_of(5 * amount.resolution * factor)
        return figure(to_step(value, step, amount.toward), decimals(min(step, 1.0)))
    return figure(value, digits)


def bare(amount: Amount) -> str:
    """Return a number for a drawing, without its unit if the kind has only one: mm are omitted, thou are shown."""
    unit = unit_for(amount.kind, amount.value, amount.resolution)
    return with_unit(_bare(amount, unit), unit) if unit == THOU else _bare(amount, unit_for(amount.kind))


def with_unit(text: str, unit: Unit) -> str:
    """A number and its unit."""
    if not unit.name:
        return text
    return f"{text}{'' if unit.name == '°' else ' '}{unit.name}"


def lasting(seconds: float | None) -> str:
    """A time as a clock shows it: `6:52` or `1:04:10`."""
    if seconds is None:
        return _("an unknown time")
    if math.isinf(seconds):
        return _("as long as you like")
    whole = max(0, round(seconds))
    hours, rest = divmod(whole, 3600)
    return f"{hours}:{rest // 60:02d}:{rest % 60:02d}" if hours else f"{rest // 60}:{rest % 60:02d}"


def odds(amount: Amount) -> str:
    """Return a probability in steps of 5 %, rounded down; more than 99 % only if it is known that finely.

    >>> from shopmath.amounts import chance
    >>> odds(chance(0.934)), odds(chance(0.999)), odds(chance(0.999, measured=True)), odds(chance(0.02))
    ('90 %', 'more than 95 %', 'more than 99 %', 'less than 5 %')
    """
    if amount.value > 0.99 and amount.resolution <= FINEST_CHANCE:
        return _("more than 99 %")
    if amount.value > 0.95:
        return _("more than 95 %")
    if amount.value < 0.05:
        return _("less than 5 %")
    return _("{count} %").format(count=round(100 * to_step(amount.value, COARSE_CHANCE, DOWN)))


def spelled_time(amount: Amount) -> str:
    """Return a time no finer than it is known; only a time that is known exactly shows every second.

    >>> from shopmath.amounts import duration
    >>> [spelled_time(duration(*each)) for each in ((1471, 750), (233, 50, "down"), (17, 3), (90, 0), (9000, 3000))]
    ['24 min', '3:50', '15 s', '1:30', '2 h 30 min']
    """
    half, seconds = amount.uncertainty or 0.0, rounded_s(amount)
    if math.isinf(seconds):
        return lasting(seconds)
    if seconds < 60 and half:
        return _("{count} s").format(count=figure(seconds, 0))
    if seconds % 60 or not half:
        return lasting(seconds)
    hours, rest = divmod(round(seconds / 60), 60)
    if hours < 2:
        return _("{count} min").format(count=figure(seconds / 60, 0))
    return _("{hours} h {minutes} min").format(hours=hours, minutes=rest) if rest else _("{hours} h").format(hours=hours)


def rounded_s(amount: Amount) -> float:
    """Return a time rounded to its uncertainty, s.

    The step is at most half of the time, so that a short time does not vanish.
    """
    if math.isinf(amount.value):
        return amount.value
    half_width = min(amount.uncertainty or 0.0, 5 * LARGEST_STEP * abs(amount.value))
    return max(0.0, to_step(amount.value, time_step_of(half_width), amount.toward or NEAREST))


IN_WORDS = {CHANCE: odds, DURATION: spelled_time}  # kinds that are not shown as a number with a unit


def show(amount: Amount) -> str:
    """A number with its unit and, where it is known, its uncertainty: `0.039 ± 0.004 mm`.

    >>> from shopmath.amounts import mm, newtons
    >>> show(mm(0.0391, 0.001, 0.004)), show(mm(-0.5, 0.01)), show(newtons(4230)), show(mm(9, 1, 0.4))
    ('0.039 ± 0.004 mm', '−0.50 mm', '4.2 kN', '9 ± 0.4 mm')
    """
    if amount.kind in IN_WORDS:
        return IN_WORDS[amount.kind](amount)
    if math.isinf(amount.value):
        return _("no limit")
    return _show(amount, unit_for(amount.kind, amount.value, amount.resolution))


def _show(amount: Amount, unit: Unit) -> str:
    text = _bare(amount, unit)
    if amount.uncertainty is not None and not amount.toward:
        text = f"{text} {PLUS_MINUS} {_uncertainty(amount.uncertainty, amount, unit)}"
    return with_unit(text, unit)


def _uncertainty(uncertainty: float, amount: Amount, unit: Unit) -> str:
    """With the digits of the value, or as many more as it takes for it not to read as none."""
    wide, digits = uncertainty * scale_to(amount.kind, unit)[0], digits_of(amount.resolution, amount.kind, unit)
    if wide:
        digits = min(digits, decimals(min(step_of(wide), 1.0)))
    return figure(wide, next((more for more in range(digits, digits + 3) if round(wide, more)), digits))


def _pair(low: Amount, high: Amount) -> tuple[str, str]:
    """Two ends in one unit, that of the larger."""
    wide = max((end for end in (low, high) if not math.isinf(end.value)), key=lambda end: abs(end.value), default=high)
    unit = unit_for(high.kind, wide.value, max(low.resolution, high.resolution))
    return _bare(low, unit), _show(high, unit) if not math.isinf(high.value) else show(high)


def between(low: Amount | None, high: Amount | None) -> str:
    """Return limits as text: `0.10 to 0.20 mm`, `max 0.030 mm`, `min 0.10 mm`; empty if there are none."""
    if low is not None and high is not None:
        return band(low, high)
    if high is not None:
        return _("max {high}").format(high=show(high))
    return _("min {low}").format(low=show(low)) if low is not None else ""


def band(low: Amount, high: Amount) -> str:
    """Return a range as text: `1.0 to 9.0 kN`; both ends of a range of times in the same notation.

    >>> from shopmath.amounts import duration, newtons
    >>> band(newtons(1000), newtons(9000)), band(duration(390, 150), duration(900, 150)), band(duration(600, 300), duration(900, 300))
    ('1.0 to 9.0 kN', '6:30 to 15:00', '10 to 15 min')
    """
    first, last = (show(low), show(high)) if low.kind == DURATION else _pair(low, high)
    if low.kind == DURATION and not math.isinf(high.value):
        lowest, highest = rounded_s(low), rounded_s(high)
        if (":" in first) != (":" in last):
            first, last = lasting(lowest), lasting(highest)
        elif lowest >= 60 and not lowest % 60 and highest < 7200 and not highest % 60:
            first = figure(lowest / 60, 0)
    return _("{low} to {high}").format(low=first, high=last)


def rough_band(low: Amount, high: Amount) -> str:
    """Return a range of an estimate that is known within a factor of 2 to 3, with two digits."""
    return band(rough(low), rough(high))


def as_read(value: float, kind: str, typed: str, resolution: float) -> str:
    """A reading in the reader's unit; a thread's pitch in threads per inch where it was read so."""
    if typed == "tpi":
        return _("{count} tpi").format(count=plain(25.4 / value, 4))
    if reader.get().units == Units.TYPED and typed in BY_WORD.get(kind, {}):
        return _show(Amount(value, kind, resolution), BY_WORD[kind][typed])
    return show(Amount(value, kind, resolution))


def reads_otherwise(kind: str, units: str) -> bool:
    """Return True if the reader has a kind of quantity in other units than those of a record."""
    return kind in METRIC and reader.get().system(kind) != (units or Units.METRIC)


def beside(recorded: str, units: str, amount: Amount | None, low: Amount | None = None, high: Amount | None = None) -> str:
    """Return a recorded value in the units of its shop, followed by the reader's units if they differ."""
    of = amount or high or low
    if of is None or not recorded or not reads_otherwise(of.kind, units):
        return recorded
    own = show(amount) if amount else between(low, high)
    return recorded if own in ("", recorded) else _("{recorded} ({own})").format(recorded=recorded, own=own)


def listed(names: Sequence[str]) -> str:
    """Names in a row: `1, 2 and 3`."""
    if len(names) < 2:
        return "".join(names)
    return _("{first} and {last}").format(first=", ".join(names[:-1]), last=names[-1])


def shown(values: Mapping[str, Any], names: Collection[str] | None = None) -> dict[str, Any]:
    """Return the values of a sentence formatted for the reader, all or those of some names.

    A small length is shown in µm only if every other length of the sentence is as small, because nobody compares µm with mm.

    >>> from shopmath.amounts import mm
    >>> shown({"runout": mm(0.007), "limit": mm(0.03)}), shown({"margin": mm(0.007)})
    ({'runout': '0.007 mm', 'limit': '0.030 mm'}, {'margin': '7 µm'})
    """
    lengths = [each for each in values.values() if isinstance(each, Amount) and each.kind == "length" and each.value]
    units = {unit_for("length", each.value, each.resolution) for each in lengths}
    usual = MM if MICRON in units and len(units) > 1 else None
    return {name: _shown(value, usual) for name, value in values.items() if names is None or name in names}


def _shown(value: Any, length: Unit | None = None) -> Any:
    if isinstance(value, Amount):
        return _show(value, length) if length and value.kind == "length" and not math.isinf(value.value) else show(value)
    if isinstance(value, (tuple, list)):
        return listed([str(_shown(each, length)) for each in value])
    return str(value) if isinstance(value, Promise) else value
