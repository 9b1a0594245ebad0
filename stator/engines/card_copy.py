"""Copies of engine cards: onto a job, and back as the next version of an engine template."""

from __future__ import annotations

from django.db import transaction
from django.db.models import Max
from django.db.models.expressions import RawSQL
from django.db.models.functions import Lower

from stator.engines.models import EngineCard

GROWN = ("case_parts", "joints")  # a card has some of its own from the start
REFERS = {"seals": "seat_id", "fitted": "after_id"}  # to a seat of the same card
PARTS = ("case_parts", "joints", "seats", "marks", "specs", "seals", "fitted")


def copied(card: EngineCard, *, on_shelf: bool = False, version: int | None = None) -> EngineCard:
    """Return a copy of a card in the same family with its seats, seals, marks and limits."""
    with transaction.atomic():
        copy = EngineCard.objects.get(pk=card.pk)
        copy.pk, copy.on_shelf = None, on_shelf
        copy.version = version or card.version
        copy._state.adding = True
        copy.save()
        seats: dict[int, int] = {}
        for part in PARTS:
            if part in GROWN:
                getattr(copy, part).all().delete()
            for each in getattr(card, part).all():
                old = each.pk
                each.pk, each.card_id = None, copy.pk
                each._state.adding = True
                if part in REFERS and getattr(each, REFERS[part]):
                    setattr(each, REFERS[part], seats.get(getattr(each, REFERS[part])))
                each.save()
                if part == "seats":
                    seats[old] = each.pk
    return copy


def save_as_template(card: EngineCard) -> EngineCard:
    """Save a copy of a job's card as the next version of the family's engine template, which replaces the earlier version."""
    with transaction.atomic():
        family = EngineCard.objects.filter(family=card.family)
        last = family.filter(version__gt=0).aggregate(last=Max("version"))["last"] or 0
        had = family.filter(on_shelf=True)
        version = last + 1 if had.exists() else max(last, 1)
        had.update(on_shelf=False)
        EngineCard.objects.filter(pk=card.pk).update(version=version)
        return copied(card, on_shelf=True, version=version)


# Families are skipped through by their index, so that it costs no more when each has been copied a thousand times
_ONE_OF_A_FAMILY = """
WITH RECURSIVE families(family) AS (
    SELECT MIN(family) FROM engines_enginecard
    UNION ALL
    SELECT (SELECT MIN(next.family) FROM engines_enginecard next WHERE next.family > families.family) FROM families WHERE family IS NOT NULL
)
SELECT (
    SELECT card.id FROM engines_enginecard card WHERE card.family = families.family
    AND NOT EXISTS (SELECT 1 FROM jobs_job WHERE jobs_job.practice AND jobs_job.card_id = card.id)
    ORDER BY card.on_shelf DESC, card.id DESC LIMIT 1
) FROM families WHERE family IS NOT NULL
"""


def reusable() -> list[EngineCard]:
    """Return one card of each family to copy from, by name: the engine template, or the latest copy if there is none."""
    return list(EngineCard.objects.filter(pk__in=RawSQL(_ONE_OF_A_FAMILY, ())).order_by(Lower("name")))  # noqa: S611  nothing of it is typed
