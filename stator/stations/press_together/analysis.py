"""Analysis of a joint pressed together: its peak force, width, side clearance, and the angle between the throws."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from shopmath.joints import joint_evidence
from shopmath.multi_throw import phase_error_deg
from shopmath.verdict import Conformity, judge, severity
from stator.engines.fact_keys import FactKey, Location
from stator.engines.parts import CRANK, HALVES, rod
from stator.engines.properties import Property
from stator.jobs.facts import Fact
from stator.stations.common.press_joint.analysis import PressJointAnalysis, joint_facts
from stator.stations.common.press_joint.questions import THROW_ANGLE
from stator.stations.framework import StationInput

WIDTHS = tuple(FactKey(CRANK, Property.WIDTH_OVER_WEBS, Location(angle_deg=angle)) for angle in (0.0, 90.0, 180.0, 270.0))
AS_IT_GOES = FactKey(CRANK, Property.WIDTH_AS_IT_GOES)
OIL_SLOT = FactKey(rod(1), Property.OIL_SLOT)
SIDE_PLAY = FactKey(rod(1), Property.BIG_END_SIDE_PLAY)
PHASE_DEG = 0.25  # shop rule where the card says nothing
PHASE_U_DEG = 0.1
SPREAD_MM = 0.05  # width over the webs, one place against another: shop rule


class Code(StrEnum):
    """Codes of the verdicts of Press together."""

    NO_GRIP = "no grip"
    ROD_TURNED = "rod turned"
    SQUARE_FIRST = "square first"
    LOOSE = "loose"
    MEASURE_NOW = "measure now"
    JOINT_TIGHT = "joint tight"
    SIDE_PLAY = "side play"
    PARALLEL = "webs parallel"
    WIDTH = "width"
    THROWS = "throws"
    DONE = "done"


@dataclass(frozen=True)
class Judged:
    """One thing that has something to be judged by, and the kind of its numbers."""

    code: Code
    call: Conformity
    kind: str = "length"
    step: float = 0.01


@dataclass(frozen=True)
class PressTogetherAnalysis(PressJointAnalysis):
    """The joint, and what is measured once it is pressed."""

    @cached_property
    def evidence(self) -> Conformity | None:
        """Return what the peak force says of the joint."""
        unit, per = self.press_unit
        return joint_evidence(self.peak_n, self.plan, unit=unit, per_unit_n=per) if self.plan and self.peak_n is not None else None

    @property
    def holds_nothing(self) -> bool:
        """Return True if pin and hole as measured leave no interference at all."""
        return bool(self.grip and self.grip.value + self.grip.uncertainty <= 0)

    @property
    def rod_turned(self) -> str:
        """Return the former direction of the rod if it is reversed now; empty if it is not, or unknown."""
        now, was = self.own.said(OIL_SLOT), self.known.said(OIL_SLOT.part, OIL_SLOT.what)
        return was if now in HALVES and was in HALVES and now != was else ""

    @cached_property
    def widths(self) -> list[Fact]:
        return [fact for fact_key in WIDTHS if (fact := self.own.fact(fact_key))]

    @property
    def angle_before(self) -> float | None:
        """The angle between the throws before they were parted."""
        known = self.known.best(CRANK, Property.THROW_ANGLE)
        return known.value if known else None

    @cached_property
    def judged(self) -> list[Judged]:
        """Return every value that has a limit or an expectation, the worst first."""
        found = [Judged(Code.JOINT_TIGHT, self.evidence, "force")] if self.evidence else []
        side, limit = self.own.fact(SIDE_PLAY), self.known.limit(Property.BIG_END_SIDE_PLAY)
        if side and side.value is not None and limit and limit.is_given:
            found.append(Judged(Code.SIDE_PLAY, judge(side.value, limit.low, limit.high, side.uncertainty or 0.0)))
        found += self._webs()
        angle, was = self.own.value(THROW_ANGLE), self.angle_before
        if angle is not None and was is not None:
            off = abs(phase_error_deg(angle, was))
            found.append(Judged(Code.THROWS, judge(off, high=PHASE_DEG, uncertainty=PHASE_U_DEG), "angle", 0.1))
        return sorted(found, key=lambda each: severity(each.call.state))

    def _webs(self) -> list[Judged]:
        if len(self.widths) < len(WIDTHS):
            return []
        sizes, uncertainty = [fact.value or 0.0 for fact in self.widths], self.widths[0].uncertainty or 0.0
        spread = judge(max(sizes) - min(sizes), high=SPREAD_MM, uncertainty=1.4 * uncertainty)
        found = [Judged(Code.PARALLEL, spread)]
        limit = self.known.limit(Property.WIDTH_OVER_WEBS)
        if limit and limit.is_given:
            found.append(Judged(Code.WIDTH, judge(sum(sizes) / len(sizes), limit.low, limit.high, uncertainty)))
        return found


def together_facts(given: StationInput) -> PressTogetherAnalysis:
    """Return what Together knows, built once for a page or an act."""
    joint = joint_facts(given, "assembling")
    return PressTogetherAnalysis(joint.card, joint.own, joint.known, joint.presses, joint.ton, joint.moving, joint.is_heard)
