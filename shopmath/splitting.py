"""Separation of two case halves: whether every fastener is out, how far one side may lead, and the next move.

A dowel with a clearance c over an engaged length e lets the half tilt by c/e before it binds. Across the joint that tilt is the lead
allowed; it grows as the gap opens and the dowels come out.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from shopmath.amounts import DOWN, mm, newtons
from shopmath.bearings import Bearing, bore_limits_um
from shopmath.estimate import Estimate
from shopmath.gap_plane import GapPlane, bind_lead_mm
from shopmath.iso286 import fit as fit_of_limits
from shopmath.iso286 import limits
from shopmath.press import interference_pressure_mpa, press_force_n
from shopmath.screw_threads import WORST_LOSS, full_turns, stripping_force_n, torque_for_force_nm
from shopmath.validation import at_most, not_negative, number, positive
from shopmath.verdict import IN, OUT, STOP, TOO_CLOSE, Conformity, judge

USUAL_CLEARANCE_MM, USUAL_ENGAGED_MM = 0.03, 8.0  # of a case dowel, where the card has none: estimates
SEEN_MM = 0.005  # a lead below this is told as none
TAP_SHARE = 0.7  # of the lead allowed: from here on the halves are levelled before the next turn
MOST_TURNS, LEAST_TURNS = 2.0, 0.25
SPLITTER_UTS_MPA = 800.0
SPARE = 0.5  # of the lowest strength of a thread in a casting
SCREW_FRICTION_LOW = 0.10


@dataclass(frozen=True)
class Place:
    """A named place on the mating surface, mm."""

    name: str
    x_mm: float
    y_mm: float


@dataclass(frozen=True)
class Census:
    """The places that still have a fastener, where a forgotten one is likely, and the verdict."""

    missing: tuple[str, ...]
    likely: tuple[str, ...]
    call: Conformity


@dataclass(frozen=True)
class DowelFit:
    """A dowel's clearance on diameter and engaged length with the joint closed, mm."""

    clearance_mm: float = USUAL_CLEARANCE_MM
    engaged_mm: float = USUAL_ENGAGED_MM


@dataclass(frozen=True)
class Move:
    """The next move: `go_on` with turns, `tap` a place outward, `back` the leading side, or `lift`."""

    kind: str
    place: str
    turns: float
    words: str


def census(
    places: Sequence[Place],
    out: Sequence[str],
    counted: int | None = None,
    seen_only: Sequence[str] = (),
    lagging: tuple[float, float] | None = None,
) -> Census:
    """Fasteners out against the places on the card.

    Parameters
    ----------
    places : sequence of Place
        Every position that holds a fastener.
    out : sequence of str
        Names ticked out.
    counted : int, optional
        Pieces lying on the tray.
    seen_only : sequence of str
        Ticked out without having been measured: the first to be suspected when the count is short.
    lagging : (x, y), optional
        Where the gap stays narrow, mm: a fastener left in holds it there.

    Returns
    -------
    Census
        `in` when all are out and the count agrees; `stop` with the likely place otherwise; `too_close` when nothing was counted.

    Raises
    ------
    BadInput
        A negative count, more than 500 places.

    Examples
    --------
    >>> case = [Place("1", -70, 0), Place("2", 0, 55), Place("3", 80, 10)]
    >>> census(case, ["1", "3"]).call.reason
    '1 of 3 fasteners is not ticked out: 2.'
    >>> census(case, ["1", "2", "3"], counted=2, seen_only=["2", "3"], lagging=(70, 0)).likely
    ('3', '2')
    """
    at_most("places", places, MOST_PLACES)
    if counted is not None:
        not_negative("counted", counted)
    done = set(out)
    missing = tuple(place.name for place in places if place.name not in done)

    def near(names: Sequence[str]) -> tuple[str, ...]:
        at = {place.name: place for place in places}
        if lagging is None:
            return tuple(names)
        return tuple(sorted(names, key=lambda name: math.hypot(at[name].x_mm - lagging[0], at[name].y_mm - lagging[1])))

    if missing:
        verb = "is" if len(missing) == 1 else "are"
        words = f"{len(missing)} of {len(places)} fasteners {verb} not ticked out: {', '.join(missing)}."
        found = Conformity(STOP, float(-len(missing)), words, "not_ticked", {"missing": missing, "places": len(places)})
        return Census(missing, near(missing), found)
    if counted is None:
        return Census((), (), Conformity(TOO_CLOSE, 0.0, "Every place is ticked. Count the pieces on the tray.", "not_counted"))
    numbers = {"counted": counted, "places": len(places)}
    if counted < len(places):
        suspects = [name for name in seen_only if name in {place.name for place in places}] or [place.name for place in places]
        short = len(places) - counted
        words = f"{counted} on the tray for {len(places)} places: {short} still in, or lost."
        return Census((), near(suspects), Conformity(STOP, float(-short), words, "too_few", {**numbers, "short": short}))
    if counted > len(places):
        words = f"{counted} on the tray for {len(places)} places: the card lacks {counted - len(places)}. Put the place on the card."
        return Census(
            (), (), Conformity(TOO_CLOSE, float(len(places) - counted), words, "too_many", {**numbers, "over": counted - len(places)})
        )
    return Census((), (), Conformity(IN, 0.0, f"All {counted} fasteners out, by place and by count.", "all_out", numbers))


