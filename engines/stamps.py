"""A card read once for as long as it stands: triggers give it a new stamp whenever it, or a part of it, changes.

A card is read at every act of a job and hardly ever changes. A stamp is drawn at random, so that none comes twice, in whatever
database; a card without one has never been written since there are stamps, and is read anew.
"""

from __future__ import annotations

import pickle
from collections.abc import Iterator
from functools import lru_cache
from typing import Any

from django.db import connections

from engines.models import EngineCard

PARTS = ("seats", "seals", "marks", "specs", "fitted", "case_parts", "joints")
KEPT = 128  # cards; about 9 kB each with twenty bolts
TABLES = ("engines_enginecard", *(f"engines_{part}" for part in ("seat", "seal", "mark", "spec", "fitted", "casepart", "joint")))


def whole(card: EngineCard) -> EngineCard:
    """A card of its own with its seats, seals, marks and limits, as they stand."""
    if not card.stamp:
        return _read(card.pk)
    return pickle.loads(_kept(card.pk, card.stamp))  # type: ignore[no-any-return]  # noqa: S301  # what this process has put there


def is_whole(card: EngineCard) -> bool:
    """Whether a card was read with all its parts."""
    return set(PARTS) <= set(vars(card).get("_prefetched_objects_cache", ()))


@lru_cache(KEPT)
def _kept(number: int, stamp: int) -> bytes:
    return pickle.dumps(_read(number))


def _read(number: int) -> EngineCard:
    return EngineCard.objects.prefetch_related(*PARTS).get(pk=number)


def _triggers() -> Iterator[tuple[str, str]]:
    """Name, and what it does after what."""
    for table in TABLES:
        for act, rows in (("INSERT", ("NEW",)), ("UPDATE", ("OLD", "NEW")), ("DELETE", ("OLD",))):
            column = "id" if table == TABLES[0] else "card_id"
            cards = ", ".join(f"{row}.{column}" for row in rows)
            then = f"UPDATE engines_enginecard SET stamp = random() WHERE id IN ({cards})"  # noqa: S608  # names from above
            yield f"stamp_{table}_{act.lower()}", f"AFTER {act} ON {table} BEGIN {then}; END"


def install(using: str = "default", **kwargs: Any) -> None:
    """Put the triggers in place, after every migration."""
    with connections[using].cursor() as cursor:
        if not set(connections[using].introspection.table_names(cursor)) >= set(TABLES):
            return
        for name, does in _triggers():
            cursor.execute(f"CREATE TRIGGER IF NOT EXISTS {name} {does}")
