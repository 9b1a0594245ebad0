"""The plan of a press joint: the force to start it, the capacity of the press, the effect of heat, the stress in the hub.

A crank web is no ring round its pin. What holds like a ring lies between two: one of the pin and twice the thinnest wall, and one as wide
as the whole web. Both ends, the band of friction and the band of any retaining compound make the band of the force.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from shopmath.compounds import compound_shear_mpa, joint_friction
from shopmath.estimate import Estimate, exactly
from shopmath.materials import Material, get
from shopmath.press import hub_stress_mpa, interference_pressure_mpa, press_force_n
from shopmath.taper import half_angle_deg
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, numbers, one_of, positive, temperature
from shopmath.verdict import IN, STOP, TOO_CLOSE, Conformity

FLUORO_RUBBER_C = 300.0  # above this, fluoro-rubber (FKM) decomposes and leaves hydrofluoric acid


@dataclass(frozen=True)
class PressJoint:
    """A pin in a web, mm and °C.

    `wall_mm` is the thinnest wall round the hole, `web_mm` the width of the web there.

    `taper_ratio` 0 means a plain pin; a joint on a taper gives the force it was seated with. `strength` names the compound, if any.
    """

    diameter_mm: float
    length_mm: float
    interference_mm: float
    interference_u_mm: float
    wall_mm: float
    web_mm: float
    pin_bore_mm: float = 0.0
    smoothing_mm: float = 0.0
    condition: str = "dry"
    strength: str = ""
    taper_ratio: float = 0.0
    web_c: float = 20.0
    pin_c: float = 20.0
    web: str = "42crmo4"
    pin: str = "16mncr5"

    def __post_init__(self) -> None:
        for field in ("diameter_mm", "length_mm", "wall_mm", "web_mm"):
            positive(field, getattr(self, field))
        finite("interference_mm", self.interference_mm)
        not_negative("interference_u_mm", self.interference_u_mm)
        if self.web_mm < self.diameter_mm + 2 * self.wall_mm - 1e-9:
            words = gettext_noop("A web {web:g} mm wide cannot hold a {pin:g} mm pin with {wall:g} mm of wall on each side.")
            raise BadInput("web_mm", words, web=self.web_mm, pin=self.diameter_mm, wall=self.wall_mm)
        if self.taper_ratio and self.taper_ratio < 2:
            raise BadInput(
                "taper_ratio",
                gettext_noop("A taper of 1 in {taper_ratio:g} does not hold: 1 in 2 or slimmer."),
                taper_ratio=self.taper_ratio,
            )
        for field in ("web_c", "pin_c"):
            temperature(field, getattr(self, field))


@dataclass(frozen=True)
class JointPlan:
    """Force to start or to slide it, N, as a range; stress in the web, MPa, compared with its yield; remaining interference, mm."""

    force_n: Estimate
    compound_n: Estimate
    interference_mm: Estimate
    hub_stress_mpa: float
    yield_mpa: float
    past_yield: bool
    releases_at_once: bool

    def __post_init__(self) -> None:
        numbers(self)


def _grip(joint: PressJoint, web: Material, pin: Material) -> Estimate:
    """Return the interference at the joint's temperatures, mm: a web hotter than its pin reduces it."""
    opened = joint.diameter_mm * (web.alpha * (joint.web_c - 20) - pin.alpha * (joint.pin_c - 20))
    likely = joint.interference_mm - opened
    uncertainty = joint.interference_u_mm
    return Estimate(max(0.0, likely - uncertainty), max(0.0, likely), max(0.0, likely + uncertainty), "interference at these temperatures")


