"""Analysis that all cranks under two gauges share: rounds of readings, their uncertainty, and runout against its limit."""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import cache, cached_property, lru_cache
from typing import Any

from shopmath.bearings import MountedClearance
from shopmath.estimate import Estimate
from shopmath.gauges import gauge_uncertainty
from shopmath.runout import RunoutFit, TurnCheck, check_turn, fit
from shopmath.truing import RunoutVector
from shopmath.verdict import IN, OUT, TOO_CLOSE, Conformity, sufficient_measurement
from shopmath.verdict import judge as call
from stator.engines.card_facts import Limit
from stator.engines.clearance import clearance_left
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import EngineCard, Seat
from stator.engines.parts import CRANK
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Facts, GaugeSnapshot
from stator.shop.equipment_snapshot import EquipmentSnapshot
from stator.shop.models import Compound, Gauge
from stator.stations.framework import StationInput

DIAL = "dial"
DIAL_RESOLUTION_MM = 0.01
CURE_S = 24 * 3600.0  # where the compound's own sheet says nothing
TURN = tuple(float(angle) for angle in range(0, 360, 45))
FINER_TURN = tuple(float(angle) for angle in range(0, 360, 30))  # where the gauge is coarse against the limit
COARSE = 10  # a limit of fewer steps of the gauge than this asks the finer turn, twice round
CLOSING = 360.0  # back at the first angle
SIDES = ("left", "right")
HELD, HELD_OF_SEVERAL = ("centres", "seats"), ("centre", "outer", "centres")
BY_TURN, BY_SWING = "turn", "swing"
MOST_TURNS = 6
BETWEEN = "between"  # code of a call on a limit that may mean either, this crank being held otherwise
MOVED = "trued"  # what hands did between two rounds; `text` says which kind of move it was


class Code(StrEnum):
    """Codes of the verdicts of True crank."""

    SET_UP = "set up"
    TURN_IT = "turn it"
    DISAGREE = "disagree"
    WITHIN = "within limit"
    TOO_CLOSE = "too close"
    STRIKE = "strike"
    SQUEEZE = "squeeze"
    WEDGE = "wedge"
    LEAVE = "leave"
    REMEASURE = "remeasure"
    REPLACE = "replace"
    NOT_HELD_SO = "not held so"
    WEB_TURNED = "web turned"
    WELDED = "welded since"


_fit = lru_cache(256)(fit)  # the rounds before this one are fitted with every page, and stay what they are


@cache
def crank(what: Property, end: str = "", angle: float | None = None) -> FactKey:
    return FactKey(CRANK, what, Location(end, angle))


@cache
def reading(side: str, angle: float) -> FactKey:
    """Return the key of the gauge's reading at an end and an angle."""
    return crank(Property.SHAFT_READING, side, angle)


def travel_u_mm(reading_u_mm: float) -> float:
    """Return the expanded uncertainty of a total indicator reading, which is the difference of two readings."""
    return math.sqrt(2) * reading_u_mm


def judge_converted(tir_mm: float, allowed: Estimate, uncertainty_mm: float) -> Conformity:
    """Compare a total indicator reading with a limit for other supports.

    It is OK below the lowest value that the limit may mean here, and not OK above the highest.
    """
    lowest = call(tir_mm, high=allowed.low, uncertainty=uncertainty_mm)
    highest = call(tir_mm, high=allowed.high, uncertainty=uncertainty_mm)
    return lowest if lowest.state == IN else highest if highest.state == OUT else replace(highest, state=TOO_CLOSE, code=BETWEEN)


