"""Analysis of the crank's end play: the stack across the case or the manual's table, the shims, and the result."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from shopmath.end_play import Dimension, EndPlay, Row, ShimChoice, TableChoice, choose_shims, from_table, stack
from shopmath.materials import get
from shopmath.running_clearance import warm_float_mm
from shopmath.validation import BadInput, gettext_noop
from shopmath.verdict import Conformity, combined, judge, too_warm_to_judge
from stator.engines.card_facts import Limit
from stator.engines.case import along
from stator.engines.clearance import RUNNING_C
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import EngineCard
from stator.engines.models.case import center_sections
from stator.engines.parts import CRANK, JOINT, LEFT_CASE, RIGHT_CASE
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Fact, Facts
from stator.shop.equipment_snapshot import EquipmentSnapshot
from stator.shop.models import Blades
from stator.stations.framework import StationInput

ROOM_C = 20.0
RUNNING_U_K = 15.0  # half-width of a running temperature, K: estimate
MOST_SHIMS = 2
CRANK_STEEL = "42crmo4"
ROW = re.compile(r"[\d.,]+(?:\s*(?:-|–|to)\s*[\d.,]+)?\s*[:=]?\s+[\d.,]+")
STACK, TABLE = "stack", "table"  # ways to find it
SQUARES, WORST = "rss", "worst"  # ways to add uncertainties up


class Code(StrEnum):
    """Codes of the verdicts of Set end play."""

    TWO_CRANKS = "two cranks"
    MEASURE = "measure"
    TOO_WARM = "too warm"
    NO_SHIM = "no shim"
    MEASURE_SHIM = "measure shim"
    FIT = "fit"
    FIT_NONE = "fit none"
    OUT = "out"
    TOO_CLOSE = "too close"


@dataclass(frozen=True)
class Link:
    """A dimension of the stack: where it is measured, its sign, and whether an engine may lack it."""

    slot: FactKey
    sign: int
    optional: bool = False


def links_of(card: EngineCard) -> tuple[Link, ...]:
    """Return the dimensions of the stack across the case: both halves, what is between them, and the crank."""
    return (
        Link(FactKey(LEFT_CASE, Property.FACE_TO_BEARING), 1),
        *(Link(FactKey(centre.part, Property.SECTION_WIDTH), 1) for centre in center_sections(card)),
        Link(FactKey(RIGHT_CASE, Property.FACE_TO_BEARING), 1),
        *(Link(FactKey(joint.part, Property.GASKET_CRUSHED), 1, optional=True) for joint in along(card)),
        Link(FactKey(CRANK, Property.CRANK_SHOULDERS), -1),
        Link(FactKey(CRANK, Property.SHIMS_FITTED), -1, optional=True),
    )


def crank(what: Property) -> FactKey:
    return FactKey(CRANK, what)


def shim(number: int) -> FactKey:
    """Return the key of the thickness of a shim, counted from 1."""
    return FactKey(CRANK, Property.SHIM_THICKNESS, Location(stage=number))


@dataclass(frozen=True)
class EndPlayAnalysis:
    """The analysis of Set end play. Sizes in mm."""

    card: EngineCard
    own: EntryData
    known: Facts
    kit: Blades | None

    @property
    def how(self) -> str:
        return TABLE if self.own.choice("how") == TABLE else STACK

    @property
    def adds_up(self) -> str:
        return WORST if self.own.choice("sum") == WORST else SQUARES

    # the stack

    @cached_property
    def links(self) -> list[tuple[Link, Fact]] | None:
        """Links as measured; None until all that are needed are in."""
        found = []
        for link in links_of(self.card):
            fact = self.own.fact(link.slot)
            if fact is None and not (link.optional and self.own.was_skipped(link.slot)):
                return None
            if fact is not None:
                found.append((link, fact))
        return found

    @cached_property
    def free(self) -> EndPlay | None:
        """The float without new shims."""
        if not self.links:
            return None
        return stack([Dimension(link.slot.key, fact.value or 0.0, fact.uncertainty or 0.0, link.sign) for link, fact in self.links])

    @property
    def uncertainty(self) -> float:
        if self.free is None:
            return 0.0
        return self.free.worst_mm if self.adds_up == WORST else self.free.rss_mm

    # what it should be

    @cached_property
    def limit(self) -> Limit | None:
        """Of the card, where it gives both ends."""
        found = self.known.limit(Property.END_FLOAT)
        return found if found and found.low is not None and found.high is not None else None

    @cached_property
    def limits(self) -> tuple[float, float] | None:
        """The card's, else as typed from the manual."""
        if self.limit and self.limit.low is not None and self.limit.high is not None:
            return self.limit.low, self.limit.high
        low, high = (self.own.value(crank(what)) for what in (Property.END_FLOAT_LEAST, Property.END_FLOAT_MOST))
        return (low, high) if low is not None and high is not None and low <= high else None

    # the shims

    @cached_property
    def _chosen(self) -> ShimChoice | BadInput | None:
        if self.free is None or self.limits is None:
            return None
        try:
            return choose_shims(self.free.value_mm, *self.limits, self.kit.sizes_mm if self.kit else (), MOST_SHIMS, self.uncertainty)
        except BadInput as error:
            return error

    @property
    def choice(self) -> ShimChoice | None:
        """Shims of the kit that put it right."""
        return self._chosen if isinstance(self._chosen, ShimChoice) else None

    @property
    def distance(self) -> Fact | None:
        """As the manual has it measured."""
        return self.own.fact(FactKey(JOINT, Property.TABLE_DISTANCE))

    @cached_property
    def _looked_up(self) -> TableChoice | BadInput | None:
        said = self.own.said(FactKey(JOINT, Property.TABLE))
        if self.distance is None or not said:
            return None
        try:
            return from_table(self.distance.value or 0.0, read_table(said))
        except BadInput as error:
            return error

    @property
    def table(self) -> TableChoice | None:
        """Return what the manual's table says of the distance."""
        return self._looked_up if isinstance(self._looked_up, TableChoice) else None

    @property
    def trouble(self) -> BadInput | None:
        """Return why there is no shim to fit."""
        found = self._chosen if self.how == STACK else self._looked_up
        return found if isinstance(found, BadInput) else None

    @property
    def row(self) -> Row | None:
        """The row of the table that is taken."""
        if self.table is None:
            return None
        picked = self.own.said(crank(Property.TABLE_ROW))
        chosen = next((row for row in self.table.rows if row_key(row) == picked), None)
        return chosen or (None if self.table.between else self.table.rows[0])

    @property
    def pieces(self) -> tuple[float, ...]:
        """Return the shims to be fitted, by their nominal thickness."""
        if self.how == STACK:
            return self.choice.shims_mm if self.choice else ()
        return (self.row.shim_mm,) if self.row else ()

    @property
    def shims_known(self) -> bool:
        return self.choice is not None if self.how == STACK else self.row is not None

    @property
    def measured(self) -> list[Fact]:
        """The shims in the hand, as measured."""
        found = (self.own.fact(shim(number)) for number in range(1, len(self.pieces) + 1))
        return [each for each in found if each is not None]

    # what is left

    @property
    def left_by_bags(self) -> float:
        """Return the end play that results if the shims have their nominal thickness."""
        if self.choice:
            return self.choice.float_mm
        return (self.distance.value if self.distance and self.distance.value else 0.0) - sum(self.pieces)

    @cached_property
    def predicted(self) -> tuple[float, float] | None:
        """The float with the shims as measured, and its uncertainty."""
        base = self.free.value_mm if self.how == STACK and self.free else self.distance.value if self.distance else None
        if base is None or not self.shims_known or len(self.measured) < len(self.pieces):
            return None
        first = self.uncertainty if self.how == STACK else (self.distance.uncertainty or 0.0) if self.distance else 0.0
        of_shims = [fact.uncertainty or 0.0 for fact in self.measured]
        return base - sum(fact.value or 0.0 for fact in self.measured), combined(first, *of_shims)

    @property
    def too_warm(self) -> bool:
        warm = self.own.value(FactKey(JOINT, Property.CASE_TEMPERATURE))
        return warm is not None and too_warm_to_judge(warm, ROOM_C)

    @cached_property
    def call(self) -> Conformity | None:
        """The float against its limits."""
        if self.predicted is None or self.limits is None or self.too_warm:
            return None
        return judge(self.predicted[0], *self.limits, self.predicted[1])

    # warm

    @cached_property
    def warm_mm(self) -> float | None:
        """The float at running temperature, where the stack gives the crank's length, *estimate*."""
        long = self.own.value(FactKey(CRANK, Property.CRANK_SHOULDERS))
        if self.predicted is None or not long or self.how != STACK:
            return None
        case, crank = get(self.card.case_material), get(CRANK_STEEL)
        return warm_float_mm(self.predicted[0], long, case.alpha, RUNNING_C[0], crank.alpha, RUNNING_C[-1])

    @property
    def warm_u_mm(self) -> float:
        """Return the expanded uncertainty of the warm end play, mm: that of the cold one, and temperatures known to 15 K."""
        long = self.own.value(FactKey(CRANK, Property.CRANK_SHOULDERS)) or 0.0
        return math.hypot(self.uncertainty, *(long * RUNNING_U_K * get(name).alpha for name in (self.card.case_material, CRANK_STEEL)))

    @property
    def side(self) -> str:
        """Return the side on which the shims are fitted."""
        return self.own.said(crank(Property.SHIM_SIDE))


