"""Analysis of a case being closed: parts still on the tray, gasket or sealant, and every bolt in its order and round."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime
from enum import StrEnum
from functools import cached_property

from shopmath.case_closing import STAGES, Bolt, BoltLoad, bolt_load, bolt_order, open_time_left
from shopmath.materials import get
from shopmath.screw_threads import AS_RECEIVED, STATES
from shopmath.verdict import STOP, Conformity
from stator.engines.case import is_outside, joints_of
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import EngineCard, Fitted, Joint, Mark
from stator.engines.parts import JOINT
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Fact, Facts
from stator.jobs.models import Timer, TrayPlace
from stator.shop.models import Compound
from stator.stations.close_crankcase.sealants import Films, films_of
from stator.stations.framework import StationInput

ENGAGED_D = 1.5  # depth of thread in the case, diameters: estimate where nobody has measured
USUAL_UTS_MPA = 200.0
BOLT_S, CLOSE_S, BEAD_S = 7.0, 60.0, 90.0  # seconds a bolt takes a round, putting parts together, a bead round a face: estimate
SEALANTS = (Compound.Kind.ANAEROBIC, Compound.Kind.SOLVENT, Compound.Kind.SILICONE)
GASKET, DRY, SEALANT = "gasket", "dry", "sealant"
SOUND = "sound"  # a bolt that had a fault, put right
CANNOT_HOLD = ("snapped", "stripped")
OPEN = "open"  # the sealant's clock
EACH_CLOSING = frozenset(
    {Property.GEARS, Property.GEAR_FAULT, Property.BOLT_TORQUE, Property.SQUEEZED_OUT}
)  # done anew where the case was opened again


class Code(StrEnum):
    """Codes of the verdicts of Close crankcase."""

    ON_THE_TRAY = "on the tray"
    GEAR = "gear"
    NO_BOLTS = "no bolts"
    JOINT_DIFFERS = "joint differs"
    TOO_MUCH = "too much torque"
    SETTING = "sealant sets"
    BOLT_FAULT = "bolt fault"
    READY = "ready"
    CLOSE = "close"
    TIGHTEN = "tighten"
    CLOSED = "closed"
    TOO_LONG = "too long"
    NOT_THERE = "not there"


class Hands(StrEnum):
    """Actions that Close crankcase records."""

    CLOSING = "closing"
    AGAIN = "again"


def fault_of(mark: Mark) -> FactKey:
    """Return the key of a bolt's failure (snapped, or thread stripped) and of its repair."""
    return FactKey(mark.part, Property.FASTENER_FAULT)


def torque_of(mark: Mark, round_number: int) -> FactKey:
    """Return the key of the torque of a bolt in a round, counted from 1."""
    return FactKey(mark.part, Property.BOLT_TORQUE, Location(stage=round_number))


