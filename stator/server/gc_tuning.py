"""How a process that answers pages looks through its memory for what nobody holds any more."""

from __future__ import annotations

import gc


def tune_garbage_collection() -> None:
    """What is loaded by now stays for as long as the process runs: it is not looked through again after every few hundred rows."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)