def row_key(row: Row) -> str:
    """A row of the table as the key of an answer."""
    return f"{row.shim_mm:g}".replace(".", "_")


def read_table(text: str) -> list[tuple[float, ...]]:
    """Rows of a manual's table as typed: `1.0 0.9; 1.1 1.0` or `1.0-1.1 0.9; 1.1-1.2 1.0`, mm."""
    rows = []
    for part in (each.strip() for each in re.split(r"[;\n]", text)):
        if not part:
            continue
        if not ROW.fullmatch(part):
            sentence = gettext_noop("{row!r} is no row: a distance and a shim in mm, such as 1.0-1.1 0.9, with ; between rows.")
            raise BadInput("table", sentence, "no_row", row=part)
        numbers = [float(number.replace(",", ".")) for number in re.findall(r"\d*[.,]?\d+", part)]
        rows.append(tuple(numbers))
    from_table(rows[0][0] if rows else 0.0, rows)  # refuses what falls or is empty
    return rows


def end_float_facts(given: StationInput) -> EndPlayAnalysis:
    """Return the analysis of Set end play."""
    return EndPlayAnalysis(given.card, given.own, given.facts, _kit(given.shelves))


def _kit(shelves: EquipmentSnapshot | None) -> Blades | None:
    """Return the shims of the shop."""
    kits = shelves.blades if shelves else ()
    return next((each for each in kits if each.kind == Blades.Kind.SHIM and each.sizes_mm), None)
