"""Exercise with a hot case half and five bearings: a slow oven, an infrared thermometer on bare metal, and one tight seat."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from shopmath.amounts import Amount, celsius, count
from stator.engines.models import EngineCard, Seat
from stator.practice.exercises.base import ControlAction, DisplayedValue, Exercise, ExerciseOutcome, Read
from stator.simulators.heated_case_half import BEARINGS, CASE_ALPHA, HURTS_C, ROOM_C, SETS_C, HotHalf, Oven, oven
from stator.simulators.operators.hot_half import SPARE_UM

MARKINGS = {"A": "6206", "B": "6205", "C": "6204", "D": "6004", "E": "6203"}
WARM_ENOUGH_UM = 5.0  # wider than the ring than this, it falls
OVER_K = 15.0  # that an oven is set over what is wanted, so that it is reached in time


class HotHalfExercise(Exercise):
    key = "hot-half"
    station = "heat-and-drop"
    seat = 0
    kind = "count"
    step = 1.0
    timed = True
    presets = (("air-temperature", f"{ROOM_C:g} C"),)
    looks = (("paint", "bare"),)
    works = (
        (*(f"set-{c}" for c in SETS_C), "oven", "out"),
        tuple(f"drop-{name}" for name in BEARINGS),
        tuple(f"lift-{name}" for name in BEARINGS),
        tuple(f"knock-{name}" for name in BEARINGS),
    )

    def card(self) -> EngineCard:
        made = EngineCard.objects.create(name="Practice half with five bearings", case_material="al-si7-mg", case_material_assumed=False)
        for place, (name, marking) in enumerate(MARKINGS.items()):
            more = {"x_mm": -70 + 35 * place, "y_mm": 20 * (-1) ** place, "code": "N7", "faces": "marking_out", "source": "practice"}
            Seat.objects.create(card=made, name=f"Bearing {name}", role="main" if place == 0 else "gearbox", designation=marking, **more)
        return made

    def part(self, seed: int, level: str, truth: Mapping[str, Any] | None = None) -> HotHalf:
        return HotHalf(seed, Oven(**truth) if truth else oven(seed, level))

    def pull(self, part: HotHalf, pulled: ControlAction) -> None:
        part.pull(pulled.lever)
        part.seen = pulled.lever

    def shows(self, part: HotHalf) -> DisplayedValue:
        what, _, name = part.seen.partition("-")
        values = {"name": name, "set": celsius(part.set_c), "home": len(part.home)}
        if what in ("paint", "bare"):
            return DisplayedValue(what, values, Amount(part.shown_c, "temperature", 0.5))
        if what in ("drop", "lift", "knock"):
            fell = "home" if name in part.home else "jammed" if name in part.jammed else "in_oven" if part.heating else "lifted"
            return DisplayedValue(fell, values)
        return DisplayedValue("heating" if part.heating else "on_bench", values)

    def left(self, part: HotHalf, read: Read) -> float:
        return float(part.left + part.knocked)

    def limit(self, part: HotHalf) -> float:
        return 0.0

    def reached(self, part: HotHalf, read: Read) -> bool:
        return part.left == 0 and not self.damage(part)

    def best(self, part: HotHalf) -> tuple[str, ...]:
        waiting = [name for name in BEARINGS if name not in part.home and name not in part.jammed]
        falls = [name for name in waiting if part.open_um(name) > WARM_ENOUGH_UM]
        if part.heating and len(falls) < max(1, len(waiting) - 1):
            wants = max((self._wants_c(part, name) for name in waiting), default=0.0)
            warmer = [c for c in SETS_C if c > part.set_c]
            return (f"set-{warmer[0]}",) if warmer and part.set_c - OVER_K < wants else ()
        if part.heating:
            return ("out",)
        ready = [f"drop-{name}" for name in falls]
        lifts = [f"lift-{name}" for name in part.jammed]
        return (*ready, *lifts) if ready or lifts else ("oven",) if waiting else ()

    def _wants_c(self, part: HotHalf, name: str) -> float:
        """From which temperature on a bearing falls."""
        return ROOM_C + (part.truth.tight_um[name] + WARM_ENOUGH_UM) / (1000 * BEARINGS[name] * CASE_ALPHA)

    def damage(self, part: HotHalf) -> list[str]:
        hot = ["too_hot"] if part.is_spoiled else []
        return [*hot, *(["knocked"] if part.knocked else [])]

    def truth(self, part: HotHalf) -> dict[str, ExerciseOutcome]:
        values: dict[str, ExerciseOutcome] = {}
        for name in BEARINGS:
            values[f"wants_{name}"] = celsius(self._wants_c(part, name))
        return {**values, "hottest": celsius(part.hottest_c), "home": count(len(part.home)), "knocked": count(part.knocked)}

    def found(self, found: Any) -> dict[str, ExerciseOutcome]:
        return {}

    def fault(self, part: HotHalf) -> str:
        return "tight_seat" if max(part.truth.tight_um.values()) > 60 + SPARE_UM / 2 else ""

    def verdict(self, part: HotHalf) -> str:
        """Return whether all bearings that are not seated would drop in now."""
        return "in" if all(part.open_um(name) > 0 for name in BEARINGS if name not in part.home) and part.true_c < HURTS_C else "out"

    def shortest(self, part: HotHalf) -> int:
        return len(BEARINGS) + 2 + (4 if self.fault(part) else 0)
