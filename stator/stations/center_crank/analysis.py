"""Analysis of the crank in the closed case: gaps at its sides, rotation, end play by dial indicator, and leakage."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from shopmath import feeler_gauges
from shopmath.case_closing import leak, leak_settled_min, warmed_kpa
from shopmath.centering import Centred, centred
from shopmath.validation import BadInput
from shopmath.verdict import IN, OUT, Conformity, combined, judge
from stator.engines.card_facts import Limit
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import EngineCard
from stator.engines.parts import CRANK, JOINT
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Fact, Facts
from stator.shop.models import Blades, PullIn
from stator.stations.framework import StationInput

GAP_LIMIT_MM = 0.05  # difference between the gaps, shop rule where the card says nothing
PITCH_MM = 1.5
PRESSURE_U_KPA = 0.25
TESTS = ("pressure", "vacuum")
PROOFS = ("pressure", "oil", "none")
START, END = 1, 2  # of a test
GAPS = tuple(FactKey(CRANK, Property.SIDE_GAP, Location(end=end)) for end in ("left", "right"))
SPIN, DRAG = FactKey(CRANK, Property.SPIN), FactKey(CRANK, Property.DRAG)
BY_DIAL = FactKey(CRANK, Property.END_FLOAT)
HELD = FactKey(JOINT, Property.TEST_TIME)
NOT_PROVED = FactKey(JOINT, Property.REASON)


def pressure(test: str, stage: int) -> FactKey:
    """Return the key of the pressure at the start or the end of a test."""
    return FactKey(JOINT, Property.TEST_PRESSURE, Location(depth=test, stage=stage))


def warmth(test: str, stage: int) -> FactKey:
    """Return the key of the air temperature in the case at the start or the end of a test."""
    return FactKey(JOINT, Property.TEST_TEMPERATURE, Location(depth=test, stage=stage))


class Code(StrEnum):
    """Codes of the verdicts of Center crank."""

    MEASURE = "measure"
    TOO_CLOSE = "too close"
    OFF_CENTRE = "off centre"
    DRAGS = "drags"
    DIFFERS = "differs"
    FLOAT_OUT = "float out"
    FLOAT_CLOSE = "float close"
    LEAKS = "leaks"
    LEAK_CLOSE = "leak close"
    TEST = "test"
    CENTRED = "centred"
    DONE = "done"


@dataclass(frozen=True)
class CenteringAnalysis:
    """All that Centre computes. Sizes in mm, pressures in kPa."""

    card: EngineCard
    own: EntryData
    known: Facts
    tool: PullIn | None = None
    blades: Blades | None = None

    @property
    def stands_hard(self) -> bool:
        """Return True if this crank rests against one side, as some manuals require."""
        return self.own.choice("school") == "hard"

    @property
    def proof(self) -> str:
        chosen = self.own.choice("proof")
        return chosen if chosen in PROOFS else PROOFS[0]

    # the gaps

    @property
    def pitch_mm(self) -> float:
        return self.tool.pitch_mm if self.tool else PITCH_MM

    @cached_property
    def card_limit(self) -> Limit | None:
        found = self.known.limit(Property.CENTRING)
        return found if found and found.high else None

    @property
    def limit_mm(self) -> float:
        """Return how much the gaps may differ."""
        return self.card_limit.high if self.card_limit and self.card_limit.high else GAP_LIMIT_MM

    @cached_property
    def gap_facts(self) -> tuple[Fact, Fact] | None:
        """Both gaps of this attempt."""
        found = [self.own.fact(fact_key, self.own.attempt) if self.own.all(fact_key, self.own.attempt) else None for fact_key in GAPS]
        left, right = found
        return (left, right) if left and right else None

    @property
    def gaps(self) -> tuple[float, float] | None:
        return (self.gap_facts[0].value or 0.0, self.gap_facts[1].value or 0.0) if self.gap_facts else None

    @property
    def gap_uncertainty(self) -> float:
        """Of each gap."""
        return max(fact.uncertainty or 0.0 for fact in self.gap_facts) if self.gap_facts else 0.0

    @cached_property
    def middle(self) -> Centred | None:
        return centred(*self.gaps, self.pitch_mm, self.limit_mm, self.gap_uncertainty) if self.gaps else None

    def blades_for(self, gap_mm: float) -> list[float]:
        """Return the feeler gauge blades that make up a gap."""
        return list(feeler_gauges.stack(gap_mm, self.blades.sizes_mm)) if self.blades and gap_mm > 0 else []

    @property
    def is_centred(self) -> bool:
        return self.stands_hard or bool(self.middle and self.middle.call.state == IN)

    # how it turns, and its float

    @property
    def drags(self) -> bool:
        return self.own.said(SPIN) == "drags"

    @cached_property
    def by_dial(self) -> Fact | None:
        return self.own.fact(BY_DIAL)

    @cached_property
    def predicted(self) -> Fact | None:
        """Return the end play predicted at Set end play."""
        return self.known.as_left(CRANK, Property.END_FLOAT_PREDICTED)

    @cached_property
    def against_prediction(self) -> Conformity | None:
        """The dial against the stack: they should agree within both uncertainties."""
        dial, said = self.by_dial, self.predicted
        if dial is None or said is None or dial.value is None or said.value is None:
            return None
        off, uncertainty = dial.value - said.value, combined(dial.uncertainty or 0.0, said.uncertainty or 0.0)
        values = {"dial": dial.value, "stack": said.value, "off": abs(off), "uncertainty": uncertainty}
        if abs(off) <= uncertainty:
            return Conformity(IN, uncertainty - abs(off), "", "agree", values)
        return Conformity(OUT, uncertainty - abs(off), "", "more" if off > 0 else "less", values)

    @cached_property
    def float_limit(self) -> Limit | None:
        found = self.known.limit(Property.END_FLOAT)
        return found if found and found.is_given else None

    @cached_property
    def float_call(self) -> Conformity | None:
        dial, limit = self.by_dial, self.float_limit
        if dial is None or dial.value is None or limit is None:
            return None
        return judge(dial.value, limit.low, limit.high, dial.uncertainty or 0.0)

    # whether the case holds

    def kpa(self, test: str, stage: int) -> float | None:
        return self.own.value(pressure(test, stage))

    def warmed_kpa(self, test: str) -> float:
        """Return what a test may gain because the air in the case has warmed."""
        first, before, after = self.kpa(test, START), self.own.value(warmth(test, START)), self.own.value(warmth(test, END))
        if first is None or before is None or after is None:
            return 0.0
        return abs(warmed_kpa(first, before, after))

    @property
    def held_s(self) -> float | None:
        return self.own.value(HELD)

    def leaked(self, test: str) -> Conformity | None:
        """The drop a minute against the card's limit, else a cautious rule."""
        first, second = self.kpa(test, START), self.kpa(test, END)
        if first is None or second is None or not self.held_s:
            return None
        before, after = (self.own.value(warmth(test, stage)) for stage in (START, END))
        known = {"before_c": before, "after_c": after} if before is not None and after is not None else {}
        limit, sign = self.known.limit(Property.LEAK), -1 if test == "vacuum" else 1
        try:
            return leak(sign * abs(first), sign * abs(second), self.held_s / 60, limit.high if limit else None, PRESSURE_U_KPA, **known)
        except BadInput:
            return None

    def settled_in_min(self, found: Conformity) -> int | None:
        """Return how long a test must last to decide a leak that is too close to call.

        It is None if no reasonable time suffices.
        """
        return leak_settled_min(found.values["rate"], found.values["limit"], PRESSURE_U_KPA)

    @cached_property
    def leaks(self) -> list[tuple[str, Conformity]]:
        return [(test, found) for test in TESTS if (found := self.leaked(test))]


def centre_facts(given: StationInput) -> CenteringAnalysis:
    """Return what Centre knows, built once for a page or an act."""
    equipment = given.shelves
    blades = [each for each in equipment.blades if each.kind == Blades.Kind.FEELER and each.sizes_mm] if equipment else []
    tools = list(equipment.pull_ins) if equipment else []
    return CenteringAnalysis(given.card, given.own, given.facts, next(iter(tools), None), next(iter(blades), None))
