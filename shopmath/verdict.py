"""Comparison of a reading with its limits, with its uncertainty.

The rule is that of ISO 14253-1: a value counts as inside only if it stays inside with its uncertainty (k = 2) added, as
outside only if it stays outside with it taken off. Between the two nobody can tell, and a call that says so is worth more
than a coin toss.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from shopmath.gauges import MOST_REPEATS, gauge_uncertainty, usual_spread
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, ordered, positive, temperature

IN, TOO_CLOSE, OUT, STOP = "in", "too_close", "out", "stop"
MOST_DIGITS = 9
MOST_ALPHA = 1e-3  # of any solid, 1/K
WARM_K = 15.0  # a part further from the room than this gets no verdict on size


@dataclass(frozen=True)
class Conformity:
    """The verdict: `in`, `too_close`, `out` or `stop`; margin to the nearest limit, positive inside; the reason as text.

    `code` and `values` say the same as the reason: a page makes its sentence from these, in its reader's language and units.
    """

    state: str
    margin: float
    reason: str
    code: str = ""
    values: Mapping[str, Any] = field(default_factory=dict, hash=False)


def judge(
    value: float, low: float | None = None, high: float | None = None, uncertainty: float = 0.0, *, unit: str = "", digits: int = 3
) -> Conformity:
    """Judge a value against one or two limits.

    Parameters
    ----------
    value, low, high, uncertainty : float
        In one unit, any; uncertainty is the expanded one (k = 2). At least one limit is needed.
    unit, digits
        How the reason spells numbers.

    Returns
    -------
    Call
        State, margin to the nearest limit (same unit), reason.

    Raises
    ------
    BadInput
        No limit, limits crossed, negative uncertainty, NaN or infinity.

    Source
    ------
    ISO 14253-1, decision rules for proving conformity.

    Examples
    --------
    >>> judge(0.048, high=0.050, uncertainty=0.004).state
    'too_close'
    >>> judge(0.040, high=0.050, uncertainty=0.004).state
    'in'
    >>> judge(0.060, high=0.050, uncertainty=0.004).reason
    '0.060 is over the limit 0.050 by 0.010.'
    >>> judge(0.05, high=0.05, uncertainty=0.004, digits=2).reason
    '0.050 ± 0.004 reaches across the limit 0.050.'
    """
    finite("value", value)
    not_negative("uncertainty", uncertainty)
    if not isinstance(digits, int) or not 0 <= digits <= MOST_DIGITS:
        raise BadInput(
            "digits",
            gettext_noop("Between 0 and {most_digits} digits are shown, not {digits!r:.20}."),
            most_digits=MOST_DIGITS,
            digits=digits,
        )
    if low is None and high is None:
        raise BadInput("low", gettext_noop("A call needs at least one limit."))
    if low is not None and high is not None:
        ordered("low", finite("low", low), finite("high", high))
    to_low = math.inf if low is None else value - finite("low", low)
    to_high = math.inf if high is None else finite("high", high) - value
    margin = min(to_low, to_high)
    limit, side = (low, "under") if to_low < to_high else (high, "over")
    values = {"value": value, "limit": limit, "margin": abs(margin), "uncertainty": uncertainty}
    end = "low" if side == "under" else "high"

    def spell(number: float | None) -> str:
        return f"{number:.{digits}f}{' ' + unit if unit else ''}"

    if margin >= uncertainty:
        inside = "above" if side == "under" else "under"
        words = f"{spell(value)} is {inside} the limit {spell(limit)} with {spell(margin)} to spare."
        return Conformity(IN, margin, words, f"inside_{end}", values)
    if margin < -uncertainty:
        return Conformity(OUT, margin, f"{spell(value)} is {side} the limit {spell(limit)} by {spell(-margin)}.", f"outside_{end}", values)
    while digits < MOST_DIGITS and 0 < uncertainty < 0.95 * 10**-digits:
        digits += 1  # as many as show why it cannot be told
    words = f"{spell(value)} ± {spell(uncertainty)} reaches across the limit {spell(limit)}."
    return Conformity(TOO_CLOSE, margin, words, f"across_{end}", values)


@dataclass(frozen=True)
class SufficientMeasurement:
    """What would decide a verdict that is too close: total readings at this place, or the resolution of a gauge; else None."""

    readings: int | None
    resolution: float | None


def sufficient_measurement(
    margin: float,
    resolution: float,
    repeatability: float | None = None,
    calibration: float = 0.0,
    *,
    most: int = 10,
    kind: str | None = None,
    of: float | None = None,
) -> SufficientMeasurement:
    """Return how many readings, or what gauge, would bring the uncertainty below the margin.

    Parameters
    ----------
    margin : float
        Of the call, either sign, in the reading's unit.
    resolution, repeatability, calibration, kind, of
        As in `gauge_uncertainty`.
    most : int
        Readings past which nobody goes on, up to 1000.

    Returns
    -------
    Settles
        The fewest readings whose mean is sure enough, None when even `most` are not; the coarsest step of the usual gauges (1, 2 and 5
        times a power of ten, repeating to half a step) that settles it with one reading, None when nothing above 0.0001 would.

    Raises
    ------
    BadInput
        As `gauge_uncertainty`.

    Source
    ------
    JCGM 100 (GUM), 4.2 and 4.3.7; ISO 14253-1.

    Examples
    --------
    >>> sufficient_measurement(0.004, 0.01)
    SufficientMeasurement(readings=None, resolution=0.002)
    >>> sufficient_measurement(0.007, 0.01)
    SufficientMeasurement(readings=7, resolution=0.005)
    """
    room = abs(finite("margin", margin))
    spread = usual_spread(kind, resolution, of) if repeatability is None else repeatability

    def unsure(count: int) -> float:
        return gauge_uncertainty(resolution, spread, [0.0] * count, calibration)

    readings = next((count for count in range(1, min(most, MOST_REPEATS) + 1) if unsure(count) <= room), None)
    steps = [factor * 10.0**power for power in (0, -1, -2, -3, -4) for factor in (5, 2, 1)]
    finer = next((step for step in steps if step <= resolution and gauge_uncertainty(step, kind=kind, of=of) <= room), None)
    return SufficientMeasurement(readings, finer)


def combined(*uncertainties: float) -> float:
    """Uncertainty of a sum or difference of independent values: root sum of squares.

    Examples
    --------
    >>> combined(3.0, 4.0)
    5.0
    """
    return math.hypot(*(not_negative("uncertainty", value) for value in uncertainties))


SEVERITY = (STOP, OUT, TOO_CLOSE, IN)


def severity(state: str) -> int:
    """Return the severity of a verdict: 0 is stop; a missing verdict is between too close and in.

    Examples
    --------
    >>> sorted(["in", "wait", "stop", "too_close", "out"], key=severity)
    ['stop', 'out', 'too_close', 'wait', 'in']
    """
    return 2 * SEVERITY.index(state) if state in SEVERITY else 2 * SEVERITY.index(TOO_CLOSE) + 1


def at_20c(value_mm: float, part_alpha: float, part_c: float, gauge_alpha: float, gauge_c: float) -> float:
    """Size at 20 °C of a part measured warm with a gauge that may be warm too.

    Parameters
    ----------
    value_mm : float
        What the gauge showed, mm.
    part_alpha, gauge_alpha : float
        Linear expansion, 1/K.
    part_c, gauge_c : float
        Temperatures when measured, °C.

    Returns
    -------
    float
        Size at the reference temperature, mm.

    Raises
    ------
    BadInput
        Size or expansion not above 0, temperature below absolute zero.

    Source
    ------
    ISO 1, standard reference temperature 20 °C.

    Examples
    --------
    >>> round(47.0 - at_20c(47.0, 21e-6, 30, 11.5e-6, 30), 4)
    0.0045
    """
    positive("value_mm", value_mm)
    for name, alpha in (("part_alpha", part_alpha), ("gauge_alpha", gauge_alpha)):
        if positive(name, alpha) > MOST_ALPHA:
            raise BadInput(
                name,
                gettext_noop("Expansion is given per kelvin, as 21e-6 is: {alpha:g} is no solid's."),
                "not_alpha",
                value=alpha,
                alpha=alpha,
            )
    part = 1 + positive("part_alpha", part_alpha) * (temperature("part_c", part_c) - 20)
    gauge = 1 + positive("gauge_alpha", gauge_alpha) * (temperature("gauge_c", gauge_c) - 20)
    return value_mm * gauge / part


def too_warm_to_judge(part_c: float, room_c: float) -> bool:
    """Return True if a part is too far from room temperature for a verdict on end play or fit.

    Examples
    --------
    >>> too_warm_to_judge(48, 20), too_warm_to_judge(30, 20)
    (True, False)
    """
    return abs(temperature("part_c", part_c) - temperature("room_c", room_c)) > WARM_K
