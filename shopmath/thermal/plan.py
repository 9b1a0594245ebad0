"""The complete plan for one seat: temperatures, probability and times.

An outer part is heated, an inner part may be chilled, both leave at time 0 and drift toward the room. The plan picks the outer
part's temperature so that the wanted clearance is still there when the part is offered up, keeps it inside every limit, and says
what would help when it barely works.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any

from shopmath.amounts import celsius, kelvin, mm
from shopmath.estimate import Estimate
from shopmath.iso286 import Limits
from shopmath.thermal.expansion import outer_temperature_needed_c
from shopmath.thermal.limits import LOCAL_METHODS, Limit
from shopmath.thermal.rates import soak_time_s, temperature_at_c
from shopmath.thermal.seat import Moment, Setup, home_within_s, moment, moment_after, open_for_s, sure_until_s
from shopmath.validation import BadInput, gettext_noop, not_negative, positive, temperature
from shopmath.verdict import IN, OUT, STOP, TOO_CLOSE, Conformity
from shopmath.verdict import judge as call

USUAL_HEAT_C = 100.0  # what is offered where nothing is heated yet
NEAR_K = 3.0  # a soak counts as done this close to its surroundings
STEP_C = 5.0  # targets are given in steps a person can read off an oven
ROUNDS, HOTTEST_C = 4, 1000.0
SPARE_S = 180.0  # window asked for beyond the handling: time for a second try


@dataclass(frozen=True)
class Widener:
    """A measure that increases the clearance or the probability, and by how much, mm.

    `code` and `values` say the same as `what`.
    """

    what: str
    gain_mm: float
    code: str = ""
    values: Mapping[str, Any] = field(default_factory=dict, hash=False)


@dataclass(frozen=True)
class HeatPlan:
    """The plan and its prediction. Times in s; None if they cannot be predicted."""

    setup: Setup
    call: Conformity
    target_c: float
    chill_c: float
    soak: Estimate | None
    chill: Estimate | None
    leaving: Moment
    offering: Moment
    sure_for_s: float
    window: Estimate
    seating: Estimate
    wideners: tuple[Widener, ...] = field(default=())

    @property
    def confidence(self) -> float:
        return self.offering.confidence

    @property
    def binding_limit(self) -> Limit | None:
        return self.setup.hot_limits[0] if self.setup.hot_limits else None


def _chilled(setup: Setup) -> tuple[float, Estimate | None]:
    """Temperature the inner part leaves at, and how long it takes."""
    chilling = setup.chilling
    if chilling is None:
        return setup.room_c, None
    if chilling.surroundings_c >= setup.room_c:
        raise BadInput(
            "chill_c",
            gettext_noop("A chiller at {surroundings_c:g} °C is no colder than the room ({room_c:g} °C)."),
            surroundings_c=chilling.surroundings_c,
            room_c=setup.room_c,
        )
    if chilling.for_s is not None:
        not_negative("chill_for_s", chilling.for_s)
        reached = temperature_at_c(chilling.for_s, setup.room_c, chilling.surroundings_c, chilling.time_constant.likely)
        return reached, Estimate(chilling.for_s, chilling.for_s, chilling.for_s, "as chosen", estimated=False)
    floor = setup.cold_limits[0].limit_c + STEP_C if setup.cold_limits else -math.inf
    target = min(max(chilling.surroundings_c + NEAR_K, floor), setup.room_c)
    return target, chilling.time_constant.map(lambda tau: soak_time_s(setup.room_c, target, chilling.surroundings_c, tau))


def _target(setup: Setup, inner_c: float) -> float:
    """Return the outer temperature that retains the desired clearance at its low end through handling and three minutes more."""
    if setup.heating is None:
        return setup.room_c
    if setup.target_c is not None:
        return temperature("target_c", setup.target_c)
    lasts_s = setup.handling_s + SPARE_S
    inner_then = temperature_at_c(lasts_s, inner_c, setup.room_c, setup.inner_room.low)
    needed = setup.room_c
    for _ in range(ROUNDS):  # the hotter, the less sure is how far a boss heated alone opens
        required = setup.wanted_mm + 2.2 * moment(setup, 0.0, needed, inner_c).spread_mm
        interference = (setup.nominal_mm, setup.interference_mm, required)
        then = outer_temperature_needed_c(*interference, setup.opening_alpha, setup.inner_alpha, inner_then)
        needed = min(setup.room_c + (then - setup.room_c) * math.exp(lasts_s / setup.outer_room.low), HOTTEST_C)
    target = max(setup.room_c, STEP_C * math.ceil(needed / STEP_C))
    bounds = [limit.limit_c for limit in setup.hot_limits]
    if setup.heating.surroundings_c is not None:
        bounds.append(setup.heating.surroundings_c - NEAR_K)
    return max(setup.room_c, min([target, *bounds]))


def _soak(setup: Setup, target_c: float) -> Estimate | None:
    heating = setup.heating
    if heating is None or target_c <= setup.room_c:
        return None
    if heating.surroundings_c is None or heating.time_constant is None:
        return None
    source_c = heating.surroundings_c
    if source_c <= setup.room_c:
        raise BadInput(
            "heat_c",
            gettext_noop("An oven at {source_c:g} °C is colder than the {outer_name} ({room_c:g} °C): it cannot heat it."),
            source_c=source_c,
            outer_name=setup.outer_name,
            room_c=setup.room_c,
        )
    if target_c >= source_c:
        raise BadInput(
            "heat_c",
            gettext_noop("At {source_c:g} °C the oven never brings the {outer_name} to {target_c:g} °C. Set it higher."),
            source_c=source_c,
            outer_name=setup.outer_name,
            target_c=target_c,
        )
    return heating.time_constant.map(lambda tau: soak_time_s(setup.room_c, target_c, source_c, tau))


def _stopped(setup: Setup, target_c: float, chill_c: float) -> Conformity | None:
    """Return the reason not to continue, if there is one: a limit exceeded, or a method that is dangerous for this metal."""
    if setup.refusal:
        return Conformity(STOP, -math.inf, setup.refusal, "refused_method")
    hottest = target_c
    if setup.heating and setup.heating.surroundings_c is not None and setup.heating.method == "oven":
        hottest = max(target_c, setup.heating.surroundings_c)
    for limit in setup.hot_limits:
        if hottest > limit.limit_c:
            what = f"{target_c:.0f} °C is planned" if target_c > limit.limit_c else f"The oven is set to {hottest:.0f} °C"
            reason = f"{what}; {limit.what} allows {limit.limit_c:.0f} °C: {limit.reason}."
            values = {"hottest": celsius(hottest), "limit": celsius(limit.limit_c), "by": limit}
            return Conformity(
                STOP, limit.limit_c - hottest, reason, "planned_too_hot" if target_c > limit.limit_c else "oven_too_hot", values
            )
    for limit in setup.cold_limits:
        if chill_c < limit.limit_c - 1e-9:
            reason = f"The {setup.inner_name} would be at {chill_c:.0f} °C; {limit.what} allows {limit.limit_c:.0f} °C: {limit.reason}."
            values = {"coldest": celsius(chill_c), "limit": celsius(limit.limit_c), "by": limit}
            return Conformity(STOP, chill_c - limit.limit_c, reason, "planned_too_cold", values)
    return None


def _wideners(setup: Setup, target_c: float, chill_c: float, offering: Moment) -> tuple[Widener, ...]:
    found: list[Widener] = []
    room = min((limit.limit_c for limit in setup.hot_limits), default=target_c) - target_c
    if setup.heating and room >= 1:
        more = min(20.0, room)
        gain = setup.nominal_mm * setup.opening_alpha * more
        values = {"more": kelvin(more), "target": celsius(target_c + more)}
        found.append(Widener(f"the {setup.outer_name} {more:.0f} K hotter, {target_c + more:.0f} °C", gain, "hotter", values))
    if setup.heating is None:
        warm = min([USUAL_HEAT_C, *(limit.limit_c for limit in setup.hot_limits)])
        gain = setup.nominal_mm * setup.outer_alpha * (warm - setup.room_c)
        found.append(Widener(f"the {setup.outer_name} in an oven at {warm:.0f} °C", gain, "heat", {"target": celsius(warm)}))
    if setup.heating and setup.heating.method in LOCAL_METHODS:
        gain = setup.nominal_mm * (setup.outer_alpha - setup.opening_alpha) * (target_c - 20)
        found.append(Widener("the whole case in an oven instead of the boss alone", gain, "whole_case"))
    floor = setup.cold_limits[0].limit_c + STEP_C if setup.cold_limits else -45.0
    if setup.chilling and setup.chilling.for_s is not None and chill_c > setup.chilling.surroundings_c + 2 * NEAR_K:
        coldest = max(setup.chilling.surroundings_c + NEAR_K, floor)
        gain = setup.nominal_mm * setup.inner_alpha * (chill_c - coldest)
        found.append(Widener(f"the {setup.inner_name} left in until {coldest:.0f} °C", gain, "colder", {"target": celsius(coldest)}))
    elif setup.chilling is None:
        coldest = max(-15.0, floor)
        gain = setup.nominal_mm * setup.inner_alpha * (chill_c - coldest)
        found.append(Widener(f"the {setup.inner_name} out of a freezer at {coldest:.0f} °C", gain, "freezer", {"target": celsius(coldest)}))
    elif chill_c - floor > 10:
        gain = setup.nominal_mm * setup.inner_alpha * (chill_c - floor)
        found.append(Widener(f"dry ice, out at {floor:.0f} °C", gain, "dry_ice", {"target": celsius(floor)}))
    for name, band in (("bore", setup.bore_um), ("ring", setup.inner_um)):
        if band.width_um > 12:
            sure = Limits(band.mean_um - 4, band.mean_um + 4)
            measured = replace(setup, bore_um=sure) if name == "bore" else replace(setup, inner_um=sure)
            gain = 2 * (offering.spread_mm - moment(measured, 0.0, offering.outer_c, offering.inner_c).spread_mm)
            found.append(Widener(f"measuring the {name} (less uncertainty, not more room)", gain, f"measure_{name}"))
    if setup.outer_u_k > 3:
        probed = replace(setup, outer_u_k=2.0)
        gain = 2 * (offering.spread_mm - moment(probed, 0.0, offering.outer_c, offering.inner_c).spread_mm)
        found.append(Widener("a contact probe on the boss (less uncertainty, not more room)", gain, "probe"))
    return tuple(sorted((each for each in found if each.gain_mm > 0.0005), key=lambda each: -each.gain_mm))


@lru_cache(256)
def plan(setup: Setup) -> HeatPlan:
    """Compute the plan of one seat.

    Parameters
    ----------
    setup : Setup

    Returns
    -------
    HeatPlan
        The call is `stop` over a limit, `in` when the wanted clearance is there at its low end for the whole handling,
        `out` when it is not there at its high end, else `too_close` with what would widen it.

    Raises
    ------
    BadInput
        A chiller no colder than the room, an oven colder than the case or than the target, impossible sizes or temperatures.

    Notes
    -----
    The judgement is `verdict.call` on the clearance when the part is offered up against the wanted clearance, with 2σ of sizes
    and temperatures as its uncertainty. Rates are estimates until two readings of this very part replace them.

    Source
    ------
    DIN 7190-1; ISO 286-1 and ISO 492 for the sizes; ISO 14253-1 for the call.

    Examples
    --------
    >>> from shopmath.thermal.seat import example_setup
    >>> found = plan(example_setup())
    >>> found.call.state, round(found.target_c), round(found.chill_c), round(found.confidence, 3)
    ('in', 80, -15, 1.0)
    """
    positive("nominal_mm", setup.nominal_mm)
    positive("handling_s", setup.handling_s)
    temperature("room_c", setup.room_c)
    chill_c, chill = _chilled(setup)
    target_c = _target(setup, chill_c)
    stopped = _stopped(setup, target_c, chill_c)
    soak = None if stopped else _soak(setup, target_c)
    leaving = moment(setup, 0.0, target_c, chill_c)
    offering = moment_after(setup, setup.handling_s, target_c, chill_c)
    sure = sure_until_s(setup, target_c, chill_c)
    return HeatPlan(
        setup=setup,
        call=stopped or _sure_for_the_handling(setup, judge(setup, offering, sure), sure),
        target_c=target_c,
        chill_c=chill_c,
        soak=soak,
        chill=chill,
        leaving=leaving,
        offering=offering,
        sure_for_s=sure,
        window=open_for_s(setup, target_c, chill_c),
        seating=home_within_s(setup, offering.outer_c, offering.inner_c),
        wideners=_wideners(setup, target_c, chill_c, offering),
    )


def _sure_for_the_handling(setup: Setup, found: Conformity, sure_s: float) -> Conformity:
    """Return the verdict on a plan: OK only if it is certain for the whole handling time with the fastest drift."""
    if found.state != IN or sure_s >= setup.handling_s:
        return found
    reason = f"It fits for {sure_s:.0f} s, and {setup.handling_s:.0f} s of handling are needed."
    return Conformity(TOO_CLOSE, found.margin, reason, "sure_too_short", {**found.values, "handling_s": setup.handling_s, "sure_s": sure_s})


def judge(setup: Setup, at: Moment, sure_s: float) -> Conformity:
    """Return the verdict on a clearance at one moment: enough to fit the part by hand, or not.

    Examples
    --------
    >>> from shopmath.thermal.seat import example_setup, moment
    >>> setup = example_setup()
    >>> judge(setup, moment(setup, 0.0, 20, 20), 0.0).state
    'out'
    """
    verdict = call(at.clearance_mm, low=setup.wanted_mm, uncertainty=2 * at.spread_mm, unit="mm")
    needed = f"{setup.wanted_mm:.3f} mm"
    values = {
        "clearance": mm(at.clearance_mm, 0.001, 2 * at.spread_mm),
        "least": mm(at.low_mm),
        "wanted": mm(setup.wanted_mm),
        "sure_s": sure_s,
    }
    if verdict.state == OUT:
        reason = f"{at.clearance_mm:.3f} mm of clearance where {needed} is wanted: it will not go in by hand."
        return Conformity(OUT, verdict.margin, reason, "no_room", values)
    if verdict.state == TOO_CLOSE:
        reason = f"{at.clearance_mm:.3f} ± {2 * at.spread_mm:.3f} mm reaches under the {needed} wanted."
        return Conformity(TOO_CLOSE, verdict.margin, reason, "room_unsure", values)
    return Conformity(IN, verdict.margin, f"{at.low_mm:.3f} mm at the least, {needed} wanted; fits for {sure_s:.0f} s.", "room", values)
