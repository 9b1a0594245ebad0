"""Cached engine cards.

Database triggers draw a new version token whenever a card or a part of it changes.

Every request of a job needs its card, which hardly ever changes. A token is random and never comes twice, in any database. A card without a
token was never written since tokens exist, and is not cached.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from django.db import connections, models

from stator.engines.models import CasePart, EngineCard, Fitted, Joint, Mark, Seal, Seat, Spec, Subject
from stator.engines.parts import HALVES, Kind
from stator.ui.cache import versioned

PARTS = ("seats", "seals", "marks", "specs", "fitted", "case_parts", "joints")
PREFETCHED: tuple[Any, ...] = (
    *(part for part in PARTS if part not in ("seals", "fitted")),
    models.Prefetch("seals", Seal.objects.select_related("seat")),
    models.Prefetch("fitted", Fitted.objects.select_related("after")),
)
CARD = EngineCard._meta.db_table
MODELS: tuple[type[models.Model], ...] = (EngineCard, Seat, Seal, Mark, Spec, Fitted, CasePart, Joint)
NAMED: dict[
    type[models.Model], tuple[Kind, ...]
] = {  # parts whose name is repeated in the row of `Subject` with the same uid, which readings point at
    Seat: (Kind.SEAT,),
    Seal: (Kind.SEAL,),
    Fitted: (Kind.FITTED,),
    Mark: (Kind.FASTENER, Kind.DOWEL, Kind.GAP),
    CasePart: (Kind.CASE,),
}


def load_card(card: EngineCard) -> EngineCard:
    """Return a card with its seats, seals, marks and limits."""
    return versioned(f"card-{card.pk}", card.stamp, lambda: EngineCard.objects.prefetch_related(*PREFETCHED).get(pk=card.pk))


def is_whole(card: EngineCard) -> bool:
    """Return True if a card was read with all its parts."""
    return set(PARTS) <= set(vars(card).get("_prefetched_objects_cache", ()))


def _triggers() -> Iterator[tuple[str, str]]:
    """Yield the name of each trigger, and its event and statement."""
    for model in MODELS:
        table = model._meta.db_table
        for event, rows in (("INSERT", ("NEW",)), ("UPDATE", ("OLD", "NEW")), ("DELETE", ("OLD",))):
            column = "id" if model is EngineCard else "card_id"
            cards = ", ".join(f"{row}.{column}" for row in rows)
            statement = f"UPDATE {CARD} SET stamp = random() WHERE id IN ({cards})"  # noqa: S608
            yield f"stamp_{table}_{event.lower()}", f"AFTER {event} ON {table} BEGIN {statement}; END"
    for model, kinds in NAMED.items():
        table = model._meta.db_table
        same = f"card_id = NEW.card_id AND uid = NEW.uid AND kind IN ({', '.join(repr(str(kind.value)) for kind in kinds)})"
        statement = f"UPDATE {Subject._meta.db_table} SET name = NEW.name WHERE {same}"  # noqa: S608
        changed = "OLD.name IS NOT NEW.name" + (f" AND NEW.uid NOT IN {HALVES}" if model is CasePart else "")
        yield f"rename_{table}", f"AFTER UPDATE OF name ON {table} WHEN {changed} BEGIN {statement}; END"


def install(using: str = "default", **kwargs: Any) -> None:
    """Create the triggers, after every migration."""
    with connections[using].cursor() as cursor:
        for name, does in _triggers():
            cursor.execute(f"CREATE TRIGGER IF NOT EXISTS {name} {does}")
