"""Quantities in any unit: `2.5 thou`, `.0025"`, `0,06 mm`, `300F`, `7.2 ft-lb` become one number in the core's own unit.

What is typed is read in three steps: a number (decimal, fraction, degrees and minutes, minutes and seconds), a unit word, and
the kind of thing asked for. A unit of another kind, two numbers, or a comma that could mean two things is refused with what was
understood, so that the words can stand beside the field.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from fractions import Fraction

from shopmath.conversion import convert
from shopmath.quantity_names import A_KIND, OF_KIND
from shopmath.validation import ABSOLUTE_ZERO_C, BadInput, MessageText, finite, gettext_noop, one_of, positive

CANONICAL = {
    "length": "mm",
    "temperature": "degC",
    "temperature_difference": "K",
    "torque": "N*m",
    "force": "N",
    "mass": "kg",
    "angle": "deg",
    "speed": "rpm",
    "time": "s",
    "thread_pitch": "mm",
    "pressure": "kPa",
}
KINDS = tuple(CANONICAL)
SHOWN = {"tenth_thou": "tenths", "degC": "°C", "N*m": "N·m", "deg": "°", "degF": "°F", "ft_lb": "ft-lb", "inch": "in"}
IMPERIAL = {
    "length": "inch",
    "temperature": "degF",
    "temperature_difference": "delta_degF",
    "torque": "ft_lb",
    "force": "lbf",
    "mass": "lb",
    "pressure": "psi",
}

# every spelling a bench uses -> the registry's word; the same spelling may mean different things for different kinds
_LENGTH = {
    **dict.fromkeys(("mm", "millimetre", "millimeter", "millimetres"), "mm"),
    **dict.fromkeys(("um", "µm", "μm", "micron", "microns"), "um"),
    **dict.fromkeys(("in", "inch", "inches", '"', "″", "''"), "inch"),
    **dict.fromkeys(("thou", "mil", "mils"), "thou"),
    **dict.fromkeys(("tenth", "tenths"), "tenth_thou"),
    **dict.fromkeys(("ft", "foot", "feet", "'"), "foot"),
    "cm": "cm",
    "m": "m",
}
_TORQUE = {
    **dict.fromkeys(("nm", "n·m", "n.m", "n m", "n-m", "n*m"), "N*m"),
    **dict.fromkeys(
        ("ft-lb", "ft lb", "ftlb", "ft-lbs", "ft lbs", "lb-ft", "lb ft", "lbft", "lbf-ft", "ft-lbf", "ft·lb", "ft.lb", "lb.ft", "lbf·ft"),
        "ft_lb",
    ),
    **dict.fromkeys(("in-lb", "in lb", "inlb", "in-lbs", "lb-in", "lb in", "lbin", "lbf-in", "in-lbf", "in·lb", "in.lb"), "inch*lbf"),
    **dict.fromkeys(("kgm", "kgf-m", "kgf·m", "kgf m", "m-kg", "kg-m", "mkg"), "kgf*m"),
    **dict.fromkeys(("kgcm", "kgf-cm", "kgf·cm", "kg-cm"), "kgf*cm"),
    "ncm": "N*cm",
}
UNITS: dict[str, dict[str, str]] = {
    "length": _LENGTH,
    "temperature": {
        **dict.fromkeys(("c", "°c", "degc", "deg c", "celsius", "℃"), "degC"),
        **dict.fromkeys(("f", "°f", "degf", "deg f", "fahrenheit", "℉"), "degF"),
        **dict.fromkeys(("k", "kelvin"), "K"),
    },
    "temperature_difference": {
        **dict.fromkeys(("k", "kelvin", "c", "°c", "degc", "c°"), "K"),
        **dict.fromkeys(("f", "°f", "degf", "f°"), "delta_degF"),
    },
    "torque": _TORQUE,
    "force": {
        **dict.fromkeys(("n", "newton", "newtons"), "N"),
        **dict.fromkeys(("lbf", "lb", "lbs"), "lbf"),
        **dict.fromkeys(("short ton", "short tons", "us ton", "us tons"), "US_ton_force"),
        **dict.fromkeys(("t", "tonne", "tonnes", "metric ton", "metric tons", "tf"), "tonne_force"),
        **dict.fromkeys(("long ton", "long tons", "uk ton", "uk tons"), "UK_ton_force"),
        "kn": "kN",
        "kgf": "kgf",
    },
    "mass": {
        **dict.fromkeys(("g", "gram", "grams"), "g"),
        **dict.fromkeys(("lb", "lbs"), "lb"),
        **dict.fromkeys(("oz", "ounce", "ounces"), "oz"),
        "kg": "kg",
        "mg": "mg",
    },
    "angle": {
        **dict.fromkeys(("deg", "°", "degree", "degrees"), "deg"),
        **dict.fromkeys(("rad", "radian", "radians"), "rad"),
        **dict.fromkeys(("'", "′", "arcmin"), "arcmin"),
        "turn": "turn",
        "turns": "turn",
    },
    "speed": {
        **dict.fromkeys(("rpm", "rev/min", "r/min", "1/min", "min-1"), "rpm"),
        **dict.fromkeys(("rps", "rev/s", "r/s"), "rps"),
        "rad/s": "rad/s",
    },
    "pressure": {
        **dict.fromkeys(("kpa", "kilopascal"), "kPa"),
        **dict.fromkeys(("bar", "bars"), "bar"),
        **dict.fromkeys(("psi", "lb/in2", "lbf/in2"), "psi"),
        **dict.fromkeys(("inhg", "in hg"), "inHg"),
        **dict.fromkeys(("mmhg", "mm hg"), "mmHg"),
        "mbar": "mbar",
        "pa": "Pa",
    },
    "time": {
        **dict.fromkeys(("s", "sec", "secs", "second", "seconds"), "s"),
        **dict.fromkeys(("min", "mins", "minute", "minutes", "m"), "min"),
        **dict.fromkeys(("h", "hr", "hrs", "hour", "hours"), "hour"),
    },
    "thread_pitch": {**_LENGTH, **dict.fromkeys(("tpi", "t.p.i.", "threads per inch", "per inch"), "tpi")},
}
LONGEST = 60  # characters in one reading
TONS = ("short ton", "tonne", "long ton")

_DECIMAL = r"(?:\d+(?:[.,]\d*)*|[.,]\d+)"
_NUMBER = re.compile(rf"(?P<sign>[-+]?)\s*(?:(?P<whole>\d+)\s+(?P<n1>\d+)/(?P<d1>\d+)|(?P<n2>\d+)/(?P<d2>\d+)|(?P<dec>{_DECIMAL}))")
_DMS = re.compile(r"([-+]?)(\d+(?:[.,]\d+)?)\s*°\s*(\d+(?:[.,]\d+)?)\s*['′](?:\s*(\d+(?:[.,]\d+)?)\s*(?:\"|″|''))?")
_CLOCK = re.compile(r"(?:(\d+):)?(\d+):(\d{2})")


@dataclass(frozen=True)
class Quantity:
    """A reading: the number and unit as typed, the value in the kind's canonical unit, and the text itself."""

    value: float
    unit: str
    canonical: float
    text: str
    kind: str = ""


