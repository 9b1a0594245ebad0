"""Pulling of a flywheel off its taper: strength of the engaged threads, needed force, and the torque limit.

The nut's torque seated the taper; friction holds it; a long stay or fretting raises that. The puller's thread in the boss stands so
much per whole turn engaged. Between what the taper wants and what the thread stands lies the torque to stop at.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from shopmath.amounts import newton_metres, newtons, thread_size
from shopmath.estimate import Estimate
from shopmath.screw_threads import (
    WORST_LOSS,
    force_from_torque_n,
    full_turns,
    preload_n,
    stripping_force_n,
    torque_for_force_nm,
    turns_to_jam,
)
from shopmath.taper import release_force_n, taper_friction
from shopmath.validation import not_negative, numbers, one_of, positive
from shopmath.verdict import IN, OUT, STOP, TOO_CLOSE, Conformity

NUT_FACTOR = Estimate(0.14, 0.16, 0.19, "lightly oiled nut (friction table)")
SCREW_FRICTION = Estimate(0.09, 0.12, 0.16, "greased centre screw")
BOSS_UTS_MPA, PULLER_UTS_MPA = 500.0, 800.0  # forged boss, heat-treated puller: estimates
PLAY_MM = 0.12  # on diameter, between threads of medium fit
SMALL_SHARE = 0.35  # of the thread's depth that a puller may be under the boss's size before its flanks hardly meet
SAME_PITCH_MM = 0.008  # two leaf readings closer than this are the same thread
BOSS, SCREW = "boss", "screw"
YIELD_MPA = {"8.8": 640.0, "10.9": 900.0, "12.9": 1080.0}  # of a screw by its property class, ISO 898-1
HARDER = 1.25  # a release at more than this times the highest expected is remarked on
SPARE = 0.8  # of the lowest strength: where to stop
CONDITIONS = ("clean", "oiled", "fretted")


@dataclass(frozen=True)
class Screw:
    """The puller's centre screw: diameter, pitch, mean radius of its rubbing tip, mm."""

    d_mm: float
    pitch_mm: float
    tip_radius_mm: float = 3.0


@dataclass(frozen=True)
class PullerLoad:
    """Forces in N, torques in N·m; `wanted` and its torque are None when the nut's torque is unknown."""

    turns: int
    strength: Estimate
    wanted: Estimate | None
    stop_nm: float
    frees_nm: Estimate | None
    per_turn_n: float
    turns_wanted: int | None
    call: Conformity
    stop_by: str = BOSS  # which of the two sets the torque to stop at: the thread in the boss, or the centre screw itself

    def __post_init__(self) -> None:
        numbers(self)


def same_thread(puller_pitch_mm: float, boss_pitch_mm: float, puller_hand: str, boss_hand: str) -> Conformity:
    """Return whether a puller's thread is the boss's.

    Parameters
    ----------
    puller_pitch_mm, boss_pitch_mm : float
        mm.
    puller_hand, boss_hand : str
        `right` or `left`.

    Returns
    -------
    Call
        `in`, or `stop` with how many turns a near miss goes before it jams.

    Raises
    ------
    BadInput
        Pitch not above 0.

    Examples
    --------
    >>> same_thread(1.0, 25.4 / 26, "right", "right").reason
    'Pitch 1.000 mm in a boss of 0.977 mm: not the same thread. It jams after about 3 turns.'
    >>> same_thread(1.0, 1.0, "right", "left").state
    'stop'
    """
    difference = positive("puller_pitch_mm", puller_pitch_mm) - positive("boss_pitch_mm", boss_pitch_mm)
    if puller_hand != boss_hand:
        return Conformity(STOP, -math.inf, f"The puller's thread is {puller_hand}-hand, the boss's {boss_hand}-hand.", "other_hand")
    if abs(difference) <= SAME_PITCH_MM:
        return Conformity(IN, SAME_PITCH_MM - abs(difference), "Same pitch, same hand.", "same_thread")
    jams = turns_to_jam(difference, PLAY_MM)
    turns = "at once" if jams < 1 else f"after about {jams:.0f} turn{'s' if round(jams) != 1 else ''}"
    words = f"Pitch {puller_pitch_mm:.3f} mm in a boss of {boss_pitch_mm:.3f} mm: not the same thread. It jams {turns}."
    values = {"puller": thread_size(puller_pitch_mm, 0.001), "boss": thread_size(boss_pitch_mm, 0.001), "jams": round(jams)}
    return Conformity(STOP, SAME_PITCH_MM - abs(difference), words, "other_pitch" if jams >= 1 else "other_pitch_at_once", values)


