"""A whole job as JSON. The format is described in docs/data-formats.md; units stand in the names."""

from __future__ import annotations

import zlib
from collections.abc import Mapping
from datetime import date, datetime
from hashlib import file_digest
from typing import Any

from django.db.models import Prefetch
from pydantic_core import to_json

from shopmath.quantity import CANONICAL
from stator.engines.card_loader import load_card
from stator.engines.models import EngineCard
from stator.exchange import signing
from stator.exchange.card_files import card_as_json
from stator.exchange.reference_names import KINDS, NAMED, ReferenceNames
from stator.jobs.fact_loader import all_readings_of
from stator.jobs.hash_chain import correction_of, names_of, summary_of
from stator.jobs.models import DerivedFact, Entry, Job, Move, Origin, Photo, Reading
from stator.jobs.models.log import FactKeyFields
from stator.shop.data_format import FORMAT
from stator.shop.models import Gauge, Shop
from stator.stations.framework.log_labels import called, words_of

GAUGE = ("kind", "resolution", "repeatability", "emissivity", "wrong_from", "wrong_because")
SCHEMA, VERSION = "stator-job", 5


def _when(moment: datetime | None) -> str | None:
    return moment.isoformat(timespec="seconds") if moment else None


def _where(row: FactKeyFields) -> dict[str, Any]:
    """Return the fact key of a row in terms that are the same in every shop."""
    if row.subject is None:
        return {}
    place = {"end": row.end, "angle_deg": row.angle_deg, "clock": row.clock, "depth": row.depth, "stage": row.stage}
    part = {"kind": row.subject.kind, "uid": row.subject.uid, "name": row.subject.name}
    return {"part": part, "property": row.property, **{name: value for name, value in place.items() if value not in ("", None)}}


def _reading(reading: Reading, names: Mapping[str, str], entry: Entry, card: EngineCard, keys: dict[int, str]) -> dict[str, Any]:
    return {
        **_where(reading),
        "ask": reading.ask,
        "asked": called(reading, entry, card),
        "attempt": reading.attempt,
        "typed": reading.text,
        "kind": reading.kind,
        "unit": reading.unit,
        "canonical": reading.canonical,
        "canonical_unit": CANONICAL.get(reading.kind, ""),
        "gauge": names["gauge"] or None,
        "correction": correction_of(reading),
        "taken_at": _when(reading.taken_at),
        "by": names["by"],
        "withdrawn_at": _when(reading.withdrawn_at),
        "withdrawn_by": names["withdrawn_by"] or None,
        "came_second": reading.came_second,
        "client_key": reading.client_key,
        "carried_from": keys.get(reading.carried_from_id or 0),
    }


def _call(entry: Entry) -> dict[str, Any]:
    values = {"state": entry.call_state, "words": entry.call_words, "reason": entry.reason}
    return {**values, "code": entry.call_code, "values": entry.call_values}


def _record(entry: Entry) -> dict[str, Any] | None:
    """Return what was frozen when it was signed, its drawing as SVG."""
    record = getattr(entry, "record", None)
    if record is None:
        return None
    drawing = zlib.decompress(bytes(record.drawing)).decode() if record.drawing else ""
    return {"content": record.content, "drawing": drawing}


def _digest(entry: Entry) -> dict[str, str] | None:
    """Return what it came to when it was signed."""
    digest = getattr(entry, "digest", None)
    return {"previous": digest.previous, "value": digest.value} if digest else None


def _entry(entry: Entry, taken: list[Reading], numbers: dict[int, int], keys: dict[int, str], refs: ReferenceNames) -> dict[str, Any]:
    station, names = entry.station.key, names_of(entry, taken)
    return {
        "number": numbers[entry.pk],
        "station": entry.station.key,
        "seat": entry.seat.name if entry.seat else None,
        "opened_at": _when(entry.opened_at),
        "opened_by": names["opened_by"],
        "signed_at": _when(entry.signed_at),
        "signed_by": names["signed_by"] or None,
        "call": _call(entry) if entry.is_signed else None,
        "record": _record(entry),
        "digest": _digest(entry),
        "attempt": entry.attempt,
        "choices": refs.choices_out(station, entry.choices),
        "ticks": entry.ticks,
        "result": entry.result,
        "core_version": entry.core_version,
        "supersedes": numbers.get(entry.supersedes_id or 0),
        "readings": [_reading(each, name, entry, refs.card, keys) for each, name in zip(taken, names["readings"], strict=True)],
        "derived": [
            {**_where(d), **{name: getattr(d, name) for name in ("value", "text", "uncertainty", "resolution", "assumed")}}
            for d in entry.derived.all()
        ],
        "timers": [
            {
                "key": t.key,
                "attempt": t.attempt,
                "label": words_of(t),
                "said": t.said,
                "tone": t.tone,
                "started_at": _when(t.started_at),
                "due_at": _when(t.due_at),
                "ended_at": _when(t.ended_at),
            }
            for t in entry.timers.all()
        ],
        "moves": [
            {
                **_where(move),
                "kind": move.kind,
                "attempt": move.attempt,
                "amount": move.amount,
                "text": move.text,
                "detail": move.detail,
                "at": _when(move.at),
                "by": by,
            }
            for move, by in zip(entry.moves.all(), names["moves"], strict=True)
        ],
    }