def _decimal(text: str, kind: str) -> float:
    commas, points = text.count(","), text.count(".")
    whole, _, rest = text.partition(",")
    if commas == 1 and not points:
        if len(rest) == 3 and whole.strip("0"):
            raise BadInput(
                kind, gettext_noop("{text} can be read two ways. Type {whole}{rest} or {whole}.{rest}."), text=text, whole=whole, rest=rest
            )
        return float(f"{whole or '0'}.{rest}")
    if commas:
        raise BadInput(
            kind, gettext_noop("{text} has commas and points mixed. Type it with one decimal point and nothing else."), text=text
        )
    if points > 1:
        raise BadInput(kind, gettext_noop("{text} has more than one decimal point."), text=text)
    return float(text)


def _number(match: re.Match[str], kind: str) -> float:
    if match["dec"]:
        value = _decimal(match["dec"], kind)
    else:
        top, bottom = int(match["n1"] or match["n2"]), int(match["d1"] or match["d2"])
        if bottom == 0:
            raise BadInput(kind, gettext_noop("{strip} divides by zero."), strip=match[0].strip())
        value = float(Fraction(int(match["whole"] or 0)) + Fraction(top, bottom))
    return -value if match["sign"] == "-" else value


def _other_kind(unit: str) -> str | None:
    return next((kind for kind in KINDS if unit in UNITS[kind]), None)


def _a(kind: str) -> MessageText:
    return MessageText(A_KIND[kind])


