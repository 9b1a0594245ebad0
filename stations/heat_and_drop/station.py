"""Heat and drop: what is asked, when; what may be done; what goes into the log."""

from __future__ import annotations

import math
from datetime import timedelta
from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from engines.models import Seat
from jobs import log
from jobs.models import Reading
from shop.models import Gauge
from shopmath import __version__ as core_version
from shopmath.checks import BadInput
from shopmath.quantity import Quantity
from shopmath.thermal.expansion import WANTED
from shopmath.thermal.plan import HeatPlan
from shopmath.verdict import WARM_K, Call, call
from stations.base import Action, Ask, Caution, Method, Option, Plate, Station, Trace
from stations.heat_and_drop import asks, drawing, history, plates, running, setup, thermometers, words
from stations.heat_and_drop.heated import Heated
from stations.heat_and_drop.seat_known import SeatKnown, seat_known, uncertainty_mm
from stations.heat_and_drop.sheet import HeatSheet

SEATED_MM = 0.03  # the thinnest feeler that should not go in
SQUARE_MM = 0.10


class HeatAndDrop(Heated):
    """One seat in one heat."""

    seat: Seat

    # the parts of the question

    def _size(self, key: str) -> tuple[float, float] | None:
        reading = self.last(key)
        return (reading.canonical, uncertainty_mm(reading)) if reading and reading.canonical else None

    @cached_property
    def seat_known(self) -> SeatKnown:
        return seat_known(self.known, self.seat, self._size("seat"))

    @cached_property
    def past(self) -> list[history.Heat]:
        return history.heats(self.heater, self.seat.on, before=self.entry)

    @cached_property
    def planned(self) -> setup.Planned:
        wishes = setup.Wishes(
            heater=self.heater,
            chiller=self.chiller,
            room_c=self.value("room"),
            heat_c=self.value("heat"),
            target_c=self.value("target"),
            chill_for_s=self.value("stay"),
            seat_mm=self.seat_known.size,
            seat_from=self.seat_known.measured_at,
            ring_mm=self._size("ring"),
            wanted=str(self.choices.get("wanted", "usual")),
            slower=history.slower(self.past),
        )
        return setup.planned(self.seat, wishes, self.shop)

    @property
    def plan(self) -> HeatPlan:
        return self.planned.plan

    @cached_property
    def trouble(self) -> BadInput | None:
        """What keeps the plan from being made at all."""
        try:
            _ = self.planned
        except BadInput as error:
            return error
        return None

    @cached_property
    def run(self) -> running.Running:
        return running.running(
            self.plan.setup,
            self.plan.target_c,
            self.now,
            self.timer("heat"),
            self.timer("chill"),
            self.timer("window"),
            self.live("case"),
            self.live("partner"),
        )

    @cached_property
    def outcome(self) -> str:
        reading = self.last("outcome")
        return reading.text if reading else ""

    @cached_property
    def phase(self) -> str:
        if self.signed:
            return "signed"
        if self.outcome:
            return "after"
        if self.timer("window"):
            return "window"
        return "heating" if self.timer("heat") or self.timer("chill") else "plan"

    def is_live(self) -> bool:
        return self.phase in ("heating", "window")

    # asks

    def asks(self) -> list[Ask]:
        return asks.asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        asks.check(self, ask, quantity.canonical)

    def extra_for(self, ask: Ask, quantity: Quantity, data: dict[str, str]) -> tuple[Gauge | None, dict[str, Any]]:
        gauge = self.gauge_for(ask)
        if ask.key == "case":
            return self.worth_of_case(quantity, self.phase == "heating", self.planned.heat_c, self.plan.setup.room_c)
        return gauge, {}

    def note(self, reading: Reading) -> str:
        return words.reading_note(reading)

    # judging

    def names(self) -> tuple[str, str]:
        return ("bearing", "shaft") if self.seat.on == Seat.On.SHAFT else ("case", "bearing")

    def heater_words(self) -> str:
        return self.heater.name if self.heater else "oven"

    def chiller_words(self) -> str:
        return self.chiller.get_method_display() if self.chiller else "cold"

    def seated(self) -> Call | None:
        """The call on the gaps: all four no more than the thinnest feeler, or the depths even."""
        through = self.seat.stop == Seat.Stop.THROUGH
        found = [
            reading
            for clock in asks.CLOCKS
            if (reading := self.last(f"{'depth' if through else 'gap'}{clock}")) and reading.canonical is not None
        ]
        cold = self.last("cold")
        if len(found) < len(asks.CLOCKS):
            return None
        doubt = max(uncertainty_mm(reading) for reading in found)
        values = [float(reading.canonical or 0) for reading in found]
        if through:
            return call(max(values) - min(values), high=SQUARE_MM, uncertainty=math.sqrt(2) * doubt, unit="mm", digits=2)
        worst = max([*values, float(cold.canonical or 0)] if cold else values)
        return call(worst, high=SEATED_MM, uncertainty=doubt, unit="mm", digits=2)

    def plate(self) -> Plate:
        return plates.plate(self)

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self, at_s)

    def slider(self) -> tuple[float, float] | None:
        if self.trouble or self.phase not in ("plan", "heating", "window"):
            return None
        now = self.run.here().time_s if self.phase == "window" else 0.0
        return drawing.span_s(self), min(now, drawing.span_s(self))

    def checks(self) -> tuple[Caution, ...]:
        return words.checks(self)

    def cautions(self) -> tuple[Caution, ...]:
        return words.cautions(self)

    def traces(self) -> tuple[Trace, ...]:
        return () if self.trouble else words.traces(self)

    def history(self) -> list[dict[str, str]]:
        return [heat.row() for heat in self.past]

    def methods(self) -> tuple[Method, ...]:
        heat = (*(Option(str(each.pk), each.name, each.get_method_display()) for each in self.heaters), Option("none", "no heat"))
        cold = (*(Option(str(each.pk), each.name, each.get_method_display()) for each in self.chillers), Option("none", "no chilling"))
        room = tuple(Option(key, key, f"1/{value:.0f} of the diameter") for key, value in WANTED.items())
        found = (
            Method("heater", f"Heat the {self.names()[0]} with", heat, str(self.heater.pk) if self.heater else "none"),
            Method("chiller", f"Chill the {self.names()[1]} in", cold, str(self.chiller.pk) if self.chiller else "none"),
            Method("wanted", "Clearance wanted", room, str(self.choices.get("wanted", "usual"))),
            Method("means", "Temperature by", thermometers.means_of(self.gauges), self.means),
        )
        return found if self.phase in ("plan", "heating") else found[3:] if self.phase == "window" else ()

    # doing

    def actions(self) -> tuple[Action, ...]:
        if self.trouble or self.phase == "signed":
            return ()
        shut = self.refused() or ("" if self.plan.call.state != "stop" else self.plan.call.reason)
        shut = shut or (plates.CONDEMNED if self.seat_known.is_condemned else "")
        outer, partner = self.names()
        found: list[Action] = []
        if self.phase in ("plan", "heating"):
            if self.plan.chill and not self.timer("chill"):
                found.append(Action("chill", f"{words.cap(partner)} goes in the cold", "chill", not found, shut))
            if self.heater and not self.timer("heat"):
                found.append(
                    Action("heat", f"{words.cap(outer)} goes in the heat" if self.plan.soak else "Heat on", "heat", not found, shut)
                )
            if self.phase == "heating" or (not self.heater and not self.plan.chill):
                found.append(Action("open", "Out, and offer it up", "open", not found, shut))
        if self.phase == "window" or (self.phase == "after" and self.outcome not in asks.HOME):
            found.append(Action("again", "Back into the heat", "again", self.phase == "after"))
        if self.phase == "after":
            found.append(Action("sign", "Sign it", "sign", not self.open_asks(), self.may_sign()))
        return tuple(found)

    def act(self, key: str) -> None:
        entry = self.opened(key)
        outer, partner = self.names()
        if key == "heat":
            log.start_timer(
                entry,
                self.person,
                "heat",
                f"{outer} comes out",
                "heat",
                self.plan.soak.likely if self.plan.soak else None,
                attempt=self.attempt,
            )
        if key == "chill" and self.plan.chill:
            log.start_timer(entry, self.person, "chill", f"{partner} is cold", "cold", self.plan.chill.likely, attempt=self.attempt)
        if key == "open":
            sure = self.run.sure_for_s()
            for timer in filter(None, (self.timer("heat"), self.timer("chill"))):
                log.stop_timer(timer, self.now)
            lasts = min(sure, 7200.0)
            log.start_timer(entry, self.person, "window", "window closes", "window", lasts, attempt=self.attempt, at=self.now)
        if key == "again":
            for timer in self.timers:
                log.stop_timer(timer)
            log.next_attempt(entry)
        if key == "sign":
            self.sign()

    def may_sign(self) -> str:
        if not self.outcome:
            return "Say what happened first."
        return ""

    def after_keep(self, reading: Reading) -> None:
        """A reading moves the clocks: the soak to when this case will really be there, the window to its own cooling."""
        heat, window = self.timer("heat"), self.timer("window")
        if reading.ask == "case" and self.phase == "heating" and heat and not heat.ended_at:
            left = self.run.ready_in_s()
            if left is not None:
                log.move_due(heat, self.now + timedelta(seconds=left))
        if reading.ask == "case" and self.phase == "window" and window:
            log.move_due(window, self.now + timedelta(seconds=min(self.run.sure_for_s(), 7200.0)))
        if reading.ask == "outcome" and window and self.entry:
            log.stop_timer(window, self.now)
            if reading.text in asks.HOME and self.run.outer_out:
                cold = self.run.outer_out.reaches_in_s(self.plan.setup.room_c + WARM_K - 1, self.now)
                if cold:
                    log.start_timer(
                        self.entry, self.person, "cold", "cold enough to check", "wait", cold, attempt=self.attempt, at=self.now
                    )

    def whole_station_signed(self) -> bool:
        return self.every_seat_signed()

    def result(self) -> dict[str, Any]:
        return history.result(self, core_version)


STATION = Station(
    "heat-and-drop",
    "Heat and drop",
    HeatAndDrop,
    by_seat=True,
    whole=HeatSheet,
    drawn=True,
    equipment={"heater": "heaters", "chiller": "chillers"},
)
