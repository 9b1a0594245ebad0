"""Balance: touch the wheel at all? where it stops, and whether that tells; how much; where to drill, and what is left after."""

from __future__ import annotations

import math
from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from jobs import log
from shopmath import __version__ as core_version
from shopmath import materials
from shopmath.balance import (
    Drilled,
    DrillLimits,
    DrillPlan,
    Stops,
    Unbalance,
    after_holes,
    by_trial_mass,
    drill_plan,
    drilled_mass_g,
    force_n,
    permissible_gmm,
    rim_limit_m_s,
    rim_speed_m_s,
    stops,
    wall_left_mm,
)
from shopmath.quantity import Quantity
from shopmath.verdict import Call, call
from stations.balance import asks, drawing, plates
from stations.base import Action, Ask, Caution, Method, Option, Plate, Station, Told, Trace, Work
from stations.pieces import between

GRADES = {"6.3": "G 6.3, flywheels", "2.5": "G 2.5, fast and smooth", "16": "G 16, rough service"}
METALS = ("c45", "gjl-250", "gjs-500-7", "al-si9-cu3")
FEWEST_STOPS = 4
WALL_MM = 3.0  # left under a drill's tip, shop rule
MOST_REMOVED = 0.02  # of the wheel's mass, shop rule
USUAL_DRILLS = "4 6 8"


