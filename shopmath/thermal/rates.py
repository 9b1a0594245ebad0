"""Heating and cooling of parts: one lumped body in still surroundings, T = Ts + (T0 − Ts)·exp(−t/τ).

Good in air, where a casting or a ring is nearly even inside (Biot number far below 0.1). Not for cold sprays and flames: there
only a measured temperature counts.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

from shopmath.estimate import Estimate
from shopmath.thermal.expansion import clearance_mm as clearance_at
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, positive, temperature


@dataclass(frozen=True)
class Body:
    """A part that drifts toward its surroundings: linear expansion 1/K, temperature at the start °C, time constant s."""

    alpha: float
    start_c: float
    time_constant_s: float


def temperature_at_c(time_s: float, start_c: float, surroundings_c: float, time_constant_s: float) -> float:
    """Temperature of a part after some time in its surroundings.

    Parameters
    ----------
    time_s : float
        Since the start, s.
    start_c, surroundings_c : float
        °C.
    time_constant_s : float
        s.

    Returns
    -------
    float
        °C.

    Raises
    ------
    BadInput
        Negative time, time constant not above 0, temperature below absolute zero.

    Source
    ------
    Lumped capacity (Newton's law of cooling); any heat transfer handbook.

    Examples
    --------
    >>> round(temperature_at_c(700, 20, 150, 700), 1)
    102.2
    """
    not_negative("time_s", time_s)
    positive("time_constant_s", time_constant_s)
    surroundings = temperature("surroundings_c", surroundings_c)
    return surroundings + (temperature("start_c", start_c) - surroundings) * math.exp(-time_s / time_constant_s)


def soak_time_s(start_c: float, target_c: float, surroundings_c: float, time_constant_s: float) -> float:
    """Time until a part reaches a temperature.

    Parameters
    ----------
    start_c, target_c, surroundings_c : float
        °C; the target must lie between the start and the surroundings.
    time_constant_s : float
        s.

    Returns
    -------
    float
        s.

    Raises
    ------
    BadInput
        A target the surroundings can never bring about.

    Source
    ------
    Lumped capacity.

    Examples
    --------
    >>> round(soak_time_s(20, 145, 150, 700))
    2281
    """
    positive("time_constant_s", time_constant_s)
    start, target = temperature("start_c", start_c), temperature("target_c", target_c)
    surroundings = temperature("surroundings_c", surroundings_c)
    if start == target:
        return 0.0
    share = (surroundings - start) / (surroundings - target) if surroundings != target else math.inf
    if not math.isfinite(share) or share < 1:
        raise BadInput(
            "target_c",
            gettext_noop("A part at {start:g} °C never gets to {target:g} °C in surroundings of {surroundings:g} °C."),
            start=start,
            target=target,
            surroundings=surroundings,
        )
    return time_constant_s * math.log(share)


def time_constant_s(mass_kg: float, specific_heat: float, film_w_m2k: float, area_m2: float) -> float:
    """Return the time constant of a part from its mass and its film coefficient.

    Parameters
    ----------
    mass_kg : float
    specific_heat : float
        J/(kg K).
    film_w_m2k : float
        Combined film coefficient, convection and radiation, W/(m² K).
    area_m2 : float
        Whole surface, m².

    Returns
    -------
    float
        m·c/(h·A), s.

    Raises
    ------
    BadInput
        Anything not above 0.

    Examples
    --------
    >>> round(time_constant_s(3.0, 940, 7.5, 0.4))
    940
    """
    heat = positive("mass_kg", mass_kg) * positive("specific_heat", specific_heat)
    return heat / (positive("film_w_m2k", film_w_m2k) * positive("area_m2", area_m2))


def time_constant_from_readings(first_c: float, second_c: float, interval_s: float, surroundings_c: float) -> float:
    """Time constant of this very part, from two readings.

    Parameters
    ----------
    first_c, second_c : float
        Earlier and later reading, °C.
    interval_s : float
        Between them, s.
    surroundings_c : float
        °C.

    Returns
    -------
    float
        s.

    Raises
    ------
    BadInput
        Readings that do not approach the surroundings from one side.

    Examples
    --------
    >>> round(time_constant_from_readings(118, 96, 120, 21), 1)
    466.5
    """
    positive("interval_s", interval_s)
    surroundings = temperature("surroundings_c", surroundings_c)
    first, second = (temperature("first_c", first_c) - surroundings, temperature("second_c", second_c) - surroundings)
    if first * second <= 0 or abs(second) >= abs(first):
        raise BadInput(
            "second_c",
            gettext_noop("From {first_c:g} to {second_c:g} °C the part does not move toward its surroundings ({surroundings_c:g} °C)."),
            first_c=first_c,
            second_c=second_c,
            surroundings_c=surroundings_c,
        )
    return interval_s / math.log(first / second)


def _start(body: Body) -> float:
    positive("time_constant_s", body.time_constant_s)
    return temperature("start_c", body.start_c)


def _first_below(value: Callable[[float], float], floor: float, turns_at: float | None, settles_at: float) -> float:
    """First time `value` falls under `floor`; `turns_at` splits a curve that goes both down and up."""
    if value(0.0) < floor:
        return 0.0
    ends = [turns_at] if turns_at is not None and turns_at > 0 else []
    low = 0.0
    for high in (*ends, settles_at):
        if value(high) < floor:
            while high - low > max(1e-4, 1e-12 * high):
                middle = (low + high) / 2
                low, high = (low, middle) if value(middle) < floor else (middle, high)
            return high
        low = high
    return math.inf


@lru_cache(512, typed=True)
def window_s(nominal_mm: float, interference_mm: float, clearance_mm: float, outer: Body, inner: Body, surroundings_c: float) -> float:
    """Return how long the desired clearance lasts with both parts drifting toward room temperature.

    Parameters
    ----------
    nominal_mm, interference_mm, clearance_mm : float
        Diameter, overlap at 20 °C, clearance wanted, mm.
    outer, inner : Body
        The parts as they leave oven and freezer.
    surroundings_c : float
        Of both, °C.

    Returns
    -------
    float
        s: the time to *offer the part up*. 0 when never open, infinity when it never closes.

    Raises
    ------
    BadInput
        As `clearance_mm` and `temperature_at_c`.

    Notes
    -----
    Once the parts touch, `seating_s` takes over.

    Examples
    --------
    >>> case, ring = Body(21e-6, 110, 700), Body(11.5e-6, -18, 900)
    >>> round(window_s(47, 0.030, 0.0235, case, ring, 20), 1), round(window_s(47, 0.030, 0.0, case, ring, 20))
    (523.9, 950)
    """
    finite("clearance_mm", clearance_mm)
    settled = clearance_at(nominal_mm, interference_mm, outer.alpha, surroundings_c, inner.alpha, surroundings_c)
    hot = nominal_mm * outer.alpha * (_start(outer) - surroundings_c)
    cold = nominal_mm * inner.alpha * (_start(inner) - surroundings_c)

    def clearance(time: float) -> float:
        return settled + hot * math.exp(-time / outer.time_constant_s) - cold * math.exp(-time / inner.time_constant_s)

    # dC/dt = 0 where the two exponentials pull equally: at most one such time
    pull_out, pull_in = hot / outer.time_constant_s, cold / inner.time_constant_s
    rate = 1 / outer.time_constant_s - 1 / inner.time_constant_s
    turns_at = math.log(pull_out / pull_in) / rate if pull_out * pull_in > 0 and rate else None
    settles_at = 40 * max(outer.time_constant_s, inner.time_constant_s)
    return _first_below(clearance, clearance_mm, turns_at, settles_at)


def seating_s(nominal_mm: float, interference_mm: float, outer: Body, inner: Body, surroundings_c: float, contact: Estimate) -> Estimate:
    """Return the seconds to seat a part after it touches and exchanges heat with the other (*estimate*).

    Parameters
    ----------
    nominal_mm, interference_mm : float
        mm.
    outer, inner : Body
        As they are when they touch.
    surroundings_c : float
        °C.
    contact : Estimate
        Time constant of the heat crossing over, s (`ring_contact_s`).

    Returns
    -------
    Estimate
        s until the clearance is gone, low/likely/high; infinity when it stays free even warm through.

    Raises
    ------
    BadInput
        As `clearance_mm`.

    Notes
    -----
    The ring follows the case with the contact's time constant while the case cools to the room. A start that cocks is lifted
    off and heated again, never driven.

    Examples
    --------
    >>> from shopmath.thermal.convection import ring_contact_s
    >>> home = seating_s(47, 0.030, Body(21e-6, 90, 700), Body(12e-6, -10, 900), 20, ring_contact_s(47, 14, 0.106))
    >>> [round(value) for value in (home.low, home.likely, home.high)]
    [23, 50, 117]
    """

    settled = clearance_at(nominal_mm, interference_mm, outer.alpha, surroundings_c, inner.alpha, surroundings_c)
    warm = nominal_mm * (outer.alpha - inner.alpha) * (_start(outer) - surroundings_c)
    cold = nominal_mm * inner.alpha * (_start(outer) - _start(inner))

    def until_gone(contact_s: float) -> float:
        def clearance(time: float) -> float:
            return settled + warm * math.exp(-time / outer.time_constant_s) + cold * math.exp(-time / contact_s)

        return _first_below(clearance, 0.0, None, 20 * max(contact_s, outer.time_constant_s))

    low, likely, high = sorted(until_gone(positive("contact", value)) for value in (contact.low, contact.likely, contact.high))
    return Estimate(low, likely, high, contact.basis)
