"""True: a single pressed crank between its supports. Two swings, what they say of the halves, the one next move."""

from __future__ import annotations

import math
from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from engines.models import EngineCard, Spec
from jobs import log
from jobs.models import Job, Reading, RunStation
from shop.models import Gauge
from shop.shelves import shelves
from shopmath import __version__ as core_version
from shopmath.quantity import Quantity
from shopmath.runout import RunoutFit, fit
from shopmath.truing import Misalignment, Move, PressedCrank, Swing, best_reachable, decompose, next_move, refuse_on_support
from shopmath.verdict import Call, call, gauge_uncertainty
from stations.base import Action, Ask, Caution, Method, Plate, Row, Station, Trace, Work
from stations.by_hand.station import ByHand
from stations.true import asks, drawing, plates

DIAL_RESOLUTION_MM = 0.01
CURES = {"strike", "squeeze", "wedge"}


class CrankTruing(Work):
    """One crank, round after round."""

    @property
    def held(self) -> str:
        chosen = str(self.choices.get("held", "centres"))
        return chosen if chosen in asks.HELD else "centres"

    @property
    def how(self) -> str:
        chosen = str(self.choices.get("how", "turn"))
        return chosen if chosen in asks.HOW else "turn"

    @cached_property
    def gauge(self) -> Gauge | None:
        return next((each for each in shelves(self.shop).gauges if each.kind == Gauge.Kind.DIAL), None)

    @property
    def resolution(self) -> float:
        return self.gauge.resolution if self.gauge else DIAL_RESOLUTION_MM

    @property
    def reading_u_mm(self) -> float:
        """Expanded uncertainty of one reading."""
        return gauge_uncertainty(self.resolution, self.gauge.repeatability if self.gauge else None)

    @property
    def vector_u_mm(self) -> float:
        """Standard uncertainty of each component of a swing: eight readings share it, two ends of a swing carry it whole."""
        return self.reading_u_mm / 2 * math.sqrt(2 / len(asks.TURN)) if self.how == "turn" else self.reading_u_mm / 2

    def live(self, key: str, every_heat: bool = False) -> list[Reading]:
        """Readings of an end belong to their round; the set-up and the words stand for all."""
        return super().live(key, every_heat or not key.startswith(("l-", "r-")))

    # the set-up

    @cached_property
    def geometry(self) -> PressedCrank | None:
        """Where it is held and measured; None until all places are known."""
        stroke = self.job.card.stroke_mm or self.value("stroke")
        values = [self.value(f"{part}-{side}") for part in ("support", "gauge") for side in ("left", "right")]
        if stroke is None or any(value is None for value in values):
            return None
        a, b, g_left, g_right = (float(value or 0) for value in values)
        return PressedCrank(-a, b, -g_left, g_right, stroke / 2)

    # one round

    def _round(self, key: str, heat: int) -> list[float | None]:
        wanted = [f"{key}-{angle}" for angle in asks.TURN] if self.how == "turn" else [f"{key}-swing", f"{key}-high"]
        found = []
        for ask in wanted:
            taken = [reading for reading in Work.live(self, ask, every_heat=True) if reading.heat == heat]
            found.append(taken[-1].canonical if taken else None)
        return found

    def fitted(self, key: str, heat: int | None = None) -> RunoutFit | None:
        """One end's turn, fitted; None until every angle is read."""
        values = self._round(key, heat or self.heat)
        if self.how != "turn" or any(value is None for value in values):
            return None
        return fit([float(angle) for angle in asks.TURN], [float(value or 0) for value in values])

    def swing(self, key: str, heat: int | None = None) -> Swing | None:
        if self.how == "turn":
            found = self.fitted(key, heat)
            return Swing(found.tir_mm, found.high_spot_deg) if found else None
        values = self._round(key, heat or self.heat)
        return None if None in values else Swing(float(values[0] or 0), float(values[1] or 0) % 360)

    def misalignment(self, heat: int) -> Misalignment | None:
        left, right = self.swing("l", heat), self.swing("r", heat)
        if self.geometry is None or left is None or right is None:
            return None
        return decompose(left, right, self.geometry, self.vector_u_mm)

    @cached_property
    def mis(self) -> Misalignment | None:
        return self.misalignment(self.heat)

    @cached_property
    def before(self) -> list[Misalignment]:
        """As measured before each earlier move, oldest first."""
        return [found for heat in range(1, self.heat) if (found := self.misalignment(heat))]

    @cached_property
    def spec(self) -> Spec | None:
        return next((spec for spec in self.job.card.specs.all() if "run-out" in spec.name.lower() and spec.high is not None), None)

    @property
    def limit_mm(self) -> float | None:
        return self.spec.high if self.spec else None

    @cached_property
    def move(self) -> Move | None:
        if self.mis is None or self.geometry is None:
            return None
        return next_move(self.mis, self.geometry, self.before, limit_mm=self.limit_mm)

    @property
    def raw_mm(self) -> float | None:
        """The larger raw swing: what a manual's limit means."""
        if self.how == "turn":
            found = [self.fitted(key) for _, key in asks.SIDES]
            return None if None in found else max(each.raw_swing_mm for each in found if each)
        swings = [self.swing(key) for _, key in asks.SIDES]
        return None if None in swings else max(each.tir_mm for each in swings if each)

    @cached_property
    def verdict_on_swing(self) -> Call | None:
        """The raw swing against the card's limit; none where the card has none."""
        raw, limit = self.raw_mm, self.limit_mm
        if raw is None or limit is None:
            return None
        return call(raw, high=limit, uncertainty=math.sqrt(2) * self.reading_u_mm, unit="mm", digits=3)

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

    def extra_for(self, ask: Ask, quantity: Quantity, data: dict[str, str]) -> tuple[Gauge | None, dict[str, Any]]:
        return (self.gauge if ask.key.startswith(("l-", "r-")) else None), {}

    def shown(self, reading: Reading, ask: Ask | None = None) -> str:
        return f"{reading.canonical:.0f}°" if reading.kind == "angle" and reading.canonical is not None else super().shown(reading, ask)

    def sheet(self) -> list[Row]:
        """This round, then what the rounds before came to."""
        rows = super().sheet()
        for heat in range(self.heat - 1, 0, -1):
            for side, key in asks.SIDES:
                for name in [f"{key}-{angle}" for angle in asks.TURN] + [f"{key}-swing", f"{key}-high"]:
                    found = [reading for reading in Work.live(self, name, every_heat=True) if reading.heat == heat]
                    rows += [
                        Row(Ask(name, f"Round {heat}: {side} {name.partition('-')[2]}"), reading, self.shown(reading)) for reading in found
                    ]
        return rows

    def plate(self) -> Plate:
        return plates.plate(self)

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        on = "Centre holes clean and whole" if self.held == "centres" else "Seats clean, no burr; vees or rollers level"
        return (
            Caution("clean", f"{on}; crank turns freely, nothing rubs."),
            Caution("lifted", "Before any blow: gauges lifted, crank off its supports, on wood.", gate=True),
        )

    def cautions(self) -> tuple[Caution, ...]:
        return (
            Caution("rims", "Soft heavy hammer, web rims only; never a shaft, never a threaded end."),
            Caution("wedge", "A wedge or a squeeze can jump: eyes covered, hands clear. Side play of the rod again after each."),
            Caution("manual", "The limit is the manual's, at the manual's supports; elsewhere it is no verdict."),
        )

    def methods(self) -> tuple[Method, ...]:
        if self.signed:
            return ()
        held = Method("held", "Crank held", tuple(asks.HELD.values()), self.held)
        return (held, Method("how", "Read at", tuple(asks.HOW.values()), self.how)) if self.heat == 1 else (held,)

    def traces(self) -> tuple[Trace, ...]:
        return tuple(plates.traces(self))

    def actions(self) -> tuple[Action, ...]:
        if self.signed or self.move is None:
            return ()
        sign = Action("sign", "Sign it", "sign", self.done and not self.open_asks(), self.may_sign())
        if self.move.kind not in CURES | {"remeasure"}:
            return (sign,)
        again = "Done: measure again" if self.move.kind in CURES else "Measure again"
        shut = self.refused() if self.move.kind in CURES else ""
        return (Action("again", again, "again", not self.done, shut), sign)

    def act(self, key: str) -> None:
        entry = self.opened(key)
        if key == "again":
            moves = [*self.choices.get("moves", []), plates.as_written(self)]
            log.choose(entry, heat=self.heat + 1, moves=moves)
        if key == "sign":
            self.sign()

    def may_sign(self) -> str:
        return "" if self.mis is not None else "Measure both ends first."

    def result(self) -> dict[str, Any]:
        mis = self.mis
        return {
            "schema": "true/1",
            "core_version": core_version,
            "held": self.held,
            "rounds": self.heat,
            "raw_swing_mm": round(self.raw_mm, 4) if self.raw_mm is not None else None,
            "limit_mm": self.limit_mm,
            "twist_deg": round(mis.twist_deg, 4) if mis else None,
            "pinch_deg": round(mis.pinch_deg, 4) if mis else None,
            "offset_mm": round(mis.offset_mm, 4) if mis else None,
            "skew_deg": round(mis.skew_deg, 4) if mis else None,
            "best_reachable_mm": round(self.best_mm, 4) if self.best_mm is not None else None,
            "moves": self.choices.get("moves", []),
            "joint": next((reading.text for reading in self.live("joint")), None),
        }


def bind(station: Station, job: Job, stage: RunStation, *more: Any) -> Work:
    """A single pressed crank is computed; what has more throws is still written down by hand."""
    kind = CrankTruing if job.card.layout == EngineCard.Layout.SINGLE and job.card.crank != EngineCard.Crank.ONE_PIECE else ByHand
    return kind(station, job, stage, *more)


STATION = Station("true", "True", bind)
