"""What a new shop starts with, so that the first plan can be made before anything is typed in."""

from __future__ import annotations

from shop.models import Chiller, Gauge, Heater


def stock_shelves() -> None:
    """One of each common thing, marked as usual by its name; the owner renames and corrects them."""
    Heater.objects.get_or_create(name="Workshop oven", defaults={"method": Heater.Method.OVEN, "highest_c": 250, "fan": True})
    Heater.objects.get_or_create(name="Hot plate", defaults={"method": Heater.Method.HOT_PLATE, "highest_c": 300})
    Heater.objects.get_or_create(name="Gas torch", defaults={"method": Heater.Method.TORCH})
    Heater.objects.get_or_create(name="Heat gun", defaults={"method": Heater.Method.HEAT_GUN})
    Chiller.objects.get_or_create(name="Freezer", defaults={"method": Chiller.Method.FREEZER, "temperature_c": -18})
    Chiller.objects.get_or_create(name="Dry ice box", defaults={"method": Chiller.Method.DRY_ICE, "temperature_c": -78.5})
    Chiller.objects.get_or_create(name="Freeze spray", defaults={"method": Chiller.Method.SPRAY, "temperature_c": -45})
    Gauge.objects.get_or_create(name="Contact probe", defaults={"kind": Gauge.Kind.CONTACT, "resolution": 0.5})
    Gauge.objects.get_or_create(name="Infrared gun", defaults={"kind": Gauge.Kind.INFRARED, "resolution": 0.5, "emissivity": 0.95})
    Gauge.objects.get_or_create(name="Bore gauge", defaults={"kind": Gauge.Kind.BORE, "resolution": 0.002})
    Gauge.objects.get_or_create(name="Micrometer", defaults={"kind": Gauge.Kind.MICROMETER, "resolution": 0.002})
    Gauge.objects.get_or_create(name="Feelers", defaults={"kind": Gauge.Kind.FEELER, "resolution": 0.01})
    Gauge.objects.get_or_create(name="Dial gauge", defaults={"kind": Gauge.Kind.DIAL, "resolution": 0.01})
    Gauge.objects.get_or_create(name="Calliper", defaults={"kind": Gauge.Kind.CALLIPER, "resolution": 0.02})
    Gauge.objects.get_or_create(name="Load cell", defaults={"kind": Gauge.Kind.LOAD, "resolution": 100.0})