def lead_allowed_mm(dowels: Sequence[DowelFit], gap_mm: float, span_mm: float) -> float:
    """Return how far one side may lead before the first dowel binds.

    Parameters
    ----------
    dowels : sequence of DowelFit
    gap_mm : float
        Mean gap now, mm: so much of each dowel is out already.
    span_mm : float
        Across the joint, mm.

    Returns
    -------
    float
        mm; infinity when no dowel is engaged any more.

    Raises
    ------
    BadInput
        Negative gap, a dowel engaged by less than nothing, span not above 0.

    Examples
    --------
    >>> round(lead_allowed_mm([DowelFit(0.03, 8)], 2.0, 160), 2)
    0.8
    >>> lead_allowed_mm([DowelFit(0.03, 8)], 9.0, 160)
    inf
    """
    not_negative("gap_mm", gap_mm)
    engaged = [not_negative("engaged_mm", each.engaged_mm) for each in dowels]
    pairs = zip(dowels, engaged, strict=True)
    limits = [bind_lead_mm(each.clearance_mm, max(0.0, length - gap_mm), span_mm) for each, length in pairs]
    return min(limits, default=math.inf)


def split_call(plane: GapPlane, allowed_mm: float, uncertainty_mm: float) -> Conformity:
    """Return the verdict on a lead: `stop` if a dowel must bind.

    Examples
    --------
    >>> from shopmath.gap_plane import Point, fit
    >>> case = [Point("front", -80, 0, 1.0), Point("top", 0, 60, 1.1), Point("rear", 80, 0, 1.2)]
    >>> split_call(fit(case), 0.8, 0.05).state, split_call(fit(case), 0.1, 0.05).state
    ('in', 'stop')
    >>> alike = [Point("front", -80, 0, 1.2), Point("top", 0, 60, 1.2), Point("rear", 80, 0, 1.2)]
    >>> split_call(fit(alike), 0.8, 0.05).code
    'level'
    """
    if math.isinf(number("allowed_mm", allowed_mm)):
        return Conformity(IN, math.inf, "The dowels are out: nothing binds any more.", "dowels_out")
    found = judge(plane.lead_mm, high=allowed_mm, uncertainty=uncertainty_mm, unit="mm", digits=2)
    values = {
        "leading": plane.leading_name,
        "lagging": plane.lagging_name,
        "lead": mm(plane.lead_mm, 0.01, uncertainty_mm),
        "allowed": mm(allowed_mm, 0.01, toward=DOWN),
    }
    lead = f"{plane.leading_name} leads {plane.lagging_name} by {plane.lead_mm:.2f} mm"
    if found.state == IN and plane.lead_mm < SEEN_MM:
        return Conformity(IN, found.margin, f"No side leads; {allowed_mm:.2f} mm is allowed.", "level", values)
    if found.state == IN:
        return Conformity(IN, found.margin, f"{lead}; {allowed_mm:.2f} mm is allowed.", "under_limit", values)
    if found.state == TOO_CLOSE:
        words = f"{lead} ± {uncertainty_mm:.2f}; the dowels bind at {allowed_mm:.2f} mm."
        return Conformity(TOO_CLOSE, found.margin, words, "near_limit", values)
    return Conformity(STOP, found.margin, f"{lead}: past the {allowed_mm:.2f} mm at which the dowels bind.", "over_limit", values)


