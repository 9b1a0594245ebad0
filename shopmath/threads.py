"""Threads: which one it is, how many turns a wrong one goes before it jams, what it stands before it strips, torque into pull.

Basic profile of a 60° thread of major diameter d and pitch P: pitch diameter d₂ = d − 0.6495 P, minor diameter D₁ = d − 1.0825 P.
An external thread is known by its major diameter, an internal one by its minor, which is what a calliper reaches.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from shopmath.checks import BadInput, finite, not_negative, one_of, positive
from shopmath.tables import rows

HANDS = ("right", "left")
SHEAR_SHARE = 0.6  # of the tensile strength
WORST_LOSS = 0.29  # of the shear area, 6H/6g at their worst
PITCH_REACH_MM, DIAMETER_REACH_MM = 0.15, 0.9
MATCHES = 8
PROOF_MPA = {"4.6": 225.0, "5.8": 380.0, "8.8": 580.0, "10.9": 830.0, "12.9": 970.0}


@dataclass(frozen=True)
class Match:
    """A thread of the table that a measured one may be; errors are measured less table, mm."""

    designation: str
    pitch_error_mm: float
    diameter_error_mm: float
    hand: str
    system: str = ""
    major_mm: float = 0.0
    pitch_mm: float = 0.0
    angle_deg: float = 60.0


def pitch_diameter_mm(d_mm: float, pitch_mm: float) -> float:
    """Basic pitch diameter of a 60° thread.

    Examples
    --------
    >>> round(pitch_diameter_mm(24, 1), 3)
    23.35
    """
    return positive("d_mm", d_mm) - 0.649519 * positive("pitch_mm", pitch_mm)


def minor_diameter_mm(d_mm: float, pitch_mm: float) -> float:
    """Basic minor diameter of a 60° internal thread.

    Examples
    --------
    >>> round(minor_diameter_mm(24, 1), 4)
    22.9175
    """
    minor = positive("d_mm", d_mm) - 1.082532 * positive("pitch_mm", pitch_mm)
    if minor <= 0:
        raise BadInput("pitch_mm", f"A pitch of {pitch_mm:g} mm does not fit on a {d_mm:g} mm thread.")
    return minor


def identify(diameter_mm: float, pitch_mm: float, hand: str, internal: bool = False) -> list[Match]:
    """Threads that a measured one may be, best first.

    Parameters
    ----------
    diameter_mm : float
        Outside of an external thread, bore of an internal one, mm.
    pitch_mm : float
        mm.
    hand : str
        `right` or `left`.
    internal : bool
        Whether the thread is inside.

    Returns
    -------
    list of Match
        At most eight, within 0.15 mm of pitch and 0.9 mm of diameter; empty when nothing is near.

    Raises
    ------
    BadInput
        Sizes not above 0, another word for the hand.

    Notes
    -----
    Pitch counts most: a leaf gauge tells 0.02 mm. Crests are cut back, so an external thread reads a tenth under its nominal
    size and an internal bore a tenth of its pitch over.

    Source
    ------
    ISO 261, ASME B1.1, BS 84, BS 811, BS 93 through the thread table.

    Examples
    --------
    >>> identify(26.9, 1.0, "right")[0].designation
    'M27x1'
    >>> identify(25.95, 1.0, "right", internal=True)[0].designation
    'M27x1'
    """
    positive("diameter_mm", diameter_mm)
    positive("pitch_mm", pitch_mm)
    one_of("hand", hand, HANDS)
    usual = 0.1 * pitch_mm if internal else -0.1
    scored: list[tuple[float, Match]] = []
    for row in rows("threads"):
        nominal = float(row["minor_dia_internal_basic_mm"] if internal else row["major_dia_mm"])
        pitch_error, diameter_error = pitch_mm - float(row["pitch_mm"]), diameter_mm - nominal
        if abs(pitch_error) > PITCH_REACH_MM or abs(diameter_error) > DIAMETER_REACH_MM:
            continue
        rare = 0.0 if row["listed_in_standard"] == "yes" else 0.25
        score = (pitch_error / 0.02) ** 2 + ((diameter_error - usual) / 0.2) ** 2 + rare
        match = Match(
            row["designation"],
            round(pitch_error, 5),
            round(diameter_error, 5),
            hand,
            row["system"],
            float(row["major_dia_mm"]),
            float(row["pitch_mm"]),
            float(row["thread_angle_deg"]),
        )
        scored.append((score, match))
    return [match for _, match in sorted(scored, key=lambda pair: pair[0])[:MATCHES]]


def turns_to_jam(pitch_error_mm: float, diametral_play_mm: float, flank_deg: float = 30.0) -> float:
    """Turns until two threads of unlike pitch jam on their flanks.

    Parameters
    ----------
    pitch_error_mm : float
        Difference of the pitches, mm, either sign.
    diametral_play_mm : float
        Play between the threads on diameter, mm.
    flank_deg : float
        Half the thread angle; 27.5 for Whitworth.

    Returns
    -------
    float
        Turns; infinity when the pitches are equal.

    Raises
    ------
    BadInput
        Negative play, flank not between 0 and 90.

    Notes
    -----
    play · tan(flank) / |Δp|.

    Examples
    --------
    >>> round(turns_to_jam(1.0 - 25.4 / 26, 0.12), 1)
    3.0
    """
    finite("pitch_error_mm", pitch_error_mm)
    not_negative("diametral_play_mm", diametral_play_mm)
    if not 0 < finite("flank_deg", flank_deg) < 90:
        raise BadInput("flank_deg", f"A flank angle lies between 0 and 90°, not {flank_deg:g}.")
    if pitch_error_mm == 0:
        return math.inf
    return diametral_play_mm * math.tan(math.radians(flank_deg)) / abs(pitch_error_mm)


def internal_shear_area_mm2(d_mm: float, pitch_mm: float, engaged_mm: float) -> float:
    """Area along which a screw's crests tear out the internal thread.

    Parameters
    ----------
    d_mm, pitch_mm, engaged_mm : float
        Major diameter, pitch, engaged length, mm.

    Returns
    -------
    float
        π(L/P)·d·[P/2 + (d − d₂)/√3], mm², by basic sizes.

    Raises
    ------
    BadInput
        Sizes not above 0, negative engagement.

    Source
    ------
    FED-STD-H28/2B; VDI 2230-1.

    Examples
    --------
    >>> round(internal_shear_area_mm2(24, 1, 3), 1)
    197.9
    """
    flank = (d_mm - pitch_diameter_mm(d_mm, pitch_mm)) / math.sqrt(3)
    return math.pi * not_negative("engaged_mm", engaged_mm) / pitch_mm * d_mm * (pitch_mm / 2 + flank)


def external_shear_area_mm2(d_mm: float, pitch_mm: float, engaged_mm: float) -> float:
    """Area along which the internal crests tear off the screw's thread.

    Parameters
    ----------
    d_mm, pitch_mm, engaged_mm : float
        Major diameter, pitch, engaged length, mm.

    Returns
    -------
    float
        π(L/P)·D₁·[P/2 + (d₂ − D₁)/√3], mm², by basic sizes.

    Raises
    ------
    BadInput
        Sizes not above 0, negative engagement.

    Source
    ------
    FED-STD-H28/2B; VDI 2230-1.

    Examples
    --------
    >>> round(external_shear_area_mm2(24, 1, 3), 1)
    162.0
    """
    minor = minor_diameter_mm(d_mm, pitch_mm)
    flank = (pitch_diameter_mm(d_mm, pitch_mm) - minor) / math.sqrt(3)
    return math.pi * not_negative("engaged_mm", engaged_mm) / pitch_mm * minor * (pitch_mm / 2 + flank)


def full_turns(engaged_mm: float, pitch_mm: float) -> int:
    """Whole turns in an engaged length: a part of a turn is not counted on.

    Examples
    --------
    >>> full_turns(5.9, 1.5)
    3
    """
    return math.floor(not_negative("engaged_mm", engaged_mm) / positive("pitch_mm", pitch_mm) + 1e-9)


def stripping_force_n(
    d_mm: float, pitch_mm: float, engaged_mm: float, internal_uts_mpa: float, external_uts_mpa: float, tolerance_loss: float = 0.0
) -> float:
    """Pull at which the weaker of the two threads strips.

    Parameters
    ----------
    d_mm, pitch_mm, engaged_mm : float
        mm.
    internal_uts_mpa, external_uts_mpa : float
        Tensile strength of nut side and screw side, MPa.
    tolerance_loss : float
        Share of the area lost to tolerances: 0 for basic sizes, 0.29 for the worst of 6H/6g.

    Returns
    -------
    float
        N, at 0.6 of the tensile strength in shear.

    Raises
    ------
    BadInput
        Sizes or strengths not above 0, a loss outside 0 to 1.

    Source
    ------
    VDI 2230-1; FED-STD-H28/2B.

    Examples
    --------
    >>> round(stripping_force_n(24, 1, 3, 600, 800) / 1000, 1)
    71.3
    """
    if not 0 <= finite("tolerance_loss", tolerance_loss) < 1:
        raise BadInput("tolerance_loss", f"A loss is a share from 0 to under 1, not {tolerance_loss:g}.")
    inside = internal_shear_area_mm2(d_mm, pitch_mm, engaged_mm) * positive("internal_uts_mpa", internal_uts_mpa)
    outside = external_shear_area_mm2(d_mm, pitch_mm, engaged_mm) * positive("external_uts_mpa", external_uts_mpa)
    return SHEAR_SHARE * min(inside, outside) * (1 - tolerance_loss)


def _arm_mm(d_mm: float, pitch_mm: float, thread_friction: float, bearing_friction: float, bearing_radius_mm: float) -> float:
    """Torque per force, mm: the thread's climb, the rub on its flanks, the rub under its end."""
    climb = positive("pitch_mm", pitch_mm) / (2 * math.pi)
    flanks = not_negative("thread_friction", thread_friction) * pitch_diameter_mm(d_mm, pitch_mm) / (2 * math.cos(math.radians(30)))
    end = not_negative("bearing_friction", bearing_friction) * not_negative("bearing_radius_mm", bearing_radius_mm)
    return climb + flanks + end


