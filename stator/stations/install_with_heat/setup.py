"""The setup of one seat from card, shop and choices: how it is heated, and how its partner is chilled."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from shopmath.bearings import Bearing
from shopmath.estimate import Estimate
from shopmath.materials import Material
from shopmath.thermal.convection import casting_time_constant_s, film_w_m2k, ring_contact_s, ring_mass_kg, ring_time_constant_s
from shopmath.thermal.limits import (
    LOCAL_METHODS,
    Limit,
    case_limits,
    method_refusal,
    ring_cold_limits,
    ring_hot_limits,
    shaft_cold_limits,
)
from shopmath.thermal.plan import HeatPlan, plan
from shopmath.thermal.seat import HEATED_BY_U_K, HEATED_U_K, LOCAL_OPENING, Chilling, Heating, Setup
from stator.engines.fits import SeatFit, fit_of
from stator.engines.models import Seat
from stator.shop.models import Chiller, Heater, Shop

ROOM_C = 20.0
ABOVE_TARGET_K = 15.0  # an oven set this much above the target gets there in reasonable time
ROUND_C = 5.0
PLATE_SHARE = 0.2  # of a case's surface that stands on a hot plate
OVEN_FILM = {True: "casting in a domestic oven, fan", False: "casting in a domestic oven, natural"}
ROOM_FILM = {True: "casting, still room air, painted", False: "casting 2-5 kg, still room air"}
CHILL_FILM = {
    "freezer": "bearing 0.05-0.5 kg in a freezer",
    "dry_ice": "bearing in a dry-ice box",
    "spray": "freeze spray",
}


@dataclass(frozen=True)
class PlanOptions:
    """Choices and readings of a plan; None where there are none."""

    heater: Heater | None
    chiller: Chiller | None
    room_c: float | None = None
    heat_c: float | None = None
    target_c: float | None = None
    chill_for_s: float | None = None
    seat_mm: tuple[float, float] | None = None
    ring_mm: tuple[float, float] | None = None
    wanted: str = "usual"
    slower: float = 1.0  # the shop's own history: how much slower this oven is than the tables say


@dataclass(frozen=True)
class SeatPlan:
    """The fit, the plan, and what the oven is to be set to."""

    fit: SeatFit
    plan: HeatPlan
    heat_c: float | None

    @property
    def setup(self) -> Setup:
        return self.plan.setup


def shaft_time_constant_s(material: Material, diameter_mm: float, film: Estimate) -> Estimate:
    """Time constant of a long round shaft: ρ·c·d/(4h)."""
    return film.map(lambda value: material.density_kg_m3 * material.specific_heat * diameter_mm / 1000 / (4 * value))


def _ring(bearing: Bearing, film: Estimate) -> Estimate:
    return ring_time_constant_s(bearing.bore_mm, bearing.outside_mm, bearing.width_mm, film, bearing.mass_kg)


def _plate_film(room_c: float, plate_c: float) -> tuple[Estimate, float]:
    """Return the film coefficient of a hot plate, which heats one face while the rest loses heat, and the final temperature."""
    contact = film_w_m2k("casting standing on a hot plate").map(lambda value: PLATE_SHARE * value)
    air = film_w_m2k(ROOM_FILM[False])
    both = Estimate(contact.low + air.low, contact.likely + air.likely, contact.high + air.high, contact.basis)
    return both, (contact.likely * plate_c + air.likely * room_c) / both.likely


def _heating(fit: SeatFit, wishes: PlanOptions, shop: Shop, room_c: float, heat_c: float | None) -> Heating | None:
    heater = wishes.heater
    if heater is None:
        return None
    if heater.method in LOCAL_METHODS:
        if fit.onto_shaft:
            return Heating(heater.method)
        uncertainty = (LOCAL_OPENING.high - LOCAL_OPENING.low) / 4
        return Heating(heater.method, None, None, shop.local_opening, uncertainty)
    settles_c = heat_c
    film = film_w_m2k(OVEN_FILM[heater.fan])
    if heater.method == Heater.Method.HOT_PLATE and heat_c is not None:
        film, settles_c = _plate_film(room_c, heat_c)
    tau = _ring(fit.bearing, film) if fit.onto_shaft else casting_time_constant_s(fit.outer_material, film)
    return Heating(heater.method, settles_c, tau.map(lambda value: value * wishes.slower))


def _limits(fit: SeatFit) -> tuple[tuple[Limit, ...], tuple[Limit, ...]]:
    if fit.onto_shaft:
        return ring_hot_limits(fit.bearing), shaft_cold_limits()
    left_in = (*fit.seat.left_in, "paint") if fit.seat.card.painted else tuple(fit.seat.left_in)
    return case_limits(fit.outer_material, left_in), ring_cold_limits(fit.bearing)


def _base(fit: SeatFit, wishes: PlanOptions, shop: Shop, room_c: float) -> Setup:
    bearing, seat = fit.bearing, fit.seat
    still = film_w_m2k("bearing 0.05-0.5 kg in a freezer")  # still air is still air, warm or cold
    case_air = film_w_m2k(ROOM_FILM[seat.card.painted])
    mass = bearing.mass_kg or ring_mass_kg(bearing.bore_mm, bearing.outside_mm, bearing.width_mm)
    contact = ring_contact_s(fit.nominal_mm, bearing.width_mm, mass)
    chill = None
    if wishes.chiller:
        film = film_w_m2k(CHILL_FILM[wishes.chiller.method])
        tau = shaft_time_constant_s(fit.inner_material, fit.nominal_mm, film) if fit.onto_shaft else _ring(bearing, film)
        chill = Chilling(wishes.chiller.method, wishes.chiller.temperature_c, tau, wishes.chill_for_s)
    hot, cold = _limits(fit)
    method = wishes.heater.method if wishes.heater else "none"
    shaft_air = shaft_time_constant_s(fit.inner_material, fit.nominal_mm, still) if fit.onto_shaft else None
    return Setup(
        nominal_mm=fit.nominal_mm,
        bore_um=fit.outer.limits,
        inner_um=fit.inner.limits,
        outer_alpha=fit.outer_material.alpha,
        inner_alpha=fit.inner_material.alpha,
        outer_room=_ring(bearing, still) if fit.onto_shaft else casting_time_constant_s(fit.outer_material, case_air),
        inner_room=shaft_air or _ring(bearing, still),
        contact=contact,
        room_c=room_c,
        chilling=chill,
        hot_limits=hot,
        cold_limits=cold,
        refusal=None if fit.onto_shaft else method_refusal(fit.outer_material, method),
        wanted=wishes.wanted,
        target_c=wishes.target_c,
        handling_s=shop.handling_s,
        outer_u_k=HEATED_BY_U_K.get(method, HEATED_U_K),
        bore_even=not fit.outer.measured,
        inner_even=not fit.inner.measured,
        outer_name="bearing" if fit.onto_shaft else "case",
        inner_name="shaft" if fit.onto_shaft else "bearing",
    )


def planned(seat: Seat, wishes: PlanOptions, shop: Shop) -> SeatPlan:
    """Plan a seat.

    Where the oven's setting was not typed, it is chosen a little above the target, inside every limit.
    """
    fit = fit_of(seat, wishes.seat_mm, wishes.ring_mm)
    room_c = ROOM_C if wishes.room_c is None else wishes.room_c
    base = _base(fit, wishes, shop, room_c)
    heater = wishes.heater
    heat_c = None if heater and heater.method in LOCAL_METHODS else wishes.heat_c  # a flame has no setting, whatever the oven had
    if heater and heater.method not in LOCAL_METHODS and heat_c is None:
        ceiling = min([limit.limit_c for limit in base.hot_limits] + ([heater.highest_c] if heater.highest_c else []))
        first = plan(replace(base, heating=_heating(fit, wishes, shop, room_c, ceiling)))
        above = ABOVE_TARGET_K * (2 if heater.method == Heater.Method.HOT_PLATE else 1)
        heat_c = min(ceiling, ROUND_C * math.ceil((first.target_c + above) / ROUND_C))
        base = replace(base, target_c=first.target_c) if heater.method == Heater.Method.OVEN else base
    return SeatPlan(fit, plan(replace(base, heating=_heating(fit, wishes, shop, room_c, heat_c))), heat_c)
