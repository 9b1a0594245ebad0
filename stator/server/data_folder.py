"""The data folder: locked by one server at a time, and replaced as a whole by a restore.

A restore unpacks and checks next to the folder and ends with two renames: the old folder aside, the new one into its place. After a crash
before the first, the old one remains; after a crash between them, the next start completes the restore. At any moment there is one complete
folder, old or new.
"""

from __future__ import annotations

import os
import shutil
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from django.core.files import locks

LOCK = "lock"


class FolderInUse(Exception):
    """Another process uses the data folder."""


def ready_beside(folder: Path) -> Path:
    """Return where a whole new folder waits to be swapped in."""
    return folder.with_name(f".{folder.name}.restored")


def finish_swap(folder: Path) -> bool:
    """Finish a restore that was killed between its two renames. Whether there was one."""
    ready = ready_beside(folder)
    if not folder.exists() and ready.exists():
        ready.rename(folder)
        return True
    return False


def swap_in(folder: Path, fresh: Path) -> Path | None:
    """Put a whole folder into the place of another. The old one, aside; None when there was none."""
    ready = ready_beside(folder)
    shutil.rmtree(ready, ignore_errors=True)
    os.sync()  # what was unpacked is on the disk before it is named
    fresh.rename(ready)
    aside = None
    if folder.exists():
        aside = folder.with_name(f"{folder.name}.before-{time.strftime('%Y%m%d-%H%M%S')}")
        if aside.exists():
            aside = aside.with_name(f"{aside.name}-{os.getpid()}")
        folder.rename(aside)
    ready.rename(folder)
    os.sync()
    return aside


def clear_leftovers(folder: Path) -> None:
    """Delete what an interrupted backup or restore left next to the folder."""
    if folder.exists():
        shutil.rmtree(ready_beside(folder), ignore_errors=True)
    for left in folder.parent.glob(f".{folder.name}.restoring-*"):
        shutil.rmtree(left, ignore_errors=True)


@contextmanager
def held(folder: Path, who: str) -> Iterator[None]:
    """Lock the data folder while a server runs or a backup is restored; the lock ends with the process.

    Raises
    ------
    Held
        If another process has the lock.
    """
    folder.mkdir(parents=True, exist_ok=True)
    path = folder / LOCK
    with path.open("a+", encoding="utf-8") as file:
        if not locks.lock(file, locks.LOCK_EX | locks.LOCK_NB):
            file.seek(0)
            raise FolderInUse(f"{folder} is in use by {file.read(60).strip() or 'another process'}. Stop it first.")
        file.seek(0)
        file.truncate()
        file.write(f"{who}, process {os.getpid()}")
        file.flush()
        try:
            yield
        finally:
            locks.unlock(file)