@dataclass(frozen=True)
class ClosingAnalysis:
    """All that Close computes of joints that close together: along the crank, or one cover.

    Torques in N·m, forces in N, times in s.
    """

    joints: tuple[Joint, ...]
    own: EntryData
    known: Facts
    on_the_tray: tuple[TrayPlace, ...]
    compounds: tuple[Compound, ...]
    timers: tuple[Timer, ...]
    now: datetime | None
    groups: tuple[ClosingAnalysis, ...] = ()  # the same of all that closes together, in the order in which it closes

    @property
    def card(self) -> EngineCard:
        return self.joints[0].card

    @property
    def every(self) -> tuple[ClosingAnalysis, ...]:
        return self.groups or (self,)

    @property
    def is_outside(self) -> bool:
        """Return True if a cover or a gearbox half is installed."""
        return is_outside(self.joints[0])

    def of(self, what: Property) -> FactKey:
        """The place of an answer about these joints."""
        return FactKey(self.joints[0].part, what)

    def said(self, what: Property) -> str:
        found = [each for each in self.own.all(self.of(what)) if what not in EACH_CLOSING or each.attempt >= self.since]
        return found[-1].text if found else ""

    # since when it is closed anew

    @property
    def since(self) -> int:
        """Return the first attempt that counts; of several joints each may have been opened again separately."""
        if len(self.every) == 1:
            return self.own.attempt
        again = (each.attempt for each in self.own.done(Hands.AGAIN) if each.part == self.joints[0].part)
        return max(again, default=1)

    @property
    def clock_key(self) -> str:
        """Of the sealant's clock: one for all that closes together."""
        return OPEN if self.joints[0].is_first else f"{OPEN}-{self.joints[0].uid}"

    @cached_property
    def clock(self) -> Timer | None:
        return next((each for each in self.timers if each.key == self.clock_key and each.attempt >= self.since), None)

    @property
    def holes(self) -> list[str]:
        """Holes of these parts that the card has as left open."""
        parts = {uid for joint in self.joints for uid in (joint.one, joint.other)}
        return (
            [each.name for each in self.card.fitted.all() if each.kind == Fitted.Kind.HOLE and each.half in parts] if self.card.pk else []
        )

    # the face

    @cached_property
    def marks(self) -> tuple[Mark, ...]:
        """Return the marks on these joints."""
        uids = {joint.uid for joint in self.joints}
        return tuple(mark for mark in self.card.marks.all() if mark.joint in uids)

    @property
    def joint(self) -> Joint:
        """Return the joint of the next bolt, or the first joint that has bolts."""
        left = self.left_in(self.round_now) if self.round_now else []
        uid = next((mark.joint for mark in [*left, *self.ordered]), "")
        return next((joint for joint in self.joints if joint.uid == uid), self.joints[0])

    # the bolts

    @cached_property
    def ordered(self) -> list[Mark]:
        """Fasteners in the order they are tightened."""
        found: list[Mark] = []
        for joint in self.joints:
            by_name = {mark.name: mark for mark in self.marks if mark.is_fastener and mark.joint == joint.uid}
            if by_name:
                order = bolt_order([Bolt(mark.name, mark.x_mm, mark.y_mm) for mark in by_name.values()])
                found += [by_name[name] for name in order]
        return found

    @property
    def rounds(self) -> tuple[float, ...]:
        """Share of the full torque in each round."""
        return STAGES

    @property
    def more_than_manual(self) -> bool:
        return self.own.choice("school") == "more"

    @property
    def by_card(self) -> bool:
        """Return True if every fastener on the card has its torque."""
        return bool(self.ordered) and all(mark.torque_nm for mark in self.ordered)

    def torque(self, mark: Mark) -> float:
        """Return what one bolt is tightened to in the last round."""
        instead = self.own.value(self.of(Property.BOLT_TORQUE_INSTEAD)) if self.more_than_manual else None
        return instead or mark.torque_nm or self.own.value(self.of(Property.BOLT_TORQUE_WANTED)) or 0.0

    @property
    def bolts_can_be_asked(self) -> bool:
        geared = self.is_outside or self.said(Property.GEARS) not in ("", "not")
        return bool(self.ordered) and all(self.torque(mark) > 0 for mark in self.ordered) and geared

    @property
    def on_threads(self) -> str:
        """Return what is on the bolts' threads."""
        chosen = self.own.choice("threads", AS_RECEIVED)
        return chosen if chosen in STATES else AS_RECEIVED

    @cached_property
    def loads(self) -> list[tuple[Mark, BoltLoad]]:
        """Return what the torque puts on each kind of fastener, the worst first."""
        case = get(self.card.case_material)
        uts = case.uts_mpa[0] if case.uts_mpa else USUAL_UTS_MPA
        kinds = {(mark.d_mm, mark.pitch_mm, self.torque(mark)): mark for mark in self.ordered if self.torque(mark) > 0}
        found = [
            (mark, bolt_load(torque, d, pitch, ENGAGED_D * d, uts, state=self.on_threads)) for (d, pitch, torque), mark in kinds.items()
        ]
        return sorted(found, key=lambda pair: pair[1].call.margin)

    @property
    def worst_load(self) -> Conformity | None:
        return self.loads[0][1].call if self.loads else None

    def is_done(self, mark: Mark, round_number: int) -> bool:
        fact_key = torque_of(mark, round_number)
        return any(each.attempt >= self.since for each in self.own.all(fact_key)) or self.own.was_skipped(fact_key)

    def rounds_done(self, mark: Mark) -> int:
        return sum(self.is_done(mark, number) for number in range(1, len(self.rounds) + 1))

    @property
    def done(self) -> int:
        return sum(self.rounds_done(mark) for mark in self.ordered)

    @property
    def to_do(self) -> int:
        return len(self.rounds) * len(self.ordered)

    @property
    def round_now(self) -> int | None:
        """The first round in which a bolt is still to be tightened, counted from 1."""
        return next((number for number in range(1, len(self.rounds) + 1) if self.left_in(number)), None)

    def left_in(self, number: int) -> list[Mark]:
        """Bolts still to be tightened in a round, in their order."""
        return [mark for mark in self.ordered if not self.is_done(mark, number)]

    @property
    def all_tight(self) -> bool:
        return bool(self.ordered) and self.done == self.to_do

    @property
    def faces_together(self) -> bool:
        """Return True if the first round is through."""
        return bool(self.ordered) and all(self.is_done(mark, 1) for mark in self.ordered)

    def reached(self, mark: Mark) -> float:
        """Return the torque of the last round as read, or as specified if it was not read."""
        fact_key = torque_of(mark, len(self.rounds))
        read = self.own.value(fact_key) if any(each.attempt >= self.since for each in self.own.all(fact_key)) else None
        return read or self.torque(mark)

    def fault(self, mark: Mark) -> str:
        """Return the failure of a bolt or its thread, as recorded here or at Split crankcase; empty after its repair."""
        said = self.own.said(fault_of(mark)) or self.known.said(mark.part, Property.FASTENER_FAULT)
        return "" if said == SOUND else said

    def with_fault(self, *faults: str) -> list[Mark]:
        return [mark for mark in self.ordered if self.fault(mark) in faults]

    # between the faces

    @property
    def sealant_choice(self) -> str:
        """Key of the choice of what goes between these faces."""
        return SEALANT if self.joints[0].is_first else f"{SEALANT}-{self.joints[0].uid}"

    @cached_property
    def sealant(self) -> Compound | None:
        chosen = self.own.choice(self.sealant_choice)
        return next((each for each in self.sealants if str(each.pk) == chosen), None)

    @cached_property
    def films(self) -> Films:
        """The sealant of each stretch of the joint."""
        return films_of(self.sealant, self.sealants, lambda place: self.own.choice(f"{SEALANT}-at-{place}"), outside=self.is_outside)

    @property
    def faces(self) -> str:
        """On one face or both: as chosen, else as its kind is used."""
        return self.own.choice("faces", self.films.usual_faces)

    @property
    def sealants(self) -> list[Compound]:
        """Return the shop's compounds that seal a joint."""
        return [each for each in self.compounds if each.kind in SEALANTS]

    @cached_property
    def gasket_counted(self) -> Fact | None:
        """Return the thickness of the crushed gasket used at Set end play, mm: 0 for none.

        It is None if it is unknown.
        """
        return self.known.as_left(self.joints[0].part, Property.GASKET_THICKNESS)

    @property
    def between(self) -> str:
        """Return what is between the mating surfaces: a gasket, a sealant or nothing; by default the gasket of Set end play."""
        chosen = self.own.choice(self.sealant_choice)
        if self.sealant:
            return SEALANT
        counted = bool(self.gasket_counted and self.gasket_counted.value)
        return GASKET if chosen == GASKET or (not chosen and counted) else DRY

    @property
    def joint_differs(self) -> str:
        """Return how the joint differs from the one of the end play; empty if it does not."""
        if self.gasket_counted is None:
            return ""
        if self.gasket_counted.value and self.between != GASKET:
            return "gasket_missing"
        return "gasket_added" if not self.gasket_counted.value and self.between == GASKET else ""

    @property
    def is_closing(self) -> bool:
        """Return True if the sealant is on, or there is none and closing has begun."""
        begun = (each for each in self.own.done(Hands.CLOSING) if (each.part or JOINT) == self.joints[0].part)
        return any(each.attempt >= self.since for each in begun)

    @cached_property
    def open_time(self) -> Conformity | None:
        """Compare the sealant's open time with the first round, which closes the joint.

        It is None without a sealant that dries.
        """
        clock = self.clock
        if clock is None or clock.due_at is None or self.now is None or self.faces_together:
            return None
        whole = (clock.due_at - clock.started_at).total_seconds()
        return open_time_left(whole, max(0.0, (self.now - clock.started_at).total_seconds()), self.steps_s)

    @property
    def steps_s(self) -> list[float]:
        """Return the remaining steps until every joint is drawn together, s: bead and part, then the first round of its bolts."""
        steps = []
        for joint in self.joints:
            bolts = [mark for mark in self.ordered if mark.joint == joint.uid]
            begun = any(self.is_done(mark, 1) for mark in bolts) if bolts else self.done > 0
            steps += [] if begun else [CLOSE_S + (BEAD_S if len(self.joints) > 1 else 0.0)]
            steps.append(BOLT_S * sum(not self.is_done(mark, 1) for mark in bolts))
        return steps

    @cached_property
    def plan(self) -> Conformity | None:
        """Compare the sealant's open time with all steps before the first bead is applied.

        It is None without a sealant that dries.
        """
        if self.is_closing or not self.films.open_s or not self.ordered:
            return None
        return open_time_left(self.films.open_s, 0.0, [self.films.wait_s, *self.steps_s])

    @property
    def is_stopped(self) -> bool:
        """Return True if the torque asked for would strip a thread or stretch a bolt."""
        return bool(self.worst_load and self.worst_load.state == STOP)


