"""The schedule of one heat with many parts.

Times of oven and chillers are relative to the opening of the oven at 0. The remaining schedule follows while it runs.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

from shopmath.thermal.ordering import HeatOrder, HeatPart, finish_times_s, one_heat
from shopmath.thermal.rates import temperature_at_c
from shopmath.thermal.seat import Setup, sure_until_s
from shopmath.validation import BadInput, gettext_noop, not_negative, positive

HELD_S = 1e9  # time constant: a part that stays in its chiller until its turn does not drift


def seat_before_s(setup: Setup, outer_c: float, inner_c: float) -> float:
    """Return when a part that waits in the cold must be seated, s from now.

    The case cools all the time, the part only while it is carried.

    Parameters
    ----------
    setup : Setup
        `handling_s` is how long it is carried.
    outer_c, inner_c : float
        The case now, and the part in its chiller, °C.

    Returns
    -------
    float
        s; 0 when the wanted clearance is not sure even now, infinity when it never closes.

    Examples
    --------
    >>> from shopmath.thermal.seat import example_setup, sure_until_s
    >>> seat_before_s(example_setup(), 110, -15) > sure_until_s(example_setup(), 110, -15)
    True
    """
    carried_c = temperature_at_c(setup.handling_s, inner_c, setup.room_c, setup.inner_room.low)
    return sure_until_s(setup, outer_c, carried_c, HELD_S)


@dataclass(frozen=True)
class SheetPart:
    """A part of the heat with its time in its chiller; an empty chiller means none."""

    part: HeatPart
    chiller: str = ""
    chill_s: float = 0.0


@dataclass(frozen=True)
class Step:
    """Something that lasts: which part (empty for the case), where, from and to, s; the door opens at 0."""

    part: str
    where: str
    from_s: float
    to_s: float


@dataclass(frozen=True)
class HeatSheet:
    """The order, the parts that wait for another heat, every step in sequence, and the parts for which a chiller has no room."""

    order: tuple[str, ...]
    left_out: tuple[str, ...]
    steps: tuple[Step, ...]
    crowded: tuple[str, ...]

    @property
    def begins_s(self) -> float:
        """Return when the first part must be put in, s before the opening (negative)."""
        return min((step.from_s for step in self.steps), default=0.0)


def heat_sheet(parts: Sequence[SheetPart], soak_s: float, places: Mapping[str, int], *, oven: str = "oven") -> HeatSheet:
    """Plan a heat backward from the moment the door opens.

    Parameters
    ----------
    parts : sequence of SheetPart
        Windows count from the door.
    soak_s : float
        The case in the oven, s.
    places : mapping of str to int
        Chillers and how many parts each holds.
    oven : str
        Its name.

    Returns
    -------
    HeatSheet
        A part stays in its chiller until its turn: what is colder than planned does no harm, what has warmed does. Where more parts want a
        chiller than it holds, those fitted last are crowded out and need another chiller or a heat of their own.

    Raises
    ------
    BadInput
        Negative times, an unknown chiller, a chiller without a place.

    Source
    ------
    Backward scheduling on the order of Moore and Hodgson.

    Examples
    --------
    >>> ring, pin = HeatPart("ring", 30, 120, 52), HeatPart("pin", 20, 200, 12)
    >>> sheet = heat_sheet([SheetPart(ring, "freezer", 3600), SheetPart(pin, "freezer", 1800)], 2700, {"freezer": 2})
    >>> sheet.order, sheet.begins_s, [(step.part or "case", step.from_s) for step in sheet.steps]
    (('ring', 'pin'), -3600.0, [('ring', -3600.0), ('case', -2700.0), ('pin', -1770.0), ('ring', 0.0), ('pin', 30.0)])
    """
    soak_s = not_negative("soak_s", soak_s)
    for name, count in places.items():
        if count < 1:
            raise BadInput("places", gettext_noop("{name} has no place: it holds at least one part."), name=name)
    for each in parts:
        not_negative("chill_s", each.chill_s)
        if each.chiller and each.chiller not in places:
            raise BadInput(
                "chiller",
                gettext_noop("{name} wants the {chiller}, which is not on this sheet."),
                name=each.part.name,
                chiller=each.chiller,
            )
    found = one_heat([each.part for each in parts])
    home = finish_times_s([each.part for each in parts], found.order)
    by_name = {each.part.name: each for each in parts}
    steps = [Step("", oven, -soak_s, 0.0)] if soak_s else []
    taken = dict.fromkeys(places, 0)
    crowded = []
    for name in found.order:
        each = by_name[name]
        begins = home[name] - each.part.handling_s
        steps.append(Step(name, "in", begins, home[name]))
        if not each.chiller:
            continue
        if taken[each.chiller] == places[each.chiller]:
            crowded.append(name)
            continue
        taken[each.chiller] += 1
        steps.append(Step(name, each.chiller, begins - each.chill_s, begins))
    return HeatSheet(found.order, found.left_out, tuple(sorted(steps, key=lambda step: (step.from_s, step.part))), tuple(crowded))


@dataclass(frozen=True)
class Remaining:
    """The rest of a heat: the order from now, what no longer fits, and the remaining seconds of each part."""

    order: tuple[str, ...]
    left_out: tuple[str, ...]
    time_left_s: Mapping[str, float]


def replan(parts: Iterable[HeatPart], done: Iterable[str], elapsed_s: float, *, slower: float = 1.0) -> Remaining:
    """Order the remaining parts while the heat runs.

    Parameters
    ----------
    parts : iterable of HeatPart
        The whole heat; windows count from the door.
    done : iterable of str
        Names that are in.
    elapsed_s : float
        Since the door opened.
    slower : float
        How much longer the windows last than planned, by a temperature read meanwhile: under 1 they close sooner.

    Returns
    -------
    Remaining
        A part whose window has closed, or whose predecessor is lost, is left out.

    Raises
    ------
    BadInput
        Negative times, a factor not above 0, a name that is not in the heat.

    Examples
    --------
    >>> heat = [HeatPart("a", 30, 60), HeatPart("b", 30, 90), HeatPart("c", 30, 300)]
    >>> left = replan(heat, ["a"], 70)
    >>> left.order, left.left_out, left.time_left_s["b"]
    (('c',), ('b',), 20.0)
    """
    whole = list(parts)
    gone = set(done)
    known = {part.name for part in whole}
    for name in gone - known:
        raise BadInput("done", gettext_noop("{name!r} is not in this heat."), name=name)
    not_negative("elapsed_s", elapsed_s)
    positive("slower", slower)
    left = {part.name: part.closes_s * slower - elapsed_s for part in whole if part.name not in gone}
    still = [
        replace(part, closes_s=max(0.0, left[part.name]), after=tuple(name for name in part.after if name not in gone))
        for part in whole
        if part.name in left
    ]
    found: HeatOrder = one_heat(still) if still else HeatOrder((), ())
    times = {name: seconds if math.isfinite(seconds) else math.inf for name, seconds in left.items()}
    return Remaining(found.order, found.left_out, times)
