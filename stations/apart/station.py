"""Apart: what it takes to start the pin, whether the press can, what heat would do; marks and phase before anything moves."""

from __future__ import annotations

from typing import Any

from engines.models import EngineCard
from shopmath.compounds import lets_go_c
from shopmath.joints import JointPlan
from stations.base import Ask, Caution, Method, Option, Plate, Station
from stations.pressing import asks, plates
from stations.pressing.work import PressWork, peak_ask

SIZES = (Option("usual", "by its size", "nothing to be got at"), Option("measured", "pin and hole measured"))


class Apart(PressWork):
    """One joint parted."""

    moving = "parting"
    sizing = "What it takes to start the pin follows from its size and the metal round it."
    first = "Mark it first"

    def asks(self) -> list[Ask]:
        quiet = self.signed or self.peak_n is not None
        found = [] if self.job.card.layout == EngineCard.Layout.SINGLE else [self._phase(quiet)]
        found += asks.sizes(self, self.can_measure, quiet)
        if self.plan and not self.stopped:
            found.append(peak_ask("Peak when it let go", "pump slowly, watch the needle"))
        if self.peak_n is not None:
            found.append(Ask("order", "Parts, order and sides", "as they came, left to right", "words", "", True, "nothing noted"))
            found.append(Ask("hurt", "Is a hole or the pin scored?", "", "words", "", options=asks.YES))
        return found

    @staticmethod
    def _phase(quiet: bool) -> Ask:
        where = "from the first pin, counter-clockwise seen from the right end"
        return Ask("phase", "Angle between the throws", where, "angle", "deg", quiet=quiet, example="180", resolution=0.5)

    def how(self, plan: JointPlan) -> str:
        low, high = self.in_unit(plan.force_n.low), self.in_unit(min(plan.force_n.high, self.press.capacity_n if self.press else 0))
        sudden = "Restrain it: a taper lets go at once. " if plan.lets_go_at_once else ""
        return f"{sudden}Pump to {low}, look, then on slowly. Stop at {high}: something else holds it."

    def pressed(self) -> Plate:
        plan, peak = self.plan, self.peak_n
        assert plan is not None
        assert peak is not None
        low, high, got = self.in_unit(plan.force_n.low), self.in_unit(plan.force_n.high), self.in_unit(peak)
        if peak < plan.force_n.low:
            line = f"It let go at {got}, under the {low} that even a slack joint takes."
            return Plate("out", "It was loose", line, "Measure pin and hole: this joint had moved before.", scale=plates.scale(self))
        if peak > plan.force_n.high:
            line = f"It let go at {got}, over the {high} expected."
            move = "Look for scoring, rust or compound; measure pin and hole before anything goes back."
            return Plate("too_close", "Harder than planned", line, move, scale=plates.scale(self))
        line = f"It let go at {got}, within {low} to {high}."
        return Plate("in", "Parted as planned", line, "Measure pin and hole, lay the parts out in order.", scale=plates.scale(self))

    def checks(self) -> tuple[Caution, ...]:
        found = [
            Caution("marked", "Both webs and the pin marked across the joint, so that they go back as they were.", gate=True),
            Caution("guard", "Guard shut, ring square and close round the pin, the lower half caught on something soft.", gate=True),
        ]
        if self.chosen("warmth") == "warm":
            found.append(Caution("dry", "Fuel, oil and chlorinated cleaner all off before heat: the fumes are toxic.", gate=True))
        return tuple(found)

    def methods(self) -> tuple[Method, ...]:
        if self.signed:
            return ()
        more = (
            Method("sizes", "Grip known from", SIZES, "measured" if self.can_measure else "usual"),
            Method("compound", "Compound in it", asks.COMPOUND, self.chosen("compound")),
            Method("scrap", "Pin and bearing are", asks.SCRAP, self.chosen("scrap")),
        )
        press, *rest = super().methods() or (None,)
        return (*((press,) if press else ()), *more, *rest)

    def cautions(self) -> tuple[Caution, ...]:
        found = super().cautions()
        if self.chosen("compound") and not self.signed:
            lets_go = lets_go_c(self.chosen("compound"))
            words = f"That compound lets go at {lets_go.low:.0f} to {lets_go.high:.0f} °C: past what a hardened pin stands. Only for scrap."
            found = (Caution("lets-go", words), *found)
        return found

    def result(self) -> dict[str, Any]:
        hurt, order = self.last("hurt"), self.last("order")
        return {
            "schema": "apart/1",
            **self.kept(),
            "phase_deg": self.value("phase"),
            "scored": hurt.text == "yes" if hurt else None,
            "order": order.text if order else "",
        }


STATION = Station("apart", "Apart", Apart, equipment={"press": "presses"}, as_found=True)
