"""Three seals that look alike: which belongs where, which way its lip faces, and four depths."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from shopmath.amounts import count, mm
from shopmath.seals import CLOCKS, SQUARE_MM
from stator.engines.models import EngineCard, Seal
from stator.practice.exercises.base import ControlAction, DisplayedValue, Exercise, ExerciseOutcome, Read
from stator.simulators.operators.alike import by_the_sizes
from stator.simulators.seals import DEPTH_MM, LETTERS, PLACES, WIDTH_MM, Lot, SealSet, lot

HALF = {"drive": "left", "magneto": "right", "output": "left"}
NAMES = {"drive": "Crank seal, drive side", "magneto": "Crank seal, magneto side", "output": "Gearbox output seal"}


class Seals(Exercise):
    key = "seals"
    station = "seals"
    kind = "count"
    step = 1.0
    looks = (
        tuple(f"take-{letter}" for letter in LETTERS),
        ("shaft", "bore", "lip"),
        tuple(f"place-{place}" for place in PLACES),
        tuple(f"depth-{clock}" for clock in CLOCKS),
    )
    works = (("round", "drive", "draw"), tuple(f"tap-{clock}" for clock in CLOCKS))

    def card(self) -> EngineCard:
        made = EngineCard.objects.create(name="Practice case with three seals")
        for place, (shaft, bore) in PLACES.items():
            sizes = {"shaft_mm": shaft, "bore_mm": bore, "width_mm": WIDTH_MM, "depth_mm": DEPTH_MM, "depth_assumed": False}
            Seal.objects.create(card=made, name=NAMES[place], half=HALF[place], lip="inside", source="practice", **sizes)
        return made

    def part(self, seed: int, level: str, truth: Mapping[str, Any] | None = None) -> SealSet:
        if truth:
            return SealSet(seed, Lot(**{**truth, "made_for": tuple(truth["made_for"]), "inside_up": tuple(truth["inside_up"])}))
        return SealSet(seed, lot(seed, level))

    def pull(self, part: SealSet, pulled: ControlAction) -> None:
        part.pull(pulled.lever)
        part.seen = pulled.lever

    def shows(self, part: SealSet) -> DisplayedValue:
        values = {"letter": part.hand, "place": part.place}
        here = part.seated.get(part.place)
        if part.refused:
            return DisplayedValue("does_not_enter", values)
        if part.reading == "lip":
            return DisplayedValue("lip", values, said="inside" if part.inside[part.hand] else "outside")
        if part.reading:
            what, _, clock = part.reading.partition("-")
            return DisplayedValue(what, {**values, "clock": clock}, mm(part.shown, 0.02))
        if part.seen.startswith("take") or part.seen == "round":
            return DisplayedValue("in_hand" if part.in_hand else "not_in_hand", values)
        return DisplayedValue("seated" if here else "empty", {**values, "letter": here.letter if here else ""})

    def left(self, part: SealSet, read: Read) -> float:
        return float(part.wrong)

    def limit(self, part: SealSet) -> float:
        return 0.0

    def best(self, part: SealSet) -> tuple[str, ...]:
        found, here = [], part.seated.get(part.place)
        if part.in_hand:
            found += [] if part.inside[part.hand] else ["round"]
            fits = part.inside[part.hand] and part.made_for(part.hand) == part.place and here is None
            found += ["drive"] if fits else []
        if here and (part.made_for(here.letter) != part.place or not here.inside):
            return (*found, "draw")
        if here and here.lean_mm > SQUARE_MM:
            lags = min(here.depths_mm, key=lambda clock: here.depths_mm[clock])
            found.append(f"tap-{lags}")
        return tuple(found)

    def damage(self, part: SealSet) -> list[str]:
        return ["drawn"] if part.spoiled else []

    def truth(self, part: SealSet) -> dict[str, ExerciseOutcome]:
        values: dict[str, ExerciseOutcome] = {f"seal_{letter}": part.made_for(letter) for letter in LETTERS}
        for place in PLACES:
            here = part.seated.get(place)
            values[f"at_{place}"] = (
                "nothing" if here is None else "right" if part.is_right(place) else "crooked" if here.inside else "lip_out"
            )
        return {**values, "spoiled": count(part.spoiled)}

    def shortest(self, part: SealSet) -> int:
        pulls = 0
        pull = part.pull

        def counted(control: str) -> None:
            nonlocal pulls
            pulls += control in self.working
            pull(control)

        part.pull = counted  # type: ignore[method-assign]
        by_the_sizes(part)
        return pulls
