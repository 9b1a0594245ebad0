"""A value as found: its limits, its uncertainty, and what would decide it if it is too close to call."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from shopmath.amounts import Amount, mm
from shopmath.verdict import Conformity, SufficientMeasurement, judge, sufficient_measurement
from stator.engines.card_facts import Limit
from stator.engines.fact_keys import FactKey
from stator.jobs.facts import EntryData, Fact
from stator.stations.framework import MessageRef

NO_GAUGE_STEP_MM = 0.01
_what_settles = lru_cache(512)(sufficient_measurement)  # the same for a figure however often a page asks


@dataclass(frozen=True)
class Bounds:
    """Limits of a value, mm, and their source."""

    low: float | None
    high: float | None
    source: MessageRef


NO_LIMIT = Bounds(None, None, MessageRef("none"))


def of_card(limit: Limit | None) -> Bounds:
    if limit is None or not limit.is_given:
        return NO_LIMIT
    source = (
        MessageRef("card_setup", {"origin": limit.source, "setup": limit.setup})
        if limit.setup
        else MessageRef("card", {"origin": limit.source})
    )
    return Bounds(limit.low, limit.high, source)


@dataclass(frozen=True)
class InspectedValue:
    """A value with its readings, mm; it has no verdict if its limits are unknown."""

    code: str
    slots: tuple[FactKey, ...]
    value: float
    uncertainty: float
    bounds: Bounds
    step: float
    repeats: int = 1

    @property
    def call(self) -> Conformity | None:
        low, high = self.bounds.low, self.bounds.high
        return None if low is None and high is None else judge(self.value, low, high, self.uncertainty)

    @property
    def state(self) -> str:
        return self.call.state if self.call else ""

    @property
    def amount(self) -> Amount:
        return mm(self.value, self.step, self.uncertainty)

    def settles(self, own: EntryData) -> SufficientMeasurement | None:
        """Return what would decide a value that is too close to call; None if it is not, or no gauge is known."""
        taken = own.all(self.slots[0])
        gauge = taken[-1].gauge if taken else None
        if self.call is None or self.state != "too_close" or gauge is None:
            return None
        values = [each.value for each in taken if each.value is not None]
        margin = self.call.margin * gauge.uncertainty(values) / self.uncertainty
        many = _what_settles(margin, gauge.resolution, gauge.repeatability, gauge.calibration, kind=gauge.kind)
        finer = _what_settles(self.call.margin, gauge.resolution, gauge.repeatability, kind=gauge.kind)
        return SufficientMeasurement(many.readings if many.readings and many.readings > len(values) else None, finer.resolution)


def step_of(facts: Sequence[Fact]) -> float:
    """The coarsest step that readings were taken to, mm."""
    return max((each.resolution or NO_GAUGE_STEP_MM for each in facts), default=NO_GAUGE_STEP_MM)


def uncertainty_of(facts: Sequence[Fact]) -> float:
    """The largest of their uncertainties, mm."""
    return max((each.uncertainty or 0.0 for each in facts), default=0.0)
