"""Analysis of a flywheel being removed: puller and hub, thread against taper, present torque, and the removed flywheel."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import datetime
from enum import StrEnum
from functools import cached_property

from shopmath.flywheel_pulling import (
    CONDITIONS,
    PullerLoad,
    Screw,
    bound_early,
    pull,
    released_late,
    same_size,
    same_thread,
    torque_call,
    wanted_force_n,
)
from shopmath.screw_threads import Match, identify, minor_diameter_mm
from shopmath.taper import key_shift_deg
from shopmath.verdict import Conformity
from stator.engines.fact_keys import FactKey
from stator.engines.models import EngineCard
from stator.engines.parts import FLYWHEEL
from stator.engines.properties import Property
from stator.jobs.facts import EntryData
from stator.jobs.models import Timer
from stator.shop.models import Puller
from stator.stations.framework import StationInput

FEW_TURNS = 3  # so few that it matters why
LOADED_S = 600.0  # left loaded before the next turn
WARM_C = 80.0  # of the boss: magnets and their glue stand no more
TIP_RADIUS_MM = 3.0  # of a centre screw whose tip nobody measured
LOADED = "loaded"  # the clock of a puller left loaded


class Code(StrEnum):
    """Codes of the verdicts of Remove flywheel."""

    WHICH_THREAD = "which thread"
    WRONG_THREAD = "wrong thread"
    WRONG_SIZE = "wrong size"
    CLEAN_FIRST = "clean first"
    MORE_THREAD = "more thread"
    UNSURE = "unsure"
    THREAD_HOLDS = "thread holds"
    PULLING = "pulling"
    HOLDS_HARD = "holds hard"
    STOP = "stop"
    LOOK_AT_IT = "look at it"
    OFF = "off"
    OFF_STEPPED = "off, key stepped"
    OFF_DAMAGED = "off, damaged"


class Hands(StrEnum):
    """Actions that Remove flywheel records."""

    FREED = "freed"


def at(what: Property) -> FactKey:
    return FactKey(FLYWHEEL, what)


FAULTS = {  # what is found once it is off -> what it is called in the sentences, the gravest first
    (Property.TAPER_CONDITION, "red"): "taper_picked_up",
    (Property.KEY_CONDITION, "sheared"): "key_sheared",
    (Property.COILS, "rubbed"): "coils_rubbed",
    (Property.MAGNETS, "cracked"): "magnet_cracked",
}
OF_PULLER = {
    Property.PULLER_DIAMETER: "thread_mm",
    Property.PULLER_PITCH: "pitch_mm",
    Property.CENTRE_SCREW_DIAMETER: "screw_mm",
    Property.CENTRE_SCREW_PITCH: "screw_pitch_mm",
}


@dataclass(frozen=True)
class FlywheelRemovalAnalysis:
    """The analysis of Remove flywheel.

    Sizes in mm, torques in N·m; turns are read as an angle in degrees.
    """

    card: EngineCard
    own: EntryData
    puller: Puller | None
    pullers: tuple[Puller, ...]
    timers: tuple[Timer, ...]
    now: datetime | None

    @property
    def is_free(self) -> bool:
        """Return True if the taper has released."""
        return self.own.did(Hands.FREED)

    @property
    def condition(self) -> str:
        """Return how the taper was assembled or in what state it was."""
        chosen = self.own.choice("condition", "clean")
        return chosen if chosen in CONDITIONS else "clean"

    @property
    def holding(self) -> str:
        return self.own.choice("holding", "flywheel")

    @property
    def loaded(self) -> Timer | None:
        """The clock of the wait that was begun last."""
        return next((timer for timer in reversed(self.timers) if timer.key == LOADED), None)

    # threads

    @property
    def card_has_boss(self) -> bool:
        return bool(self.card.boss_d_mm and self.card.boss_pitch_mm)

    def size(self, what: Property) -> float | None:
        """Return a size from a reading, the card or the shop's puller."""
        read = self.own.value(at(what))
        if read is not None:
            return read
        if what == Property.BOSS_PITCH:
            return self.card.boss_pitch_mm
        if what == Property.BOSS_DIAMETER and self.card.boss_d_mm and self.card.boss_pitch_mm:
            return minor_diameter_mm(self.card.boss_d_mm, self.card.boss_pitch_mm)
        return getattr(self.puller, OF_PULLER[what], None) if self.puller and what in OF_PULLER else None

    def hand(self, what: Property) -> str:
        """Return `right` or `left` from the answer, the card or the shop's puller, otherwise the usual one."""
        said = self.own.said(at(what))
        known = self.card.boss_hand if what == Property.BOSS_HAND else self.puller.hand if self.puller else ""
        return said or known or "right"

    @property
    def hand_assumed(self) -> bool:
        """Return True if the direction of the hub's thread is assumed."""
        return not self.own.said(at(Property.BOSS_HAND)) and not self.card.boss_hand

    def match(self, side: str) -> Match | None:
        """The standard thread nearest to what was measured on the `puller` or in the `boss`."""
        puller = side == "puller"
        d = self.size(Property.PULLER_DIAMETER if puller else Property.BOSS_DIAMETER)
        pitch = self.size(Property.PULLER_PITCH if puller else Property.BOSS_PITCH)
        if d is None or pitch is None:
            return None
        hand = self.hand(Property.PULLER_HAND if puller else Property.BOSS_HAND)
        return next(iter(identify(d, pitch, hand, internal=not puller)), None)

    @cached_property
    def same(self) -> Conformity | None:
        """Return whether puller and boss have one thread; None while a pitch is unknown."""
        mine, its = self.size(Property.PULLER_PITCH), self.size(Property.BOSS_PITCH)
        if mine is None or its is None:
            return None
        found = same_thread(mine, its, self.hand(Property.PULLER_HAND), self.hand(Property.BOSS_HAND))
        puller_d, boss_d = self.size(Property.PULLER_DIAMETER), self.size(Property.BOSS_DIAMETER)
        if found.state == "in" and puller_d and boss_d:
            found = same_size(puller_d, boss_d, its)
        return found

    @property
    def is_wrong(self) -> bool:
        return self.same is not None and self.same.state == "stop"

    @property
    def is_wrong_size(self) -> bool:
        return self.is_wrong and self.same is not None and self.same.code in ("too_small", "too_large")

    @property
    def turns(self) -> float | None:
        """Turns it went in by hand."""
        found = self.own.value(at(Property.PULLER_TURNS))
        return found / 360 if found is not None else None

    @property
    def depth_turns(self) -> float | None:
        """Turns the boss's own thread would take, by its depth."""
        depth, its = self.own.value(at(Property.BOSS_DEPTH)), self.size(Property.BOSS_PITCH)
        return depth / its if depth and its else None

    @property
    def is_shallow(self) -> bool:
        """So few turns that it matters why."""
        return self.turns is not None and self.turns < FEW_TURNS and not self.is_free

    @property
    def is_dirty(self) -> bool:
        """Return True if the thread is right but bound early because of a coating or damage."""
        return self.turns is not None and self.depth_turns is not None and bound_early(self.turns, self.depth_turns)

    # the pull

    @cached_property
    def pull(self) -> PullerLoad | None:
        """Weighed once thread, turns and screw are known and the threads agree."""
        d, pitch = self.size(Property.PULLER_DIAMETER), self.size(Property.PULLER_PITCH)
        screw_d, screw_pitch = self.size(Property.CENTRE_SCREW_DIAMETER), self.size(Property.CENTRE_SCREW_PITCH)
        if d is None or pitch is None or screw_d is None or screw_pitch is None:
            return None
        if self.turns is None or self.same is None or self.is_wrong:
            return None
        torque = self.card.nut_torque_nm or self.own.value(at(Property.NUT_TORQUE_WANTED))
        nut = self.card.nut_d_mm or self.own.value(at(Property.NUT_THREAD))
        ratio = self.card.taper_ratio
        needed = wanted_force_n(torque, nut, ratio, self.condition) if torque and nut and ratio else None
        radius = self.puller.tip_radius_mm if self.puller else TIP_RADIUS_MM
        return pull(d, pitch, self.turns, Screw(screw_d, screw_pitch, radius), needed)

    @property
    def torque_nm(self) -> float | None:
        """Torque on the centre screw now."""
        found = self.own.all(at(Property.PULLING_TORQUE))
        return found[-1].value if found else None

    @property
    def torques_nm(self) -> list[float]:
        return [each.value for each in self.own.all(at(Property.PULLING_TORQUE)) if each.value]

    @property
    def torque_call(self) -> Conformity | None:
        return torque_call(self.torque_nm, self.pull) if self.pull and self.torque_nm is not None else None

    @property
    def released_hard(self) -> bool:
        """Return True if it released at far more than was expected."""
        return bool(self.is_free and self.pull and self.torques_nm and released_late(max(self.torques_nm), self.pull.frees_nm))

    # once it is off

    @property
    def faults(self) -> list[str]:
        """Return what is wrong with it, the gravest first."""
        return [fault for (what, answer), fault in FAULTS.items() if self.own.said(at(what)) == answer]

    @property
    def step_mm(self) -> float | None:
        """Return the offset of the key; None if it has none."""
        return self.own.value(at(Property.KEY_STEP)) if self.own.said(at(Property.KEY_CONDITION)) == "stepped" else None

    @property
    def shift_deg(self) -> float | None:
        """Return the angle by which the sheared key rotated the flywheel on its shaft."""
        shaft = self.card.shaft_d_mm
        return key_shift_deg(self.step_mm, shaft) if self.step_mm and shaft else None


