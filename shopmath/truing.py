"""Truing a pressed crank: from two swings to what is twisted, pinched, offset and skewed, and to the one next move.

A crank with a single pin between two webs. Each half is rigid with a straight shaft. z runs along the crank from the pin's mid plane, left
negative. The left axis is taken as 0, the right axis as d + s·z: complex numbers, real toward the pin, imaginary at +90° (the crank's own
angles, counter-clockwise seen from the right end). The crank spins about the line through both supports:

        left half                    pin                    right half
    ----A-----g_L------------------[ | ]------------------g_R-----B----      z →
        0      0                                       d+s·g_R   d+s·z_B

A gauge shows each half's distance from that line, e = ½·TIR·e^{iθ}. Two such swings give d and s exactly:

    K = −e_L(z_B − z_A)/(g_L − z_A)                          the right support's distance from the left axis
    s = (K − e_R − K(g_R − z_A)/(z_B − z_A))/(z_B − g_R)
    d = K − s·z_B

twist  = −Im d / throw   the right web turned ahead about the pin     cured by a strike on a web's rim
pinch  =  Re s           the webs closer together at the pin          cured by squeezing or wedging opposite the pin
offset =  Re d           one pin hole further out                     not curable by truing
skew   =  Im s           one shaft askew sideways                     not curable by truing
"""

from __future__ import annotations

import cmath
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from shopmath.checks import BadInput, finite, not_negative, positive

NEAR_MM = 0.5  # a gauge this close to a support measures nothing
REVERSALS = 2  # sign changes in a row that ask for half the blow
HIDES_MM = 0.02  # a doubt this large between the two axes hides what is to be cured
WORTH_MM = 0.002  # a move that lowers the worse swing by less is left


@dataclass(frozen=True)
class Swing:
    """Fitted swing, peak to peak, mm, and the angle where the shaft is toward the gauge."""

    tir_mm: float
    high_spot_deg: float

    @property
    def vector(self) -> complex:
        return cmath.rect(self.tir_mm / 2, math.radians(self.high_spot_deg))

    @classmethod
    def of(cls, vector: complex) -> Swing:
        return cls(2 * abs(vector), math.degrees(cmath.phase(vector)) % 360)


def refuse_on_support(side: str, support_mm: float, gauge_mm: float) -> None:
    """A gauge on its support measures nothing.

    Examples
    --------
    >>> refuse_on_support("left", 92, 34)
    """
    if abs(support_mm - gauge_mm) < NEAR_MM:
        raise BadInput(f"gauge_{side}_mm", f"The {side} gauge stands on its support: it measures nothing there. Move it.")


@dataclass(frozen=True)
class PressedCrank:
    """Where it is held and measured: z of supports and gauges, mm, left negative; throw (half the stroke), mm."""

    support_left_mm: float
    support_right_mm: float
    gauge_left_mm: float
    gauge_right_mm: float
    throw_mm: float

    def __post_init__(self) -> None:
        for name in ("support_left_mm", "support_right_mm", "gauge_left_mm", "gauge_right_mm"):
            finite(name, getattr(self, name))
        positive("throw_mm", self.throw_mm)
        for side, sign in (("left", -1), ("right", 1)):
            support, gauge = getattr(self, f"support_{side}_mm"), getattr(self, f"gauge_{side}_mm")
            for name, value in ((f"support_{side}_mm", support), (f"gauge_{side}_mm", gauge)):
                if sign * value <= 0:
                    raise BadInput(name, f"The {side} half lies at {'negative' if sign < 0 else 'positive'} z; {value:g} was given.")
            refuse_on_support(side, support, gauge)


@dataclass(frozen=True)
class Unsure:
    """Uncertainty of each part of a misalignment, in its own unit."""

    twist_deg: float = 0.0
    pinch_deg: float = 0.0
    offset_mm: float = 0.0
    skew_deg: float = 0.0


@dataclass(frozen=True)
class Misalignment:
    """What is wrong between the two halves. Twist: right web ahead positive. Pinch: webs closer at the pin positive."""

    twist_deg: float
    pinch_deg: float
    offset_mm: float
    skew_deg: float
    uncertainty: Unsure = Unsure()


