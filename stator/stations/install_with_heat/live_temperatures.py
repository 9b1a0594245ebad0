"""A heat in progress: the temperatures of both parts from timers and readings, and the speed of their change."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from datetime import datetime
from functools import cached_property

from shopmath.estimate import Estimate
from shopmath.thermal.plan import judge
from shopmath.thermal.rates import soak_time_s, temperature_at_c, time_constant_from_readings
from shopmath.thermal.seat import Moment, Setup, moment, sure_until_s
from shopmath.validation import BadInput
from shopmath.verdict import Conformity
from stator.jobs.facts import MeasuredReading
from stator.jobs.models import Timer

APART_S = 20.0  # two readings closer than this say nothing about a rate
FITTED_BAND = 0.15


@dataclass(frozen=True)
class Warmth:
    """A temperature: when, the true value with its standard uncertainty, and whether it may carry a call."""

    at: datetime
    c: float
    u_k: float
    trusted: bool


def warmth_of(reading: MeasuredReading) -> Warmth:
    """Return a stored temperature reading for the model."""
    assert reading.at is not None
    told = reading.corrected
    low, high, likely = told.get("low_c"), told.get("high_c"), told.get("true_c", reading.value)
    u = (high - low) / 4 if low is not None and high is not None else 2.0
    return Warmth(reading.at, float(likely or 0.0), max(float(u), 1.0), bool(told.get("trusted", True)))


@dataclass(frozen=True)
class TemperatureTrend:
    """The temperature of one part in one environment from a start, with the rate of the table or of two readings."""

    start: Warmth
    surroundings_c: float
    tau: Estimate
    readings: tuple[Warmth, ...] = ()

    def rate(self) -> Estimate:
        """Return the time constant, fitted to the first and last trusted readings if they are far enough apart and plausible."""
        sure = [each for each in self.readings if each.trusted]
        if len(sure) >= 2 and (sure[-1].at - sure[0].at).total_seconds() >= APART_S:
            try:
                interval = (sure[-1].at - sure[0].at).total_seconds()
                fitted = time_constant_from_readings(sure[0].c, sure[-1].c, interval, self.surroundings_c)
            except BadInput:
                return self.tau
            if self.tau.low / 6 < fitted < self.tau.high * 6:
                return Estimate(fitted * (1 - FITTED_BAND), fitted, fitted * (1 + FITTED_BAND), "fitted to two readings", estimated=False)
        return self.tau

    @property
    def fitted(self) -> bool:
        return not self.rate().estimated

    def base(self, at: datetime) -> Warmth:
        """The last thing known before `at`: the start, or the latest reading that may carry a call."""
        known = [each for each in self.readings if each.at <= at and each.trusted]
        return known[-1] if known else self.start

    def at(self, when: datetime) -> Warmth:
        base, tau = self.base(when), self.rate()
        passed = max(0.0, (when - base.at).total_seconds())
        if not passed:
            return replace(base, at=when)
        likely, quick, slow = (
            temperature_at_c(passed, base.c, self.surroundings_c, value) for value in (tau.likely, max(tau.low, 1.0), tau.high)
        )
        return Warmth(when, likely, math.hypot(base.u_k, abs(quick - slow) / 4), base.trusted)

    def reaches_in_s(self, target_c: float, now: datetime) -> float | None:
        """Seconds from now until a temperature is reached; 0 when passed, None when never."""
        here = self.at(now).c
        to_go, gone = target_c - self.surroundings_c, here - self.surroundings_c
        if to_go * gone >= 0 and abs(gone) <= abs(to_go):
            return 0.0
        try:
            return soak_time_s(here, target_c, self.surroundings_c, self.rate().likely)
        except BadInput:
            return None


@dataclass(frozen=True)
class Running:
    """A heat in progress: the temperature trends of both parts before and after the oven is opened."""

    setup: Setup
    target_c: float
    outer_in: TemperatureTrend | None
    inner_in: TemperatureTrend | None
    outer_out: TemperatureTrend | None
    inner_out: TemperatureTrend | None
    opened_at: datetime | None
    moment: Callable[[], datetime] = field(compare=False)  # looked at only by what depends on it

    @property
    def now(self) -> datetime:
        return self.moment()

    def outer(self, at: datetime | None = None) -> Warmth:
        when = at or self.now
        drift = self.outer_out if self.opened_at and when >= self.opened_at else self.outer_in
        return drift.at(when) if drift else Warmth(when, self.setup.room_c, 2.0, True)

    def inner(self, at: datetime | None = None) -> Warmth:
        when = at or self.now
        drift = self.inner_out if self.opened_at and when >= self.opened_at else self.inner_in
        return drift.at(when) if drift else Warmth(when, self.setup.room_c, 2.0, True)

    @cached_property
    def live_setup(self) -> Setup:
        """The plan's setup with the uncertainties of now, and the rates the parts have shown."""
        changes = {"outer_u_k": self.outer().u_k, "inner_u_k": self.inner().u_k}
        if self.outer_out and self.outer_out.fitted:
            changes["outer_room"] = self.outer_out.rate()  # type: ignore[assignment]
        return replace(self.setup, **changes)  # type: ignore[arg-type]

    @cached_property
    def here(self) -> Moment:
        passed = (self.now - self.opened_at).total_seconds() if self.opened_at else 0.0
        return moment(self.live_setup, passed, self.outer().c, self.inner().c)

    @cached_property
    def sure_for_s(self) -> float:
        return sure_until_s(self.live_setup, self.outer().c, self.inner().c)

    @cached_property
    def call(self) -> Conformity:
        return judge(self.live_setup, self.here, self.sure_for_s)

    def ready_in_s(self) -> float | None:
        """Return the seconds until the case reaches its target; None if only a thermometer can decide."""
        return self.outer_in.reaches_in_s(self.target_c, self.now) if self.outer_in else None


