"""Limits that bearing rings are made to, and the clearance inside a bearing before it is fitted."""

from __future__ import annotations

from shopmath.iso286 import Limits
from shopmath.tables import number, rows
from shopmath.validation import BadInput, gettext_noop, one_of, positive

GROUPS = ("2", "N", "3", "4", "5")
KINDS = ("ball", "cylindrical_roller")
CLASSES = ("Normal", "6")


def _ring_limits(ring: str, size_mm: float, tolerance_class: str) -> Limits:
    positive(f"{ring}_mm", size_mm)
    one_of("tolerance_class", tolerance_class, CLASSES)
    for row in rows("bearing_tolerances"):
        if row["ring"] != ring or row["tolerance_class"] != tolerance_class:
            continue
        if float(row["over_mm"]) < size_mm <= float(row["upto_incl_mm"]):
            return Limits(float(row["mean_dia_deviation_lower_um"]), float(row["mean_dia_deviation_upper_um"]))
    raise BadInput(
        f"{ring}_mm",
        gettext_noop("The bearing tolerance table has no {size_mm:g} mm {replace}."),
        size_mm=size_mm,
        replace=ring.replace("_", " "),
    )


def bore_limits_um(bore_mm: float, tolerance_class: str = "Normal") -> Limits:
    """Limits of a bearing's bore about its nominal size.

    Parameters
    ----------
    bore_mm : float
        Nominal bore, mm, over 2.5 up to 120.
    tolerance_class : str
        `Normal` or `6`.

    Returns
    -------
    Limits
        µm.

    Raises
    ------
    BadInput
        A size or class outside the table.

    Source
    ------
    ISO 492, radial bearings except tapered rollers, mean bore deviation.

    Examples
    --------
    >>> bore_limits_um(25)
    Limits(lower_um=-10.0, upper_um=0.0)
    """
    return _ring_limits("inner_ring", bore_mm, tolerance_class)


def outside_limits_um(outside_mm: float, tolerance_class: str = "Normal") -> Limits:
    """Limits of a bearing's outside diameter about its nominal size.

    Parameters
    ----------
    outside_mm : float
        Nominal outside diameter, mm, over 2.5 up to 250.
    tolerance_class : str
        `Normal` or `6`.

    Returns
    -------
    Limits
        µm.

    Raises
    ------
    BadInput
        A size or class outside the table.

    Source
    ------
    ISO 492, radial bearings except tapered rollers, mean outside diameter deviation.

    Examples
    --------
    >>> outside_limits_um(47)
    Limits(lower_um=-11.0, upper_um=0.0)
    """
    return _ring_limits("outer_ring", outside_mm, tolerance_class)


def radial_clearance_um(bore_mm: float, group: str, kind: str = "ball") -> Limits:
    """Radial clearance inside a bearing before it is fitted.

    Parameters
    ----------
    bore_mm : float
        Nominal bore, mm.
    group : str
        2, N, 3, 4 or 5.
    kind : str
        `ball` or `cylindrical_roller`.

    Returns
    -------
    Limits
        µm.

    Raises
    ------
    BadInput
        Unknown group or kind, a bore outside the table, a cell the table leaves empty.

    Source
    ------
    ISO 5753-1, cylindrical bore.

    Examples
    --------
    >>> radial_clearance_um(25, "3", "ball")
    Limits(lower_um=13.0, upper_um=28.0)
    """
    positive("bore_mm", bore_mm)
    one_of("group", group, GROUPS)
    one_of("kind", kind, KINDS)
    table = "bearing_clearance_ball" if kind == "ball" else "bearing_clearance_cyl_roller"
    for row in rows(table):
        if float(row["bore_over_mm"]) < bore_mm <= float(row["bore_upto_incl_mm"]):
            low, high = number(row[f"group_{group}_min_um"]), number(row[f"group_{group}_max_um"])
            if low is None or high is None:
                break
            return Limits(low, high)
    raise BadInput(
        "bore_mm", gettext_noop("No clearance of group {group} is tabled for a {bore_mm:g} mm bore."), group=group, bore_mm=bore_mm
    )
