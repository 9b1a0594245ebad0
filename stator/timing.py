"""How long a call takes, for `bin/bench`."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from typing import Any

ROUNDS = 60


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
