"""All writes to the log.

Each function checks permission; `idempotency` makes each request one transaction.
"""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Any

from django.db import transaction
from django.db.models import Q

from shopmath import __version__ as core_version
from shopmath.quantity import Quantity
from stator.engines.fact_keys import FactKey
from stator.engines.models import Seat
from stator.jobs import clock, hash_chain
from stator.jobs.fact_loader import columns, subject_of
from stator.jobs.facts import Finding
from stator.jobs.models import DerivedFact, Entry, Job, Move, Reading, Record, RunStation, Timer
from stator.jobs.permissions import JobClosed, require_open_job
from stator.shop.audit_log import audit
from stator.shop.models import Gauge, Person

CURE = "cure"  # the one clock that runs on after its entry is signed


class Signed(Exception):
    """The entry is signed and can only be replaced."""


def open_entry(station: RunStation, seat: Seat | None, person: Person) -> Entry:
    """The open entry of a station and seat, begun now when there is none and nothing is signed yet."""
    with transaction.atomic():
        require_open_job(station.job)
        entries = Entry.objects.filter(station=station, seat=seat)
        found = entries.filter(signed_at__isnull=True).first()
        if found:
            return found
        if entries.exists():
            raise Signed
        if station.state == RunStation.State.AHEAD:
            station.state = RunStation.State.NOW
            station.save(update_fields=["state"])
        subject = subject_of(station.job.card_id, seat.part) if seat else None
        return Entry.objects.create(job=station.job, station=station, seat=seat, subject=subject, opened_by=person)


@dataclass(frozen=True)
class RecordSnapshot:
    """The record of an entry: plain values and the compressed drawing."""

    content: dict[str, Any]
    drawing: bytes


def _refuse_signed(entry: Entry) -> None:
    """Refuse a signed entry or a closed job.

    The database is queried because the entry of a page may be out of date.
    """
    ((signed_at, gone_at),) = Entry.objects.filter(pk=entry.pk).values_list("signed_at", "job__gone_at")
    if signed_at:
        raise Signed
    if gone_at:
        raise JobClosed


def _fresh(entry: Entry) -> Entry:
    """Return an entry as it is in the database, if it may still be changed."""
    _refuse_signed(entry)
    return Entry.objects.select_related("job").get(pk=entry.pk)


def save_reading(
    entry: Entry,
    person: Person,
    ask: str,
    quantity: Quantity,
    client_key: str,
    *,
    attempt: int = 1,
    gauge: Gauge | None = None,
    extra: dict[str, Any] | None = None,
    at: datetime | None = None,
    slot: FactKey | None = None,
    carried_from: int | None = None,
) -> Reading:
    """Save a reading.

    The same reading with the same key is saved once. Another reading with a known key gets a new key.
    """
    with transaction.atomic():
        known = next(iter(Reading.objects.filter(client_key=client_key).values_list("pk", "entry_id", "ask", "attempt", "text")), None)
        if known and known[1:] == (entry.pk, ask, attempt, quantity.text):
            return Reading.objects.get(pk=known[0])
        client_key = f"{client_key[:40]}.{uuid.uuid4().hex[:12]}" if known else client_key
        _refuse_signed(entry)
        where: dict[str, Any] = columns(entry.job.card_id, slot) if slot else {}
        reading = Reading.objects.create(
            entry=entry,
            **where,
            carried_from_id=carried_from,
            ask=ask,
            attempt=attempt,
            text=quantity.text,
            kind=quantity.kind,
            unit=quantity.unit,
            canonical=quantity.canonical if quantity.kind != "words" else None,
            gauge=gauge,
            extra=extra or {},
            taken_at=at or clock.now(entry.job),
            by=person,
            client_key=client_key,
        )
        entry.job.touch()
        return reading


@dataclass(frozen=True)
class LinkedReading:
    """A reading that belongs to a second entry as well, with its own time and the reading it comes from."""

    slot: FactKey
    quantity: Quantity
    at: datetime
    source: int
    gauge: Gauge | None = None
    extra: dict[str, Any] = field(default_factory=dict)


