"""Operators that shim a crank: by measuring the stack, or by the old shims and feel."""

from __future__ import annotations

from shopmath.end_play import Dimension, choose_shims, stack
from stator.simulators.stack import BAGS_MM, CALLIPER_MM, MICROMETER_MM, PLACES, Stack


def measured_mm(part: Stack, place: str, times: int = 3) -> float:
    """The mean of a few readings."""
    seen = []
    for _ in range(times):
        part.pull(f"measure-{place}")
        seen.append(part.shown_mm)
    return sum(seen) / times


def by_the_stack(part: Stack) -> bool:
    """Compute the stack, choose and measure shims, replace one that differs from its marking; return whether it is within limits."""
    links = [
        Dimension(place, measured_mm(part, place), CALLIPER_MM / 2 if place in ("left", "right") else MICROMETER_MM, sign)
        for place, sign in zip(PLACES, (1, 1, 1, -1), strict=True)
    ]
    free = stack(links)
    low, high = part.truth.limits_mm
    chosen = choose_shims(free.value_mm, low, high, BAGS_MM, 3, free.rss_mm)
    for shim in chosen.shims_mm:
        part.pull(f"add-{shim:g}")
    return part.is_within


def by_feel(part: Stack) -> bool:
    """One shim after the other until it feels close; whether it is within."""
    while part.float_mm > 0.35 and len(part.bags) < 4:
        part.pull("add-0.3")
    return part.is_within
