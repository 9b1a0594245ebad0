"""One seat hot and cold: what is done to it, its clearance at any moment, and how long that lasts."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

from shopmath.estimate import Estimate
from shopmath.iso286 import Limits
from shopmath.thermal.confidence import clearance_reach_mm, evenly_spread, normal_cdf
from shopmath.thermal.expansion import REFERENCE_C, clearance_mm, wanted_clearance_mm
from shopmath.thermal.limits import Limit
from shopmath.thermal.rates import Body, seating_s, temperature_at_c, window_s
from shopmath.validation import BadInput, gettext_noop, positive

MOST_POINTS = 2000
LOCAL_OPENING = Estimate(0.4, 0.6, 0.8, "a boss heated alone is held by the cold case round it")
HEATED_U_K, CHILLED_U_K = 6.0, 3.0  # standard uncertainties of temperatures planned, not read
# the same by method, estimate: a flame heats least evenly
HEATED_BY_U_K = {
    "none": 2.0,
    "oven": 6.0,
    "hot_plate": 9.0,
    "heat_gun": 12.0,
    "torch": 15.0,
}


@dataclass(frozen=True)
class Heating:
    """How the outer part is heated: method, its temperature if it has one, the part's time constant in it, expansion factor."""

    method: str
    surroundings_c: float | None = None
    time_constant: Estimate | None = None
    opening: float = 1.0
    opening_u: float = 0.0  # its standard uncertainty, where only the boss is hot


@dataclass(frozen=True)
class Chilling:
    """How the inner part is chilled; `for_s` if the plan does not choose the time."""

    method: str
    surroundings_c: float
    time_constant: Estimate
    for_s: float | None = None


@dataclass(frozen=True)
class Setup:
    """One seat and what is to be done to it.

    `target_c` overrides the plan's own temperature for the outer part.
    """

    nominal_mm: float
    bore_um: Limits
    inner_um: Limits
    outer_alpha: float
    inner_alpha: float
    outer_room: Estimate
    inner_room: Estimate
    contact: Estimate
    room_c: float
    heating: Heating | None = None
    chilling: Chilling | None = None
    hot_limits: tuple[Limit, ...] = ()
    cold_limits: tuple[Limit, ...] = ()
    refusal: str | None = None
    wanted: str = "usual"
    target_c: float | None = None
    handling_s: float = 20.0
    outer_u_k: float = HEATED_U_K
    inner_u_k: float = CHILLED_U_K
    outer_name: str = "case"
    inner_name: str = "bearing"
    bore_even: bool = False  # whether only the class of the size is known: then it is spread evenly over its width
    inner_even: bool = False

    @property
    def interference_mm(self) -> float:
        return (self.inner_um.mean_um - self.bore_um.mean_um) / 1000

    @property
    def wanted_mm(self) -> float:
        return wanted_clearance_mm(self.nominal_mm, self.wanted)

    @property
    def opening_alpha(self) -> float:
        """Expansion of the seat itself: less than the metal's when only the boss is hot."""
        return self.outer_alpha * (self.heating.opening if self.heating else 1.0)


@dataclass(frozen=True)
class Moment:
    """Clearance at one moment: mean and half its expanded uncertainty, mm, and the probability of the desired clearance."""

    time_s: float
    outer_c: float
    inner_c: float
    clearance_mm: float
    spread_mm: float
    confidence: float

    @property
    def low_mm(self) -> float:
        return self.clearance_mm - 2 * self.spread_mm

    @property
    def high_mm(self) -> float:
        return self.clearance_mm + 2 * self.spread_mm


def moment(setup: Setup, time_s: float, outer_c: float, inner_c: float) -> Moment:
    """Clearance of a seat at given temperatures.

    Examples
    --------
    >>> round(moment(example_setup(), 0.0, 110, -15).clearance_mm, 3)
    0.096
    """
    mean = clearance_mm(setup.nominal_mm, setup.interference_mm, setup.opening_alpha, outer_c, setup.inner_alpha, inner_c)
    return _moment(setup, time_s, outer_c, inner_c, mean)


def _moment(setup: Setup, time_s: float, outer_c: float, inner_c: float, mean_mm: float) -> Moment:
    """Return the uncertainty of a clearance from sizes, temperatures, and the expansion of a boss that is heated locally."""
    opens = setup.outer_alpha * setup.heating.opening_u * (outer_c - REFERENCE_C) if setup.heating else 0.0
    warmth = setup.nominal_mm * math.hypot(setup.opening_alpha * setup.outer_u_k, setup.inner_alpha * setup.inner_u_k, opens)
    reach = clearance_reach_mm(setup.bore_um, setup.inner_um, warmth, setup.bore_even, setup.inner_even)
    bore, ring = (band.width_um / 2000 if even else 0.0 for band, even in _sizes(setup))
    narrow = math.hypot(warmth, *(0.0 if even else band.width_um / 6000 for band, even in _sizes(setup)))
    over = mean_mm - setup.wanted_mm
    if bore or ring:
        confidence = evenly_spread(over, bore, ring, narrow)
    else:
        confidence = normal_cdf(over / narrow) if narrow else float(over >= 0)
    return Moment(time_s, outer_c, inner_c, mean_mm, reach / 2, confidence)


def _sizes(setup: Setup) -> tuple[tuple[Limits, bool], ...]:
    return (setup.bore_um, setup.bore_even), (setup.inner_um, setup.inner_even)


