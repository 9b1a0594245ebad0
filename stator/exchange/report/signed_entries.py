"""The signed entries of a job with their records, which are all that its sheet is made of."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from stator.engines.models import Seat
from stator.jobs.models import Entry, Job
from stator.shop.models import Person
from stator.stations.framework.binding import computed
from stator.stations.framework.definition import StationDefinition
from stator.stations.framework.record_snapshot import frozen
from stator.workbench.registry import STATION_BY_KEY, STATIONS

NAMES = {station.key: station.name for station in STATIONS}
HAND_OVER = "hand-over"


@dataclass(frozen=True)
class Recorded:
    """A signed entry with its record."""

    entry: Entry
    content: dict[str, Any]
    drawing: bytes

    @property
    def station(self) -> StationDefinition:
        return STATION_BY_KEY[self.entry.station.key]

    @property
    def name(self) -> str:
        return str(NAMES.get(self.entry.station.key, self.entry.station.key))

    @property
    def part(self) -> str:
        return self.entry.seat.name if isinstance(self.entry.seat, Seat) else ""

    @property
    def by(self) -> str:
        """Return the name of the signer from the record, which is the same in every shop."""
        person = self.entry.signed_by
        return str(self.content.get("by") or (person.get_full_name() or person.username if person else ""))

    @property
    def because(self) -> str:
        """Return why it took the place of another."""
        return str(self.entry.choices.get("because", "")) if self.entry.supersedes_id else ""


def recorded(job: Job, person: Person) -> list[Recorded]:
    """Every signed entry of a job, in working order."""
    return [
        _recorded(job, entry, person)
        for entry in (
            Entry.objects.filter(job=job.pk, signed_at__isnull=False)
            .select_related("station", "seat", "signed_by", "record")
            .defer("result", "ticks")
            .order_by("station__order", "opened_at", "pk")
        )
    ]


def _recorded(job: Job, entry: Entry, person: Person) -> Recorded:
    record = getattr(entry, "record", None)
    if record is None:  # signed before there were records, and not upgraded yet: nothing is written here
        entry.job = job
        work = computed(
            STATION_BY_KEY[entry.station.key], job, entry.station, entry.seat, person, entry.signed_at or entry.opened_at, entry
        )
        record = frozen(work, work.displayed_verdict())
    return Recorded(entry, record.content, bytes(record.drawing))


def standing(signed: list[Recorded]) -> list[Recorded]:
    """Those that no later entry has replaced."""
    replaced = {each.entry.supersedes_id for each in signed if each.entry.supersedes_id}
    return [each for each in signed if each.entry.pk not in replaced]
