"""Initial equipment of a new shop, so that the first plan needs no typing."""

from __future__ import annotations

from typing import Any

from stator.shop.models import Blades, Chiller, Compound, Driver, Extractor, Gauge, Heater, Press, Puller, PullIn, Shop, Splitter

DRIVERS_MM = (19, 22, 25, 28, 31, 34, 37, 40, 46, 51, 61)  # outside of a usual set of tubes
FEELERS_MM = [0.03, 0.05, 0.08, 0.1, 0.15, 0.2, 0.25, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 1.0]
SHIMS_MM = [0.05, 0.1, 0.15, 0.2, 0.3, 0.5, 1.0]


COMMON: tuple[tuple[Any, str, dict[str, Any]], ...] = (
    (Heater, "Workshop oven", {"method": Heater.Method.OVEN, "highest_c": 250, "fan": True}),
    (Heater, "Hot plate", {"method": Heater.Method.HOT_PLATE, "highest_c": 300}),
    (Heater, "Gas torch", {"method": Heater.Method.TORCH}),
    (Heater, "Heat gun", {"method": Heater.Method.HEAT_GUN}),
    (Chiller, "Freezer", {"method": Chiller.Method.FREEZER, "temperature_c": -18}),
    (Chiller, "Dry ice box", {"method": Chiller.Method.DRY_ICE, "temperature_c": -78.5}),
    (Chiller, "Freeze spray", {"method": Chiller.Method.SPRAY, "temperature_c": -45}),
    (Gauge, "Contact probe", {"kind": Gauge.Kind.CONTACT, "resolution": 0.5}),
    (Gauge, "Infrared gun", {"kind": Gauge.Kind.INFRARED, "resolution": 0.5, "emissivity": 0.95}),
    (Gauge, "Bore gauge", {"kind": Gauge.Kind.BORE, "resolution": 0.002}),
    (Gauge, "Micrometer", {"kind": Gauge.Kind.MICROMETER, "resolution": 0.002}),
    (Gauge, "Feelers", {"kind": Gauge.Kind.FEELER, "resolution": 0.01}),
    (Gauge, "Dial gauge", {"kind": Gauge.Kind.DIAL, "resolution": 0.01}),
    (Gauge, "Calliper", {"kind": Gauge.Kind.CALLIPER, "resolution": 0.02}),
    (Gauge, "Load cell", {"kind": Gauge.Kind.LOAD, "resolution": 100.0}),
)


def stock_shelves() -> None:
    """One of each common thing, marked as usual by its name; the owner renames and corrects them."""
    Shop.objects.get_or_create(pk=1)  # carries the token that changes with the equipment
    for kind in dict.fromkeys(kind for kind, *_row in COMMON):
        known = set(kind.objects.values_list("name", flat=True))
        missing = [kind(name=name, **values) for of, name, values in COMMON if of is kind and name not in known]
        kind.objects.bulk_create(missing)


def add_usual_tools() -> int:
    """Add the usual tools with typical values, each once, and return how many were added."""
    needed: list[tuple[Any, str, dict[str, Any]]] = [
        *((Driver, f"Tube driver {size}", {"outside_mm": size, "inside_mm": size - 6}) for size in DRIVERS_MM),
        (Blades, "Feeler blades", {"kind": Blades.Kind.FEELER, "sizes_mm": FEELERS_MM}),
        (Blades, "Shims", {"kind": Blades.Kind.SHIM, "sizes_mm": SHIMS_MM}),
        (Press, "Workshop press", {"capacity_n": 100_000.0, "capacity_text": "100 kN"}),
        (Puller, "Flywheel puller M27x1", {"thread_mm": 27, "pitch_mm": 1}),
        (Puller, "Flywheel puller M28x1", {"thread_mm": 28, "pitch_mm": 1}),
        (Splitter, "Case splitter", {}),
        (PullIn, "Crank puller M12x1.25", {"thread_mm": 12, "thread_pitch_mm": 1.25, "pitch_mm": 1.75}),
        (Extractor, "Collet puller", {"kind": Extractor.Kind.COLLET, "low_mm": 8, "high_mm": 40}),
        (Extractor, "Bearing puller", {"kind": Extractor.Kind.PULLER, "low_mm": 10, "high_mm": 80}),
        (Compound, "Retaining compound", {"kind": Compound.Kind.RETAINING, "strength": Compound.Strength.HIGH}),
        (Compound, "Thread locker", {"kind": Compound.Kind.THREADLOCK}),
        (Compound, "Anaerobic sealant", {"kind": Compound.Kind.ANAEROBIC}),
    ]
    return sum(kind.objects.get_or_create(name=name, defaults=values)[1] for kind, name, values in needed)


def lacks_tools() -> bool:
    """Return True if there is nothing yet of what the usual tools bring."""
    return not any(kind.objects.exists() for kind in (Driver, Press, Puller, Splitter))
