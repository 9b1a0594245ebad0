"""Together: square in, the grip measured, width and side play as it goes, and the peak force as evidence."""

from __future__ import annotations

from typing import Any

from engines.models import EngineCard
from engines.properties import Property
from shopmath.joints import JointPlan, joint_evidence
from shopmath.throws import phase_error_deg
from shopmath.verdict import Call, call, severity
from stations.base import Ask, Caution, Method, Plate, Station, Trace
from stations.pressing import asks, plates
from stations.pressing.work import PressWork, peak_ask

WIDTHS = ("pin", "90", "180", "270")
PHASE_DEG = 0.25  # shop rule where the card says nothing
SPREAD_MM = 0.05  # width over the webs, one place against another: shop rule


class Together(PressWork):
    """One joint pressed together."""

    moving = "assembling"
    sizing = "Pin and hole measured clean tell how it will grip, before any force does."
    first = "Square it first"

    @property
    def can_measure(self) -> bool:
        return True

    def asks(self) -> list[Ask]:
        quiet = self.signed or self.peak_n is not None
        found = asks.sizes(self, True, quiet)
        if not self.plan or self.stopped:
            return found
        thick = {"gauges": ("micrometer", "calliper"), "resolution": 0.01, "example": "52.05"}
        where, left = "stop and measure now and then", "near enough"
        found.append(Ask("going", "Width over the webs, as it goes", where, optional=True, skip_means=left, times=20, quiet=quiet, **thick))  # type: ignore[arg-type]
        found.append(peak_ask("Peak on the way in", "its highest, not its last", self.signed))
        if self.peak_n is not None:
            found += [
                Ask(f"width-{place}", f"Width over the webs at {_at(place)}", "rim to rim", quiet=self.signed, **thick)  # type: ignore[arg-type]
                for place in WIDTHS
            ]
            where = "rod pushed to one side, blade in at the other"
            found.append(Ask("side", "Side play of the rod", where, quiet=self.signed, example="0.30", resolution=0.01, gauges=("feeler",)))
            if self.job.card.layout != EngineCard.Layout.SINGLE:
                found.append(Ask("phase", "Angle between the throws", "as it now is", "angle", "deg", example="180", resolution=0.5))
        return found

    # judging

    @property
    def evidence(self) -> Call | None:
        unit, per = self.press_unit
        return joint_evidence(self.peak_n, self.plan, unit=unit, per_unit_n=per) if self.plan and self.peak_n is not None else None

    @property
    def widths(self) -> list[float]:
        return [value for place in WIDTHS if (value := self.mean(f"width-{place}")) is not None]

    def judged(self) -> list[tuple[str, Call]]:
        """Every figure that has something to be judged by, the worst first."""
        found = [("The joint", self.evidence)]
        side, spec = self.mean("side"), self.spec(Property.BIG_END_SIDE_PLAY)
        if side is not None and spec and (spec.low is not None or spec.high is not None):
            found.append(("Side play", call(side, spec.low, spec.high, self.unsure("side"), unit="mm", digits=2)))
        if len(self.widths) == len(WIDTHS):
            spread = max(self.widths) - min(self.widths)
            found.append(("Webs parallel", call(spread, high=SPREAD_MM, uncertainty=1.4 * self.unsure("width-pin"), unit="mm", digits=2)))
            width = self.spec(Property.WIDTH_OVER_WEBS)
            if width and (width.low is not None or width.high is not None):
                mean = sum(self.widths) / len(self.widths)
                found.append(("Width", call(mean, width.low, width.high, self.unsure("width-pin"), unit="mm", digits=2)))
        phase, was = self.value("phase"), self.phase_before
        if phase is not None and was is not None:
            off = abs(phase_error_deg(phase, was))
            found.append(("Phase", call(off, high=PHASE_DEG, uncertainty=0.1, unit="°", digits=2)))
        return sorted(((name, each) for name, each in found if each), key=lambda pair: severity(pair[1].state))

    @property
    def phase_before(self) -> float | None:
        """What Apart wrote down."""
        found = self.signed_result("apart").get("phase_deg")
        return float(found) if found is not None else None

    def held_up(self) -> Plate | None:
        grip = self.interference
        if grip and grip[0] + grip[1] <= 0:
            line = f"{grip[0]:.3f} mm ± {grip[1]:.3f}: nothing holds it."
            return Plate("stop", "No grip", line, "Another pin or another web. No compound makes a press joint.")
        return None

    def how(self, plan: JointPlan) -> str:
        low = self.in_unit(plan.force_n.low)
        return f"Press slowly, stop for width and side play. Under {low} at the end it is loose and must not be used."

    def pressed(self) -> Plate:
        evidence = self.evidence
        assert evidence is not None
        if evidence.state == "out":
            return Plate(
                "out",
                "Loose joint",
                evidence.reason,
                "Apart again: another pin or web. It would turn under load.",
                scale=plates.scale(self),
            )
        ask = self.next_ask
        if ask and not ask.optional:
            return Plate("wait", "Measure it now", evidence.reason, f"{ask.words}.", scale=plates.scale(self))
        name, worst = self.judged()[0]
        moves = {
            "Side play": "Wedge or squeeze at the pin until it is in; then measure again.",
            "Webs parallel": "Truing will show where: wedge or squeeze opposite the pin.",
            "Width": "Press on, or ease the webs apart, until the width is in.",
            "Phase": "Apart again: the throws must stand as they were marked.",
            "The joint": "Look at the pin and hole: crooked or scored.",
        }
        if worst.state == "in":
            return Plate("in", "Gripped and square", evidence.reason, "On to truing between its supports.", scale=plates.scale(self))
        words = f"{name} {'out' if worst.state == 'out' else 'too close to call'}"
        return Plate(worst.state, words, worst.reason, moves[name], evidence.reason)

    def checks(self) -> tuple[Caution, ...]:
        return (
            Caution("square", "Jig or V under the webs, pin started square; marks across the joint in line.", gate=True),
            Caution("way", "Oil hole and thrust washers the right way, rod and cage on the pin.", gate=True),
            Caution("spacer", "Spacer for the side play between rod and web.", gate=True),
        )

    def methods(self) -> tuple[Method, ...]:
        if self.signed:
            return ()
        more = (Method("compound", "Joint locked with", asks.COMPOUND, self.chosen("compound")),)
        return (*super().methods(), *more)

    def traces(self) -> tuple[Trace, ...]:
        rows = list(super().traces())
        if len(self.widths) > 1:
            rows.append(
                Trace(
                    "Width over the webs",
                    f"{sum(self.widths) / len(self.widths):.2f} mm",
                    f"spread {max(self.widths) - min(self.widths):.2f}",
                )
            )
        rows += [Trace(name, {"in": "in", "out": "out"}.get(each.state, "too close"), each.reason) for name, each in self.judged()]
        return tuple(rows)

    def result(self) -> dict[str, Any]:
        evidence = self.evidence
        return {
            "schema": "together/1",
            **self.kept(),
            "evidence": evidence.state if evidence else None,
            "widths_mm": self.widths,
            "side_play_mm": self.mean("side"),
            "phase_deg": self.value("phase"),
        }


def _at(place: str) -> str:
    return "the pin" if place == "pin" else f"{place}°"


STATION = Station("together", "Together", Together, equipment={"press": "presses"})
