"""Whose turn it is: of those who wait each person comes after the other, and nobody has more than a share at work."""

from __future__ import annotations

import threading
import time
from collections import OrderedDict, deque
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from typing import Generic, TypeVar

S = TypeVar("S")
_whose: ContextVar[str] = ContextVar("whose", default="")


@contextmanager
def asked_by(person: str) -> Iterator[None]:
    """What is asked in here is asked by this person; empty for nobody in particular, as a job is."""
    known = _whose.set(person)
    try:
        yield
    finally:
        _whose.reset(known)


def known_as(person: str) -> None:
    """What is asked from here on is asked by this person, until what `asked_by` has begun ends; outside of that nobody
    is known."""
    if _whose.get():
        _whose.set(person)


def whose() -> str:
    """Who asks."""
    return _whose.get()


class _Ticket(Generic[S]):
    """One who waits, until something is given."""

    def __init__(self) -> None:
        self.given: S | None = None
        self.come = threading.Event()


class Turns(Generic[S]):
    """Things that are lent to one at a time. Who waits is served person by person, round and round (round robin), and a
    person has `most_each` of them at the same time at most."""

    def __init__(self, most_each: int) -> None:
        self.most_each = most_each
        self._lock = threading.Lock()
        self._free: list[S] = []
        self._waiting: OrderedDict[str, deque[_Ticket[S]]] = OrderedDict()
        self._at_work: dict[str, int] = {}

    def add(self, thing: S) -> None:
        """One more thing to be lent."""
        with self._lock:
            self._free.append(thing)
            self._serve()

    def take(self, person: str, seconds: float) -> S | None:
        """One of them, in its turn; None where none comes within so many seconds. Without a name nobody is counted
        together with others."""
        ticket: _Ticket[S] = _Ticket()
        key = person or f"nobody {id(ticket)}"
        with self._lock:
            self._waiting.setdefault(key, deque()).append(ticket)
            self._serve()
        ticket.come.wait(seconds)
        with self._lock:
            if ticket.given is None:
                self._forget(key, ticket)
            return ticket.given

    def give_back(self, person: str, thing: S) -> None:
        """What was lent is free again."""
        with self._lock:
            left = self._at_work.get(person, 1) - 1
            if left > 0:
                self._at_work[person] = left
            else:
                self._at_work.pop(person, None)
            self._free.append(thing)
            self._serve()

    @contextmanager
    def lent(self, person: str, seconds: float) -> Iterator[S | None]:
        """One of them as long as it is needed; None as `take`."""
        thing = self.take(person, seconds)
        try:
            yield thing
        finally:
            if thing is not None:
                self.give_back(person, thing)

    def _serve(self) -> None:
        """Gives what is free to those whose turn it is; the one who was served goes to the end of the round."""
        for key in list(self._waiting):
            if not self._free:
                return
            if self._at_work.get(key, 0) >= self.most_each:
                continue
            tickets = self._waiting.pop(key)
            ticket = tickets.popleft()
            if tickets:
                self._waiting[key] = tickets  # last in the round
            if not key.startswith("nobody "):
                self._at_work[key] = self._at_work.get(key, 0) + 1
            ticket.given = self._free.pop()
            ticket.come.set()

    def _forget(self, key: str, ticket: _Ticket[S]) -> None:
        tickets = self._waiting.get(key)
        if tickets is not None and ticket in tickets:
            tickets.remove(ticket)
            if not tickets:
                del self._waiting[key]


def seconds_of(pid: int) -> float:
    """The processor time that a process has used, in seconds. Raises OSError where it is gone.

    Linux gives the clock of a process by its number: clock_getcpuclockid of its C library is this arithmetic."""
    return time.clock_gettime((~pid << 3) | 2)