def _equipment(entries: list[dict[str, Any]], gauges: Mapping[str, Gauge]) -> dict[str, Any]:
    """Return the equipment that entries refer to, with its data: `gauges` by the name in the file, and everything else."""
    named = set(NAMED.findall(to_json(entries).decode()))
    chosen = {name for kind, name in named if kind == "gauges"} - gauges.keys()
    gauges = {**gauges, **{gauge.name: gauge for gauge in Gauge.objects.filter(name__in=chosen)}}
    others = []
    for kind, model in KINDS.items():
        needed = {name for of, name in named if of == kind}
        if kind == "gauges" or not needed:
            continue
        fields = [field.name for field in model._meta.concrete_fields if field.name not in ("id", "name", "retired", "from_file")]
        for thing in model._default_manager.filter(name__in=needed):
            others.append({"kind": kind, "name": thing.name, "figures": {name: _plain(getattr(thing, name)) for name in fields}})
    described = [{"name": name, **{field: _plain(getattr(gauge, field)) for field in GAUGE}} for name, gauge in gauges.items()]
    return {"gauges": described, "equipment": others}


def _plain(value: Any) -> Any:
    return value.isoformat() if isinstance(value, date) else value


def _sha256(photo: Photo) -> str:
    """Return the SHA-256 of a picture as it is stored here; empty if its file cannot be read."""
    try:
        with photo.image.open("rb") as file:
            return file_digest(file, "sha256").hexdigest()
    except OSError:
        return ""


def job_as_json(job: Job) -> dict[str, Any]:
    """Return job, card, run and log as plain values, signed with the key of this shop."""
    entries = list(
        job.entries.select_related("station", "seat", "opened_by", "signed_by", "record", "digest").prefetch_related(
            Prefetch("moves", Move.objects.select_related("by", "subject")),
            Prefetch("derived", DerivedFact.objects.select_related("subject")),
            "timers",
        )
    )
    card, shop = load_card(job.card), Shop.current()
    readings = all_readings_of(job, shop)
    run, refs = list(job.run.all()), ReferenceNames(card)
    stations = {stage.pk: stage.key for stage in run}
    numbers = {entry.pk: index for index, entry in enumerate(entries, 1)}
    keys = {reading.pk: reading.client_key for taken in readings.values() for reading in taken}
    foreign = Origin.objects.filter(job=job).exists()
    told = [_entry(entry, readings.get(entry.pk, []), numbers, keys, refs) for entry in entries]
    gauges = {
        row["gauge"]: reading.gauge
        for entry, each in zip(entries, told, strict=True)
        for reading, row in zip(readings.get(entry.pk, []), each["readings"], strict=True)
        if reading.gauge
    }
    document = {
        "schema": SCHEMA,
        "version": VERSION,
        "stator_format": FORMAT,
        "shop": {"name": shop.name},
        "job": {
            "number": job.number,
            "complaint": job.complaint,
            "comes_back": job.comes_back,
            **{name: getattr(job, name) for name in (*Job.WHOSE, "ended_because")},
            "work_order": job.work_order,
            "booked_in_at": _when(job.booked_in_at),
            "booked_in_by": job.booked_in_by.called,
            "gone_at": _when(job.gone_at),
        },
        "engine_card": card_as_json(card),
        "run": [
            {"station": s.key, "state": s.state, "call_state": s.call_state, "waits_for": s.waits_for, "because": s.because} for s in run
        ],
        "entries": told,
        "chain": summary_of(job),
        **_equipment(told, gauges),
        "tray": [
            {
                **{name: getattr(place, name) for name in ("number", "name", "count", "where_from", "half", "way_round", "wear")},
                "taken_at": _when(place.taken_at),
                "emptied_at": _when(place.emptied_at),
            }
            for place in job.tray.all()
        ],
        "photos": [
            {
                "file": f"photos/{index:03d}.jpg",
                "caption": photo.caption,
                "width_px": photo.width,
                "height_px": photo.height,
                "taken_at": _when(photo.taken_at),
                "station": stations.get(photo.station_id or 0),
                "part": {"kind": photo.subject.kind, "uid": photo.subject.uid, "name": photo.subject.name} if photo.subject else None,
                "digest": photo.digest,
                "sha256": _sha256(photo) if foreign else photo.digest,
                "pins": [{"number": pin.number, "x": pin.x, "y": pin.y, "note": pin.note} for pin in photo.pins.all()],
            }
            for index, photo in enumerate(job.photos.select_related("subject").prefetch_related("pins"), 1)
        ],
    }
    return signing.signed(document)
