"""Marker of the data format: a database and every exported file of Stator 1.0 and later contain `stator_format`."""

from __future__ import annotations

import sqlite3
from contextlib import closing
from pathlib import Path

FORMAT = 1
MARKER = "stator_format"  # table of the database, key of a file
OLD_TABLES = ("shop_person", "jobs_job", "engines_enginecard")  # of version 0.x, none of which had the marker


class OldFolder(Exception):
    """The data folder was made by Stator 0.x. The message states what to do."""

    def __init__(self, advice: str = "Run `bin/demo --fresh`.") -> None:
        super().__init__(f"This folder was made by Stator 0.x and cannot be upgraded. {advice}")


class EmptyDatabase(Exception):
    """The database has no content although photos of jobs are stored next to it."""


def open_read_only(path: Path) -> sqlite3.Connection:
    """Open a database read-only. Reading raises `sqlite3.DatabaseError` if it is damaged."""
    return sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True)


def tables_of(path: Path) -> set[str]:
    """Return the names of the tables of a database."""
    with closing(open_read_only(path)) as database:
        return {name for (name,) in database.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}


def check_folder(database: Path, photos: Path, advice: str = "Run `bin/demo --fresh`.") -> None:
    """Check that a data folder is new or of this format. Nothing is written.

    Raises
    ------
    OldFolder
        Stator 0.x made it.
    EmptyDatabase
        The database is missing or empty, but there are photos: they would no longer belong to any job.
    sqlite3.DatabaseError
        The database is damaged.
    """
    tables = tables_of(database) if database.exists() and database.stat().st_size else set()
    if tables.intersection(OLD_TABLES) and MARKER not in tables:
        raise OldFolder(advice)
    if not tables and photos.exists() and any(path.is_file() for path in photos.rglob("*")):
        raise EmptyDatabase(
            f"The database {database} is empty, but there are photos of jobs in {photos}."
            " Restore a backup with `manage.py restore FILE.zip --yes`, or choose an empty folder in STATOR_DATA."
        )
