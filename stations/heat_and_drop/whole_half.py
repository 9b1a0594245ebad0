"""What is known of one heat for a whole half: its parts and their plans, counted back from the door, and where it stands now."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from functools import cached_property

from engines.fits import fit_of
from engines.models import Fitted, Seat
from engines.properties import Property
from jobs.models import Reading
from shop.models import Chiller
from shopmath.checks import BadInput
from shopmath.thermal.ordering import HeatPart
from shopmath.thermal.rates import temperature_at_c
from shopmath.thermal.sheet import HeatSheet as CoreSheet
from shopmath.thermal.sheet import Remaining, SheetPart, heat_sheet, home_by_s, replan
from shopmath.verdict import STOP
from stations.heat_and_drop import running, setup
from stations.heat_and_drop.heated import Heated
from stations.heat_and_drop.parts import CIRCLIP_S, CaseHeat, Choice, HotPart, case_heat, parts_of
from stations.heat_and_drop.seat_known import SeatKnown, seat_known, uncertainty_mm

HOME = ("dropped", "tapped", "in")
STUCK = ("jammed", "crooked", "loose")
STAYS = (Chiller.Method.FREEZER, Chiller.Method.DRY_ICE)  # a part can lie in these; spray is for one boss


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


class WholeHalf(Heated):
    """What is known of a half in one heat: its parts, their plans, and where the heat stands."""

    # the parts of the question

    @cached_property
    def seats(self) -> list[Seat]:
        return list(self.job.card.seats.all())

    @cached_property
    def fitted(self) -> list[Fitted]:
        return list(self.job.card.fitted.all())

    @cached_property
    def halves(self) -> list[str]:
        """The halves into which something goes hot."""
        hot = [seat.half for seat in self.seats if seat.on == Seat.On.CASE]
        hot += [part.half for part in self.fitted if part.kind != Fitted.Kind.RUBBER]
        return [half for half in ("left", "right") if half in hot]

    @property
    def half(self) -> str:
        begun, tab = self.timer("heat") or self.cold_since, str(self.choices.get("tab", ""))
        chosen = str(self.choices.get("half", "")) if begun or tab not in self.halves else tab
        return chosen if chosen in self.halves else next(iter(self.halves), "left")

    @property
    def tab(self) -> str:
        chosen = str(self.choices.get("tab", ""))
        return chosen if self.phase != "hot" and chosen in [f"f{part.pk}" for part in self.assemblies] else self.half

    @cached_property
    def assemblies(self) -> list[Fitted]:
        """Parts with an order, a direction, an end depth or a middle to be found."""
        return [part for part in self.fitted if part.pieces or part.angle_deg is not None or part.kind == Fitted.Kind.RUBBER]

    @property
    def in_hand(self) -> Fitted | None:
        return next((part for part in self.assemblies if f"f{part.pk}" == self.tab), None)

    @cached_property
    def stays(self) -> list[Chiller]:
        return [each for each in self.chillers if each.method in STAYS]

    @cached_property
    def usual(self) -> Choice:
        freezer = next((each for each in self.stays if each.method == Chiller.Method.FREEZER), None)
        return Choice(True, False, freezer)

    @cached_property
    def chosen(self) -> dict[str, Choice]:
        found = {}
        for key, value in self.choices.items():
            if not key.startswith("part-"):
                continue
            word, _, chiller = str(value).partition("-")
            found[key.removeprefix("part-")] = Choice(
                word != "out", word == "must", next((each for each in self.stays if str(each.pk) == chiller), None)
            )
        return found

    @cached_property
    def everything(self) -> list[HotPart]:
        """All parts of this half that were chosen for a heat, home or not."""
        found = parts_of(self.seats, self.fitted, self.half, self.chosen, self.usual)
        return [replace(part, seat_mm=self.seat_known(part).size) for part in found]

    @cached_property
    def measured_here(self) -> dict[int, tuple[float, float]]:
        """Seats measured at their own page of this station: size and uncertainty, mm."""
        rows = Reading.objects.filter(entry__station=self.stage, entry__superseded_by=None, ask="seat", withdrawn_at=None)
        rows = rows.exclude(canonical=None).select_related("entry", "gauge").order_by("pk")
        return {each.entry.seat_id: (each.canonical, uncertainty_mm(each)) for each in rows if each.entry.seat_id and each.canonical}

    def seat_known(self, part: HotPart) -> SeatKnown:
        """What is known of a part's seat; nothing of a pin or a circlip."""
        if part.seat is None or part.is_circlip:
            return SeatKnown(None)
        return seat_known(self.known, part.seat, self.measured_here.get(part.seat.pk))

    @property
    def loose(self) -> HotPart | None:
        """A bearing that its seat would not hold."""
        return next((part for part in self.parts if self.is_loose(part)), None)

    def is_loose(self, part: HotPart) -> bool:
        if part.seat is None or part.is_circlip:
            return False
        known = self.seat_known(part)
        return known.is_condemned or known.holds_nothing(fit_of(part.seat, known.size))

    @cached_property
    def done_elsewhere(self) -> set[str]:
        """What went home on its seat's own page, not from this sheet."""
        found = Reading.objects.filter(
            entry__station=self.stage, entry__seat__isnull=False, ask__in=("outcome", "circlip"), text__in=HOME, withdrawn_at=None
        ).exclude(extra__has_key="sheet")
        return {f"{'c' if ask == 'circlip' else 's'}{pk}" for pk, ask in found.values_list("entry__seat_id", "ask")}

    def fate(self, part: HotPart, *, ever: bool = False) -> str:
        """What happened to a part: in this heat, or in any."""
        found = self.live(f"home-{part.key}", every_attempt=ever)
        return found[-1].text if found else ""

    def is_home(self, part: HotPart) -> bool:
        return self.fate(part, ever=True) in HOME or (part.key in self.done_elsewhere and not self.live(f"home-{part.key}", True))

    @cached_property
    def parts(self) -> list[HotPart]:
        """What this heat is about: everything of the half that was not home before it."""
        earlier = [
            reading for reading in self.readings if reading.attempt != self.attempt and not reading.withdrawn_at and reading.text in HOME
        ]
        gone = {reading.ask.removeprefix("home-") for reading in earlier}
        gone |= {key for key in self.done_elsewhere if not self.live(f"home-{key}")}
        left = [part for part in self.everything if part.key not in gone]
        keys = {part.key for part in left}
        return [part if set(part.after) <= keys else _freed(part, keys) for part in left]

    # planning

    def wishes(self) -> setup.Wishes:
        wanted = str(self.choices.get("wanted", "usual"))
        return setup.Wishes(self.heater, None, self.value("room"), self.value("heat"), self.value("target"), wanted=wanted)

    @cached_property
    def plan(self) -> CaseHeat:
        return case_heat(self.parts, self.wishes(), self.shop)

    @cached_property
    def trouble(self) -> BadInput | None:
        if not [part for part in self.parts if not part.is_circlip]:
            return BadInput("parts", "")
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
        """How long a part has from now, the case at `outer_c`, the part as cold as planned unless it was caught warmer."""
        if part.planned is None:
            return float("inf")
        made = part.planned.setup
        if self.timer("heat"):
            made = replace(made, outer_u_k=self.run.outer().u_k, outer_room=self.run.live_setup().outer_room)
        return home_by_s(made, outer_c, part.planned.chill_c if inner_c is None else inner_c)

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
    def phase(self) -> str:
        if self.signed:
            return "signed"
        if self.timer("door"):
            return "hot" if self.live_heat.order else "after"
        return "warming" if self.timer("heat") or self.cold_since else "plan"

    def is_live(self) -> bool:
        return self.phase in ("warming", "hot")

    @property
    def cold_since(self) -> dict[str, datetime]:
        """When each part of this heat went into its chiller."""
        found = self.choices.get("cold", {}).get(str(self.attempt), {})
        return {key: datetime.fromisoformat(text) for key, text in found.items()}

    @cached_property
    def run(self) -> running.Running:
        any_part = next(part for part in self.plan.parts if part.planned)
        assert any_part.planned is not None
        heat, door = self.timer("heat"), self.timer("door")
        return running.running(any_part.planned.setup, self.plan.target_c, self.now, heat, None, door, self.live("case"), [])

    def cold_c(self, part: HotPart, at: datetime) -> float:
        """How cold a part is: where its stay in the chiller has brought it."""
        assert part.planned is not None
        found, room_c = part.planned.setup.chilling, part.planned.setup.room_c
        since = self.cold_since.get(part.key)
        if found is None or since is None:
            return room_c
        return temperature_at_c(max(0.0, (at - since).total_seconds()), room_c, found.surroundings_c, found.time_constant.likely)

    @cached_property
    def ready_in(self) -> dict[str, float]:
        """What the door still waits for, and how many seconds; `case`, or a part's key."""
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
        """What is left, ordered anew from the clocks and from what was read. The part in hand stays in hand until it is answered for."""
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
        turn = str(self.choices.get("turns", {}).get(self.turn_key, ""))
        first = [turn] if turn in still and fates[turn] not in HOME else []
        later = [key for key in found.order if fates[key] == "later"]
        order = [*first, *(key for key in (*(each for each in found.order if each not in later), *later) if key not in first)]
        return Live(found, tuple(still[key] for key in order), jammed)

    @property
    def turn_key(self) -> str:
        """What the part in hand was chosen by: the last answer that stands in this heat, or the door."""
        said = [reading.pk for reading in self.readings if reading.ask.startswith("home-") and self._stands(reading)]
        return str(said[-1]) if said else f"door{self.attempt}"

    def _stands(self, reading: Reading) -> bool:
        return reading.attempt == self.attempt and not reading.withdrawn_at

    def _inner_now(self, part: HotPart) -> float | None:
        """A part caught warmer than planned counts as it is; one that stays in the cold is as cold as planned."""
        if part.planned is None or part.chiller is None:
            return None
        return max(part.planned.chill_c, self.cold_c(part, self.door_at)) if part.key in self.cold_since else part.planned.setup.room_c

    @cached_property
    def offered(self) -> list[HotPart]:
        """Every part of the half that is not home, also those left out of this heat: what may be chosen."""
        whole = parts_of(self.seats, self.fitted, self.half, {}, self.usual)
        return [part for part in whole if not self.is_home(part)]

    @property
    def other_half(self) -> str:
        return next((half for half in self.halves if half != self.half), "")

    @property
    def other_left(self) -> bool:
        """Whether something of the other half is still to go in."""
        whole = parts_of(self.seats, self.fitted, self.other_half, {}, self.usual)
        return any(not self.is_home(part) for part in whole)

    @cached_property
    def stopped(self) -> str:
        """Why nothing may be heated; empty when it may."""
        if self.unsettled():
            return "Found and card say otherwise: settle which way round it goes."
        if self.loose:
            return f"{self.loose.name}: the seat is out. Mend it, then measure it on its own page, cold."
        return next((part.planned.call.reason for part in self.plan.parts if part.planned and part.planned.call.state == STOP), "")

    @property
    def may_open(self) -> bool:
        """Whether any part would go in if the door opened now."""
        outer_c = self.run.outer().c
        return any(self.closes_s(part, outer_c, self.cold_c(part, self.now)) > 0 for part in self.plan.parts if part.planned)

    @property
    def waiting(self) -> list[HotPart]:
        """What is not home yet, of this heat."""
        return [part for part in self.parts if self.fate(part) not in HOME]

    @property
    def unsaid(self) -> list[HotPart]:
        """Whose window closed before anybody said what became of it; what follows a part that stuck is not among them."""
        return [part for part in self.waiting if not self.fate(part) and not set(part.after) & {each.key for each in self.waiting}]

    # which way round

    @cached_property
    def found_facing(self) -> dict[int, str]:
        """Which way round each bearing was found, as written down when it came out."""
        standing = Reading.objects.filter(entry__job=self.job, entry__superseded_by=None, withdrawn_at=None)
        rows = standing.filter(entry__station__key="bearings-out", property=Property.WAY_ROUND)
        return dict(rows.values_list("entry__seat_id", "text"))

    def contradicted(self, part: HotPart) -> str:
        """What was found, where the card says otherwise and nobody has settled it yet."""
        if not part.seat or part.is_circlip or self.said(f"way-{part.key}"):
            return ""
        found = self.found_facing.get(part.seat.pk, "")
        kind, same = found[:4], found == part.seat.faces
        return found if found and part.seat.faces and kind == part.seat.faces[:4] and not same else ""

    def unsettled(self) -> list[HotPart]:
        return [part for part in self.parts if self.contradicted(part)]

    def toward(self, part: HotPart) -> str:
        """Where its marking looks as it goes in: at `you`, or at the `case`; empty when nobody knows."""
        if not part.seat or part.is_circlip:
            return ""
        faces = self.said(f"way-{part.key}") or part.seat.faces or self.found_facing.get(part.seat.pk, "")
        side = {"in": "inside", "out": "outside"}.get(faces.partition("_")[2], "")
        return "" if not side else "you" if side == part.seat.loads_from else "case"

    def way(self, part: HotPart) -> tuple[str, str]:
        found = self.found_facing.get(part.seat.pk, "") if part.seat else ""
        return part.way(found, self.said(f"way-{part.key}"))


def _freed(part: HotPart, keys: set[str]) -> HotPart:
    """A part whose forerunner is home already waits for nothing."""
    return replace(part, after=tuple(key for key in part.after if key in keys))
