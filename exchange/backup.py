"""Backup while people work, and back again: the database by SQLite's own online backup, every photo, and a checksum of each."""

from __future__ import annotations

import hashlib
import json
import shutil
import sqlite3
import tempfile
import zipfile
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

from django.utils import timezone

SCHEMA, VERSION = "stator-backup", 1
DATABASE, MANIFEST = "stator.sqlite3", "manifest.json"
PHOTOS = "photos/"
MOST_BYTES = 200 * 1024**3
Progress = Callable[[int, int], None]


class Damaged(Exception):
    """The file is no whole backup; nothing of it was taken."""


def _digest(path: Path) -> str:
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()


def copy_database(source: Path, target: Path) -> None:
    """A consistent copy of a database that is being written to."""
    with closing(sqlite3.connect(source)) as live, closing(sqlite3.connect(target)) as copy:
        live.backup(copy, pages=256)
        if copy.execute("PRAGMA integrity_check").fetchone()[0] != "ok":
            raise Damaged("The copy of the database does not pass its own check.")


def write(database: Path, photos: Path, target: Path, progress: Progress = lambda done, of: None) -> int:
    """Write a backup beside its name first, then put it in its place whole. How many files are in it."""
    with tempfile.TemporaryDirectory(dir=target.parent, prefix=".backup-") as folder:
        copied, whole = Path(folder) / DATABASE, Path(folder) / "whole.zip"
        copy_database(database, copied)
        found = sorted(path for path in photos.rglob("*") if path.is_file()) if photos.exists() else []
        sums = {DATABASE: _digest(copied)}
        with zipfile.ZipFile(whole, "w", zipfile.ZIP_DEFLATED, allowZip64=True) as out:
            out.write(copied, DATABASE)
            for index, path in enumerate(found, 1):
                name = f"{PHOTOS}{path.relative_to(photos).as_posix()}"
                sums[name] = _digest(path)
                out.write(path, name, zipfile.ZIP_STORED)
                progress(index, len(found))
            made = timezone.now().isoformat(timespec="seconds")
            manifest = {"schema": SCHEMA, "version": VERSION, "made_at": made, "sha256": sums}
            out.writestr(MANIFEST, json.dumps(manifest, indent=1))
        shutil.move(whole, target)
    return len(sums)


def _manifest(found: zipfile.ZipFile) -> dict[str, str]:
    try:
        said = json.loads(found.read(MANIFEST))
    except (KeyError, ValueError) as error:
        raise Damaged("There is no manifest in it: this is no backup of Stator's.") from error
    if said.get("schema") != SCHEMA:
        raise Damaged("This is no backup of Stator's.")
    if said.get("version") != VERSION:
        raise Damaged(f"Version {said.get('version')} of a backup; this Stator reads version {VERSION}.")
    sums = said.get("sha256")
    if not isinstance(sums, dict) or DATABASE not in sums:
        raise Damaged("Its manifest names no database.")
    return sums


def _check_names(found: zipfile.ZipFile, sums: dict[str, str]) -> None:
    names = [info.filename for info in found.infolist()]
    if len(set(names)) != len(names) or set(names) != {*sums, MANIFEST}:
        raise Damaged("It does not hold what its manifest says.")
    for name in sums:
        parts = Path(name).parts
        if name != DATABASE and (not name.startswith(PHOTOS) or ".." in parts or Path(name).is_absolute() or "\\" in name):
            raise Damaged(f"{name!r} is no place of a backup.")
    if sum(info.file_size for info in found.infolist()) > MOST_BYTES:
        raise Damaged("It would unpack to more than any shop has.")


def read(source: Path, database: Path, photos: Path) -> int:
    """Put a backup back, whole or not at all: unpacked and checked beside, then swapped in. How many files. The server must be stopped."""
    try:
        archive = zipfile.ZipFile(source)
    except (OSError, zipfile.BadZipFile) as error:
        raise Damaged("That file cannot be opened as a ZIP.") from error
    database.parent.mkdir(parents=True, exist_ok=True)
    with archive as found, tempfile.TemporaryDirectory(dir=database.parent, prefix=".restore-") as folder:
        sums = _manifest(found)
        _check_names(found, sums)
        for name, digest in sums.items():
            path = Path(folder) / name
            path.parent.mkdir(parents=True, exist_ok=True)
            try:
                with found.open(name) as inside, path.open("wb") as out:
                    shutil.copyfileobj(inside, out)
            except (zipfile.BadZipFile, OSError, RuntimeError) as error:
                raise Damaged(f"{name} in it is damaged.") from error
            if _digest(path) != digest:
                raise Damaged(f"{name} in it is not what was backed up.")
        with closing(sqlite3.connect(Path(folder) / DATABASE)) as copy:
            if copy.execute("PRAGMA integrity_check").fetchone()[0] != "ok":
                raise Damaged("Its database does not pass its own check.")
        old = photos.with_name(f"{photos.name}.old")
        shutil.rmtree(old, ignore_errors=True)
        if photos.exists():
            photos.rename(old)
        unpacked = Path(folder) / PHOTOS
        if unpacked.exists():
            shutil.move(unpacked, photos)
        for leftover in ("-wal", "-shm"):
            database.with_name(database.name + leftover).unlink(missing_ok=True)
        (Path(folder) / DATABASE).replace(database)
        shutil.rmtree(old, ignore_errors=True)
    return len(sums)