def close_facts(given: StationInput) -> ClosingAnalysis:
    """Return what Close knows, built once for a page or an act: of what is closed now."""
    tray = tuple(place for place in given.tray if not place.emptied_at)
    compounds = tuple(given.shelves.compounds) if given.shelves else ()
    groups = []
    for joints in together(given.card, given.facts):
        outside = {joint.one for joint in joints_of(given.card) if is_outside(joint)}
        here = tuple(place for place in tray if place.half not in outside or place.half == joints[0].one)
        groups.append(ClosingAnalysis(joints, given.own, given.facts, here, compounds, given.timers, given.now))
    whole = tuple(groups)
    every = tuple(replace(each, groups=whole) for each in whole)
    at_hand = next((each for each in every if not each.all_tight), every[-1])
    return replace(at_hand, groups=every)


def together(card: EngineCard, known: Facts) -> list[tuple[Joint, ...]]:
    """Return groups of joints that are closed together: those along the crank, then each cover; not those that remained closed."""
    found = joints_of(card)
    opened = [joint for joint in found if known.said(joint.part, Property.HALVES_APART)]
    left = opened or found  # nobody has said which were opened
    along = tuple(joint for joint in left if not is_outside(joint))
    covers = [(joint,) for joint in reversed(left) if is_outside(joint)]
    return [*([along] if along else []), *covers]
