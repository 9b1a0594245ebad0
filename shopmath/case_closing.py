"""Closing of a case: order and stages of its bolts, their loads, the sealant's open time, and leakage."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from shopmath.estimate import Estimate
from shopmath.screw_threads import AS_RECEIVED, full_turns, nut_factor, preload_n, stripping_force_n
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, positive, temperature
from shopmath.verdict import IN, STOP, TOO_CLOSE, Conformity, combined, judge

MOST_BOLTS, MOST_STEPS = 100, 2000  # what is tried before the order is given up as it comes, where bolts lie upon one another
RECENT = 3  # the next bolt keeps away from the last few
STAGES = (0.4, 0.7, 1.0)
PROOF_MPA = {"8.8": 580.0, "10.9": 830.0, "12.9": 970.0}  # ISO 898-1, up to M16
ATMOSPHERE_KPA = 101.325  # a standard atmosphere
MOST_MINUTES = 60  # that a leak test is held
THERMOMETER_U_K = 1.0  # expanded, of the air in the case: estimate
CAUTIOUS_DROP_KPA_MIN = 1.0  # shop rule where the card says nothing


@dataclass(frozen=True)
class Bolt:
    """A bolt by name and place on the mating surface, mm."""

    name: str
    x_mm: float
    y_mm: float


def bolt_order(bolts: Sequence[Bolt]) -> tuple[str, ...]:
    """The order to tighten in: from the middle outward, each far from the last few.

    Parameters
    ----------
    bolts : sequence of Bolt

    Returns
    -------
    tuple of str
        Every bolt once. The first is nearest the middle. With five or more, none follows its nearest neighbour.

    Raises
    ------
    BadInput
        No bolts, more than 100, a name twice.

    Examples
    --------
    >>> ring = [Bolt(str(n), 100 * math.cos(n), 80 * math.sin(n)) for n in range(6)]
    >>> order = bolt_order([Bolt("middle", 0, 2), *ring])
    >>> order[0], len(order)
    ('middle', 7)
    """
    if not bolts:
        raise BadInput("bolts", gettext_noop("There are no bolts to put in order."))
    if len(bolts) > MOST_BOLTS:
        raise BadInput(
            "bolts", gettext_noop("At most {most_bolts} bolts are put in order."), "too_many", most=MOST_BOLTS, most_bolts=MOST_BOLTS
        )
    names = [each.name for each in bolts]
    if len(set(names)) != len(names):
        raise BadInput("bolts", gettext_noop("Two bolts have one name."))
    at = {each.name: complex(finite("x_mm", each.x_mm), finite("y_mm", each.y_mm)) for each in bolts}
    middle = sum(at.values()) / len(at)
    reach = max(abs(place - middle) for place in at.values()) or 1.0
    near = {}
    for name in names:
        near[name] = min((other for other in names if other != name), key=lambda other: abs(at[other] - at[name]), default="")
    first = min(names, key=lambda name: (abs(at[name] - middle), name))
    found = _extend([first], names, at, middle, reach, near if len(names) >= 5 else {}, iter(range(MOST_STEPS)))
    return tuple(found or [first, *(name for name in names if name != first)])


def _extend(
    order: list[str],
    names: list[str],
    at: dict[str, complex],
    middle: complex,
    reach: float,
    near: dict[str, str],
    steps: Iterator[int],
) -> list[str] | None:
    """Return the rest of an order, the best next bolt first, with backtracking if only a neighbor is left.

    It is None without steps left.
    """
    left = [name for name in names if name not in order]
    if not left:
        return order
    if next(steps, None) is None:
        return None
    last = order[-RECENT:]

    def worth(name: str) -> tuple[float, str]:
        away = min(abs(at[name] - at[other]) / (1 + 0.35 * age) for age, other in enumerate(reversed(last)))
        beside = 1.0 if near.get(name) == order[-1] else 0.0  # it is the other's neighbour, if not the other way round
        return -(away / reach - 0.8 * abs(at[name] - middle) / reach) + beside, name

    for name in sorted(left, key=worth):
        if near.get(order[-1]) == name:
            continue
        found = _extend([*order, name], names, at, middle, reach, near, steps)
        if found:
            return found
    return None


def stages_nm(torque_nm: float) -> tuple[float, ...]:
    """Torques of the rounds, the last the full one.

    Examples
    --------
    >>> stages_nm(10)
    (4.0, 7.0, 10.0)
    """
    full = positive("torque_nm", torque_nm)
    return tuple(round(share * full, 1) for share in STAGES)


@dataclass(frozen=True)
class BoltLoad:
    """Preload of a bolt from a torque, N as a range, compared with its proof load and the case's thread."""

    preload_n: Estimate
    proof_n: float
    strip_n: float
    call: Conformity