def carry(
    entry: Entry,
    person: Person,
    attempt: int,
    readings: Sequence[LinkedReading],
    ran: Sequence[tuple[str, str, datetime, datetime]] = (),
    **choices: Any,
) -> None:
    """Save readings, ended timers (key, tone, start, end) and choices of another place in an entry, in one transaction."""
    with transaction.atomic():
        fresh = _fresh(entry)
        fresh.attempt, fresh.choices = attempt, {**fresh.choices, **choices}
        fresh.save(update_fields=["attempt", "choices"])
        Reading.objects.bulk_create(
            Reading(
                entry=entry,
                **columns(entry.job.card_id, each.slot),
                carried_from_id=each.source,
                ask=each.slot.key,
                attempt=attempt,
                text=each.quantity.text,
                kind=each.quantity.kind,
                unit=each.quantity.unit,
                canonical=each.quantity.canonical if each.quantity.kind != "words" else None,
                gauge=each.gauge,
                extra=each.extra,
                taken_at=each.at,
                by=person,
                client_key=uuid.uuid4().hex,
            )
            for each in readings
        )
        of: dict[str, Any] = {"job": entry.job, "entry": entry, "attempt": attempt, "by": person}
        Timer.objects.bulk_create(
            [Timer(**of, key=key, said={"code": key}, tone=tone, started_at=start, ended_at=end) for key, tone, start, end in ran],
            ignore_conflicts=True,
        )
        entry.job.touch()


def words(text: str) -> Quantity:
    """Return a note or a choice as a quantity."""
    return Quantity(0.0, "", 0.0, text, "words")


def withdraw(reading: Reading, person: Person, *, came_second: bool = False) -> None:
    """Withdraw a reading.

    It remains in the entry with the person and the time. Linked readings of the same request are withdrawn as well.
    """
    with transaction.atomic():
        _refuse_signed(reading.entry)
        withdrawn: dict[str, Any] = {"withdrawn_at": clock.now(reading.entry.job), "withdrawn_by": person, "came_second": came_second}
        carried = Q(carried_from=reading, entry__station=reading.entry.station_id, entry__signed_at=None)
        Reading.objects.filter(Q(pk=reading.pk) | carried, withdrawn_at__isnull=True).update(**withdrawn)
        reading.withdrawn_at, reading.withdrawn_by, reading.came_second = withdrawn.values()  # as it stands now
        reading.entry.job.touch()


def set_method(entry: Entry, **choices: Any) -> Entry:
    """Change choices of an entry; other choices that another device made remain."""
    with transaction.atomic():
        fresh = _fresh(entry)
        fresh.choices = {**fresh.choices, **choices}
        fresh.save(update_fields=["choices"])
        entry.job.touch()
    return fresh


def next_attempt(entry: Entry, **choices: Any) -> Entry:
    """Close the attempt that is open and begin the next, with the choices that go with it."""
    with transaction.atomic():
        fresh = _fresh(entry)
        fresh.attempt += 1
        fresh.choices = {**fresh.choices, **choices}
        fresh.save(update_fields=["attempt", "choices"])
        entry.job.touch()
    return fresh


def record_move(
    entry: Entry,
    person: Person,
    kind: str,
    *,
    slot: FactKey | None = None,
    amount: float | None = None,
    text: str = "",
    detail: Mapping[str, Any] | None = None,
    attempt: int = 1,
    at: datetime | None = None,
) -> Move:
    """Write down something that hands did between readings."""
    with transaction.atomic():
        _refuse_signed(entry)
        where = columns(entry.job.card_id, slot) if slot else {}
        kind_of = slot.about.kind if slot and amount is not None else ""
        more: dict[str, Any] = {"amount": amount, "amount_kind": kind_of, "text": text[:200], "attempt": attempt}
        more |= {"detail": dict(detail or {}), "at": at or clock.now(entry.job)}
        move = Move.objects.create(entry=entry, kind=kind, by=person, **where, **more)
        entry.job.touch()
    return move


def tick_check(entry: Entry, person: Person, key: str, on: bool) -> Entry:
    """Tick or untick one line of a check list, with who and when."""
    with transaction.atomic():
        fresh = _fresh(entry)
        fresh.ticks.pop(key, None)
        if on:
            fresh.ticks[key] = {"by": person.called, "at": clock.now(entry.job).isoformat(timespec="seconds")}
        fresh.save(update_fields=["ticks"])
        entry.job.touch()
    return fresh


def untick(entry: Entry) -> None:
    """Every line of the check list is open again."""
    with transaction.atomic():
        fresh = _fresh(entry)
        fresh.ticks = {}
        fresh.save(update_fields=["ticks"])