def moment_after(setup: Setup, time_s: float, outer_c: float, inner_c: float) -> Moment:
    """The same some time after both parts have left oven and freezer.

    Examples
    --------
    >>> moment_after(example_setup(), 300.0, 110, -15).clearance_mm < moment(example_setup(), 0, 110, -15).clearance_mm
    True
    """
    return moment(
        setup,
        time_s,
        temperature_at_c(time_s, outer_c, setup.room_c, setup.outer_room.likely),
        temperature_at_c(time_s, inner_c, setup.room_c, setup.inner_room.likely),
    )


@lru_cache(64, typed=True)
def curve(setup: Setup, outer_c: float, inner_c: float, until_s: float, points: int = 61) -> tuple[Moment, ...]:
    """Return the clearance over time after the opening, evenly spaced.

    Parameters
    ----------
    setup : Setup
    outer_c, inner_c : float
        As the parts leave, °C.
    until_s : float
        Length, s.
    points : int
        How many, 2 to 2000.

    Returns
    -------
    tuple of Moment, length points

    Examples
    --------
    >>> len(curve(example_setup(), 110, -15, 900.0))
    61
    """
    if isinstance(points, bool) or not isinstance(points, int) or not 2 <= points <= MOST_POINTS:
        raise BadInput(
            "points", gettext_noop("A curve has 2 to {most_points} points, not {points!r:.20}."), most_points=MOST_POINTS, points=points
        )
    step = positive("until_s", until_s) / (points - 1)
    moment(setup, 0.0, outer_c, inner_c)  # refuses what cannot be
    interference, room = setup.interference_mm, setup.room_c
    found = []
    for index in range(points):
        time = index * step
        outer = room + (outer_c - room) * math.exp(-time / setup.outer_room.likely)
        inner = room + (inner_c - room) * math.exp(-time / setup.inner_room.likely)
        mean = setup.nominal_mm * (setup.opening_alpha * (outer - REFERENCE_C) - setup.inner_alpha * (inner - REFERENCE_C)) - interference
        found.append(_moment(setup, time, outer, inner, mean))
    return tuple(found)


def sure_until_s(setup: Setup, outer_c: float, inner_c: float, inner_s: float | None = None) -> float:
    """Return how long the desired clearance is certain: its low end (2σ) with the fastest drift of both parts.

    `inner_s` is the inner part's time constant where it lies elsewhere than in the room.

    Examples
    --------
    >>> sure_until_s(example_setup(), 110, -15) < open_for_s(example_setup(), 110, -15).likely
    True
    """
    spread = moment(setup, 0.0, outer_c, inner_c).spread_mm
    return _window(setup, outer_c, inner_c, setup.outer_room.low, inner_s or setup.inner_room.low, 2 * spread)


def open_for_s(setup: Setup, outer_c: float, inner_c: float) -> Estimate:
    """Return the window of the desired clearance at the mean sizes, by fast, likely and slow drift.

    Examples
    --------
    >>> round(open_for_s(example_setup(), 110, -15).likely / 60, 1)
    17.3
    """
    pairs = zip(*((each.low, each.likely, each.high) for each in (setup.outer_room, setup.inner_room)), strict=True)
    low, likely, high = sorted(_window(setup, outer_c, inner_c, *pair) for pair in pairs)
    return Estimate(low, likely, high, setup.outer_room.basis)


def _window(setup: Setup, outer_c: float, inner_c: float, outer_s: float, inner_s: float, more_mm: float = 0.0) -> float:
    outer, inner = Body(setup.opening_alpha, outer_c, outer_s), Body(setup.inner_alpha, inner_c, inner_s)
    return window_s(setup.nominal_mm, setup.interference_mm, setup.wanted_mm + more_mm, outer, inner, setup.room_c)


def home_within_s(setup: Setup, outer_c: float, inner_c: float) -> Estimate:
    """Return the seconds to seat it after it touches: low for the tightest sizes and fastest contact, high for the loosest.

    Examples
    --------
    >>> home_within_s(example_setup(), 60, 20).low < home_within_s(example_setup(), 60, -15).low
    True
    """
    outer = Body(setup.opening_alpha, outer_c, setup.outer_room.likely)
    inner = Body(setup.inner_alpha, inner_c, setup.inner_room.likely)
    spread = moment(setup, 0.0, outer_c, inner_c).spread_mm
    tight, likely, loose = (
        seating_s(setup.nominal_mm, setup.interference_mm + uncertainty, outer, inner, setup.room_c, setup.contact)
        for uncertainty in (2 * spread, 0.0, -2 * spread)
    )
    return Estimate(tight.low, likely.likely, loose.high, setup.contact.basis)


def example_setup() -> Setup:
    """Return a 47 N7 main seat in a cast aluminum case, oven at 150 °C, ring from a household freezer, for the examples."""
    return Setup(
        nominal_mm=47.0,
        bore_um=Limits(-33, -8),
        inner_um=Limits(-11, 0),
        outer_alpha=21.5e-6,
        inner_alpha=12e-6,
        outer_room=Estimate(550, 1000, 1700, "still air"),
        inner_room=Estimate(600, 900, 1300, "still air"),
        contact=Estimate(6, 16, 48, "dry"),
        room_c=20.0,
        heating=Heating("oven", 120.0, Estimate(450, 750, 1100, "oven")),
        chilling=Chilling("freezer", -18.0, Estimate(600, 900, 1300, "freezer")),
        hot_limits=(Limit(150, "cast aluminium", "it over-ages"),),
        cold_limits=(Limit(-50, "bearing steel", "it grows"),),
    )
