"""What should be so before a station is done, told by facts: met, not met, or unknown."""

from __future__ import annotations

from engines.models import EngineCard, Seat
from engines.parts import CRANK, FLYWHEEL, JOINT
from engines.properties import Property
from jobs.facts import Facts
from jobs.models import Job, RunStation
from stations.base.station import Station
from stations.base.words import NEEDS, fill


def unmet(station: Station, job: Job, facts: Facts, seat: Seat | None) -> list[tuple[str, str]]:
    """Needs of a station that are not met: code and sentence. One counts only where a station that gives it is in this run."""
    run = {stage.key for stage in job.run.all() if stage.state != RunStation.State.SKIPPED}
    counted = [need for need in station.needs if run & set(need.given_by)]
    return [(need.code, fill(NEEDS[need.code], {})) for need in counted if need.met(facts, job.card, seat) is False]


def halves_are_apart(facts: Facts, card: EngineCard, seat: Seat | None) -> bool | None:
    """Whether Split has been signed with the halves apart."""
    return facts.best(JOINT, Property.HALVES_APART) is not None


def crank_is_out(facts: Facts, card: EngineCard, seat: Seat | None) -> bool | None:
    """Whether the crank has left the case; unknown while nobody has said."""
    said = facts.said(CRANK, Property.CRANK_OUT)
    return said != "stays" if said else None


def flywheel_is_off(facts: Facts, card: EngineCard, seat: Seat | None) -> bool | None:
    """Whether the flywheel has come off."""
    return facts.best(FLYWHEEL, Property.FLYWHEEL_OFF) is not None