def same_size(puller_d_mm: float, boss_bore_mm: float, pitch_mm: float) -> Conformity:
    """Return whether a puller's thread fills the boss's, when the pitches agree.

    Parameters
    ----------
    puller_d_mm : float
        Over the puller's crests, mm.
    boss_bore_mm : float
        Across the boss's crests (its minor diameter), mm.
    pitch_mm : float
        mm.

    Returns
    -------
    Call
        `in`; `stop` when it is so small that little more than its crests hold, or too large to go in.

    Raises
    ------
    BadInput
        Sizes not above 0.

    Examples
    --------
    >>> same_size(26.9, 25.98, 1.0).state
    'in'
    >>> same_size(26.3, 25.98, 1.0).reason
    '26.30 mm in a boss for 27.06: 0.76 mm too small, little more than its crests hold.'
    """
    depth = 1.082532 * positive("pitch_mm", pitch_mm)
    needed = positive("boss_bore_mm", boss_bore_mm) + depth
    short = needed - positive("puller_d_mm", puller_d_mm)
    margin = SMALL_SHARE * depth - abs(short)
    values = {"puller": thread_size(puller_d_mm), "wanted": thread_size(needed), "off": thread_size(abs(short))}
    if short > SMALL_SHARE * depth:
        words = f"{puller_d_mm:.2f} mm in a boss for {needed:.2f}: {short:.2f} mm too small, little more than its crests hold."
        return Conformity(STOP, margin, words, "too_small", values)
    if short < -SMALL_SHARE * depth:
        return Conformity(
            STOP,
            margin,
            f"{puller_d_mm:.2f} mm in a boss for {needed:.2f}: {-short:.2f} mm too large, it cannot go in.",
            "too_large",
            values,
        )
    return Conformity(IN, margin, "Same size.", "same_size", values)


def bound_early(turns: float, free_turns: float) -> bool:
    """Return True if the right puller bound early, because of a coating or damage in the hub.

    Examples
    --------
    >>> bound_early(3, 8), bound_early(7.5, 8)
    (True, False)
    """
    return not_negative("turns", turns) < 0.75 * not_negative("free_turns", free_turns)


def wanted_force_n(nut_torque_nm: float, nut_d_mm: float, ratio: float, condition: str) -> Estimate:
    """Pull that frees the taper, *estimate*.

    Parameters
    ----------
    nut_torque_nm, nut_d_mm : float
        What seated it.
    ratio : float
        k of 1:k.
    condition : str
        `clean`, `oiled` or `fretted`; a long-standing taper counts as fretted.

    Returns
    -------
    Estimate
        N, low/likely/high over nut factor and friction.

    Raises
    ------
    BadInput
        Sizes not above 0, another word.

    Examples
    --------
    >>> band = wanted_force_n(55, 12, 8, "clean")
    >>> [round(value / 1000, 1) for value in (band.low, band.likely, band.high)]
    [7.6, 11.8, 17.1]
    """
    seated = taper_friction("oiled" if condition == "oiled" else "clean")
    broken = taper_friction(condition)
    values = [
        release_force_n(preload_n(nut_torque_nm, factor, nut_d_mm), ratio, low, breakout_friction=high)
        for factor, low, high in (
            (NUT_FACTOR.high, seated.low, broken.low),
            (NUT_FACTOR.likely, seated.likely, broken.likely),
            (NUT_FACTOR.low, seated.high, broken.high),
        )
    ]
    low, likely, high = sorted(values)
    return Estimate(low, likely, high, f"{broken.basis}; {NUT_FACTOR.basis}")


