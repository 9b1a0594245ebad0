"""The secret that signs sessions: made at the first start, kept in the data folder, readable by its owner alone."""

from __future__ import annotations

import os
import secrets
from pathlib import Path


def secret_key(path: Path) -> str:
    """The secret in `path`, made there when it is missing. Two starts at once agree on one."""
    try:
        handle = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
    except FileExistsError:
        return path.read_text(encoding="utf-8").strip()
    with os.fdopen(handle, "w", encoding="utf-8") as file:
        key = secrets.token_urlsafe(64)
        file.write(key)
    return key
