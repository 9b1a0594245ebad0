"""Load the facts of a job from the database in a few queries."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from datetime import date
from functools import lru_cache
from typing import Any, TypeVar

from django.db.models import QuerySet

from stator.engines.card_facts import figures_of, limits_of
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import Seat, Subject
from stator.engines.parts import Part, counted_name
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Fact, Facts, GaugeSnapshot, MeasuredReading, Origin, RecordedAction
from stator.jobs.models import DerivedFact, Entry, Job, Move, Reading, RunStation
from stator.jobs.models.log import FactKeyFields
from stator.shop.equipment_snapshot import shelves
from stator.shop.models import Gauge, Person, Shop

Row = TypeVar("Row", bound=FactKeyFields)


def seen(gauge: Gauge | None, on: date) -> GaugeSnapshot | None:
    """Return a gauge as it was on a day."""
    return GaugeSnapshot(gauge.name, gauge.resolution, gauge.repeatability, gauge.calibration(on), gauge.kind) if gauge else None


def place_of(row: FactKeyFields) -> Location:
    return Location(row.end, row.angle_deg, row.clock, row.depth, row.stage)


def slot_of(row: FactKeyFields) -> FactKey | None:
    """The address of a row; None for one of a station that has none yet."""
    if row.subject is None or not row.property:
        return None
    return FactKey(row.subject.part, Property(row.property), place_of(row))


def taken_of(reading: Reading) -> MeasuredReading | None:
    """A reading as plain values; None while it has no address."""
    fact_key = slot_of(reading)
    if fact_key is None:
        return None
    entry = reading.entry
    return MeasuredReading(
        slot=fact_key,
        value=reading.canonical,
        text=reading.text,
        kind=reading.kind,
        attempt=reading.attempt,
        turn=reading.turn,
        gauge=seen(reading.gauge, reading.taken_at.date()),
        station=entry.station.key,
        entry=entry.pk,
        signed=entry.is_signed,
        at=reading.taken_at,
        by=reading.by.called,
        number=reading.pk,
        carried=reading.carried_from_id is not None,
        uncertainty=reading.extra.get("uncertainty"),
        corrected=reading.extra,
    )


NAMES = ("username", "first_name", "last_name", "from_file")  # of a person


def current_entry(station: RunStation, seat: Seat | None) -> Entry | None:
    """Return the entry that no later one replaces. The times of entries do not matter."""
    return Entry.objects.filter(station=station, seat=seat, superseded_by=None).order_by("-pk").first()


def readings_of(entry: Entry, shop: Shop) -> list[Reading]:
    """Return the readings of an entry, the oldest first."""
    found = list(Reading.objects.filter(entry=entry).select_related("subject", "by"))
    gauges = _gauges({each.gauge_id for each in found}, shop)
    for each in found:
        each.entry, each.gauge = entry, gauges.get(each.gauge_id)
    return found


def all_readings_of(job: Job, shop: Shop) -> dict[int, list[Reading]]:
    """Return every reading of a job by its entry, the oldest first, with the withdrawn ones."""
    found = list(Reading.objects.filter(entry__job=job).select_related("subject", "by", "withdrawn_by"))
    gauges = _gauges({each.gauge_id for each in found}, shop)
    by_entry: dict[int, list[Reading]] = {}
    for each in found:
        each.gauge = gauges.get(each.gauge_id)
        by_entry.setdefault(each.entry_id, []).append(each)
    return by_entry


def _gauges(wanted: set[int | None], shop: Shop) -> dict[int | None, Gauge]:
    """Return gauges by number; those in use come from the equipment snapshot."""
    gauges: dict[int | None, Gauge] = {each.pk: each for each in shelves(shop).gauges}
    gone = wanted - gauges.keys() - {None}
    return gauges | (Gauge.objects.in_bulk(gone) if gone else {})


def own_of(entry: Entry | None, readings: list[Reading], before: EntryData | None = None) -> EntryData:
    """Return the data of an entry from readings that were loaded with it; `before` is its data with one reading less."""
    if entry is None:
        return EntryData()
    known = {each.number: each for each in before.taken} if before else {}
    taken = (known.get(reading.pk) or taken_of(reading) for reading in readings if not reading.withdrawn_at)
    moves = before.moves if before else tuple(map(_done, Move.objects.filter(entry=entry).select_related("subject")))
    return EntryData(
        taken=tuple(each for each in taken if each),
        moves=moves,
        chosen=dict(entry.choices),
        skipped=frozenset(entry.choices.get("skipped", [])),
        attempt=entry.attempt,
        ticked=frozenset(entry.ticks),
    )


def _done(move: Move) -> RecordedAction:
    part = move.subject.part if move.subject else None
    return RecordedAction(move.kind, move.attempt, part, place_of(move), move.amount, move.text, move.at, move.detail)


PLACED = ("subject__kind", "subject__uid", "subject__name", "property", "end", "angle_deg", "clock", "depth", "stage")  # an address
OF_ENTRY = ("entry__station__key", "entry_id", "entry__signed_at")
READ = (  # of a reading that others may know of, as one row; what is long in its entry is left there
    *PLACED,
    *("canonical", "text", "kind", "attempt", "turn", "gauge_id", *OF_ENTRY),
    *("taken_at", "pk", "extra__uncertainty", *(f"by__{name}" for name in NAMES)),
)
DERIVED = (  # of what an entry found, as one row
    *PLACED,
    *("value", "text", "kind", "uncertainty", "resolution", "assumed", *OF_ENTRY),
    *(f"entry__signed_by__{name}" for name in NAMES),
)
GAUGE = READ.index("gauge_id")


def _slot(kind: str, uid: str, name: str, what: str, *at: Any) -> FactKey:
    """An address out of its columns."""
    return FactKey(Part(kind, uid, name or counted_name(kind, uid)), Property(what), Location(*at))


def _placed(rows: QuerySet[Row]) -> QuerySet[Row]:
    """Rows with an address."""
    return rows.filter(subject__isnull=False).exclude(property="").order_by("pk")


def facts_of(job: Job, besides: Entry | None = None) -> Facts:
    """Return the facts of a job's engine without those of one entry and of the entry that it replaces.

    An open replacement does not count yet, and a replaced entry no longer counts.
    """
    entries = list(Entry.objects.filter(job=job).values_list("pk", "signed_at", "supersedes_id"))
    left_out = {besides.pk, besides.supersedes_id} if besides else set()
    left_out |= {supersedes for _, signed_at, supersedes in entries if signed_at}
    counts = [pk for pk, signed_at, supersedes in entries if pk not in left_out and (signed_at or not supersedes)]
    taken = list(_placed(Reading.objects.filter(entry__in=counts, withdrawn_at=None, carried_from=None)).values_list(*READ))
    derived = _placed(DerivedFact.objects.filter(entry__in=counts, entry__signed_at__isnull=False)).values_list(*DERIVED)
    gauges = _gauges({row[GAUGE] for row in taken}, Shop.current())
    return Facts(_taken(taken, gauges), (_fact(*row) for row in derived), figures_of(job.card), limits_of(job.card))


def _taken(rows: Iterable[tuple[Any, ...]], gauges: dict[int | None, Gauge]) -> Iterator[MeasuredReading]:
    """Rows of `READ` as plain values."""
    for row in rows:
        value, text, of, attempt, turn, gauge, station, entry, signed_at, at, number, uncertainty, *by = row[len(PLACED) :]
        yield MeasuredReading(
            slot=_slot(*row[: len(PLACED)]),
            value=value,
            text=text,
            kind=of,
            attempt=attempt,
            turn=turn,
            gauge=seen(gauges.get(gauge), at.date()),
            station=station,
            entry=entry,
            signed=signed_at is not None,
            at=at,
            by=_called(*by),
            number=number,
            uncertainty=uncertainty,
        )


def _fact(*row: Any) -> Fact:
    """A row of `DERIVED` as plain values."""
    value, text, of, uncertainty, resolution, assumed, station, entry, signed_at, *by = row[len(PLACED) :]
    return Fact(
        slot=_slot(*row[: len(PLACED)]),
        value=value,
        text=text,
        origin=Origin.DECIDED if value is None else Origin.MEASURED,
        kind=of,
        uncertainty=uncertainty,
        resolution=resolution,
        station=station,
        entry=entry,
        at=signed_at,
        by=_called(*by),
        assumed=assumed,
    )


@lru_cache(256)
def _called(*names: str) -> str:
    """Return what a person is called, of the columns of `NAMES`."""
    return Person(**dict(zip(NAMES, names, strict=True))).called


def subject_of(card_id: int, part: Part) -> Subject:
    """The row of a part, made with the first reading there."""
    made, _ = Subject.objects.get_or_create(card_id=card_id, kind=part.kind, uid=part.uid, defaults={"name": part.name[:80]})
    return made


def columns(card_id: int, slot: FactKey) -> dict[str, object]:
    """Return the columns of a row with a fact key."""
    at = slot.at
    return {
        "subject": subject_of(card_id, slot.part),
        "property": slot.what.value,
        "end": at.end,
        "angle_deg": at.angle_deg,
        "clock": at.clock,
        "depth": at.depth,
        "stage": at.stage,
    }
