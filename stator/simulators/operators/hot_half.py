"""Operators that fit five hot bearings: by an infrared thermometer on a paint dot, or by the clock."""

from __future__ import annotations

from stator.simulators.case import seen_c
from stator.simulators.heated_case_half import BEARINGS, CASE_ALPHA, PAINT, ROOM_C, HotHalf

TIGHTEST_UM, SPARE_UM, SPARE_K = 39.0, 20.0, 5.0  # N7 at its tightest on the largest; what a ring wants to fall freely
LOOKS_S = 60.0


def shown_when_warm(true_c: float, around_c: float) -> float:
    """Return what the infrared thermometer shows of the paint dot at that temperature."""
    return seen_c(true_c, PAINT, around_c)


def by_the_gun(part: HotHalf) -> int:
    """Heat until the paint dot shows what the tightest seat needs, and fit all; lift out what jams and heat further."""
    size = max(BEARINGS.values())
    needed = ROOM_C + (TIGHTEST_UM + SPARE_UM) / (1000 * size * CASE_ALPHA) + SPARE_K
    for more_k in (0.0, 30.0, 50.0):
        part.pull("set-125" if more_k == 0.0 else "set-140")
        part.pull("oven")
        for _ in range(90):
            part.passes(LOOKS_S)
            part.pull("paint")
            if part.shown_c >= min(shown_when_warm(needed + more_k, part.set_c), part.set_c - 14):
                break
        part.pull("out")
        for name in sorted(BEARINGS, key=lambda each: BEARINGS[each]):
            if name not in part.home:
                part.pull(f"drop-{name}")
        if not part.jammed:
            break
        for name in list(part.jammed):
            part.pull(f"lift-{name}")
    return part.left + part.knocked + 5 * part.is_spoiled


def by_the_clock(part: HotHalf) -> int:
    """Heat for ten minutes and fit all, with blows if necessary; return the bearings that are spoiled or not seated."""
    part.pull("oven")
    part.passes(600)
    part.pull("out")
    for name in BEARINGS:
        part.pull(f"drop-{name}")
        part.pull(f"knock-{name}")
    return part.left + part.knocked
