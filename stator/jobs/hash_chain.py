"""Hash chain of the signed entries of a job.

The digest of an entry covers what its pages and the job report show: readings with who took them, with which gauge and when, actions,
facts, result, verdict, signer and record. It also covers the digest of the entry that was signed before it, so a later change of one
entry invalidates every digest after it.
"""

from __future__ import annotations

import hashlib
import json
import zlib
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, fields
from datetime import UTC, datetime
from typing import Any

from stator.jobs.models import Digest, Entry, Job, Reading
from stator.jobs.models.log import FactKeyFields
from stator.shop.models import Person

NAMES = "names"  # key in the content of a record


def moment(at: datetime | None) -> str:
    """Return a time in UTC to the second; an empty text for None."""
    return at.astimezone(UTC).strftime("%Y-%m-%dT%H:%M:%S") if at else ""


@dataclass(frozen=True)
class Body:
    """Content of one digest. Rows are plain values in the order in which they were written."""

    station: str
    part: str
    opened_at: datetime
    opened_by: str
    signed_at: datetime | None
    signed_by: str
    call: Sequence[str]  # state, code, headline, reason
    values: Mapping[str, Any]  # of the call
    attempt: int
    ticks: Mapping[str, Any]
    result: Mapping[str, Any]
    core_version: str
    because: str  # reason for replacing another entry
    readings: Sequence[Mapping[str, Any]]
    moves: Sequence[Mapping[str, Any]]
    derived: Sequence[Mapping[str, Any]]
    record: Mapping[str, Any]
    drawing: str
    replaces: str  # digest of the entry that this one replaces

    def digest(self, previous: str) -> str:
        """Return the SHA-256 of the body and of the digest before it."""
        plain = {field.name: getattr(self, field.name) for field in fields(self)}
        plain["drawing"] = hashlib.sha256(self.drawing.encode()).hexdigest()
        text = json.dumps(_plain({**plain, "previous": previous}), sort_keys=True, ensure_ascii=False, separators=(",", ":"))
        return hashlib.sha256(text.encode()).hexdigest()


def _plain(value: Any) -> Any:
    """Return a value with one spelling for each number and time: 1.0 and 1 are the same."""
    if isinstance(value, datetime):
        return moment(value)
    if isinstance(value, float) and value.is_integer():
        return int(value)
    if isinstance(value, Mapping):
        return {key: _plain(each) for key, each in value.items()}
    return [_plain(each) for each in value] if isinstance(value, list | tuple) else value


def place_values(
    kind: str = "",
    uid: str = "",
    what: str = "",
    end: str = "",
    angle: float | None = None,
    clock: int | None = None,
    depth: str = "",
    stage: int | None = None,
) -> list[Any]:
    """Return the part, the property and the place on the part."""
    return [kind, uid, what, end, angle, clock, depth, stage]


def _place(row: FactKeyFields) -> list[Any]:
    if row.subject is None:
        return place_values()
    return place_values(row.subject.kind, row.subject.uid, row.property, row.end, row.angle_deg, row.clock, row.depth, row.stage)


# names of people and gauges, as they were when the entry was signed


def _names_of_reading(reading: Reading) -> dict[str, str]:
    return {
        "by": reading.by.called,
        "gauge": reading.gauge.name if reading.gauge else "",
        "withdrawn_by": reading.withdrawn_by.called if reading.withdrawn_by else "",
    }


def current_names(entry: Entry, readings: Iterable[Reading], signer: Person | None) -> dict[str, Any]:
    """Return the present names in an entry: who opened and signed it, and for each reading and action the person and the gauge."""
    return {
        "opened_by": entry.opened_by.called,
        "signed_by": signer.called if signer else "",
        "readings": [_names_of_reading(reading) for reading in readings],
        "moves": [move.by.called for move in entry.moves.all()],
    }


def names_of(entry: Entry, readings: Sequence[Reading]) -> dict[str, Any]:
    """Return the names in an entry; of a signed one as recorded, so that renaming a person does not change it."""
    record = getattr(entry, "record", None)
    recorded: dict[str, Any] = record.content.get(NAMES, {}) if record else {}
    complete = len(recorded.get("readings", ())) == len(readings) and len(recorded.get("moves", ())) == len(entry.moves.all())
    return recorded if recorded and complete else current_names(entry, readings, entry.signed_by)


def names_to_record(entry: Entry, signer: Person) -> dict[str, Any]:
    """Return the names that are frozen when an entry is signed."""
    return current_names(entry, list(entry.readings.select_related("by", "gauge", "withdrawn_by")), signer)


# bodies


