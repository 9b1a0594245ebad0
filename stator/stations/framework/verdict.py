"""The verdict of a station: a state, a code and values. Sentences are rendered from these later."""

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
    """The state of a verdict. Each state has its color, shape and word on every page."""

    WAIT = "wait"
    IN = "in"
    TOO_CLOSE = "too_close"
    OUT = "out"
    STOP = "stop"


@dataclass(frozen=True)
class MessageRef:
    """A message by its code, with its values."""

    code: str
    values: Mapping[str, Any] = field(default_factory=dict, hash=False)


@dataclass(frozen=True)
class Alternative:
    """An alternative to a verdict that is not OK: a question, another method or one of its options, a page or a station.

    `code` names its sentence in the station's `WAYS`; without a code the shared sentence is used.
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
    """A verdict: its state, the code of its headline, and the values of the sentences.

    The reason, the next step and the detail are codes as well; an empty one uses the code of the headline. `assumed` lists what the verdict
    depends on that nobody measured and no card contains. `ways` are alternatives, if the next step is neither a question nor an action.
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
    """Return values for storage: amounts with kind, step and uncertainty, and nothing that is formatted for one reader."""
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
    """Return a number of a sentence from its stored form; infinite values are stored as words."""
    if not isinstance(value, dict) or value.keys() != AMOUNT:
        return value
    uncertainty = value["uncertainty"]
    known = None if uncertainty is None else float(uncertainty)
    return Amount(float(value["value"]), value["kind"], value["resolution"], known, value["toward"])


def from_conformity(call: Conformity, code: str, **more: Any) -> Verdict:
    """A call of the core under a headline of the station."""
    values = {**call.values, **more.pop("values", {})}
    return Verdict(more.pop("state", call.state), code, values, reason=more.pop("reason", call.code), **more)