def joint_plan(joint: PressJoint, moving: str = "parting") -> JointPlan:
    """Return the force to press a joint apart or together.

    Parameters
    ----------
    joint : PressJoint
    moving : str
        `parting` or `assembling`.

    Returns
    -------
    JointPlan
        N and MPa. The low end takes a ring of the pin with twice the thinnest wall and the low friction, the high end the whole web and
        the high friction, both *estimate*.

    Raises
    ------
    BadInput
        Impossible sizes, an unknown material or compound.

    Notes
    -----
    F = μ·p·π·D·L, and the compound's shear on the same surface. On a taper μ·cos α − sin α stands for μ when it parts and
    μ·cos α + sin α when it is pressed on. Past yield the elastic force is an upper bound.

    Source
    ------
    Lamé; DIN 7190-1; friction and compound tables.

    Examples
    --------
    >>> plan = joint_plan(PressJoint(22, 16, 0.060, 0.004, wall_mm=10, web_mm=80))
    >>> [round(value / 1000) for value in (plan.force_n.low, plan.force_n.likely, plan.force_n.high)], plan.past_yield
    ([17, 30, 50], False)
    """
    one_of("moving", moving, ("parting", "assembling"))
    web, pin = get(joint.web), get(joint.pin)
    friction, interference = joint_friction(moving, joint.condition), _grip(joint, web, pin)
    thin, whole = joint.diameter_mm + 2 * joint.wall_mm, joint.web_mm
    hubs = (thin, (thin + whole) / 2, whole)

    def pressure(mm: float, hub: float) -> float:
        elastic = (web.e_mpa, web.nu, pin.e_mpa, pin.nu)
        return interference_pressure_mpa(mm, joint.diameter_mm, hub, joint.pin_bore_mm, *elastic, smoothing_mm=joint.smoothing_mm)

    def slope(value: float) -> float:
        if not joint.taper_ratio:
            return value
        angle = math.radians(half_angle_deg(joint.taper_ratio))
        lean = math.sin(angle) * (-1 if moving == "parting" else 1)
        return max(0.0, value * math.cos(angle) + lean)

    ends = ("low", "likely", "high")
    held = [
        press_force_n(pressure(getattr(interference, end), hub), joint.diameter_mm, joint.length_mm, slope(getattr(friction, end)))
        for end, hub in zip(ends, hubs, strict=True)
    ]
    surface = math.pi * joint.diameter_mm * joint.length_mm
    cured = moving == "parting" and joint.strength  # wet compound is oil, cured compound holds
    shear = compound_shear_mpa(joint.strength, min(joint.web_c, joint.pin_c)) if cured else exactly(0.0, "no compound")
    glued = shear.map(lambda mpa: mpa * surface)
    force = Estimate(held[0] + glued.low, held[1] + glued.likely, held[2] + glued.high, friction.basis)
    stress = max(hub_stress_mpa(pressure(interference.high, hub), joint.diameter_mm, hub) for hub in (thin, whole))
    allowed = web.yield_mpa[0] if web.yield_mpa else math.inf
    return JointPlan(force, glued, interference, stress, allowed, stress > allowed, joint.taper_ratio > 0)


def press_call(force_n: Estimate, press_n: float, *, unit: str = "kN", per_unit_n: float = 1000.0) -> Conformity:
    """Return whether a press is strong enough for a joint.

    Parameters
    ----------
    force_n : Estimate
    press_n : float
        What the weakest of press and fixture stands, N.
    unit, per_unit_n
        How the reason spells it.

    Returns
    -------
    Call
        `in` when even the high end is within it, `too_close` when the likely is, `stop` when the likely is past it. Margin in N.

    Raises
    ------
    BadInput
        A capacity not above 0.

    Examples
    --------
    >>> press_call(Estimate(14e3, 28e3, 50e3), 60e3).state, press_call(Estimate(14e3, 28e3, 50e3), 20e3).state
    ('in', 'stop')
    """
    margin = positive("press_n", press_n) - force_n.high
    positive("per_unit_n", per_unit_n)
    low, likely, high, has = (f"{value / per_unit_n:.3g}" for value in (force_n.low, force_n.likely, force_n.high, press_n))
    band = f"{low} to {high} {unit}, likely {likely}"
    values = {"low": force_n.low, "likely": force_n.likely, "high": force_n.high, "has": press_n}
    if margin >= 0:
        return Conformity(IN, margin, f"It takes {band}; the press has {has}.", "enough", values)
    if press_n >= force_n.likely:
        words = f"It takes {band}; the press has {has}: enough for most, not for the tightest."
        return Conformity(TOO_CLOSE, margin, words, "enough_for_most", values)
    return Conformity(STOP, press_n - force_n.likely, f"It takes {band}; the press has only {has}.", "too_small", values)


