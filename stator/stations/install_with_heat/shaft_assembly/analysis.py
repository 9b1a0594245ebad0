"""Analysis of a part with an order, a direction, an end depth or a center: a shaft, or a rubber bushing."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from shopmath.clocking import clocked
from shopmath.verdict import Conformity, judge
from stator.engines.fact_keys import ANYWHERE, FactKey, Location
from stator.engines.models import Fitted
from stator.engines.properties import Property
from stator.jobs.facts import EntryData

PROTRACTOR_U_DEG = 1.0  # taken for a direction read with a protractor or square
INSIDE, OUTSIDE = Location(end="inside"), Location(end="outside")  # which end of a rubber bush stands out


class Code(StrEnum):
    """Codes of the verdicts on such a part."""

    OILED = "oiled"
    OTHER_ORDER = "other order"
    BINDS = "binds"
    KNOCKS = "knocks"
    MEASURE = "measure"
    AS_DRAWN = "as drawn"
    UNSURE = "unsure"
    NOT_AS_DRAWN = "not as drawn"


@dataclass(frozen=True)
class Assembly:
    """A part with its readings and the name of the case part that it is fitted in.

    Lengths in mm, angles in °.
    """

    fitted: Fitted
    own: EntryData
    half: str

    @property
    def is_rubber(self) -> bool:
        return self.fitted.kind == Fitted.Kind.RUBBER

    def slot(self, what: Property, at: Location = ANYWHERE) -> FactKey:
        return FactKey(self.fitted.part, what, at)

    def said(self, what: Property) -> str:
        return self.own.said(self.slot(what))

    def value(self, what: Property, at: Location = ANYWHERE) -> float | None:
        return self.own.value(self.slot(what, at))

    def uncertainty(self, what: Property, at: Location = ANYWHERE) -> float:
        fact = self.own.fact(self.slot(what, at))
        return fact.uncertainty or 0.0 if fact else 0.0

    @property
    def faults(self) -> list[Code]:
        """Return what is wrong that needs no measuring, worst first."""
        found = {
            Code.OILED: self.said(Property.BUSH_LUBRICANT) == "oil",
            Code.OTHER_ORDER: self.said(Property.PIECES_ORDER) == "other",
            Code.BINDS: self.said(Property.SPINDLE_PLAY) == "none",
            Code.KNOCKS: self.said(Property.SPINDLE_PLAY) == "slack",
        }
        return [code for code, wrong in found.items() if wrong]

    @property
    def angle_deg(self) -> float | None:
        return self.value(Property.DIRECTION)

    @cached_property
    def angle(self) -> Conformity | None:
        """Its direction against the card's."""
        part = self.fitted
        if self.angle_deg is None or part.angle_deg is None:
            return None
        return clocked(self.angle_deg, part.angle_deg, part.angle_within_deg, PROTRACTOR_U_DEG, either_end=part.either_end)

    @property
    def off_middle_mm(self) -> float | None:
        """Return how far the center of a rubber bushing is from that of its boss."""
        one, two = self.value(Property.STANDS_OUT, INSIDE), self.value(Property.STANDS_OUT, OUTSIDE)
        return None if one is None or two is None else (one - two) / 2

    @property
    def depth_mm(self) -> float | None:
        return self.off_middle_mm if self.is_rubber else self.value(Property.END_DEPTH)

    @property
    def depth_u_mm(self) -> float:
        if self.is_rubber:
            return math.hypot(*(self.uncertainty(Property.STANDS_OUT, at) for at in (INSIDE, OUTSIDE))) / 2
        return self.uncertainty(Property.END_DEPTH)

    @property
    def depth_limits_mm(self) -> tuple[float, float]:
        needed = 0.0 if self.is_rubber else self.fitted.depth_mm
        return needed - self.fitted.depth_within_mm, needed + self.fitted.depth_within_mm

    @cached_property
    def depth(self) -> Conformity | None:
        """Compare its end depth with the card; for a rubber bushing, its center with that of the boss."""
        if self.depth_mm is None:
            return None
        low, high = self.depth_limits_mm
        return judge(self.depth_mm, low=low, high=high, uncertainty=self.depth_u_mm, unit="mm", digits=2)
