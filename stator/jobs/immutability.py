"""Database triggers that prevent changes to signed entries and closed jobs, whatever model, view or script writes.

All table names come from the models. SQLite refuses to create a trigger on a table that does not exist, so a missing table is an error.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from typing import Any

from django.db import connections, models

from stator.engines.models import CasePart, EngineCard, Fitted, Joint, Mark, Seal, Seat, Spec, Subject
from stator.jobs.models import DerivedFact, Digest, Entry, Job, Move, Photo, Pin, Reading, Record, RunStation, Timer, TrayPlace

SIGNED = "a signed entry is never changed; supersede it with a new one"
RECORDED = "a picture that a signed entry names is kept with it"
PRACTICE = "practice is set once, and never signed"
CLOSED = "a job that was handed over is closed; nothing in it changes"
MESSAGES = (SIGNED, RECORDED, PRACTICE, CLOSED)

Model = type[models.Model]


def _table(model: Model) -> str:
    return model._meta.db_table


ENTRY, JOB, CARD, PHOTO, RECORD = map(_table, (Entry, Job, EngineCard, Photo, Record))

# conditions on a row; `{row}` is NEW, OLD or an alias
_ENTRY_IS_SIGNED = "{row}.signed_at IS NOT NULL"
_OF_SIGNED_ENTRY = f"EXISTS (SELECT 1 FROM {ENTRY} e WHERE e.id = {{row}}.entry_id AND e.signed_at IS NOT NULL)"  # noqa: S608
_JOB_IS_CLOSED = "{row}.gone_at IS NOT NULL"
_OF_CLOSED_JOB = f"EXISTS (SELECT 1 FROM {JOB} j WHERE j.id = {{row}}.job_id AND j.gone_at IS NOT NULL)"  # noqa: S608
_BY_ENTRY = (
    f"EXISTS (SELECT 1 FROM {ENTRY} e JOIN {JOB} j ON j.id = e.job_id"  # noqa: S608
    " WHERE e.id = {row}.entry_id AND j.gone_at IS NOT NULL)"
)
_BY_PHOTO = (
    f"EXISTS (SELECT 1 FROM {PHOTO} p JOIN {JOB} j ON j.id = p.job_id"  # noqa: S608
    " WHERE p.id = {row}.photo_id AND j.gone_at IS NOT NULL)"
)
_BY_CARD = f"EXISTS (SELECT 1 FROM {JOB} j WHERE j.card_id = {{row}}.card_id AND j.gone_at IS NOT NULL)"  # noqa: S608
_CARD_IS_CLOSED = f"EXISTS (SELECT 1 FROM {JOB} j WHERE j.card_id = {{row}}.id AND j.gone_at IS NOT NULL)"  # noqa: S608
_OF_PRACTICE = f"EXISTS (SELECT 1 FROM {JOB} j WHERE j.id = NEW.job_id AND j.practice)"  # noqa: S608
_IN_A_RECORD = (
    f"{{row}}.digest <> '' AND EXISTS (SELECT 1 FROM {RECORD} r JOIN {ENTRY} e ON e.id = r.entry_id"  # noqa: S608
    " WHERE e.job_id = {row}.job_id AND instr(r.content, {row}.digest) > 0)"
)
_ALWAYS = "1"
COUNTED = ("version", "stamp")  # columns of a card that change when a copy of it is put on the shelf

OF_AN_ENTRY: tuple[Model, ...] = (Reading, Move, DerivedFact, Record, Digest)
MADE_AFTER: tuple[Model, ...] = (Record, Digest)  # written for an entry that is signed already; they never change
OF_A_CARD: tuple[Model, ...] = (Seat, Seal, Fitted, Mark, Spec, CasePart, Joint, Subject)
OF_A_JOB: dict[Model, str] = {  # model: condition under which the job of a row is closed
    **dict.fromkeys((Entry, RunStation, Timer, Photo, TrayPlace), _OF_CLOSED_JOB),
    **dict.fromkeys(OF_AN_ENTRY, _BY_ENTRY),
    Pin: _BY_PHOTO,
    **dict.fromkeys(OF_A_CARD, _BY_CARD),
}
FINAL: dict[Model, tuple[str, str]] = {  # model: condition under which a row can never be replaced, and the message
    Entry: (_ENTRY_IS_SIGNED, SIGNED),
    **dict.fromkeys((Reading, Move, DerivedFact), (_OF_SIGNED_ENTRY, SIGNED)),
    **dict.fromkeys(MADE_AFTER, (_ALWAYS, SIGNED)),
    Job: (_JOB_IS_CLOSED, CLOSED),
    EngineCard: (_CARD_IS_CLOSED, CLOSED),
    **dict.fromkeys((RunStation, Timer, TrayPlace), (_OF_CLOSED_JOB, CLOSED)),
    Photo: (f"({_OF_CLOSED_JOB} OR ({_IN_A_RECORD}))", RECORDED),
    Pin: (_BY_PHOTO, CLOSED),
    **dict.fromkeys(OF_A_CARD, (_BY_CARD, CLOSED)),
}


def _unique(model: Model) -> Iterator[Iterable[str]]:
    """Yield the sets of columns of which each row of a table has values of its own."""
    for field in model._meta.concrete_fields:
        if field.unique and field.column:
            yield [field.column]
    for constraint in model._meta.constraints:
        if isinstance(constraint, models.UniqueConstraint) and constraint.fields and constraint.condition is None:
            yield [str(model._meta.get_field(name).column) for name in constraint.fields]  # type: ignore[union-attr]


def _replaced(model: Model, condition: str) -> str:
    """Return the condition that an `INSERT OR REPLACE`, which runs no delete trigger, would replace a final row."""
    same = " OR ".join("(" + " AND ".join(f'o."{column}" = NEW."{column}"' for column in columns) + ")" for columns in _unique(model))
    return f"EXISTS (SELECT 1 FROM {_table(model)} o WHERE ({same}) AND {condition.format(row='o')})"  # noqa: S608


def _triggers() -> Iterator[tuple[str, str, str]]:
    """Yield the name of each trigger, its event and condition, and its message."""
    yield "entry_no_change", f"BEFORE UPDATE ON {ENTRY} WHEN {_ENTRY_IS_SIGNED.format(row='OLD')}", SIGNED
    yield "entry_no_delete", f"BEFORE DELETE ON {ENTRY} WHEN {_ENTRY_IS_SIGNED.format(row='OLD')}", SIGNED
    for event, row in (("INSERT", "NEW"), ("UPDATE", "OLD"), ("DELETE", "OLD")):
        word = {"INSERT": "insert", "UPDATE": "change", "DELETE": "delete"}[event]
        for model in OF_AN_ENTRY:
            name = model._meta.model_name
            if model not in MADE_AFTER:
                yield f"{name}_no_{word}", f"BEFORE {event} ON {_table(model)} WHEN {_OF_SIGNED_ENTRY.format(row=row)}", SIGNED
            elif event != "INSERT":
                yield f"{name}_no_{word}", f"BEFORE {event} ON {_table(model)}", SIGNED
        for model, closed in OF_A_JOB.items():
            yield (
                f"closed_{model._meta.label_lower.replace('.', '_')}_no_{word}",
                (f"BEFORE {event} ON {_table(model)} WHEN {closed.format(row=row)}"),
                CLOSED,
            )
    for model, (condition, message) in FINAL.items():
        name = model._meta.label_lower.replace(".", "_")
        yield f"{name}_no_replace", f"BEFORE INSERT ON {_table(model)} WHEN {_replaced(model, condition)}", message
    recorded = _IN_A_RECORD.format(row="OLD")
    yield "recorded_photo_no_delete", f"BEFORE DELETE ON {PHOTO} WHEN {recorded}", RECORDED
    yield "recorded_photo_no_change", f"BEFORE UPDATE OF image, digest, job_id ON {PHOTO} WHEN {recorded}", RECORDED
    reopening = "OLD.gone_at IS NOT NULL AND NEW.gone_at IS NOT NULL"
    yield "closed_job_no_change", f"BEFORE UPDATE ON {JOB} WHEN {reopening}", CLOSED
    yield "practice_is_set_once", f"BEFORE UPDATE OF practice ON {JOB} WHEN OLD.practice <> NEW.practice", PRACTICE
    yield "practice_is_not_signed", f"BEFORE UPDATE OF signed_at ON {ENTRY} WHEN NEW.signed_at IS NOT NULL AND {_OF_PRACTICE}", PRACTICE
    yield "closed_job_no_delete", f"BEFORE DELETE ON {JOB} WHEN {_JOB_IS_CLOSED.format(row='OLD')}", CLOSED
    fixed = ", ".join(f'"{field.column}"' for field in EngineCard._meta.concrete_fields if field.name not in COUNTED)
    yield "closed_card_no_change", f"BEFORE UPDATE OF {fixed} ON {CARD} WHEN {_CARD_IS_CLOSED.format(row='OLD')}", CLOSED
    yield "closed_card_no_delete", f"BEFORE DELETE ON {CARD} WHEN {_CARD_IS_CLOSED.format(row='OLD')}", CLOSED


def install(using: str = "default", **kwargs: Any) -> None:
    """Create the triggers, after every migration."""
    with connections[using].cursor() as cursor:
        for name, when, message in _triggers():
            cursor.execute(f"CREATE TRIGGER IF NOT EXISTS {name} {when} BEGIN SELECT RAISE(ABORT, '{message}'); END")


def remove(using: str = "default", **kwargs: Any) -> None:
    """Drop every trigger before a migration: a table that is rebuilt must not be named by one."""
    with connections[using].cursor() as cursor:
        cursor.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'")
        for (name,) in cursor.fetchall():
            cursor.execute(f"DROP TRIGGER IF EXISTS {name}")


@contextmanager
def without_triggers(using: str = "default") -> Iterator[None]:
    """Drop these triggers for a while: only for filling and emptying a database of tests and measurements."""
    with connections[using].cursor() as cursor:
        for name, _, _ in _triggers():
            cursor.execute(f"DROP TRIGGER IF EXISTS {name}")
    try:
        yield
    finally:
        install(using)