def next_move(plane: GapPlane, allowed_mm: float, call_state: str, pitch_mm: float = 1.0) -> Move:
    """Return the next move.

    Parameters
    ----------
    plane : GapPlane
    allowed_mm : float
        From `lead_allowed_mm`.
    call_state : str
        From `split_call`.
    pitch_mm : float
        Of the splitter's screw, mm a turn.

    Returns
    -------
    Move
        Turns in quarters, as many as keep the lead under seven tenths of what is allowed if it goes on growing as it has.

    Raises
    ------
    BadInput
        Pitch not above 0.

    Examples
    --------
    >>> from shopmath.gap_plane import Point, fit
    >>> case = [Point("front", -80, 0, 1.0), Point("top", 0, 60, 1.1), Point("rear", 80, 0, 1.2)]
    >>> next_move(fit(case), 0.8, "in").words
    'Go on one turn and three quarters, then measure again.'
    >>> next_move(fit(case), 0.25, "in").words
    'Tap at front, outward with the half that lifts. No more screw until it is level.'
    """
    positive("pitch_mm", pitch_mm)
    if math.isinf(number("allowed_mm", allowed_mm)):
        return Move("lift", "", 0.0, "Hands under it: lift it straight off, the gear shafts held down.")
    if call_state in (STOP, OUT):
        words = f"Ease the screw half a turn. Tap the half back down at {plane.leading_name}, then measure again."
        return Move("back", plane.leading_name, -0.5, words)
    spare = TAP_SHARE * allowed_mm - plane.lead_mm
    if call_state == TOO_CLOSE or spare <= 0:
        words = f"Tap at {plane.lagging_name}, outward with the half that lifts. No more screw until it is level."
        return Move("tap", plane.lagging_name, 0.0, words)
    grows = plane.lead_mm / plane.mean_mm if plane.mean_mm > 0 else 0.0
    turns = MOST_TURNS if grows <= 0 else spare / (grows * pitch_mm)
    turns = max(LEAST_TURNS, min(MOST_TURNS, math.floor(4 * turns) / 4))
    return Move("go_on", "", turns, f"Go on {spoken_turns(turns)}, then measure again.")


def spoken_turns(turns: float) -> str:
    """A number of turns in quarters as one says it.

    Examples
    --------
    >>> spoken_turns(0.25), spoken_turns(1), spoken_turns(1.75)
    ('a quarter turn', 'one turn', 'one turn and three quarters')
    """
    whole, part = int(not_negative("turns", turns)), round((turns % 1) * 4)
    parts = {0: "", 1: "a quarter", 2: "half" if not whole else "a half", 3: "three quarters"}
    wholes = {0: "", 1: "one turn", 2: "two turns"}.get(whole, f"{whole} turns")
    if not whole:
        return f"{parts[part]} {'of a turn' if part == 3 else 'turn'}"
    return f"{wholes} and {parts[part]}" if part else wholes


USUAL_GRIP_N = Estimate(1000, 4000, 9000, "usual for a small engine; no bearing on the card to compute it from")
MOST_PLACES, MOST_BEARINGS = 500, 50
JOURNAL_CODE = "k5"
JOURNAL_FRICTION = Estimate(0.08, 0.11, 0.16, "steel on steel, dry, break-out")
RING_SHARE = 0.31  # of the section that the inner ring takes, from the bore
STEEL_MPA, STEEL_NU = 206e3, 0.3


def journal_grip_n(bearings: Sequence[Bearing]) -> Estimate:
    """Pull that slides the crank's journals out of the bearings in the half that lifts, *estimate*.

    Parameters
    ----------
    bearings : sequence of Bearing
        The mains of that half; without any, a usual band.

    Returns
    -------
    Estimate
        N, over a k5 journal in a ring of its class and the friction of a dry joint.

    Source
    ------
    Lamé for the ring, ISO 286-1 and ISO 492 for the fit.

    Examples
    --------
    >>> from shopmath.bearings import lookup
    >>> grip = journal_grip_n([lookup("6204")])
    >>> [round(value / 1000, 1) for value in (grip.low, grip.likely, grip.high)]
    [0.4, 2.9, 7.7]
    """
    at_most("bearings", bearings, MOST_BEARINGS)
    if not bearings:
        return USUAL_GRIP_N
    totals = [0.0, 0.0, 0.0]
    for each in bearings:
        fitted = fit_of_limits(limits(JOURNAL_CODE, each.bore_mm), bore_limits_um(each.bore_mm, each.tolerance_class))
        lowest, highest = max(0.0, fitted.min_interference_mm), fitted.max_interference_mm
        ring = each.bore_mm + RING_SHARE * (each.outside_mm - each.bore_mm)
        rubs = (JOURNAL_FRICTION.low, JOURNAL_FRICTION.likely, JOURNAL_FRICTION.high)
        for index, (interference, rub) in enumerate(zip((lowest, (lowest + highest) / 2, highest), rubs, strict=True)):
            pressure = interference_pressure_mpa(interference, each.bore_mm, ring, 0.0, STEEL_MPA, STEEL_NU, STEEL_MPA, STEEL_NU)
            totals[index] += press_force_n(pressure, each.bore_mm, each.width_mm, rub)
    return Estimate(totals[0], totals[1], totals[2], f"journal {JOURNAL_CODE} taken, {JOURNAL_FRICTION.basis}")