def heat_call(joint: PressJoint, *, scrap: bool) -> Conformity:
    """Return whether a joint may have this temperature.

    Parameters
    ----------
    joint : PressJoint
        With the temperatures that web and pin reach.
    scrap : bool
        Pin and bearing are recorded as scrap.

    Returns
    -------
    Call
        `stop` past what a hardened pin stands unless it is scrap, and past what the web stands always. Margin in K.

    Examples
    --------
    >>> heat_call(PressJoint(22, 16, 0.06, 0.0, 10, 80, web_c=240, pin_c=200), scrap=False).state
    'stop'
    >>> heat_call(PressJoint(22, 16, 0.06, 0.0, 10, 80, web_c=240, pin_c=200), scrap=True).state
    'too_close'
    """
    web = get(joint.web)
    stands, pin_stands = web.max_heating_c or math.inf, get(joint.pin).max_heating_c or math.inf
    if joint.web_c > FLUORO_RUBBER_C:
        words = f"{joint.web_c:.0f} °C is above {FLUORO_RUBBER_C:.0f} °C: fluoro-rubber (FKM) left in the part gives off hydrofluoric acid."
        return Conformity(STOP, FLUORO_RUBBER_C - joint.web_c, words, "fluoro_rubber", {"at": joint.web_c, "most": FLUORO_RUBBER_C})
    if joint.web_c > stands:
        words = f"{joint.web_c:.0f} °C is past the {stands:.0f} °C this web stands."
        return Conformity(STOP, stands - joint.web_c, words, "web_too_hot", {"at": joint.web_c, "most": stands})
    if scrap:
        lost = joint.pin_c > pin_stands
        words = "Pin and bearing are lost at this heat; they are down as scrap." if lost else "Pin and bearing are down as scrap."
        return Conformity(TOO_CLOSE if lost else IN, FLUORO_RUBBER_C - joint.web_c, words, "lost" if lost else "scrap", {"at": joint.pin_c})
    margin = pin_stands - joint.pin_c
    if margin < 0:
        words = f"A hardened pin at {joint.pin_c:.0f} °C goes soft: {pin_stands:.0f} °C at most, unless it is scrap."
        return Conformity(STOP, margin, words, "pin_too_hot", {"at": joint.pin_c, "most": pin_stands})
    words = f"Pin {joint.pin_c:.0f} °C, {margin:.0f} K under what it stands."
    return Conformity(IN, margin, words, "pin_stands", {"at": joint.pin_c, "most": pin_stands})


def joint_evidence(peak_n: float, plan: JointPlan, *, unit: str = "kN", per_unit_n: float = 1000.0) -> Conformity:
    """Return the verdict of the peak force on a joint pressed together.

    Parameters
    ----------
    peak_n : float
        N.
    plan : JointPlan
        Of `assembling`.
    unit, per_unit_n
        How the reason spells it.

    Returns
    -------
    Call
        `out` below the low estimate: loose, not to be used. `too_close` past the high one: scored, crooked or tight. Margin in N.

    Examples
    --------
    >>> plan = joint_plan(PressJoint(22, 16, 0.060, 0.004, wall_mm=10, web_mm=80), "assembling")
    >>> joint_evidence(6_000, plan).state, joint_evidence(25_000, plan).state, joint_evidence(90_000, plan).state
    ('out', 'in', 'too_close')
    """
    peak, force = not_negative("peak_n", peak_n), plan.force_n
    positive("per_unit_n", per_unit_n)
    low, high, got = (f"{value / per_unit_n:.3g} {unit}" for value in (force.low, force.high, peak))
    values = {"peak": peak, "low": force.low, "high": force.high}
    if peak < force.low:
        words = f"{got} is under the {low} that even a slack joint takes: loose, not to be used."
        return Conformity("out", peak - force.low, words, "loose", values)
    if peak > force.high:
        words = f"{got} is over the {high} expected: crooked, scored, or tighter than measured."
        return Conformity(TOO_CLOSE, force.high - peak, words, "tight", values)
    words = f"{got} lies between {low} and {high}: it grips as it should."
    return Conformity(IN, min(peak - force.low, force.high - peak), words, "grips", values)


def web_heat_for(joint: PressJoint, press_n: float, moving: str = "parting") -> float | None:
    """Return the lowest web temperature at which a press certainly suffices, with the pin at its present temperature.

    Parameters
    ----------
    joint : PressJoint
    press_n : float
        N.
    moving : str
        `parting` or `assembling`.

    Returns
    -------
    float or None
        °C in steps of 5, no more than the web stands; None when heat alone does not do it.

    Examples
    --------
    >>> joint = PressJoint(22, 16, 0.060, 0.004, wall_mm=10, web_mm=80)
    >>> web_heat_for(joint, 60e3), web_heat_for(joint, 35e3), web_heat_for(joint, 1e3)
    (20.0, 95.0, None)
    """
    stands = get(joint.web).max_heating_c or joint.web_c
    at = joint.web_c
    while at <= stands:
        if joint_plan(replace(joint, web_c=at), moving).force_n.high <= press_n:
            return at
        at += 5
    return None


FIT_OF_PIN = (0.0022, 0.0030, 0.0040)


def usual_interference(diameter_mm: float) -> Estimate:
    """Return the interference of a pressed crankpin that nobody has measured (*estimate*): 2.2 to 4 per mille of its diameter, shop rule.

    Examples
    --------
    >>> band = usual_interference(22)
    >>> round(band.low, 3), round(band.likely, 3), round(band.high, 3)
    (0.048, 0.066, 0.088)
    """
    low, likely, high = (share * positive("diameter_mm", diameter_mm) for share in FIT_OF_PIN)
    return Estimate(low, likely, high, "usual crankpin, 2.2 to 4 per mille of its diameter, shop rule")
