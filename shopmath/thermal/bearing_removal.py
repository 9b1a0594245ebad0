"""Removal of a bearing with heat: the ring expands with its case, so only the difference of both frees it.

Heated together, the fit loses D·(αo − αi) a kelvin. A ring kept or sprayed cold is freed much sooner.
"""

from __future__ import annotations

from dataclasses import dataclass

from shopmath.estimate import Estimate
from shopmath.thermal.expansion import REFERENCE_C, outer_temperature_needed_c
from shopmath.thermal.limits import Limit
from shopmath.validation import BadInput, finite, gettext_noop, positive, temperature
from shopmath.verdict import IN, OUT, TOO_CLOSE, Conformity


def frees_at_c(nominal_mm: float, interference_mm: float, outer_alpha: float, inner_alpha: float, ring_c: float | None = None) -> float:
    """Return the temperature of the case at which the fit has no interference left.

    Parameters
    ----------
    nominal_mm, interference_mm : float
        Diameter and overlap at 20 °C, mm.
    outer_alpha, inner_alpha : float
        Linear expansion of case and ring, 1/K.
    ring_c : float, optional
        Temperature the ring is held at; None when it is heated with the case.

    Returns
    -------
    float
        °C; 20 or less when there is no grip.

    Raises
    ------
    BadInput
        Diameter or expansion not above 0; a case that grows no more than its ring.

    Source
    ------
    DIN 7190-1, linear expansion.

    Examples
    --------
    >>> round(frees_at_c(47, 0.030, 20.5e-6, 11.5e-6) - 20)
    71
    >>> round(frees_at_c(47, 0.030, 20.5e-6, 11.5e-6, ring_c=20) - 20)
    31
    """
    positive("nominal_mm", nominal_mm)
    if ring_c is not None:
        return outer_temperature_needed_c(nominal_mm, interference_mm, 0.0, outer_alpha, inner_alpha, temperature("ring_c", ring_c))
    difference = positive("outer_alpha", outer_alpha) - positive("inner_alpha", inner_alpha)
    if difference <= 0:
        raise BadInput(
            "outer_alpha", gettext_noop("A case that grows no more than its ring never lets it go by heat alone: chill or spray the ring.")
        )
    return REFERENCE_C + finite("interference_mm", interference_mm) / (nominal_mm * difference)


@dataclass(frozen=True)
class Freeing:
    """Temperature of the case that frees the ring at the lowest, mean and highest interference; the limit that applies; the verdict."""

    together: Estimate | None
    sprayed: Estimate
    limit: Limit | None
    call: Conformity
    sprayed_call: Conformity


def freeing(
    nominal_mm: float,
    least_mm: float,
    most_mm: float,
    outer_alpha: float,
    inner_alpha: float,
    limit: Limit | None,
    sprayed_ring_c: float = 0.0,
) -> Freeing:
    """Return how hot the case must be for the bearing to fall out, with a hot ring and with a chilled one.

    Parameters
    ----------
    nominal_mm, least_mm, most_mm : float
        Diameter, least and most interference, mm.
    outer_alpha, inner_alpha : float
        1/K.
    limit : Limit, optional
        The lowest that binds.
    sprayed_ring_c : float
        What a spray holds the ring at while the case is hot, °C, *estimate*.

    Returns
    -------
    Freeing
        `in` when the most grip is freed under the limit, `out` when not even the middle is, `too_close` between.

    Raises
    ------
    BadInput
        As `frees_at_c`, but for a case that does not grow more: `together` is then None.

    Examples
    --------
    >>> found = freeing(47, 0.0, 0.033, 21.5e-6, 11.5e-6, Limit(100, "nitrile seal left in", "it hardens"))
    >>> round(found.together.high), found.call.state, round(found.sprayed.high), found.sprayed_call.state
    (90, 'in', 42, 'in')
    """
    finite("least_mm", least_mm)
    finite("most_mm", most_mm)

    def band(ring_c: float | None) -> Estimate:
        grips = (least_mm, (least_mm + most_mm) / 2, most_mm)
        low, likely, high = (frees_at_c(nominal_mm, interference, outer_alpha, inner_alpha, ring_c) for interference in grips)
        return Estimate(low, likely, high, "least, middle and most interference of the fit")

    def judged(found: Estimate, ring: str) -> Conformity:
        highest = limit.limit_c if limit else float("inf")
        hot = f"{found.high:.0f} °C frees the tightest pair {ring}"
        if found.high <= highest:
            return Conformity(IN, highest - found.high, f"{hot}.")
        if found.likely <= highest:
            return Conformity(TOO_CLOSE, highest - found.high, f"{hot}, {highest:.0f} °C is the limit ({limit.what if limit else ''}).")
        return Conformity(OUT, highest - found.high, f"{found.likely:.0f} °C is wanted {ring}, over the {highest:.0f} °C limit.")

    sprayed = band(sprayed_ring_c)
    sprayed_call = judged(sprayed, "with the ring sprayed")
    try:
        together = band(None)
    except BadInput as error:
        return Freeing(None, sprayed, limit, Conformity(OUT, 0.0, error.message), sprayed_call)
    return Freeing(together, sprayed, limit, judged(together, "with ring and case hot"), sprayed_call)