def _unit(typed: str, kind: str, number: str, ton: str | None, field: str) -> str:
    known, word = UNITS[kind], typed.lower()
    if word not in known and word.endswith(".") and word.count(".") == 1:
        word = word[:-1]  # an abbreviation with its point: 5 in.
    if kind == "force" and word in ("ton", "tons"):
        if ton is None:
            meanings = " / ".join(f"{number} {name}" for name in TONS)
            raise BadInput(
                field,
                gettext_noop("{number} ton can be three things: {meanings}. Type the one on the press's plate."),
                number=number,
                meanings=meanings,
            )
        word = one_of("ton", ton, TONS)
    if word in known:
        return known[word]
    if kind == "force" and word == "kg":
        raise BadInput(field, gettext_noop("{number} kg is a mass. For a force type {number} kgf."), number=number)
    other = _other_kind(word)
    needed = ", ".join(dict.fromkeys(SHOWN.get(unit, unit) for unit in known.values()))
    if other:
        raise BadInput(
            field,
            gettext_noop("{number} was understood, but {typed} is a unit of {meant}; {kind} is wanted here ({wanted})."),
            number=number,
            typed=typed,
            meant=MessageText(OF_KIND[other]),
            kind=_a(kind),
            wanted=needed,
        )
    raise BadInput(
        field,
        gettext_noop("{number} was understood, but {typed!r} is no unit known here. For {kind}: {wanted}."),
        number=number,
        typed=typed,
        kind=_a(kind),
        wanted=needed,
    )


_FRACTIONS = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8", "⅓": "1/3", "⅔": "2/3"}
_JOINED = re.compile(r"(?<![\d./,-])(\d+)-(\d+/\d+)")  # 1-1/4 is written for 1 1/4


def _tidied(text: str) -> str:
    """Return a text with one spelling for dashes, spaces, and fractions as one letter or joined to their whole number."""
    for letter, fraction in _FRACTIONS.items():
        text = text.replace(letter, f" {fraction} ")
    tidy = " ".join(text.replace("−", "-").replace("–", "-").replace("\xa0", " ").split())
    return _JOINED.sub(r"\1 \2", tidy)


def parse(text: str, kind: str, default_unit: str | None = None, *, ton: str | None = None) -> Quantity:
    """Parse a text as a quantity of one kind.

    Parameters
    ----------
    text : str
        Number and unit as typed or as a gauge sent them.
    kind : str
        length, temperature, temperature_difference, torque, force, mass, angle, speed, time or thread_pitch.
    default_unit : str, optional
        Unit taken when none was typed, spelled as a person would.
    ton : str, optional
        What a bare ton means in this shop: `short ton`, `tonne` or `long ton`.

    Returns
    -------
    Quantity
        Canonical units: mm, °C, K, N·m, N, kg, deg, rpm, s, mm.

    Raises
    ------
    BadInput
        No number, two numbers, unknown unit, unit of another kind, a bare ton, a comma with two meanings, below absolute zero.

    Source
    ------
    NIST SP 811 (conversion factors, through Pint's definitions).

    Examples
    --------
    >>> parse("2.5 thou", "length").canonical
    0.0635
    >>> round(parse("300F", "temperature").canonical, 3)
    148.889
    >>> parse('1 1/4"', "length").canonical, parse("1½ in.", "length").canonical, round(parse("3 tenths", "length").canonical, 5)
    (31.75, 38.1, 0.00762)
    """
    one_of("kind", kind, KINDS)
    tidy = _tidied(str(text))
    if not tidy:
        raise BadInput(kind, gettext_noop("Nothing was typed; {kind} is wanted."), kind=_a(kind))
    if len(tidy) > LONGEST:
        raise BadInput(
            kind,
            gettext_noop("{start}… is {length} characters long; a reading has a number and a unit."),
            start=tidy[:20],
            length=len(tidy),
        )
    if kind == "angle" and (found := _DMS.fullmatch(tidy)):
        degrees, minutes, seconds = (_decimal(part, kind) if part else 0.0 for part in found.groups()[1:])
        if minutes >= 60 or seconds >= 60:
            raise BadInput(
                kind, gettext_noop("{tidy} has 60 minutes or seconds of arc, or more: it cannot be meant so."), "past_sixty", tidy=tidy
            )
        value = (degrees + minutes / 60 + seconds / 3600) * (-1 if found[1] == "-" else 1)
        return Quantity(value, "deg", value, text, kind)
    if kind == "time" and (found := _CLOCK.fullmatch(tidy)):
        hours, minutes, seconds = (int(part or 0) for part in found.groups())
        if seconds >= 60 or (found[1] and minutes >= 60):
            raise BadInput(kind, gettext_noop("{tidy} has 60 seconds or minutes, or more: it cannot be meant so."), "past_sixty", tidy=tidy)
        value = float(3600 * hours + 60 * minutes + seconds)
        return Quantity(value, "s", value, text, kind)
    match = _NUMBER.match(tidy)
    if not match:
        raise BadInput(
            kind,
            gettext_noop("{tidy!r} does not start with a number; {kind} such as {example} is wanted."),
            tidy=tidy,
            kind=_a(kind),
            example=_example(kind),
        )
    number, rest = match[0].strip(), tidy[match.end() :].strip()
    value = _number(match, kind)
    second = re.search(r"(?:^|\s)([-+]?[\d.,]*\d\S*)", rest)
    if second and rest.lower() not in UNITS[kind]:
        raise BadInput(
            kind,
            gettext_noop("Two numbers were typed: {number} and {second}. Type one reading at a time."),
            number=number,
            second=second[1],
        )
    if not rest and default_unit is None:
        raise BadInput(kind, gettext_noop("{number} of what? Add the unit, such as {kind}."), number=number, kind=_example(kind))
    unit = _unit(rest or default_unit or "", kind, number, ton, kind)
    canonical = convert(value, unit, CANONICAL[kind])
    if not math.isfinite(canonical):
        raise BadInput(kind, gettext_noop("{number} is too large to be a reading."), number=number)
    if kind == "temperature" and canonical < ABSOLUTE_ZERO_C:
        raise BadInput(
            kind, gettext_noop("{tidy} is below absolute zero ({absolute_zero_c} °C)."), tidy=tidy, absolute_zero_c=ABSOLUTE_ZERO_C
        )
    return Quantity(value, unit, round(canonical, 12), text, kind)


