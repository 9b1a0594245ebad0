"""Truing of a pressed crank: twist, web opening, offset and skew from two runouts, and the next move.

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

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise

from shopmath.crank_runout import OuterTurn, PressedCrank, RunoutVector, outer_turn, refuse_on_support
from shopmath.estimate import Estimate
from shopmath.validation import finite, not_negative, positive

__all__ = [
    "Misalignment",
    "MisalignmentUncertainty",
    "OuterTurn",
    "PressedCrank",
    "RunoutVector",
    "TruingStep",
    "bend_at",
    "best_reachable",
    "convert_runout",
    "decompose",
    "next_move",
    "outer_turn",
    "refuse_on_support",
    "reversals",
    "runout_from",
]

REVERSALS = 2  # sign changes of a component that halve the blow on it, each time
HIDES_MM = 0.02  # an uncertainty this large between the two axes hides what is to be cured
WORTH_MM = 0.002  # a move that lowers the worse swing by less is left


@dataclass(frozen=True)
class MisalignmentUncertainty:
    """Uncertainty of each part of a misalignment, in its own unit."""

    twist_deg: float = 0.0
    pinch_deg: float = 0.0
    offset_mm: float = 0.0
    skew_deg: float = 0.0

    def __post_init__(self) -> None:
        for name in ("twist_deg", "pinch_deg", "offset_mm", "skew_deg"):
            not_negative(name, getattr(self, name))


@dataclass(frozen=True)
class Misalignment:
    """The misalignment between the two halves.

    Twist: right web ahead positive. Pinch: webs closer at the pin positive.
    """

    twist_deg: float
    pinch_deg: float
    offset_mm: float
    skew_deg: float
    uncertainty: MisalignmentUncertainty = MisalignmentUncertainty()

    def __post_init__(self) -> None:
        for name in ("twist_deg", "pinch_deg", "offset_mm", "skew_deg"):
            finite(name, getattr(self, name))


@dataclass(frozen=True)
class TruingStep:
    """The next move. `share` is the fraction of the usual blow; the runouts are those expected after it."""

    kind: str
    web: str
    at_deg: float
    expect_left: RunoutVector
    expect_right: RunoutVector
    reason: str
    share: float = 1.0
    code: str = ""  # says the same as the reason, with the values
    values: Mapping[str, float] = field(default_factory=dict, hash=False)


def decompose(left: RunoutVector, right: RunoutVector, geometry: PressedCrank, gauge_u_mm: float = 0.0) -> Misalignment:
    """Return the misalignment of the halves from two runouts.

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
    >>> found = decompose(RunoutVector(0.060, 75), RunoutVector(0.050, 262), setup, gauge_u_mm=0.0015)
    >>> round(found.twist_deg, 4), round(found.pinch_deg, 4), round(found.offset_mm, 4), round(found.skew_deg, 4)
    (0.1684, -0.0042, -0.0178, -0.0042)
    >>> round(found.uncertainty.twist_deg, 4)
    0.0066
    """
    for side, runout in (("left", left), ("right", right)):
        not_negative(side, runout.tir_mm)
        finite(side, runout.high_spot_deg)
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
        uncertainty=MisalignmentUncertainty(u_d * turned, math.degrees(u_s), u_d, math.degrees(u_s)),
    )


def _halves(e_left: complex, e_right: complex, geometry: PressedCrank) -> tuple[complex, complex]:
    """d and s of the right axis."""
    a, b, g_left, g_right = geometry.support_left_mm, geometry.support_right_mm, geometry.gauge_left_mm, geometry.gauge_right_mm
    k = -e_left * (b - a) / (g_left - a)
    s = (k - (e_right + (g_right - a) / (b - a) * k)) / (b - g_right)
    return k - s * b, s


def runout_from(mis: Misalignment, geometry: PressedCrank) -> tuple[RunoutVector, RunoutVector]:
    """Return the runouts that a misalignment causes: the forward model.

    Examples
    --------
    >>> setup = PressedCrank(-92, 92, -34, 34, 29)
    >>> left, right = runout_from(decompose(RunoutVector(0.060, 75), RunoutVector(0.050, 262), setup), setup)
    >>> round(left.tir_mm, 4), round(left.high_spot_deg, 1), round(right.tir_mm, 4), round(right.high_spot_deg, 1)
    (0.06, 75.0, 0.05, 262.0)
    """
    return RunoutVector.of(bend_at(mis, geometry, geometry.gauge_left_mm)), RunoutVector.of(bend_at(mis, geometry, geometry.gauge_right_mm))


def bend_at(mis: Misalignment, geometry: PressedCrank, z_mm: float) -> complex:
    """Return how far the shaft's axis is from the axis of rotation at a place.

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
    d = complex(mis.offset_mm, -math.radians(mis.twist_deg) * geometry.throw_mm)
    s = complex(math.radians(mis.pinch_deg), math.radians(mis.skew_deg))
    return _off_line(d, s, geometry, finite("z_mm", z_mm))