@dataclass(frozen=True)
class RunoutRoundAnalysis(ABC):
    """Two places under the gauge, turned once or more, then again after each move. Sizes in mm."""

    card: EngineCard
    own: EntryData
    known: Facts
    gauge: GaugeSnapshot | None
    cures_s: float  # how long the shop's retaining compound cures

    @property
    def attempt(self) -> int:
        return self.own.attempt

    def value(self, what: Property, end: str = "") -> float | None:
        return self.own.value(crank(what, end))

    @property
    def held(self) -> str:
        """Return how it is held: the first way where nobody chose."""
        chosen = self.own.choice("held")
        return chosen if chosen in self.ways_held else self.ways_held[0]

    @property
    def ways_held(self) -> tuple[str, ...]:
        return HELD if self.card.layout == EngineCard.Layout.SINGLE else HELD_OF_SEVERAL

    @property
    def how(self) -> str:
        return BY_SWING if self.own.choice("how") == BY_SWING else BY_TURN

    @property
    def resolution(self) -> float:
        return self.gauge.resolution if self.gauge else DIAL_RESOLUTION_MM

    @property
    def is_coarse(self) -> bool:
        """Return True if one step of the gauge is more than a tenth of the limit."""
        return self.how == BY_TURN and self.limit_mm is not None and self.resolution * COARSE > self.limit_mm

    def angles(self, attempt: int | None = None) -> tuple[float, ...]:
        """Return the angles of one end in a round: as it was begun, otherwise eight, or twelve with a coarse gauge."""
        number = attempt or self.attempt
        if number not in self._angles:
            self._angles[number] = self._angles_of(number)
        return self._angles[number]

    @cached_property
    def _angles(self) -> dict[int, tuple[float, ...]]:
        return {}

    def _angles_of(self, number: int) -> tuple[float, ...]:
        begun = {angle for side in SIDES for angle in {*TURN, *FINER_TURN} if self.values(reading(side, angle), number)}
        for turn in (TURN, FINER_TURN):
            if begun - {angle for other in (TURN, FINER_TURN) if other != turn for angle in other}:
                return turn
        return FINER_TURN if self.is_coarse else TURN

    @property
    def turns(self) -> int:
        """Return how many turns this round needs at each place."""
        needed: Any = self.own.chosen.get("turns", {})
        return int(needed.get(str(self.attempt), 2 if self.angles() == FINER_TURN else 1))

    def turns_asked(self, side: str) -> int:
        """Return how many readings each angle of an end needs now. They come from successive turns."""
        read = min(len(self.values(reading(side, angle))) for angle in self.angles())
        return min(read + 1, self.turns)

    @property
    def moves(self) -> list[dict[str, Any]]:
        """Return what was done after each earlier round, and what was measured and expected before it."""
        return [{"round": each.attempt, "kind": each.text, "web": each.at.end, **each.detail} for each in self.own.done(MOVED)]

    # how sure

    @cached_property
    def reading_u_mm(self) -> float:
        """Return the expanded uncertainty of one place: of one reading, or of the mean of its readings."""
        spread = self.gauge.repeatability if self.gauge else None
        places = [reading(side, angle) for side in SIDES for angle in self.angles()]
        if self.how == BY_SWING:
            places = [crank(Property.SHAFT_TIR, side) for side in SIDES]
        return max(
            (gauge_uncertainty(self.resolution, spread, found, kind=DIAL) for fact_key in places if (found := self.values(fact_key))),
            default=self.once_u_mm,
        )

    @property
    def once_u_mm(self) -> float:
        """Return the expanded uncertainty of a single reading."""
        return gauge_uncertainty(self.resolution, self.gauge.repeatability if self.gauge else None, kind=DIAL)

    @property
    def vector_u_mm(self) -> float:
        """Return the standard uncertainty of each component of a runout.

        All readings of a turn contribute to it, but only two to a total indicator reading.
        """
        return self.reading_u_mm / 2 * math.sqrt(2 / len(self.angles())) if self.how == BY_TURN else self.reading_u_mm / 2

    @property
    def tir_u_mm(self) -> float:
        """Return the expanded uncertainty of the total indicator reading."""
        return travel_u_mm(self.reading_u_mm)

    # one round

    def values(self, slot: FactKey, attempt: int | None = None) -> list[float]:
        return self._read.get((slot, attempt or self.attempt), [])

    @cached_property
    def _read(self) -> dict[tuple[FactKey, int], list[float]]:
        """Return the values by place and round, because a page uses each place a dozen times."""
        found: dict[tuple[FactKey, int], list[float]] = {}
        for each in self.own.taken:
            if each.value is not None:
                found.setdefault((each.slot, each.attempt), []).append(each.value)
        return found

    def _mean(self, slot: FactKey, attempt: int) -> float | None:
        found = self.values(slot, attempt)
        return sum(found) / len(found) if found else None

    def round_of(self, side: str, attempt: int | None = None) -> list[float | None]:
        """One end's readings round its circle."""
        return [self._mean(reading(side, angle), attempt or self.attempt) for angle in self.angles(attempt)]

    def fitted(self, side: str, attempt: int | None = None) -> RunoutFit | None:
        """One end's turn, fitted; None until every angle is read."""
        number = attempt or self.attempt
        if (side, number) not in self._fits:
            values = self.round_of(side, number)
            whole = self.how == BY_TURN and None not in values
            self._fits[side, number] = _fit(self.angles(number), tuple(float(value or 0) for value in values)) if whole else None
        return self._fits[side, number]

    @cached_property
    def _fits(self) -> dict[tuple[str, int], RunoutFit | None]:
        return {}

    def swing(self, side: str, attempt: int | None = None) -> RunoutVector | None:
        """Return the runout of one end with its high spot."""
        if self.how == BY_TURN:
            found = self.fitted(side, attempt)
            return RunoutVector(found.tir_mm, found.high_spot_deg) if found else None
        tir = self._mean(crank(Property.SHAFT_TIR, side), attempt or self.attempt)
        high = self.values(crank(Property.HIGH_SPOT, side), attempt)
        return RunoutVector(tir, high[-1] % 360) if tir is not None and high else None

    def needle_mm(self, side: str, attempt: int | None = None) -> float | None:
        """Return the total indicator reading of one end in a round."""
        if self.how == BY_TURN:
            turn = self.fitted(side, attempt)
            return turn.raw_swing_mm if turn else None
        found = self.swing(side, attempt)
        return found.tir_mm if found else None

    @cached_property
    def suspect(self) -> tuple[str, TurnCheck] | None:
        """Return why the values of this round cannot come from a crank on its supports, with the side.

        It is None if they can.
        """
        if self.how != BY_TURN:
            return None
        for side in SIDES:
            if None in self.round_of(side):
                continue
            read = [(angle, value) for angle in self.angles() for value in self.values(reading(side, angle))]
            closing = self.values(reading(side, CLOSING))
            angles, values = [angle for angle, _ in read], [value for _, value in read]
            found = check_turn(angles, values, self.once_u_mm, closing[-1] if closing else None)
            if found.code:
                return side, found
        return None

    # against the limit

    @cached_property
    def limit(self) -> Limit | None:
        found = self.known.limit(Property.CRANK_RUNOUT)
        return found if found and found.high is not None else None

    @property
    def limit_mm(self) -> float | None:
        """The card's limit, where it is meant for this set-up."""
        return self.limit.high if self.limit and not self.limit_is_elsewhere else None

    @property
    def limit_is_elsewhere(self) -> bool:
        """Return True if the limit is for other supports, so that it gives no verdict."""
        return bool(self.limit and self.limit.held and self.limit.held != self.held)

    @property
    def raw_mm(self) -> float | None:
        """The larger travel of the needle: what a manual's limit means."""
        found = [self.needle_mm(side) for side in SIDES]
        return None if None in found else max(each for each in found if each is not None)

    @property
    def allowed(self) -> Estimate | None:
        """Return the value of the card's limit with this setup if it is for another one.

        It is None if that is unknown.
        """
        return None

    @cached_property
    def call(self) -> Conformity | None:
        """The raw runout against the card's limit; none where the card has none for this set-up."""
        return self.judge(self.raw_mm)

    def judge(self, tir_mm: float | None) -> Conformity | None:
        """Compare a total indicator reading with the limit: OK below the lowest value that it may mean here, not OK above the highest."""
        if tir_mm is None:
            return None
        if self.limit_mm is not None:
            return call(tir_mm, high=self.limit_mm, uncertainty=self.tir_u_mm)
        return None if self.allowed is None else judge_converted(tir_mm, self.allowed, self.tir_u_mm)

    @cached_property
    def settled_by(self) -> int | None:
        """Return the total number of turns that would decide a verdict too close to call.

        It is None if it is not, or no number would.
        """
        if self.call is None or self.call.state != TOO_CLOSE or self.call.code == BETWEEN or self.gauge is None:
            return None
        found = sufficient_measurement(
            self.call.margin / math.sqrt(2), self.resolution, self.gauge.repeatability, most=MOST_TURNS, kind=DIAL
        )
        return found.readings if found.readings and found.readings > self.turns else None

    @cached_property
    def clearance(self) -> tuple[Seat, MountedClearance] | None:
        """Return the lowest warm clearance of a main bearing that the card names."""
        found = []
        for seat in self.card.seats.all():
            if seat.is_main:
                seat.card = self.card
                if left := clearance_left(seat):
                    found.append((seat, left[1]))
        return min(found, key=lambda pair: pair[1].low_um, default=None)

    @property
    def joint(self) -> str:
        """Return how the joint is locked."""
        return self.own.said(crank(Property.JOINT_LOCK))

    @property
    def is_welded_since(self) -> bool:
        """Return True if the joint was welded after this round was read."""
        return self.own.said(crank(Property.JOINT_LOCK), self.own.attempt) == "weld"

    @property
    def is_measured(self) -> bool:
        """Return True if a whole round is in."""
        return all(self.swing(side) for side in SIDES)

    @property
    @abstractmethod
    def is_done(self) -> bool:
        """Nothing is worth another move, or it is within its limit."""

    def throw(self) -> float | None:
        stroke = self.card.stroke_mm or self.value(Property.STROKE)
        return stroke / 2 if stroke else None


def gauge_of(given: StationInput) -> GaugeSnapshot | None:
    """Return the dial indicator in use: the selected one, a connected one, or the first."""
    dials = [each for each in given.shelves.gauges if each.kind == DIAL] if given.shelves else []
    chosen = given.own.choice(f"gauge-{DIAL}")
    found: Gauge | None = next((each for each in dials if str(each.pk) == chosen), None)
    found = found or max(dials, key=lambda each: bool(each.port), default=None)
    return GaugeSnapshot(found.name, found.resolution, found.repeatability, kind=DIAL) if found else None


def cures_s(shelves: EquipmentSnapshot | None) -> float:
    """Return how long the shop's retaining compound cures."""
    compounds = shelves.compounds if shelves else ()
    compound = next((each for each in compounds if each.kind == Compound.Kind.RETAINING), None)
    return compound.cure_s if compound and compound.cure_s else CURE_S
