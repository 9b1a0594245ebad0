"""A press joint at the bench: sizes, plan, press."""

from __future__ import annotations

import re
from abc import abstractmethod
from dataclasses import replace
from functools import cached_property
from typing import Any, ClassVar

from django.utils.safestring import SafeString

from engines.properties import Property
from jobs.models import Reading
from shop.models import Gauge, Press
from shop.shelves import shelves
from shopmath import __version__ as core_version
from shopmath.checks import BadInput
from shopmath.joints import JointPlan, PressJoint, heat_call, joint_plan, press_call, usual_interference, web_heat_for
from shopmath.quantity import Quantity, parse
from shopmath.verdict import Call, combined
from stations.base import Action, Ask, Caution, Method, Option, Plate, Trace, Work
from stations.pressing import asks, drawing, plates


class PressWork(Work):
    """What Apart and Together share."""

    moving: ClassVar[str]
    sizing: ClassVar[str]  # why it is sized, in a sentence
    first: ClassVar[str]  # what its gates are for

    @abstractmethod
    def how(self, plan: JointPlan) -> str:
        """The move, once nothing stands against it."""

    @abstractmethod
    def pressed(self) -> Plate:
        """The call once the peak is in."""

    def held_up(self) -> Plate | None:
        """What else stands against pressing."""
        return None

    def plate(self) -> Plate:
        if self.signed:
            return self.signed_plate()
        found = plates.before(self)
        if found:
            return found
        if self.peak_n is not None:
            return self.pressed()
        plan, verdict, strain = self.plan, self.press_verdict, plates.strain(self)
        assert plan is not None
        assert verdict is not None
        if held_up := self.held_up():
            return held_up
        if self.refused():
            return Plate("wait", self.first, verdict.reason, self.refused(), strain, plates.scale(self))
        word = "The press can" if verdict.state == "in" else "The press may not do"
        return Plate(verdict.state, word, verdict.reason, self.how(plan), strain, plates.scale(self))

    def chosen(self, key: str) -> str:
        known = {"joint": asks.JOINT, "warmth": asks.HEAT, "scrap": asks.SCRAP, "condition": asks.CONDITION, "compound": asks.COMPOUND}[key]
        found = str(self.choices.get(key, ""))
        return found if found in [option.key for option in known] else known[0].key

    @cached_property
    def press(self) -> Press | None:
        """The press chosen, else the strongest on the shelf."""
        chosen = str(self.choices.get("press", ""))
        found = shelves(self.shop).presses
        return next((each for each in found if str(each.pk) == chosen), None) or max(found, key=lambda each: each.capacity_n, default=None)

    @cached_property
    def press_unit(self) -> tuple[str, float]:
        """The press's own unit as it is spelled, and newtons in one of it."""
        if self.press is None:
            return "kN", 1000.0
        typed = parse(self.press.capacity_text, "force", "N", ton=self.shop.ton or None)
        word = re.sub(r"^[\d.,\s]+", "", self.press.capacity_text).strip()
        return word or "N", typed.canonical / typed.value

    @property
    def can_measure(self) -> bool:
        """Whether pin and hole can be got at."""
        return str(self.choices.get("sizes", "usual")) == "measured"

    def size(self, key: str) -> float | None:
        return self.mean(key)

    @property
    def interference(self) -> tuple[float, float, bool] | None:
        """Interference, how unsure, and whether it was measured; None until known."""
        pin, hole, d = self.size("pin"), self.size("hole"), self.size("d")
        if pin is not None and hole is not None:
            return pin - hole, combined(self.unsure("pin"), self.unsure("hole")), True
        spec = self.spec(Property.PIN_INTERFERENCE)
        if d is not None and spec and spec.low is not None and spec.high is not None:
            return (spec.low + spec.high) / 2, (spec.high - spec.low) / 2, False
        if d is not None:
            band = usual_interference(d)
            return (band.low + band.high) / 2, (band.high - band.low) / 2, False
        return None

    @cached_property
    def sized(self) -> PressJoint | None:
        """The joint cold; None until its sizes are in."""
        grip, d = self.interference, self.size("pin") or self.size("d")
        length, wall, web = self.size("length"), self.size("wall"), self.size("web")
        if grip is None or d is None or length is None or wall is None or web is None:
            return None
        ratio = self.size("ratio") or 0.0 if self.chosen("joint") == "taper" else 0.0
        return PressJoint(
            d,
            length,
            grip[0],
            grip[1],
            wall,
            max(web, d + 2 * wall),
            pin_bore_mm=self.size("bore") or 0.0,
            condition=self.chosen("condition"),
            strength=self.chosen("compound"),
            taper_ratio=ratio,
        )

    @cached_property
    def joint(self) -> PressJoint | None:
        """The joint at the temperatures meant for it."""
        web_c, pin_c = self.value("web_c"), self.value("pin_c")
        if self.sized is None or (self.chosen("warmth") == "warm" and None in (web_c, pin_c)):
            return None
        return self.sized if self.chosen("warmth") == "cold" else replace(self.sized, web_c=float(web_c or 0), pin_c=float(pin_c or 0))

    @cached_property
    def plan(self) -> JointPlan | None:
        return joint_plan(self.joint, self.moving) if self.joint else None

    @cached_property
    def press_verdict(self) -> Call | None:
        if self.plan is None or self.press is None:
            return None
        unit, per = self.press_unit
        return press_call(self.plan.force_n, self.press.capacity_n, unit=unit, per_unit_n=per)

    @cached_property
    def heat_verdict(self) -> Call | None:
        """Only asked where heat is meant."""
        if self.joint is None or self.chosen("warmth") == "cold":
            return None
        return heat_call(self.joint, scrap=self.chosen("scrap") == "scrap")

    @cached_property
    def enough(self) -> str:
        """What would make the press enough, in words."""
        if self.plan is None or self.press is None or self.sized is None:
            return ""
        unit, per = self.press_unit
        ways = [f"a press of {self.plan.force_n.high / per:.3g} {unit} or more"]
        by_heat = web_heat_for(self.sized, self.press.capacity_n, self.moving)
        if by_heat is not None and by_heat > self.sized.web_c and self.chosen("warmth") == "cold":
            ways.append(f"the web at {by_heat:.0f} °C with the pin left cold")
        return " or ".join(ways)

    @property
    def stopped(self) -> bool:
        """Nothing may be pressed as it stands."""
        return self.press is None or any(found is not None and found.state == "stop" for found in (self.heat_verdict, self.press_verdict))

    @property
    def peak_n(self) -> float | None:
        return self.value("peak")

    def in_unit(self, force_n: float) -> str:
        unit, per = self.press_unit
        return f"{force_n / per:.3g} {unit}"

    # the skeleton

    def check(self, ask: Ask, quantity: Quantity) -> None:
        asks.check(ask, quantity.canonical)
        d, wall, web = (quantity.canonical if ask.key == key else self.size(key) for key in ("d", "wall", "web"))
        d = quantity.canonical if ask.key == "pin" else d or self.size("pin")
        if ask.key in ("wall", "web") and d and wall and web and web < d + 2 * wall - 0.5:
            words = f"A {d:g} mm hole with {wall:g} mm of wall on each side needs a web at least {d + 2 * wall:g} mm wide, not {web:g}."
            raise BadInput(ask.key, words)
        bore = self.size("bore")
        if ask.key == "bore" and d and quantity.canonical >= d:
            raise BadInput("bore", f"A {d:g} mm pin cannot have a {quantity.canonical:g} mm hole.")
        if ask.key in ("d", "pin") and bore and quantity.canonical <= bore:
            raise BadInput(ask.key, f"The pin's hole is down as {bore:g} mm: a pin of {quantity.canonical:g} mm cannot be.")

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def methods(self) -> tuple[Method, ...]:
        if self.signed:
            return ()
        presses = tuple(Option(str(each.pk), each.name, each.capacity_text) for each in shelves(self.shop).presses)
        found = [Method("press", "Press", presses, str(self.press.pk))] if self.press else []
        pairs = (("joint", "Joint", asks.JOINT), ("condition", "It is", asks.CONDITION), ("warmth", "Pressed", asks.HEAT))
        found += [Method(key, words, options, self.chosen(key)) for key, words, options in pairs]
        return (*found, *self.gauge_methods())

    def cautions(self) -> tuple[Caution, ...]:
        if self.signed:
            return ()
        found = [
            Caution("go", "A press joint lets go at once and throws parts: guard shut, nobody in line, eyes covered."),
            Caution("manual", "The engine's and the press's manual come first; what is beyond them goes to a crank shop."),
        ]
        if self.chosen("joint") == "taper":
            found.insert(0, Caution("taper", "A taper lets go all at once: chain or strap the parts, stand aside, never over it."))
        if self.chosen("compound") and self.chosen("warmth") == "warm":
            found.insert(
                0, Caution("fumes", "Hot compound fumes: door open, not over the work. Fluoro-rubber left in: hands off the residue.")
            )
        return tuple(found)

    def traces(self) -> tuple[Trace, ...]:
        grip, plan, joint = self.interference, self.plan, self.joint
        rows: list[Trace] = []
        if grip:
            source = "pin less hole, both measured" if grip[2] else self._grip_source()
            rows.append(Trace("Interference", f"{grip[0]:.3f} mm", f"± {grip[1]:.3f}; {source}", not grip[2]))
        if plan and joint:
            band = plan.force_n
            rows.append(
                Trace("Force", self.in_unit(band.likely), f"{self.in_unit(band.low)} to {self.in_unit(band.high)}; {band.basis}", True)
            )
            if plan.compound_n.high:
                rows.append(Trace("Compound's share", self.in_unit(plan.compound_n.likely), plan.compound_n.basis, True))
            limit = f"yield from {plan.yield_mpa:.0f} MPa; " + ("past it: force is an upper bound" if plan.past_yield else "elastic")
            rows.append(Trace("Stress at the hole", f"{plan.hub_stress_mpa:.0f} MPa", f"{limit}; Lamé, von Mises", True))
            rows.append(
                Trace(
                    "The web holds like",
                    f"{joint.diameter_mm + 2 * joint.wall_mm:.0f} to {joint.web_mm:.0f} mm",
                    "ring round the pin",
                    True,
                )
            )
        if self.press:
            rows.append(Trace("Press", self.press.capacity_text, f"{self.press.capacity_n / 1000:.0f} kN; {self.press.name}"))
        if self.peak_n is not None:
            rows.append(Trace("Peak reached", self.in_unit(self.peak_n), "load cell or typed"))
        return tuple(rows)

    def _grip_source(self) -> str:
        spec = self.spec(Property.PIN_INTERFERENCE)
        return f"card, {spec.origin}" if spec else "usual crankpin, shop rule"

    def kept(self) -> dict[str, Any]:
        """What is kept of the joint beside the call."""
        plan, grip = self.plan, self.interference
        return {
            "core_version": core_version,
            "interference_mm": round(grip[0], 4) if grip else None,
            "interference_measured": grip[2] if grip else None,
            "force_n": [round(value) for value in (plan.force_n.low, plan.force_n.likely, plan.force_n.high)] if plan else None,
            "hub_stress_mpa": round(plan.hub_stress_mpa) if plan else None,
            "press": self.press.name if self.press else None,
            "peak_n": round(self.peak_n) if self.peak_n is not None else None,
            "web_c": self.value("web_c"),
            "pin_c": self.value("pin_c"),
            "compound": self.chosen("compound"),
            "scrap": self.chosen("scrap") == "scrap",
        }

    def actions(self) -> tuple[Action, ...]:
        if self.signed or self.peak_n is None:
            return ()
        return (Action("sign", "Sign it", "sign", not self.open_asks(), self.may_sign()),)

    def act(self, key: str) -> None:
        self.opened(key)
        if key == "sign":
            self.sign()

    def may_sign(self) -> str:
        return self.still_to_say()

    def shown(self, reading: Reading, ask: Ask | None = None) -> str:
        if reading.kind == "force" and reading.canonical is not None:
            return self.in_unit(reading.canonical)
        return super().shown(reading, ask)


LOAD = (Gauge.Kind.LOAD.value,)


def peak_ask(words: str, where: str, quiet: bool = False) -> Ask:
    return Ask("peak", words, where, "force", "kN", quiet=quiet, example="31", resolution=0.1, gauges=LOAD, peak=True)