def start_timer(
    entry: Entry,
    person: Person,
    key: str,
    said: Mapping[str, Any],
    tone: str,
    lasts_s: float | None,
    *,
    attempt: int = 1,
    at: datetime | None = None,
) -> Timer:
    """Start a timer once; a running timer continues. `said` is its message as code and values."""
    with transaction.atomic():
        _refuse_signed(entry)
        started = at or clock.now(entry.job)
        timer, made = Timer.objects.get_or_create(
            entry=entry,
            key=key,
            attempt=attempt,
            defaults={
                "job": entry.job,
                "said": dict(said),
                "tone": tone,
                "started_at": started,
                "due_at": started + timedelta(seconds=lasts_s) if lasts_s is not None else None,
                "by": person,
            },
        )
        if made:
            entry.job.touch()
        return timer


def stop_timer(timer: Timer, at: datetime | None = None) -> None:
    with transaction.atomic():
        _refuse_signed(timer.entry)
        Timer.objects.filter(pk=timer.pk, ended_at__isnull=True).update(ended_at=at or clock.now(timer.job))
        timer.job.touch()


def move_due(timer: Timer, due_at: datetime, said: Mapping[str, Any] | None = None) -> None:
    """A reading has shown that it takes longer, or not so long; or it now counts for something else."""
    named = {"said": dict(said), "label": ""} if said else {}
    with transaction.atomic():
        _refuse_signed(timer.entry)
        Timer.objects.filter(pk=timer.pk, ended_at__isnull=True).update(due_at=due_at, **named)
        timer.job.touch()


@dataclass(frozen=True)
class VerdictSnapshot:
    """A call as it is signed: its state, its words, and the code and values they were made from."""

    state: str
    words: str
    reason: str
    code: str = ""
    values: dict[str, Any] = field(default_factory=dict, hash=False)


def sign(
    entry: Entry,
    person: Person,
    call: VerdictSnapshot,
    result: dict[str, Any],
    found: Sequence[Finding] = (),
    record: RecordSnapshot | None = None,
    at: datetime | None = None,
) -> Entry:
    """Sign an entry with its verdict and everything that is needed to compute it again."""
    with transaction.atomic():
        fresh = _fresh(entry)
        now = at or clock.now(entry.job)
        Timer.objects.filter(entry=fresh, ended_at__isnull=True).exclude(key=CURE).update(ended_at=now)  # a joint cures on
        derive(fresh, found)
        if record:
            content = {**record.content, hash_chain.NAMES: hash_chain.names_to_record(fresh, person)}
            Record.objects.create(entry=fresh, content=content, drawing=record.drawing, made_at=now)
        fresh.call_state, fresh.call_words, fresh.reason = call.state, call.words[:80], call.reason[:300]
        fresh.call_code, fresh.call_values = call.code, call.values
        fresh.result, fresh.core_version = result, core_version
        fresh.signed_at, fresh.signed_by = now, person
        fresh.save()
        if record:
            hash_chain.append_to_chain(fresh)
        fresh.job.touch()
    audit(person, f"signed {fresh.station.key}, {call.state}", fresh.job.tag)
    return fresh


def derive(entry: Entry, found: Sequence[Finding]) -> None:
    """Store facts that follow from the readings."""
    DerivedFact.objects.bulk_create(
        DerivedFact(
            entry=entry,
            **columns(entry.job.card_id, each.slot),
            value=each.value,
            text=each.text,
            kind=each.slot.about.kind,
            uncertainty=each.uncertainty,
            resolution=each.resolution,
            assumed=each.assumed,
        )
        for each in found
    )


def set_station(station: RunStation, **fields: Any) -> None:
    """Store the state of a station for the work plan and the list of open jobs."""
    if any(getattr(station, name) != value for name, value in fields.items()):
        RunStation.objects.filter(pk=station.pk).update(**fields)
        for name, value in fields.items():
            setattr(station, name, value)


def close(job: Job, at: datetime) -> None:
    """Hand a job over: from here on nothing in it changes."""
    with transaction.atomic():
        job.touch()
        Job.objects.filter(pk=job.pk).update(gone_at=at)
    job.gone_at = at
    audit("the log", "closed", job.tag)


def reopen(job: Job) -> None:
    """Take a job back onto the bench."""
    Job.objects.filter(pk=job.pk).update(gone_at=None)
    job.gone_at = None
    job.touch()
    audit("the log", "opened again", job.tag)
