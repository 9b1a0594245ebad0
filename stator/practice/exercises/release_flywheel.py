"""Exercise in removing a flywheel: the right puller, the torque, and the time."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from shopmath.amounts import Amount, mm, newton_metres, quarters
from stator.engines.models import EngineCard
from stator.practice.exercises.base import ControlAction, DisplayedValue, Exercise, ExerciseOutcome, Read
from stator.simulators.flywheel_on_taper import SCREW_MM, SCREW_PITCH_MM, StuckWheel, TaperTruth, stuck, torque_nm

SPARE = 0.5  # of the torque at which the thread goes: past it, no spare is left
WAIT_S, MOST_MOVES = 600.0, 200  # a minute of the wait is the simulator's own
OTHER_TURNS = 7.0  # of the right puller


class FreeWheel(Exercise):
    key = "free-wheel"
    station = "flywheel-off"
    kind = "torque"
    step = 1.0
    timed = True
    takes_s = {"wait": WAIT_S - 60}
    looks = (("puller-across", "puller-pitch"), ("boss-bore", "boss-pitch"), ("screw-across", "screw-pitch"), ("turns", "wrench"))
    works = (("more", "less", "wait", "knock", "swap"),)

    def card(self) -> EngineCard:
        values = {"cone": "taper", "taper_ratio": 8, "nut_d_mm": 12, "nut_torque_nm": 55, "shaft_d_mm": 16, "flywheel_source": "practice"}
        return EngineCard.objects.create(name="Practice flywheel on its taper", **values)

    def part(self, seed: int, level: str, truth: Mapping[str, Any] | None = None) -> StuckWheel:
        return StuckWheel(seed, TaperTruth(**truth) if truth else stuck(seed, level))

    def pull(self, part: StuckWheel, pulled: ControlAction) -> None:
        part.seen = pulled.lever
        if pulled.lever == "swap" and not part.is_stripped and part.truth.off_pitch_mm:
            part.pull("less")
            part.truth = replace(part.truth, off_pitch_mm=0.0, turns=OTHER_TURNS)
        elif pulled.lever in self.working:
            part.pull(pulled.lever)

    def shows(self, part: StuckWheel) -> DisplayedValue:
        true_values = part.truth
        sizes = {
            "puller-across": mm(true_values.boss_d_mm - 0.1, 0.1),
            "puller-pitch": Amount(true_values.boss_pitch_mm + true_values.off_pitch_mm, "thread_pitch", 0.001),
            "boss-bore": mm(true_values.boss_d_mm - 1.08 * true_values.boss_pitch_mm, 0.1),
            "boss-pitch": Amount(true_values.boss_pitch_mm, "thread_pitch", 0.001),
            "screw-across": mm(SCREW_MM, 0.1),
            "screw-pitch": Amount(SCREW_PITCH_MM, "thread_pitch", 0.01),
            "turns": quarters(1.0 if true_values.off_pitch_mm else true_values.turns),
        }
        if part.seen in sizes:
            return DisplayedValue(part.seen, amount=sizes[part.seen])
        text = "free" if part.is_free else "stripped" if part.is_stripped else "holds"
        return DisplayedValue("wrench", amount=newton_metres(part.torque_nm), said=text)

    def left(self, part: StuckWheel, read: Read) -> float:
        return part.torque_nm

    def limit(self, part: StuckWheel) -> float:
        return SPARE * part.truth.strips_nm

    def reached(self, part: StuckWheel, read: Read) -> bool:
        return part.is_free and not self.damage(part)

    def beyond(self, part: StuckWheel) -> bool:
        return False

    def best(self, part: StuckWheel) -> tuple[str, ...]:
        if part.is_free or part.is_stripped:
            return ()
        if part.truth.off_pitch_mm:
            return ("swap",)
        if part.torque_nm + part.MORE_NM <= self.limit(part):
            return ("more", "wait") if part.torque_nm > 0.5 * self.limit(part) else ("more",)
        return ("wait",)

    def damage(self, part: StuckWheel) -> list[str]:
        return [*(["stripped"] if part.is_stripped else []), *(["struck"] if part.knocks else [])]

    def truth(self, part: StuckWheel) -> dict[str, ExerciseOutcome]:
        return {
            "frees": newton_metres(torque_nm(part.truth.frees_n * part.holds)),
            "strips": newton_metres(part.truth.strips_nm),
            "peak": newton_metres(part.peak_nm),
            "thread": "wrong" if part.truth.off_pitch_mm else "right",
        }

    def found(self, found: Any) -> dict[str, ExerciseOutcome]:
        pull = getattr(found, "pull", None)
        if pull is None:
            return {}
        values: dict[str, ExerciseOutcome] = {"strips": newton_metres(pull.stop_nm)}
        return {**values, "frees": newton_metres(pull.frees_nm.likely)} if pull.frees_nm else values

    def fault(self, part: StuckWheel) -> str:
        return "wrong_thread" if part.truth.off_pitch_mm else ""

    def verdict(self, part: StuckWheel) -> str:
        return "out" if part.truth.off_pitch_mm else "in"

    def shortest(self, part: StuckWheel) -> int:
        moves = 0
        while not (part.is_free or part.is_stripped) and moves < MOST_MOVES:
            control = self.best(part)[0]
            self.pull(part, ControlAction(control))
            part.passes(self.takes_s.get(control, 0.0))
            moves += 1
        return moves
