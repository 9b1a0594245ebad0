"""Analysis of one heat for a case half: its parts, their plans relative to the opening of the oven, and the present state."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from enum import StrEnum
from functools import cached_property

from shopmath.thermal.ordering import HeatPart
from shopmath.thermal.plan import HeatPlan
from shopmath.thermal.rates import temperature_at_c
from shopmath.thermal.schedule import HeatSheet as CoreSheet
from shopmath.thermal.schedule import Remaining, SheetPart, heat_sheet, replan, seat_before_s
from shopmath.validation import BadInput
from shopmath.verdict import STOP
from stator.engines.properties import Property
from stator.stations.framework import StationInput
from stator.stations.install_with_heat import live_temperatures, setup
from stator.stations.install_with_heat.case_half.contents import Half
from stator.stations.install_with_heat.case_half.parts import CIRCLIP_S, CaseHeat, HotPart, case_heat, parts_of
from stator.stations.install_with_heat.heat import HOME
from stator.stations.install_with_heat.shaft_assembly.analysis import Assembly

STUCK = ("jammed", "crooked", "loose")
LAID = "laid"  # the line of the check list that opens the door
NO_PARTS = "no parts"


class Phase(StrEnum):
    """Phases of a heat."""

    PLAN = "plan"
    WARMING = "warming"
    HOT = "hot"
    AFTER = "after"


class Code(StrEnum):
    """Codes of the verdicts on a case half in one heat."""

    NO_PLAN = "no plan"
    NOTHING = "nothing to heat"
    ALL_HOME = "all home"
    WHICH_WAY = "which way round"
    STOP = "stop"
    TOO_MANY = "too many for the cold"
    ONE = "one part in one heat"
    IN_ONE = "in one heat"
    SOME_IN_ONE = "some in one heat"
    UNSURE = "unsure"
    OPEN = "open the door"
    CASE_IN = "case in now"
    NOT_YET = "not yet"
    IN_HAND = "in hand"
    SHUT = "shut"
    WHAT_OF_THE_LAST = "what of the last"
    REHEAT = "reheat"


@dataclass(frozen=True)
class Live:
    """The heat as it runs: what is left in which order, and how long each part still has."""

    remaining: Remaining
    order: tuple[HotPart, ...]
    jammed: tuple[HotPart, ...]

    @property
    def here(self) -> HotPart | None:
        return self.order[0] if self.order else None

    def left_s(self, part: HotPart) -> float:
        return self.remaining.time_left_s.get(part.key, 0.0)


class CaseHalfAnalysis(Half):
    """The analysis of a case half in one heat: its parts, their plans and the state of the heat."""

    # what is in hand

    @property
    def tab(self) -> str:
        chosen = self.own.choice("tab")
        return chosen if self.phase != Phase.HOT and chosen in [each.fitted.uid for each in self.assemblies] else self.half

    @property
    def in_hand(self) -> Assembly | None:
        return next((each for each in self.assemblies if each.fitted.uid == self.tab), None)

    # planning

    def wishes(self) -> setup.PlanOptions:
        of_the_heat = (Property.AIR_TEMPERATURE, Property.HEATER_SETTING, Property.HEAT_TARGET)
        room_c, heat_c, target_c = (self.value(what) for what in of_the_heat)
        return setup.PlanOptions(self.heater, None, room_c, heat_c, target_c, wanted=self.wanted)

    @cached_property
    def plan(self) -> CaseHeat:
        return case_heat(self.parts, self.wishes(), self.shop)

    @cached_property
    def trouble(self) -> BadInput | None:
        if not [part for part in self.parts if not part.is_circlip]:
            return BadInput("parts", "", NO_PARTS)
        try:
            _ = self.plan
        except BadInput as error:
            return error
        return None

    def core_part(self, part: HotPart, closes_s: float, now: tuple[str, ...] = ()) -> HeatPart:
        after = tuple(key for key in part.after if not now or key in now)
        handling = CIRCLIP_S if part.is_circlip else self.shop.handling_s
        return HeatPart(part.key, handling, closes_s, part.diameter_mm, part.must, after)

    def closes_s(self, part: HotPart, outer_c: float, inner_c: float | None = None) -> float:
        """Return the remaining time of a part, with the case at `outer_c` and the part as cold as planned unless it was read warmer."""
        if part.planned is None:
            return float("inf")
        key = (part.key, outer_c, part.planned.chill_c if inner_c is None else inner_c)
        if key not in self._closes:
            made = part.planned.setup
            if self.timer("heat"):
                made = replace(made, outer_u_k=self.run.outer().u_k, outer_room=self.run.live_setup.outer_room)
            self._closes[key] = seat_before_s(made, *key[1:])
        return self._closes[key]

    @cached_property
    def _closes(self) -> dict[tuple[str, float, float], float]:
        return {}  # filled as they are asked for

    @cached_property
    def core_sheet(self) -> CoreSheet:
        """Order and steps, s from the door."""
        found = []
        for part in self.plan.parts:
            core = self.core_part(part, self.closes_s(part, self.plan.target_c))
            chill = part.planned.chill if part.planned and part.chiller else None
            found.append(SheetPart(core, part.chiller.name if part.chiller and chill else "", chill.likely if chill else 0.0))
        places = {each.name: each.places for each in self.stays}
        return heat_sheet(found, self.plan.soak.likely if self.plan.soak else 0.0, places)

    def part(self, key: str) -> HotPart:
        return next(part for part in self.plan.parts if part.key == key)

    # running

    @cached_property
    def phase(self) -> Phase:
        if self.timer("door"):
            return Phase.HOT if not self.trouble and self.live_heat.order else Phase.AFTER
        return Phase.WARMING if self.timer("heat") or self.cold_since else Phase.PLAN

    @property
    def is_live(self) -> bool:
        return self.phase in (Phase.WARMING, Phase.HOT)

    @cached_property
    def run(self) -> live_temperatures.Running:
        any_part = next(part for part in self.plan.parts if part.planned)
        assert any_part.planned is not None
        heat, door = self.timer("heat"), self.timer("door")
        return live_temperatures.running(any_part.planned.setup, self.plan.target_c, lambda: self.now, heat, None, door, self.hot, [])

    def cold_c(self, part: HotPart, at: datetime) -> float:
        """Return how cold a part is: where its stay in the chiller has brought it."""
        assert part.planned is not None
        found, room_c = part.planned.setup.chilling, part.planned.setup.room_c
        since = self.cold_since.get(part.key)
        if found is None or since is None:
            return room_c
        return temperature_at_c(max(0.0, (at - since).total_seconds()), room_c, found.surroundings_c, found.time_constant.likely)

    @cached_property
    def ready_in(self) -> dict[str, float]:
        """Return what the door still waits for, and how many seconds; `case`, or a part's key."""
        waits: dict[str, float] = {}
        if self.plan.soak:
            left = self.run.ready_in_s() if self.timer("heat") else self.plan.soak.likely
            waits["case"] = self.plan.soak.likely if left is None else left
        starts = {step.part: step.to_s for step in self.core_sheet.steps if step.where not in ("in", "oven") and step.part}
        for part in self.plan.parts:
            if part.key in starts and part.planned and part.planned.chill:
                since = self.cold_since.get(part.key)
                gone = (self.now - since).total_seconds() if since else 0.0
                waits[part.key] = part.planned.chill.likely - gone - starts[part.key]
        return {key: max(0.0, value) for key, value in waits.items()}

    @cached_property
    def door_at(self) -> datetime:
        """When the door opens, or opened: when the last thing is ready."""
        door = self.timer("door")
        return door.started_at if door else self.now + timedelta(seconds=max(self.ready_in.values(), default=0.0))

    @cached_property
    def live_heat(self) -> Live:
        """Return the remaining parts, ordered by timers and readings.

        The present part remains selected until its result is recorded.
        """
        fates = {part.key: self.fate(part) for part in self.plan.parts}
        lost = {part.key for part in self.plan.parts if fates[part.key] in STUCK}
        jammed = tuple(part for part in self.plan.parts if part.key in lost)
        for part in self.plan.parts:
            if set(part.after) & lost:
                lost.add(part.key)
        elapsed = max(0.0, (self.now - self.door_at).total_seconds())
        outer_c = self.run.outer().c
        still = {part.key: part for part in self.plan.parts if part.key not in lost}
        cores = [
            self.core_part(part, elapsed + self.closes_s(part, outer_c, self._inner_now(part)), tuple(still)) for part in still.values()
        ]
        done = [key for key in still if fates[key] in HOME]
        found = replan(cores, done, elapsed)
        turn = self.turns.get(self.turn_key, "")
        first = [turn] if turn in still and fates[turn] not in HOME else []
        later = [key for key in found.order if fates[key] == "later"]
        order = [*first, *(key for key in (*(each for each in found.order if each not in later), *later) if key not in first)]
        return Live(found, tuple(still[key] for key in order), jammed)

    @property
    def turns(self) -> dict[str, str]:
        """Return the part that was selected after each answer of this heat."""
        found = self.own.chosen.get("turns", {})
        return dict(found) if isinstance(found, dict) else {}

    @property
    def turn_key(self) -> str:
        """Return the key by which the present part was selected: the last answer of this heat, or the opening of the oven."""
        slots = {part.slot for part in self.everything}
        said = [each.number for each in self.own.taken if each.attempt == self.attempt and each.slot in slots]
        return str(max(said)) if said else f"door{self.attempt}"

    def _inner_now(self, part: HotPart) -> float | None:
        """Return the temperature of the inner part: as read if it was warmer than planned, otherwise as planned while it stays cold."""
        if part.planned is None or part.chiller is None:
            return None
        return max(part.planned.chill_c, self.cold_c(part, self.door_at)) if part.key in self.cold_since else part.planned.setup.room_c

    @cached_property
    def offered(self) -> list[HotPart]:
        """Return every part of the half that is not seated, including those skipped in this heat."""
        whole = parts_of(self.seats, self.fitted, self.half, {}, self.usual)
        return [part for part in whole if not self.is_home(part)]

    @property
    def other_half(self) -> str:
        return next((half for half in self.halves if half != self.half), "")

    @property
    def other_left(self) -> bool:
        """Return True if something of the other half is still to go in."""
        whole = parts_of(self.seats, self.fitted, self.other_half, {}, self.usual)
        return any(not self.is_home(part) for part in whole)

    @cached_property
    def stopped(self) -> HeatPlan | None:
        """The plan of the part that a limit or the method forbids."""
        return next((part.planned for part in self.plan.parts if part.planned and part.planned.call.state == STOP), None)

    @property
    def may_open(self) -> bool:
        """Return True if any part would go in if the door opened now."""
        outer_c = self.run.outer().c
        return any(self.closes_s(part, outer_c, self.cold_c(part, self.now)) > 0 for part in self.plan.parts if part.planned)

    @property
    def waiting(self) -> list[HotPart]:
        """Return the parts of this heat that are not seated yet."""
        return [part for part in self.parts if self.fate(part) not in HOME]

    @property
    def unsaid(self) -> list[HotPart]:
        """Return the parts whose window closed before a result was recorded, without those that wait for a part that jammed."""
        return [part for part in self.waiting if not self.fate(part) and not set(part.after) & {each.key for each in self.waiting}]


def whole_half(given: StationInput) -> CaseHalfAnalysis:
    """Return the analysis from card, facts, readings of the entry and shop equipment."""
    return CaseHalfAnalysis(given)