class Balance(Work):
    """One wheel on its stand. Each go, from stops to holes, is one attempt."""

    # what is known of the wheel

    def every(self, key: str) -> float | None:
        """A figure of the wheel, whichever go it was measured in."""
        found = self.live(key, every_attempt=True)
        return found[-1].canonical if found else None

    def worded(self, key: str) -> str:
        found = self.live(key, every_attempt=True)
        return found[-1].text if found else ""

    @property
    def mass_kg(self) -> float | None:
        return self.job.card.wheel_kg or self.every("mass")

    @property
    def rpm(self) -> float | None:
        return self.job.card.wheel_rpm or self.every("rpm")

    @property
    def grade(self) -> float:
        chosen = str(self.choices.get("grade", "6.3"))
        return float(chosen if chosen in GRADES else "6.3")

    @property
    def metal(self) -> str:
        chosen = str(self.choices.get("metal", METALS[0]))
        return chosen if chosen in METALS else METALS[0]

    @property
    def permitted_gmm(self) -> float | None:
        return permissible_gmm(self.grade, self.mass_kg, self.rpm) if self.mass_kg and self.rpm else None

    @property
    def speed(self) -> Call | None:
        """Rim speed against what the metal usually stands."""
        rim, limit = self.every("rim"), rim_limit_m_s(self.metal)
        if not rim or not self.rpm or limit is None:
            return None
        return call(rim_speed_m_s(rim, self.rpm), high=limit.likely, uncertainty=limit.high - limit.likely, unit="m/s", digits=0)

    # whether to touch it

    @property
    def leave(self) -> str:
        """`leave`, `out` or nothing: what the first questions decide."""
        if self.worded("sound") in ("cracked", "repaired"):
            return "out"
        return "leave" if self.worded("shook") == "no" and not self.choices.get("anyway") else ""

    @property
    def to_touch(self) -> bool:
        return bool(self.worded("shook") and self.worded("sound") and not self.leave)

    # stops, amount, plan

    @cached_property
    def marks(self) -> list[float]:
        return self.values("stop")

    @cached_property
    def stops(self) -> Stops | None:
        return stops(self.marks) if len(self.marks) >= 2 else None

    @property
    def marks_tell(self) -> bool:
        return bool(self.stops and self.stops.telling and len(self.marks) >= FEWEST_STOPS)

    @property
    def heavy_deg(self) -> float:
        return self.stops.mean_deg if self.stops else 0.0

    @cached_property
    def amount(self) -> Unbalance | None:
        """How much, once the trial mass has said it."""
        arm, stays, turns = self.value("arm") or self.every("arm"), self.value("stays"), self.value("turns")
        if not self.marks_tell or arm is None or stays is None or turns is None:
            return None
        return by_trial_mass(1000 * stays, 1000 * turns, arm, self.heavy_deg)

    def judged(self, gmm: float, doubt: float) -> Call | None:
        if self.permitted_gmm is None:
            return None
        return call(gmm, high=self.permitted_gmm, uncertainty=doubt, unit="g·mm", digits=0)

    @property
    def density(self) -> float:
        return materials.get(self.metal).density_kg_m3

    @cached_property
    def earlier(self) -> list[tuple[Drilled, float]]:
        """Holes of earlier goes, with what each took, g·mm."""
        return [
            (Drilled(each["deg"], each["radius_mm"], each["diameter_mm"]), each["gmm"])
            for go in self.choices.get("holes", {}).values()
            for each in go
        ]

    @cached_property
    def limits(self) -> DrillLimits | None:
        radius, thick = self.every("radius"), self.every("thick")
        if radius is None or thick is None:
            return None
        keep = asks.arcs(self.worded("keepout"))
        earlier = tuple(hole for hole, _ in self.earlier)
        return DrillLimits(radius, thick, WALL_MM, finish_radius_mm=self.every("finish"), keep_out_deg=keep, earlier=earlier)

    @cached_property
    def plan(self) -> DrillPlan | None:
        """Where to drill in this go; None while it is not known how much or where it may be done, or nothing need be."""
        unsaid = not self.worded("drills") and "drills" not in self.skipped()
        if self.amount is None or self.limits is None or unsaid or self.amount.gmm <= 0:
            return None
        verdict = self.judged(self.amount.gmm, self.amount.uncertainty_gmm)
        if verdict and verdict.state == "in":
            return None
        sizes = asks.drills(self.worded("drills") or USUAL_DRILLS)
        return drill_plan(self.amount, self.limits, self.density, sizes, within_gmm=self.permitted_gmm or 0.0)

    def wall_at(self, index: int, depth_mm: float) -> float:
        thick = self.every("thick")
        if self.plan is None or thick is None or index >= len(self.plan.holes):
            return math.inf
        return wall_left_mm(thick, self.plan.holes[index].diameter_mm, depth_mm)

    @cached_property
    def made(self) -> list[dict[str, float]]:
        """Holes of this go as they were made."""
        found = []
        for index, hole in enumerate(self.plan.holes if self.plan else ()):
            depth = self.value(f"d{index + 1}")
            if depth is not None:
                gmm = drilled_mass_g(hole.diameter_mm, depth, self.density) * hole.radius_mm
                size = {"radius_mm": hole.radius_mm, "diameter_mm": hole.diameter_mm, "depth_mm": depth}
                found.append({"deg": hole.angle_deg, **size, "gmm": gmm})
        return found

    @cached_property
    def rest(self) -> Unbalance | None:
        """What is expected to be left after the holes made so far."""
        if self.amount is None:
            return None
        return after_holes(self.amount, [(hole["gmm"], hole["deg"]) for hole in self.made])

    @property
    def past(self) -> bool:
        """Over-drilled: what is left lies opposite the heavy spot, and is more than permitted."""
        if self.rest is None or self.permitted_gmm is None or not self.made:
            return False
        opposite = math.cos(math.radians(self.rest.deg - self.heavy_deg)) < 0
        return opposite and self.rest.gmm > self.permitted_gmm

    @property
    def removed_g(self) -> float:
        old = sum(gmm / hole.radius_mm for hole, gmm in self.earlier)
        return old + sum(hole["gmm"] / hole["radius_mm"] for hole in self.made)

    @property
    def removed_much(self) -> bool:
        return bool(self.mass_kg and self.removed_g > 1000 * MOST_REMOVED * self.mass_kg)

    @property
    def phase(self) -> str:
        if self.signed:
            return "signed"
        if not self.to_touch:
            return "ask"
        if not self.marks_tell:
            return "done" if self.settled else "roll"
        if self.settled:
            return "done"
        return "drill" if self.plan and self.plan.holes else "weigh"

    @property
    def settled(self) -> bool:
        """Nothing more to do: little enough is left, or the stops tell nothing any more."""
        if self.amount is not None:
            verdict = self.judged(self.amount.gmm, self.amount.uncertainty_gmm)
            return bool(verdict and verdict.state == "in")
        return len(self.marks) >= 8 and not self.marks_tell

    # the skeleton

    def asks(self) -> list[Ask]:
        return asks.asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        asks.check(self, ask, quantity.canonical)

    def read(self, ask: Ask, text: str) -> Quantity:
        found = super().read(ask, text)
        if ask.key == "keepout":
            asks.arcs(found.text)
        if ask.key == "drills":
            asks.drills(found.text)
        return found

    def plate(self) -> Plate:
        return plates.plate(self)

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        if not self.to_touch:
            return ()
        return (
            Caution("arbor", "Arbor runs true in the bore, stand level both ways, knife edges or bearings clean, no draught.", gate=True),
            Caution("zero", "Mark 0 at the keyway, degrees counter-clockwise on the outer face."),
            Caution("eyes", "Drilling: wheel clamped, eyes covered, chips kept off the magnets."),
        )

    def cautions(self) -> tuple[Caution, ...]:
        if self.signed:
            return ()
        found = [Caution("burst", "A cracked or mended wheel bursts at speed: out of use, whatever it says on the stand.")]
        if self.phase in ("drill", "done"):
            found.append(Caution("first", "First run after drilling: guard on, nobody in line with the rim."))
        found.append(Caution("manual", "The maker's own limits come first; a balancing shop where any doubt is left."))
        return tuple(found)

    def methods(self) -> tuple[Method, ...]:
        if self.signed or not self.to_touch:
            return ()
        grades = tuple(Option(key, words) for key, words in GRADES.items())
        metals = tuple(Option(key, materials.get(key).name) for key in METALS)
        return (
            Method("grade", "Grade", grades, f"{self.grade:g}"),
            Method("metal", "The rim is", metals, self.metal),
            *self.gauge_methods(),
        )

    def traces(self) -> tuple[Trace, ...]:
        return plates.traces(self)

    def actions(self) -> tuple[Action, ...]:
        if self.signed:
            return ()
        found: list[Action] = []
        if self.leave == "leave":
            found.append(Action("anyway", "Balance it all the same", "anyway"))
        drilled = bool(self.plan and len(self.made) == len(self.plan.holes) and self.made)
        if drilled or (self.phase == "weigh" and self.plan and not self.plan.holes):
            found.append(Action("again", "Roll it again", "again", True))
        ready = self.leave or self.phase == "done"
        found.append(Action("sign", "Sign it", "sign", bool(ready) and not found, self.may_sign()))
        return tuple(found)

    def act(self, key: str) -> None:
        entry = self.opened(key)
        if key == "anyway":
            log.choose(entry, anyway=True)
        if key == "again":
            holes = {**self.choices.get("holes", {}), str(self.attempt): self.made}
            amounts = {**self.choices.get("amounts", {}), str(self.attempt): self._amount()}
            log.next_attempt(entry, holes=holes, amounts=amounts)
        if key == "sign":
            self.sign()

    def may_sign(self) -> str:
        if self.leave:
            return ""
        if self.phase == "done":
            return self.refused()
        return "Not balanced yet: what is asked comes first." if self.to_touch else self.still_to_say()

    def force(self, gmm: float) -> float | None:
        return force_n(gmm, self.rpm) if self.rpm else None

    def _amount(self) -> list[float] | None:
        """Unbalance of this go with its uncertainty, g·mm."""
        return [round(self.amount.gmm, 1), round(self.amount.uncertainty_gmm, 1)] if self.amount else None

    def told(self) -> list[Told]:
        """The unbalance before the first hole and at the last roll."""
        first, last = self.choices.get("amounts", {}).get("1") or self._amount(), self._amount()
        if not first:
            return []
        found, left = (f"{each[0]:.0f} ± {each[1]:.0f} g·mm" if each else "tells no heavy spot any more" for each in (first, last))
        verdict = self.judged(*last) if last else None
        source = f"ISO 21940-11, G {self.grade:g}" if self.permitted_gmm else ""
        state = verdict.state if verdict else "in" if self.settled else ""
        permitted = round(self.permitted_gmm, 1) if self.permitted_gmm else None
        return [Told("Unbalance", found, left, limits=between(None, permitted, "g·mm"), source=source, state=state)]

    def result(self) -> dict[str, Any]:
        return {
            "schema": "balance/1",
            "core_version": core_version,
            "shook": self.worded("shook"),
            "sound": self.worded("sound"),
            "grade": self.grade,
            "permitted_gmm": self.permitted_gmm,
            "goes": self.attempt,
            "stops_deg": self.marks,
            "rest_gmm": self.amount.gmm if self.amount else None,
            "rest_u_gmm": self.amount.uncertainty_gmm if self.amount else None,
            "holes": [each for go in self.choices.get("holes", {}).values() for each in go] + self.made,
            "removed_g": round(self.removed_g, 3),
        }


STATION = Station("balance", "Balance", Balance, drawn=True)