def bolt_load(
    torque_nm: float,
    d_mm: float,
    pitch_mm: float,
    engaged_mm: float,
    case_uts_mpa: float,
    bolt_class: str = "8.8",
    bolt_uts_mpa: float = 800.0,
    *,
    state: str = AS_RECEIVED,
) -> BoltLoad:
    """Return the preload of a torque compared with the bolt's proof load and the strength of the case's thread.

    Parameters
    ----------
    torque_nm, d_mm, pitch_mm, engaged_mm : float
        On the bolt; its thread; how deep it is in the case, mm.
    case_uts_mpa, bolt_uts_mpa : float
        Tensile strengths, MPa.
    bolt_class : str
        `8.8`, `10.9` or `12.9`.
    state : str
        What is on the thread, as `threads.nut_factor` takes it; `unknown` is allowed, and widens the band.

    Returns
    -------
    BoltLoad
        `stop` when the likely preload is past either, `too_close` when the high one is. Only whole turns of engagement count.

    Raises
    ------
    BadInput
        Impossible threads, an unknown class or state, less than one whole turn engaged.

    Source
    ------
    VDI 2230-1; ISO 898-1.

    Examples
    --------
    >>> load = bolt_load(10, 6, 1.0, 12, 240)
    >>> round(load.preload_n.likely / 1000, 1), load.call.state, bolt_load(22, 6, 1.0, 12, 240).call.state
    (9.3, 'in', 'stop')
    """
    if bolt_class not in PROOF_MPA:
        raise BadInput(
            "bolt_class",
            gettext_noop("{bolt_class!r} is not known. Known: {proof_mpa}."),
            bolt_class=bolt_class,
            proof_mpa=", ".join(PROOF_MPA),
        )
    factor = nut_factor(state)
    band = factor.map(lambda each: preload_n(torque_nm, each, d_mm))
    whole = full_turns(engaged_mm, pitch_mm)
    if whole < 1:
        raise BadInput(
            "engaged_mm", gettext_noop("{engaged_mm:g} mm is not one whole turn of this thread."), "no_whole_turn", engaged_mm=engaged_mm
        )
    stress_area = math.pi / 4 * (d_mm - 0.9382 * positive("pitch_mm", pitch_mm)) ** 2
    proof = PROOF_MPA[bolt_class] * stress_area
    strip = stripping_force_n(d_mm, pitch_mm, whole * pitch_mm, case_uts_mpa, bolt_uts_mpa, tolerance_loss=0.29)
    weak, part = min((proof, "bolt"), (strip, "thread"))
    what = {"bolt": "the bolt's proof load", "thread": "what the case's thread stands"}[part]
    margin = weak - band.high
    text = f"{band.low / 1000:.1f} to {band.high / 1000:.1f} kN against {weak / 1000:.1f} kN, {what}"
    values = {"low": band.low, "high": band.high, "weak": weak, "part": part}
    if margin >= 0:
        return BoltLoad(band, proof, strip, Conformity(IN, margin, f"{text}.", "holds", values))
    state, code, word = (TOO_CLOSE, "near", "near it") if band.likely <= weak else (STOP, "past", "past it")
    return BoltLoad(band, proof, strip, Conformity(state, margin, f"{text}: {word}.", code, values))


def open_time_left(open_s: float, elapsed_s: float, remaining_steps_s: Sequence[float]) -> Conformity:
    """Return whether the sealant remains open long enough for the remaining steps.

    Parameters
    ----------
    open_s, elapsed_s : float
        Open time off the sealant's sheet, and since it went on, s.
    remaining_steps_s : sequence of float
        Seconds that each remaining step takes.

    Returns
    -------
    Call
        Margin in s: `in`, `too_close` under a fifth of the open time, `stop` when it has skinned or will: wipe it off and begin again.

    Raises
    ------
    BadInput
        Negative times, an open time not above 0.

    Examples
    --------
    >>> [open_time_left(600, spent, [120, 180]).state for spent in (60, 250, 400)]
    ['in', 'too_close', 'stop']
    """
    whole = positive("open_s", open_s)
    left = whole - not_negative("elapsed_s", elapsed_s)
    needed = sum(not_negative("remaining_steps_s", each) for each in remaining_steps_s)
    margin = left - needed
    if left <= 0:
        return Conformity(
            STOP, margin, "It has skinned: wipe it off both faces and begin again.", "has_set", {"left": left, "needed": needed}
        )
    text = f"{left / 60:.0f} min open, {needed / 60:.0f} min of work left"
    if margin < 0:
        return Conformity(STOP, margin, f"{text}: it will skin before the last bolt.", "will_set", {"left": left, "needed": needed})
    return Conformity(IN if margin >= 0.2 * whole else TOO_CLOSE, margin, f"{text}.", "open", {"left": left, "needed": needed})


def _gauge_pressure(field: str, kpa: float) -> float:
    """Refuse what is emptier than empty."""
    if finite(field, kpa) <= -ATMOSPHERE_KPA:
        raise BadInput(
            field,
            gettext_noop("{kpa:g} kPa is below a perfect vacuum, which is -{atmosphere_kpa:g} kPa."),
            "below_vacuum",
            value=kpa,
            kpa=kpa,
            atmosphere_kpa=ATMOSPHERE_KPA,
        )
    return float(kpa)