def flywheel_off_facts(given: StationInput) -> FlywheelRemovalAnalysis:
    """Return the analysis of Remove flywheel."""
    shelf = given.shelves.pullers if given.shelves else ()
    found = FlywheelRemovalAnalysis(given.card, given.own, None, shelf, given.timers, given.now)
    if "puller" in given.own.chosen:
        puller = next((each for each in shelf if str(each.pk) == given.own.choice("puller")), None)
    else:
        puller = only_match(found, shelf)
    return replace(found, puller=puller)


def only_match(found: FlywheelRemovalAnalysis, shelf: Iterable[Puller]) -> Puller | None:
    """Return the only puller of the shop with the hub's thread, if that is known and no puller was measured."""
    d, pitch = found.size(Property.BOSS_DIAMETER), found.size(Property.BOSS_PITCH)
    if d is None or pitch is None or found.own.has(at(Property.PULLER_PITCH)):
        return None
    alike = [each for each in shelf if each.thread_mm and each.pitch_mm and _fits(each, d, pitch, found.hand(Property.BOSS_HAND))]
    return alike[0] if len(alike) == 1 else None


def _fits(puller: Puller, d: float, pitch: float, hand: str) -> bool:
    same = same_thread(puller.pitch_mm, pitch, puller.hand or "right", hand or "right")
    return same.state == "in" and same_size(puller.thread_mm, d, pitch).state == "in"
