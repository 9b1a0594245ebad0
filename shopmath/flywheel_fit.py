"""Installation of a flywheel on its taper: contact, torque capacity by friction, and the torque that the engine needs."""

from __future__ import annotations

from dataclasses import dataclass

from shopmath.amounts import newton_metres
from shopmath.amounts import share as part
from shopmath.estimate import Estimate
from shopmath.screw_threads import UNKNOWN, nut_factor, preload_n
from shopmath.taper import taper_friction, torque_capacity_nm
from shopmath.validation import BadInput, finite, gettext_noop, positive
from shopmath.verdict import IN, OUT, TOO_CLOSE, Conformity

UNKNOWN_NUT = Estimate(0.14, 0.18, 0.28, "what is on the nut's thread is unknown: oiled to dry")
CONTACT_GOOD, CONTACT_POOR = 0.70, 0.50  # share of the cone that shows blue, shop rule


@dataclass(frozen=True)
class TaperCapacity:
    """Seating force, N, the torque by friction, N·m, and the verdict compared with the needed torque, None if that is unknown."""

    seating_n: Estimate
    torque_nm: Estimate
    call: Conformity | None


def holds(
    nut_torque_nm: float,
    nut_d_mm: float,
    ratio: float,
    mean_diameter_mm: float,
    asked_nm: float | None = None,
    condition: str = "clean",
    *,
    nut: str = UNKNOWN,
) -> TaperCapacity:
    """Return the torque capacity of a taper with a tightened nut.

    Parameters
    ----------
    nut_torque_nm, nut_d_mm : float
        N·m and mm.
    ratio : float
        k of 1:k.
    mean_diameter_mm : float
        Of the cone, mm.
    asked_nm : float, optional
        The most the engine asks of it, N·m.
    condition : str
        `clean`, `oiled` or `fretted`.
    nut : str
        What is on the nut's thread, as `threads.nut_factor` takes it. Unknown, it may be anything from oiled to dry and rough.

    Returns
    -------
    Holds
        Both bands are *estimates*: the nut's factor and the cone's friction at their ends. `in` when even the least carries what is asked,
        `too_close` when only the likely does.

    Raises
    ------
    BadInput
        Anything not above 0, an unknown condition or state of the nut.

    Source
    ------
    Nut factor and cone with friction: VDI 2230-1 and machine element handbooks.

    Examples
    --------
    >>> found = holds(55, 12, 8, 18, 60)
    >>> [round(value) for value in (found.torque_nm.low, found.torque_nm.likely, found.torque_nm.high)], found.call.state
    ([97, 162, 225], 'in')
    >>> holds(55, 12, 8, 18, 120).call.state, holds(55, 12, 8, 18, 120, nut="oiled").call.state
    ('too_close', 'in')
    """
    torque = positive("nut_torque_nm", nut_torque_nm)
    seating = (UNKNOWN_NUT if nut == UNKNOWN else nut_factor(nut)).map(lambda factor: preload_n(torque, factor, nut_d_mm))
    rub = taper_friction(condition)
    low, likely, high = (
        torque_capacity_nm(force, ratio, friction, mean_diameter_mm)
        for force, friction in ((seating.low, rub.low), (seating.likely, rub.likely), (seating.high, rub.high))
    )
    carries = Estimate(low, likely, high, f"{seating.basis}; {rub.basis}")
    if asked_nm is None:
        return TaperCapacity(seating, carries, None)
    asked = positive("asked_nm", asked_nm)
    words = f"{low:.0f} to {high:.0f} N·m by friction, {asked:.0f} asked"
    values = {"low": newton_metres(low), "high": newton_metres(high), "asked": newton_metres(asked)}
    state = IN if low >= asked else TOO_CLOSE if likely >= asked else OUT
    return TaperCapacity(seating, carries, Conformity(state, low - asked, f"{words}.", "carries", values))


def contact(share: float, at_large_end: bool) -> Conformity:
    """Return whether the contact of a blued taper suffices, or lapping is needed.

    Parameters
    ----------
    share : float
        Of the cone that shows contact, 0 to 1.
    at_large_end : bool
        Whether the contact reaches its large end, where the wheel is steadied.

    Returns
    -------
    Call
        `in` from 70 %; `too_close` to be lapped lightly; `out` under a half or hollow at the large end.

    Raises
    ------
    BadInput
        A share outside 0 to 1.

    Source
    ------
    Shop rule.

    Examples
    --------
    >>> contact(0.8, True).state, contact(0.6, True).state, contact(0.8, False).state
    ('in', 'too_close', 'out')
    """
    if not 0 <= finite("share", share) <= 1:
        raise BadInput(
            "share", gettext_noop("A share of the cone lies between 0 and 100 %; {percent:g} % was understood."), percent=100 * share
        )
    values = {"share": part(share), "wanted": part(CONTACT_GOOD)}
    if not at_large_end:
        return Conformity(OUT, share - CONTACT_GOOD, f"{share:.0%} of it, hollow at the large end: the wheel would rock.", "hollow", values)
    if share >= CONTACT_GOOD:
        return Conformity(IN, share - CONTACT_GOOD, f"{share:.0%} of the cone carries; 70 % is wanted.", "carries_enough", values)
    state = TOO_CLOSE if share >= CONTACT_POOR else OUT
    return Conformity(state, share - CONTACT_GOOD, f"{share:.0%} of the cone carries; 70 % is wanted.", "carries_too_little", values)
