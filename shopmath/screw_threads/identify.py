"""Identification of threads, and how far a wrong one goes."""

from __future__ import annotations

import math
from dataclasses import dataclass

from shopmath.tables import rows
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, one_of, positive

HANDS = ("right", "left")
PITCH_REACH_MM, DIAMETER_REACH_MM = 0.15, 0.9
MATCHES = 8


PITCH_TOLD_MM, PITCHES_APART_MM = 0.03, 0.06  # so near is a pitch by leaf gauge, and the next one in the table is further off
DIAMETER_NEAR_MM = 0.35  # of a worn thread over its crests


@dataclass(frozen=True)
class Match:
    """A thread of the table that may be the measured one; errors are measured minus table, mm."""

    designation: str
    pitch_error_mm: float
    diameter_error_mm: float
    hand: str
    system: str = ""
    major_mm: float = 0.0
    pitch_mm: float = 0.0
    angle_deg: float = 60.0

    @property
    def is_close(self) -> bool:
        """Return True if the pitch agrees within the resolution of a thread pitch gauge."""
        return abs(self.pitch_error_mm) <= PITCH_TOLD_MM

    def rivals(self, other: Match) -> bool:
        """Return True if another thread fits nearly as well and would jam, because its pitch or flank differs.

        >>> metric = Match("M19x1", -0.023, 0.05, "right", "ISO", 19, 1.0)
        >>> cycle = Match("3/4-26 BSC", 0.0, 0.1, "right", "BSC", 19.05, 0.977)
        >>> cycle.rivals(metric), cycle.rivals(cycle)
        (True, False)
        """
        near = abs(abs(other.pitch_error_mm) - abs(self.pitch_error_mm)) < PITCHES_APART_MM
        differs = other.pitch_mm != self.pitch_mm or other.angle_deg != self.angle_deg
        return near and differs and abs(other.diameter_error_mm) < DIAMETER_NEAR_MM


def identify(diameter_mm: float, pitch_mm: float, hand: str, internal: bool = False) -> list[Match]:
    """Return the threads that a measured one may be, best first.

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
        raise BadInput("flank_deg", gettext_noop("A flank angle lies between 0 and 90°, not {flank_deg:g}."), flank_deg=flank_deg)
    if pitch_error_mm == 0:
        return math.inf
    return diametral_play_mm * math.tan(math.radians(flank_deg)) / abs(pitch_error_mm)
