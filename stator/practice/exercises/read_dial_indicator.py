"""Exercise in reading a dial: its needle turns more than once, trembles and lags; the runout and its high spot are saved."""

from __future__ import annotations

from collections.abc import Mapping
from copy import deepcopy
from typing import Any

from shopmath.amounts import degrees, mm
from stator.engines.models import EngineCard
from stator.practice.exercises.base import ControlAction, DisplayedValue, Exercise, ExerciseOutcome, Read, Samples
from stator.practice.exercises.dial_indicator_base import TURN_BY, steps_of
from stator.practice.exercises.true_crank import STANDS, TrueCrank
from stator.simulators.crank import ENDS
from stator.simulators.shaft_runout import BY_DEG, ROUND_MM, STEP_MM, ShaftRunout, Swings, swings

LIMIT_MM, HIGH_DEG = 0.012, 30.0  # how near a reading and its angle must come


class ReadDial(Exercise):
    key = "read-dial"
    station = "true"
    usual_limit = LIMIT_MM
    chooses = {"how": "swing"}
    looks = (("on", "on-far", "back", "other"),)
    works = ()
    presets = STANDS

    def card(self) -> EngineCard:
        return TrueCrank().card()

    def part(self, seed: int, level: str, truth: Mapping[str, Any] | None = None) -> ShaftRunout:
        return ShaftRunout(seed, Swings(**truth) if truth else swings(seed, level))

    def shows(self, part: ShaftRunout) -> DisplayedValue:
        values = {"end": ENDS[part.end], "angle": part.angle, "rounds": part.dial.turns}
        return DisplayedValue(
            "at_angle_rounds",
            values,
            mm(part.dial.face_mm, STEP_MM),
            dial_mm=part.dial.face_mm,
            round_mm=ROUND_MM,
            small_hand=part.dial.turns,
        )

    def left(self, part: ShaftRunout, read: Read) -> float:
        """Return the larger error of the two saved runouts; a missing one counts as zero."""
        found = {end: read.get(f"shaft-tir.{end}") or [0.0] for end in ENDS}
        return max(abs(sum(found[end]) / len(found[end]) - part.truth.tir_mm(end)) for end in ENDS)

    def best(self, part: ShaftRunout) -> tuple[str, ...]:
        return ()

    def truth(self, part: ShaftRunout) -> dict[str, ExerciseOutcome]:
        values: dict[str, ExerciseOutcome] = {}
        for end in ENDS:
            values[f"tir_{end}"] = mm(part.truth.tir_mm(end), STEP_MM)
            values[f"high_{end}"] = degrees(part.truth.high_deg(end))
        return values

    def found(self, found: Any) -> dict[str, ExerciseOutcome]:
        values: dict[str, ExerciseOutcome] = {}
        for end in ENDS:
            if runout := found.swing(end):
                values |= {f"tir_{end}": mm(runout.tir_mm, STEP_MM), f"high_{end}": degrees(runout.high_spot_deg)}
        return values

    def shortest(self, part: ShaftRunout) -> int:
        return 0

    def advice(self, first: ShaftRunout, now: ShaftRunout, moves: list[dict[str, Any]], read: Read) -> str:
        saved = {end: read.get(f"shaft-tir.{end}") for end in ENDS}
        if not any(saved.values()):
            return "not_begun"
        errors = {end: sum(values) / len(values) - now.truth.tir_mm(end) for end, values in saved.items() if values}
        worst = min(errors.values())
        if worst < -0.4 * ROUND_MM:
            return "rounds"
        if max(map(abs, errors.values())) > self.limit(now) or not all(saved.values()):
            return "stopped_early"
        highs = [read[f"high-spot.{end}"][-1] - now.truth.high_deg(end) for end in ENDS if read.get(f"high-spot.{end}")]
        return "high_spot" if any(abs((off + 180) % 360 - 180) > HIGH_DEG for off in highs) else "well_done"

    def pull(self, part: ShaftRunout, pulled: ControlAction) -> None:
        if pulled.lever == TURN_BY:
            part.turn(BY_DEG * steps_of(pulled))
        else:
            part.pull(pulled.lever)

    def samples(self, part: ShaftRunout) -> Samples:
        """The needle as it will follow, one way or the other: its gears remember where they came from."""
        directions = []
        for by in (BY_DEG, -BY_DEG):
            ahead, shown = deepcopy(part), [part.shown_mm]
            for _ in range(360 // BY_DEG):
                ahead.turn(by)
                shown.append(round(ahead.shown_mm, 4))
            directions.append(tuple(shown))
        return Samples(BY_DEG, *directions)
