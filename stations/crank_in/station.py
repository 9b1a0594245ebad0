"""Crank in: dropped into a hot bearing, or pulled in by the inner ring: turns counted, the wrench judged, both sides felt."""

from __future__ import annotations

from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from engines.fits import bearing_of
from engines.models import Seat
from jobs import log
from jobs.models import Reading
from shop.models import PullIn
from shop.shelves import shelves
from shopmath import __version__ as core_version
from shopmath.bearings import Bearing, fit
from shopmath.checks import BadInput
from shopmath.iso286 import limits
from shopmath.pullin import PullTorque, binding, pull_force_n, pull_torque_nm, seated, turns
from shopmath.pulling import same_thread
from shopmath.quantity import Quantity
from shopmath.threads import identify
from shopmath.verdict import Call
from stations.base import Action, Ask, Caution, Method, Option, Plate, Station, Trace, Work
from stations.crank_in import asks, drawing

SCREW_MM, NUT_RADIUS_MM = 16.0, 10.0  # of the pulling screw, where the shelf does not say: estimate
JOURNAL = "k5"  # usual on a crank: estimate
FEWEST_TURNS = 6.0  # by hand in a steel end: about one diameter of a fine thread
SAME_D_MM = 0.3
SEATED_MM = 0.05  # gaps of both sides, shop rule


