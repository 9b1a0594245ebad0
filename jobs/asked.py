"""A query that is asked over and over: the ORM words it once, and after that it is asked with other values."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from django.db import DEFAULT_DB_ALIAS, connections
from django.db.models import QuerySet


@dataclass
class Asked:
    """Rows of a `values_list`, told from values that are keys of rows: worded by the ORM, and its answer read by the ORM.

    Wording a question about many tables takes Django longer than answering it takes SQLite. It is worded with keys that no row has,
    negative ones, so that each is found again among its parameters.
    """

    query: Callable[..., QuerySet[Any, tuple[Any, ...]]]
    values: int

    def rows(self, *values: int) -> Iterable[tuple[Any, ...]]:
        query, columns, sql, params = self._worded
        connection = connections[DEFAULT_DB_ALIAS]
        with connection.cursor() as cursor:
            found = cursor.execute(sql, [values[-1 - each] if each in self._stand_ins else each for each in params]).fetchall()
        compiler = query.get_compiler(connection=connection)
        return map(tuple, compiler.apply_converters(found, compiler.get_converters(columns)))

    @property
    def _stand_ins(self) -> range:
        return range(-self.values, 0)

    @cached_property
    def _worded(self) -> tuple[Any, list[Any], str, tuple[Any, ...]]:
        query = self.query(*reversed(self._stand_ins)).query
        compiler = query.get_compiler(DEFAULT_DB_ALIAS)
        sql, params = compiler.as_sql()
        return query, [each for each, *_ in compiler.select], sql, params
