"""What a station predicts, and how it compares with what happened, over every signed entry."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

Results = Sequence[Mapping[str, Any]]
TAG = "tag"  # of the job, put into a result for the plot
LATEST = 12  # lines of a plot that shows one case a line


@dataclass(frozen=True)
class PredictionScore:
    """What was predicted, how often, and what came of it."""

    said: str
    count: int
    came: str


@dataclass(frozen=True)
class PredictionComparison:
    """A line of the plot: what was predicted, as a band of shares, and what happened, with its own uncertainty where it has one."""

    label: str
    low: float
    high: float
    happened: float
    unsure: tuple[float, float] | None = None


@dataclass(frozen=True)
class Prediction:
    """One kind of prediction; stations that make the same one share it."""

    name: Any
    predicted: Any
    held: Callable[[Results], list[PredictionScore]]
    beside: Callable[[Results], list[PredictionComparison]]
    axis: Any  # what a share of 100 % means
