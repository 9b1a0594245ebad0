"""Fit codes: from `N7` on a 47 mm bore to the limits the maker worked to.

A code is a letter (capital: hole, small: shaft) and a tolerance grade. The letter gives the deviation nearest to the nominal
size, the grade the width of the band. Deep bands of interference holes shift by the table's delta.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

from shopmath.tables import number, rows
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, numbers, ordered, positive

GRADES = range(4, 12)
LARGEST_MM = 250.0
_CODE = re.compile(r"([A-Za-z]{1,2})\s*(\d{1,2})")


@dataclass(frozen=True)
class Limits:
    """Deviations from the nominal size, µm, lower first."""

    lower_um: float
    upper_um: float

    def __post_init__(self) -> None:
        ordered("limits", finite("lower_um", self.lower_um), finite("upper_um", self.upper_um))

    @property
    def mean_um(self) -> float:
        return (self.lower_um + self.upper_um) / 2

    @property
    def width_um(self) -> float:
        return self.upper_um - self.lower_um


@dataclass(frozen=True)
class Fit:
    """Lowest and highest interference, mm; the lowest may be negative, which is a clearance."""

    min_interference_mm: float
    max_interference_mm: float

    def __post_init__(self) -> None:
        numbers(self)


@lru_cache(maxsize=512)
def _row_for(table: str, nominal_mm: float, **match: str) -> tuple[dict[str, str], ...]:
    return tuple(
        row
        for row in rows(table)
        if float(row["over_mm"]) < nominal_mm <= float(row["upto_incl_mm"]) and all(row[key] == value for key, value in match.items())
    )


def tolerance_um(grade: int, nominal_mm: float) -> float:
    """Width of the tolerance band of an IT grade.

    Examples
    --------
    >>> tolerance_um(7, 52)
    30.0
    """
    _check_size(nominal_mm)
    if grade not in GRADES:
        raise BadInput("code", gettext_noop("Grade {grade} is outside what is known here (4 to 11)."), grade=grade)
    return float(_row_for("iso286_it", nominal_mm)[0][f"IT{grade}_um"])


def _check_size(nominal_mm: float) -> None:
    if positive("nominal_mm", nominal_mm) > LARGEST_MM:
        raise BadInput(
            "nominal_mm",
            gettext_noop("{nominal_mm:g} mm is beyond the table, which ends at {largest_mm:g} mm."),
            nominal_mm=nominal_mm,
            largest_mm=LARGEST_MM,
        )


def limits(code: str, nominal_mm: float) -> Limits:
    """Limits of a fit code at a nominal size.

    Parameters
    ----------
    code : str
        One tolerance class such as `N7` (hole) or `k5` (shaft).
    nominal_mm : float
        Nominal diameter, mm, above 0 up to 250.

    Returns
    -------
    Limits
        Lower and upper deviation, µm.

    Raises
    ------
    BadInput
        A code that is none, a letter or grade that is not in the table at this size, a size beyond it. Nothing is extrapolated.

    Notes
    -----
    Holes K, M, N up to IT8 and P to Z up to IT7 are shifted by delta = IT(n) - IT(n-1).

    Source
    ------
    ISO 286-1, tables of fundamental deviations and standard tolerance grades.

    Examples
    --------
    >>> limits("N7", 52)
    Limits(lower_um=-39.0, upper_um=-9.0)
    >>> limits("k5", 25)
    Limits(lower_um=2.0, upper_um=11.0)
    """
    found = _CODE.fullmatch(str(code).strip())
    if not found:
        raise BadInput(
            "code",
            gettext_noop("{strip!r} is no fit code. It is a letter and a grade, such as N7 for a bore or k5 for a shaft."),
            strip=str(code).strip(),
        )
    letter, grade = found[1], int(found[2])
    _check_size(nominal_mm)
    if grade not in GRADES:
        raise BadInput(
            "code",
            gettext_noop("{typed} was read as letter {letter}, grade {grade}; grades 4 to 11 are known here."),
            typed=code,
            letter=letter,
            grade=grade,
        )
    band = tolerance_um(grade, nominal_mm)
    kind = "hole" if letter[0].isupper() else "shaft"
    found_rows = [
        row
        for row in _row_for("iso286_deviations", nominal_mm, kind=kind, letter=letter)
        if int(row["grade_min"]) <= grade <= int(row["grade_max"])
    ]
    if not found_rows:
        known = sorted({row["letter"] for row in rows("iso286_deviations") if row["kind"] == kind})
        if letter not in known:
            raise BadInput(
                "code",
                gettext_noop("{letter} is no {kind} letter in the table. Known for a {kind}: {known}."),
                letter=letter,
                kind=kind,
                known=" ".join(known),
            )
        raise BadInput(
            "code",
            gettext_noop("The table has no {letter}{grade} at {nominal_mm:g} mm."),
            letter=letter,
            grade=grade,
            nominal_mm=nominal_mm,
        )
    row = found_rows[0]
    if row["deviation"] == "+-IT/2":
        return Limits(-band / 2, band / 2)
    value = float(row["value_um"])
    if row["delta_applies"] == "yes":
        value += number(_row_for("iso286_delta", nominal_mm)[0][f"delta_IT{grade}_um"]) or 0.0
    if row["deviation"] in ("ES", "es"):
        return Limits(value - band, value)
    return Limits(value, value + band)


def fit(inner_um: Limits, outer_um: Limits) -> Fit:
    """Return the interference between an inner part (ring, shaft) and an outer one (bore) of the same nominal size.

    Parameters
    ----------
    inner_um, outer_um : Limits
        Deviations of the inner part's outside and of the outer part's bore, µm.

    Returns
    -------
    Fit
        Least and highest interference, mm.

    Examples
    --------
    >>> fit(Limits(-11, 0), limits("N7", 47))
    Fit(min_interference_mm=-0.003, max_interference_mm=0.033)
    """
    return Fit((inner_um.lower_um - outer_um.upper_um) / 1000, (inner_um.upper_um - outer_um.lower_um) / 1000)


def measured_um(measured_mm: float, nominal_mm: float, uncertainty_mm: float) -> Limits:
    """A measured size instead of a code: its range is the uncertainty (k = 2) widened to three standard deviations.

    Examples
    --------
    >>> measured_um(46.985, 47, 0.004)
    Limits(lower_um=-21.0, upper_um=-9.0)
    """
    positive("measured_mm", measured_mm)
    off = 1000 * (measured_mm - positive("nominal_mm", nominal_mm))
    band = 1500 * not_negative("uncertainty_mm", uncertainty_mm)
    return Limits(round(off - band, 3), round(off + band, 3))
