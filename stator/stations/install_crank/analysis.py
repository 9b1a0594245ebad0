"""Analysis of a crank being installed in its half: the method, the tool on its thread, turns and torque, and whether it is seated."""

from __future__ import annotations

from dataclasses import dataclass, replace
from enum import StrEnum
from functools import cached_property

from shopmath.bearings import Bearing, fit
from shopmath.crank_installation import InTurn, PullTorque, binding, in_turn, pull_force_n, pull_torque_nm, seated, turns
from shopmath.flywheel_pulling import same_thread
from shopmath.iso286 import limits
from shopmath.screw_threads import Match, identify
from shopmath.validation import BadInput
from shopmath.verdict import IN, OUT, STOP, TOO_CLOSE, Conformity, combined, severity
from stator.engines.fact_keys import FactKey, Location
from stator.engines.fits import bearing_of
from stator.engines.models import EngineCard, Seat
from stator.engines.parts import CRANK, HALVES
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Fact, Facts
from stator.shop.models import PullIn
from stator.stations.framework import StationInput

SCREW_MM, NUT_RADIUS_MM = 16.0, 10.0  # of the pulling screw, where the shelf does not say: estimate
JOURNAL = "k5"  # usual on a crank: estimate
FEWEST_TURNS = 6.0  # by hand in a steel end: about one diameter of a fine thread
SAME_D_MM = 0.3
SEATED_MM = 0.05  # gaps of both sides, shop rule
PULL, DROP = "pull", "drop"
REFUSED = ("webs", "hammer", "impact")  # ways that no crank goes in by
WAYS = (PULL, DROP, *REFUSED)
OUTER, INNER = "outer", "inner"  # gaps of one crank of two, by where they lie
GAPS = tuple(FactKey(CRANK, Property.HOME_GAP, Location(end=end)) for end in ("left", "right"))


class Code(StrEnum):
    """Codes of the verdicts of Install crank."""

    NOT_THAT_WAY = "not that way"
    NO_TOOL = "no tool"
    THREAD_DIFFERS = "thread differs"
    MORE_THREAD = "more thread"
    SET_UP = "set up"
    READY = "ready"
    PULL = "pull"
    AS_EXPECTED = "as expected"
    BINDS = "binds"
    COME_HOME = "come home"
    FELT_NOTHING = "felt nothing"
    DROP = "drop"
    IS_IT_HOME = "is it home"
    HOME = "home"
    NOT_HOME = "not home"
    TOO_CLOSE = "too close"
    AGAINST_FLOAT = "against float"
    OTHER_END = "other end"


class Hands(StrEnum):
    """Actions that Install crank records."""

    BEGUN = "begun"
    HOME = "home"


