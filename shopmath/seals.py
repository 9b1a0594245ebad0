"""A shaft seal in its seat: how deep, how square, how far from the bearing behind it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from shopmath.estimate import Estimate
from shopmath.gap_plane import Point, fit
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, one_of, positive
from shopmath.verdict import Conformity, judge

DEPTH_MM = 0.5  # from the depth wanted, shop rule
SQUARE_MM = 0.3  # deepest less shallowest, shop rule
TOUCH_MM = 0.3  # the gap a seal wants to the bearing behind it, shop rule
CLOCKS = ("12", "3", "6", "9")
STEEL_E_MPA = 210_000.0
CASE_ALLOWANCE = ((50.0, (0.08, 0.20)), (80.0, (0.09, 0.23)), (120.0, (0.10, 0.25)), (180.0, (0.12, 0.28)))  # bore up to, mm: ISO 6194-1
LIP_MOST_M_S = {"nitrile": 14.0, "polyacrylate": 18.0, "fluoro-rubber": 35.0}  # thin oil, no pressure; typical of ISO 6194 seals
RUNOUT_AT = ((1000, 0.20), (2000, 0.16), (3000, 0.13), (4000, 0.11), (5000, 0.09), (6000, 0.08), (8000, 0.06))  # rpm, TIR in mm: estimate


@dataclass(frozen=True)
class SealSeat:
    """Position of a seal: mean depth and tilt, mm, the deepest clock position, gap to the bearing (None if unknown), verdicts."""

    depth_mm: float
    lean_mm: float
    deepest: str
    gap_mm: float | None
    depth: Conformity
    square: Conformity
    clear: Conformity | None


def seat_of_seal(
    depths_mm: Sequence[float],
    seat_mm: float,
    wanted_mm: float,
    uncertainty_mm: float,
    *,
    width_mm: float | None = None,
    bearing_depth_mm: float | None = None,
) -> SealSeat:
    """Judge a seal's position by its depth at four places.

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
        raise BadInput(
            "depths_mm",
            gettext_noop("Four depths are wanted, at {clocks} o'clock; {depths_mm} given."),
            clocks=", ".join(CLOCKS),
            depths_mm=len(depths_mm),
        )
    radius = positive("seat_mm", seat_mm) / 2
    finite("wanted_mm", wanted_mm)
    not_negative("uncertainty_mm", uncertainty_mm)
    for depth in depths_mm:
        finite("depths_mm", depth)
    angles = [math.radians(90 - 90 * index) for index in range(4)]
    points = [
        Point(clock, radius * math.cos(angle), radius * math.sin(angle), depth)
        for clock, angle, depth in zip(CLOCKS, angles, depths_mm, strict=True)
    ]
    plane = fit(points)
    lean, mean, deepest = max(depths_mm) - min(depths_mm), plane.mean_mm, CLOCKS[max(range(4), key=depths_mm.__getitem__)]
    deep = judge(mean, wanted_mm - DEPTH_MM, wanted_mm + DEPTH_MM, uncertainty_mm / 2, unit="mm", digits=2)
    square = judge(lean, high=SQUARE_MM, uncertainty=math.sqrt(2) * uncertainty_mm, unit="mm", digits=2)
    if width_mm is None or bearing_depth_mm is None:
        return SealSeat(mean, lean, deepest, None, deep, square, None)
    gap = finite("bearing_depth_mm", bearing_depth_mm) - (max(depths_mm) + positive("width_mm", width_mm))
    clear = judge(gap, low=0.0, uncertainty=TOUCH_MM + uncertainty_mm, unit="mm", digits=2)
    return SealSeat(mean, lean, deepest, gap, deep, square, clear)


SAME_MM = 0.6  # a seal's outside stands over its bore by its press allowance; its lip is smaller than its shaft
KEPT = ("oil", "pressure", "dirt")


@dataclass(frozen=True)
class Candidate:
    """A place a seal may belong to: its name, shaft and bore, mm."""

    name: str
    shaft_mm: float
    bore_mm: float


