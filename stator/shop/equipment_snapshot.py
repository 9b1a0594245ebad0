"""The equipment in use, and its version token."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from django.db import connections

from stator.shop.models import (
    Blades,
    Chiller,
    Compound,
    Driver,
    Equipment,
    Extractor,
    Gauge,
    Heater,
    Person,
    Press,
    Puller,
    PullIn,
    Shop,
    Splitter,
)
from stator.ui.cache import versioned


@dataclass(frozen=True)
class EquipmentSnapshot:
    """All equipment in use, without what is retired."""

    heaters: tuple[Heater, ...]
    chillers: tuple[Chiller, ...]
    gauges: tuple[Gauge, ...]
    pullers: tuple[Puller, ...]
    drivers: tuple[Driver, ...]
    splitters: tuple[Splitter, ...]
    extractors: tuple[Extractor, ...]
    presses: tuple[Press, ...]
    compounds: tuple[Compound, ...]
    blades: tuple[Blades, ...]
    pull_ins: tuple[PullIn, ...]


EQUIPMENT: tuple[type[Equipment], ...] = (*(Heater, Chiller, Gauge, Puller, Driver, Splitter, Extractor, Press, Compound, Blades, PullIn),)
_NAMED = ("username", "first_name", "last_name", "from_file")  # what a person is called by


def shelves(shop: Shop) -> EquipmentSnapshot:
    """Return the equipment in use from the cache.

    Database triggers draw a new version token with every change.
    """
    return versioned("equipment", shop.stocked, _load)


def _load() -> EquipmentSnapshot:
    return EquipmentSnapshot(
        tuple(Heater.objects.filter(retired=False).order_by("method", "name")),
        tuple(Chiller.objects.filter(retired=False).order_by("method", "name")),
        tuple(Gauge.objects.filter(retired=False)),
        tuple(Puller.objects.filter(retired=False)),
        tuple(Driver.objects.filter(retired=False).order_by("outside_mm")),
        tuple(Splitter.objects.filter(retired=False)),
        tuple(Extractor.objects.filter(retired=False)),
        tuple(Press.objects.filter(retired=False)),
        tuple(Compound.objects.filter(retired=False)),
        tuple(Blades.objects.filter(retired=False)),
        tuple(PullIn.objects.filter(retired=False)),
    )


LENT_SHIMS_MM = [0.05, 0.1, 0.15, 0.2, 0.3, 0.5, 1.0]


def with_lent(found: EquipmentSnapshot) -> EquipmentSnapshot:
    """Return the equipment for practice; a shop without shims is lent a set."""
    if any(each.kind == Blades.Kind.SHIM and each.sizes_mm for each in found.blades):
        return found
    return replace(found, blades=(*found.blades, Blades(name="", kind=Blades.Kind.SHIM, sizes_mm=LENT_SHIMS_MM)))


def _triggers() -> Iterator[tuple[str, str]]:
    """Yield the name of each trigger, and its event and statement."""
    person, shop = Person._meta.db_table, Shop._meta.db_table
    statement = f"UPDATE {shop} SET stocked = lower(hex(randomblob(16)))"  # noqa: S608
    changed = " OR ".join(f"OLD.{name} IS NOT NEW.{name}" for name in _NAMED)
    yield "people_renamed", f"AFTER UPDATE ON {person} WHEN {changed} BEGIN {statement}; END"
    for model in EQUIPMENT:
        table = model._meta.db_table
        for event in ("INSERT", "UPDATE", "DELETE"):
            yield f"stock_{table}_{event.lower()}", f"AFTER {event} ON {table} BEGIN {statement}; END"


def install(using: str = "default", **kwargs: Any) -> None:
    """Create the triggers that draw a new token for the shop when equipment changes or a person is renamed."""
    with connections[using].cursor() as cursor:
        for name, does in _triggers():
            cursor.execute(f"CREATE TRIGGER IF NOT EXISTS {name} {does}")