@dataclass(frozen=True)
class Screws:
    """Strength of the splitter's screws in the case: N for all of them, torque limit per screw, needed turns, the verdict."""

    turns: int
    strength: Estimate
    stop_nm: float
    turns_wanted: int
    call: Conformity


def splitter_screws(d_mm: float, pitch_mm: float, turns: float, case_uts_mpa: float, screws: int, wanted: Estimate) -> Screws:
    """Compare the strength of the splitter's screws in the case's threads with the force that the joint may need.

    Parameters
    ----------
    d_mm, pitch_mm : float
        Of the screws that go into the case, mm.
    turns : float
        Engaged; only whole ones count.
    case_uts_mpa : float
        Least tensile strength of the casting, MPa.
    screws : int
        How many share the load.
    wanted : Estimate
        Pull that parts the halves, N.

    Returns
    -------
    Screws
        `in` when half the least strength stands the most that may be wanted; `stop` when it does not stand the likely pull.

    Raises
    ------
    BadInput
        Sizes, strength or number not above 0, negative turns.

    Source
    ------
    VDI 2230-1 for stripping; half of the least strength, a shop rule for threads in castings.

    Examples
    --------
    >>> pull = Estimate(1500, 4000, 9000)
    >>> found = splitter_screws(6, 1, 10, 228, 2, pull)
    >>> found.turns, found.call.state, splitter_screws(6, 1, 2, 228, 2, pull).call.state
    (10, 'in', 'stop')
    """
    positive("screws", screws)
    whole = full_turns(not_negative("turns", turns) * positive("pitch_mm", pitch_mm), pitch_mm)
    lowest, highest = (
        screws * stripping_force_n(d_mm, pitch_mm, whole * pitch_mm, case_uts_mpa, SPLITTER_UTS_MPA, loss) for loss in (WORST_LOSS, 0.0)
    )
    one = screws * stripping_force_n(d_mm, pitch_mm, pitch_mm, case_uts_mpa, SPLITTER_UTS_MPA, WORST_LOSS)
    strength = Estimate(lowest, (lowest + highest) / 2, highest, "shear at 0.6 of the casting's strength, worst tolerances to basic sizes")
    stop = torque_for_force_nm(SPARE * lowest / screws, d_mm, pitch_mm, SCREW_FRICTION_LOW, SCREW_FRICTION_LOW, 0.65 * d_mm)
    needed = math.ceil(wanted.high / (SPARE * one))
    stands = (
        f"{screws} screw{'s' if screws != 1 else ''}, {whole} whole turn{'s' if whole != 1 else ''} deep: {SPARE * lowest / 1000:.1f} kN"
    )
    wants = f"the halves may hold with {wanted.low / 1000:.1f} to {wanted.high / 1000:.1f}"
    margin = SPARE * lowest - wanted.high
    values = {
        "screws": screws,
        "turns": whole,
        "stands": newtons(SPARE * lowest),
        "holds_low": newtons(wanted.low),
        "holds_high": newtons(wanted.high),
        "needed": needed,
    }
    if margin >= 0:
        found = Conformity(IN, margin, f"{stands} at half strength; {wants}.", "strong_enough", values)
    elif SPARE * lowest >= wanted.likely:
        words = f"{stands} at half strength; {wants}. {needed} turns would do."
        found = Conformity(TOO_CLOSE, margin, words, "perhaps_strong_enough", values)
    else:
        words = f"{stands} at half strength; {wants}: the case's threads may pull out. {needed} turns are wanted."
        found = Conformity(STOP, margin, words, "too_weak", values)
    return Screws(whole, strength, stop, needed, found)
