"""A query that is asked over and over: the ORM words it once, and after that it is asked with other values."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from copy import copy
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, Generic, TypeVar

from django.db import DEFAULT_DB_ALIAS, connections
from django.db.models import Model, QuerySet
from django.db.models.query import ModelIterable

from stator.engines.rows import holds

NO_ROWS = 2_147_480_000  # and what follows: numbers that no row will ever have, but might
Row = TypeVar("Row", bound=Model)


@dataclass
class Asked(Generic[Row]):
    """Rows told from values that are numbers or words: worded by the ORM, and its answer read by the ORM.

    Wording a question takes Django longer than answering it takes SQLite. It is worded with numbers that no row has, also in the place
    of words, so that each is found again among its parameters.
    """

    query: Callable[..., QuerySet[Row, Any]]
    values: int

    def rows(self, *values: int | str) -> Iterable[tuple[Any, ...]]:
        """The rows of a `values_list`."""
        return self.read(self.stored(*values))

    def stored(self, *values: int | str) -> list[tuple[Any, ...]]:
        """The same as SQLite stores them: numbers and words as they are, all else still to be `read`."""
        compiler = self._compiler(values)
        with compiler.connection.cursor() as cursor:
            return cursor.execute(*compiler.as_sql()).fetchall()  # type: ignore[no-any-return]

    def read(self, rows: Iterable[tuple[Any, ...]]) -> Iterable[tuple[Any, ...]]:
        """Rows that were `stored`, with their times and the like."""
        compiler, *_, converters = self._worded
        return map(tuple, compiler.apply_converters(rows, converters))

    def models(self, *values: int | str) -> list[Row]:
        """The rows as their models, with what the query joins to them; what it fetches beforehand is left to be fetched."""
        return list(ModelIterable(_Worded(self._compiler(values))))  # type: ignore[arg-type]

    def _compiler(self, values: tuple[int | str, ...]) -> Any:
        worded, sql, params, converters = self._worded
        compiler = copy(worded)
        compiler.connection = connections[DEFAULT_DB_ALIAS]  # of this thread
        given = tuple(values[int(each) - NO_ROWS] if str(each) in self._stand_ins else each for each in params)
        compiler.as_sql = lambda *args, **kwargs: (sql, given)
        compiler.get_converters = lambda columns: converters
        return compiler

    @cached_property
    def _worded(self) -> tuple[Any, str, tuple[Any, ...], dict[int, Any]]:
        compiler = self.query(*range(NO_ROWS, NO_ROWS + self.values)).query.get_compiler(DEFAULT_DB_ALIAS)
        sql, params = compiler.as_sql()
        return compiler, sql, params, compiler.get_converters([each for each, *_ in compiler.select])

    @cached_property
    def _stand_ins(self) -> set[str]:
        return {str(NO_ROWS + each) for each in range(self.values)}


@dataclass
class _Worded:
    """What Django asks a queryset for when it makes models of its rows."""

    compiler: Any
    db: str = DEFAULT_DB_ALIAS
    _known_related_objects: dict[Any, Any] = field(default_factory=dict)

    @property
    def query(self) -> _Worded:
        return self

    def get_compiler(self, *args: Any, **kwargs: Any) -> Any:
        return self.compiler


def hold(row: Model, relation: str, rows: list[Any]) -> None:
    """Take rows for those of a row's relation, as if they had been prefetched; each of them knows the row."""
    manager = getattr(row, relation)
    for each in rows:
        holds(each, **{manager.field.name: row})
    held = manager.get_queryset()
    held._result_cache, held._prefetch_done = rows, True
    vars(row).setdefault("_prefetched_objects_cache", {})[relation] = held
