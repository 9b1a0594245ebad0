"""Rows that are read by the hundred."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from typing import Any, Self, TypeVar

from django.db import models
from django.db.models.base import ModelState

Row = TypeVar("Row", bound=models.Model)


class ReadPlainly(models.Model):
    """A model whose rows are taken over as they were read: Django's own way sets each column through a descriptor, and tells of it.

    What was not asked for is absent, and fetched when it is wanted, as with any other model.
    """

    class Meta:
        abstract = True

    @classmethod
    def from_db(cls, db: str | None, field_names: Collection[str], values: Collection[Any]) -> Self:  # type: ignore[override]
        row = cls.__new__(cls)
        vars(row).update(zip(field_names, values, strict=True))
        row._state = ModelState()
        row._state.adding, row._state.db = False, db
        return row


def holds(row: models.Model, **related: models.Model | None) -> None:
    """Take rows that were read already for those that a row leads to; by the hundred, setting each costs more than reading it."""
    row._state.fields_cache.update(related)


def among(rows: Iterable[Row], relation: str, known: Iterable[models.Model]) -> list[Row]:
    """Rows, each with the one that it leads to taken out of those that were read already."""
    found, rows = {each.pk: each for each in known}, list(rows)
    for row in rows:
        holds(row, **{relation: found.get(getattr(row, f"{relation}_id"))})
    return rows
