"""Which driver, socket or old ring may push a part: on the tight ring, clear of everything else.

Shoulder diameters of a ball bearing's rings are not on its marking. They lie about a fifth of the section to both sides of the pitch
circle (*estimate*); measure when a driver is near an edge of its window.
"""

from __future__ import annotations

from dataclasses import dataclass

from shopmath.bearings import Bearing
from shopmath.validation import BadInput, gettext_noop, not_negative, positive

SHOULDER = 0.19  # of (outside − bore), from the pitch circle
CLEAR_MM = 0.3  # a driver's diameter off the bore it runs in, or the shaft it runs over
LAND_MM = 0.8  # of the ring's face a driver must land on, on diameter
SPRING = 0.5  # share of a seal's section, from its shaft, that lip and spring take


@dataclass(frozen=True)
class Window:
    """Outside and inside diameters a driver may have, mm, and what it presses on."""

    presses_on: str
    outside_low_mm: float
    outside_high_mm: float
    inside_low_mm: float
    inside_high_mm: float
    basis: str

    def refusal(self, outside_mm: float, inside_mm: float) -> str:
        """Return why a driver does not fit; empty when it does.

        Examples
        --------
        >>> from shopmath.bearings import lookup
        >>> outer_ring(lookup("6204")).refusal(44, 36), outer_ring(lookup("6204")).refusal(44, 20)
        ('', 'its 20.0 mm bore would press on the inner ring; 33.5 mm clears it')
        """
        if not_negative("inside_mm", inside_mm) >= positive("outside_mm", outside_mm):
            raise BadInput("inside_mm", gettext_noop("A driver is hollow: its inside is smaller than its outside."))
        if outside_mm > self.outside_high_mm:
            return f"its {outside_mm:.1f} mm would rub; {self.outside_high_mm:.1f} mm clears"
        if outside_mm < self.outside_low_mm:
            return f"its {outside_mm:.1f} mm misses the {self.presses_on}; {self.outside_low_mm:.1f} mm lands on it"
        if inside_mm < self.inside_low_mm:
            other = "shaft" if self.presses_on == "inner ring" else "inner ring" if self.presses_on == "outer ring" else "lip and spring"
            return f"its {inside_mm:.1f} mm bore would press on the {other}; {self.inside_low_mm:.1f} mm clears it"
        if inside_mm > self.inside_high_mm:
            return f"its {inside_mm:.1f} mm bore misses the {self.presses_on}; {self.inside_high_mm:.1f} mm lands on it"
        return ""


def _shoulders(bearing: Bearing) -> tuple[float, float, float]:
    pitch, section = (bearing.bore_mm + bearing.outside_mm) / 2, bearing.outside_mm - bearing.bore_mm
    return pitch, pitch - SHOULDER * section, pitch + SHOULDER * section


def outer_ring(bearing: Bearing) -> Window:
    """For a ring that is tight in the case: on its outer ring, clear of the bore and of the inner ring.

    Examples
    --------
    >>> from shopmath.bearings import lookup
    >>> window = outer_ring(lookup("6204"))
    >>> round(window.outside_low_mm, 1), round(window.outside_high_mm, 1), round(window.inside_low_mm, 1)
    (39.4, 46.7, 33.5)
    """
    pitch, _, shoulder = _shoulders(bearing)
    high = bearing.outside_mm - CLEAR_MM
    return Window("outer ring", shoulder + LAND_MM, high, pitch, high - LAND_MM, "shoulder by the bearing's section, estimate")


def inner_ring(bearing: Bearing) -> Window:
    """For a ring that is tight on a shaft: on its inner ring, clear of the shaft and of the cage.

    Examples
    --------
    >>> from shopmath.bearings import lookup
    >>> window = inner_ring(lookup("6205"))
    >>> round(window.inside_low_mm, 1), round(window.outside_high_mm, 1)
    (25.3, 38.5)
    """
    pitch, shoulder, _ = _shoulders(bearing)
    low = bearing.bore_mm + CLEAR_MM
    return Window("inner ring", low + LAND_MM, pitch, low, shoulder - LAND_MM, "shoulder by the bearing's section, estimate")


def pin_end(diameter_mm: float) -> Window:
    """Return limits for a pin, bushing or plug: on its end, clear of the hole, over half of its width so that it does not tilt.

    Examples
    --------
    >>> window = pin_end(12)
    >>> window.refusal(10, 0), window.refusal(5, 0)
    ('', 'its 5.0 mm misses the end; 6.0 mm lands on it')
    """
    size = positive("diameter_mm", diameter_mm)
    return Window("end", size / 2, size - CLEAR_MM, 0.0, size, "shop rule")


def seal(shaft_mm: float, bore_mm: float) -> Window:
    """For a shaft seal: outside its spring, inside its seat.

    Parameters
    ----------
    shaft_mm, bore_mm : float
        Of the seal's place, mm.

    Returns
    -------
    Window

    Raises
    ------
    BadInput
        A bore no larger than the shaft.

    Examples
    --------
    >>> window = seal(25, 40)
    >>> round(window.outside_high_mm, 1), round(window.inside_low_mm, 1)
    (39.7, 32.5)
    """
    if positive("bore_mm", bore_mm) <= positive("shaft_mm", shaft_mm):
        raise BadInput(
            "bore_mm",
            gettext_noop("A seal's bore ({bore_mm:g} mm) is larger than its shaft ({shaft_mm:g} mm)."),
            bore_mm=bore_mm,
            shaft_mm=shaft_mm,
        )
    spring, high = shaft_mm + SPRING * (bore_mm - shaft_mm), bore_mm - CLEAR_MM
    return Window("seal's rim", spring + LAND_MM, high, spring, high - LAND_MM, "lip and spring by half the section, estimate")
