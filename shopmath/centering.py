"""Centring a crank between its bearings: how far, which way, how many turns of the tool."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

from shopmath.validation import finite, not_negative, positive
from shopmath.verdict import Conformity, combined, judge


class CentringMove(NamedTuple):
    """Distance, mm; side (`left`, `right`, empty if centered); turns of the tool."""

    move_mm: float
    toward: str
    turns: float


def move(left_gap_mm: float, right_gap_mm: float, pitch_mm: float) -> CentringMove:
    """Half the difference toward the larger gap.

    Parameters
    ----------
    left_gap_mm, right_gap_mm : float
        Between web and bearing on each side, mm.
    pitch_mm : float
        Of the tool's screw, mm.

    Returns
    -------
    CentringMove

    Raises
    ------
    BadInput
        Negative gaps, a pitch not above 0.

    Examples
    --------
    >>> found = move(0.30, 0.10, 1.5)
    >>> round(found.move_mm, 3), found.toward, round(found.turns, 4)
    (0.1, 'left', 0.0667)
    """
    off = not_negative("left_gap_mm", left_gap_mm) - not_negative("right_gap_mm", right_gap_mm)
    toward = "left" if off > 0 else "right" if off < 0 else ""
    return CentringMove(abs(off) / 2, toward, abs(off) / 2 / positive("pitch_mm", pitch_mm))


@dataclass(frozen=True)
class Centred:
    """The verdict on two gaps, and the move that is left."""

    call: Conformity
    move: CentringMove


def centred(left_gap_mm: float, right_gap_mm: float, pitch_mm: float, limit_mm: float, uncertainty_mm: float = 0.0) -> Centred:
    """Return whether a crank is centered.

    Parameters
    ----------
    left_gap_mm, right_gap_mm, pitch_mm : float
        As `move`.
    limit_mm : float
        Difference allowed between the gaps, mm.
    uncertainty_mm : float
        Of each gap, mm.

    Returns
    -------
    Centred

    Examples
    --------
    >>> centred(0.15, 0.14, 1.5, 0.05).call.state, centred(0.30, 0.10, 1.5, 0.05).call.state
    ('in', 'out')
    """
    off = abs(finite("left_gap_mm", left_gap_mm) - finite("right_gap_mm", right_gap_mm))
    uncertainty = combined(uncertainty_mm, uncertainty_mm)
    found = judge(off, high=positive("limit_mm", limit_mm), uncertainty=uncertainty, unit="mm", digits=2)
    return Centred(found, move(left_gap_mm, right_gap_mm, pitch_mm))
