"""Support and measurement of a crank, a shaft's runout as a vector, and the rotation of an outer web about its pin.

Angles are the crank's own: the reference is 0, counter-clockwise seen from the right end.
"""

from __future__ import annotations

import cmath
import math
from dataclasses import dataclass

from shopmath.validation import BadInput, finite, gettext_noop, not_negative, one_of, positive

NEAR_MM = 0.5  # a gauge this close to a support measures nothing
SIDES = ("left", "right")
ON_SUPPORT = {
    "left": gettext_noop("The left gauge stands on its support: it measures nothing there. Move it."),
    "right": gettext_noop("The right gauge stands on its support: it measures nothing there. Move it."),
}
WRONG_SIDE = {
    "left": gettext_noop("The left half lies at negative z; {value:g} was given."),
    "right": gettext_noop("The right half lies at positive z; {value:g} was given."),
}


def refuse_on_support(side: str, support_mm: float, gauge_mm: float) -> None:
    """A gauge on its support measures nothing.

    Examples
    --------
    >>> refuse_on_support("left", 92, 34)
    """
    if abs(finite("support_mm", support_mm) - finite("gauge_mm", gauge_mm)) < NEAR_MM:
        raise BadInput(f"gauge_{side}_mm", ON_SUPPORT[one_of("side", side, SIDES)])


@dataclass(frozen=True)
class PressedCrank:
    """Positions of supports and gauges: z, mm, left negative; throw (half the stroke), mm."""

    support_left_mm: float
    support_right_mm: float
    gauge_left_mm: float
    gauge_right_mm: float
    throw_mm: float

    def __post_init__(self) -> None:
        for name in ("support_left_mm", "support_right_mm", "gauge_left_mm", "gauge_right_mm"):
            finite(name, getattr(self, name))
        positive("throw_mm", self.throw_mm)
        for side, sign in (("left", -1), ("right", 1)):
            support, gauge = getattr(self, f"support_{side}_mm"), getattr(self, f"gauge_{side}_mm")
            for name, value in ((f"support_{side}_mm", support), (f"gauge_{side}_mm", gauge)):
                if sign * value <= 0:
                    raise BadInput(name, WRONG_SIDE[side], value=value)
            refuse_on_support(side, support, gauge)


@dataclass(frozen=True)
class RunoutVector:
    """Fitted runout, peak to peak, mm, and the angle at which the shaft is toward the gauge."""

    tir_mm: float
    high_spot_deg: float

    @property
    def vector(self) -> complex:
        return cmath.rect(self.tir_mm / 2, math.radians(self.high_spot_deg))

    @classmethod
    def of(cls, vector: complex) -> RunoutVector:
        return cls(2 * abs(vector), math.degrees(cmath.phase(vector)) % 360)


@dataclass(frozen=True)
class OuterTurn:
    """Rotation of an outer web about its pin: degrees, mm at its rim opposite the pin, and the direction to turn it back."""

    turn_deg: float
    rim_mm: float
    direction: str


def _seen(swing: RunoutVector) -> None:
    """Refuse a runout that no gauge can show."""
    not_negative("tir_mm", swing.tir_mm)
    finite("high_spot_deg", swing.high_spot_deg)


def outer_turn(swing: RunoutVector, throw_mm: float, pin_deg: float, rim_radius_mm: float) -> OuterTurn:
    """Return the rotation of an outer web of a multi-cylinder crank on its center bearings.

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
    >>> found = outer_turn(RunoutVector(0.050, 90), 34, 0, 60)
    >>> round(found.turn_deg, 4), round(found.rim_mm, 3), found.direction
    (0.0421, 0.069, 'counter-clockwise')
    """
    _seen(swing)
    across = (swing.vector * cmath.exp(-1j * math.radians(finite("pin_deg", pin_deg)))).imag
    turn = abs(across) / positive("throw_mm", throw_mm)
    direction = "counter-clockwise" if across > 0 else "clockwise" if across < 0 else ""
    return OuterTurn(math.degrees(turn), turn * (positive("rim_radius_mm", rim_radius_mm) + throw_mm), direction)
