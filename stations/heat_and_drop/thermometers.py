"""What the case was read with, and what such a reading is worth."""

from __future__ import annotations

from typing import Any

from shop.models import Gauge
from shopmath.thermal.infrared import Surface, infrared_band_c, surface, water_drop_c
from shopmath.verdict import gauge_uncertainty
from stations.base import Option

SURFACES = {
    "paint": ("paint dot", "matt paint (any colour)"),
    "tape": ("masking tape", "masking tape (crepe paper)"),
    "marker": ("marker ink", "marker ink on metal"),
    "bare": ("bare aluminium", "cast aluminium, bare, as cast"),
    "weathered": ("weathered aluminium", "aluminium, oxidised or weathered"),
    "bright": ("bright steel", "steel, machined, clean"),
}
DROP = (
    Option("sits", "sits and dries slowly", "under 100 °C"),
    Option("sizzles", "sizzles and is gone", "100 to 150 °C"),
    Option("dances", "rolls about as a ball", "over 150 °C"),
)
CONTACT_U_K = 2.0  # a probe held on a casting reads low by about this


def means_of(gauges: tuple[Gauge, ...]) -> tuple[Option, ...]:
    """Ways to take a temperature with the gauges at hand."""
    found: list[Option] = []
    for gauge in gauges:
        if gauge.kind == Gauge.Kind.CONTACT:
            found.append(Option(f"{gauge.pk}:contact", gauge.name, "held on bare metal"))
        if gauge.kind == Gauge.Kind.INFRARED:
            found += [
                Option(f"{gauge.pk}:{key}", f"{gauge.name}, {words}", f"gun at {gauge.emissivity:g}")
                for key, (words, _) in SURFACES.items()
            ]
    return (*found, Option("drop", "a drop of water", "coarse"))


def surface_of(means: str) -> Surface | None:
    key = means.partition(":")[2]
    return surface(SURFACES[key][1]) if key in SURFACES else None


def worth(shown_c: float, gauge: Gauge | None, means: str, surroundings_c: float) -> dict[str, Any]:
    """True temperature, its band and whether it may carry a call, for a reading shown on a gauge."""
    seen = surface_of(means)
    if seen is None or gauge is None:
        doubt = CONTACT_U_K + (gauge_uncertainty(gauge.resolution, gauge.repeatability) if gauge else 1.0)
        return {"true_c": shown_c, "low_c": shown_c - doubt, "high_c": shown_c + doubt, "trusted": True, "means": "contact"}
    band = infrared_band_c(shown_c, gauge.emissivity or 0.95, seen, surroundings_c)
    doubt = gauge_uncertainty(gauge.resolution, gauge.repeatability) + 1.0
    return {
        "true_c": round(band.likely, 1),
        "low_c": round(band.low - doubt, 1),
        "high_c": round(band.high + doubt, 1),
        "trusted": seen.trusted,
        "means": SURFACES[means.partition(":")[2]][0],
        "gun_emissivity": gauge.emissivity,
        "surface_emissivity": [seen.emissivity.low, seen.emissivity.likely, seen.emissivity.high],
        "surroundings_c": surroundings_c,
    }


def drop_worth(behaviour: str) -> dict[str, Any]:
    """What a drop of water tells: a wide band that never carries a call by itself."""
    band = water_drop_c(behaviour)
    return {"true_c": band.likely, "low_c": band.low, "high_c": band.high, "trusted": False, "means": "water drop"}
