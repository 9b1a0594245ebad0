"""Parts installed hot in one half: bearings with snap rings, pins and bushings; their results and their orientation."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from datetime import datetime
from enum import StrEnum
from functools import cached_property

from stator.engines.case import case_choices
from stator.engines.fact_keys import FactKey
from stator.engines.fits import fit_of
from stator.engines.models import EngineCard, Fitted, Seat
from stator.engines.properties import Property
from stator.jobs.facts import MeasuredReading
from stator.shop.models import Chiller, Equipment
from stator.stations.common.seat_state import SeatState, seat_known
from stator.stations.install_with_heat.case_half.parts import Choice, HotPart, parts_of
from stator.stations.install_with_heat.heat import HOME, HeatState
from stator.stations.install_with_heat.shaft_assembly.analysis import Assembly

STAYS = (Chiller.Method.FREEZER, Chiller.Method.DRY_ICE)  # a part can lie in these; spray is for one boss


class Hands(StrEnum):
    """Actions that a heat records."""

    CHILLED = "chilled"  # a part went into its chiller


class Half(HeatState):
    """The parts installed hot in a half, the result of each, and its orientation."""

    # the parts of the question

    @property
    def card(self) -> EngineCard:
        return self.given.card

    @cached_property
    def seats(self) -> list[Seat]:
        return list(self.card.seats.all())

    @cached_property
    def fitted(self) -> list[Fitted]:
        return list(self.card.fitted.all())

    @cached_property
    def halves(self) -> list[str]:
        """The halves into which something goes hot."""
        hot = [seat.half for seat in self.seats if seat.on == Seat.On.CASE]
        hot += [part.half for part in self.fitted if part.goes_in_tight]
        return [uid for uid, _name in case_choices(self.card) if uid in hot]

    @property
    def half(self) -> str:
        begun, tab = self.timer("heat") or self.cold_since, self.own.choice("tab")
        chosen = self.own.choice("half") if begun or tab not in self.halves else tab
        return chosen if chosen in self.halves else next(iter(self.halves), "left")

    @property
    def called(self) -> str:
        """This half, or another part of the case, as a sentence names it."""
        return self.card.part_name(self.half)

    @cached_property
    def assemblies(self) -> list[Assembly]:
        """Parts with an order, a direction, an end depth or a middle to be found."""
        there = [part for part in self.fitted if part.kind != Fitted.Kind.HOLE]
        found = [part for part in there if part.pieces or part.angle_deg is not None or part.kind == Fitted.Kind.RUBBER]
        return [Assembly(part, self.own, self.card.part_name(part.half)) for part in found]

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
        for key, value in self.own.chosen.items():
            if not key.startswith("part-"):
                continue
            word, _, chiller = str(value).partition("-")
            found[key.removeprefix("part-")] = Choice(
                word != "out", word == "must", next((each for each in self.stays if str(each.pk) == chiller), None)
            )
        return found

    @cached_property
    def everything(self) -> list[HotPart]:
        """Return all parts of this half that were selected for a heat, seated or not."""
        found = parts_of(self.seats, self.fitted, self.half, self.chosen, self.usual)
        return [replace(part, seat_mm=self.seat_known(part).size) for part in found]

    def uses(self) -> Iterator[tuple[str, Equipment]]:
        if self.heater:
            yield "heaters", self.heater
        for part in self.everything:
            if part.chiller and part.key in self.cold_since:
                yield "chillers", part.chiller

    def seat_known(self, part: HotPart) -> SeatState:
        """Return the state of a part's seat; empty for a pin or a snap ring."""
        return seat_known(self.given.facts, part.seat) if part.seat and part.is_bearing else SeatState(None)

    @cached_property
    def loose(self) -> HotPart | None:
        """A bearing that its seat would not hold."""
        return next((part for part in self.parts if self.is_loose(part)), None)

    def is_loose(self, part: HotPart) -> bool:
        if part.seat is None or part.is_circlip:
            return False
        known = self.seat_known(part)
        return known.is_condemned or known.holds_nothing(fit_of(part.seat, known.size))

    def fates(self, part: HotPart, attempt: int | None = None) -> list[MeasuredReading]:
        """Return the recorded results of a part in one heat, or in all of them, from the oldest."""
        return self.own.all(part.slot, attempt)

    def fate(self, part: HotPart) -> str:
        """Return what happened to a part in this heat."""
        found = self.fates(part, self.attempt)
        return found[-1].text if found else ""

    def went_elsewhere(self, part: HotPart) -> bool:
        """Return True if it was seated on its seat's own page."""
        return any(fact.text in HOME for fact in self.given.facts.history(part.slot.part, part.slot.what))

    def is_home(self, part: HotPart) -> bool:
        ever = self.fates(part)
        return ever[-1].text in HOME if ever else self.went_elsewhere(part)

    @cached_property
    def parts(self) -> list[HotPart]:
        """Return the parts of this heat: all of the half that were not seated before."""

        def gone(part: HotPart) -> bool:
            earlier = [each for each in self.fates(part) if each.attempt != self.attempt and each.text in HOME]
            return bool(earlier) or (self.went_elsewhere(part) and not self.fates(part, self.attempt))

        left = [part for part in self.everything if not gone(part)]
        keys = {part.key for part in left}
        return [part if set(part.after) <= keys else _freed(part, keys) for part in left]

    @cached_property
    def cold_since(self) -> dict[str, datetime]:
        """When each part of this heat went into its chiller."""
        moves = [each for each in self.own.moves if each.kind == Hands.CHILLED and each.attempt == self.attempt]
        return {each.part.uid: each.when for each in moves if each.part and each.when}

    # which way round

    def settled(self, part: HotPart) -> str:
        """Return which way round it goes, as it was settled here."""
        return self.own.said(way_slot(part)) if part.is_bearing else ""

    def found_facing(self, part: HotPart) -> str:
        """Return which way round it was found, as written down when it came out."""
        return self.given.facts.said(part.slot.part, Property.WAY_ROUND) if part.is_bearing else ""

    def contradicted(self, part: HotPart) -> str:
        """Return what was found, where the card says otherwise and nobody has settled it yet."""
        if part.seat is None or part.is_circlip or self.settled(part):
            return ""
        found, on_card = self.found_facing(part), part.seat.faces
        of_one_kind = found.partition("_")[0] == on_card.partition("_")[0]
        return found if found and on_card and of_one_kind and found != on_card else ""

    def unsettled(self) -> list[HotPart]:
        return [part for part in self.parts if self.contradicted(part)]

    def facing(self, part: HotPart) -> str:
        """Return the orientation of a part, as decided, from the card, or as found; empty if unknown."""
        return self.settled(part) or (part.seat.faces if part.seat and part.is_bearing else "") or self.found_facing(part)

    def toward(self, part: HotPart) -> str:
        """Return the direction of its marking when it is installed: toward `you` or the `case`.

        It is empty if unknown.
        """
        side = {"in": "inside", "out": "outside"}.get(self.facing(part).partition("_")[2], "")
        return "" if not side or part.seat is None else "you" if side == part.seat.loads_from else "case"


def way_slot(part: HotPart) -> FactKey:
    """Return where it is written which way round a bearing goes."""
    return FactKey(part.thing.part, Property.WAY_SETTLED)


def _freed(part: HotPart, keys: set[str]) -> HotPart:
    """Return a part without a predecessor if that is already seated."""
    return replace(part, after=tuple(key for key in part.after if key in keys))
