"""Reads that a class asks many times a second, put together once: the ORM takes longer to write such a query than the
database to answer it."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from django.db import connection
from django.db.models import QuerySet

_FIRST_KEY = 4_000_000_001
"""Stands for the first key while the SQL is written: a number that no query has of its own, and that a key of eight
bytes can be."""


class Rows:
    """A read by keys of rows. `make` gives its query, with `values_list`, for such numbers; a call with others gives
    the rows, as tuples of the columns' Python values. The SQL is that of the ORM, written at the first call and kept.
    Raises ValueError where the query does not hold each key."""

    def __init__(self, keys: int, make: Callable[..., QuerySet[Any, Any]]) -> None:
        self._make = make
        self._at = {_FIRST_KEY + k: k for k in range(keys)}
        self._written: tuple[str, Sequence[Any], Any, dict[int, Any]] | None = None

    def __call__(self, *keys: int) -> list[tuple[Any, ...]]:
        """The rows for these keys."""
        if self._written is None:
            self._written = self._write()
        sql, values, compiler, converters = self._written
        with connection.cursor() as cursor:
            cursor.execute(
                sql, [keys[self._at[each]] if isinstance(each, int) and each in self._at else each for each in values]
            )
            rows = cursor.fetchall()
        return [tuple(row) for row in compiler.apply_converters(rows, converters)] if converters else rows

    def _write(self) -> tuple[str, Sequence[Any], Any, dict[int, Any]]:
        compiler = self._make(*self._at).query.get_compiler(connection=connection)
        sql, values = compiler.as_sql()
        if not all(each in values for each in self._at):
            raise ValueError("not every key stands in the query as it is")
        return sql, values, compiler, compiler.get_converters([each for each, _, _ in compiler.select])
