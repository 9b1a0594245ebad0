"""Analysis of a single pressed crank between its supports: what two runouts show about its halves, and the next move."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

from shopmath.estimate import Estimate
from shopmath.truing import Misalignment, PressedCrank, TruingStep, best_reachable, convert_runout, decompose, next_move
from shopmath.verdict import IN
from stator.engines.properties import Property
from stator.stations.framework import StationInput
from stator.stations.true_crank.analysis import SIDES, RunoutRoundAnalysis, cures_s, gauge_of

CURES = ("strike", "squeeze", "wedge")
TWIST, PINCH = "twist", "pinch"


@dataclass(frozen=True)
class SingleThrowAnalysis(RunoutRoundAnalysis):
    """One crank of one throw, round after round. Angles in °."""

    @cached_property
    def geometry(self) -> PressedCrank | None:
        """Return where it is held and measured; None until all places are known."""
        places = [self.value(what, side) for what in (Property.SUPPORT_PLACE, Property.GAUGE_PLACE) for side in SIDES]
        throw = self.throw()
        if throw is None or any(value is None for value in places):
            return None
        a, b, g_left, g_right = (float(value or 0) for value in places)
        return PressedCrank(-a, b, -g_left, g_right, throw)

    @cached_property
    def allowed(self) -> Estimate | None:
        """Return the value of the card's limit here, if its supports and gauge positions are known."""
        support, gauge = self.value(Property.LIMIT_SUPPORT_PLACE), self.value(Property.LIMIT_GAUGE_PLACE)
        if not self.limit_is_elsewhere or self.geometry is None or support is None or gauge is None:
            return None
        assert self.limit is not None
        assert self.limit.high is not None
        taken = PressedCrank(-support, support, -gauge, gauge, self.geometry.throw_mm)
        return convert_runout(self.limit.high, taken, self.geometry)

    def misalignment(self, attempt: int) -> Misalignment | None:
        left, right = self.swing("left", attempt), self.swing("right", attempt)
        if self.geometry is None or left is None or right is None:
            return None
        return decompose(left, right, self.geometry, self.vector_u_mm)

    @cached_property
    def mis(self) -> Misalignment | None:
        """Return how the halves stand to each other now."""
        return self.misalignment(self.attempt)

    @cached_property
    def before(self) -> list[Misalignment]:
        """As measured before each earlier move, oldest first."""
        return [found for attempt in range(1, self.attempt) if (found := self.misalignment(attempt))]

    @cached_property
    def move(self) -> TruingStep | None:
        """Return the next move; None while the readings disagree."""
        if self.mis is None or self.geometry is None or self.suspect:
            return None
        return next_move(self.mis, self.geometry, self.before, limit_mm=self.limit_mm)

    @property
    def response(self) -> tuple[float, str] | None:
        """Return the fraction of the intended correction that the last move achieved, and its kind: 1 is all, more is too far."""
        if not self.moves or self.mis is None or not self.before:
            return None
        part = TWIST if self.moves[-1]["kind"] == "strike" else PINCH
        was, now, uncertainty = (getattr(each, f"{part}_deg") for each in (self.before[-1], self.mis, self.mis.uncertainty))
        return ((was - now) / was, part) if abs(was) > 2 * uncertainty else None

    @property
    def best_mm(self) -> float | None:
        """The best that truing can reach."""
        if self.mis is None or self.geometry is None:
            return None
        return max(runout.tir_mm for runout in best_reachable(self.mis, self.geometry))

    @property
    def is_done(self) -> bool:
        return bool(self.move and (self.move.kind == "leave" or (self.call and self.call.state == IN)))

    def as_written(self) -> dict[str, Any]:
        """Return a move for storage: what was measured, what was done, and what was expected."""
        move, mis = self.move, self.mis
        assert mis is not None
        saved = {"twist_deg": round(mis.twist_deg, 4), "pinch_deg": round(mis.pinch_deg, 4)}
        if move is None:  # the numbers disagreed: nothing was prescribed
            return {**saved, "kind": "again", "web": "", "at_deg": 0.0, "share": 0.0, "expected_mm": []}
        expected = [round(move.expect_left.tir_mm, 4), round(move.expect_right.tir_mm, 4)]
        return {**saved, "kind": move.kind, "web": move.web, "at_deg": move.at_deg, "share": move.share, "expected_mm": expected}


def single_facts(given: StationInput) -> SingleThrowAnalysis:
    """Return what True knows of a crank of one throw, built once for a page or an act."""
    return SingleThrowAnalysis(given.card, given.own, given.facts, gauge_of(given), cures_s(given.shelves))