def identify_seal(shaft_mm: float, bore_mm: float, candidates: Sequence[Candidate]) -> tuple[Candidate, ...]:
    """Return which of several places a measured seal belongs to.

    Parameters
    ----------
    shaft_mm, bore_mm : float
        Shaft it runs on and bore it sits in, as measured or as marked on it, mm.
    candidates : sequence of Candidate

    Returns
    -------
    tuple of Candidate
        Those within 0.6 mm on both, the nearest first; empty when it belongs nowhere.

    Raises
    ------
    BadInput
        Sizes not above 0, a bore no larger than the shaft.

    Source
    ------
    ISO 6194-1, press allowances.

    Examples
    --------
    >>> places = [Candidate("drive side", 20, 35), Candidate("output", 20, 40)]
    >>> [place.name for place in identify_seal(20, 35.2, places)]
    ['drive side']
    """
    if positive("bore_mm", bore_mm) <= positive("shaft_mm", shaft_mm):
        raise BadInput(
            "bore_mm",
            gettext_noop("A seal's bore ({bore_mm:g} mm) is larger than its shaft ({shaft_mm:g} mm)."),
            bore_mm=bore_mm,
            shaft_mm=shaft_mm,
        )
    off = {place: max(abs(place.shaft_mm - shaft_mm), abs(place.bore_mm - bore_mm)) for place in candidates}
    return tuple(sorted((place for place in off if off[place] <= SAME_MM), key=lambda place: off[place]))


def lip_side(kept: str) -> str:
    """Return the direction of lip and spring from the purpose of the seal: pressure and medium are on the spring side.

    Parameters
    ----------
    kept : str
        `oil` or `pressure` inside, or `dirt` outside.

    Returns
    -------
    str
        `inside` or `outside`. An exception needs the manual's page.

    Raises
    ------
    BadInput
        Another word.

    Source
    ------
    ISO 6194-1; seal makers' fitting rules.

    Examples
    --------
    >>> lip_side("oil"), lip_side("dirt")
    ('inside', 'outside')
    """
    return "outside" if one_of("kept", kept, KEPT) == "dirt" else "inside"


def lip_speed_m_s(shaft_mm: float, rpm: float) -> float:
    """Return how fast a shaft runs under a lip, m/s.

    Examples
    --------
    >>> round(lip_speed_m_s(30, 8500), 2)
    13.35
    """
    return math.pi * positive("shaft_mm", shaft_mm) * positive("rpm", rpm) / 60_000


def lips_for(speed_m_s: float) -> tuple[str, ...]:
    """Lip materials that stand a speed, the plainest first; none where it is past them all.

    Examples
    --------
    >>> lips_for(13.4), lips_for(16.0), lips_for(50.0)
    (('nitrile', 'polyacrylate', 'fluoro-rubber'), ('polyacrylate', 'fluoro-rubber'), ())
    """
    return tuple(name for name, highest in LIP_MOST_M_S.items() if not_negative("speed_m_s", speed_m_s) <= highest)


def runout_under_lip_mm(rpm: float) -> float:
    """Return the runout (TIR) of a shaft that a rubber lip still follows, mm (*estimate*).

    Examples
    --------
    >>> runout_under_lip_mm(500), round(runout_under_lip_mm(7000), 3), runout_under_lip_mm(12000)
    (0.2, 0.07, 0.06)
    """
    at = positive("rpm", rpm)
    if at <= RUNOUT_AT[0][0]:
        return RUNOUT_AT[0][1]
    for (slow, highest), (fast, lowest) in pairwise(RUNOUT_AT):
        if at <= fast:
            return highest + (lowest - highest) * (at - slow) / (fast - slow)
    return RUNOUT_AT[-1][1]


def metal_case_force_n(bore_mm: float, width_mm: float) -> Estimate:
    """Return the force that pushes a seal with a bare metal case into its bore, N (*estimate*).

    A rubber-covered one goes by hand and tells nothing.

    Parameters
    ----------
    bore_mm, width_mm : float
        Of its seat, mm.

    Returns
    -------
    Estimate
        The thin case yields before the whole of its allowance is taken up, so that its own strength holds the pressure.

    Raises
    ------
    BadInput
        Sizes not above 0, NaN or infinity.

    Source
    ------
    Press-fit allowances of ISO 6194-1; thin ring, σ = p·D/(2t); friction of metal in a cast seat with a film of oil.

    Examples
    --------
    >>> force = metal_case_force_n(40, 7)
    >>> round(force.low), round(force.likely), round(force.high)
    (507, 1214, 3464)
    """
    bore, width = positive("bore_mm", bore_mm), positive("width_mm", width_mm)
    lowest, highest = next((allowance for size, allowance in CASE_ALLOWANCE if bore <= size), CASE_ALLOWANCE[-1][1])

    def pushed(allowance: float, wall: float, strength: float, friction: float) -> float:
        hoop = min(STEEL_E_MPA * allowance / bore, strength)
        return 2 * hoop * wall / bore * math.pi * bore * width * friction

    ends = ((lowest, 0.8, 180.0, 0.08), ((lowest + highest) / 2, 1.0, 230.0, 0.12), (highest, 1.5, 350.0, 0.15))
    low, likely, high = (pushed(*each) for each in ends)
    return Estimate(min(low, likely), likely, high, "metal case, thin wall, oiled")
