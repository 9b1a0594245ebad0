"""Exercise in shimming a crank: two manuals that disagree, a stack to measure, and shims that differ from their marking."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from shopmath.amounts import count, mm
from shopmath.end_play import choose_shims
from shopmath.validation import BadInput
from stator.engines.models import EngineCard
from stator.practice.exercises.base import ControlAction, DisplayedValue, Exercise, ExerciseOutcome, Read
from stator.simulators.operators.stack import by_the_stack
from stator.simulators.stack import BAGS_MM, PLACES, Stack, Widths, widths

STEPS = {"left": 0.02, "right": 0.02, "close": 0.01}
NUMBERS = (3871, 4418)  # of a crank that the first manual is for, and of one for the second


class EndFloat(Exercise):
    key = "end-float"
    station = "end-float"
    looks = (("manual-first", "manual-second", "number"), tuple(f"measure-{place}" for place in PLACES), ("measure-shims", "close"))
    presets = (("case-temperature", "20 C"),)
    works = (tuple(f"add-{bag:g}" for bag in BAGS_MM), ("off",))

    def card(self) -> EngineCard:
        return EngineCard.objects.create(name="Practice case to be shimmed")

    def part(self, seed: int, level: str, truth: Mapping[str, Any] | None = None) -> Stack:
        if truth:
            first, second = (tuple(each) for each in truth["manuals"])
            return Stack(seed, Widths(**{**truth, "manuals": (first, second)}))
        return Stack(seed, widths(seed, level))

    def pull(self, part: Stack, pulled: ControlAction) -> None:
        part.pull(pulled.lever)
        part.seen = pulled.lever

    def shows(self, part: Stack) -> DisplayedValue:
        what, _, of = part.seen.partition("-")
        if what == "manual":
            low, high = part.truth.manuals[of == "second"]
            return DisplayedValue(f"manual_{of}", {"low": mm(low, 0.01), "high": mm(high, 0.01)})
        if what == "number":
            return DisplayedValue("number", {"number": NUMBERS[part.truth.ours]})
        if what in ("measure", "close"):
            return DisplayedValue(part.seen, amount=mm(part.shown_mm, STEPS.get(part.reading, 0.001)))
        return DisplayedValue("shims", {"bags": " + ".join(f"{bag:.2f}" for bag in part.bags) or "0"})

    def left(self, part: Stack, read: Read) -> float:
        """Return how far the float is from the middle of its limits."""
        low, high = part.truth.limits_mm
        return abs(part.float_mm - (low + high) / 2)

    def limit(self, part: Stack) -> float:
        low, high = part.truth.limits_mm
        return (high - low) / 2

    def best(self, part: Stack) -> tuple[str, ...]:
        low, high = part.truth.limits_mm
        if part.is_within:
            return ()
        if part.float_mm < low:
            return ("off",)
        try:
            needed = choose_shims(part.float_mm, low, high, BAGS_MM, 3).shims_mm
        except BadInput:
            return ("off",)
        return tuple(f"add-{shim:g}" for shim in needed)

    def damage(self, part: Stack) -> list[str]:
        return ["binds"] if part.float_mm < 0 else []

    def truth(self, part: Stack) -> dict[str, ExerciseOutcome]:
        low, high = part.truth.limits_mm
        return {
            "room": mm(part.truth.room_mm, 0.001),
            "float": mm(part.float_mm, 0.001),
            "low": mm(low, 0.01),
            "high": mm(high, 0.01),
            "closed": count(part.closed),
        }

    def found(self, found: Any) -> dict[str, ExerciseOutcome]:
        values: dict[str, ExerciseOutcome] = {"room": mm(found.free.value_mm, 0.001)} if found.free else {}
        if found.predicted:
            values["float"] = mm(found.predicted[0], 0.001)
        return {**values, "low": mm(found.limits[0], 0.01), "high": mm(found.limits[1], 0.01)} if found.limits else values

    def advice(self, first: Stack, now: Stack, moves: list[dict[str, Any]], read: Read) -> str:
        typed = [read.get(f"end-float-{end}", [None])[-1] for end in ("least", "most")]
        other = now.truth.manuals[1 - now.truth.ours]
        if not self.reached(now, read) and typed == list(other) and now.truth.manuals[0] != now.truth.manuals[1]:
            return "other_manual"
        return super().advice(first, now, moves, read)

    def shortest(self, part: Stack) -> int:
        by_the_stack(part)
        return len(part.bags)
