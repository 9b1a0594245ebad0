"""What a station says follows from what it was given and from who reads: it is said once, and the same again is taken as it was said.

Nobody need remember to throw anything away: what was given is held by value, so that whatever changes in it is another thing given.
The moment is not among it: where that was looked at, nothing is kept. Only a page that shows takes anything as it was said. What is done
and recorded is worked out each time: a record tells what was asked of the facts, so all of it has to be asked.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable
from dataclasses import dataclass, field
from functools import partial
from typing import Any, TypeVar

from django.db.models import Model

from stator.stations.framework.definition import StationInput
from stator.ui.units import current_reader

Told = TypeVar("Told")
MOST = 128  # drawings, numbers, warnings: about 6 kB each
MOST_HELD = 32  # questions, plans: what holds on to what it was made of, about 150 kB for one station
_NOTHING: Any = object()
_said: dict[Hashable, Any] = {}  # the one asked for last, last
_held: dict[Hashable, Any] = {}
_marks: dict[Mark, Mark] = {}


def forget() -> None:
    """As after a start: nothing was said yet."""
    for kept in (_said, _held, _marks):
        kept.clear()


class Mark:
    """Something given, by value. Two of the same value are one object, so that they are compared once."""

    def __init__(self, value: Hashable) -> None:
        self.value, self._hash = value, hash(value)

    def __hash__(self) -> int:
        return self._hash

    def __eq__(self, other: object) -> bool:
        return self is other or (isinstance(other, Mark) and self._hash == other._hash and self.value == other.value)


def _kept(among: dict[Hashable, Any], most: int, key: Hashable, make: Callable[[], Told], may_keep: Callable[[], bool]) -> Told:
    """Return what was made under a key; else it is made now, and kept where it may be."""
    found: Told = among.pop(key, _NOTHING)
    if found is _NOTHING:
        found = make()
        if not may_keep():
            return found
    among[key] = found
    for oldest in list(among)[:-most]:
        among.pop(oldest, None)
    return found


@dataclass(frozen=True)
class Once:
    """What follows from something given: for a page that shows, told once for all who are given the same; else once for this work."""

    given: StationInput
    mark: Mark | None  # none where each is to be worked out
    here: dict[Hashable, Any] = field(default_factory=dict, compare=False)

    def __post_init__(self) -> None:
        if self.mark:
            vars(self.given)["_held"] = partial(_hold, self.mark)  # for its `keep`; without a way back from there to here

    def say(self, what: Hashable, say: Callable[[], Told]) -> Told:
        """A drawing, its numbers, its warnings."""
        if what not in self.here:
            key = (self.mark, what, current_reader())
            self.here[what] = _kept(_said, MOST, key, say, lambda: not self.given.looked) if self.mark else say()
        found: Told = self.here[what]
        return found

    def ask(self, ask: Callable[[], Told]) -> Told:
        """Questions, which no answer is held against: what checks one may look at the clock."""
        if self.mark is None:
            return ask()
        return _kept(_held, MOST_HELD, (self.mark, "questions", current_reader()), ask, lambda: not self.given.looked)


def _hold(mark: Mark, given: StationInput, what: str, make: Callable[[], Told]) -> Told:
    """Return what holds on to what it was made of, and looks at no clock while it is made, whoever has looked before."""
    before = given.looked
    vars(given)["_looked"] = False
    try:
        return _kept(_held, MOST_HELD, (mark, what, current_reader()), make, lambda: not given.looked)
    finally:
        vars(given)["_looked"] = before or given.looked


def mark_of(given: StationInput, station: str) -> Mark | None:
    """All that a station was given but for the moment, by value; none at practice, and where a card or the shelves have no stamp."""
    card, shop, own, job = given.card, given.shop, given.own, given.job
    if job is None or shop is None or not (card.stamp and shop.stocked) or job.practice:
        return None
    held = (own.taken, own.moves, repr(own.chosen), own.skipped, own.attempt, own.ticked)
    rows = (_values(shop), _values(job), tuple(map(_values, given.timers)), tuple(map(_values, given.tray)))
    seat = given.seat and given.seat.pk
    mark = Mark((station, card.pk, card.stamp, seat, given.facts.made_of, held, rows, tuple(given.past)))
    return _kept(_marks, MOST, mark, lambda: mark, lambda: True)  # type: ignore[arg-type]


def _values(row: Model) -> tuple[str, ...]:
    """A row by its columns; a job's count of acts is none of what it says."""
    return tuple(repr(vars(row).get(each.attname)) for each in row._meta.concrete_fields if each.attname != "revision")
