"""Accuracy of gauges: the scatter of readings, and the uncertainty of one reading or of the mean of several."""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence

from shopmath.quantiles import TWO_SIGMA, chi_square, student
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, positive

SPREAD = {  # usual high end of what a kind of gauge repeats to in a mechanic's hands, mm or K: estimate
    "micrometer": 0.003,
    "bore": 0.004,
    "dial": 0.003,
    "calliper": 0.02,
    "feeler": 0.01,
    "contact": 1.0,
    "infrared": 2.0,
}
LOAD_SHARE = 0.02  # the same of a load cell, as a share of what it reads: estimate
MOST_REPEATS = 1000
CHECKED, MOST_CHECKED = 10, 100  # readings of a repeatability check


def usual_spread(kind: str | None, resolution: float, of: float | None = None) -> float:
    """Return the assumed repeatability of a kind of gauge if nobody has tested it (*estimate*), never less than half a step.

    Parameters
    ----------
    kind : str or None
        `micrometer`, `bore`, `dial`, `calliper`, `feeler` (mm), `contact`, `infrared` (K), `load` (a share of what it reads). Any other, or
        None: half a step.
    resolution : float
        Smallest step the gauge shows.
    of : float, optional
        What a load cell reads, in its unit.

    Returns
    -------
    float
        In the unit of the reading.

    Raises
    ------
    BadInput
        A step not above 0; NaN or infinity.

    Examples
    --------
    >>> usual_spread("micrometer", 0.001), usual_spread("calliper", 0.05), usual_spread("load", 10.0, 30000.0)
    (0.003, 0.025, 600.0)
    """
    half = positive("resolution", resolution) / 2
    if kind == "load":
        return max(half, LOAD_SHARE * abs(finite("of", of or 0.0)))
    return max(half, SPREAD.get(kind or "", 0.0))


def repeatability_of(readings: Sequence[float]) -> float:
    """Return a gauge's repeatability from a check: at least ten readings of one part, set again each time.

    Parameters
    ----------
    readings : sequence of float, length 10 to 100
        In the gauge's unit.

    Returns
    -------
    float
        s·t(95.45 %, n − 1)/2, in the same unit: the standard deviation that so few readings can vouch for; 1.16 s of ten.

    Raises
    ------
    BadInput
        Fewer than ten or more than a hundred, NaN or infinity.

    Source
    ------
    JCGM 100 (GUM), 4.2 and G.3.

    Examples
    --------
    >>> round(repeatability_of([20.001, 20.003, 20.002, 20.002, 20.001, 20.004, 20.002, 20.003, 20.001, 20.002]), 5)
    0.00115
    """
    values = [finite("readings", each) for each in readings]
    if not CHECKED <= len(values) <= MOST_CHECKED:
        raise BadInput(
            "readings",
            gettext_noop("A check is {checked} to {most_checked} readings of one thing; {values} were given."),
            "not_ten",
            checked=CHECKED,
            most_checked=MOST_CHECKED,
            values=len(values),
        )
    return statistics.stdev(values) * student(TWO_SIGMA, len(values) - 1) / 2


def gauge_uncertainty(
    resolution: float,
    repeatability: float | None = None,
    repeats: Sequence[float] = (),
    calibration: float = 0.0,
    *,
    kind: str | None = None,
    of: float | None = None,
) -> float:
    """Return the expanded uncertainty (k = 2) of a reading, or of the mean of repeats.

    Parameters
    ----------
    resolution : float
        Smallest step the gauge shows, in the reading's unit.
    repeatability : float, optional
        The gauge's stored sample standard deviation; None takes what a gauge of its kind usually repeats to, or half a resolution
        where the kind is not said, an *estimate*.
    repeats : sequence of float, shape (n,), n up to 1000
        The readings taken at this place; their spread counts when it is the larger one. Beside a usual spread it must be larger than
        chance makes it (95 %), and few readings tell little of it (Student's t): so repeating can only help, but where it shows more.
    calibration : float
        Standard uncertainty of the gauge's last check.
    kind, of
        As in `usual_spread`; `of` is taken from the repeats where there are any.

    Returns
    -------
    float
        Expanded uncertainty, same unit.

    Raises
    ------
    BadInput
        Resolution not above 0, negative repeatability or calibration, more than 1000 repeats, NaN or infinity.

    Notes
    -----
    U = 2 * sqrt(resolution**2/12 + s**2/n + calibration**2).
    Of the calls "in" by a 0.001 mm gauge that really scatters by 3 µm, 23 in 100 were wrong with half a step in place of s; with the usual
    spread of its kind at most 1 in 100 is.

    Source
    ------
    JCGM 100 (GUM), 4.2 and 4.3.7.

    Examples
    --------
    >>> round(gauge_uncertainty(0.01, 0.0), 4)
    0.0058
    >>> gauge_uncertainty(0.01, 0.01, [0.1, 0.1, 0.1, 0.1]) < gauge_uncertainty(0.01, 0.01)
    True
    >>> [round(gauge_uncertainty(0.001, None, taken, kind="micrometer"), 4) for taken in ((), (1.0, 1.001, 1.0))]
    [0.006, 0.0035]
    """
    positive("resolution", resolution)
    not_negative("calibration", calibration)
    if len(repeats) > MOST_REPEATS:
        raise BadInput(
            "repeats",
            gettext_noop("At most {most_repeats} readings of one place are taken together."),
            "too_many",
            most=MOST_REPEATS,
            most_repeats=MOST_REPEATS,
        )
    values = [finite("repeats", value) for value in repeats]
    seen = statistics.stdev(values) if len(values) > 1 else 0.0
    if repeatability is not None:
        spread = max(not_negative("repeatability", repeatability), seen)
    elif kind is None:
        spread = max(resolution / 2, seen)
    else:
        spread = usual_spread(kind, resolution, statistics.fmean(values) if values else of)
        freedom = len(values) - 1
        if freedom > 0 and seen > spread * math.sqrt(chi_square(0.95, freedom) / freedom):
            spread = seen * student(TWO_SIGMA, freedom) / 2
    return 2 * math.sqrt(resolution**2 / 12 + spread**2 / max(len(values), 1) + calibration**2)
