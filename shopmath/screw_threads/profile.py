"""The basic 60° profile."""

from __future__ import annotations

from shopmath.validation import BadInput, gettext_noop, positive


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
        raise BadInput(
            "pitch_mm", gettext_noop("A pitch of {pitch_mm:g} mm does not fit on a {d_mm:g} mm thread."), pitch_mm=pitch_mm, d_mm=d_mm
        )
    return minor
