"""What stops a signed entry from changing: triggers in the database itself, under every model, view and script."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from django.db import connections

_SIGNED = "EXISTS (SELECT 1 FROM jobs_entry e WHERE e.id = {row}.entry_id AND e.signed_at IS NOT NULL)"
TRIGGERS = {
    "entry_no_change": "BEFORE UPDATE ON jobs_entry WHEN OLD.signed_at IS NOT NULL",
    "entry_no_delete": "BEFORE DELETE ON jobs_entry WHEN OLD.signed_at IS NOT NULL",
    "reading_no_insert": f"BEFORE INSERT ON jobs_reading WHEN {_SIGNED.format(row='NEW')}",
    "reading_no_change": f"BEFORE UPDATE ON jobs_reading WHEN {_SIGNED.format(row='OLD')}",
    "reading_no_delete": f"BEFORE DELETE ON jobs_reading WHEN {_SIGNED.format(row='OLD')}",
}
MESSAGE = "a signed entry is never changed; supersede it with a new one"


def install(using: str = "default", **kwargs: Any) -> None:
    """Put the triggers in place; run after every migration, since rebuilding a table drops them."""
    with connections[using].cursor() as cursor:
        tables = connections[using].introspection.table_names(cursor)
        if not {"jobs_entry", "jobs_reading"} <= set(tables):
            return
        for name, when in TRIGGERS.items():
            cursor.execute(f"CREATE TRIGGER IF NOT EXISTS {name} {when} BEGIN SELECT RAISE(ABORT, '{MESSAGE}'); END")


def remove(using: str = "default") -> None:
    with connections[using].cursor() as cursor:
        for name in TRIGGERS:
            cursor.execute(f"DROP TRIGGER IF EXISTS {name}")


@contextmanager
def lifted(using: str = "default") -> Iterator[None]:
    """For emptying a test database only."""
    remove(using)
    try:
        yield
    finally:
        install(using)
