"""A plane through gaps: how far a case half, a seal or a ring is out of square, and in which direction.

x to the right and y up, as drawn looking at the face of the half that stays on the bench. The gap at a point is
mean + slope·(x·cos + y·sin) about the middle of the points; it leads where it is widest.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from shopmath.quantiles import chi_square
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, numbers, positive

IN_LINE = 1e-6
BLIND = 0.03  # least 1 − h of a place: less, and the plane follows its misreading instead of showing it
SURE = 0.99  # share of good rounds that are left alone: ±2.58 sigma of the one contrast of four places
MOST_PLACES = 40


@dataclass(frozen=True)
class Point:
    """A named place on the joint with the gap measured there, mm."""

    name: str
    x_mm: float
    y_mm: float
    gap_mm: float


@dataclass(frozen=True)
class GapPlane:
    """Mean gap at the center, slope mm per mm, direction of the widest gap, lead over the points, places, residuals."""

    mean_mm: float
    slope: float
    leading_deg: float
    lead_mm: float
    leading_name: str
    lagging_name: str
    residuals: tuple[float, ...]

    def __post_init__(self) -> None:
        numbers(self)


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
        raise BadInput(
            "points", gettext_noop("A plane wants three points; {points} given."), "too_few_points", given=len(points), points=len(points)
        )
    names = [point.name for point in points]
    if len(set(names)) < len(names):
        raise BadInput("points", gettext_noop("Two points have the same name."), "same_name")
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
        raise BadInput("points", gettext_noop("The points lie in line: they tell nothing across it. Take one to the side."), "in_line")
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


@dataclass(frozen=True)
class GapCheck:
    """Whether gaps disagree with any plane, and the places to measure again: all of four, the faulty one of five or more.

    `blind` are the places whose misreading the others would not show; then another place, well apart, is wanted.
    """

    suspect: bool
    again: tuple[str, ...] = ()
    off_mm: float = 0.0
    blind: tuple[str, ...] = ()


def check_gaps(points: Sequence[Point], sigma_mm: float) -> GapCheck:
    """Return whether one of the gaps must be wrong.

    Parameters
    ----------
    points : sequence of Point, length n ≥ 3
    sigma_mm : float
        Standard uncertainty of one gap, from the gauge and the flatness of the joint, mm.

    Returns
    -------
    GapCheck
        Three places make a plane whatever they say: all three are blind.

    Raises
    ------
    BadInput
        As `fit`; sigma not above 0.

    Notes
    -----
    What is left of the gaps after the plane, over sigma, has n − 3 degrees of freedom; good gaps leave more than its 99 % point in 1 of
    100 rounds. With four places that is |Σ w·gap| > 2.58 σ, w being the unit contrast orthogonal to the plane. With five or more the place
    whose misfit stands out most, over √(1 − h), is the one to blame. A gap misread by 0.5 mm is suspected in 95 of 100 rounds at 0.02 mm.

    Source
    ------
    Outliers in linear models: R. D. Cook and S. Weisberg, Residuals and Influence in Regression.

    Examples
    --------
    >>> square = [("right", 80, 0), ("top", 0, 80), ("left", -80, 0), ("bottom", 0, -80)]
    >>> good = [Point(name, x, y, 1.2 + 0.001 * x) for name, x, y in square]
    >>> check_gaps(good, 0.02).suspect
    False
    >>> wrong = [*good[:3], Point("bottom", 0, -80, 1.7)]
    >>> check_gaps(wrong, 0.02).again
    ('right', 'top', 'left', 'bottom')
    """
    left = fit(points).residuals
    count, sigma = len(points), positive("sigma_mm", sigma_mm)
    if count > MOST_PLACES:
        raise BadInput(
            "points", gettext_noop("At most {most_places} places are looked at."), "too_many", most=MOST_PLACES, most_places=MOST_PLACES
        )
    free = _free(points)
    blind = tuple(point.name for point, share in zip(points, free, strict=True) if share < BLIND)
    if count == 3 or sum(off**2 for off in left) / sigma**2 <= chi_square(SURE, count - 3):
        return GapCheck(False, blind=blind)
    stands_out = [abs(off) / math.sqrt(max(share, 1e-9)) for off, share in zip(left, free, strict=True)]
    worst = max(range(count), key=stands_out.__getitem__)
    again = tuple(point.name for point in points) if count == 4 else (points[worst].name,)
    return GapCheck(True, again, max(abs(off) for off in left), blind)


def _free(points: Sequence[Point]) -> list[float]:
    """1 − h of each place: how much of its misreading the plane leaves to be seen."""
    count = len(points)
    x0, y0 = sum(point.x_mm for point in points) / count, sum(point.y_mm for point in points) / count
    xs, ys = [point.x_mm - x0 for point in points], [point.y_mm - y0 for point in points]
    xx, yy, xy = (sum(a * b for a, b in zip(one, other, strict=True)) for one, other in ((xs, xs), (ys, ys), (xs, ys)))
    determinant = xx * yy - xy**2
    return [max(0.0, 1 - 1 / count - (yy * x**2 - 2 * xy * x * y + xx * y**2) / determinant) for x, y in zip(xs, ys, strict=True)]


def further_place(points: Sequence[Point], offered: Sequence[Point]) -> Point | None:
    """Return the offered place that best detects an error at any place; None if none does.

    Parameters
    ----------
    points : sequence of Point, length n ≥ 3
        Where gaps are measured; the gaps do not matter.
    offered : sequence of Point
        Places that could be measured besides.

    Returns
    -------
    Point or None

    Raises
    ------
    BadInput
        As `fit`.

    Examples
    --------
    >>> three = [Point("a", -70, 0, 0), Point("b", 70, 0, 0), Point("c", 0, 60, 0)]
    >>> further_place(three, [Point("near c", 2, 58, 0), Point("bottom", 0, -60, 0)]).name
    'bottom'
    """
    fit(points)
    lowest = {each: min(_free([*points, each])) for each in offered[:MOST_PLACES] if fit([*points, each])}
    best = max(lowest, key=lowest.__getitem__, default=None)
    return best if best and lowest[best] >= BLIND else None


def bind_lead_mm(clearance_mm: float, engaged_mm: float, span_mm: float) -> float:
    """Return the lead at which a dowel binds in its hole.

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
