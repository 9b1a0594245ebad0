"""What a signed entry comes to: a digest over its readings, its call and its record, and over the digest of the entry signed before it.

Whoever changes one of them later, in a file or in the database, has to change every digest after it as well.
"""

from __future__ import annotations

import hashlib
import json
import zlib
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from jobs.models import Digest, Entry, Job
from jobs.models.log import Placed


def moment(at: datetime | None) -> str:
    """A time as it goes into a digest: to the second, the same in every time zone."""
    return at.astimezone(UTC).strftime("%Y-%m-%dT%H:%M:%S") if at else ""


@dataclass(frozen=True)
class Body:
    """What one digest is made over. Rows are plain values, in the order in which they were written."""

    station: str
    part: str
    opened_at: datetime
    signed_at: datetime | None
    call: Sequence[str]  # state, code, headline, reason
    readings: Sequence[Sequence[Any]]
    moves: Sequence[Sequence[Any]]
    derived: Sequence[Sequence[Any]]
    record: Mapping[str, Any]
    drawing: str
    replaces: str  # digest of the entry that this one took the place of

    def digest(self, previous: str) -> str:
        plain = {
            **{name: getattr(self, name) for name in ("station", "part", "readings", "moves", "derived", "record", "replaces")},
            "opened_at": moment(self.opened_at),
            "signed_at": moment(self.signed_at),
            "call": list(self.call),
            "drawing": hashlib.sha256(self.drawing.encode()).hexdigest(),
            "previous": previous,
        }
        text = json.dumps(_plain(plain), sort_keys=True, ensure_ascii=False, separators=(",", ":"))
        return hashlib.sha256(text.encode()).hexdigest()


def reading_row(
    place: Sequence[Any], ask: str, attempt: int, typed: str, unit: str, canonical: float | None, at: datetime, out: bool
) -> list[Any]:
    """A reading as it goes into a digest; `out` when it was withdrawn."""
    return [*place, ask, attempt, typed, unit, canonical, moment(at), out]


def move_row(
    place: Sequence[Any], kind: str, attempt: int, amount: float | None, text: str, detail: Mapping[str, Any], at: datetime | None
) -> list[Any]:
    return [*place, kind, attempt, amount, text, dict(detail), moment(at)]


def derived_row(place: Sequence[Any], value: float | None, text: str, uncertainty: float | None, assumed: bool) -> list[Any]:
    return [*place, value, text, uncertainty, assumed]


def place_row(kind: str, uid: str, what: str, end: str, angle: float | None, clock: int | None, depth: str, stage: int | None) -> list[Any]:
    """Which part, which property, where on it."""
    return [kind, uid, what, end, angle, clock, depth, stage]


def _plain(value: Any) -> Any:
    """A value with its numbers in one spelling: 1.0 and 1 are the same."""
    if isinstance(value, float) and value.is_integer():
        return int(value)
    if isinstance(value, Mapping):
        return {key: _plain(each) for key, each in value.items()}
    return [_plain(each) for each in value] if isinstance(value, list | tuple) else value


def _place(row: Placed) -> list[Any]:
    if row.subject is None:
        return place_row("", "", "", "", None, None, "", None)
    return place_row(row.subject.kind, row.subject.uid, row.property, row.end, row.angle_deg, row.clock, row.depth, row.stage)


def body_of(entry: Entry) -> Body:
    """A signed entry of the database."""
    replaced = Digest.objects.filter(entry=entry.supersedes_id).first() if entry.supersedes_id else None
    drawing = bytes(entry.record.drawing)
    return Body(
        entry.station.key,
        entry.seat.name if entry.seat else "",
        entry.opened_at,
        entry.signed_at,
        (entry.call_state, entry.call_code, entry.call_words, entry.reason),
        [
            reading_row(_place(r), r.ask, r.attempt, r.text, r.unit, r.canonical, r.taken_at, r.withdrawn_at is not None)
            for r in entry.readings.select_related("subject")
        ],
        [move_row(_place(m), m.kind, m.attempt, m.amount, m.text, m.detail, m.at) for m in entry.moves.select_related("subject")],
        [derived_row(_place(d), d.value, d.text, d.uncertainty, d.assumed) for d in entry.derived.select_related("subject")],
        entry.record.content,
        zlib.decompress(drawing).decode() if drawing else "",
        replaced.value if replaced else "",
    )


ENTRY = Entry.objects.select_related("station", "seat", "record")


def seal(entry: Entry, *, late: bool = False) -> Digest:
    """Make the digest of an entry that has just been signed and recorded: the next link of its job's chain."""
    last = Digest.objects.filter(entry__job=entry.job_id).order_by("-pk").first()
    previous = last.value if last else ""
    value = body_of(ENTRY.get(pk=entry.pk)).digest(previous)
    return Digest.objects.create(entry=entry, previous=previous, value=value, late=late)


def seal_late(job: Job | None = None) -> int:
    """The digests of entries signed before there were digests, or read in without any; how many."""
    entries = Entry.objects.filter(signed_at__isnull=False, digest=None).exclude(record=None).order_by("signed_at", "pk")
    entries = entries.filter(job=job) if job else entries
    for entry in entries:
        seal(entry, late=True)
    return len(entries)


@dataclass(frozen=True)
class Link:
    """One entry of a chain as somebody tells it: its digest and the one before, and what it really comes to."""

    name: str
    previous: str
    told: str
    body: Body

    @property
    def agrees(self) -> bool:
        return self.body.digest(self.previous) == self.told


def broken(links: Iterable[Link]) -> list[Link]:
    """The links that do not hold: changed since they were signed, or with the one before them missing."""
    found, known = [], {""}
    followed: set[str] = set()
    for link in links:
        known.add(link.told)
    for link in links:
        if not link.agrees or link.previous not in known or link.previous in followed:
            found.append(link)
        followed.add(link.previous)
    return found


def links_of(job: Job) -> list[Link]:
    """The chain of a job as the database has it."""
    rows = Digest.objects.filter(entry__job=job).select_related("entry__station", "entry__seat", "entry__record").order_by("pk")
    return [Link(str(each.entry), each.previous, each.value, body_of(each.entry)) for each in rows]
