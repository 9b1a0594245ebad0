"""Analysis of a crank and its seats before decisions: each value with its limit, or recorded without one."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from shopmath.balance import balance_factor, bob_weight_for_factor_g
from shopmath.bearings.reuse import KEEP, MAY_STAY
from shopmath.rods import BEND_MM, TWIST_MM, lean, play_of_tilt_mm
from shopmath.verdict import combined, severity
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import EngineCard
from stator.engines.parts import CRANK, Part, rod
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Facts
from stator.shop.equipment_snapshot import EquipmentSnapshot
from stator.stations.framework import MessageRef, StationInput
from stator.stations.inspect_parts.figures import Bounds, InspectedValue, of_card, step_of, uncertainty_of
from stator.stations.inspect_parts.seats import SeatInspection

TAB = "part"
WHOLE, ROD, MASSES = "crank", "rod", "masses"  # tabs that are not a seat's
SMALL_END, BIG_END, UPRIGHT, FLAT = "small", "big", "upright", "flat"
BARS = {Property.ROD_BEND: UPRIGHT, Property.ROD_TWIST: FLAT}  # how the rod lies when its bars tell
SPREAD_MM = 0.05  # width over the webs, one place against another: shop rule
WIDTHS = tuple(FactKey(CRANK, Property.WIDTH_OVER_WEBS, Location(angle_deg=angle)) for angle in (0.0, 90.0, 180.0, 270.0))
PLAYS = (Property.BIG_END_RADIAL_PLAY, Property.BIG_END_SIDE_PLAY)
TILT = (Property.SMALL_END_TILT, Property.ROD_LENGTH, Property.BIG_END_WIDTH)
TWO_RODS = (EngineCard.Layout.TWIN, EngineCard.Layout.FLAT_TWIN, EngineCard.Layout.VEE)
STAYS = (KEEP, MAY_STAY)


class Code(StrEnum):
    """Codes of the verdicts of Inspect parts."""

    MEASURE = "measure"
    DAMAGED = "damaged"
    RECORDED = "recorded"
    WITHIN = "within"
    FIGURE_OUT = "figure out"
    TOO_CLOSE = "too close"
    KEEP = "keep"
    MAY_STAY = "may stay"
    REPLACE = "replace"
    WEIGH = "weigh"
    FACTOR = "factor"
    REPLACED = "bearings replaced"


@dataclass(frozen=True)
class Factor:
    """The balance factor with the new masses and with the old ones, and the bob weight for the old factor, kg."""

    new: float
    old: float | None
    hung_kg: float | None


@dataclass(frozen=True)
class InspectionAnalysis:
    """All that Inspect computes. Sizes in mm."""

    card: EngineCard
    own: EntryData
    known: Facts
    seats: tuple[SeatInspection, ...]

    def said(self, what: Property) -> str:
        return self.own.said(FactKey(CRANK, what))

    # the part in hand

    @property
    def tabs(self) -> list[str]:
        """Parts to look at, one at a time."""
        return [WHOLE, ROD, *(each.part.uid for each in self.seats), *([MASSES] if self.masses_change else [])]

    @property
    def tab(self) -> str:
        chosen = self.own.choice(TAB)
        return chosen if chosen in self.tabs else WHOLE

    @property
    def seat(self) -> SeatInspection | None:
        """Return the seat being inspected."""
        return next((each for each in self.seats if each.part.uid == self.tab), None)

    # the crank

    @property
    def rods(self) -> tuple[Part, ...]:
        """Rods whose play is felt."""
        return (rod(1), rod(2)) if self.card.layout in TWO_RODS else (rod(1),)

    @staticmethod
    def bar(end: str, lies: str) -> FactKey:
        """Return the key of a bar's tilt: the end of the rod, upright or flat."""
        return FactKey(rod(1), Property.BAR_LEAN, Location(end=end, depth=lies))

    @property
    def rod_is_begun(self) -> bool:
        """Return True if the rod is measured over bars: nobody is led to it who does not choose to."""
        return self.own.has(FactKey(rod(1), Property.BAR_SPAN))

    @property
    def big_end_is_assumed(self) -> bool:
        """Return True if bend or twist depends on an assumed bar in the big end."""
        return any(self.own.has(self.bar(SMALL_END, lies)) and not self.own.has(self.bar(BIG_END, lies)) for lies in BARS.values())

    @cached_property
    def rod_figures(self) -> list[InspectedValue]:
        """Bend and twist over 100 mm; a bar in the big end that was not read is taken as level."""
        span = self.own.value(FactKey(rod(1), Property.BAR_SPAN))
        found = []
        for what, lies in BARS.items() if span else ():
            small, big = (self.own.fact(self.bar(end, lies)) for end in (SMALL_END, BIG_END))
            if small is None or small.value is None or span is None:
                continue
            read = [each for each in (small, big) if each]
            leans = lean(small.value, big.value or 0.0 if big else 0.0, span, uncertainty_of(read))
            limit = self.known.limit(what)
            bounds = of_card(limit) if limit else Bounds(None, BEND_MM if what == Property.ROD_BEND else TWIST_MM, MessageRef("shop_rule"))
            slots = tuple(each.slot for each in read)
            found.append(InspectedValue(what, slots, leans.over_100_mm, leans.uncertainty_mm, bounds, step_of(read)))
        return found

    @property
    def is_damaged(self) -> bool:
        return self.said(Property.DAMAGE) == "found"

    @property
    def masses_change(self) -> bool:
        return self.said(Property.MASSES) == "other"

    @cached_property
    def crank_figures(self) -> list[InspectedValue]:
        """Plays, small end, width over the webs."""
        slots = [FactKey(each, what) for each in self.rods for what in PLAYS]
        slots += [FactKey(rod(1), Property.SMALL_END_PLAY), FactKey(rod(1), Property.SMALL_END_TILT)]
        found = []
        for fact_key in slots:
            fact = self.own.fact(fact_key)
            if fact and fact.value is not None:
                bounds = of_card(self.known.limit(fact_key.what))
                found.append(InspectedValue(fact_key.what, (fact_key,), fact.value, fact.uncertainty or 0.0, bounds, step_of([fact])))
        return [*found, *self._widths()]

    @property
    def play_by_tilt(self) -> float | None:
        """Return the radial clearance of the big end computed from the tilt of the rod, mm.

        It is None if it was not measured.
        """
        tilt, length, width = (self.own.value(FactKey(rod(1), each)) for each in TILT)
        return play_of_tilt_mm(tilt, length, width) if tilt is not None and length and width else None

    @property
    def play_by_tilt_u(self) -> float:
        """Return the expanded uncertainty of that play, mm: it is proportional to the tilt."""
        fact = self.own.fact(FactKey(rod(1), Property.SMALL_END_TILT))
        play = self.play_by_tilt
        return play * (fact.uncertainty or 0.0) / fact.value if play and fact and fact.value else 0.0

    def _widths(self) -> list[InspectedValue]:
        facts = [fact for fact_key in WIDTHS if (fact := self.own.fact(fact_key))]
        if len(facts) < len(WIDTHS):
            return []
        sizes = [fact.value or 0.0 for fact in facts]
        uncertainty, step = uncertainty_of(facts), step_of(facts)
        width = of_card(self.known.limit(Property.WIDTH_OVER_WEBS))
        parallel = Bounds(None, SPREAD_MM, MessageRef("shop_rule"))
        return [
            InspectedValue(Property.WIDTH_OVER_WEBS, WIDTHS, sum(sizes) / len(sizes), uncertainty, width, step),
            InspectedValue("parallel", WIDTHS, max(sizes) - min(sizes), combined(uncertainty, uncertainty), parallel, step),
        ]

    # what is judged

    @property
    def figures(self) -> list[InspectedValue]:
        """Return the values of the part being inspected."""
        return self.seat.figures if self.seat else {WHOLE: self.crank_figures, ROD: self.rod_figures}.get(self.tab, [])

    @property
    def all_figures(self) -> list[InspectedValue]:
        return [*self.crank_figures, *self.rod_figures, *(value for each in self.seats for value in each.figures)]

    @cached_property
    def factor(self) -> Factor | None:
        needed = (
            FactKey(CRANK, Property.HUNG_MASS),
            FactKey(rod(1), Property.SMALL_END_MASS),
            FactKey(CRANK, Property.RECIPROCATING_MASS),
            FactKey(CRANK, Property.RECIPROCATING_MASS_BEFORE),
        )
        hung, small, new, old = (None if (kg := self.own.value(fact_key)) is None else 1000 * kg for fact_key in needed)
        if hung is None or small is None or new is None:
            return None
        was = balance_factor(hung, small, old) if old else None
        hangs = bob_weight_for_factor_g(was, small, new) / 1000 if was is not None else None
        return Factor(balance_factor(hung, small, new), was, hangs)

    @property
    def settling(self) -> tuple[InspectedValue, int] | None:
        """Return a value of this part that is too close to call, and how many readings in total would decide it."""
        for value in self.figures:
            found = value.settles(self.own)
            if found and found.readings:
                return value, found.readings
        return None

    @property
    def replaced(self) -> list[SeatInspection]:
        """Seats whose bearing goes."""
        return [each for each in self.seats if each.keeping and each.keeping.verdict not in STAYS]


def worst_of(figures: list[InspectedValue]) -> InspectedValue | None:
    """Return the value with the worst verdict; None if no value has one."""
    return min((each for each in figures if each.state), key=lambda each: severity(each.state), default=None)


def inspect_facts(given: StationInput) -> InspectionAnalysis:
    """Return what Inspect knows, built once for a page or an act."""
    return InspectionAnalysis(given.card, given.own, given.facts, tuple(_seats(given, given.shelves)))


def _seats(given: StationInput, shelves: EquipmentSnapshot | None) -> list[SeatInspection]:
    seats = list(given.card.seats.all())
    for seat in seats:
        seat.card = given.card
    return [SeatInspection(given.card, seat, given.own, given.facts, shelves) for seat in seats]
