"""Parts of a heat, from the card to the work screen, and their plans at the common case temperature."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import cached_property

from django.utils.translation import gettext as _

from shopmath import drivers, materials
from shopmath.bearings import Bearing
from shopmath.estimate import Estimate
from shopmath.iso286 import limits
from shopmath.thermal.convection import casting_time_constant_s, film_w_m2k, ring_contact_s
from shopmath.thermal.limits import case_limits, method_refusal, shaft_cold_limits
from shopmath.thermal.plan import HeatPlan, plan
from shopmath.thermal.seat import HEATED_BY_U_K, HEATED_U_K, Chilling, Heating, Setup
from shopmath.validation import BadInput
from stator.engines.fact_keys import FactKey
from stator.engines.fits import BEARING_STEEL, bearing_of
from stator.engines.models import Fitted, Seat
from stator.engines.properties import Property
from stator.shop.models import Chiller, Driver, Heater, Shop
from stator.stations.install_with_heat import setup
from stator.ui.number_format import size

NEAR_K = 10.0  # nearer to the oven's own temperature a case takes for ever
CIRCLIP_S = 15.0  # to seat a circlip, pliers in hand


@dataclass(frozen=True)
class HotPart:
    """A part to be installed in the hot case.

    A snap ring is one as well: it needs no heat, but its bearing must be seated before it.
    """

    key: str
    name: str
    marking: str
    seat: Seat | None
    fitted: Fitted | None
    chiller: Chiller | None
    must: bool = False
    after: tuple[str, ...] = ()
    planned: HeatPlan | None = None
    seat_mm: tuple[float, float] | None = None  # the seat as measured, and its uncertainty
    is_circlip: bool = False

    @property
    def thing(self) -> Seat | Fitted:
        found = self.seat or self.fitted
        assert found is not None
        return found

    @property
    def slot(self) -> FactKey:
        """Return where it is written what became of it."""
        return FactKey(self.thing.part, Property.CIRCLIP if self.is_circlip else Property.FIT_OUTCOME)

    @property
    def is_bearing(self) -> bool:
        return self.seat is not None and not self.is_circlip

    @property
    def diameter_mm(self) -> float:
        return self.fitted.d_mm if self.fitted else 0.0 if self.is_circlip else self.bearing.outside_mm

    @cached_property
    def bearing(self) -> Bearing:
        assert self.seat is not None
        return bearing_of(self.seat)

    @property
    def from_words(self) -> str:
        return str(self.thing.get_loads_from_display())

    @property
    def window(self) -> drivers.Window:
        """Return what a driver must measure to land where it may push."""
        return drivers.pin_end(self.fitted.d_mm) if self.fitted else drivers.outer_ring(self.bearing)

    def driver(self, shelf: Iterable[Driver]) -> Driver | None:
        """The shop's driver that lands on its outer ring."""
        return next((each for each in shelf if not self.window.refusal(each.outside_mm, each.inside_mm)), None)


@dataclass(frozen=True)
class Choice:
    """The choices for one part: in this heat or not, retained regardless of the damage, and its chiller."""

    taken: bool
    must: bool
    chiller: Chiller | None


def circlip_of(seat: Seat) -> str:
    """Return the name of the snap ring of a seat."""
    return _("Circlip, {part}").format(part=seat.name)


def parts_of(seats: Iterable[Seat], fitted: Iterable[Fitted], half: str, choice: dict[str, Choice], usual: Choice) -> list[HotPart]:
    """Return everything that is installed hot in one half, in the card's order; each snap ring follows its bearing."""
    found: list[HotPart] = []
    for seat in seats:
        if seat.on != Seat.On.CASE or seat.half != half:
            continue
        key, chosen = seat.uid, choice.get(seat.uid, usual)
        if not chosen.taken:
            continue
        marking = seat.marking or bearing_of(seat).designation
        found.append(HotPart(key, seat.name, marking, seat, None, chosen.chiller, chosen.must))
        if seat.stop == Seat.Stop.CIRCLIP:
            found.append(HotPart(f"{key}.circlip", circlip_of(seat), "", seat, None, None, after=(key,), is_circlip=True))
    here = {part.key for part in found}
    for each in fitted:
        key, chosen = each.uid, choice.get(each.uid, usual)
        if each.half != half or not each.goes_in_tight or not chosen.taken:
            continue
        after = (each.after.uid,) if each.after and each.after.uid in here else ()
        marking = f"⌀ {size(each.d_mm)} × {size(each.length_mm)}"
        found.append(HotPart(key, each.name, marking, None, each, chosen.chiller, chosen.must, after))
    return found


