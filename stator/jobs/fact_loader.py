"""Facts of a job out of the database: a few questions, whatever the job holds."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator
from datetime import date
from functools import lru_cache
from typing import Any, TypeVar

from django.db.models import F, QuerySet

from stator.engines.card_facts import figures_of, limits_of
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import EngineCard, Seat, Subject
from stator.engines.parts import Part, counted_name
from stator.engines.properties import Property
from stator.engines.rows import holds
from stator.jobs.asked import Asked
from stator.jobs.facts import EntryData, Fact, Facts, FactSet, GaugeSnapshot, MeasuredReading, Origin, RecordedAction, account_of
from stator.jobs.models import DerivedFact, Entry, Job, Move, Reading, RunStation
from stator.jobs.models.log import FactKeyFields
from stator.shop.equipment_snapshot import shelves
from stator.shop.models import Gauge, Person, Shop

Row = TypeVar("Row", bound=FactKeyFields)


def seen(gauge: Gauge | None, on: date) -> GaugeSnapshot | None:
    """A gauge as it was on a day."""
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
    slot = slot_of(reading)
    if slot is None:
        return None
    entry = reading.entry
    return MeasuredReading(
        slot=slot,
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


NAMES = ("username", "first_name", "last_name", "from_file")  # of a person, in the order of the model: `from_db` wants it
_BY = {f"by_{name}": F(f"by__{name}") for name in NAMES}


_current = Asked(lambda station: Entry.objects.filter(station=station, seat=None, superseded_by=None).order_by("-pk")[:1], 1)
_current_at = Asked(lambda station, seat: Entry.objects.filter(station=station, seat=seat, superseded_by=None).order_by("-pk")[:1], 2)


def current_entry(station: RunStation, seat: Seat | None) -> Entry | None:
    """The entry that counts: the one that no later one supersedes, whatever any clock says."""
    found = _current_at.models(station.pk, seat.pk) if seat else _current.models(station.pk)
    return found[0] if found else None


_of_entry = Asked(lambda entry: Reading.objects.filter(entry=entry).select_related("subject").annotate(**_BY), 1)
_moves = Asked(lambda entry: Move.objects.filter(entry=entry).select_related("subject"), 1)


def readings_of(entry: Entry, shop: Shop) -> list[Reading]:
    """Readings of an entry, the oldest first. A person or a gauge that took many of them is one object, not one for each."""
    found = _of_entry.models(entry.pk)
    gauges = _gauges({each.gauge_id for each in found}, shop)
    people: dict[int, Person] = {}
    for each in found:
        if each.by_id not in people:
            people[each.by_id] = Person.from_db(None, ("id", *NAMES), (each.by_id, *(getattr(each, name) for name in _BY)))
        holds(each, entry=entry, by=people[each.by_id], gauge=gauges.get(each.gauge_id))
    return found


_of_job = Asked(lambda job: Reading.objects.filter(entry__job=job), 1)
_subjects = Asked(lambda card: Subject.objects.filter(card=card), 1)


def all_readings_of(job: Job, shop: Shop) -> dict[int, list[Reading]]:
    """Every reading of a job by its entry, the oldest first, the withdrawn among them."""
    found = _of_job.models(job.pk)
    gauges = _gauges({each.gauge_id for each in found}, shop)
    subjects: dict[int | None, Subject] = {each.pk: each for each in _subjects.models(job.card_id)}
    named = {each.by_id for each in found} | {each.withdrawn_by_id for each in found}
    people: dict[int | None, Person] = {**Person.objects.in_bulk(named - {None})}
    by_entry: dict[int, list[Reading]] = {}
    for each in found:
        more = {"gauge": gauges.get(each.gauge_id), "subject": subjects.get(each.subject_id)}
        holds(each, by=people[each.by_id], withdrawn_by=people.get(each.withdrawn_by_id), **more)
        by_entry.setdefault(each.entry_id, []).append(each)
    return by_entry


def _gauges(wanted: set[int | None], shop: Shop) -> dict[int | None, Gauge]:
    """Gauges by their numbers, those on the shelves as they are known already."""
    gauges: dict[int | None, Gauge] = {each.pk: each for each in shelves(shop).gauges}
    gone = wanted - gauges.keys() - {None}
    return gauges | (Gauge.objects.in_bulk(gone) if gone else {})


def own_of(entry: Entry | None, readings: list[Reading], before: EntryData | None = None) -> EntryData:
    """Return what an entry holds itself, of readings that were fetched with it; `before` is what it held when it had one reading less."""
    if entry is None:
        return EntryData()
    known = {each.number: each for each in before.taken} if before else {}
    taken = (known.get(reading.pk) or taken_of(reading) for reading in readings if not reading.withdrawn_at)
    moves = before.moves if before else tuple(map(_done, _moves.models(entry.pk)))
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
    *("taken_at", "pk", "carried_from_id", "extra__uncertainty", *(f"by__{name}" for name in NAMES)),
)
DERIVED = (  # of what an entry found, as one row
    *PLACED,
    *("value", "text", "kind", "uncertainty", "resolution", "assumed", *OF_ENTRY),
    *(f"entry__signed_by__{name}" for name in NAMES),
)
GAUGE, CARRIED, READ_IN, FOUND_IN = *map(READ.index, ("gauge_id", "carried_from_id", "entry_id")), DERIVED.index("entry_id")


def _slot(kind: str, uid: str, name: str, what: str, *at: Any) -> FactKey:
    """An address out of its columns."""
    return FactKey(Part(kind, uid, name or counted_name(kind, uid)), Property(what), Location(*at))


def _placed(rows: QuerySet[Row]) -> QuerySet[Row]:
    """Rows with an address."""
    return rows.filter(subject__isnull=False).exclude(property="").order_by("pk")


_entries = Asked(
    lambda job: Entry.objects.filter(job=job).order_by("pk").values_list("pk", "signed_at", "supersedes_id", "digest__value"),
    1,
)
_of_open = Asked(
    lambda job: _placed(Reading.objects.filter(entry__job=job, entry__signed_at=None, withdrawn_at=None)).values_list(*READ),
    1,
)
MOST_KEPT = 256  # accounts of signed entries, about 8 kB each
_kept: dict[tuple[int, str, str], FactSet] = {}  # the one asked for last, last


def facts_of(job: Job, besides: Entry | None = None) -> Facts:
    """All that is known of a job's engine, without what one entry holds itself (and what the one that it replaces held).

    What counts is what stands: an open replacement does not count yet, a replaced entry not any more. What a signed entry tells never
    changes: it is read once, and kept by its digest for as long as gauges and people are called as they are.
    """
    rows = _entries.stored(job.pk)
    left_out = {besides.pk, besides.supersedes_id} if besides else set()
    replaced = {supersedes for _, signed, supersedes, _ in rows if signed}
    counts = [row for row in rows if row[0] not in left_out | replaced]
    signed = [(pk, digest or "") for pk, signed, _, digest in counts if signed]
    still_open = {pk for pk, signed, supersedes, _ in counts if not (signed or supersedes)}
    read = [row for row in _of_open.rows(job.pk) if row[READ_IN] in still_open] if still_open else []
    accounts = [*_signed_accounts(signed, job.card), *_accounts(read).values(), _of_card(job.card)]
    return Facts(limits=limits_of(job.card), accounts=accounts)


def _of_card(card: EngineCard) -> FactSet:
    """Return what a card tells, kept by its stamp."""
    key = (card.pk, str(card.stamp), "card")
    kept = _kept.pop(key, None) if card.stamp else None
    found = kept or account_of(figures_of(card))
    if card.stamp:
        _kept[key] = found
    return found


def _signed_accounts(entries: list[tuple[int, str]], card: EngineCard) -> list[FactSet]:
    """Return what signed entries tell, by their numbers and digests; those that are not kept yet are read together.

    They name gauges and people (the shop's token changes with these names) and parts of the card (its stamp does).
    """
    stocked = f"{Shop.current().stocked} {card.stamp}" if Shop.current().stocked and card.stamp else ""
    found = {pk: kept for pk, digest in entries if (kept := _kept.pop((pk, digest, stocked), None))}
    new = [pk for pk, _ in entries if pk not in found]
    if new:
        read = _placed(Reading.objects.filter(entry__in=new, withdrawn_at=None)).values_list(*READ)
        found |= _accounts(read, _placed(DerivedFact.objects.filter(entry__in=new)).values_list(*DERIVED))
    accounts = [(pk, digest, found.get(pk) or FactSet()) for pk, digest in entries]
    if stocked:
        _kept.update({(pk, digest, stocked): account for pk, digest, account in accounts if digest})
    for oldest in list(_kept)[:-MOST_KEPT]:
        _kept.pop(oldest, None)
    return [account for _, _, account in accounts]


def _accounts(read: Iterable[tuple[Any, ...]], found: Iterable[tuple[Any, ...]] = ()) -> dict[int, FactSet]:
    """Rows of `READ` and `DERIVED` as what each entry tells. What was carried into one was counted where it was taken."""
    taken, given = defaultdict(list), defaultdict(list)
    for row in read:
        if row[CARRIED] is None:
            taken[row[READ_IN]].append(row)
    for row in found:
        given[row[FOUND_IN]].append(_fact(*row))
    gauges = _gauges({row[GAUGE] for lot in taken.values() for row in lot}, Shop.current())
    return {pk: FactSet(_taken(taken[pk], gauges), given[pk]) for pk in sorted(taken.keys() | given.keys())}


def _taken(rows: Iterable[tuple[Any, ...]], gauges: dict[int | None, Gauge]) -> Iterator[MeasuredReading]:
    """Rows of `READ` as plain values."""
    for row in rows:
        value, text, of, attempt, turn, gauge, station, entry, signed_at, at, number, _from, uncertainty, *by = row[len(PLACED) :]
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


_subject = Asked(lambda card, kind, uid: Subject.objects.filter(card=card, kind=kind, uid=uid), 3)


def subject_of(card_id: int, part: Part) -> Subject:
    """The row of a part, made with the first reading there."""
    if found := _subject.models(card_id, part.kind, part.uid):
        return found[0]
    made, _ = Subject.objects.get_or_create(card_id=card_id, kind=part.kind, uid=part.uid, defaults={"name": part.name[:80]})
    return made


def columns(card_id: int, slot: FactKey) -> dict[str, object]:
    """The columns of a row that lies at an address."""
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
