"""What a station says of its part: a state, a code and values. The sentences are made later, from these."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import asdict, dataclass, field
from enum import StrEnum
from typing import Any

from shopmath.amounts import Amount
from shopmath.verdict import Call
from stations.pieces import Scale


class State(StrEnum):
    """How a call stands; each has its colour, its shape and its word on every page."""

    WAIT = "wait"
    IN = "in"
    TOO_CLOSE = "too_close"
    OUT = "out"
    STOP = "stop"


@dataclass(frozen=True)
class Said:
    """A sentence by its code, with what stands in it."""

    code: str
    values: Mapping[str, Any] = field(default_factory=dict, hash=False)


@dataclass(frozen=True)
class Verdict:
    """The call: its state, the code of its headline, and what the sentences need.

    The reason, the next step and the detail are codes too; where one is empty the headline's own code is looked up. `assumed` is what the
    call rests on that nobody measured and no card says.
    """

    state: str
    code: str
    values: Mapping[str, Any] = field(default_factory=dict, hash=False)
    reason: str = ""
    next: str = ""
    detail: str = ""
    standing: str = ""
    scale: Scale | None = None
    assumed: tuple[Said, ...] = ()


def plain_values(values: Mapping[str, Any]) -> dict[str, Any]:
    """Values as they are kept: amounts with their kind, step and uncertainty; nothing that is made for one reader only."""
    found: dict[str, Any] = {}
    for name, value in values.items():
        if isinstance(value, Amount):
            found[name] = asdict(value) if math.isfinite(value.value) else None
        elif isinstance(value, (str, int, float, bool)) or value is None:
            found[name] = value
        elif isinstance(value, (list, tuple)):
            found[name] = [str(each) for each in value]
    return found


def of_call(call: Call, code: str, **more: Any) -> Verdict:
    """A call of the core under a headline of the station."""
    values = {**call.values, **more.pop("values", {})}
    return Verdict(more.pop("state", call.state), code, values, reason=more.pop("reason", call.code), **more)