def warmed_kpa(gauge_kpa: float, before_c: float, after_c: float) -> float:
    """Return what a pressure test gains, or loses, because the air in the case has warmed or cooled, kPa.

    Examples
    --------
    >>> round(warmed_kpa(40, 25, 20), 2)
    -2.37
    """
    before, after = (temperature(name, value) + 273.15 for name, value in (("before_c", before_c), ("after_c", after_c)))
    return (_gauge_pressure("gauge_kpa", gauge_kpa) + ATMOSPHERE_KPA) * (after - before) / positive("before_c", before)


def leak_settled_min(rate_kpa_min: float, limit_kpa_min: float, uncertainty_kpa: float) -> int | None:
    """Return the duration of a leak test that decides between a rate and its limit, whole minutes.

    It is None if no reasonable one does.

    Examples
    --------
    >>> leak_settled_min(0.98, 1.0, 0.25), leak_settled_min(0.5, 1.0, 0.25), leak_settled_min(1.0, 1.0, 0.25)
    (18, 1, None)
    """
    short = abs(not_negative("rate_kpa_min", rate_kpa_min) - positive("limit_kpa_min", limit_kpa_min))
    uncertainty = combined(uncertainty_kpa, uncertainty_kpa)
    if short * MOST_MINUTES < uncertainty:
        return None
    return max(1, math.ceil(uncertainty / short)) if short else None


def leak(
    first_kpa: float,
    second_kpa: float,
    minutes: float,
    limit_kpa_min: float | None = None,
    uncertainty_kpa: float = 0.0,
    *,
    before_c: float | None = None,
    after_c: float | None = None,
) -> Conformity:
    """Return the verdict of a pressure or vacuum test: the drop per minute compared with the limit.

    Parameters
    ----------
    first_kpa, second_kpa : float
        Gauge pressure at both ends of the test, kPa; negative for vacuum.
    minutes : float
        Between them.
    limit_kpa_min : float, optional
        The card's; a cautious shop rule when unknown.
    uncertainty_kpa : float
        Of one reading.
    before_c, after_c : float, optional
        Of the air in the case at both ends, °C: the second pressure is brought to the first temperature, since air that cools loses
        pressure without a leak. One without the other is refused.

    Returns
    -------
    Call
        Margin in kPa per minute. `stop` is not said: a leak is found and mended. Its values: `rate` and `limit`, kPa a minute; `second`,
        kPa, as it would be at the first temperature; `within`, 1 where what was lost is within the gauge's own uncertainty, else 0.

    Raises
    ------
    BadInput
        No time, a test that gained, both sides of zero, a pressure below a perfect vacuum, one temperature only.

    Source
    ------
    Ideal gas at constant volume, about a standard atmosphere of 101.325 kPa.

    Examples
    --------
    >>> leak(40, 37, 5).state, leak(-40, -20, 5).state
    ('in', 'out')
    >>> round(leak(40, 38, 5, before_c=25, after_c=20).values["second"], 2)
    40.38
    """
    first, second = _gauge_pressure("first_kpa", first_kpa), _gauge_pressure("second_kpa", second_kpa)
    if (before_c is None) != (after_c is None):
        missing = "before_c" if before_c is None else "after_c"
        raise BadInput(missing, gettext_noop("The temperature is wanted at both ends of the test, or at neither."), "one_temperature")
    warmth = 0.0
    if before_c is not None and after_c is not None:
        before, after = (temperature(name, value) + 273.15 for name, value in (("before_c", before_c), ("after_c", after_c)))
        second = (second + ATMOSPHERE_KPA) * positive("before_c", before) / positive("after_c", after) - ATMOSPHERE_KPA
        warmth = (second + ATMOSPHERE_KPA) * THERMOMETER_U_K / after
    if first * second < 0 or first == 0:
        raise BadInput("second_kpa", gettext_noop("A test stays on one side of the room's pressure."))
    drop, unsure = abs(first) - abs(second), not_negative("uncertainty_kpa", uncertainty_kpa)
    uncertainty = combined(unsure, unsure, warmth, warmth)
    if drop < -max(2 * unsure, uncertainty):
        raise BadInput(
            "second_kpa", gettext_noop("It has gained: the part warms or the gauge has moved. Let it stand and begin again."), "gained"
        )
    rate = max(0.0, drop) / positive("minutes", minutes)
    limit = positive("limit_kpa_min", limit_kpa_min) if limit_kpa_min is not None else CAUTIOUS_DROP_KPA_MIN
    found = judge(rate, high=limit, uncertainty=uncertainty / minutes)
    rule = "" if limit_kpa_min is not None else ", a cautious shop rule"
    code = "by_card" if limit_kpa_min is not None else "by_rule"
    within = abs(drop) <= uncertainty
    values = {"rate": rate, "limit": limit, "second": second, "within": int(within)}
    return Conformity(found.state, found.margin, f"{rate:.2f} kPa a minute against {limit:g}{rule}.", code, values)
