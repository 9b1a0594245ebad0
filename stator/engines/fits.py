"""Reading a seat off its card: which bearing, which sizes, which materials, in the core's words."""

from __future__ import annotations

from dataclasses import dataclass

from django.utils.translation import gettext as _

from shopmath import materials
from shopmath.bearings import Bearing, bore_limits_um, lookup, outside_limits_um
from shopmath.iso286 import Limits, limits, measured_um
from shopmath.materials import Material
from shopmath.validation import BadInput
from stator.engines.models import Seat
from stator.ui.number_format import trade

BEARING_STEEL = "100cr6"
NEAR_MM = 0.06
CALLIPER_U_MM = 0.005  # taken for sizes on the card, whose gauge is not recorded


@dataclass(frozen=True)
class SizeFrom:
    """Deviations of one part, µm, and where they come from."""

    limits: Limits
    words: str
    measured: bool


@dataclass(frozen=True)
class SeatFit:
    """Both parts of a fit. Outer is the case's bore, or the bearing when it goes onto a shaft."""

    seat: Seat
    bearing: Bearing
    nominal_mm: float
    outer: SizeFrom
    inner: SizeFrom
    outer_material: Material
    inner_material: Material

    @property
    def onto_shaft(self) -> bool:
        return self.seat.on == Seat.On.SHAFT


def bearing_of(seat: Seat) -> Bearing:
    """The bearing by its marking, or by what was measured of it."""
    if seat.marking:
        return lookup(seat.marking)
    bore, outside, width = seat.bore_mm or 0.0, seat.outside_mm or 0.0, seat.width_mm or 0.0
    words = _("measured: {bore} mm").format(bore=trade(bore, outside, width))
    return Bearing("unmarked", _whole(bore), _whole(outside), width, None, "N", (words,), source="measured")


def _whole(size_mm: float) -> float:
    """Return the nominal size of a measured one: the nearest whole millimeter if it is close, otherwise the measured size."""
    return float(round(size_mm)) if abs(size_mm - round(size_mm)) <= NEAR_MM else size_mm


def nominal_of(seat: Seat) -> float:
    bearing = bearing_of(seat)
    return bearing.bore_mm if seat.on == Seat.On.SHAFT else bearing.outside_mm


def fit_of(seat: Seat, seat_mm: tuple[float, float] | None = None, ring_mm: tuple[float, float] | None = None) -> SeatFit:
    """The fit of a seat; a measured pair (size and its uncertainty, mm) replaces code or tolerance."""
    bearing = bearing_of(seat)
    if bearing.is_drawn_cup:
        message = _("{designation} is a drawn cup: it has no size of its own until it is in its seat. Press it in cold, oiled.").format(
            designation=bearing.designation
        )
        raise BadInput("designation", message, "drawn_cup")
    onto_shaft = seat.on == Seat.On.SHAFT
    nominal = bearing.bore_mm if onto_shaft else bearing.outside_mm
    seat_mm = seat_mm or ((seat.measured_mm, CALLIPER_U_MM) if seat.measured_mm and not seat.code else None)
    if seat_mm:
        seat_size = SizeFrom(measured_um(seat_mm[0], nominal, seat_mm[1]), "measured", True)
    else:
        seat_size = SizeFrom(limits(seat.code, nominal), f"{seat.code}, ISO 286-1", False)
    ring_on_card = seat.bore_mm if onto_shaft else seat.outside_mm
    if not seat.designation and ring_on_card:
        ring_mm = ring_mm or (ring_on_card, CALLIPER_U_MM)
    if ring_mm:
        ring_size = SizeFrom(measured_um(ring_mm[0], nominal, ring_mm[1]), "measured", True)
    else:
        ring = bore_limits_um(nominal, bearing.tolerance_class) if onto_shaft else outside_limits_um(nominal, bearing.tolerance_class)
        ring_size = SizeFrom(ring, f"class {bearing.tolerance_class}, ISO 492", False)
    steel, case = materials.get(BEARING_STEEL), materials.get(seat.card.case_material)
    if onto_shaft:
        return SeatFit(seat, bearing, nominal, ring_size, seat_size, steel, materials.get(seat.shaft_material))
    return SeatFit(seat, bearing, nominal, seat_size, ring_size, case, steel)
