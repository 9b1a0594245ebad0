"""What a station says of its part: a state, a code and values. The sentences are made later, from these."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import asdict, dataclass, field, fields
from enum import StrEnum
from typing import Any

from shopmath.amounts import Amount
from shopmath.verdict import Conformity
from stator.engines.fact_keys import FactKey
from stator.stations.framework.page_components import Scale


class State(StrEnum):
    """How a call stands; each has its colour, its shape and its word on every page."""

    WAIT = "wait"
    IN = "in"
    TOO_CLOSE = "too_close"
    OUT = "out"
    STOP = "stop"


@dataclass(frozen=True)
class MessageRef:
    """A sentence by its code, with what stands in it."""

    code: str
    values: Mapping[str, Any] = field(default_factory=dict, hash=False)


@dataclass(frozen=True)
class Alternative:
    """A way on from a call that is not OK: a question answered again, another method or one option of it, a page, a station.

    `code` names its sentence among the station's `WAYS`; without one it is said as every station says it.
    """

    slot: FactKey | None = None
    choice: str = ""
    option: str = ""
    page: str = ""
    station: str = ""
    code: str = ""
    values: Mapping[str, Any] = field(default_factory=dict, hash=False)


@dataclass(frozen=True)
class Verdict:
    """The call: its state, the code of its headline, and what the sentences need.

    The reason, the next step and the detail are codes too; where one is empty the headline's own code is looked up. `assumed` is what the
    call rests on that nobody measured and no card says. `ways` are ways on, where what comes next is neither asked nor an action.
    """

    state: str
    code: str
    values: Mapping[str, Any] = field(default_factory=dict, hash=False)
    reason: str = ""
    next: str = ""
    detail: str = ""
    standing: str = ""
    scale: Scale | None = None
    assumed: tuple[MessageRef, ...] = ()
    ways: tuple[Alternative, ...] = ()


AMOUNT = {each.name for each in fields(Amount)}


def plain_values(values: Mapping[str, Any]) -> dict[str, Any]:
    """Values as they are kept: amounts with their kind, step and uncertainty; nothing that is made for one reader only."""
    return {name: _plain(value) for name, value in values.items() if _is_plain(value)}


def _is_plain(value: Any) -> bool:
    if isinstance(value, (tuple, list)):
        return all(_is_plain(each) for each in value)
    return value is None or isinstance(value, (Amount, str, int, float, bool))


def _plain(value: Any) -> Any:
    if isinstance(value, Amount):
        return {name: _plain(each) for name, each in asdict(value).items()}
    if isinstance(value, (tuple, list)):
        return [_plain(each) for each in value]
    return str(value) if isinstance(value, float) and not math.isfinite(value) else value


def again(value: Any) -> Any:
    """A number of a sentence out of what was kept; what is beyond all measure is kept in words."""
    if not isinstance(value, dict) or value.keys() != AMOUNT:
        return value
    uncertainty = value["uncertainty"]
    known = None if uncertainty is None else float(uncertainty)
    return Amount(float(value["value"]), value["kind"], value["resolution"], known, value["toward"])


def from_conformity(call: Conformity, code: str, **more: Any) -> Verdict:
    """A call of the core under a headline of the station."""
    values = {**call.values, **more.pop("values", {})}
    return Verdict(more.pop("state", call.state), code, values, reason=more.pop("reason", call.code), **more)
