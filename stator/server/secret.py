"""The secret that signs sessions: created at the first start and stored in the data folder, readable by its owner only."""

from __future__ import annotations

import os
import secrets
from pathlib import Path

LEAST = 32  # letters; fewer are no secret


class NoSecret(Exception):
    """The secret cannot be read, or there is none in its file."""


def secret_key(path: Path) -> str:
    """The secret in `path`, made there when it is missing.

    Two starts at once agree on one: it appears whole or not at all.

    Raises
    ------
    NoSecret
        With what to do.
    """
    try:
        if not path.exists():
            _make(path)
        key = path.read_text(encoding="utf-8").strip()
    except (OSError, UnicodeDecodeError) as error:
        raise NoSecret(f"The secret {path} cannot be read or written ({error}). Give this account the data folder.") from error
    if len(key) < LEAST:
        raise NoSecret(f"The secret {path} is empty or cut short. Delete it: the next start makes one, and everyone signs in again.")
    return key


def _make(path: Path) -> None:
    fresh = path.with_name(f".{path.name}.{os.getpid()}")
    handle = os.open(fresh, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600)
    with os.fdopen(handle, "w", encoding="utf-8") as file:
        file.write(secrets.token_urlsafe(64))
        file.flush()
        os.fsync(file.fileno())
    try:
        os.link(fresh, path)  # the first of two wins; a name that is there already is left alone
    except FileExistsError:
        pass
    finally:
        fresh.unlink()
