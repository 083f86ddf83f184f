"""Passwords and secrets are hashed a few at a time: a hash takes memory and a core for a while, and a school comes in
at once."""

from __future__ import annotations

import os
from collections.abc import Iterator
from contextlib import contextmanager
from threading import BoundedSemaphore, Lock

from django.db import connection

from server.common.problems import TooMany

AT_ONCE = int(os.environ.get("UCHUU_HASHES_AT_ONCE", "2"))
"""Hashes that a process works on at once."""
MOST_WAITING, LONGEST_WAIT = 120, 20.0
"""How many may wait for their turn in a process, and for how many seconds."""
_turns = BoundedSemaphore(AT_ONCE)
_lock = Lock()
_waiting = 0


@contextmanager
def turn() -> Iterator[None]:
    """The turn of one who has something hashed. Who waits holds no connection of the database, outside of a transaction
    at least. Raises TooMany where too many wait."""
    global _waiting
    if not connection.in_atomic_block:
        connection.close()  # back to the pool; the next query takes another
    with _lock:
        if _waiting >= MOST_WAITING:
            raise _too_many()
        _waiting += 1
    try:
        if not _turns.acquire(timeout=LONGEST_WAIT):
            raise _too_many()
    finally:
        with _lock:
            _waiting -= 1
    try:
        yield
    finally:
        _turns.release()


def _too_many() -> TooMany:
    return TooMany("Very many are coming in just now. Try again in a few seconds.", code="busy", seconds=5)
