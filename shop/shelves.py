"""What stands on the shelves, read once and kept until something on them changes."""

from __future__ import annotations

import uuid
from dataclasses import dataclass, replace
from typing import Any

from django.db import connections

from shop.models import Blades, Chiller, Compound, Driver, Equipment, Extractor, Gauge, Heater, Press, Puller, PullIn, Shop, Splitter


@dataclass(frozen=True)
class Shelves:
    """Everything in use, retired things left out."""

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


_NAMED = ("username", "first_name", "last_name", "from_file")  # what a person is called by
_kept: dict[str, Shelves] = {}


def shelves(shop: Shop) -> Shelves:
    """The shelves as of the shop's last stocktaking; another process that changes them changes its token too."""
    found = _kept.get(shop.stocked)
    if found is None:
        found = Shelves(
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
        _kept.clear()
        _kept[shop.stocked] = found
    return found


LENT_SHIMS_MM = [0.05, 0.1, 0.15, 0.2, 0.3, 0.5, 1.0]


def with_lent(found: Shelves) -> Shelves:
    """The shelves as practice has them: a box of shims is lent where the shop has none."""
    if any(each.kind == Blades.Kind.SHIM and each.sizes_mm for each in found.blades):
        return found
    return replace(found, blades=(*found.blades, Blades(name="", kind=Blades.Kind.SHIM, sizes_mm=LENT_SHIMS_MM)))


def restock(sender: Any = None, **kwargs: Any) -> None:
    """Something on the shelves has changed."""
    if sender is None or issubclass(sender, Equipment):
        Shop.objects.update_or_create(pk=1, defaults={"stocked": uuid.uuid4().hex})


def install(using: str = "default", **kwargs: Any) -> None:
    """Put a trigger in place: whoever keeps what names gauges and people goes by the shop's token, so that it changes with a name."""
    changed = " OR ".join(f"OLD.{name} IS NOT NEW.{name}" for name in _NAMED)
    then = "UPDATE shop_shop SET stocked = lower(hex(randomblob(16)))"
    with connections[using].cursor() as cursor:
        if {"shop_person", "shop_shop"} <= set(connections[using].introspection.table_names(cursor)):
            cursor.execute(f"CREATE TRIGGER IF NOT EXISTS people_renamed AFTER UPDATE ON shop_person WHEN {changed} BEGIN {then}; END")
