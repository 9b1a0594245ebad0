"""A value compared with its limits, in words that all stations share."""

from __future__ import annotations

from typing import Any

from shopmath.amounts import Amount
from shopmath.verdict import Conformity


def limit_values(call: Conformity, kind: str = "length", resolution: float = 0.001) -> dict[str, Any]:
    """Return the values of a verdict of `shopmath.verdict.call` as numbers of one kind, for the sentences in `words.BY_LIMIT`."""
    uncertainty = call.values.get("uncertainty") or None
    return {
        "value": Amount(call.values["value"], kind, resolution, uncertainty),
        "limit": Amount(call.values["limit"], kind, resolution),
        "margin": Amount(call.values["margin"], kind, resolution),
    }