def screw_stop_nm(screw: Screw, screw_class: str = "8.8") -> float:
    """Torque at which a centre screw itself begins to give.

    Parameters
    ----------
    screw : Screw
    screw_class : str
        Property class, `8.8` (*estimate* where nobody knows), `10.9` or `12.9`.

    Returns
    -------
    float
        N·m: nine tenths of the torque at which thrust and twist together reach its yield (von Mises), at the friction that makes it least.

    Raises
    ------
    BadInput
        Sizes not above 0, another class.

    Source
    ------
    VDI 2230-1; ISO 898-1.

    Examples
    --------
    >>> round(screw_stop_nm(Screw(12, 1.25))), round(screw_stop_nm(Screw(12, 1.25), "12.9"))
    (50, 84)
    """
    one_of("screw_class", screw_class, tuple(YIELD_MPA))
    core = positive("d_mm", screw.d_mm) - 0.9382 * positive("pitch_mm", screw.pitch_mm)
    positive("core_mm", core)

    def stress_of_one_nm(rub: float) -> float:
        force = force_from_torque_n(1.0, screw.d_mm, screw.pitch_mm, rub, rub, screw.tip_radius_mm)
        twist = 1000.0 - force * rub * screw.tip_radius_mm  # what the tip rubs off does not twist the thread
        return math.hypot(force / (math.pi / 4 * core**2), math.sqrt(3) * twist / (math.pi / 16 * core**3))

    return 0.9 * YIELD_MPA[screw_class] / max(stress_of_one_nm(rub) for rub in (SCREW_FRICTION.low, SCREW_FRICTION.high))


def released_late(torque_nm: float, frees_nm: Estimate | None) -> bool:
    """Return True if a taper released at far more than was expected of it.

    Examples
    --------
    >>> released_late(65, Estimate(8, 12, 17)), released_late(18, Estimate(8, 12, 17))
    (True, False)
    """
    return frees_nm is not None and not_negative("torque_nm", torque_nm) > HARDER * frees_nm.high