def reading_values(
    place: Sequence[Any], values: Mapping[str, Any], correction: Mapping[str, Any], names: Mapping[str, Any]
) -> dict[str, Any]:
    """Return a reading as it enters a digest; `values` are its columns by name."""
    columns = ("ask", "attempt", "typed", "kind", "unit", "canonical", "taken_at", "withdrawn_at", "came_second")
    named = {name: names.get(name) or "" for name in ("by", "gauge", "withdrawn_by")}
    return {"place": list(place), **{name: values.get(name) for name in columns}, "correction": dict(correction), **named}


def move_values(place: Sequence[Any], values: Mapping[str, Any], by: str) -> dict[str, Any]:
    """Return an action as it enters a digest."""
    return {"place": list(place), **{name: values.get(name) for name in ("kind", "attempt", "amount", "text", "detail", "at")}, "by": by}


def derived_values(place: Sequence[Any], values: Mapping[str, Any]) -> dict[str, Any]:
    """Return a derived fact as it enters a digest."""
    return {"place": list(place), **{name: values.get(name) for name in ("value", "text", "uncertainty", "resolution", "assumed")}}


def correction_of(reading: Reading) -> dict[str, Any]:
    """Return what was computed when a reading was taken, without the text of its question, which may be rendered again."""
    return {name: value for name, value in reading.extra.items() if name != "asked"}


def _body(entry: Entry, replaces: str) -> Body:
    readings = list(entry.readings.select_related("subject", "by", "gauge", "withdrawn_by"))
    names, record = names_of(entry, readings), entry.record
    return Body(
        station=entry.station.key,
        part=entry.seat.name if entry.seat else "",
        opened_at=entry.opened_at,
        opened_by=names["opened_by"],
        signed_at=entry.signed_at,
        signed_by=names["signed_by"],
        call=(entry.call_state, entry.call_code, entry.call_words, entry.reason),
        values=entry.call_values,
        attempt=entry.attempt,
        ticks=entry.ticks,
        result=entry.result,
        core_version=entry.core_version,
        because=str(entry.choices.get("because", "")),
        readings=[
            reading_values(_place(each), {**vars(each), "typed": each.text}, correction_of(each), name)
            for each, name in zip(readings, names["readings"], strict=True)
        ],
        moves=[
            move_values(_place(each), vars(each), by)
            for each, by in zip(entry.moves.select_related("subject"), names["moves"], strict=True)
        ],
        derived=[derived_values(_place(each), vars(each)) for each in entry.derived.select_related("subject")],
        record=record.content,
        drawing=zlib.decompress(bytes(record.drawing)).decode() if record.drawing else "",
        replaces=replaces,
    )


def body_of(entry: Entry) -> Body:
    """Return the body of a signed entry of the database."""
    replaced = Digest.objects.filter(entry=entry.supersedes_id).first() if entry.supersedes_id else None
    return _body(entry, replaced.value if replaced else "")


ENTRY = Entry.objects.select_related("station", "seat", "record", "opened_by", "signed_by")


def append_to_chain(entry: Entry) -> Digest:
    """Write the digest of an entry that has just been signed and recorded."""
    last = Digest.objects.filter(entry__job=entry.job_id).order_by("-pk").first()
    previous = last.value if last else ""
    return Digest.objects.create(entry=entry, previous=previous, value=body_of(ENTRY.get(pk=entry.pk)).digest(previous))


@dataclass(frozen=True)
class Link:
    """One entry of a chain: its digest and the one before it as stated, and its body as it is."""

    name: str
    previous: str
    stated: str
    body: Body

    @property
    def agrees(self) -> bool:
        """Return True if the body has the stated digest."""
        return self.body.digest(self.previous) == self.stated


def broken(links: Iterable[Link]) -> list[Link]:
    """Return the links that were changed after they were signed, or whose predecessor is missing."""
    links = list(links)
    known = {"", *(link.stated for link in links)}
    found: list[Link] = []
    followed: set[str] = set()
    for link in links:
        if not link.agrees or link.previous not in known or link.previous in followed:
            found.append(link)
        followed.add(link.previous)
    return found


def links_of(job: Job) -> list[Link]:
    """Return the chain of a job as the database has it."""
    rows = Digest.objects.filter(entry__job=job).order_by("pk").values_list("entry", "previous", "value")
    entries = ENTRY.in_bulk([entry for entry, _, _ in rows])
    return [Link(str(entries[entry]), previous, value, body_of(entries[entry])) for entry, previous, value in rows]


def summary_of(job: Job) -> dict[str, Any]:
    """Return the number of signed entries of a job and the digest of the last one, which a file states."""
    values = list(Digest.objects.filter(entry__job=job).order_by("pk").values_list("value", flat=True))
    return {"entries": len(values), "last": values[-1] if values else ""}
