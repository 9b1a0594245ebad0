"""Predictions of the stations compared with the outcome, over all signed entries."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

Results = Sequence[Mapping[str, Any]]
TAG = "tag"  # of the job, put into a result for the plot
LATEST = 12  # lines of a plot that shows one case a line


@dataclass(frozen=True)
class PredictionScore:
    """A kind of prediction with its number of cases and its success."""

    said: str
    count: int
    came: str


@dataclass(frozen=True)
class PredictionComparison:
    """A line of the plot: the predicted range of shares and the observed share with its uncertainty."""

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
