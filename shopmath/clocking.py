"""Direction of parts: a flat, a groove or an oil hole compared with the direction in the drawing.

Angles in degrees, counter-clockwise from the right as the joint face is drawn. The difference is taken the short way round.
"""

from __future__ import annotations

from shopmath.validation import finite, not_negative, positive
from shopmath.verdict import Conformity, judge


def off_by_deg(measured_deg: float, wanted_deg: float, *, either_end: bool = False) -> float:
    """Return the angle between a part and its specified direction, counter-clockwise positive, by the shorter way.

    Parameters
    ----------
    measured_deg, wanted_deg : float
        degrees.
    either_end : bool
        Half a turn looks the same, as a groove right across.

    Returns
    -------
    float
        degrees, in (-180, 180], or (-90, 90] when either end may lead.

    Raises
    ------
    BadInput
        NaN or infinity.

    Examples
    --------
    >>> off_by_deg(358, 3), off_by_deg(182, 0, either_end=True)
    (-5.0, 2.0)
    """
    whole = 180.0 if either_end else 360.0
    off = (finite("measured_deg", measured_deg) - finite("wanted_deg", wanted_deg)) % whole
    return off - whole if off > whole / 2 else off


def clocked(
    measured_deg: float, wanted_deg: float, within_deg: float, uncertainty_deg: float = 0.0, *, either_end: bool = False
) -> Conformity:
    """Return the verdict on a direction.

    Parameters
    ----------
    measured_deg, wanted_deg : float
        degrees.
    within_deg : float
        How far off it may be, to either side.
    uncertainty_deg : float
        Expanded.
    either_end : bool
        Half a turn looks the same.

    Returns
    -------
    Call

    Raises
    ------
    BadInput
        NaN or infinity, a limit not above 0, a negative uncertainty.

    Source
    ------
    The decision rule of ISO 14253-1.

    Examples
    --------
    >>> clocked(93, 90, 5, 1).state, clocked(94.5, 90, 5, 1).state, clocked(80, 90, 5, 1).state
    ('in', 'too_close', 'out')
    """
    limit = positive("within_deg", within_deg)
    off = off_by_deg(measured_deg, wanted_deg, either_end=either_end)
    return judge(off, low=-limit, high=limit, uncertainty=not_negative("uncertainty_deg", uncertainty_deg), unit="°", digits=1)