@dataclass(frozen=True)
class Move:
    """The one next move. `share` is how much of the usual blow; the swings are what is expected after it."""

    kind: str
    web: str
    at_deg: float
    expect_left: Swing
    expect_right: Swing
    reason: str
    share: float = 1.0
    code: str = ""  # says the same as the reason, with the values
    values: Mapping[str, float] = field(default_factory=dict, hash=False)


@dataclass(frozen=True)
class OuterTurn:
    """How far an outer web has turned about its pin: degrees, mm at its rim opposite the pin, and which way to turn it back."""

    turn_deg: float
    rim_mm: float
    direction: str


def decompose(left: Swing, right: Swing, geometry: PressedCrank, gauge_u_mm: float = 0.0) -> Misalignment:
    """What two swings say about the halves.

    Parameters
    ----------
    left, right : Swing
        Fitted, from one turn each.
    geometry : PressedCrank
    gauge_u_mm : float
        Uncertainty of each component of a swing's vector, mm.

    Returns
    -------
    Misalignment
        With the uncertainty that the gauge's makes.

    Raises
    ------
    BadInput
        Negative swings, a gauge on its support, halves on the wrong side.

    Source
    ------
    Rigid-body geometry of two straight shafts joined at a pin; see the module's words.

    Examples
    --------
    >>> setup = PressedCrank(-92, 92, -34, 34, 29)
    >>> found = decompose(Swing(0.060, 75), Swing(0.050, 262), setup, gauge_u_mm=0.0015)
    >>> round(found.twist_deg, 4), round(found.pinch_deg, 4), round(found.offset_mm, 4), round(found.skew_deg, 4)
    (0.1684, -0.0042, -0.0178, -0.0042)
    >>> round(found.uncertainty.twist_deg, 4)
    0.0066
    """
    for side, swing in (("left", left), ("right", right)):
        not_negative(side, swing.tir_mm)
        finite(side, swing.high_spot_deg)
    d, s = _halves(left.vector, right.vector, geometry)
    u = not_negative("gauge_u_mm", gauge_u_mm)
    (d_left, s_left), (d_right, s_right) = _halves(1, 0, geometry), _halves(0, 1, geometry)
    u_d, u_s = u * math.hypot(abs(d_left), abs(d_right)), u * math.hypot(abs(s_left), abs(s_right))
    turned = math.degrees(1 / geometry.throw_mm)
    return Misalignment(
        twist_deg=-d.imag * turned,
        pinch_deg=math.degrees(s.real),
        offset_mm=d.real,
        skew_deg=math.degrees(s.imag),
        uncertainty=Unsure(u_d * turned, math.degrees(u_s), u_d, math.degrees(u_s)),
    )


def _halves(e_left: complex, e_right: complex, geometry: PressedCrank) -> tuple[complex, complex]:
    """d and s of the right axis."""
    a, b, g_left, g_right = geometry.support_left_mm, geometry.support_right_mm, geometry.gauge_left_mm, geometry.gauge_right_mm
    k = -e_left * (b - a) / (g_left - a)
    s = (k - (e_right + (g_right - a) / (b - a) * k)) / (b - g_right)
    return k - s * b, s


def runout_from(mis: Misalignment, geometry: PressedCrank) -> tuple[Swing, Swing]:
    """The swings that a misalignment makes: the model forward.

    Examples
    --------
    >>> setup = PressedCrank(-92, 92, -34, 34, 29)
    >>> left, right = runout_from(decompose(Swing(0.060, 75), Swing(0.050, 262), setup), setup)
    >>> round(left.tir_mm, 4), round(left.high_spot_deg, 1), round(right.tir_mm, 4), round(right.high_spot_deg, 1)
    (0.06, 75.0, 0.05, 262.0)
    """
    return Swing.of(bend_at(mis, geometry, geometry.gauge_left_mm)), Swing.of(bend_at(mis, geometry, geometry.gauge_right_mm))


