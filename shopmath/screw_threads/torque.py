"""Torque into axial force and back."""

from __future__ import annotations

import math

from shopmath.screw_threads.profile import pitch_diameter_mm
from shopmath.validation import not_negative, positive


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
