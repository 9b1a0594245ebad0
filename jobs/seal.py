"""What stops a signed entry and a closed job from changing: triggers in the database itself, under every model, view and script."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from django.db import connections

SIGNED = "a signed entry is never changed; supersede it with a new one"
RECORDED = "a picture that a signed entry names is kept with it"
PRACTICE = "practice is set once, and never signed"
CLOSED = "a job that was handed over is closed; nothing in it changes"

_SIGNED_ENTRY = "EXISTS (SELECT 1 FROM jobs_entry e WHERE e.id = {row}.entry_id AND e.signed_at IS NOT NULL)"
_CLOSED_JOB = "EXISTS (SELECT 1 FROM jobs_job j WHERE j.id = {row}.job_id AND j.gone_at IS NOT NULL)"
_BY_ENTRY = "EXISTS (SELECT 1 FROM jobs_entry e JOIN jobs_job j ON j.id = e.job_id WHERE e.id = {row}.entry_id AND j.gone_at IS NOT NULL)"
_BY_PHOTO = "EXISTS (SELECT 1 FROM jobs_photo p JOIN jobs_job j ON j.id = p.job_id WHERE p.id = {row}.photo_id AND j.gone_at IS NOT NULL)"
_BY_CARD = "EXISTS (SELECT 1 FROM jobs_job j WHERE j.card_id = {row}.card_id AND j.gone_at IS NOT NULL)"
_THE_CARD = "EXISTS (SELECT 1 FROM jobs_job j WHERE j.card_id = OLD.id AND j.gone_at IS NOT NULL)"
_OF_PRACTICE = "EXISTS (SELECT 1 FROM jobs_job j WHERE j.id = NEW.job_id AND j.practice)"
_IN_A_RECORD = (
    "OLD.digest <> '' AND EXISTS (SELECT 1 FROM jobs_record r JOIN jobs_entry e ON e.id = r.entry_id"
    " WHERE e.job_id = OLD.job_id AND instr(r.content, OLD.digest) > 0)"
)
OF_AN_ENTRY = ("jobs_reading", "jobs_move", "jobs_derivedfact", "jobs_record", "jobs_digest")
MADE_AFTER = ("jobs_record", "jobs_digest")  # made for an entry that is signed; once there, they never change
OF_A_JOB = {  # table: whether the job of a row is closed
    "jobs_entry": _CLOSED_JOB,
    "jobs_runstation": _CLOSED_JOB,
    "jobs_timer": _CLOSED_JOB,
    "jobs_photo": _CLOSED_JOB,
    "jobs_trayplace": _CLOSED_JOB,
    **dict.fromkeys(OF_AN_ENTRY, _BY_ENTRY),
    "jobs_pin": _BY_PHOTO,
    **dict.fromkeys(("engines_seat", "engines_seal", "engines_fitted", "engines_mark", "engines_spec"), _BY_CARD),
}


def _triggers() -> Iterator[tuple[str, str, str]]:
    """Name, when, and what it says."""
    yield "entry_no_change", "BEFORE UPDATE ON jobs_entry WHEN OLD.signed_at IS NOT NULL", SIGNED
    yield "entry_no_delete", "BEFORE DELETE ON jobs_entry WHEN OLD.signed_at IS NOT NULL", SIGNED
    for act, row in (("INSERT", "NEW"), ("UPDATE", "OLD"), ("DELETE", "OLD")):
        word = {"INSERT": "insert", "UPDATE": "change", "DELETE": "delete"}[act]
        for table in OF_AN_ENTRY:
            name = table.removeprefix("jobs_")
            if table not in MADE_AFTER:
                yield f"{name}_no_{word}", f"BEFORE {act} ON {table} WHEN {_SIGNED_ENTRY.format(row=row)}", SIGNED
            elif act != "INSERT":
                yield f"{name}_no_{word}", f"BEFORE {act} ON {table}", SIGNED
        for table, closed in OF_A_JOB.items():
            yield f"closed_{table}_no_{word}", f"BEFORE {act} ON {table} WHEN {closed.format(row=row)}", CLOSED
    yield "recorded_photo_no_delete", f"BEFORE DELETE ON jobs_photo WHEN {_IN_A_RECORD}", RECORDED
    yield "recorded_photo_no_change", f"BEFORE UPDATE OF image, digest, job_id ON jobs_photo WHEN {_IN_A_RECORD}", RECORDED
    reopening = "OLD.gone_at IS NOT NULL AND NEW.gone_at IS NOT NULL"
    yield "closed_job_no_change", f"BEFORE UPDATE ON jobs_job WHEN {reopening}", CLOSED
    yield "practice_is_set_once", "BEFORE UPDATE OF practice ON jobs_job WHEN OLD.practice <> NEW.practice", PRACTICE
    yield "practice_is_not_signed", f"BEFORE UPDATE OF signed_at ON jobs_entry WHEN NEW.signed_at IS NOT NULL AND {_OF_PRACTICE}", PRACTICE
    yield "closed_job_no_delete", "BEFORE DELETE ON jobs_job WHEN OLD.gone_at IS NOT NULL", CLOSED
    shelved = "NEW.version = OLD.version"  # putting a copy on the shelf counts versions, no more
    yield "closed_card_no_change", f"BEFORE UPDATE ON engines_enginecard WHEN {shelved} AND {_THE_CARD}", CLOSED
    yield "closed_card_no_delete", f"BEFORE DELETE ON engines_enginecard WHEN {_THE_CARD}", CLOSED


TABLES = {"jobs_job", "engines_enginecard", *OF_A_JOB}


def install(using: str = "default", **kwargs: Any) -> None:
    """Put the triggers in place, after every migration."""
    with connections[using].cursor() as cursor:
        if not set(connections[using].introspection.table_names(cursor)) >= TABLES:
            return
        for name, when, words in _triggers():
            cursor.execute(f"CREATE TRIGGER IF NOT EXISTS {name} {when} BEGIN SELECT RAISE(ABORT, '{words}'); END")


def remove(using: str = "default", **kwargs: Any) -> None:
    """Take every trigger away before a migration: a table that is rebuilt must not be named by one, and rows are carried over."""
    with connections[using].cursor() as cursor:
        cursor.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'")
        for (name,) in cursor.fetchall():
            cursor.execute(f"DROP TRIGGER IF EXISTS {name}")


@contextmanager
def lifted(using: str = "default") -> Iterator[None]:
    """For filling and emptying a database of tests and measurements only."""
    with connections[using].cursor() as cursor:
        for name, _, _ in _triggers():
            cursor.execute(f"DROP TRIGGER IF EXISTS {name}")
    try:
        yield
    finally:
        install(using)