def _example(kind: str) -> str:
    return {
        "length": "0.06 mm or 2.5 thou",
        "temperature": "110 C or 230 F",
        "temperature_difference": "30 K",
        "torque": "40 Nm or 30 ft-lb",
        "force": "20 kN or 4500 lbf",
        "mass": "120 g",
        "angle": "75 deg",
        "speed": "8500 rpm",
        "time": "20 min or 1:30",
        "thread_pitch": "1.5 mm or 24 tpi",
        "pressure": "0.4 bar or 6 psi",
    }[kind]


def decimals(resolution: float) -> int:
    """Digits after the point that a resolution supports, never more.

    Examples
    --------
    >>> decimals(0.001), decimals(0.02), decimals(5)
    (3, 2, 0)
    """
    exponent = math.log10(positive("resolution", resolution))
    mantissa = resolution / 10 ** math.floor(exponent + 1e-9)
    whole_step = min(abs(mantissa - step) for step in (1, 2, 5)) < 1e-6
    return max(0, math.ceil(-exponent - 1e-9) if whole_step else math.floor(-exponent))


def show(quantity: Quantity, system: str, resolution: float) -> str:
    """Format a quantity with no more digits than its resolution supports.

    Parameters
    ----------
    quantity : Quantity
        As `parse` returned it.
    system : str
        `metric`, `imperial`, or `typed` for the unit it was typed in.
    resolution : float
        Smallest step that means anything, in the kind's canonical unit.

    Returns
    -------
    str

    Raises
    ------
    BadInput
        Unknown system, resolution not above 0.

    Examples
    --------
    >>> show(parse("2.5 thou", "length"), "metric", 0.001)
    '0.064 mm'
    >>> show(parse("0.0635 mm", "length"), "imperial", 0.001)
    '0.0025 in'
    """
    one_of("system", system, ("metric", "imperial", "typed"))
    canonical = CANONICAL[quantity.kind]
    unit = {"metric": canonical, "imperial": IMPERIAL.get(quantity.kind, canonical), "typed": quantity.unit}[system]
    if unit == "tpi":
        return f"{quantity.value:g} tpi"
    value = convert(finite("canonical", quantity.canonical), canonical, unit)
    step = resolution
    if unit != canonical:
        step = abs(convert(quantity.canonical + positive("resolution", resolution), canonical, unit) - value)
    digits = decimals(step)
    word = {"delta_degF": "°F", "inch*lbf": "in-lb"}.get(unit) or SHOWN.get(unit, unit)
    return f"{value:.{digits}f}{'' if word == '°' else ' '}{word}"
