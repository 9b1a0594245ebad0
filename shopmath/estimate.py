"""A value known only as a band."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from shopmath.validation import BadInput, gettext_noop, numbers


@dataclass(frozen=True)
class Estimate:
    """Low, likely and high of something not measured; `basis` says where the band comes from.

    Examples
    --------
    >>> Estimate(5.0, 7.5, 9.5, "still air").likely
    7.5
    """

    low: float
    likely: float
    high: float
    basis: str = ""
    estimated: bool = True

    def __post_init__(self) -> None:
        numbers(self)
        if not self.low <= self.likely <= self.high:
            raise BadInput(
                "estimate", gettext_noop("A band must rise: {low}, {likely}, {high}."), low=self.low, likely=self.likely, high=self.high
            )

    def map(self, function: Callable[[float], float], basis: str = "") -> Estimate:
        """The band seen through a rising or falling function.

        Examples
        --------
        >>> Estimate(5.0, 7.5, 10.0).map(lambda film: 100 / film)
        Estimate(low=10.0, likely=13.333333333333334, high=20.0, basis='', estimated=True)
        """
        low, likely, high = (function(value) for value in (self.low, self.likely, self.high))
        low, high = min(low, high), max(low, high)
        return Estimate(low, likely, high, basis or self.basis, self.estimated)


def exactly(value: float, basis: str) -> Estimate:
    """A measured value as a band of no width, marked as not estimated."""
    return Estimate(value, value, value, basis, estimated=False)
