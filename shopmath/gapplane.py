"""A plane through gaps: how far a case half, a seal or a ring stands off square, and where.

x to the right and y up, as drawn looking at the face of the half that stays on the bench. The gap at a point is
mean + slope·(x·cos + y·sin) about the middle of the points; it leads where it is widest.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from shopmath.checks import BadInput, finite, not_negative, positive

IN_LINE = 1e-6


@dataclass(frozen=True)
class Point:
    """A named place on the joint with the gap measured there, mm."""

    name: str
    x_mm: float
    y_mm: float
    gap_mm: float


@dataclass(frozen=True)
class GapPlane:
    """Mean gap at the middle, slope mm per mm, direction of the widest gap, lead over the points, who leads and lags, residuals."""

    mean_mm: float
    slope: float
    leading_deg: float
    lead_mm: float
    leading_name: str
    lagging_name: str
    residuals: tuple[float, ...]


def fit(points: Sequence[Point]) -> GapPlane:
    """Least-squares plane through gaps round a joint.

    Parameters
    ----------
    points : sequence of Point, length n ≥ 3
        Not in line.

    Returns
    -------
    GapPlane
        Angles in degrees, 0 to 360, from x counter-clockwise as drawn; residuals in the points' order, mm.

    Raises
    ------
    BadInput
        Fewer than three points, points in line, two of one name, NaN.

    Source
    ------
    Linear least squares by normal equations.

    Examples
    --------
    >>> case = [Point("a", -70, 0, 1.10), Point("b", 0, 55, 1.32), Point("c", 80, 10, 1.61), Point("d", 30, -60, 1.38),
    ...         Point("e", -40, -45, 1.12)]
    >>> found = fit(case)
    >>> round(found.slope, 6), round(found.leading_deg, 1), found.leading_name, found.lagging_name
    (0.003523, 9.6, 'c', 'a')
    """
    if len(points) < 3:
        raise BadInput("points", f"A plane wants three points; {len(points)} given.", "too_few_points", given=len(points))
    names = [point.name for point in points]
    if len(set(names)) < len(names):
        raise BadInput("points", "Two points have the same name.", "same_name")
    count = len(points)
    for point in points:
        for field in ("x_mm", "y_mm", "gap_mm"):
            finite(field, getattr(point, field))
    x0, y0 = sum(point.x_mm for point in points) / count, sum(point.y_mm for point in points) / count
    mean = sum(point.gap_mm for point in points) / count
    xs, ys = [point.x_mm - x0 for point in points], [point.y_mm - y0 for point in points]
    gaps = [point.gap_mm - mean for point in points]
    xx, yy, xy = (sum(a * b for a, b in zip(left, right, strict=True)) for left, right in ((xs, xs), (ys, ys), (xs, ys)))
    xg, yg = (sum(a * b for a, b in zip(left, gaps, strict=True)) for left in (xs, ys))
    determinant = xx * yy - xy**2
    if determinant <= IN_LINE * max(xx + yy, 1e-9) ** 2:
        raise BadInput("points", "The points lie in line: they tell nothing across it. Take one to the side.", "in_line")
    tilt_x, tilt_y = (xg * yy - yg * xy) / determinant, (yg * xx - xg * xy) / determinant
    fitted = [tilt_x * x + tilt_y * y for x, y in zip(xs, ys, strict=True)]
    widest, narrowest = max(range(count), key=fitted.__getitem__), min(range(count), key=fitted.__getitem__)
    return GapPlane(
        mean_mm=mean,
        slope=math.hypot(tilt_x, tilt_y),
        leading_deg=math.degrees(math.atan2(tilt_y, tilt_x)) % 360,
        lead_mm=fitted[widest] - fitted[narrowest],
        leading_name=names[widest],
        lagging_name=names[narrowest],
        residuals=tuple(gap - plane for gap, plane in zip(gaps, fitted, strict=True)),
    )


def bind_lead_mm(clearance_mm: float, engaged_mm: float, span_mm: float) -> float:
    """Lead at which a dowel binds in its hole.

    Parameters
    ----------
    clearance_mm : float
        Between dowel and hole on diameter, mm.
    engaged_mm : float
        Length of dowel still in its hole, mm; it shrinks as the gap opens.
    span_mm : float
        Across the joint from leader to laggard, mm.

    Returns
    -------
    float
        clearance/engaged × span, mm; infinity once the dowel is out.

    Raises
    ------
    BadInput
        Negative clearance or engagement, span not above 0.

    Notes
    -----
    A main that is an interference fit has no clearance and is left out of this limit.

    Examples
    --------
    >>> round(bind_lead_mm(0.05, 8, 150), 2)
    0.94
    """
    not_negative("clearance_mm", clearance_mm)
    positive("span_mm", span_mm)
    if not_negative("engaged_mm", engaged_mm) == 0:
        return math.inf
    return clearance_mm / engaged_mm * span_mm
