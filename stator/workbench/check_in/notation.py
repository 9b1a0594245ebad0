"""Several sizes typed into one field in the notation of the trade: `25x40x7` for a seal, `M27x1` for a thread."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from shopmath.validation import BadInput


def spread(data: Any, prefix: str, names: Sequence[str], read: Callable[[str], Sequence[float]]) -> Any:
    """Return the input with sizes that were typed together in the first of some fields distributed over all of them.

    `data` is a form's own data, or None. It is unchanged if the first field contains anything else.
    """
    keys = [f"{prefix}-{name}" if prefix else name for name in names]
    try:
        sizes = read(str(data.get(keys[0]) or "")) if data is not None else None
    except BadInput:
        return data
    if sizes is None:
        return data
    found = data.copy()
    for key, size in zip(keys, sizes, strict=True):
        found[key] = f"{size:g}"
    return found
