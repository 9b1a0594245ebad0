"""A whole job as JSON. The format is described in docs/data-formats.md; units stand in the names."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from engines.models import Seat
from jobs.models import Entry, Job, Reading
from shopmath.quantity import CANONICAL

SCHEMA, VERSION = "stator-job", 1


def _when(moment: datetime | None) -> str | None:
    return moment.isoformat(timespec="seconds") if moment else None


def _seat(seat: Seat) -> dict[str, Any]:
    names = ("name", "on", "half", "loads_from", "stop", "designation", "bore_mm", "outside_mm", "width_mm")
    more = ("code", "code_assumed", "measured_mm", "left_in", "shaft_material", "source")
    return {name: getattr(seat, name) for name in (*names, *more)}


def _reading(reading: Reading) -> dict[str, Any]:
    return {
        "ask": reading.ask,
        "asked": reading.extra.get("asked", ""),
        "heat": reading.heat,
        "typed": reading.text,
        "kind": reading.kind,
        "unit": reading.unit,
        "canonical": reading.canonical,
        "canonical_unit": CANONICAL.get(reading.kind, ""),
        "gauge": reading.gauge.name if reading.gauge else None,
        "correction": {name: value for name, value in reading.extra.items() if name != "asked"},
        "taken_at": _when(reading.taken_at),
        "by": reading.by.called,
        "withdrawn_at": _when(reading.withdrawn_at),
        "client_key": reading.client_key,
    }


def _entry(entry: Entry, numbers: dict[int, int]) -> dict[str, Any]:
    return {
        "number": numbers[entry.pk],
        "station": entry.station.key,
        "seat": entry.seat.name if entry.seat else None,
        "opened_at": _when(entry.opened_at),
        "opened_by": entry.opened_by.called,
        "signed_at": _when(entry.signed_at),
        "signed_by": entry.signed_by.called if entry.signed_by else None,
        "call": {"state": entry.call_state, "words": entry.call_words, "reason": entry.reason} if entry.is_signed else None,
        "choices": entry.choices,
        "ticks": entry.ticks,
        "result": entry.result,
        "core_version": entry.core_version,
        "supersedes": numbers.get(entry.supersedes_id or 0),
        "readings": [_reading(reading) for reading in entry.readings.all()],
        "timers": [
            {
                "key": t.key,
                "heat": t.heat,
                "label": t.label,
                "started_at": _when(t.started_at),
                "due_at": _when(t.due_at),
                "ended_at": _when(t.ended_at),
            }
            for t in entry.timers.all()
        ],
    }


def job_as_json(job: Job) -> dict[str, Any]:
    """Job, card, run and log as plain values."""
    entries = list(
        job.entries.select_related("station", "seat", "opened_by", "signed_by").prefetch_related(
            "readings__by", "readings__gauge", "timers"
        )
    )
    numbers = {entry.pk: index for index, entry in enumerate(entries, 1)}
    card = job.card
    return {
        "schema": SCHEMA,
        "version": VERSION,
        "job": {
            "number": job.number,
            "complaint": job.complaint,
            "comes_back": job.comes_back,
            "work_order": job.work_order,
            "booked_in_at": _when(job.booked_in_at),
            "booked_in_by": job.booked_in_by.called,
            "gone_at": _when(job.gone_at),
        },
        "engine_card": {
            **{name: getattr(card, name) for name in ("name", "summary", "layout", "case_material", "case_material_assumed")},
            **{name: getattr(card, name) for name in ("taper_ratio", "nut_d_mm", "nut_torque_nm", "shaft_d_mm", "flywheel_source")},
            **{name: getattr(card, name) for name in ("left_name", "right_name", "painted", "version")},
            "seats": [_seat(seat) for seat in card.seats.all()],
        },
        "run": [
            {"station": s.key, "state": s.state, "call_state": s.call_state, "waits_for": s.waits_for, "because": s.because}
            for s in job.run.all()
        ],
        "entries": [_entry(entry, numbers) for entry in entries],
        "photos": [
            {"caption": p.caption, "width_px": p.width, "height_px": p.height, "taken_at": _when(p.taken_at)} for p in job.photos.all()
        ],
    }
