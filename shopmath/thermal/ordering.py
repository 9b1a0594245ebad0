"""Several parts in one heat: the order that gets most of them in before their windows close."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from itertools import combinations

from shopmath.validation import BadInput, finite, gettext_noop, not_negative

MOST_PARTS, MOST_CHAINED = 40, 12  # in one heat: each further part that follows another doubles the work


@dataclass(frozen=True)
class HeatPart:
    """A part of a heat: seconds to fit it, seconds from the opening of the oven to the end of its window, its predecessors."""

    name: str
    handling_s: float
    closes_s: float
    diameter_mm: float = 0.0
    must: bool = False
    after: tuple[str, ...] = ()


@dataclass(frozen=True)
class HeatOrder:
    """Names in the order to fit them; the rest wait for a reheat."""

    order: tuple[str, ...]
    left_out: tuple[str, ...]


def _check(parts: list[HeatPart]) -> dict[str, HeatPart]:
    named: dict[str, HeatPart] = {}
    for part in parts:
        not_negative("handling_s", part.handling_s)
        not_negative("diameter_mm", part.diameter_mm)
        if math.isnan(part.closes_s) or part.closes_s < 0:
            raise BadInput(
                "closes_s",
                gettext_noop("{name}: a window closes at 0 s or later, not {closes_s!r}."),
                name=part.name,
                closes_s=part.closes_s,
            )
        if part.name in named:
            raise BadInput("name", gettext_noop("Two parts are called {name!r}."), name=part.name)
        named[part.name] = part
    for part in parts:
        for before in part.after:
            if before not in named:
                raise BadInput(
                    "after", gettext_noop("{name} comes after {before!r}, which is not in this heat."), name=part.name, before=before
                )
    return named


def _before(named: dict[str, HeatPart]) -> dict[str, frozenset[str]]:
    """Everything that must come before each part, through all steps."""
    found: dict[str, frozenset[str]] = {}

    def walk(name: str, trail: tuple[str, ...]) -> frozenset[str]:
        if name in trail:
            raise BadInput(
                "after", gettext_noop("{join}: that goes in a circle."), join=" after ".join((*trail[trail.index(name) :], name))
            )
        if name not in found:
            direct = named[name].after
            found[name] = frozenset(direct).union(*(walk(each, (*trail, name)) for each in direct))
        return found[name]

    for name in named:
        walk(name, ())
    return found


def _best(parts: list[HeatPart], forced: frozenset[str]) -> tuple[tuple[int, int, float, float], tuple[HeatPart, ...]] | None:
    """Best subset that fits, with `forced` in it; parts come in their due order.

    Lawler and Moore's table over the counts.
    """
    states: dict[tuple[int, int], tuple[float, float, tuple[HeatPart, ...]]] = {(0, 0): (0.0, 0.0, ())}
    for part in parts:
        grown = {} if part.name in forced else dict(states)
        for (musts, count), (time, width, chosen) in states.items():
            done = time + part.handling_s
            if done > part.closes_s:
                continue
            key, entry = (musts + part.must, count + 1), (done, width - part.diameter_mm, (*chosen, part))
            if key not in grown or entry[:2] < grown[key][:2]:
                grown[key] = entry
        states = grown
    if not states:
        return None
    key = max(states)
    time, width, chosen = states[key]
    return (*key, -time, -width), chosen


def one_heat(parts: Iterable[HeatPart]) -> HeatOrder:
    """Return the order that gets most parts in before their windows close.

    Parameters
    ----------
    parts : iterable of HeatPart
        `closes_s` may be infinity. A part listed in another's `after` goes in before it, or the other is left out too.

    Returns
    -------
    HeatOrder
        `must` parts are kept if at all possible; then as many as can be; ties by larger diameter first.

    Raises
    ------
    BadInput
        Two parts of one name, an `after` that is not in the heat or goes in a circle, negative times.

    Notes
    -----
    Earliest due date first with the most on time (Moore and Hodgson), as a table over how many are in; each choice of the parts
    that come after others is tried, with due dates of what precedes them drawn forward.

    Source
    ------
    J. M. Moore (1968), "An n job, one machine sequencing algorithm for minimizing the number of late jobs"; E. L. Lawler and
    J. M. Moore (1969).

    Examples
    --------
    >>> ring, clip, pin = HeatPart("ring", 30, 60, 52), HeatPart("circlip", 20, 300, after=("ring",)), HeatPart("pin", 40, 65)
    >>> one_heat([clip, pin, ring])
    HeatOrder(order=('ring', 'circlip'), left_out=('pin',))
    """
    named = _check(list(parts))
    before = _before(named)
    chained = [name for name in named if before[name]]
    if len(named) > MOST_PARTS or len(chained) > MOST_CHAINED:
        words = gettext_noop("At most {most} parts go into one heat, {most_chained} of them after others; split it into two heats.")
        raise BadInput("parts", words, "too_many", most=MOST_PARTS, most_chained=MOST_CHAINED)
    best: tuple[tuple[int, int, float, float], tuple[HeatPart, ...]] | None = None
    for size in range(len(chained) + 1):
        for saved in combinations(chained, size):
            forced = frozenset(saved).union(*(before[name] for name in saved))
            if any(name in chained and name not in saved for name in forced):
                continue
            due = {name: min([part.closes_s, *(named[k].closes_s for k in saved if name in before[k])]) for name, part in named.items()}
            able = [part for part in named.values() if part.name in saved or not before[part.name]]
            able.sort(key=lambda part: (due[part.name], len(before[part.name]), -part.diameter_mm, part.name))
            found = _best(able, forced)
            if found and (best is None or found[0] > best[0]):
                best = found
    chosen = [part.name for part in best[1]] if best else []
    return HeatOrder(tuple(chosen), tuple(name for name in named if name not in chosen))


def finish_times_s(parts: Iterable[HeatPart], order: Iterable[str]) -> dict[str, float]:
    """Return when each part of an order is seated, s after the opening.

    Examples
    --------
    >>> finish_times_s([HeatPart("a", 30, 60), HeatPart("b", 20, 90)], ["a", "b"])
    {'a': 30.0, 'b': 50.0}
    """
    handling = {part.name: finite("handling_s", part.handling_s) for part in parts}
    clock, times = 0.0, {}
    for name in order:
        clock += handling[name]
        times[name] = clock
    return times