def _off_line(d: complex, s: complex, geometry: PressedCrank, z_mm: float) -> complex:
    """The axis at a place, from the line through both supports."""
    a, b = geometry.support_left_mm, geometry.support_right_mm
    axis = d + s * z_mm if z_mm > 0 else 0j
    return axis - (d + s * b) * (z_mm - a) / (b - a)


def best_reachable(mis: Misalignment, geometry: PressedCrank) -> tuple[RunoutVector, RunoutVector]:
    """Return the runouts that remain without twist and web opening: offset and skew.

    Examples
    --------
    >>> setup = PressedCrank(-92, 92, -34, 34, 29)
    >>> mis = decompose(RunoutVector(0.060, 75), RunoutVector(0.050, 262), setup)
    >>> [round(swing.tir_mm, 4) for swing in best_reachable(mis, setup)]
    [0.012, 0.012]
    >>> [round(swing.tir_mm, 4) for swing in runout_from(replace(mis, twist_deg=0.0), setup)]
    [0.0161, 0.0081]
    """
    return runout_from(replace(mis, twist_deg=0.0, pinch_deg=0.0), geometry)


def convert_runout(limit_mm: float, taken: PressedCrank, held: PressedCrank) -> Estimate:
    """Return the value of a runout limit for one setup at another.

    Parameters
    ----------
    limit_mm : float
        The larger swing allowed, mm, at the supports and gauges that the limit is meant for.
    taken : PressedCrank
        Those supports and gauges.
    held : PressedCrank
        Supports and gauges at hand.

    Returns
    -------
    Estimate
        The larger swing at hand, mm. Up to `low` every crank is within the limit, past `high` none is; `likely` is a crank that is only
        twisted.

    Raises
    ------
    BadInput
        A limit not above 0.

    Notes
    -----
    Swings at one set-up become those at the other by a matrix M of two rows. The most is the limit times the largest row sum of |M|, the
    least the limit over that of |M⁻¹|.

    Source
    ------
    The model of two rigid halves in the module's words; bounds by the row-sum norm.

    Examples
    --------
    >>> between_centres, on_the_mains = PressedCrank(-92, 92, -34, 34, 29), PressedCrank(-60, 60, -80, 80, 29)
    >>> allowed = convert_runout(0.05, between_centres, on_the_mains)
    >>> round(allowed.low, 4), round(allowed.likely, 4), round(allowed.high, 4)
    (0.0172, 0.0264, 0.0264)
    >>> round(convert_runout(0.05, between_centres, between_centres).high, 4)
    0.05
    """
    positive("limit_mm", limit_mm)
    lowest = 1 / _most(held, taken)
    twisted = Misalignment(1.0, 0.0, 0.0, 0.0)
    likely = _worse(runout_from(twisted, held)) / _worse(runout_from(twisted, taken))
    highest = _most(taken, held)
    return Estimate(
        limit_mm * lowest, limit_mm * min(max(likely, lowest), highest), limit_mm * highest, "two straight halves joined at the pin"
    )


def _most(taken: PressedCrank, held: PressedCrank) -> float:
    """Return the largest row sum of the matrix that converts runouts between two setups."""
    sides = (held.gauge_left_mm, held.gauge_right_mm)
    columns = [[abs(_off_line(*_halves(left, right, taken), held, gauge)) for gauge in sides] for left, right in ((1, 0), (0, 1))]
    return float(max(sum(row) for row in zip(*columns, strict=True)))


def _worse(swings: tuple[RunoutVector, RunoutVector]) -> float:
    return max(runout.tir_mm for runout in swings)


def reversals(values: Sequence[float]) -> int:
    """Sign changes in a series.

    Examples
    --------
    >>> reversals([0.2, 0.1, -0.05, 0.04]), reversals([0.2, -0.1, -0.05]), reversals([0.2, 0.1])
    (2, 1, 0)
    """
    return sum(earlier * later < 0 for earlier, later in pairwise(values))


