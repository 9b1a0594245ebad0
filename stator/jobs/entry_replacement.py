"""Replacement of a signed entry by a new one with the same content."""

from __future__ import annotations

import uuid
from typing import Any, TypeVar

from django.db import transaction

from stator.jobs.models import Entry, Move, Reading, Timer
from stator.jobs.permissions import require_open_job
from stator.shop.audit_log import audit
from stator.shop.models import Person

Row = TypeVar("Row", Reading, Move, Timer)


def _again(row: Row, entry: Entry, **changed: Any) -> Row:
    """A row of a replaced entry as a new one of the entry that replaces it."""
    fields = {field.attname: getattr(row, field.attname) for field in row._meta.concrete_fields if not field.primary_key}
    return type(row)(**{**fields, "entry_id": entry.pk, **changed})


def replace_entry(entry: Entry, person: Person, reason: str) -> Entry:
    """Begin an entry that replaces a signed one and has the same content, so that only what changes is done again.

    Readings retain their author, time and gauge. Ended timers and recorded actions are copied. The old entry does not change.
    """
    with transaction.atomic():
        require_open_job(entry.job)
        known = Entry.objects.filter(supersedes=entry).first()
        if known:
            return known
        new = Entry.objects.create(
            job=entry.job,
            station=entry.station,
            seat=entry.seat,
            subject=entry.subject,
            opened_by=person,
            supersedes=entry,
            attempt=entry.attempt,
            choices={**entry.choices, "because": reason},
            ticks=entry.ticks,
        )
        Reading.objects.bulk_create(_again(each, new, client_key=uuid.uuid4().hex) for each in entry.readings.filter(withdrawn_at=None))
        Move.objects.bulk_create(_again(each, new) for each in entry.moves.all())
        Timer.objects.bulk_create(_again(each, new) for each in entry.timers.exclude(ended_at=None))
        entry.job.touch()
    audit(person, f"began in place of a signed entry at {entry.station.key}", entry.job.tag)
    return new
