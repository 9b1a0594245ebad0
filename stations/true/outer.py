"""True: a built-up crank of several throws, held on its centre bearings. Each outer shaft is read, its web turned about its pin."""

from __future__ import annotations

from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from shopmath import __version__ as core_version
from shopmath.checks import BadInput
from shopmath.quantity import Quantity
from shopmath.throws import OuterShaft, outer_shaft, phase_error_deg, refuse_hold
from stations.base import Action, Ask, Plate, Trace
from stations.true import asks, drawing_outer
from stations.true.rounds import Rounds


class OuterTruing(Rounds):
    """One crank of several throws."""

    @property
    def refusal(self) -> str:
        """Why it cannot be measured as it is held; empty when it can."""
        try:
            refuse_hold(self.held)
        except BadInput as error:
            return error.message
        return ""

    @property
    def throw_mm(self) -> float | None:
        stroke = self.job.card.stroke_mm or self.value("stroke")
        return stroke / 2 if stroke else None

    @cached_property
    def phase_deg(self) -> float | None:
        """Angle of the right outer pin from the left one: read here, else as Together left it."""
        here = self.value("phase")
        if here is not None:
            return here
        found = self.signed_result("together").get("phase_deg")
        return float(found) if found is not None else None

    def shaft(self, key: str, attempt: int | None = None) -> OuterShaft | None:
        """One outer shaft as measured; None until its turn is whole."""
        swing, throw, rim = self.swing(key, attempt), self.throw_mm, self.value("rim")
        pin = 0.0 if key == "l" else self.phase_deg
        if swing is None or throw is None or rim is None or pin is None:
            return None
        return outer_shaft(swing, throw, pin, rim, self.vector_u_mm)

    @cached_property
    def shafts(self) -> list[tuple[str, OuterShaft]]:
        """Side and shaft, the one with the larger swing first; empty until both are read."""
        found = [(side, shaft) for side, key in asks.SIDES if (shaft := self.shaft(key))]
        return sorted(found, key=lambda pair: -pair[1].swing.tir_mm) if len(found) == len(asks.SIDES) else []

    @cached_property
    def worst(self) -> tuple[str, OuterShaft] | None:
        """The web to turn: the one whose turning takes off most."""
        worth = [pair for pair in self.shafts if pair[1].worth_it]
        return max(worth, key=lambda pair: pair[1].swing.tir_mm - pair[1].best_mm, default=None)

    @property
    def done(self) -> bool:
        within = self.verdict_on_swing is not None and self.verdict_on_swing.state == "in"
        return bool(self.shafts) and not self.doubt[0] and (self.worst is None or within)

    # the skeleton

    def asks(self) -> list[Ask]:
        return asks.outer_asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        asks.check(ask, quantity.canonical)

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing_outer.draw(self)

    def plate(self) -> Plate:
        if self.signed:
            return self.signed_plate()
        if self.refusal:
            return Plate("stop", "Not on those", self.refusal, "Hold it on its centre bearings; then measure the outer shafts.")
        ask = self.next_ask
        if not self.shafts:
            ready = self.throw_mm and self.value("rim") and self.phase_deg is not None
            if not ready:
                line = "The throw and the rim turn a swing into degrees, and degrees into a witness line's travel."
                return Plate("wait", "Set it up", line, f"{ask.words}." if ask else "Give its sizes.")
            line = f"Round {self.attempt}. Zero the gauge anywhere; turn it counter-clockwise seen from the right end."
            return Plate("wait", "Turn it", line, f"{ask.words}." if ask else "Read the rest.")
        if self.doubt[0]:
            return Plate("too_close", "Numbers disagree", self.doubt[0], self.reread())
        return self._judged()

    def _judged(self) -> Plate:
        verdict, line, scale = self.verdict_on_swing, self.swing_line(), self.swing_scale()
        rest = max(shaft.best_mm for _, shaft in self.shafts)
        reach = f"Turning the webs leaves {rest:.3f} mm: it lies along the throws, no turning cures it. {self.against_clearance()}"
        if verdict and verdict.state == "in":
            return Plate("in", "True enough", line, "Leave it: it is within its limit.", reach, scale)
        if self.worst is None:
            state = verdict.state if verdict else "too_close"
            return Plate(state, "As good as it gets", line, "What is left is not turned webs: apart again, or accept it.", reach, scale)
        side, shaft = self.worst
        name, turn = self.job.card.side(side), shaft.turn
        line = f"{line} The {name} web has turned {turn.turn_deg:.3f}° ± {2 * shaft.turn_u_deg:.3f} about its pin."
        travel = f"its witness line {turn.rim_mm:.3f} mm at the rim opposite its pin"
        move = f"Turn the {name} web {turn.direction}, seen from the right end: {travel}."
        detail = f"Its needle should then swing {shaft.best_mm:.3f}. {reach}"
        return Plate(verdict.state if verdict else "too_close", "A web has turned", line, move, detail, scale)

    def traces(self) -> tuple[Trace, ...]:
        rows = self.swing_traces()
        for side, shaft in self.shafts:
            turn = f"{shaft.turn.rim_mm:.3f} mm at the rim, {shaft.turn.direction or 'none'}; ± {2 * shaft.turn_u_deg:.3f}°"
            rows.append(Trace(f"Turned, {self.job.card.side(side)}", f"{shaft.turn.turn_deg:.3f}°", turn))
        phase = self.phase_deg
        if phase is not None:
            off = phase_error_deg(phase, round(phase / 90) * 90)
            rows.append(Trace("Between the throws", f"{phase:.1f}°", f"{off:+.2f}° from the nearest quarter"))
        for done in reversed(self.choices.get("moves", [])):
            got = self.shaft({"left": "l", "right": "r"}[done["web"]], done["round"] + 1)
            after = f"{got.swing.tir_mm:.3f} was got" if got else "not measured since"
            source = f"{done['rim_mm']:.3f} mm {done['direction']}; {done['expected_mm']:.3f} was expected, {after}"
            rows.append(Trace(f"Round {done['round']}: {done['web']} web", f"{done['turn_deg']:.3f}°", source))
        return tuple(rows)

    def actions(self) -> tuple[Action, ...]:
        if self.signed or not self.shafts or self.refusal:
            return ()
        if self.doubt[0]:
            return (Action("again", "Measure the round again", "again", True),)
        settle, cure = self.turn_actions(), self.cure_actions()
        sign = Action("sign", "Sign it", "sign", self.done and not self.open_asks() and not settle and not cure, self.may_sign())
        if self.worst is None:
            return (*settle, *cure, sign)
        again = Action("again", "Turned: measure again", "again", not self.done and not settle, self.refused())
        return (*settle, *cure, again, sign)

    def as_written(self) -> dict[str, Any]:
        if self.worst is None or self.doubt[0]:
            return {
                "round": self.attempt,
                "kind": "again",
                "web": "left",
                "turn_deg": 0.0,
                "rim_mm": 0.0,
                "direction": "",
                "expected_mm": 0.0,
            }
        side, shaft = self.worst
        return {
            "round": self.attempt,
            "kind": "turn",
            "web": side,
            "turn_deg": round(shaft.turn.turn_deg, 4),
            "rim_mm": round(shaft.turn.rim_mm, 4),
            "direction": shaft.turn.direction,
            "expected_mm": round(shaft.best_mm, 4),
        }

    def may_sign(self) -> str:
        return self.doubt[0] if self.shafts else "Measure both outer shafts first."

    def result(self) -> dict[str, Any]:
        return {
            "schema": "true-outer/1",
            "core_version": core_version,
            **self.turned(),
            "phase_deg": self.phase_deg,
            "shafts": [_written(side, shaft) for side, shaft in self.shafts],
        }


def _written(side: str, shaft: OuterShaft) -> dict[str, Any]:
    return {
        "side": side,
        "tir_mm": round(shaft.swing.tir_mm, 4),
        "high_deg": round(shaft.swing.high_spot_deg, 1),
        "turn_deg": round(shaft.turn.turn_deg, 4),
        "best_mm": round(shaft.best_mm, 4),
    }
