"""What a station predicts, and how it compares with what happened, over every signed entry."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

Results = Sequence[Mapping[str, Any]]


@dataclass(frozen=True)
class Held:
    """What was predicted, how often, and what came of it."""

    said: str
    count: int
    came: str


@dataclass(frozen=True)
class Prediction:
    """One kind of prediction; stations that make the same one share it."""

    name: Any
    predicted: Any
    held: Callable[[Results], list[Held]]
