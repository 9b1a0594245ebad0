"""The line protocol of gauges: one reading per line, a number with an optional unit and label.

    +0.034 mm
    0.0013 in run-out
    118.4 C
    61.2 kN ram

Numbers and units as in the reading bar, LF or CR LF at the end. A line that begins with # is a comment; `#can WORD = what it does` offers a
control, which only simulated gauges have.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from shopmath.quantity import KINDS, UNITS, parse
from shopmath.validation import BadInput

LONGEST = 120  # characters; a longer line is no gauge's
_READING = re.compile(r"(?P<number>[+\-−]?\s*\d*[.,]?\d+)\s*(?P<unit>[^\s\d=:;,]*)(?:\s+(?P<label>[^\s\d+.\-].*))?")
_SAID = {unit: kind for kind in reversed(KINDS) for unit in UNITS.get(kind, {})}


OWN_UNIT = {"length": "mm", "temperature": "C", "force": "N", "angle": "deg"}  # of a line that says none


class InvalidLine(ValueError):
    """A line that is not a reading."""


class WrongUnit(ValueError):
    """A reading of something else than this gauge measures."""


@dataclass(frozen=True)
class Line:
    """A reading as sent: the text for the reading bar, its value in the kind's own unit, and its label."""

    text: str
    canonical: float
    label: str


def read_line(said: str, kind: str, unit: str) -> Line:
    """Parse one line.

    Parameters
    ----------
    said : str
        The line without its end.
    kind : str
        The kind of the gauge: length, temperature, force or angle.
    unit : str
        The unit of lines without one.

    Returns
    -------
    Line

    Raises
    ------
    Garbage, WrongUnit
        With a message that names the line.

    Examples
    --------
    >>> read_line("+0.034 mm run-out", "length", "mm")
    Line(text='+0.034 mm', canonical=0.034, label='run-out')
    >>> read_line("12.5", "force", "kN").canonical
    12500.0
    """
    shown = "".join(each if each.isprintable() else "?" for each in said.strip())[:40]
    found = _READING.fullmatch(said.strip()) if len(said) <= LONGEST else None
    if not found:
        raise InvalidLine(f"It said {shown!r}, which is no reading.")
    word, label = found["unit"].lower(), found["label"] or ""
    if word and word not in _SAID:
        word, label = "", f"{found['unit']} {label}".strip()
    number = found["number"].replace(" ", "").replace("−", "-")
    text = f"{number} {found['unit'] if word else unit}".strip()
    try:
        return Line(text, parse(text, kind, unit).canonical, label)
    except BadInput as error:
        if word and word not in UNITS.get(kind, {}):
            raise WrongUnit(f"It said {shown!r}: that is {_SAID[word]}, and here it measures {kind}.") from error
        raise InvalidLine(f"It said {shown!r}: {error.message}") from error