def bend_at(mis: Misalignment, geometry: PressedCrank, z_mm: float) -> complex:
    """How far the shaft's axis lies off the line of turning at a place.

    Parameters
    ----------
    mis : Misalignment
    geometry : PressedCrank
    z_mm : float
        From the pin's mid plane, left negative, mm.

    Returns
    -------
    complex
        mm, real toward the pin, imaginary at +90°; 0 at either support.

    Raises
    ------
    BadInput
        NaN or infinity.

    Examples
    --------
    >>> setup = PressedCrank(-92, 92, -34, 34, 29)
    >>> mis = Misalignment(0.1, 0.0, 0.0, 0.0)
    >>> abs(bend_at(mis, setup, -92)), round(bend_at(mis, setup, -34).imag, 4)
    (0.0, 0.016)
    """
    a, b = geometry.support_left_mm, geometry.support_right_mm
    d = complex(mis.offset_mm, -math.radians(mis.twist_deg) * geometry.throw_mm)
    s = complex(math.radians(mis.pinch_deg), math.radians(mis.skew_deg))
    axis = d + s * z_mm if finite("z_mm", z_mm) > 0 else 0j
    return axis - (d + s * b) * (z_mm - a) / (b - a)


def best_reachable(mis: Misalignment, geometry: PressedCrank) -> tuple[Swing, Swing]:
    """The swings left when twist and pinch are gone: offset and skew stay.

    Examples
    --------
    >>> setup = PressedCrank(-92, 92, -34, 34, 29)
    >>> mis = decompose(Swing(0.060, 75), Swing(0.050, 262), setup)
    >>> [round(swing.tir_mm, 4) for swing in best_reachable(mis, setup)]
    [0.012, 0.012]
    >>> [round(swing.tir_mm, 4) for swing in runout_from(replace(mis, twist_deg=0.0), setup)]
    [0.0161, 0.0081]
    """
    return runout_from(replace(mis, twist_deg=0.0, pinch_deg=0.0), geometry)


def _worse(swings: tuple[Swing, Swing]) -> float:
    return max(swing.tir_mm for swing in swings)


def reversals(values: Sequence[float]) -> int:
    """Sign changes in a row at the end of a series.

    Examples
    --------
    >>> reversals([0.2, 0.1, -0.05, 0.04]), reversals([0.2, -0.1, -0.05])
    (2, 0)
    """
    count = 0
    for earlier, later in zip(reversed(values[:-1]), reversed(values[1:]), strict=True):
        if earlier * later >= 0:
            break
        count += 1
    return count