def force_from_torque_n(
    torque_nm: float, d_mm: float, pitch_mm: float, thread_friction: float, bearing_friction: float, bearing_radius_mm: float
) -> float:
    """Axial force that a torque on a screw makes.

    Parameters
    ----------
    torque_nm : float
        N·m.
    d_mm, pitch_mm : float
        Of the screw, mm.
    thread_friction, bearing_friction : float
        In the thread, and where its end or head rubs.
    bearing_radius_mm : float
        Mean radius of that rub, mm.

    Returns
    -------
    float
        T / (P/2π + μt·d₂/(2 cos 30°) + μb·rb), N.

    Raises
    ------
    BadInput
        Negative torque or friction, sizes not above 0.

    Source
    ------
    VDI 2230-1.

    Examples
    --------
    >>> round(force_from_torque_n(40, 12, 1.25, 0.14, 0.14, 3) / 1000, 2)
    26.26
    """
    arm = _arm_mm(d_mm, pitch_mm, thread_friction, bearing_friction, bearing_radius_mm)
    return 1000 * not_negative("torque_nm", torque_nm) / arm


def torque_for_force_nm(
    force_n: float, d_mm: float, pitch_mm: float, thread_friction: float, bearing_friction: float, bearing_radius_mm: float
) -> float:
    """Torque on a screw that makes an axial force: the inverse of `force_from_torque_n`.

    Parameters
    ----------
    force_n : float
        N.
    d_mm, pitch_mm, thread_friction, bearing_friction, bearing_radius_mm
        As there.

    Returns
    -------
    float
        N·m.

    Examples
    --------
    >>> round(torque_for_force_nm(26_260, 12, 1.25, 0.14, 0.14, 3), 1)
    40.0
    """
    arm = _arm_mm(d_mm, pitch_mm, thread_friction, bearing_friction, bearing_radius_mm)
    return not_negative("force_n", force_n) * arm / 1000