def running(
    setup: Setup,
    target_c: float,
    moment: Callable[[], datetime],
    heat: Timer | None,
    chill: Timer | None,
    window: Timer | None,
    outer_readings: list[MeasuredReading],
    inner_readings: list[MeasuredReading],
) -> Running:
    """Put a heat together from its clocks and readings."""
    opened = window.started_at if window else None
    outer = [warmth_of(each) for each in outer_readings]
    inner = [warmth_of(each) for each in inner_readings]
    outer_in = _before(setup, heat, outer, opened, setup.heating.surroundings_c if setup.heating else None, _tau(setup.heating), target_c)
    chilling = setup.chilling
    inner_in = _before(setup, chill, inner, opened, chilling.surroundings_c if chilling else None, _tau(chilling), None)
    out = {}
    for name, drift, readings, tau in (("outer", outer_in, outer, setup.outer_room), ("inner", inner_in, inner, setup.inner_room)):
        if opened:
            start = drift.at(opened) if drift else Warmth(opened, setup.room_c, 2.0, True)
            out[name] = TemperatureTrend(start, setup.room_c, tau, tuple(each for each in readings if each.at > opened))
    return Running(setup, target_c, outer_in, inner_in, out.get("outer"), out.get("inner"), opened, moment)


def _tau(source: object) -> Estimate | None:
    return getattr(source, "time_constant", None)


def _before(
    setup: Setup,
    timer: Timer | None,
    readings: list[Warmth],
    opened: datetime | None,
    surroundings_c: float | None,
    tau: Estimate | None,
    target_c: float | None,
) -> TemperatureTrend | None:
    """A part in its oven or freezer.

    Over a flame nobody knows the surroundings: it stays where it was last read.
    """
    early = tuple(each for each in readings if opened is None or each.at <= opened)
    begun = timer.started_at if timer else (early[0].at if early else None)
    if begun is None:
        return None
    start = Warmth(begun, setup.room_c, 2.0, True)
    if surroundings_c is None or tau is None:
        known = [each for each in early if each.trusted]
        held = known[-1] if known else start
        return TemperatureTrend(held, held.c, Estimate(1e6, 1e6, 1e6), ())
    return TemperatureTrend(start, surroundings_c, tau, early)
