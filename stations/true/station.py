"""True: a single pressed crank between its supports. Two swings, what they say of the halves, the one next move."""

from __future__ import annotations

from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from engines.models import EngineCard
from jobs.models import Job, RunStation
from shopmath import __version__ as core_version
from shopmath.quantity import Quantity
from shopmath.truing import Misalignment, Move, PressedCrank, best_reachable, decompose, next_move, refuse_on_support
from stations.base import Action, Ask, Plate, Station, Trace, Work
from stations.by_hand.station import written_down
from stations.true import asks, drawing, plates
from stations.true.outer import OuterTruing
from stations.true.rounds import Rounds

CURES = {"strike", "squeeze", "wedge"}


class CrankTruing(Rounds):
    """One crank of one throw, round after round."""

    @cached_property
    def geometry(self) -> PressedCrank | None:
        """Where it is held and measured; None until all places are known."""
        stroke = self.job.card.stroke_mm or self.value("stroke")
        values = [self.value(f"{part}-{side}") for part in ("support", "gauge") for side in ("left", "right")]
        if stroke is None or any(value is None for value in values):
            return None
        a, b, g_left, g_right = (float(value or 0) for value in values)
        return PressedCrank(-a, b, -g_left, g_right, stroke / 2)

    def misalignment(self, attempt: int) -> Misalignment | None:
        left, right = self.swing("l", attempt), self.swing("r", attempt)
        if self.geometry is None or left is None or right is None:
            return None
        return decompose(left, right, self.geometry, self.vector_u_mm)

    @cached_property
    def mis(self) -> Misalignment | None:
        return self.misalignment(self.attempt)

    @cached_property
    def before(self) -> list[Misalignment]:
        """As measured before each earlier move, oldest first."""
        return [found for attempt in range(1, self.attempt) if (found := self.misalignment(attempt))]

    @cached_property
    def move(self) -> Move | None:
        if self.mis is None or self.geometry is None or self.doubt[0]:
            return None
        return next_move(self.mis, self.geometry, self.before, limit_mm=self.limit_mm)

    def response(self) -> tuple[float, str] | None:
        """How much of what the last move was to take away it took, and what it was: 1 is all, more is too far."""
        moves = self.choices.get("moves", [])
        if not moves or self.mis is None or not self.before:
            return None
        part = "twist_deg" if moves[-1]["kind"] == "strike" else "pinch_deg"
        was, now = getattr(self.before[-1], part), getattr(self.mis, part)
        unsure = 2 * getattr(self.mis.uncertainty, part)
        return ((was - now) / was, part.removesuffix("_deg")) if abs(was) > unsure else None

    @property
    def best_mm(self) -> float | None:
        if self.mis is None or self.geometry is None:
            return None
        return max(swing.tir_mm for swing in best_reachable(self.mis, self.geometry))

    @property
    def done(self) -> bool:
        """Nothing is worth another blow, or it is within its limit."""
        return bool(self.move and (self.move.kind == "leave" or (self.verdict_on_swing and self.verdict_on_swing.state == "in")))

    # the skeleton

    def asks(self) -> list[Ask]:
        return asks.asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        asks.check(ask, quantity.canonical)
        part, _, side = ask.key.partition("-")
        other = self.value(f"{'gauge' if part == 'support' else 'support'}-{side}") if part in ("support", "gauge") else None
        if other is not None:
            refuse_on_support(side, quantity.canonical, other)

    def plate(self) -> Plate:
        return plates.plate(self)

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def traces(self) -> tuple[Trace, ...]:
        return tuple(plates.traces(self))

    def actions(self) -> tuple[Action, ...]:
        if self.signed or self.mis is None:
            return ()
        if self.move is None:
            return (Action("again", "Measure the round again", "again", True),)
        settle, cure = self.turn_actions(), self.cure_actions()
        sign = Action("sign", "Sign it", "sign", self.done and not self.open_asks() and not settle and not cure, self.may_sign())
        if self.move.kind not in CURES | {"remeasure"}:
            return (*settle, *cure, sign)
        again = "Done: measure again" if self.move.kind in CURES else "Measure again"
        shut = self.refused() if self.move.kind in CURES else ""
        return (*settle, *cure, Action("again", again, "again", not self.done and not settle, shut), sign)

    def as_written(self) -> dict[str, Any]:
        return plates.as_written(self)

    def may_sign(self) -> str:
        if self.mis is None:
            return "Measure both ends first."
        return self.doubt[0]

    def result(self) -> dict[str, Any]:
        mis = self.mis
        return {
            "schema": "true/1",
            "core_version": core_version,
            **self.turned(),
            "twist_deg": round(mis.twist_deg, 4) if mis else None,
            "pinch_deg": round(mis.pinch_deg, 4) if mis else None,
            "offset_mm": round(mis.offset_mm, 4) if mis else None,
            "skew_deg": round(mis.skew_deg, 4) if mis else None,
            "best_reachable_mm": round(self.best_mm, 4) if self.best_mm is not None else None,
        }


def bind(station: Station, job: Job, stage: RunStation, *more: Any) -> Work:
    """By what the card says of the crank: one throw, several built up, or one piece, which no blow trues."""
    if job.card.crank == EngineCard.Crank.ONE_PIECE:
        return written_down(station, job, stage, *more)
    kind: type[Rounds] = CrankTruing if job.card.layout == EngineCard.Layout.SINGLE else OuterTruing
    return kind(station, job, stage, *more)


STATION = Station("true", "True", bind, drawn=True)
