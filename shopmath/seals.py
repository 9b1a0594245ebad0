"""A shaft seal in its seat: how deep, how square, how far from the bearing behind it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from shopmath.checks import BadInput, finite, positive
from shopmath.gapplane import Point, fit
from shopmath.verdict import Call, call

DEPTH_MM = 0.5  # from the depth wanted, shop rule
SQUARE_MM = 0.3  # deepest less shallowest, shop rule
TOUCH_MM = 0.3  # the gap a seal wants to the bearing behind it, shop rule
CLOCKS = ("12", "3", "6", "9")


@dataclass(frozen=True)
class SealSeat:
    """How a seal sits: mean depth and lean, mm, the clock it is deepest at, gap to the bearing (None when unknown), the calls."""

    depth_mm: float
    lean_mm: float
    deepest: str
    gap_mm: float | None
    depth: Call
    square: Call
    clear: Call | None


def seat_of_seal(
    depths_mm: Sequence[float],
    seat_mm: float,
    wanted_mm: float,
    uncertainty_mm: float,
    *,
    width_mm: float | None = None,
    bearing_depth_mm: float | None = None,
) -> SealSeat:
    """Judge a seal's seat by its depth at four places.

    Parameters
    ----------
    depths_mm : sequence of float, shape (4,)
        Below the face at 12, 3, 6 and 9 o'clock, mm; negative when it stands proud.
    seat_mm : float
        Diameter of the seat, mm.
    wanted_mm : float
        Depth wanted, mm; 0 is flush.
    uncertainty_mm : float
        Of one depth, k = 2, mm.
    width_mm, bearing_depth_mm : float, optional
        Width of the seal and depth of the bearing's face below the same face, mm.

    Returns
    -------
    SealSeat

    Raises
    ------
    BadInput
        Not four depths, sizes not above 0.

    Examples
    --------
    >>> found = seat_of_seal([0.1, 0.1, 0.9, 0.1], 40, 0.0, 0.05, width_mm=7, bearing_depth_mm=8.1)
    >>> round(found.lean_mm, 2), found.deepest, found.square.state, found.clear.state
    (0.8, '6', 'out', 'too_close')
    """
    if len(depths_mm) != len(CLOCKS):
        raise BadInput("depths_mm", f"Four depths are wanted, at {', '.join(CLOCKS)} o'clock; {len(depths_mm)} given.")
    radius = positive("seat_mm", seat_mm) / 2
    for depth in depths_mm:
        finite("depths_mm", depth)
    angles = [math.radians(90 - 90 * index) for index in range(4)]
    points = [
        Point(clock, radius * math.cos(angle), radius * math.sin(angle), depth)
        for clock, angle, depth in zip(CLOCKS, angles, depths_mm, strict=True)
    ]
    plane = fit(points)
    lean, mean, deepest = max(depths_mm) - min(depths_mm), plane.mean_mm, CLOCKS[max(range(4), key=depths_mm.__getitem__)]
    deep = call(mean, wanted_mm - DEPTH_MM, wanted_mm + DEPTH_MM, uncertainty_mm / 2, unit="mm", digits=2)
    square = call(lean, high=SQUARE_MM, uncertainty=math.sqrt(2) * uncertainty_mm, unit="mm", digits=2)
    if width_mm is None or bearing_depth_mm is None:
        return SealSeat(mean, lean, deepest, None, deep, square, None)
    gap = finite("bearing_depth_mm", bearing_depth_mm) - (max(depths_mm) + positive("width_mm", width_mm))
    clear = call(gap, low=0.0, uncertainty=TOUCH_MM + uncertainty_mm, unit="mm", digits=2)
    return SealSeat(mean, lean, deepest, gap, deep, square, clear)
