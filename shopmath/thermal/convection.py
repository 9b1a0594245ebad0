"""How fast castings and bearings follow their surroundings, by the heat transfer to air.

All *estimates*, with their bands.
"""

from __future__ import annotations

import math
from functools import cache, lru_cache

from shopmath.estimate import Estimate
from shopmath.materials import Material
from shopmath.tables import rows
from shopmath.thermal.rates import time_constant_s
from shopmath.validation import BadInput, gettext_noop, positive

CASTING_WALL_MM = Estimate(4.5, 6.0, 9.0, "wall of a small engine's casting, its bosses evened out")
CONTACT_W_M2K = Estimate(500.0, 1500.0, 4000.0, "dry ring touching its bore, no pressure yet")


@cache
def film_w_m2k(item: str) -> Estimate:
    """Return the film coefficient of the thermal table whose item starts with these words.

    Examples
    --------
    >>> film_w_m2k("casting in a domestic oven, fan").likely
    22.0
    """
    for row in rows("thermal"):
        if row["group"] == "film" and row["item"].startswith(item):
            return Estimate(float(row["low"]), float(row["typical"]), float(row["high"]), f"{row['item']} (thermal table)")
    raise BadInput("film_w_m2k", gettext_noop("The thermal table has no film for {item!r}."), item=item)


@lru_cache(256, typed=True)
def casting_time_constant_s(material: Material, film: Estimate, wall: Estimate = CASTING_WALL_MM) -> Estimate:
    """Return the time constant of a case from its wall only, because its mass and its surface grow together.

    Parameters
    ----------
    material : Material
    film : Estimate
        W/(m² K).
    wall : Estimate
        Mean wall, mm.

    Returns
    -------
    Estimate
        ρ·c·wall/(2·h), s; low and high by root sum of squares of the two bands.

    Examples
    --------
    >>> from shopmath.materials import get
    >>> round(casting_time_constant_s(get("al-si7-mg"), film_w_m2k("casting in a domestic oven, natural")).likely)
    774
    """
    positive("film", film.low)
    positive("wall", wall.low)

    def at(wall_mm: float, film_value: float) -> float:
        return material.density_kg_m3 * material.specific_heat * wall_mm / 1000 / (2 * film_value)

    likely = at(wall.likely, film.likely)
    down = math.hypot(likely - at(wall.low, film.likely), likely - at(wall.likely, film.high))
    up = math.hypot(at(wall.high, film.likely) - likely, at(wall.likely, film.low) - likely)
    return Estimate(max(likely - down, likely / 4), likely, likely + up, f"{wall.basis}; {film.basis}")


def ring_surface_m2(bore_mm: float, outside_mm: float, width_mm: float) -> float:
    """Whole outside surface of a bearing taken as a plain ring, m².

    Examples
    --------
    >>> round(ring_surface_m2(25, 52, 15), 5)
    0.00689
    """
    bore, outside, width = (positive(n, v) for n, v in (("bore_mm", bore_mm), ("outside_mm", outside_mm), ("width_mm", width_mm)))
    if outside <= bore:
        raise BadInput(
            "outside_mm", gettext_noop("The outside {outside:g} mm is not larger than the bore {bore:g} mm."), outside=outside, bore=bore
        )
    return math.pi * ((outside + bore) * width + (outside**2 - bore**2) / 2) / 1e6


def ring_mass_kg(bore_mm: float, outside_mm: float, width_mm: float) -> float:
    """Mass of a bearing from its size, *estimate*: four fifths of a solid ring.

    Examples
    --------
    >>> round(ring_mass_kg(25, 52, 15), 2)
    0.15
    """
    ring_surface_m2(bore_mm, outside_mm, width_mm)
    return 0.8 * 7.81e-6 * math.pi / 4 * (outside_mm**2 - bore_mm**2) * width_mm


@lru_cache(256, typed=True)
def ring_time_constant_s(bore_mm: float, outside_mm: float, width_mm: float, film: Estimate, mass_kg: float | None = None) -> Estimate:
    """Return the time constant of a bearing in air, in a freezer or in an ice box.

    Parameters
    ----------
    bore_mm, outside_mm, width_mm : float
        mm.
    film : Estimate
        W/(m² K).
    mass_kg : float, optional
        From the table; taken from the size when not given.

    Returns
    -------
    Estimate
        s.

    Examples
    --------
    >>> round(ring_time_constant_s(25, 52, 15, film_w_m2k("bearing 0.05-0.5 kg in a freezer"), 0.13).likely)
    985
    """
    area = ring_surface_m2(bore_mm, outside_mm, width_mm)
    mass = ring_mass_kg(bore_mm, outside_mm, width_mm) if mass_kg is None else positive("mass_kg", mass_kg)
    return film.map(lambda value: time_constant_s(mass, 470.0, value, area))


def ring_contact_s(outside_mm: float, width_mm: float, mass_kg: float) -> Estimate:
    """Time constant of a ring taking its case's heat once it touches, *estimate*.

    Examples
    --------
    >>> round(ring_contact_s(47, 14, 0.106).likely)
    16
    """
    area = math.pi * positive("outside_mm", outside_mm) * positive("width_mm", width_mm) / 1e6
    return CONTACT_W_M2K.map(lambda value: time_constant_s(mass_kg, 470.0, value, area))
