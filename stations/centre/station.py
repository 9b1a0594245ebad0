"""Centre: equal gaps by feelers or hard on one side, the spin, end float by dial against what was predicted, and the proof of the seals."""

from __future__ import annotations

from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from engines.models import Spec
from engines.properties import Property
from jobs import log
from shop.models import Blades, PullIn
from shop.shelves import shelves
from shopmath import __version__ as core_version
from shopmath import feelers
from shopmath.centring import Centred, centred
from shopmath.checks import BadInput
from shopmath.closure import leak
from shopmath.quantity import Quantity
from shopmath.verdict import Call, call, combined
from stations.base import Action, Ask, Caution, Method, Plate, Scale, Station, Trace, Work
from stations.centre import asks, drawing

GAP_LIMIT_MM = 0.05  # difference between the gaps, shop rule where the card says nothing
PITCH_MM = 1.5
CAUSES = "a bearing not home, another gasket than measured, a shim on the wrong side"


class Centre(Work):
    """One crank between its bearings."""

    @property
    def school(self) -> str:
        return "hard" if self.choices.get("school") == "hard" else "centre"

    @property
    def proof(self) -> str:
        known = [option.key for option in asks.PROOF]
        chosen = str(self.choices.get("proof", ""))
        return chosen if chosen in known else "pressure"

    @cached_property
    def tool(self) -> PullIn | None:
        return next(iter(shelves(self.shop).pull_ins), None)

    @property
    def pitch_mm(self) -> float:
        return self.tool.pitch_mm if self.tool else PITCH_MM

    @cached_property
    def blades(self) -> Blades | None:
        return next((each for each in shelves(self.shop).blades if each.kind == Blades.Kind.FEELER and each.sizes_mm), None)

    @cached_property
    def limit(self) -> tuple[float, str]:
        spec = self.spec(Property.CENTRING)
        return (spec.high, spec.origin) if spec and spec.high else (GAP_LIMIT_MM, "shop rule")

    @property
    def gaps(self) -> tuple[float, float] | None:
        left, right = self.mean("left"), self.mean("right")
        return (left, right) if left is not None and right is not None else None

    @cached_property
    def middle(self) -> Centred | None:
        if self.gaps is None:
            return None
        doubt = max(self.unsure("left"), self.unsure("right"))
        return centred(*self.gaps, self.pitch_mm, self.limit[0], doubt)

    def named(self, gap_mm: float) -> str:
        """The blades that make a gap, by name."""
        if self.blades is None or gap_mm <= 0:
            return ""
        return " + ".join(f"{size:g}" for size in feelers.stack(gap_mm, self.blades.sizes_mm))

    @property
    def centred_enough(self) -> bool:
        return self.school == "hard" or bool(self.middle and self.middle.call.state == "in")

    # end float again

    @cached_property
    def float_limit(self) -> Spec | None:
        return self.spec(Property.END_FLOAT)

    @cached_property
    def predicted(self) -> tuple[float, float] | None:
        """What End float said it would be, and how sure."""
        found = self.signed_result("end-float")
        return (found["float_mm"], found["float_u_mm"]) if found.get("float_mm") is not None else None

    @cached_property
    def against_prediction(self) -> Call | None:
        """The dial against the stack: they should be one within both doubts."""
        dial = self.mean("float")
        if dial is None or self.predicted is None:
            return None
        off, doubt = abs(dial - self.predicted[0]), combined(self.unsure("float"), self.predicted[1])
        if off <= doubt:
            return Call("in", doubt - off, f"{dial:.3f} by dial, {self.predicted[0]:.3f} by the stack: one within ± {doubt:.3f}.")
        more = "more" if dial > self.predicted[0] else "less"
        words = f"{dial:.3f} by dial is {off:.3f} {more} than the stack said, ± {doubt:.3f}."
        return Call("out", doubt - off, words)

    @cached_property
    def float_call(self) -> Call | None:
        dial, spec = self.mean("float"), self.float_limit
        if dial is None or spec is None or (spec.low is None and spec.high is None):
            return None
        return call(dial, spec.low, spec.high, self.unsure("float"), unit="mm", digits=3)

    # the proof

    def leaked(self, key: str) -> Call | None:
        """Pressure or vacuum test: drop a minute against the card's limit."""
        first, second, minutes = self.value(f"{key}-1"), self.value(f"{key}-2"), self.value("minutes")
        if first is None or second is None or not minutes:
            return None
        spec = self.spec(Property.LEAK)
        sign = -1 if key == "vacuum" else 1
        return leak(sign * abs(first), sign * abs(second), minutes / 60, spec.high if spec else None, 0.25)

    @cached_property
    def leaks(self) -> list[tuple[str, Call]]:
        return [(key, found) for key in ("pressure", "vacuum") if (found := self.leaked(key))]

    # the skeleton

    def asks(self) -> list[Ask]:
        return asks.asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        asks.check(ask, quantity.canonical)
        if ask.key.endswith("-2"):
            first = self.value(f"{ask.key[:-2]}-1")
            if first is not None and abs(quantity.canonical) > abs(first) + 1:
                raise BadInput(ask.key, "It has gained: the part warms or the gauge has moved. Let it stand and begin again.")

    def plate(self) -> Plate:
        if self.signed:
            return self.signed_plate()
        ask = self.next_ask
        if self.school == "centre":
            if self.middle is None:
                return Plate("wait", "Feel both gaps", "Web to bearing, the crank pushed to neither side.", f"{ask.words}." if ask else "")
            if self.middle.call.state != "in":
                return self._off()
        if self.said("spin") == "drags":
            move = "Find it before anything else: a seal lip turned, a bearing loaded, a rod that touches. Open it again if you must."
            return Plate("stop", "It drags", self.said("drag") or "A crank that drags cold seizes hot.", move)
        return self._proved(ask)

    def _off(self) -> Plate:
        assert self.middle is not None
        assert self.gaps is not None
        found, move = self.middle.call, self.middle.move
        scale = Scale(abs(self.gaps[0] - self.gaps[1]), 1.41 * self.unsure("left"), None, self.limit[0], "mm", 2)
        goal = sum(self.gaps) / 2
        blades = self.named(goal)
        detail = f"Then {goal:.2f} on both sides{f': blades {blades}' if blades else ''}."
        if found.state == "too_close":
            return Plate("too_close", "Too close to call", found.reason, "Feel both again with thinner steps.", detail, scale)
        side = self.job.card.side(move.toward)
        turn = f"{move.turns:.2f} of a turn" if move.turns < 1 else f"{move.turns:.1f} turns"
        return Plate("out", "Off the middle", found.reason, f"Move it {move.move_mm:.2f} mm toward the {side}: {turn}.", detail, scale)

    def _proved(self, ask: Ask | None) -> Plate:
        """Float and leaks, the worst first."""
        if self.against_prediction and self.against_prediction.state == "out":
            return Plate("out", "Dial and stack differ", self.against_prediction.reason, f"Look for {CAUSES}.")
        soapy, again = "Soapy water on seals, joint, plugs; the bubbles show where.", "Another shim; measure the stack again."
        leaks = ((f"The {key} test", each, soapy) for key, each in self.leaks)
        for words, found, move in (("End float", self.float_call, again), *leaks):
            if found and found.state != "in":
                state = "is out" if found.state == "out" else "too close"
                return Plate(found.state, f"{words} {state}", found.reason, move)
        if ask:
            line = "In the middle." if self.school == "centre" else "Hard on its side, as chosen."
            return Plate("wait", "Spin, float, proof", line, f"{ask.words}.")
        proved = self.leaks[-1][1].reason if self.leaks else "Seals wet with oil." if self.proof == "oil" else "No pressure test."
        return Plate("in", "Centred and tight", proved, "Sign it.", self.against_prediction.reason if self.against_prediction else "")

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        return (Caution("closed", "Case closed to its torque, nothing hangs on the crank."),)

    def cautions(self) -> tuple[Caution, ...]:
        if self.signed:
            return ()
        found = [Caution("manual", "The manual's school comes first: some cranks stand hard on one side.")]
        if self.proof == "pressure":
            found.insert(0, Caution("blow", "Low pressure only, 0.5 bar at most, ports plugged and plugs held: they fly."))
        return tuple(found)

    def methods(self) -> tuple[Method, ...]:
        if self.signed:
            return ()
        return (
            Method("school", "Crank stands", asks.SCHOOL, self.school),
            Method("proof", "Proved by", asks.PROOF, self.proof),
            *self.gauge_methods(),
        )

    def traces(self) -> tuple[Trace, ...]:
        rows: list[Trace] = []
        if self.gaps:
            rows.append(Trace("Gaps allowed to differ", f"{self.limit[0]:g} mm", self.limit[1]))
            tool = self.tool.name if self.tool else "usual pitch"
            rows.append(Trace("Pitch of the tool", f"{self.pitch_mm:g} mm", tool, self.tool is None))
            for key, gap in zip(("left", "right"), self.gaps, strict=True):
                rows.append(Trace(f"Gap, {self.job.card.side(key)}", f"{gap:.2f} mm", self.named(gap) or "no blades on the shelf"))
        if self.predicted:
            rows.append(Trace("Float by the stack", f"{self.predicted[0]:.3f} mm", f"± {self.predicted[1]:.3f}; End float"))
        for key, found in self.leaks:
            rows.append(Trace(f"{key.capitalize()} test", found.state.replace("_", " "), found.reason))
        return tuple(rows)

    def actions(self) -> tuple[Action, ...]:
        if self.signed or not self.entry:
            return ()
        sign = Action("sign", "Sign it", "sign", not self.open_asks() and self.call.state == "in", self.may_sign())
        if self.gaps and not self.centred_enough:
            return (Action("again", "Moved: feel both again", "again", True), sign)
        return (sign,)

    def act(self, key: str) -> None:
        entry = self.opened(key)
        if key == "again":
            log.next_attempt(entry)
        if key == "sign":
            self.sign()

    def may_sign(self) -> str:
        off = self.middle.call.reason if self.middle and not self.centred_enough else ""
        return off or self.still_to_say()

    def result(self) -> dict[str, Any]:
        return {
            "schema": "centre/1",
            "core_version": core_version,
            "school": self.school,
            "gaps_mm": list(self.gaps) if self.gaps else None,
            "spin": self.said("spin"),
            "float_mm": self.mean("float"),
            "float_predicted_mm": self.predicted[0] if self.predicted else None,
            "proof": self.proof,
            "leaks": {key: {"state": found.state, "reason": found.reason} for key, found in self.leaks},
        }


STATION = Station("centre", "Centre", Centre, drawn=True)
