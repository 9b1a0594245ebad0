"""Balancing a flywheel: stops, masses, holes, and flywheels that must not be balanced."""

from __future__ import annotations

import cmath
import math
from collections.abc import Mapping
from typing import Any

from shopmath.amounts import degrees, gram_millimetres, mm
from shopmath.balance import drilled_mass_g, permissible_gmm
from stator.engines.models import EngineCard
from stator.practice.exercises.base import ControlAction, DisplayedValue, Exercise, ExerciseOutcome, Read, Typed
from stator.simulators.flywheel_balance import ARM_MM, STEEL, UnbalanceTruth, Wheel, heavy
from stator.simulators.operators.wheel import by_the_calls

WHEEL_KG, WHEEL_RPM, GRADE = 1.9, 8500.0, 6.3
PERMITTED_GMM = permissible_gmm(GRADE, WHEEL_KG, WHEEL_RPM)
LOOKED = "looked"


class Balance(Exercise):
    key = "balance"
    station = "balance"
    usual_limit = PERMITTED_GMM
    kind = "unbalance"
    step = 0.1
    looks = (("look", "roll", "let-go"),)
    works = (("drill",),)
    typed = (
        Typed("mark", "angle", None, 360.0, 0.0),
        Typed("mass", "mass", 0.0, 20.0, 1.0, per=1000.0),
        Typed("bit", "length", 2.9, 10.0, 6.0),
        Typed("depth", "length", 0.0, 17.0, 5.0),
    )

    def card(self) -> EngineCard:
        return EngineCard.objects.create(name="Practice flywheel", wheel_kg=WHEEL_KG, wheel_rpm=WHEEL_RPM, flywheel_source="practice")

    def part(self, seed: int, level: str, truth: Mapping[str, Any] | None = None) -> Wheel:
        given = UnbalanceTruth(**{**truth, "keep_out": tuple(map(tuple, truth.get("keep_out", ())))}) if truth else heavy(seed, level)
        return Wheel(seed, given)

    def pull(self, part: Wheel, pulled: ControlAction) -> None:
        typed = {each.key: pulled.typed.get(each.key, each.first) for each in self.typed}
        if pulled.lever == "look":
            part.said, part.shown = LOOKED, 0.0
        if pulled.lever == "roll":
            part.said, part.shown = "rolled", part.rolled_deg()
        if pulled.lever == "let-go":
            part.said, part.shown = part.let_go(typed["mark"], typed["mass"]), typed["mark"]
        if pulled.lever == "drill":
            part.said, part.shown = "drilled", part.drill(typed["mark"], typed["bit"], typed["depth"])

    def shows(self, part: Wheel) -> DisplayedValue:
        true_values, said = part.truth, part.said
        amount = None if said in ("", LOOKED) else mm(part.shown, 0.1) if said == "drilled" else degrees(part.shown)
        values = {
            "sound": true_values.sound,
            "shook": true_values.shook,
            "arcs": ", ".join(f"{low:.0f}-{high:.0f}" for low, high in true_values.keep_out),
        }
        return DisplayedValue(said, values, amount)

    def left(self, part: Wheel, read: Read) -> float:
        return part.gmm

    def reached(self, part: Wheel, read: Read) -> bool:
        if self._untouchable(part):
            return not part.holes
        return part.gmm <= self.limit(part)

    def beyond(self, part: Wheel) -> bool:
        return self._untouchable(part)

    def _untouchable(self, part: Wheel) -> bool:
        return part.truth.sound != "sound" or not part.truth.shook

    def best(self, part: Wheel) -> tuple[str, ...]:
        return () if self._untouchable(part) or part.gmm <= self.limit(part) else ("drill",)

    def is_right(self, part: Wheel, pulled: ControlAction) -> bool:
        """Return True if a hole removes more than it adds, in an area that may be drilled."""
        typed = {each.key: pulled.typed.get(each.key, each.first) for each in self.typed}
        took = drilled_mass_g(typed["bit"], typed["depth"], STEEL) * ARM_MM if typed["depth"] else 0.0
        after = part.heavy - cmath.rect(took, math.radians(typed["mark"]))
        return not self._untouchable(part) and abs(after) <= part.gmm and part.truth.may_be_drilled(typed["mark"] % 360)

    def damage(self, part: Wheel) -> list[str]:
        if part.holes and self._untouchable(part):
            return [part.truth.sound if part.truth.sound != "sound" else "calm"]
        found = ["rib"] if part.in_ribs else []
        return [*found, *(["thin"] if part.thin else [])]

    def truth(self, part: Wheel) -> dict[str, ExerciseOutcome]:
        return {"heavy": gram_millimetres(part.gmm, 0.1), "heavy_at": degrees(degrees_of(part)), "wheel": part.truth.sound}

    def found(self, found: Any) -> dict[str, ExerciseOutcome]:
        amount = getattr(found, "rest", None) or found.amount
        return {"heavy": gram_millimetres(amount.gmm, 0.1), "heavy_at": degrees(amount.deg)} if amount else {}

    def fault(self, part: Wheel) -> str:
        return part.truth.sound if part.truth.sound != "sound" else "" if part.truth.shook else "calm"

    def shortest(self, part: Wheel) -> int:
        by_the_calls(part, self.limit(part))
        return part.holes


def degrees_of(part: Wheel) -> float:
    """Return the angle of the heavy spot."""
    return math.degrees(cmath.phase(part.heavy)) % 360


def where_to_drill(part: Wheel) -> float:
    """Return the heavy spot, or the nearest angle that may be drilled."""
    heavy_deg = degrees_of(part)
    around = (heavy_deg + sign * off for off in range(0, 180, 2) for sign in (1, -1))
    return next((at % 360 for at in around if part.truth.may_be_drilled(at % 360)), heavy_deg)
