"""Analysis of a built-up crank with several throws on its center bearings: each outer shaft, and the rotation of its web."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

from shopmath.multi_throw import OuterShaft, outer_shaft, refuse_hold
from shopmath.validation import BadInput
from shopmath.verdict import IN
from stator.engines.fact_keys import FactKey
from stator.engines.parts import CRANK
from stator.engines.properties import Property
from stator.stations.framework import StationInput
from stator.stations.true_crank.analysis import SIDES, RunoutRoundAnalysis, cures_s, gauge_of

THROW_ANGLE = FactKey(CRANK, Property.THROW_ANGLE)


@dataclass(frozen=True)
class OuterWebAnalysis(RunoutRoundAnalysis):
    """One crank of several throws. Angles in °."""

    @property
    def is_held_wrong(self) -> bool:
        """Return True if it is held on what is to be measured."""
        try:
            refuse_hold(self.held)
        except BadInput:
            return True
        return False

    @property
    def rim_mm(self) -> float | None:
        return self.value(Property.RIM_RADIUS)

    @cached_property
    def phase_deg(self) -> float | None:
        """Return the angle of the right outer crankpin from the left one, read here or at Press together."""
        here = self.own.value(THROW_ANGLE)
        if here is not None:
            return here
        known = self.known.as_left(CRANK, Property.THROW_ANGLE)
        return known.value if known else None

    @property
    def asks_phase(self) -> bool:
        """Return True if no other station has the angle between the throws."""
        return self.phase_deg is None or self.own.has(THROW_ANGLE)

    @property
    def is_set_up(self) -> bool:
        return bool(self.throw() and self.rim_mm and self.phase_deg is not None)

    def shaft(self, side: str, attempt: int | None = None) -> OuterShaft | None:
        """One outer shaft as measured; None until its turn is whole."""
        runout, throw, rim = self.swing(side, attempt), self.throw(), self.rim_mm
        pin = 0.0 if side == "left" else self.phase_deg
        if runout is None or throw is None or rim is None or pin is None:
            return None
        return outer_shaft(runout, throw, pin, rim, self.vector_u_mm)

    @cached_property
    def shafts(self) -> list[tuple[str, OuterShaft]]:
        """Side and shaft, the one with the larger runout first; empty until both are read."""
        found = [(side, shaft) for side in SIDES if (shaft := self.shaft(side))]
        return sorted(found, key=lambda pair: -pair[1].swing.tir_mm) if len(found) == len(SIDES) else []

    @cached_property
    def worst(self) -> tuple[str, OuterShaft] | None:
        """The web to turn: the one whose turning takes off most."""
        worth = [pair for pair in self.shafts if pair[1].worth_it]
        return max(worth, key=lambda pair: pair[1].swing.tir_mm - pair[1].best_mm, default=None)

    @property
    def is_done(self) -> bool:
        within = self.call is not None and self.call.state == IN
        return bool(self.shafts) and not self.suspect and (self.worst is None or within)

    def as_written(self) -> dict[str, Any]:
        """Return a move for storage: what was measured, what was done, and what was expected."""
        saved = {"kind": "again", "web": "left", "turn_deg": 0.0, "rim_mm": 0.0, "direction": "", "expected_mm": 0.0}
        if self.worst is None or self.suspect:
            return saved
        side, shaft = self.worst
        turn, expected = shaft.turn, round(shaft.best_mm, 4)
        measured = {"turn_deg": round(turn.turn_deg, 4), "rim_mm": round(turn.rim_mm, 4), "direction": turn.direction}
        return {**saved, "kind": "turn", "web": side, **measured, "expected_mm": expected}


def outer_facts(given: StationInput) -> OuterWebAnalysis:
    """Return what True knows of a crank of several throws, built once for a page or an act."""
    return OuterWebAnalysis(given.card, given.own, given.facts, gauge_of(given), cures_s(given.shelves))