def preload_n(torque_nm: float, nut_factor: float, d_mm: float) -> float:
    """Clamping force of a bolt or nut by its torque and nut factor.

    Parameters
    ----------
    torque_nm : float
        N·m.
    nut_factor : float
        K of T = K·d·F.
    d_mm : float
        Nominal diameter, mm.

    Returns
    -------
    float
        N.

    Raises
    ------
    BadInput
        Negative torque, factor or diameter not above 0.

    Source
    ------
    Bolting handbooks; the factor's range is in the friction table.

    Examples
    --------
    >>> round(preload_n(10, 0.18, 6) / 1000, 2)
    9.26
    """
    return 1000 * not_negative("torque_nm", torque_nm) / (positive("nut_factor", nut_factor) * positive("d_mm", d_mm))


def stress_area_mm2(d_mm: float, pitch_mm: float) -> float:
    """Tensile stress area of a metric screw.

    Examples
    --------
    >>> round(stress_area_mm2(6, 1), 1)
    20.1
    """
    return math.pi / 4 * (positive("d_mm", d_mm) - 0.9382 * positive("pitch_mm", pitch_mm)) ** 2


def proof_force_n(bolt_class: str, d_mm: float, pitch_mm: float) -> float:
    """Load a bolt of a property class stands without taking a set.

    Parameters
    ----------
    bolt_class : str
        4.6, 5.8, 8.8, 10.9 or 12.9.
    d_mm, pitch_mm : float
        mm.

    Returns
    -------
    float
        N.

    Raises
    ------
    BadInput
        Another class, sizes not above 0.

    Source
    ------
    ISO 898-1, proof stress.

    Examples
    --------
    >>> round(proof_force_n("8.8", 6, 1) / 1000, 1)
    11.7
    """
    return PROOF_MPA[one_of("bolt_class", bolt_class, tuple(PROOF_MPA))] * stress_area_mm2(d_mm, pitch_mm)
