"""A station bound to a job, a seat, a person and a moment."""

from __future__ import annotations

from datetime import datetime

from stator.engines.models import Seat
from stator.jobs.fact_loader import current_entry
from stator.jobs.models import Entry, Job, Record, RunStation
from stator.shop.models import Person, Shop
from stator.stations.framework.bound_station import BoundStation
from stator.stations.framework.definition import StationDefinition
from stator.stations.framework.signed_station import SignedStation


def bind(
    station: StationDefinition, job: Job, stage: RunStation, seat: Seat | None, person: Person, now: datetime, entry: Entry | None = None
) -> BoundStation:
    """Return a station for a seat: a signed entry as it was recorded, otherwise the open entry, otherwise without an entry."""
    entry = entry or current_entry(stage, seat)
    if entry and entry.is_signed and _record_of(entry):
        return SignedStation(_for_job(station, job), job, stage, seat, entry, person, now, Shop.current())
    return computed(station, job, stage, seat, person, now, entry)


def _for_job(station: StationDefinition, job: Job) -> StationDefinition:
    return station.variant(station, job) if station.variant else station


def computed(
    station: StationDefinition, job: Job, stage: RunStation, seat: Seat | None, person: Person, now: datetime, entry: Entry | None
) -> BoundStation:
    """The work computed by today's core, also that of a signed entry."""
    return BoundStation(_for_job(station, job), job, stage, seat, entry, person, now, Shop.current())


def _record_of(entry: Entry) -> Record | None:
    return getattr(entry, "record", None)


def again(station: StationDefinition, entry: Entry, person: Person) -> BoundStation:
    """Return a signed entry computed by today's core, as if it were open."""
    assert entry.signed_at is not None
    work = computed(station, entry.job, entry.station, entry.seat, person, entry.signed_at, entry)
    work.computes_again = True
    return work
