"""Backup while people work, and restore: the database by SQLite's online backup, every photo, and checksums."""

from __future__ import annotations

import hashlib
import json
import shutil
import sqlite3
import tempfile
import zipfile
from collections.abc import Callable, Iterable
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

from django.utils import timezone

from stator.exchange.zip_errors import UNREADABLE
from stator.shop.data_format import FORMAT, MARKER, OldFolder, check_folder

SCHEMA, VERSION = "stator-backup", 2
DATABASE, MANIFEST, SIGNING_KEY = "stator.sqlite3", "manifest.json", "signing-key"
PHOTOS = "photos/"
OURS = ("jobs_job", "jobs_entry", "jobs_reading", "shop_person", "engines_enginecard", "django_migrations", MARKER)
MOST_BYTES = 200 * 1024**3
Progress = Callable[[int, int], None]


class Damaged(Exception):
    """The file is not a complete backup, or there is nothing to back up. Nothing was changed."""


def _digest(path: Path) -> str:
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()


# what a database is


def check_database(path: Path, known: Iterable[tuple[str, str]] | None = None) -> None:
    """Refuse a database that is damaged, not Stator's, or newer than this Stator (with `known`, its migrations)."""
    try:
        with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True)) as found:
            if found.execute("PRAGMA integrity_check").fetchone()[0] != "ok":
                raise Damaged("The database does not pass its own check.")
            tables = {name for (name,) in found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            if not tables >= set(OURS):
                raise Damaged("The database in it is not Stator's.")
            if found.execute("PRAGMA foreign_key_check").fetchone():
                raise Damaged("In the database something points at what is not there.")
            applied = set(found.execute("SELECT app, name FROM django_migrations"))
    except sqlite3.DatabaseError as error:
        raise Damaged("The database cannot be read: it is damaged, or it is none.") from error
    newer = newer_than_known(applied, known) if known is not None else []
    if newer:
        raise Damaged(f"The database was written by a newer Stator ({newer[0]}). Upgrade Stator first.")


def newer_than_known(applied: Iterable[tuple[str, str]], known: Iterable[tuple[str, str]]) -> list[str]:
    """Migrations of our own applications that this Stator does not know."""
    here = set(known)
    ours = {app for app, _ in here}
    return sorted(f"{app}.{name}" for app, name in applied if app in ours and (app, name) not in here)


# out


def copy_database(source: Path, target: Path) -> None:
    """A consistent copy of a database that is being written to."""
    with closing(sqlite3.connect(f"{source.absolute().as_uri()}?mode=rw", uri=True)) as live, closing(sqlite3.connect(target)) as copy:
        live.backup(copy, pages=256)
        copy.execute("PRAGMA journal_mode=DELETE")  # one file, without a log beside it


def write(database: Path, photos: Path, target: Path, progress: Progress = lambda done, of: None) -> int:
    """Write a backup under a temporary name, then rename it; return the number of files in it.

    Raises
    ------
    Damaged
        If there is no database of Stator; an empty backup would look like one.
    """
    if not database.is_file() or not database.stat().st_size:
        raise Damaged(f"There is no database at {database}, or it is empty. Is STATOR_DATA the shop's data folder?")
    try:
        check_folder(database, photos)
    except OldFolder as error:
        raise Damaged(str(error)) from error
    except sqlite3.DatabaseError as error:
        raise Damaged(f"The database at {database} cannot be read: {error}.") from error
    if not target.parent.is_dir():
        raise Damaged(f"There is no folder {target.parent} to write into.")
    for left in target.parent.glob(".backup-*"):  # of one that was killed
        shutil.rmtree(left, ignore_errors=True)
    with tempfile.TemporaryDirectory(dir=target.parent, prefix=".backup-") as folder:
        copied, whole = Path(folder) / DATABASE, Path(folder) / "whole.zip"
        try:
            copy_database(database, copied)
        except sqlite3.DatabaseError as error:
            raise Damaged(f"The database at {database} cannot be read: {error}.") from error
        check_database(copied)
        found = sorted(path for path in photos.rglob("*") if path.is_file()) if photos.exists() else []
        sums = {DATABASE: _digest(copied)}
        key = database.with_name(SIGNING_KEY)
        with zipfile.ZipFile(whole, "w", zipfile.ZIP_DEFLATED, allowZip64=True) as out:
            out.write(copied, DATABASE)
            if key.is_file():
                sums[SIGNING_KEY] = _digest(key)
                out.write(key, SIGNING_KEY)
            for index, path in enumerate(found, 1):
                name = f"{PHOTOS}{path.relative_to(photos).as_posix()}"
                sums[name] = _digest(path)
                out.write(path, name, zipfile.ZIP_STORED)
                progress(index, len(found))
            made = timezone.now().isoformat(timespec="seconds")
            manifest = {"schema": SCHEMA, "version": VERSION, MARKER: FORMAT, "made_at": made, "sha256": sums}
            out.writestr(MANIFEST, json.dumps(manifest, indent=1))
        whole.replace(target)
    return len(sums)


# a folder of daily ones


@dataclass(frozen=True)
class StoredBackup:
    """A backup in the folder of daily backups."""

    path: Path
    at: datetime

    @classmethod
    def all_in(cls, folder: Path) -> list[StoredBackup]:
        """Oldest first."""
        found = [cls(path, datetime.fromtimestamp(path.stat().st_mtime, UTC)) for path in folder.glob("stator-*.zip")]
        return sorted(found, key=lambda kept: kept.path.name)


def write_daily(database: Path, photos: Path, folder: Path, keep: int, now: datetime, name: str = "") -> StoredBackup:
    """Write today's backup and delete the oldest beyond `keep`.

    A backup before an upgrade has a name of its own and is counted as well.
    """
    folder.mkdir(parents=True, exist_ok=True)
    path = folder / f"stator-{now:%Y%m%d-%H%M%S}{f'-{name}' if name else ''}.zip"
    write(database, photos, path)
    for old in StoredBackup.all_in(folder)[:-keep] if keep else []:
        old.path.unlink(missing_ok=True)
    return StoredBackup(path, now)


# back


def _manifest(found: zipfile.ZipFile) -> dict[str, str]:
    try:
        said = json.loads(found.read(MANIFEST))
    except UNREADABLE as error:
        raise Damaged("There is no manifest in it: this is no backup of Stator's.") from error
    if not isinstance(said, dict) or said.get("schema") != SCHEMA:
        raise Damaged("This is no backup of Stator's.")
    if said.get("version") != VERSION:
        found_version = str(said.get("version"))[:20]
        raise Damaged(f"The file has version {found_version} of a backup. This Stator reads version {VERSION}.")
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
        if name not in (DATABASE, SIGNING_KEY) and (
            not name.startswith(PHOTOS) or ".." in parts or Path(name).is_absolute() or "\\" in name
        ):
            raise Damaged(f"{name!r} is no place of a backup.")
    if sum(info.file_size for info in found.infolist()) > MOST_BYTES:
        raise Damaged("It would unpack to more than any shop has.")


def unpack(source: Path, folder: Path, known: Iterable[tuple[str, str]] | None = None) -> int:
    """Unpack a backup into an empty folder and check every file and the database. How many files.

    Raises
    ------
    Damaged
        Anything in it is not what it should be.
    """
    try:
        archive = zipfile.ZipFile(source)
    except UNREADABLE as error:
        raise Damaged("That file cannot be opened as a ZIP.") from error
    with archive as found:
        sums = _manifest(found)
        _check_names(found, sums)
        for name, digest in sums.items():
            path = folder / name
            path.parent.mkdir(parents=True, exist_ok=True)
            try:
                with found.open(name) as inside, path.open("wb") as out:
                    shutil.copyfileobj(inside, out)
            except UNREADABLE as error:
                raise Damaged(f"{name} in it is damaged, or there is no room for it here ({error}).") from error
            if _digest(path) != digest:
                raise Damaged(f"{name} in it is not what was backed up.")
            if name == SIGNING_KEY:
                path.chmod(0o600)
    check_database(folder / DATABASE, known)
    return len(sums)


def end_links(database: Path) -> int:
    """Revoke every customer link and session of a restored database, so that what was revoked after the backup remains revoked."""
    with closing(sqlite3.connect(database)) as found, found:
        tables = {name for (name,) in found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        now = datetime.now(UTC).strftime("%Y-%m-%d %H:%M:%S")
        if "django_session" in tables:
            found.execute("DELETE FROM django_session")
        if "jobs_ownerlink" not in tables:
            return 0
        return found.execute("UPDATE jobs_ownerlink SET revoked_at = ? WHERE revoked_at IS NULL", (now,)).rowcount
