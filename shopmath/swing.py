"""A shaft's run-out as a vector, and how far an outer web has turned about its pin.

Angles are the crank's own: the reference is 0, counter-clockwise seen from the right end.
"""

from __future__ import annotations

import cmath
import math
from dataclasses import dataclass

from shopmath.checks import finite, not_negative, positive


@dataclass(frozen=True)
class Swing:
    """Fitted swing, peak to peak, mm, and the angle where the shaft is toward the gauge."""

    tir_mm: float
    high_spot_deg: float

    @property
    def vector(self) -> complex:
        return cmath.rect(self.tir_mm / 2, math.radians(self.high_spot_deg))

    @classmethod
    def of(cls, vector: complex) -> Swing:
        return cls(2 * abs(vector), math.degrees(cmath.phase(vector)) % 360)


@dataclass(frozen=True)
class OuterTurn:
    """How far an outer web has turned about its pin: degrees, mm at its rim opposite the pin, and which way to turn it back."""

    turn_deg: float
    rim_mm: float
    direction: str


def _seen(swing: Swing) -> None:
    """Refuse a swing that no gauge has shown."""
    not_negative("tir_mm", swing.tir_mm)
    finite("high_spot_deg", swing.high_spot_deg)


def outer_turn(swing: Swing, throw_mm: float, pin_deg: float, rim_radius_mm: float) -> OuterTurn:
    """How far an outer web of a multi-cylinder crank has turned, the crank held on its centre bearings.

    Parameters
    ----------
    swing : Swing
        Of the outer shaft.
    throw_mm : float
        Of the pin that the web sits on, mm.
    pin_deg : float
        Angle of that pin.
    rim_radius_mm : float
        Of the web, mm.

    Returns
    -------
    OuterTurn
        From the part of the swing at right angles to the throw; the rest is not curable by turning. The web turns about its pin, so
        the rim opposite the pin travels turn·(rim + throw).

    Raises
    ------
    BadInput
        Throw or rim not above 0.

    Examples
    --------
    >>> found = outer_turn(Swing(0.050, 90), 34, 0, 60)
    >>> round(found.turn_deg, 4), round(found.rim_mm, 3), found.direction
    (0.0421, 0.069, 'counter-clockwise')
    """
    _seen(swing)
    across = (swing.vector * cmath.exp(-1j * math.radians(finite("pin_deg", pin_deg)))).imag
    turn = abs(across) / positive("throw_mm", throw_mm)
    direction = "counter-clockwise" if across > 0 else "clockwise" if across < 0 else ""
    return OuterTurn(math.degrees(turn), turn * (positive("rim_radius_mm", rim_radius_mm) + throw_mm), direction)
