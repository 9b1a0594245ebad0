"""Close: nothing left on the tray, the sealant's open time against what is left to do, every bolt in its order and stage."""

from __future__ import annotations

import math
from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from engines.models import Mark
from engines.parts import JOINT
from engines.properties import Property
from jobs import log
from jobs.models import TrayPlace
from shop.models import Compound
from shop.shelves import shelves
from shopmath import __version__ as core_version
from shopmath.closure import STAGES, Bolt, BoltLoad, bolt_load, bolt_order, open_time_left
from shopmath.materials import get
from shopmath.quantity import Quantity
from shopmath.verdict import Call
from stations.base import Action, Ask, Caution, Method, Option, Plate, Station, Trace, Work
from stations.close import asks, drawing

ENGAGED_D = 1.5  # depth of thread in the case, diameters: estimate where nobody has measured
BOLT_S, CLOSE_S = 7.0, 60.0  # seconds a bolt takes a round, and putting the halves together: estimate
SEALANTS = (Compound.Kind.ANAEROBIC, Compound.Kind.SOLVENT, Compound.Kind.SILICONE)
GASKET, DRY = "gasket", "dry"  # what may be chosen in place of a sealant
PETROL = "Silicone swells in petrol: not for a joint that petrol wets."


class Close(Work):
    """One case closed."""

    @cached_property
    def marks(self) -> list[Mark]:
        return list(self.job.card.marks.all())

    @cached_property
    def ordered(self) -> list[Mark]:
        """Fasteners in the order they are tightened."""
        by_name = {mark.name: mark for mark in self.marks if mark.is_fastener}
        if not by_name:
            return []
        return [by_name[name] for name in bolt_order([Bolt(mark.name, mark.x_mm, mark.y_mm) for mark in by_name.values()])]

    @cached_property
    def on_the_tray(self) -> list[TrayPlace]:
        """Places not emptied yet."""
        return [place for place in self.job.tray.all() if not place.emptied_at]

    @property
    def school(self) -> str:
        return "more" if self.choices.get("school") == "more" else "manual"

    @cached_property
    def sealant(self) -> Compound | None:
        chosen = str(self.choices.get("sealant", ""))
        return next((each for each in shelves(self.shop).compounds if str(each.pk) == chosen and each.kind in SEALANTS), None)

    @cached_property
    def gasket_counted(self) -> float | None:
        """The crushed gasket that End float counted, mm: 0 for none, None where it counted nothing."""
        fact = self.known.as_left(JOINT, Property.GASKET_THICKNESS)
        return fact.value if fact else None

    @property
    def joint(self) -> str:
        """What goes between the faces: a gasket, a sealant, or nothing; a gasket by default where one was counted."""
        chosen = self.choices.get("sealant", "")
        if self.sealant:
            return "sealant"
        return GASKET if chosen == GASKET or (not chosen and self.gasket_counted) else DRY

    @property
    def joint_differs(self) -> str:
        """How the joint is other than the one that the end float was worked out with; empty when it is not."""
        if self.gasket_counted and self.joint != GASKET:
            return f"End float counted a gasket of {self.gasket_counted:.2f} mm: without it the crank has that much less."
        if self.gasket_counted == 0 and self.joint == GASKET:
            return "End float counted no gasket: with one the crank has its thickness more."
        return ""

    @property
    def sealed(self) -> bool:
        """The sealant is on, or there is none and closing has begun."""
        return bool(self.choices.get("sealed"))

    @property
    def from_card(self) -> bool:
        """Whether every fastener on the card has its torque."""
        return bool(self.ordered) and all(mark.torque_nm for mark in self.ordered)

    def torque_of(self, mark: Mark) -> float:
        """What one bolt is tightened to in the last round, N·m."""
        asked = self.value("more") if self.school == "more" else None
        return asked or mark.torque_nm or self.value("torque") or 0.0

    @property
    def stages(self) -> tuple[float, ...]:
        """Shares of the full torque, one a round."""
        return STAGES

    @property
    def ready(self) -> bool:
        """Whether bolts can be asked for."""
        return bool(self.ordered) and all(self.torque_of(mark) > 0 for mark in self.ordered) and self.said("gears") not in ("", "not")

    @cached_property
    def loads(self) -> list[tuple[Mark, BoltLoad]]:
        """What the torque puts on each kind of fastener, the worst first."""
        case = get(self.job.card.case_material)
        uts = case.uts_mpa[0] if case.uts_mpa else 200.0
        kinds = {(mark.d_mm, mark.pitch_mm, self.torque_of(mark)): mark for mark in self.ordered if self.torque_of(mark) > 0}
        found = [(mark, bolt_load(torque, d, pitch, ENGAGED_D * d, uts)) for (d, pitch, torque), mark in kinds.items()]
        return sorted(found, key=lambda pair: pair[1].call.margin)

    def is_done(self, stage: int, mark: Mark) -> bool:
        key = f"s{stage}-{mark.pk}"
        return bool(self.last(key)) or key in self.skipped()

    @property
    def done(self) -> int:
        return sum(self.is_done(stage, mark) for stage in range(len(self.stages)) for mark in self.ordered)

    @property
    def to_do(self) -> int:
        return len(self.stages) * len(self.ordered)

    @cached_property
    def open_time(self) -> Call | None:
        """The sealant's time against the first round, which closes the joint; None without a sealant that dries."""
        clock = self.timer("open")
        if clock is None or clock.due_at is None or self.closed:
            return None
        left = sum(not self.is_done(0, mark) for mark in self.ordered)
        whole = (clock.due_at - clock.started_at).total_seconds()
        halves = [] if self.done else [CLOSE_S]
        return open_time_left(whole, max(0.0, (self.now - clock.started_at).total_seconds()), [*halves, BOLT_S * left])

    @property
    def closed(self) -> bool:
        """The first round is through: the faces are together."""
        return bool(self.ordered) and all(self.is_done(0, mark) for mark in self.ordered)

    @property
    def all_tight(self) -> bool:
        return bool(self.ordered) and self.done == self.to_do

    # the skeleton

    def asks(self) -> list[Ask]:
        return asks.asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        asks.check(ask, quantity.canonical)

    def is_live(self) -> bool:
        return self.open_time is not None and not self.signed

    def plate(self) -> Plate:
        if self.signed:
            return self.signed_plate()
        if self.on_the_tray and not self.sealed:
            names = ", ".join(f"{place.number} {place.name}" for place in self.on_the_tray[:4])
            more = f" and {len(self.on_the_tray) - 4} more" if len(self.on_the_tray) > 4 else ""
            return Plate("stop", "Still on the tray", f"{names}{more}.", "Put each back and empty its place; then close.")
        if self.said("gears") == "not":
            line = self.said("which") or "A case closed over a gear that does not select is opened again."
            return Plate("stop", "A gear does not select", line, "Drum, forks, shims: put it right now, while it is open.")
        if not self.ordered:
            return Plate(
                "wait", "No bolts on the card", "Order and stages come from their places.", "Tap them onto the joint face of the card."
            )
        if self.joint_differs and not self.sealed:
            move = "Choose what End float counted, or work End float out anew for this joint."
            return Plate("stop", "Joint and end float differ", self.joint_differs, move)
        worst = self.loads[0][1].call if self.loads else None
        if worst and worst.state == "stop":
            return Plate("stop", "Too much torque", worst.reason, "Back to the manual's torque: thread or bolt would go.")
        if self.open_time and self.open_time.state == "stop":
            return Plate("stop", "It skins", self.open_time.reason, "Apart again, both faces clean; fresh sealant, thin.")
        ask = self.next_ask
        if not self.sealed:
            return self._before(ask, worst)
        if self.all_tight:
            line = f"{len(self.ordered)} bolts in {len(self.stages)} rounds."
            return Plate("in", "Closed", line, "Turn the crank, pull and push it: nothing may drag.")
        left = f"{self.done} of {self.to_do} done. "
        line = f"{left}{self.open_time.reason if self.open_time else 'Crosswise from the middle, by hand first.'}"
        state = "too_close" if self.open_time and self.open_time.state == "too_close" else "wait"
        return Plate(state, "Tighten", line, f"{ask.words}." if ask else "", standing=f"Bolts: {left}")

    def _before(self, ask: Ask | None, worst: Call | None) -> Plate:
        line = worst.reason if worst else "Faces, dowels, screens and o-rings first; then the sealant, thin."
        if ask:
            return Plate("wait", "Ready to close?", line, f"{ask.words}.")
        if self.refused():
            return Plate("wait", "Ready to close?", line, self.refused())
        sealant = f"{self.sealant.name} on, thin, then close" if self.sealant else ""
        what = {GASKET: "Gasket in, dry, then close", DRY: "Nothing between the faces: close"}.get(self.joint, sealant)
        state = "too_close" if worst and worst.state == "too_close" else "wait"
        return Plate(state, "Close it", line, f"{what}: the order begins at the middle.")

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        return (
            Caution("clean", "Both faces clean, dry, no old sealant in threads or oil ways.", gate=True),
            Caution("in", "Dowels, screens, o-rings and thrust washers in, each seen.", gate=True),
            Caution("hand", "Every bolt in its own place by length, turned in by hand."),
        )

    def cautions(self) -> tuple[Caution, ...]:
        if self.signed:
            return ()
        found = [
            Caution("impact", "Nothing run home with an impact tool: the last turns are felt, then measured."),
            Caution("manual", "The manual's torque and order come first; over it only with a reason."),
        ]
        if self.sealant and self.sealant.kind == Compound.Kind.SILICONE:
            found.insert(0, Caution("petrol", PETROL))
        return tuple(found)

    def methods(self) -> tuple[Method, ...]:
        if self.signed or self.sealed:
            return ()
        shelf = [each for each in shelves(self.shop).compounds if each.kind in SEALANTS]
        others = (Option(GASKET, "a gasket", "dry"), Option(DRY, "nothing", "faces as they are"))
        options = (*others, *(Option(str(each.pk), each.name, each.get_kind_display()) for each in shelf))
        found = [Method("sealant", "Between the faces", options, str(self.sealant.pk) if self.sealant else self.joint)]
        if self.sealant:
            found.append(Method("faces", "On", asks.FACES, str(self.choices.get("faces", "one"))))
        return (*found, Method("school", "Torque", asks.SCHOOL, self.school))

    def traces(self) -> tuple[Trace, ...]:
        rows: list[Trace] = []
        for mark, load in self.loads:
            band = f"{load.preload_n.low / 1000:.1f} to {load.preload_n.high / 1000:.1f} kN"
            source = f"proof {load.proof_n / 1000:.1f}, case strips at {load.strip_n / 1000:.1f} kN; {ENGAGED_D:g} d deep taken"
            rows.append(Trace(f"{mark.thread} at {self.torque_of(mark):g} N·m", band, source, True))
        if self.ordered:
            source = "card" if self.from_card else "as typed"
            if self.school == "more":
                source = f"more than the manual: {self.said('why') or 'no reason yet'}"
            rounds = ", ".join(f"{share:.0%}" for share in self.stages)
            rows.append(Trace("Rounds", rounds, f"order from places on the face; torque {source}"))
        if self.sealant:
            opens = f"{self.sealant.open_s / 60:.0f} min" if self.sealant.open_s else "unknown"
            rows.append(Trace("Open time", opens, f"{self.sealant.name}, its own sheet"))
        return tuple(rows)

    def actions(self) -> tuple[Action, ...]:
        if self.signed:
            return ()
        if self.all_tight:
            return (Action("sign", "Sign it", "sign", not self.open_asks(), self.may_sign()),)
        if self.sealed or not self.ready:
            return ()
        first = self.refused() or (self.plate().line if self.plate().state == "stop" else "") or self.still_to_say()
        words = "Sealant is on: close" if self.sealant else "Close it"
        return (Action("close", words, "close", True, first),)

    def act(self, key: str) -> None:
        entry = self.opened(key)
        if key == "close":
            log.choose(entry, sealed=True)
            if self.sealant and self.sealant.open_s:
                log.start_timer(entry, self.person, "open", "sealant skins", "wait", self.sealant.open_s, at=self.now)
        if key == "sign":
            self.sign()

    def may_sign(self) -> str:
        return self.still_to_say() or ("" if self.all_tight else "Every bolt, every round.")

    def result(self) -> dict[str, Any]:
        reached = {mark.name: self.value(f"s{len(self.stages) - 1}-{mark.pk}") or self.torque_of(mark) for mark in self.ordered}
        return {
            "schema": "close/1",
            "core_version": core_version,
            "order": [mark.name for mark in self.ordered],
            "rounds": [round(share, 2) for share in self.stages],
            "torque_nm": {name: round(value, 1) for name, value in reached.items()},
            "more_because": self.said("why") if self.school == "more" else "",
            "sealant": self.sealant.name if self.sealant else None,
            "faces": str(self.choices.get("faces", "one")) if self.sealant else None,
            "gears": self.said("gears"),
            "margin_n": round(self.loads[0][1].call.margin) if self.loads and math.isfinite(self.loads[0][1].call.margin) else None,
        }


STATION = Station("close", "Close", Close, drawn=True, equipment={"sealant": "compounds"})