class CrankIn(Work):
    """One crank going home."""

    @property
    def school(self) -> str:
        chosen = str(self.choices.get("school", "pull"))
        return chosen if chosen in [option.key for option in asks.SCHOOL] else "pull"

    @cached_property
    def tool(self) -> PullIn | None:
        chosen = str(self.choices.get("tool", ""))
        found = shelves(self.shop).pull_ins
        return next((each for each in found if str(each.pk) == chosen), None) or next(iter(found), None)

    @cached_property
    def main(self) -> Seat | None:
        """The main bearing it goes into: of the half where the crank stays, else the first."""
        mains = [seat for seat in self.job.card.seats.all() if seat.on == Seat.On.CASE and seat.is_main]
        return next((seat for seat in mains if seat.half == self.job.card.crank_stays), None) or next(iter(mains), None)

    @cached_property
    def bearing(self) -> Bearing | None:
        try:
            return bearing_of(self.main) if self.main else None
        except BadInput:
            return None

    @property
    def begun(self) -> bool:
        return bool(self.choices.get("begun"))

    @property
    def home(self) -> bool:
        return bool(self.choices.get("home"))

    # judging

    @cached_property
    def thread(self) -> Call | None:
        """Whether the tool's adapter is the thread of the crank's end."""
        d, pitch = self.value("thread_d"), self.value("thread_pitch")
        if d is None or pitch is None or self.tool is None:
            return None
        found = same_thread(self.tool.thread_pitch_mm, pitch, "right", "right")
        words = found.reason.replace("in a boss of", "on an end of")
        if found.state == "in" and abs(self.tool.thread_mm - d) > SAME_D_MM:
            size = f"The adapter is {self.tool.thread_mm:g} mm, the crank's end {d:.2f}: not its thread."
            return Call("stop", SAME_D_MM - abs(self.tool.thread_mm - d), size)
        return Call(found.state, found.margin, words)

    @property
    def by_hand(self) -> float | None:
        return self.value("hand")

    @cached_property
    def torque(self) -> PullTorque | None:
        """What the wrench should feel; None while the bearing is not known."""
        if self.bearing is None or self.tool is None:
            return None
        try:
            overlap = fit(limits(JOURNAL, self.bearing.bore_mm), self.bearing.bore_limits_um)
        except BadInput:
            return None
        band = (overlap.min_interference_mm, overlap.max_interference_mm)
        force = pull_force_n(band, self.bearing.bore_mm, self.bearing.width_mm)
        return pull_torque_nm(force, SCREW_MM, self.tool.pitch_mm, NUT_RADIUS_MM)

    @property
    def wanted_turns(self) -> float | None:
        travel = self.value("travel")
        return turns(travel, self.tool.pitch_mm) if travel and self.tool else None

    @property
    def done_turns(self) -> float:
        found = self.values("turns")
        return found[-1] if found else 0.0

    @cached_property
    def wrench(self) -> Call | None:
        """The last torque against the turns done."""
        torques = self.values("torque")
        if not torques or self.torque is None or not self.wanted_turns:
            return None
        return binding(torques[-1], self.torque, self.done_turns, self.wanted_turns)

    @cached_property
    def sides(self) -> Call | None:
        left, right = self.mean("gap-left"), self.mean("gap-right")
        if left is None or right is None:
            return None
        return seated(left, right, SEATED_MM, max(self.unsure("gap-left"), self.unsure("gap-right")))

    # the skeleton

    def asks(self) -> list[Ask]:
        return asks.asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        asks.check(ask, quantity.canonical)
        if ask.key == "turns" and quantity.canonical < self.done_turns:
            raise BadInput("turns", f"{self.done_turns:g} were done already: the turns in all, not since the last time.")

    def plate(self) -> Plate:
        if self.signed:
            return self.signed_plate()
        if self.school in asks.REFUSED:
            reason, instead = asks.REFUSED[self.school]
            return Plate("stop", "Not so", reason, instead)
        if self.sides:
            return self._seated(self.sides)
        ask = self.next_ask
        if self.school == "drop":
            line = "Bearing hot, shaft cold: Heat and drop has the plan and its clocks."
            return Plate("wait", "Drop it in", line, f"{ask.words}, once it is cold." if ask else "")
        if self.home:
            return Plate("wait", "Is it home?", "Feel both sides before it is called home.", f"{ask.words}." if ask else "")
        return self._pulling(ask)

    def _pulling(self, ask: Ask | None) -> Plate:
        if self.tool is None:
            move = "Put the tool and its threads on the shelf, or drop the crank in."
            return Plate("stop", "No tool", "No pull-in tool on the shelf.", move)
        if self.thread and self.thread.state == "stop":
            return Plate("stop", "Not its thread", self.thread.reason, "Another adapter. A near miss holds three turns and strips.")
        if self.by_hand is not None and self.by_hand < FEWEST_TURNS:
            line = f"{self.by_hand:g} turns by hand, {FEWEST_TURNS:g} wanted: the rest would strip under load."
            return Plate("stop", "Deeper first", line, "Clean the thread, turn the adapter in by hand to the last turn.")
        if not self.begun:
            line = "The pull goes through the inner ring, never through the webs or the other half."
            if ask:
                return Plate("wait", "Set it up", line, f"{ask.words}.")
            gate = self.refused()
            return Plate("wait", "Ready to pull", self._expected(), gate or "Begin: half a turn, look, then on.")
        if self.wrench:
            word = {"in": "As it should be", "stop": "Stop: it binds", "too_close": "Home?"}[self.wrench.state]
            if self.wrench.state == "in" and self.wanted_turns and self.done_turns >= self.wanted_turns:
                word = "It has come home"
            move = {
                "in": f"{ask.words}." if ask else "Call it home.",
                "stop": "Back off, look: rod, squareness, a shim caught. Never on by force.",
                "too_close": "Turn on gently; if the wrench still feels nothing, measure.",
            }[self.wrench.state]
            return Plate(self.wrench.state, word, self.wrench.reason, move)
        return Plate("wait", "Pull", self._expected(), f"{ask.words}." if ask else "")

    def _expected(self) -> str:
        if self.torque is None:
            return "The bearing is not known: feel for the first resistance and do not pass it."
        to_go = f"{self.wanted_turns:.1f} turns. " if self.wanted_turns else ""
        return f"{to_go}{self.torque.expected.low:.0f} to {self.torque.stop_nm:.0f} N·m expected; stop at {self.torque.stop_nm:.0f}."

    def _seated(self, found: Call) -> Plate:
        if found.state == "in":
            return Plate("in", "Home", found.reason, "Rod free, crank turns: on to closing.")
        larger = f"The gap on the {self.job.card.side(found.values['side'])} is {found.values['difference']:.2f} mm larger"
        if found.state == "out":
            line = f"{larger}: that side is not home."
            return Plate("out", "Not home", line, "Pull on that side, or warm its bearing; then feel both again.")
        line = f"{larger}, too near the limit {found.values['limit']:g} to tell."
        return Plate("too_close", "Too close to call", line, "Feel both again with thinner blades.")

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        if self.school == "drop":
            return (Caution("rod", "Rod supported, its way clear; gloves, the case is hot.", gate=True),)
        return (
            Caution("bars", "Spacer bars on the case's own wall: the load stays off bosses and gasket.", gate=True),
            Caution("rod", "Rod supported, clear of the case mouth all the way.", gate=True),
            Caution("oil", "Journal and inner ring clean, a film of oil; screw greased."),
        )

    def cautions(self) -> tuple[Caution, ...]:
        if self.signed:
            return ()
        return (
            Caution("impact", "No impact wrench, no hammer on the end: balls dent, webs twist out of true."),
            Caution("manual", "The manual's tool and its order come first."),
        )

    def methods(self) -> tuple[Method, ...]:
        if self.signed or self.begun:
            return ()
        tools = tuple(Option(str(each.pk), each.name, f"{each.pitch_mm:g} a turn") for each in shelves(self.shop).pull_ins)
        found = [Method("school", "The crank goes in", asks.SCHOOL, self.school)]
        if self.tool and self.school == "pull":
            found.append(Method("tool", "Tool", tools, str(self.tool.pk)))
        return (*found, *self.gauge_methods())

    def traces(self) -> tuple[Trace, ...]:
        rows: list[Trace] = []
        d, pitch = self.value("thread_d"), self.value("thread_pitch")
        if d and pitch and (match := next(iter(identify(d, pitch, "right")), None)):
            rows.append(Trace("Crank's end", match.designation, f"{match.system}; {match.diameter_error_mm:+.2f} on size"))
        if self.tool:
            adapter = f"adapter {self.tool.thread_mm:g} × {self.tool.thread_pitch_mm:g}"
            rows.append(Trace("Tool", f"{self.tool.pitch_mm:g} a turn", f"{self.tool.name}; {adapter}"))
        if self.torque and self.bearing:
            band = self.torque.expected
            rows.append(
                Trace(
                    "Torque", f"{band.likely:.0f} N·m", f"{band.low:.0f} to {band.high:.0f}; {JOURNAL} in {self.bearing.designation}", True
                )
            )
            rows.append(Trace("Screw taken", f"{SCREW_MM:g} mm", f"nut turns on {NUT_RADIUS_MM:g} mm, greased", True))
        if self.sides:
            rows.append(Trace("Gaps allowed to differ", f"{SEATED_MM:g} mm", "shop rule"))
        return tuple(rows)

    def actions(self) -> tuple[Action, ...]:
        if self.signed or self.school in asks.REFUSED:
            return ()
        if self.sides:
            return (Action("sign", "Sign it", "sign", self.sides.state == "in" and not self.open_asks(), self.may_sign()),)
        if self.school == "drop" or self.home:
            return ()
        bad = next((found.reason for found in (self.thread,) if found and found.state == "stop"), "")
        if not self.begun:
            ready = self.thread is not None and self.by_hand is not None and self.by_hand >= FEWEST_TURNS and bool(self.wanted_turns)
            return (Action("begin", "Begin to pull", "begin", True, self.refused() or bad),) if ready else ()
        shut = self.wrench.reason if self.wrench and self.wrench.state == "stop" else ""
        return (Action("home", "It is home", "home", bool(self.wrench and self.done_turns >= (self.wanted_turns or 0.0)), shut),)

    def act(self, key: str) -> None:
        entry = self.opened(key)
        if key in ("begin", "home"):
            log.choose(entry, **{{"begin": "begun", "home": "home"}[key]: True})
        if key == "sign":
            self.sign()

    def may_sign(self) -> str:
        if self.sides and self.sides.state == "out":
            return self.sides.reason
        return self.still_to_say() or self.refused()

    def shown(self, reading: Reading, ask: Ask | None = None) -> str:
        if reading.canonical is not None and reading.kind == "torque":
            return f"{reading.canonical:.0f} N·m"
        if reading.canonical is not None and reading.ask in ("turns", "hand"):
            return f"{reading.canonical:g} turns"
        return super().shown(reading, ask)

    def result(self) -> dict[str, Any]:
        return {
            "schema": "crank-in/1",
            "core_version": core_version,
            "school": self.school,
            "turns": self.done_turns,
            "turns_wanted": round(self.wanted_turns, 2) if self.wanted_turns else None,
            "peak_torque_nm": max(self.values("torque"), default=None),
            "stop_torque_nm": round(self.torque.stop_nm, 1) if self.torque else None,
            "gaps_mm": [self.mean("gap-left"), self.mean("gap-right")],
        }


STATION = Station("crank-in", "Crank in", CrankIn, drawn=True, equipment={"tool": "pull_ins"})
