"""Garbage collection of a server process."""

from __future__ import annotations

import gc


def tune_garbage_collection() -> None:
    """Exclude all objects loaded so far from garbage collection, because they remain until the process ends."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)
