"""Timing of calls for `bin/bench`."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from typing import Any

ROUNDS = 60


def beside(act: Callable[[], Any], yardstick: Callable[[], Any], rounds: int = ROUNDS) -> tuple[float, float, float]:
    """Return median and 95th percentile of a call, ms, and its ratio to another call.

    A machine changes its speed within seconds, so both calls alternate.
    """
    for _ in range(5):
        yardstick()
        act()
    times, ratios = [], []
    for _ in range(rounds):
        start = time.perf_counter()
        yardstick()
        middle = time.perf_counter()
        act()
        took = time.perf_counter() - middle
        times.append(1000 * took)
        ratios.append(took / (middle - start))
    return statistics.median(times), statistics.quantiles(times, n=20)[-1], statistics.median(ratios)


def spread(act: Callable[[], Any], rounds: int = ROUNDS) -> tuple[float, float]:
    """Median and 95th percentile of a call, ms, after a few to warm up."""
    for _ in range(5):
        act()
    times = []
    for _ in range(rounds):
        start = time.perf_counter()
        act()
        times.append(1000 * (time.perf_counter() - start))
    return statistics.median(times), statistics.quantiles(times, n=20)[-1]
