"""One heat for a whole half: every bearing, pin and bush in its order, counted back from the door, run one part at a time."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.utils.safestring import SafeString

from jobs import log
from jobs.models import Entry, Reading
from shop.models import Gauge
from shopmath import __version__ as core_version
from shopmath.quantity import Quantity
from shopmath.verdict import WARM_K
from stations.base import Action, Ask, Caution, Method, Option, Plate, Trace
from stations.heat_and_drop import assembly, into_seats, setup, sheet_asks, sheet_drawing, sheet_plates, sheet_words
from stations.heat_and_drop.whole_half import WholeHalf

LONGEST_S = 7200.0


class HeatSheet(WholeHalf):
    """A half in one heat."""

    @property
    def address(self) -> str:
        return f"/jobs/{self.job.tag}/{self.station.key}/0/"

    # the skeleton

    def asks(self) -> list[Ask]:
        return sheet_asks.asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        sheet_asks.check(self, ask, quantity.canonical)

    def extra_for(self, ask: Ask, quantity: Quantity, data: dict[str, str]) -> tuple[Gauge | None, dict[str, Any]]:
        if ask.key == "case":
            return self.worth_of_case(quantity, self.phase == "warming", self.plan.heat_c, self.value("room") or setup.ROOM_C)
        if ask.key.startswith("home-") and self.timer("door"):
            part = self.part(ask.key.removeprefix("home-"))
            gone, left = (self.now - self.door_at).total_seconds(), self.live_heat.left_s(part)
            return None, {"after_door_s": round(gone, 1), "left_s": round(min(left, LONGEST_S), 1)}
        return self.gauge_for(ask), {}

    def tabs(self) -> Method | None:
        halves = [Option(half, f"{self.job.card.side(half)[:1].upper()}{self.job.card.side(half)[1:]}, one heat") for half in self.halves]
        if self.phase in ("warming", "hot", "after"):
            halves = [option for option in halves if option.key == self.half]
        if self.phase == "hot":
            return None
        parts = [Option(f"f{part.pk}", part.name) for part in self.assemblies]
        return Method("tab", "What is in hand", (*halves, *parts), self.tab)

    def plate(self) -> Plate:
        return assembly.plate(self, self.in_hand) if self.in_hand and not self.signed else sheet_plates.plate(self)

    def verdict(self) -> Plate:
        return sheet_plates.plate(self)

    def drawing(self, at_s: float | None = None) -> SafeString:
        return assembly.draw(self, self.in_hand) if self.in_hand else sheet_drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        return sheet_words.checks(self)

    def cautions(self) -> tuple[Caution, ...]:
        return sheet_words.cautions(self)

    def traces(self) -> tuple[Trace, ...]:
        return () if self.trouble or self.in_hand else sheet_words.traces(self)

    def methods(self) -> tuple[Method, ...]:
        return sheet_words.methods(self)

    # doing

    def actions(self) -> tuple[Action, ...]:
        return sheet_words.actions(self)

    def act(self, key: str) -> None:
        entry = self.opened(key)
        if key.startswith("chill-"):
            self._chill(entry, int(key.removeprefix("chill-")))
        if key == "heat" and self.plan.soak:
            self._fix_half(entry)
            label = f"{self.job.card.side(self.half)} half comes out"
            log.start_timer(entry, self.person, "heat", label, "heat", self.plan.soak.likely, attempt=self.attempt, at=self.now)
        if key == "open":
            for timer in [each for each in self.timers if each.attempt == self.attempt and not each.ended_at]:
                log.stop_timer(timer, self.now)
            log.start_timer(entry, self.person, "door", "first window closes", "window", 0.0, attempt=self.attempt, at=self.now)
            job = type(self.job).objects.select_related("card").get(pk=self.job.pk)  # with the clock just started
            fresh = log.current_entry(self.stage, None)
            HeatSheet(self.station, job, self.stage, None, fresh, self.person, self.now, self.shop).take_turn()
        if key in ("again", "other"):
            for timer in self.timers:
                log.stop_timer(timer)
            other = next((half for half in self.halves if half != self.half), self.half)
            half = other if key == "other" else self.half
            log.next_attempt(entry, half=half, tab=half)
        if key == "sign":
            self.sign()

    def take_turn(self) -> None:
        """The next part in hand, and the door clock on the part that closes first."""
        door, live = self.timer("door"), self.live_heat
        if not door or door.ended_at:
            return
        nexts = [part for part in live.order if self.fate(part) != "later"] or list(live.order)
        log.choose(door.entry, turns={**self.choices.get("turns", {}), self.turn_key: nexts[0].key if nexts else ""})
        if not nexts:
            log.stop_timer(door, self.now)
            self._cooling(door.entry)
            return
        first = min(live.order, key=live.left_s)
        log.move_due(door, self.now + timedelta(seconds=min(live.left_s(first), LONGEST_S)), label=f"{first.name}: home by")

    def _fix_half(self, entry: Entry) -> None:
        log.choose(entry, half=self.half, tab=self.half)

    def _chill(self, entry: Entry, pk: int) -> None:
        """Everything that wants this chiller; out of dry ice, which would chill too deep, one at a time as its turn comes."""
        chiller = next(each for each in self.stays if each.pk == pk)
        going = sheet_words.to_chill(self, chiller)
        cold = dict(self.choices.get("cold", {}))
        cold[str(self.attempt)] = {**cold.get(str(self.attempt), {}), **{part.key: self.now.isoformat() for part in going}}
        self._fix_half(entry)
        log.choose(entry, cold=cold)
        longest = max(part.planned.chill.likely for part in going if part.planned and part.planned.chill)
        name = going[0].name if len(going) == 1 else f"{len(going)} parts"
        key = f"cold-{going[0].key}"
        label = f"{name} {'is' if len(going) == 1 else 'are'} cold"
        log.start_timer(entry, self.person, key, label, "cold", longest, attempt=self.attempt, at=self.now)

    def after_keep(self, reading: Reading) -> None:
        """A temperature moves the clocks; what happened to a part goes into its own seat's entry too."""
        heat, door = self.timer("heat"), self.timer("door")
        if reading.ask == "case" and self.phase == "warming" and heat and not heat.ended_at:
            left = self.run.ready_in_s()
            if left is not None:
                log.move_due(heat, self.now + timedelta(seconds=left))
        if reading.ask.startswith("home-") and not self.trouble:
            into_seats.write(self, self.part(reading.ask.removeprefix("home-")), reading)
        if door:
            self.take_turn()

    def settle(self) -> None:
        into_seats.reconcile(self)
        super().settle()

    def _cooling(self, entry: Entry) -> None:
        cold = self.run.outer_out.reaches_in_s(setup.ROOM_C + WARM_K - 1, self.now) if self.run.outer_out else None
        if cold:
            log.start_timer(entry, self.person, "cool", "cold enough to check", "wait", cold, attempt=self.attempt, at=self.now)

    def may_sign(self) -> str:
        if self.phase != "after":
            return "No heat has been run to its end yet."
        return self.still_to_say()

    def whole_station_signed(self) -> bool:
        return self.every_seat_signed()

    def result(self) -> dict[str, Any]:
        order = []
        for part in self.everything:
            for reading in self.live(f"home-{part.key}", every_attempt=True):
                told = {name: reading.extra.get(name) for name in ("after_door_s", "left_s")}
                order.append({"part": part.name, "heat": reading.attempt, "outcome": reading.text, **told})
        return {
            "schema": "one-heat/1",
            "core_version": core_version,
            "half": self.half,
            "heats": self.attempt,
            "heater": self.heater.name if self.heater else "none",
            "target_c": None if self.trouble else round(self.plan.target_c, 1),
            "parts": order,
            "assemblies": [assembly.result(self, part) for part in self.assemblies],
        }