def pull(
    d_mm: float,
    pitch_mm: float,
    turns: float,
    screw: Screw,
    wanted: Estimate | None,
    *,
    boss_uts_mpa: float = BOSS_UTS_MPA,
    screw_class: str = "8.8",
) -> PullerLoad:
    """Compare the strength of the engaged threads with the force that the taper needs.

    Parameters
    ----------
    d_mm, pitch_mm : float
        Of the puller's thread in the boss, mm.
    turns : float
        Turns it goes in; only whole ones count.
    screw : Screw
    wanted : Estimate, optional
        Pull expected to free the taper, N; None when unknown.
    boss_uts_mpa : float
        Tensile strength of the boss, MPa.
    screw_class : str
        Property class of the centre screw: its own strength limits the torque to stop at, as the boss's thread does.

    Returns
    -------
    Pull
        `in` when the threads' least stands the taper's most, `stop` when it does not even stand the likely pull, `too_close`
        between; `too_close` as well when the pull is unknown.

    Raises
    ------
    BadInput
        Sizes not above 0, negative turns.

    Source
    ------
    VDI 2230-1 for stripping and torque.

    Examples
    --------
    >>> found = pull(27, 1, 6.5, Screw(12, 1.25), wanted_force_n(55, 12, 8, "clean"))
    >>> found.turns, found.call.state, round(found.stop_nm)
    (6, 'in', 50)
    """
    whole = full_turns(not_negative("turns", turns) * positive("pitch_mm", pitch_mm), pitch_mm)
    lowest, highest = (
        stripping_force_n(d_mm, pitch_mm, whole * pitch_mm, boss_uts_mpa, PULLER_UTS_MPA, loss) for loss in (WORST_LOSS, 0.0)
    )
    strength = Estimate(lowest, (lowest + highest) / 2, highest, "shear at 0.6 of the strength, worst tolerances to basic sizes")
    one = stripping_force_n(d_mm, pitch_mm, pitch_mm, boss_uts_mpa, PULLER_UTS_MPA, WORST_LOSS)

    def torque(force_n: float, rub: float) -> float:
        return torque_for_force_nm(force_n, screw.d_mm, screw.pitch_mm, rub, rub, screw.tip_radius_mm)

    by_boss, by_screw = torque(SPARE * lowest, SCREW_FRICTION.low), screw_stop_nm(screw, screw_class)
    stop, stop_by = min((by_boss, BOSS), (by_screw, SCREW))  # the least friction makes the most pull
    if wanted is None:
        words = f"{whole} whole turns stand {lowest / 1000:.0f} kN. What the taper wants is unknown without nut torque and taper."
        return PullerLoad(
            whole,
            strength,
            None,
            stop,
            None,
            one,
            None,
            Conformity(TOO_CLOSE, 0.0, words, "wanted_unknown", {"turns": whole, "stands": newtons(lowest, 1000)}),
            stop_by,
        )
    frees = Estimate(
        torque(wanted.low, SCREW_FRICTION.low), torque(wanted.likely, SCREW_FRICTION.likely), torque(wanted.high, SCREW_FRICTION.high)
    )
    needed = math.ceil(wanted.high / (SPARE * one))
    margin = SPARE * lowest - wanted.high
    stands = f"{whole} whole turn{'s' if whole != 1 else ''} stand{'' if whole != 1 else 's'} {lowest / 1000:.0f} kN"
    values = {
        "turns": whole,
        "stands": newtons(lowest, 1000),
        "low": newtons(wanted.low, 1000),
        "high": newtons(wanted.high, 1000),
    }
    wants = f"the taper wants {wanted.low / 1000:.0f} to {wanted.high / 1000:.0f}"
    if SPARE * lowest >= wanted.high and by_screw < frees.high:
        words = f"{stands}, {wants}; the centre screw itself stands {by_screw:.0f} N·m, and up to {frees.high:.0f} may be needed."
        screwed = {**values, "screw": newton_metres(by_screw), "needed": newton_metres(frees.high)}
        verdict = Conformity(TOO_CLOSE, margin, words, "screw_may_give", screwed)
    elif SPARE * lowest >= wanted.high:
        verdict = Conformity(IN, margin, f"{stands}, {wants}.", "thread_holds", values)
    elif SPARE * lowest >= wanted.likely:
        verdict = Conformity(TOO_CLOSE, margin, f"{stands}, {wants}: it may release first, it may not.", "thread_may_hold", values)
    else:
        verdict = Conformity(STOP, margin, f"{stands}, {wants}: the thread goes before the taper does.", "thread_goes_first", values)
    return PullerLoad(whole, strength, wanted, stop, frees, one, needed, verdict, stop_by)


def torque_call(torque_nm: float, found: PullerLoad) -> Conformity:
    """Return the verdict on the present torque of the center screw.

    Examples
    --------
    >>> found = pull(27, 1, 6.5, Screw(12, 1.25), wanted_force_n(55, 12, 8, "clean"))
    >>> torque_call(20, found).state, torque_call(80, found).state
    ('in', 'stop')
    """
    not_negative("torque_nm", torque_nm)
    margin = found.stop_nm - torque_nm
    values = {"torque": newton_metres(torque_nm), "stop": newton_metres(found.stop_nm), "left": newton_metres(abs(margin))}
    if margin < 0:
        what = "thread" if found.stop_by == BOSS else "centre screw"
        words = f"{torque_nm:.0f} N·m is past the {found.stop_nm:.0f} N·m at which the {what} may go."
        return Conformity(STOP, margin, words, "past_stop" if found.stop_by == BOSS else "past_screw", values)
    if found.frees_nm and torque_nm >= found.frees_nm.high:
        return Conformity(
            OUT,
            margin,
            f"{torque_nm:.0f} N·m is more than this taper should need: it is holding more than expected.",
            "harder_than_expected",
            values,
        )
    return Conformity(IN, margin, f"{torque_nm:.0f} N·m, {margin:.0f} N·m under where to stop.", "under_stop", values)
