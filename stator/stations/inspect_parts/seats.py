"""A seat as measured, with its bearing: size, taper, ovality, lobes, fit and repair."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from shopmath.bearings import Bearing, BearingCondition, Keeping, lookup, reuse_or_replace
from shopmath.bearings.internal_clearance import MountedClearance
from shopmath.bearings.reuse import REPLACE
from shopmath.form import ANGLES_DEG, DEPTHS, Form, Repair, form, lobing_mm, repair_options
from shopmath.iso286 import Fit, Limits, limits
from shopmath.iso286 import fit as fit_of_limits
from shopmath.materials import get
from shopmath.validation import BadInput
from shopmath.verdict import OUT, at_20c, combined, severity, too_warm_to_judge
from stator.engines.clearance import clearance_left
from stator.engines.fact_keys import FactKey, Location
from stator.engines.fits import SeatFit, bearing_of, fit_of, nominal_of
from stator.engines.models import EngineCard, Seat
from stator.engines.parts import Part
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Fact, Facts
from stator.shop.equipment_snapshot import EquipmentSnapshot
from stator.shop.models import Compound
from stator.stations.framework import MessageRef
from stator.stations.inspect_parts.figures import NO_LIMIT, Bounds, InspectedValue, step_of, uncertainty_of

GAUGE_ALPHA = 11.5e-6
ROOM_C = 20.0
ROUND = tuple(Location(angle_deg=angle, depth=depth) for depth in DEPTHS for angle in ANGLES_DEG)
LOOKED_AT = (Property.HIT_THROUGH_BALLS, Property.BEARING_HISTORY, Property.BEARING_FEEL, Property.RACES)


@dataclass(frozen=True)
class SeatInspection:
    """All that Inspect computes of one seat. Sizes in mm, at 20 °C."""

    card: EngineCard
    seat: Seat
    own: EntryData
    known: Facts
    shelves: EquipmentSnapshot | None

    @property
    def part(self) -> Part:
        return self.seat.part

    @property
    def on_shaft(self) -> bool:
        return self.seat.on == Seat.On.SHAFT

    def at(self, what: Property, place: Location | None = None) -> FactKey:
        return FactKey(self.part, what, place or Location())

    def said(self, what: Property) -> str:
        return self.own.said(self.at(what))

    # the bearing

    @cached_property
    def bearing(self) -> Bearing | None:
        """By its marking as found, else as on the card."""
        marked = self.said(Property.BEARING_MARKING)
        try:
            return lookup(marked) if marked else bearing_of(self.seat)
        except BadInput:
            return None

    @property
    def is_shielded(self) -> bool:
        return bool(self.bearing and self.bearing.seal != "open")

    @property
    def marking_differs(self) -> bool:
        found, card = self.said(Property.BEARING_MARKING), self.seat.marking
        return bool(found and card) and "".join(found.upper().split()) != "".join(card.upper().split())

    @property
    def scrapped_at(self) -> str:
        """The station at which the bearing was decided to be scrap; empty where none did."""
        decided = self.known.best(self.part, Property.BEARING_DECISION)
        return decided.station if decided and decided.text == "scrap" else ""

    @cached_property
    def keeping(self) -> Keeping | None:
        """Return whether the bearing stays, once it has been looked at."""
        if self.scrapped_at:
            return Keeping(REPLACE, (), (), ("scrapped",))
        answers = {what: self.said(what) for what in LOOKED_AT}
        if not all(answers.values()):
            return None
        true_values = {"yes": True, "no": False, "clean": True, "rough": False}
        hit, history, feel, races = (true_values.get(answers[what]) for what in LOOKED_AT)
        hidden = self.said(Property.SLOW_AND_HIDDEN) == "yes"
        return reuse_or_replace(BearingCondition(hit, history, feel, races, self.is_shielded, hidden, hidden))

    # its sizes

    @cached_property
    def nominal(self) -> float | None:
        try:
            return nominal_of(self.seat)
        except BadInput:
            return None

    @property
    def temperature_c(self) -> float | None:
        return self.own.value(self.at(Property.SEAT_TEMPERATURE))

    @property
    def too_warm(self) -> bool:
        return self.temperature_c is not None and too_warm_to_judge(self.temperature_c, ROOM_C)

    @cached_property
    def around(self) -> list[Fact]:
        """Return the readings across it at both depths."""
        facts = (self.own.fact(self.at(Property.SEAT_DIAMETER, place)) for place in ROUND)
        return [each for each in facts if each is not None]

    def across(self, place: Location) -> float | None:
        return self.own.value(self.at(Property.SEAT_DIAMETER, place))

    @cached_property
    def diameters(self) -> list[float] | None:
        """All six, at 20 °C; None until all are in."""
        read = [each.value or 0.0 for each in self.around]
        if len(read) < len(ROUND):
            return None
        part_c = self.temperature_c
        if part_c is None:
            return read
        alpha = get(self.seat.shaft_material if self.on_shaft else self.card.case_material).alpha
        return [at_20c(value, alpha, part_c, GAUGE_ALPHA, part_c) for value in read]

    @cached_property
    def form(self) -> Form | None:
        read = self.diameters
        return form(read[:3], read[3:]) if read else None

    @cached_property
    def code_limits(self) -> Limits | None:
        """Return what its fit code allows."""
        try:
            return limits(self.seat.code, fit_of(self.seat).nominal_mm) if self.seat.code else None
        except BadInput:
            return None

    @cached_property
    def figures(self) -> list[InspectedValue]:
        """Size, taper, ovality and lobes, against the fit code."""
        shape, nominal = self.form, self.nominal
        if shape is None or nominal is None:
            return []
        slots = tuple(self.at(Property.SEAT_DIAMETER, place) for place in ROUND)
        uncertainty, step = uncertainty_of(self.around), step_of(self.around)
        size, rounded = NO_LIMIT, NO_LIMIT
        code = self.code_limits
        if code and not self.too_warm:
            source = MessageRef("iso_assumed" if self.seat.code_assumed else "iso", {"code": self.seat.code})
            size = Bounds(nominal + code.lower_um / 1000, nominal + code.upper_um / 1000, source)
            rounded = Bounds(None, code.width_um / 2000, MessageRef("half_width", {"code": self.seat.code}))
        found = [
            InspectedValue("size", slots, shape.mean_mm, uncertainty, size, step),
            InspectedValue("taper", slots, abs(shape.taper_mm), combined(uncertainty, uncertainty) / 1.7, rounded, step),
            InspectedValue("ovality", slots, shape.ovality_mm, combined(uncertainty, uncertainty), rounded, step),
        ]
        vee = self.own.fact(self.at(Property.VEE_RUNOUT))
        if vee and vee.value is not None:
            lobes = lobing_mm(vee.value, shape.ovality_mm)
            found.append(InspectedValue("lobes", (vee.slot,), lobes, vee.uncertainty or 0.0, rounded, step_of([vee])))
        return found

    @property
    def verdict(self) -> str:
        """Return the worst verdict of its values; empty if none has one."""
        states = [each.state for each in self.figures if each.state]
        return min(states, key=severity, default="")

    @property
    def is_out(self) -> bool:
        return self.verdict == OUT

    # what follows

    @cached_property
    def fit(self) -> tuple[SeatFit, Fit] | None:
        """As measured, against the ring itself where that was measured too."""
        if self.form is None:
            return None
        ring = self.own.fact(self.at(Property.RING_DIAMETER))
        pair = (ring.value, ring.uncertainty or 0.0) if ring and ring.value is not None else None
        found = fit_of(self.seat, (self.form.mean_mm, uncertainty_of(self.around)), pair)
        return found, fit_of_limits(found.inner.limits, found.outer.limits)

    @cached_property
    def clearance_left(self) -> tuple[MountedClearance, MountedClearance] | None:
        """In the bearing once fitted, cold and warm, *estimate*: its other ring is taken as usually fitted."""
        return clearance_left(self.seat, self.fit[1], self.bearing) if self.fit else None

    @cached_property
    def mends(self) -> tuple[Repair, ...]:
        """Return the possible repairs of a seat that is Not OK."""
        loose = max(0.0, -self.fit[1].min_interference_mm) if self.fit else 0.0
        shelf = self.shelves.compounds if self.shelves else ()
        fills = [each.gap_mm for each in shelf if each.kind == Compound.Kind.RETAINING and each.gap_mm]
        worst = max(abs(self.form.taper_mm), self.form.ovality_mm) if self.form else 0.0
        wall = self.own.value(self.at(Property.WALL_THICKNESS))
        return repair_options(loose, worst, wall, max(fills, default=None), self.seat.on)

    @property
    def mend(self) -> Repair | None:
        """The way chosen."""
        chosen = self.said(Property.SEAT_MEND)
        return next((each for each in self.mends if each.key == chosen), None)
