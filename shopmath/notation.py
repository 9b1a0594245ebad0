"""Sizes as the trade writes them: `25x40x7`, `52 N7`, `M27x1`, `M6`."""

from __future__ import annotations

import re

from shopmath.tables import rows
from shopmath.validation import BadInput, gettext_noop, positive

LONGEST = 40  # characters
_TIMES = r"\s*[x×*]\s*"
_NUMBER = r"\d{1,4}(?:[.,]\d{1,3})?"
_SIZES = re.compile(rf"({_NUMBER}){_TIMES}({_NUMBER}){_TIMES}({_NUMBER})", re.IGNORECASE)
_FIT = re.compile(rf"(?:[ØøD⌀]\s*)?({_NUMBER})\s*((?:js|[a-hkmnprstu])\s?\d{{1,2}})", re.IGNORECASE)
_THREAD = re.compile(rf"M\s*({_NUMBER})(?:{_TIMES}({_NUMBER}))?", re.IGNORECASE)


def _number(text: str) -> float:
    return float(text.replace(",", "."))


def _matched(pattern: re.Pattern[str], field: str, text: str, example: str) -> re.Match[str]:
    message = str(text).strip()
    found = pattern.fullmatch(message) if len(message) <= LONGEST else None
    if found is None:
        raise BadInput(
            field,
            gettext_noop("{typed!r} is not read here: write it as {example}."),
            "not_read",
            typed=message[:LONGEST],
            example=example,
        )
    return found


def three_sizes(text: str) -> tuple[float, float, float]:
    """Bore, outside and width as `25x52x15`, mm; the smaller of the first two is the bore.

    Raises
    ------
    BadInput
        Anything else; a bore that is not smaller than the outside.

    Examples
    --------
    >>> three_sizes("25x52x15"), three_sizes("25 × 40 × 7"), three_sizes("52*25*15")
    ((25.0, 52.0, 15.0), (25.0, 40.0, 7.0), (25.0, 52.0, 15.0))
    """
    found = _matched(_SIZES, "sizes", text, "25x52x15")
    first, second, width = (positive("sizes", _number(each)) for each in found.groups())
    if first == second:
        raise BadInput(
            "sizes",
            gettext_noop("A bore of {first:g} mm in an outside of {second:g} mm leaves nothing between."),
            "nothing_between",
            first=first,
            second=second,
        )
    return min(first, second), max(first, second), width


def size_and_code(text: str) -> tuple[float, str]:
    """A size with its fit code as `52 N7`: mm, and the code as ISO 286 writes it.

    Raises
    ------
    BadInput
        Anything else.

    Examples
    --------
    >>> size_and_code("52 N7"), size_and_code("ø25k5"), size_and_code("47N7")
    ((52.0, 'N7'), (25.0, 'k5'), (47.0, 'N7'))
    """
    found = _matched(_FIT, "fit", text, "52 N7")
    return positive("fit", _number(found[1])), found[2].replace(" ", "")


def metric_thread(text: str) -> tuple[float, float]:
    """Diameter and pitch of a metric thread as `M27x1`, or `M6` with its coarse pitch, mm.

    Raises
    ------
    BadInput
        Anything else; a diameter whose coarse pitch is not in the table.

    Source
    ------
    ISO 261.

    Examples
    --------
    >>> metric_thread("M27x1"), metric_thread("M6"), metric_thread("m12×1,25")
    ((27.0, 1.0), (6.0, 1.0), (12.0, 1.25))
    """
    found = _matched(_THREAD, "thread", text, "M27x1 or M6")
    diameter = positive("thread", _number(found[1]))
    if found[2]:
        return diameter, positive("thread", _number(found[2]))
    pitches = [float(row["pitch_mm"]) for row in rows("threads") if row["designation"] == f"M{diameter:g}"]
    if not pitches:
        raise BadInput(
            "thread",
            gettext_noop("The coarse pitch of M{diameter:g} is not known here: write it with its pitch, such as M27x1."),
            "no_pitch",
            diameter=diameter,
        )
    return diameter, pitches[0]
