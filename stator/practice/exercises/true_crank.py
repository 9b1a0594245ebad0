"""Exercise in truing a pressed crank: reading, striking, squeezing and wedging; some cranks cannot be trued."""

from __future__ import annotations

import random
from collections.abc import Mapping
from typing import Any

from shopmath.amounts import mm
from shopmath.truing import Misalignment, next_move
from stator.engines.models import EngineCard, Spec
from stator.engines.properties import Property
from stator.practice.exercises.base import ControlAction, ExerciseOutcome
from stator.practice.exercises.dial_indicator_base import UnderDial, angle
from stator.simulators.crank import ENDS, GEOMETRY, Crank, Fault, Truth, drawn
from stator.simulators.operators.crank import follow_the_calls

LIMIT_MM = 0.03
BLOWS = {"ahead": -1.0, "behind": 1.0, "squeeze": -1.0, "wedge": 1.0}  # lever: which way
FAULTS = {  # what may be wrong, by level: the harder, the more hides it
    "easy": (Fault.PRESSED,),
    "middle": (Fault.PRESSED, Fault.PRESSED, Fault.OVAL),
    "hard": (Fault.PRESSED, Fault.OVAL, Fault.SLIPPED, Fault.LOOSE, Fault.NOT_CURABLE),
}


def fault_of(seed: int, level: str) -> Fault:
    """Return what is wrong with the crank of a seed at a level."""
    return random.Random(f"{seed}-{level}-fault").choice(FAULTS[level])  # noqa: S311  a made-up truth


STANDS = tuple((f"{what}-place.{end}", f"{at} mm") for end in ENDS for what, at in (("support", 92), ("gauge", 34)))


class TrueCrank(UnderDial):
    key = "true-crank"
    usual_limit = LIMIT_MM
    works = (("ahead", "behind", "squeeze", "wedge"),)
    presets = STANDS

    def card(self) -> EngineCard:
        made = EngineCard.objects.create(name="Practice crank", crank=EngineCard.Crank.BUILT_UP, stroke_mm=2 * GEOMETRY.throw_mm)
        limit = {"property": Property.CRANK_RUNOUT, "high": self.limit(None), "held": Spec.Held.CENTRES, "setup": "between centres"}
        Spec.objects.create(card=made, name="Crank runout", source_kind=Spec.From.RULE, source="practice", **limit)
        return made

    def part(self, seed: int, level: str, truth: Mapping[str, Any] | None = None) -> Crank:
        if truth:
            return Crank(seed, Truth(**{**truth, "bent": Misalignment(**truth["bent"])}))
        return Crank(seed, drawn(seed, level, fault_of(seed, level)))

    def pull(self, part: Crank, pulled: ControlAction) -> None:
        if self.turned(part, pulled):
            part.readings += 1
        elif pulled.lever in BLOWS:
            (part.squeeze if pulled.lever in ("squeeze", "wedge") else part.strike)(BLOWS[pulled.lever] * pulled.share)

    def best(self, part: Crank) -> tuple[str, ...]:
        needed = next_move(part.truth.bent, GEOMETRY, limit_mm=self.limit(part))
        if needed.kind == "strike":
            return ("ahead" if needed.at_deg == 270.0 else "behind",)
        return (needed.kind,) if needed.kind in BLOWS else ()

    def truth(self, part: Crank) -> dict[str, ExerciseOutcome]:
        bent = part.truth.bent
        values: dict[str, ExerciseOutcome] = {
            "swing": mm(part.truth.worst_mm),
            "twist": angle(bent.twist_deg),
            "pinch": angle(bent.pinch_deg),
        }
        return {**values, "offset": mm(bent.offset_mm), "skew": angle(bent.skew_deg)}

    def found(self, found: Any) -> dict[str, ExerciseOutcome]:
        mis = getattr(found, "mis", None)
        if mis is None:
            return {}
        values: dict[str, ExerciseOutcome] = {"twist": angle(mis.twist_deg), "pinch": angle(mis.pinch_deg)}
        runouts = [runout.tir_mm for side in ENDS if (runout := found.swing(side))]
        return {**values, "offset": mm(mis.offset_mm), "skew": angle(mis.skew_deg), **({"swing": mm(max(runouts))} if runouts else {})}

    def fault(self, part: Crank) -> str:
        true_values = part.truth
        if true_values.best_mm > self.limit(part):
            return str(Fault.NOT_CURABLE)
        if true_values.slips_after:
            return str(Fault.SLIPPED)
        return str(Fault.LOOSE if true_values.rocks_mm else Fault.OVAL if true_values.oval_mm > 0.01 else Fault.PRESSED)

    def shortest(self, part: Crank) -> int:
        return follow_the_calls(part, self.limit(part)).moves
