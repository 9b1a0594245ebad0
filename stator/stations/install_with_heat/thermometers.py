"""Thermometers for the case, and the uncertainty of their readings."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from shopmath.gauges import gauge_uncertainty
from shopmath.thermal.infrared import Surface, infrared_band_c, surface, water_drop_c
from stator.shop.models import Gauge

CONTACT, DROP = "contact", "drop"
SURFACES = {  # where a gun is pointed -> surface of the table
    "paint": "matt paint (any colour)",
    "tape": "masking tape (crepe paper)",
    "marker": "marker ink on metal",
    "bare": "cast aluminium, bare, as cast",
    "weathered": "aluminium, oxidised or weathered",
    "bright": "steel, machined, clean",
}
CONTACT_U_K = 2.0  # a probe held on a casting reads low by about this
GUN_EMISSIVITY = 0.95  # of a gun whose setting nobody has written down


@dataclass(frozen=True)
class Means:
    """A way to measure a temperature: a probe on the metal, an infrared thermometer, or a drop of water."""

    surface: str
    gauge: Gauge | None = None

    @property
    def key(self) -> str:
        return f"{self.gauge.pk}:{self.surface}" if self.gauge else self.surface

    @property
    def seen(self) -> Surface | None:
        return surface(SURFACES[self.surface]) if self.surface in SURFACES else None


def means_of(gauges: tuple[Gauge, ...]) -> list[Means]:
    """Return the ways to measure a temperature with the gauges of the shop; a drop of water is always one."""
    found = []
    for gauge in gauges:
        if gauge.kind == Gauge.Kind.CONTACT:
            found.append(Means(CONTACT, gauge))
        if gauge.kind == Gauge.Kind.INFRARED:
            found += [Means(key, gauge) for key in SURFACES]
    return [*found, Means(DROP)]


def worth(shown_c: float, means: Means, surroundings_c: float) -> dict[str, Any]:
    """True temperature, its band and whether it may carry a call, for a reading shown on a gauge."""
    seen, gauge = means.seen, means.gauge
    if seen is None or gauge is None:
        uncertainty = CONTACT_U_K + (gauge_uncertainty(gauge.resolution, gauge.repeatability, kind=gauge.kind) if gauge else 1.0)
        return {"true_c": shown_c, "low_c": shown_c - uncertainty, "high_c": shown_c + uncertainty, "trusted": True, "means": CONTACT}
    band = infrared_band_c(shown_c, gauge.emissivity or GUN_EMISSIVITY, seen, surroundings_c)
    uncertainty = gauge_uncertainty(gauge.resolution, gauge.repeatability, kind=gauge.kind) + 1.0
    return {
        "true_c": round(band.likely, 1),
        "low_c": round(band.low - uncertainty, 1),
        "high_c": round(band.high + uncertainty, 1),
        "trusted": seen.trusted,
        "means": means.surface,
        "gun_emissivity": gauge.emissivity,
        "surface_emissivity": [seen.emissivity.low, seen.emissivity.likely, seen.emissivity.high],
        "surroundings_c": surroundings_c,
    }


def drop_worth(behaviour: str) -> dict[str, Any]:
    """Return the temperature from a drop of water: a wide range that never decides a verdict alone."""
    band = water_drop_c(behaviour)
    return {"true_c": band.likely, "low_c": band.low, "high_c": band.high, "trusted": False, "means": DROP}
