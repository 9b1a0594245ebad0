"""Pulling a crank in through the inner ring: turns to go, what the wrench should feel, when to stop."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from shopmath.compounds import joint_friction
from shopmath.estimate import Estimate
from shopmath.press import interference_pressure_mpa, press_force_n
from shopmath.screw_threads import torque_for_force_nm
from shopmath.validation import BadInput, gettext_noop, not_negative, positive
from shopmath.verdict import IN, OUT, STOP, TOO_CLOSE, Conformity, combined, judge

SCREW_FRICTION = (0.08, 0.12, 0.16)  # a greased screw, by the friction table
EARLY_SHARE = 0.15  # so much travel left is bound, not bottomed
LEAD_MM = 2.0  # that one end may be pulled in ahead of the other: shop rule, estimate
RING_SECTION = 1.3  # outside of an inner ring over its bore, usual: estimate


def turns(travel_mm: float, pitch_mm: float) -> float:
    """Turns of the screw for a travel.

    Parameters
    ----------
    travel_mm, pitch_mm : float
        mm.

    Returns
    -------
    float

    Raises
    ------
    BadInput
        A negative travel, a pitch not above 0.

    Examples
    --------
    >>> turns(18, 1.5)
    12.0
    """
    return not_negative("travel_mm", travel_mm) / positive("pitch_mm", pitch_mm)


def pull_force_n(interference_mm: tuple[float, float], bore_mm: float, width_mm: float) -> Estimate:
    """Return the force that slides a shaft into an inner ring (*estimate*).

    Parameters
    ----------
    interference_mm : tuple of float
        Least and highest overlap, mm; a negative one needs no force.
    bore_mm, width_mm : float
        Of the bearing, mm.

    Returns
    -------
    Estimate
        N.

    Raises
    ------
    BadInput
        Sizes not above 0, overlaps crossed.

    Source
    ------
    Lamé with an inner ring of usual section; sliding friction of oiled steel by the friction table, DIN 7190-1.

    Examples
    --------
    >>> band = pull_force_n((0.002, 0.021), 25, 15)
    >>> round(band.low), round(band.likely), round(band.high)
    (202, 1626, 5091)
    """
    low, high = interference_mm
    if low > high:
        raise BadInput("interference_mm", gettext_noop("The least overlap {low:g} is above the greatest {high:g}."), low=low, high=high)
    friction = joint_friction("assembling", "oiled")
    positive("bore_mm", bore_mm)

    def force(overlap: float, mu: float) -> float:
        pressure = interference_pressure_mpa(max(0.0, overlap), bore_mm, RING_SECTION * bore_mm, 0, 210e3, 0.29, 210e3, 0.29)
        return press_force_n(pressure, bore_mm, positive("width_mm", width_mm), mu)

    return Estimate(
        force(low, friction.low), force((low + high) / 2, friction.likely), force(high, friction.high), "inner ring of usual section, oiled"
    )


@dataclass(frozen=True)
class PullTorque:
    """Torque on the screw, N·m: low, likely, high. The high one is where to stop."""

    expected: Estimate

    @property
    def stop_nm(self) -> float:
        return self.expected.high


def pull_torque_nm(force_n: Estimate, screw_mm: float, pitch_mm: float, bearing_radius_mm: float) -> PullTorque:
    """Torque that a pull takes on the tool's screw.

    Parameters
    ----------
    force_n : Estimate
    screw_mm, pitch_mm : float
        The tool's screw, mm.
    bearing_radius_mm : float
        Mean radius its nut turns on, mm.

    Returns
    -------
    PullTorque

    Source
    ------
    VDI 2230-1.

    Examples
    --------
    >>> found = pull_torque_nm(pull_force_n((0.002, 0.021), 25, 15), 16, 1.5, 10)
    >>> round(found.expected.likely, 1), round(found.stop_nm, 1)
    (4.0, 16.4)
    """
    ends = ("low", "likely", "high")
    low, likely, high = (
        torque_for_force_nm(getattr(force_n, end), screw_mm, pitch_mm, mu, mu, bearing_radius_mm)
        for end, mu in zip(ends, SCREW_FRICTION, strict=True)
    )
    return PullTorque(Estimate(low, likely, high, "greased screw and nut"))


def binding(torque_nm: float, expected: PullTorque, turns_done: float, turns_wanted: float) -> Conformity:
    """Return the verdict of the torque while it pulls.

    Parameters
    ----------
    torque_nm : float
        On the screw now.
    expected : PullTorque
    turns_done, turns_wanted : float
        Of the screw, from the first resistance.

    Returns
    -------
    Call
        `stop` past the high estimate with travel left (crooked, the rod caught), `in` past it with the travel done (home), `too_close`
        when it is home by turns without the wrench feeling it. Margin in N·m.

    Raises
    ------
    BadInput
        Negative torque or turns.

    Examples
    --------
    >>> tool = pull_torque_nm(pull_force_n((0.002, 0.021), 25, 15), 16, 1.5, 10)
    >>> [binding(*args).state for args in ((4, tool, 3, 12), (25, tool, 3, 12), (25, tool, 12, 12), (4, tool, 13, 12))]
    ['in', 'stop', 'in', 'too_close']
    """
    now, done, needed = not_negative("torque_nm", torque_nm), not_negative("turns_done", turns_done), positive("turns_wanted", turns_wanted)
    left = needed - done
    high = now > expected.stop_nm
    margin = expected.stop_nm - now
    values = {"now": now, "left": left, "low": expected.expected.low, "stop": expected.stop_nm}
    if high and left > EARLY_SHARE * needed:
        words = f"{now:.0f} N·m with {left:.1f} turns to go, {expected.stop_nm:.0f} is the most: crooked, or the rod is caught."
        return Conformity(STOP, margin, words, "binds", values)
    if high:
        return Conformity(IN, margin, f"{now:.0f} N·m and the turns are done: it has come home.", "come_home", values)
    if left <= 0:
        words = f"The turns are done and the wrench feels only {now:.0f} N·m: measure before it is called home."
        return Conformity(TOO_CLOSE, margin, words, "felt_nothing", values)
    words = f"{left:.1f} turns to go; {expected.expected.low:.0f} to {expected.stop_nm:.0f} N·m is as it should be."
    return Conformity(IN, margin, words, "as_expected", values)


@dataclass(frozen=True)
class InTurn:
    """Which end of a crank is pulled next, the lead of the other in mm, and whether that is more than its bearings withstand."""

    end: str
    lead_mm: float
    call: Conformity


def in_turn(to_go_mm: Mapping[str, float], lead_mm: float = LEAD_MM) -> InTurn:
    """Return which end is pulled next if a crank is pulled through both ends of a case in turn.

    Pulled at one end alone, it is dragged through the bearings of the centre section, and its webs against them.

    Parameters
    ----------
    to_go_mm : mapping of str to float
        What is left to the shoulder at each end, mm.
    lead_mm : float
        That one end may be ahead of the other, mm: shop rule, *estimate*.

    Returns
    -------
    InTurn
        The end with most to go. `in` within the lead allowed, `stop` beyond it. Margin in mm.

    Raises
    ------
    BadInput
        No ends, negative travel, a lead not above 0.

    Examples
    --------
    >>> found = in_turn({"left": 12.0, "right": 15.5})
    >>> found.end, found.lead_mm, found.call.state
    ('right', 3.5, 'stop')
    >>> in_turn({"left": 12.0, "right": 12.0}).end
    'left'
    """
    if not to_go_mm:
        raise BadInput("to_go_mm", gettext_noop("There is no end to pull at."))
    to_go = {end: not_negative("to_go_mm", value) for end, value in to_go_mm.items()}
    behind = max(to_go, key=lambda end: to_go[end])
    ahead = min(to_go, key=lambda end: to_go[end])
    lead, allowed = to_go[behind] - to_go[ahead], positive("lead_mm", lead_mm)
    state, code = (IN, "together") if lead <= allowed else (STOP, "one_ahead")
    values = {"ahead": ahead, "behind": behind, "lead": lead, "allowed": allowed}
    return InTurn(behind, lead, Conformity(state, allowed - lead, f"The {ahead} end is {lead:.1f} mm ahead of the {behind}.", code, values))


def seated(left_gap_mm: float, right_gap_mm: float, limit_mm: float, uncertainty_mm: float = 0.0) -> Conformity:
    """Return whether a crank is seated on both sides: equal gaps within a limit, else the side with the larger gap is not.

    Examples
    --------
    >>> seated(0.30, 0.28, 0.05).state, seated(0.90, 0.30, 0.05).reason
    ('in', 'The left gap is 0.60 mm larger: that side is not home.')
    >>> seated(0.90, 0.30, 0.05).code, seated(0.90, 0.30, 0.05).values["side"]
    ('not_home', 'left')
    """
    off = abs(not_negative("left_gap_mm", left_gap_mm) - not_negative("right_gap_mm", right_gap_mm))
    found = judge(off, high=positive("limit_mm", limit_mm), uncertainty=combined(uncertainty_mm, uncertainty_mm))
    side = "left" if left_gap_mm > right_gap_mm else "right"
    words = {
        IN: f"The gaps are equal within {limit_mm:g} mm: home on both sides.",
        OUT: f"The {side} gap is {off:.2f} mm larger: that side is not home.",
        TOO_CLOSE: f"The {side} gap is {off:.2f} mm larger, too near the limit {limit_mm:g} to tell.",
    }
    code = {IN: "home", OUT: "not_home", TOO_CLOSE: "too_close"}[found.state]
    return Conformity(found.state, found.margin, words[found.state], code, {"side": side, "difference": off, "limit": limit_mm})
