"""Connections whose queries end after a while, whatever the database does.

`statement_timeout` is kept by the database itself; one that is frozen, or cut off behind a network that says nothing,
keeps no time. So who waits for an answer looks at the clock here too, and gives the connection up.
"""

from __future__ import annotations

import os
from collections.abc import Generator, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from typing import Any, TypeVar

import psycopg
from psycopg.errors import _WaitTimeout

T = TypeVar("T")
SECONDS = float(os.environ.get("UCHUU_QUERY_SECONDS", "15"))
"""Longest wait for one answer of the database."""
LONGEST_LOOK = 0.1
_within: ContextVar[float] = ContextVar("query_seconds", default=SECONDS)


@contextmanager
def within(seconds: float) -> Iterator[None]:
    """In here no answer of the database is waited for longer than that."""
    known = _within.set(seconds)
    try:
        yield
    finally:
        _within.reset(known)


class BoundedConnection(psycopg.Connection[Any]):
    """A connection of psycopg that gives up an answer which does not come."""

    def wait(self, gen: Generator[Any, Any, T], interval: float = LONGEST_LOOK, timeout: float | None = None) -> T:
        """As psycopg waits. Raises OperationalError, with the connection closed, after the seconds that are allowed."""
        most = _within.get()
        if timeout is not None and timeout <= most:
            return super().wait(gen, interval, timeout)
        try:
            return super().wait(gen, interval, most)
        except _WaitTimeout as ended:
            self.pgconn.finish()
            raise psycopg.OperationalError("the database does not answer") from ended
