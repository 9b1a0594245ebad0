"""Exercise in truing the outer webs of a built-up twin on its center bearings."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from shopmath.amounts import mm
from stator.engines.models import EngineCard, Spec
from stator.engines.properties import Property
from stator.practice.exercises.base import ControlAction, ExerciseOutcome
from stator.practice.exercises.dial_indicator_base import UnderDial, angle
from stator.simulators.crank import ENDS
from stator.simulators.operators.twin import turn_back
from stator.simulators.twin_crank import RIM_MM, THROW_MM, TwinCrank, Webs, turned

LIMIT_MM, WORTH_DEG = 0.04, 0.006


class OuterWeb(UnderDial):
    key = "outer-web"
    usual_limit = LIMIT_MM
    works = (("left-ccw", "left-cw", "right-ccw", "right-cw"),)
    presets = (("rim-radius", f"{RIM_MM:g} mm"), ("throw-angle", "180"))

    def card(self) -> EngineCard:
        layout = {"layout": EngineCard.Layout.TWIN, "crank": EngineCard.Crank.BUILT_UP, "stroke_mm": 2 * THROW_MM}
        made = EngineCard.objects.create(name="Practice twin crank", **layout)
        limit = {"property": Property.CRANK_RUNOUT, "high": self.limit(None), "held": Spec.Held.CENTRE, "setup": "on its centre bearings"}
        Spec.objects.create(card=made, name="Crank runout", source_kind=Spec.From.RULE, source="practice", **limit)
        return made

    def part(self, seed: int, level: str, truth: Mapping[str, Any] | None = None) -> TwinCrank:
        return TwinCrank(seed, Webs(**truth) if truth else turned(seed, level))

    def pull(self, part: TwinCrank, pulled: ControlAction) -> None:
        if not self.turned(part, pulled):
            end, _, way = pulled.lever.partition("-")
            part.blow(end, pulled.share if way == "ccw" else -pulled.share)

    def best(self, part: TwinCrank) -> tuple[str, ...]:
        if part.truth.worst_mm <= self.limit(part):
            return ()
        worth = [(abs(part.truth.turned_deg(end)), end) for end in ENDS if abs(part.truth.turned_deg(end)) > WORTH_DEG]
        return tuple(f"{end}-{'ccw' if part.truth.turned_deg(end) > 0 else 'cw'}" for _deg, end in sorted(worth, reverse=True))

    def truth(self, part: TwinCrank) -> dict[str, ExerciseOutcome]:
        values: dict[str, ExerciseOutcome] = {"swing": mm(part.truth.worst_mm)}
        return values | {f"web_{end}": angle(part.truth.turned_deg(end)) for end in ENDS}

    def found(self, found: Any) -> dict[str, ExerciseOutcome]:
        shafts = dict(getattr(found, "shafts", ()))
        values: dict[str, ExerciseOutcome] = {f"web_{end}": angle(_signed(shafts[end].turn)) for end in shafts}
        return {**values, "swing": mm(max(each.swing.tir_mm for each in shafts.values()))} if shafts else values

    def shortest(self, part: TwinCrank) -> int:
        turn_back(part, self.limit(part))
        return part.moves


def _signed(turn: Any) -> float:
    """Return the correction of the verdict with the sign of the true value."""
    return float(turn.turn_deg if turn.direction == "counter-clockwise" else -turn.turn_deg)
