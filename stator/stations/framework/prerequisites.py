"""Prerequisites of a station, checked by facts: the names of what is missing, nothing, or unknown."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from stator.engines.models import EngineCard, Seat
from stator.engines.parts import CRANK, JOINT, Part
from stator.engines.properties import Property
from stator.jobs.facts import Facts
from stator.jobs.models import Job, RunStation
from stator.stations.framework.messages import NEEDS, format_message

Lacks = Callable[[Facts, EngineCard, Seat | None], list[str] | None]


@dataclass(frozen=True)
class Prerequisite:
    """A condition that should be met before this station: returns what is missing, or None if nothing is known."""

    code: str
    lacks: Lacks
    given_by: tuple[str, ...] = ()  # stations whose work meets it; it counts only where one of them is in the run


def unmet(needs: Iterable[Prerequisite], job: Job, facts: Facts, seat: Seat | None) -> list[tuple[str, str]]:
    """Return the prerequisites of a station that are not met, as code and sentence.

    A prerequisite counts only if a station that provides it is in the work plan.
    """
    run = {stage.key for stage in job.run.all() if stage.state != RunStation.State.SKIPPED}
    found = []
    for need in needs:
        lacking = need.lacks(facts, job.card, seat) if run & set(need.given_by) else None
        if lacking:
            found.append((need.code, format_message(NEEDS[need.code], {"parts": lacking})))
    return found


def _said_once(part: Part, what: Property) -> Lacks:
    """Lacking until a station has signed that it is so."""
    return lambda facts, card, seat: [] if facts.best(part, what) else [part.name]


def _not_seated(facts: Facts, seats: Iterable[Seat]) -> list[str]:
    """Return the seats whose bearing is not signed as seated."""
    return [seat.name for seat in seats if not facts.best(seat.part, Property.BEARING_HOME)]


def _every_seat(facts: Facts, card: EngineCard, seat: Seat | None) -> list[str]:
    return _not_seated(facts, (each for each in card.seats.all() if each.on == Seat.On.CASE))


def _mains(facts: Facts, card: EngineCard, seat: Seat | None) -> list[str]:
    return _not_seated(facts, (each for each in card.seats.all() if each.role == Seat.Role.MAIN and each.on == Seat.On.CASE))


def _behind_seals(facts: Facts, card: EngineCard, seat: Seat | None) -> list[str]:
    behind = {seal.seat_id for seal in card.seals.all() if seal.seat_id}
    return _not_seated(facts, (each for each in card.seats.all() if each.pk in behind))


def _crank_is_seated(facts: Facts, card: EngineCard, seat: Seat | None) -> list[str]:
    stays = facts.said(CRANK, Property.CRANK_OUT) == "stays"
    return [] if stays or facts.best(CRANK, Property.CRANK_HOME) else [CRANK.name]


HALVES_APART = Prerequisite("halves_apart", _said_once(JOINT, Property.HALVES_APART), ("split",))
EVERY_BEARING_SEATED = Prerequisite("bearings_home", _every_seat, ("heat-and-drop", "fit-cold"))
MAIN_BEARINGS_SEATED = Prerequisite("bearings_home", _mains, ("heat-and-drop",))
HOME_BEHIND_SEALS = Prerequisite("bearings_home", _behind_seals, ("heat-and-drop",))
CRANK_SEATED = Prerequisite("crank_home", _crank_is_seated, ("crank-in",))
CLOSED = Prerequisite("closed", _said_once(JOINT, Property.CASE_CLOSED), ("close",))