def next_move(
    mis: Misalignment, geometry: PressedCrank, history: Sequence[Misalignment] = (), *, limit_mm: float | None = None
) -> TruingStep:
    """Return the next move, from twist and web opening only, never from the high spot.

    Parameters
    ----------
    mis : Misalignment
        As measured now.
    geometry : PressedCrank
    history : sequence of Misalignment
        As measured before each earlier move, oldest first.
    limit_mm : float, optional
        The swing allowed at these gauges, mm. It is for the words: being within it does not end truing.

    Returns
    -------
    Move
        `strike` (a web's rim toward the axis, at the angle), `squeeze` or `wedge` (the rims opposite the pin), `leave` when no move is
        larger than its own standard uncertainty and worth a blow, `remeasure` when the gauges stand where they would not see a twist,
        `replace` when what truing cannot cure is already over the limit. Of two moves the one that lowers the worse swing most. Each two
        reversals of a component halve the blow on it.

    Raises
    ------
    BadInput
        A limit not above 0; NaN or infinity among the components.

    Examples
    --------
    >>> setup = PressedCrank(-92, 92, -34, 34, 29)
    >>> move = next_move(decompose(RunoutVector(0.060, 75), RunoutVector(0.050, 262), setup, 0.0005), setup)
    >>> move.kind, move.web, move.at_deg, round(move.expect_left.tir_mm, 3)
    ('strike', 'right', 270.0, 0.016)
    >>> good = next_move(decompose(RunoutVector(0.006, 75), RunoutVector(0.005, 262), setup, 0.004), setup, limit_mm=0.03)
    >>> good.kind, good.code
    ('leave', 'within_uncertainty')
    """
    now, best = runout_from(mis, geometry), best_reachable(mis, geometry)
    uncertainty = mis.uncertainty
    if limit_mm is not None and _worse(best) > positive("limit_mm", limit_mm):
        words = f"Without twist and pinch {_worse(best):.3f} mm is left, over {limit_mm:.3f}: offset, skew or a bent half."
        return TruingStep("replace", "", 0.0, *best, words, code="not_curable", values={"best": _worse(best), "limit": limit_mm})
    without = {
        "twist": runout_from(replace(mis, twist_deg=0.0), geometry),
        "pinch": runout_from(replace(mis, pinch_deg=0.0), geometry),
    }
    sure = {"twist": abs(mis.twist_deg) > uncertainty.twist_deg, "pinch": abs(mis.pinch_deg) > uncertainty.pinch_deg}
    gains = {name: _worse(now) - _worse(after) for name, after in without.items()}
    worth = {name: gain for name, gain in gains.items() if gain > WORTH_MM}
    if not worth and _worse(now) - _worse(best) > WORTH_MM:  # each alone makes it worse, both together better: begin with the larger
        worth = {max(sure, key=lambda name: abs(mis.twist_deg if name == "twist" else mis.pinch_deg)): 0.0}
    chosen = max((name for name in worth if sure[name]), key=lambda name: worth[name], default="")
    if not chosen:
        return _no_move(mis, now, best, bool(worth), limit_mm)
    series = [getattr(each, f"{chosen}_deg") for each in (*history, mis)]
    share = 0.5 ** (reversals(series) // REVERSALS)
    half = " A smaller blow: it has gone back and forth." if share < 1 else ""
    if chosen == "twist":
        ahead = mis.twist_deg > 0
        words = f"The right web stands {abs(mis.twist_deg):.3f}° {'ahead' if ahead else 'behind'}.{half}"
        values = {"turned": abs(mis.twist_deg)}
        return TruingStep(
            "strike", "right", 270.0 if ahead else 90.0, *without["twist"], words, share, code="ahead" if ahead else "behind", values=values
        )
    closed = mis.pinch_deg > 0
    words = f"The webs are {abs(mis.pinch_deg):.3f}° {'closed' if closed else 'open'} at the pin.{half}"
    values = {"turned": abs(mis.pinch_deg)}
    kind, code = ("squeeze", "closed") if closed else ("wedge", "spread")
    return TruingStep(kind, "both", 180.0, *without["pinch"], words, share, code=code, values=values)


def _no_move(
    mis: Misalignment, now: tuple[RunoutVector, RunoutVector], best: tuple[RunoutVector, RunoutVector], worth: bool, limit_mm: float | None
) -> TruingStep:
    """Return the end of truing: gauges that cannot detect it, or a crank that is true, with the runout and its limit."""
    if 2 * mis.uncertainty.offset_mm > HIDES_MM:
        words = f"These gauges would not see a twist of {mis.uncertainty.twist_deg:.2f}°: move them away from the supports."
        return TruingStep("remeasure", "", 0.0, *now, words, code="blind", values={"twist": mis.uncertainty.twist_deg})
    values = {"now": _worse(now), "best": _worse(best)}
    if worth:
        code, words = "within_uncertainty", f"{_worse(now):.3f} mm, and what could still be cured is smaller than its uncertainty."
    else:
        code, words = "best", f"{_worse(now):.3f} mm, and {_worse(best):.3f} is the best that truing can reach."
    if limit_mm is not None:
        words += f" It is {'within' if _worse(now) <= limit_mm else 'over'} the limit {limit_mm:.3f}."
        values["limit"] = limit_mm
    return TruingStep("leave", "", 0.0, *now, words, code=code, values=values)