def _fitted_setup(part: Fitted, wishes: setup.PlanOptions, shop: Shop, room_c: float, heat_c: float | None) -> Setup:
    """Return the setup of a pin or bushing: hole and part by their fit codes, with the time constant ρ·c·(D − d)/(4h)."""
    case, metal = materials.get(part.card.case_material), materials.get(part.metal)
    wall_mm = part.d_mm - part.bore_mm
    still = film_w_m2k("bearing 0.05-0.5 kg in a freezer")
    chill = None
    if wishes.chiller:
        film = film_w_m2k(setup.CHILL_FILM[wishes.chiller.method])
        chill = Chilling(wishes.chiller.method, wishes.chiller.temperature_c, setup.shaft_time_constant_s(metal, wall_mm, film))
    heating = None
    if wishes.heater:
        tau = casting_time_constant_s(case, film_w_m2k(setup.OVEN_FILM[wishes.heater.fan]))
        heating = Heating(wishes.heater.method, heat_c, tau.map(lambda value: value * wishes.slower))
    mass = metal.density_kg_m3 * math.pi / 4 * (part.d_mm**2 - part.bore_mm**2) * part.length_mm / 1e9
    return Setup(
        nominal_mm=part.d_mm,
        bore_um=limits(part.hole_code, part.d_mm),
        inner_um=limits(part.part_code, part.d_mm),
        outer_alpha=case.alpha,
        inner_alpha=metal.alpha,
        outer_room=casting_time_constant_s(case, film_w_m2k(setup.ROOM_FILM[part.card.painted])),
        inner_room=setup.shaft_time_constant_s(metal, wall_mm, still),
        contact=ring_contact_s(part.d_mm, part.length_mm, mass),
        room_c=room_c,
        heating=heating,
        chilling=chill,
        hot_limits=case_limits(case, ("paint",) if part.card.painted else ()),
        cold_limits=shaft_cold_limits() if part.metal != BEARING_STEEL else (),
        refusal=method_refusal(case, wishes.heater.method if wishes.heater else "none"),
        wanted=wishes.wanted,
        target_c=wishes.target_c,
        handling_s=shop.handling_s,
        outer_u_k=HEATED_BY_U_K.get(wishes.heater.method if wishes.heater else "none", HEATED_U_K),
        bore_even=True,
        inner_even=True,
        inner_name=part.get_kind_display().split(" ")[0],
    )


def _plan(part: HotPart, wishes: setup.PlanOptions, shop: Shop) -> HeatPlan:
    mine = replace(wishes, chiller=part.chiller, seat_mm=part.seat_mm)
    if part.seat:
        return setup.planned(part.seat, mine, shop).plan
    assert part.fitted is not None
    return plan(_fitted_setup(part.fitted, mine, shop, setup.ROOM_C if wishes.room_c is None else wishes.room_c, wishes.heat_c))


@dataclass(frozen=True)
class CaseHeat:
    """The heat that all parts share: oven setting, temperature of the case, duration and limits."""

    heat_c: float
    target_c: float
    soak: Estimate | None
    ceiling_c: float
    ceiling_why: str
    ceiling_code: str
    parts: tuple[HotPart, ...]


def case_heat(parts: list[HotPart], wishes: setup.PlanOptions, shop: Shop) -> CaseHeat:
    """Return plans for every part at one case temperature: the highest that any part needs, within the lowest limit of all."""
    heater = wishes.heater
    if heater is None or heater.method != Heater.Method.OVEN:
        raise BadInput("heater", _("A whole half wants an oven: a flame, a gun or a plate warms one boss at a time."))
    hot = [part for part in parts if not part.is_circlip]
    card = hot[0].thing.card
    shared = [limit for part in hot if part.seat for limit in case_limits(materials.get(card.case_material), tuple(part.seat.left_in))]
    shared += case_limits(materials.get(card.case_material), ("paint",) if card.painted else ())
    lowest = min(shared, key=lambda limit: limit.limit_c, default=None)
    ceiling, why, code = (lowest.limit_c, lowest.what, lowest.code) if lowest else (math.inf, "", "")
    if heater.highest_c and heater.highest_c < ceiling:
        ceiling, why, code = heater.highest_c, heater.name, ""
    draft = replace(wishes, heat_c=ceiling if math.isfinite(ceiling) else 200.0, target_c=None)
    needed = wishes.target_c or max(_plan(part, draft, shop).target_c for part in hot)
    above = setup.ROUND_C * math.ceil((needed + setup.ABOVE_TARGET_K) / setup.ROUND_C)
    heat_c = wishes.heat_c or min(ceiling, above)
    target = min(needed, heat_c - NEAR_K) if wishes.target_c is None else needed
    final = replace(wishes, heat_c=heat_c, target_c=target)
    planned = {part.key: _plan(part, final, shop) for part in hot}
    soak = max((found.soak for found in planned.values() if found.soak), key=lambda soak: soak.likely, default=None)
    return CaseHeat(heat_c, target, soak, ceiling, why, code, tuple(replace(part, planned=planned.get(part.key)) for part in parts))