@dataclass(frozen=True)
class CrankInstallationAnalysis:
    """The analysis of one end of the crank at Install crank. Sizes in mm, torques in N·m."""

    card: EngineCard
    own: EntryData
    known: Facts
    tools: tuple[PullIn, ...]
    end: str = ""  # which end, where a crank that lies in a centre section is pulled into both outer halves
    both: tuple[CrankInstallationAnalysis, ...] = ()  # the same of either end then

    @property
    def ends(self) -> tuple[CrankInstallationAnalysis, ...]:
        return self.both or (self,)

    @property
    def has_two(self) -> bool:
        """Return True if each end is that of a crank of its own, which nothing at the other moves."""
        return bool(self.both) and self.card.two_cranks

    @property
    def gap_slots(self) -> tuple[FactKey, ...]:
        """Return where gaps are measured once it is in: on both sides, or on both of each crank."""
        if not self.has_two:
            return GAPS
        return tuple(FactKey(CRANK, Property.HOME_GAP, Location(end=end, depth=where)) for end in HALVES for where in (OUTER, INNER))

    def at(self, what: Property) -> FactKey:
        """The place of a reading at this end."""
        return FactKey(CRANK, what, Location(end=self.end))

    def value(self, what: Property) -> float | None:
        return self.own.value(self.at(what))

    def every(self, what: Property) -> list[float]:
        """All that was read of a property, oldest first."""
        return [each.value for each in self.own.all(self.at(what)) if each.value is not None]

    def did(self, kind: Hands) -> bool:
        return any(each.at.end == self.end for each in self.own.done(kind))

    @property
    def way(self) -> str:
        chosen = self.own.choice("school")
        return chosen if chosen in WAYS else PULL

    @property
    def is_refused(self) -> bool:
        return self.way in REFUSED

    @cached_property
    def tool(self) -> PullIn | None:
        chosen = self.own.choice("tool")
        matching = [each for each in self.tools if (found := self._against(each)) and found.state != STOP]
        named = next((each for each in self.tools if str(each.pk) == chosen), None)
        return named or (matching[0] if len(matching) == 1 else next(iter(self.tools), None))

    @cached_property
    def main(self) -> Seat | None:
        """The main bearing it goes into: of the half where the crank stays, else the first."""
        mains = [seat for seat in self.card.seats.all() if seat.on == Seat.On.CASE and seat.is_main]
        half = self.end or self.card.crank_stays
        return next((seat for seat in mains if seat.half == half), None) or next(iter(mains), None)

    @cached_property
    def bearing(self) -> Bearing | None:
        try:
            return bearing_of(self.main) if self.main else None
        except BadInput:
            return None

    @property
    def has_begun(self) -> bool:
        return self.did(Hands.BEGUN)

    @property
    def called_home(self) -> bool:
        return self.did(Hands.HOME)

    @property
    def all_home(self) -> bool:
        """Return True if every end was confirmed as seated."""
        return all(each.called_home for each in self.ends)

    @property
    def to_go_mm(self) -> float:
        """Return what is left to the shoulder at this end."""
        travel = self.value(Property.TRAVEL) or 0.0
        pulled = self.done_turns * (self.tool.pitch_mm if self.tool else 0.0)
        return 0.0 if self.called_home else max(0.0, travel - pulled)

    @cached_property
    def turn(self) -> InTurn | None:
        """Return which end is pulled next; None before both are begun, and where there is one only."""
        if not self.both or self.has_two or not all(each.has_begun for each in self.both) or self.all_home:
            return None
        return in_turn({each.end: each.to_go_mm for each in self.both})

    # the thread

    @property
    def end_thread(self) -> Match | None:
        """The thread of the crank's end by its sizes."""
        d, pitch = self.value(Property.END_THREAD_DIAMETER), self.value(Property.END_THREAD_PITCH)
        return next(iter(identify(d, pitch, "right")), None) if d and pitch else None

    @cached_property
    def thread(self) -> Conformity | None:
        """Return whether the tool's adapter is the thread of the crank's end."""
        return self._against(self.tool) if self.tool else None

    def _against(self, tool: PullIn) -> Conformity | None:
        d, pitch = self.value(Property.END_THREAD_DIAMETER), self.value(Property.END_THREAD_PITCH)
        if d is None or pitch is None:
            return None
        found = same_thread(tool.thread_pitch_mm, pitch, "right", "right")
        off = abs(tool.thread_mm - d)
        if found.state != STOP and off > SAME_D_MM:
            return Conformity(STOP, SAME_D_MM - off, "", "other_diameter", {"adapter": tool.thread_mm, "end": d})
        return found

    @property
    def thread_is_wrong(self) -> bool:
        return bool(self.thread and self.thread.state == STOP)

    @property
    def turns_by_hand(self) -> float | None:
        return self.value(Property.ADAPTER_TURNS)

    @property
    def too_shallow(self) -> bool:
        return self.turns_by_hand is not None and self.turns_by_hand < FEWEST_TURNS

    # the pull

    @cached_property
    def torque(self) -> PullTorque | None:
        """Return what the wrench should feel; None while the bearing is not known."""
        if self.bearing is None or self.tool is None:
            return None
        try:
            overlap = fit(limits(JOURNAL, self.bearing.bore_mm), self.bearing.bore_limits_um)
        except BadInput:
            return None
        band = (overlap.min_interference_mm, overlap.max_interference_mm)
        force = pull_force_n(band, self.bearing.bore_mm, self.bearing.width_mm)
        return pull_torque_nm(force, SCREW_MM, self.tool.pitch_mm, NUT_RADIUS_MM)

    @property
    def wanted_turns(self) -> float | None:
        travel = self.value(Property.TRAVEL)
        return turns(travel, self.tool.pitch_mm) if travel and self.tool else None

    @property
    def done_turns(self) -> float:
        return next(iter(reversed(self.every(Property.SCREW_TURNS_DONE))), 0.0)

    @property
    def share_done(self) -> float:
        """Of the travel, 0 to 1."""
        if self.called_home or self.sides:
            return 1.0
        return min(self.done_turns / self.wanted_turns, 1.0) if self.wanted_turns else 0.0

    @property
    def can_begin(self) -> bool:
        return self.thread is not None and self.turns_by_hand is not None and not self.too_shallow and bool(self.wanted_turns)

    @cached_property
    def wrench(self) -> Conformity | None:
        """The last torque against the turns done."""
        torques = self.every(Property.SCREW_TORQUE)
        if not torques or self.torque is None or not self.wanted_turns:
            return None
        return binding(torques[-1], self.torque, self.done_turns, self.wanted_turns)

    # home

    @cached_property
    def gaps(self) -> tuple[Fact, Fact] | None:
        left, right = (self.own.fact(fact_key) for fact_key in GAPS)
        return (left, right) if left and right else None

    @property
    def open_side(self) -> str:
        """Return the side whose half is not installed yet, so that its gap cannot be measured before closing.

        It is empty if the card does not name it.
        """
        return "" if self.both else {"left": "right", "right": "left"}.get(self.card.crank_stays, "")

    @cached_property
    def float_fact(self) -> Fact | None:
        """Return the end play as it was computed before."""
        found = self.known.as_left(CRANK, Property.END_FLOAT_PREDICTED)
        return found if found and found.value is not None else None

    @cached_property
    def sides(self) -> Conformity | None:
        """Return whether the crank is seated, by the gaps of both sides or by the one that can be measured, compared with the end play."""
        if self.has_two:
            return self._of_two()
        if self.gaps is None:
            return self._one_side()
        left, right = self.gaps
        uncertainty = max(left.uncertainty or 0.0, right.uncertainty or 0.0)
        found = seated(left.value or 0.0, right.value or 0.0, SEATED_MM, uncertainty)
        both, known = (left.value or 0.0) + (right.value or 0.0), self.float_fact
        if found.state == OUT or known is None or known.value is None:
            return found
        unsure = combined(uncertainty, uncertainty, known.uncertainty or 0.0)
        if abs(both - known.value) <= unsure:
            return found
        return Conformity(
            TOO_CLOSE, unsure - abs(both - known.value), "", "against_float", {"both": both, "float": known.value, "unsure": unsure}
        )

    def _of_two(self) -> Conformity | None:
        """Return the worse of two cranks, each by its own gaps; the larger gap is named by its end and position."""
        facts = [self.own.fact(fact_key) for fact_key in self.gap_slots]
        found = []
        for end, (outer, inner) in zip(HALVES, (facts[:2], facts[2:]), strict=True):
            if outer is None or inner is None:
                return None
            uncertainty = max(outer.uncertainty or 0.0, inner.uncertainty or 0.0)
            call = seated(outer.value or 0.0, inner.value or 0.0, SEATED_MM, uncertainty)
            where = OUTER if call.values["side"] == "left" else INNER
            found.append(replace(call, values={**call.values, "side": end, "where": where}))
        return min(found, key=lambda call: severity(call.state))

    def _one_side(self) -> Conformity | None:
        """Return the verdict on the gap of the half that the crank is in; a seated crank has no larger gap than the end play."""
        if not self.open_side or not self.own.was_skipped(GAPS[("left", "right").index(self.open_side)]):
            return None
        fact, known = self.own.fact(GAPS[("left", "right").index(self.card.crank_stays)]), self.float_fact
        if fact is None or fact.value is None:
            return None
        values = {"gap": fact.value, "float": known.value if known else 0.0}
        if known is None or known.value is None:
            return Conformity(TOO_CLOSE, 0.0, "", "one_side_unknown", values)
        uncertainty = combined(fact.uncertainty or 0.0, known.uncertainty or 0.0)
        if fact.value - uncertainty > known.value:
            return Conformity(OUT, known.value - fact.value, "", "over_float", values)
        return Conformity(IN, known.value - fact.value, "", "one_side", values)


def crank_in_facts(given: StationInput) -> CrankInstallationAnalysis:
    """Return the analysis of Install crank."""
    tools = tuple(given.shelves.pull_ins) if given.shelves else ()
    one = CrankInstallationAnalysis(given.card, given.own, given.facts, tools)
    if not given.card.has_center_section:
        return one
    both = tuple(replace(one, end=end) for end in HALVES)
    both = tuple(replace(each, both=both) for each in both)
    return _in_hand(both)


def _in_hand(both: tuple[CrankInstallationAnalysis, ...]) -> CrankInstallationAnalysis:
    """The end to be worked at: first the tool on each, then the one that has most to go."""
    left = [each for each in both if not each.has_begun] or [each for each in both if not each.called_home]
    turn = both[0].turn
    needed = next((each for each in left if turn and each.end == turn.end), None)
    felt = next((each for each in left if len(each.every(Property.SCREW_TURNS_DONE)) > len(each.every(Property.SCREW_TORQUE))), None)
    return felt or needed or next(iter(left), both[-1])
