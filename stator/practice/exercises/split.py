"""Exercise in splitting a case: screws, gaps, level halves, and possibly a forgotten bolt."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from shopmath.amounts import count, mm
from shopmath.splitting import DowelFit, lead_allowed_mm
from stator.engines.models import EngineCard, Mark
from stator.practice.exercises.base import ControlAction, DisplayedValue, Exercise, ExerciseOutcome, Read
from stator.simulators.case_halves import DOWEL_MM, ENGAGED_MM, PLACES, Halves, Joint, joined
from stator.simulators.operators.halves import SPAN_MM, call_on

BOLTS = ((-95.0, 40.0), (-40.0, 88.0), (40.0, 88.0), (95.0, 40.0), (95.0, -40.0), (40.0, -88.0), (-40.0, -88.0), (-95.0, -40.0))
FORCED_MM, OFTEN = 3.0, 3  # opened so far with a bolt in, the casting has given; bound more often than this, a dowel is scored
MOVES = {"go_on": "push", "back": "ease", "lift": "push"}


class Split(Exercise):
    key = "split"
    station = "split"
    looks = (("count", *(f"gap-{place}" for place in PLACES)),)
    works = (("push", "ease"), tuple(f"tap-{place}" for place in PLACES), tuple(f"bolt-{place}" for place in PLACES))
    hard = True

    def card(self) -> EngineCard:
        made = EngineCard.objects.create(name="Practice case", lifts="right", crank_stays="left", face_w_mm=240, face_h_mm=210)
        bolts = [Mark(card=made, what="bolt", name=str(number), x_mm=x, y_mm=y, assumed=False) for number, (x, y) in enumerate(BOLTS, 1)]
        gaps = [Mark(card=made, what="gap", name=name, x_mm=x, y_mm=y, assumed=False) for name, (x, y) in PLACES.items()]
        dowels = [
            Mark(card=made, what="dowel", name=name, x_mm=x, y_mm=0, clearance_mm=DOWEL_MM, engaged_mm=ENGAGED_MM, assumed=False)
            for name, x in (("dowel front", -100), ("dowel rear", 100))
        ]
        Mark.objects.bulk_create([*bolts, *gaps, *dowels])
        return made

    def part(self, seed: int, level: str, truth: Mapping[str, Any] | None = None) -> Halves:
        return Halves(seed, Joint(**truth) if truth else joined(seed, level))

    def pull(self, part: Halves, pulled: ControlAction) -> None:
        what, _, place = pulled.lever.partition("-")
        if what == "push":
            part.push(pulled.share)
        elif what == "bolt" and part.truth.forgotten == place:
            part.truth = replace(part.truth, forgotten="")
        elif what != "bolt":
            part.pull(pulled.lever)
        part.seen = pulled.lever

    def shows(self, part: Halves) -> DisplayedValue:
        what, _, place = part.seen.partition("-")
        if what == "count":
            return DisplayedValue("bolts_out", amount=count(len(BOLTS) - bool(part.truth.forgotten)))
        if what == "gap":
            return DisplayedValue("gap_at", {"place": place}, mm(part.shown_mm(), 0.05))
        return DisplayedValue("bound" if part.binds else "moved" if part.mean_mm else "closed")

    def left(self, part: Halves, read: Read) -> float:
        """Return by how much one side leads, across the joint."""
        return abs(part.slope) * SPAN_MM

    def limit(self, part: Halves) -> float:
        return lead_allowed_mm([DowelFit(DOWEL_MM, ENGAGED_MM)], 0.0, SPAN_MM)

    def reached(self, part: Halves, read: Read) -> bool:
        return part.is_free and not self.damage(part)

    def beyond(self, part: Halves) -> bool:
        return False

    def best(self, part: Halves) -> tuple[str, ...]:
        if part.is_free:
            return ()
        if part.truth.forgotten:
            return (f"bolt-{part.truth.forgotten}",)
        move, plane = call_on(part)
        if move.kind == "tap":
            return (f"tap-{move.place}",)
        return (MOVES[move.kind], f"tap-{plane.lagging_name}") if move.kind == "back" else (MOVES[move.kind],)

    def damage(self, part: Halves) -> list[str]:
        forced = ["bolt_forced"] if part.truth.forgotten and part.mean_mm > FORCED_MM else []
        return [*forced, *(["scored"] if part.binds_often > OFTEN else [])]

    def truth(self, part: Halves) -> dict[str, ExerciseOutcome]:
        return {
            "lead": mm(abs(part.slope) * SPAN_MM, 0.01),
            "gap": mm(part.mean_mm, 0.01),
            "bolt": part.truth.forgotten or "none",
            "bound": count(part.binds_often),
        }

    def found(self, found: Any) -> dict[str, ExerciseOutcome]:
        plane = getattr(found, "plane", None)
        return {"lead": mm(plane.lead_mm, 0.01), "gap": mm(plane.mean_mm, 0.01)} if plane else {}

    def fault(self, part: Halves) -> str:
        return "forgotten" if part.truth.forgotten else ""

    def verdict(self, part: Halves) -> str:
        return "in" if self.left(part, {}) <= self.limit(part) and not part.truth.forgotten else "out"

    def shortest(self, part: Halves) -> int:
        moves = 0
        while not part.is_free and moves < 60:
            control = self.best(part)[0]
            self.pull(part, ControlAction(control))
            moves += 1
        return moves