def next_move(mis: Misalignment, geometry: PressedCrank, history: Sequence[Misalignment] = (), *, limit_mm: float | None = None) -> Move:
    """The one next move, from twist and pinch alone, never from where the needle reads high.

    Parameters
    ----------
    mis : Misalignment
        As measured now.
    geometry : PressedCrank
    history : sequence of Misalignment
        As measured before each earlier move, oldest first.
    limit_mm : float, optional
        The swing allowed at these gauges, mm.

    Returns
    -------
    Move
        `strike` (a web's rim toward the axis, at the angle), `squeeze` or `wedge` (the rims opposite the pin), `remeasure` when the
        numbers are less sure than what is to be cured, `leave` when nothing is worth a blow, `replace` when what truing cannot cure is
        already over the limit. Of two moves the one that lowers the worse swing most. After two reversals, half the blow.

    Raises
    ------
    BadInput
        A limit not above 0.

    Examples
    --------
    >>> setup = PressedCrank(-92, 92, -34, 34, 29)
    >>> move = next_move(decompose(Swing(0.060, 75), Swing(0.050, 262), setup, 0.0005), setup)
    >>> move.kind, move.web, move.at_deg, round(move.expect_left.tir_mm, 3)
    ('strike', 'right', 270.0, 0.016)
    """
    now, best = runout_from(mis, geometry), best_reachable(mis, geometry)
    unsure = mis.uncertainty
    if limit_mm is not None and _worse(best) > positive("limit_mm", limit_mm):
        words = f"Without twist and pinch {_worse(best):.3f} mm is left, over {limit_mm:.3f}: offset, skew or a bent half."
        return Move("replace", "", 0.0, *best, words, code="not_curable", values={"best": _worse(best), "limit": limit_mm})
    without = {
        "twist": runout_from(replace(mis, twist_deg=0.0), geometry),
        "pinch": runout_from(replace(mis, pinch_deg=0.0), geometry),
    }
    sure = {"twist": abs(mis.twist_deg) > unsure.twist_deg, "pinch": abs(mis.pinch_deg) > unsure.pinch_deg}
    gains = {name: _worse(now) - _worse(after) for name, after in without.items()}
    worth = {name: gain for name, gain in gains.items() if gain > WORTH_MM}
    if not worth and _worse(now) - _worse(best) > WORTH_MM:  # each alone makes it worse, both together better: begin with the larger
        worth = {max(sure, key=lambda name: abs(mis.twist_deg if name == "twist" else mis.pinch_deg)): 0.0}
    if not worth and 2 * unsure.offset_mm > HIDES_MM:
        words = f"These gauges would not see a twist of {unsure.twist_deg:.2f}°: move them away from the supports."
        return Move("remeasure", "", 0.0, *now, words, code="blind", values={"twist": unsure.twist_deg})
    if not worth:
        words = f"{_worse(now):.3f} mm, and {_worse(best):.3f} is the best that truing can reach."
        return Move("leave", "", 0.0, *now, words, code="best", values={"now": _worse(now), "best": _worse(best)})
    chosen = max((name for name in worth if sure[name]), key=lambda name: worth[name], default="")
    if not chosen:
        words = "What is to be cured is smaller than its own uncertainty: move the gauges away from the supports, or take more readings."
        return Move("remeasure", "", 0.0, *now, words, code="too_unsure")
    series = [getattr(each, f"{chosen}_deg") for each in (*history, mis)]
    share = 0.5 if reversals(series) >= REVERSALS else 1.0
    half = " Half the blow: it has gone back and forth twice." if share < 1 else ""
    if chosen == "twist":
        ahead = mis.twist_deg > 0
        words = f"The right web stands {abs(mis.twist_deg):.3f}° {'ahead' if ahead else 'behind'}.{half}"
        values = {"turned": abs(mis.twist_deg)}
        return Move(
            "strike", "right", 270.0 if ahead else 90.0, *without["twist"], words, share, code="ahead" if ahead else "behind", values=values
        )
    closed = mis.pinch_deg > 0
    words = f"The webs are {abs(mis.pinch_deg):.3f}° {'closed' if closed else 'open'} at the pin.{half}"
    values = {"turned": abs(mis.pinch_deg)}
    kind, code = ("squeeze", "closed") if closed else ("wedge", "spread")
    return Move(kind, "both", 180.0, *without["pinch"], words, share, code=code, values=values)


def _seen(swing: Swing) -> None:
    """Refuse a swing that no gauge has shown."""
    not_negative("tir_mm", swing.tir_mm)
    finite("high_spot_deg", swing.high_spot_deg)


def outer_turn(swing: Swing, throw_mm: float, pin_deg: float, rim_radius_mm: float) -> OuterTurn:
    """How far an outer web of a multi-cylinder crank has turned, the crank held on its centre bearings.

    Parameters
    ----------
    swing : Swing
        Of the outer shaft.
    throw_mm : float
        Of the pin that the web sits on, mm.
    pin_deg : float
        Angle of that pin.
    rim_radius_mm : float
        Of the web, mm.

    Returns
    -------
    OuterTurn
        From the part of the swing at right angles to the throw; the rest is not curable by turning. The web turns about its pin, so
        the rim opposite the pin travels turn·(rim + throw).

    Raises
    ------
    BadInput
        Throw or rim not above 0.

    Examples
    --------
    >>> found = outer_turn(Swing(0.050, 90), 34, 0, 60)
    >>> round(found.turn_deg, 4), round(found.rim_mm, 3), found.direction
    (0.0421, 0.069, 'counter-clockwise')
    """
    _seen(swing)
    across = (swing.vector * cmath.exp(-1j * math.radians(finite("pin_deg", pin_deg)))).imag
    turn = abs(across) / positive("throw_mm", throw_mm)
    direction = "counter-clockwise" if across > 0 else "clockwise" if across < 0 else ""
    return OuterTurn(math.degrees(turn), turn * (positive("rim_radius_mm", rim_radius_mm) + throw_mm), direction)
