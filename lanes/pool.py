"""A few processes that answer questions; one whose question takes too long or too much is ended and replaced.

How long is counted in the processor time of that process: on a busy machine a question is refused no sooner than on an
idle one. A wide bound by the clock stands around it.
"""

from __future__ import annotations

import multiprocessing
import threading
import time
from math import ceil
from multiprocessing.connection import Connection
from multiprocessing.context import BaseContext
from multiprocessing.process import BaseProcess
from typing import ClassVar

from algebra import ReadingError, TaskError, Unsolved
from lanes.allowance import allowances
from lanes.child import Answer, answered, serve
from lanes.turns import Turns, seconds_of, whose

PATIENCE = 4.0
"""How long one waits for a process to be free, in seconds."""
MOST_EACH = 1
"""How many questions of one person are at work at the same time, in each process that asks: the server has two."""
LOOK_SECONDS = 0.05
"""How often it is looked how much a question has used."""
OUTER, OUTER_LEAST = 8.0, 20.0
"""By the clock a question may take so many times as long as by its processor time, and so many seconds in any case."""
QUESTIONS_EACH = 2_000
"""After so many questions a process is replaced: libraries keep small things for good."""


class TooHeavy(TaskError):
    """A question that needs more time or memory than it may have; the message says so."""

    code = "limit"


class Busy(TaskError):
    """No process became free in time: the same question may be answered a moment later."""

    code = "busy"


_ERRORS: dict[str, type[ReadingError] | type[TaskError]] = {
    "ReadingError": ReadingError,
    "Unsolved": Unsolved,
    "TaskError": TaskError,
}
"""What the core raises, by name; raised again here with what it was made of."""
TOO_LONG = "This takes too long to work out. Shorten it, or take smaller numbers."
TOO_LARGE = "This grows too large to be worked out. Shorten it, or take smaller numbers."
TOO_MUCH = "More was asked from here than is worked out for one person in a minute. Try again in {} seconds."
ALL_BUSY = "Several heavy questions are being worked out. Try again in a moment."


class _Slot:
    """One process, begun when it is first asked."""

    def __init__(self, context: BaseContext, memory: int, niceness: int) -> None:
        self._context, self._memory, self._niceness = context, memory, niceness
        self._process: BaseProcess | None = None
        self._pipe: Connection | None = None
        self._asked = 0
        self.took = 0.0

    def ask(self, name: str, arguments: tuple[object, ...], keywords: dict[str, object], seconds: float) -> Answer:
        """How it went and what came of it. Raises TooHeavy."""
        if self._asked >= QUESTIONS_EACH or self._process is None or not self._process.is_alive():
            self.end()
            self._begin()
        pipe = self._pipe
        assert pipe is not None
        self._asked += 1
        self.took = 0.0
        try:
            used = self._used()
            pipe.send((name, arguments, keywords))
            until = time.monotonic() + max(OUTER * seconds, OUTER_LEAST)
            wait = seconds  # it can't have used more before
            while not pipe.poll(wait):
                left = seconds - (self._used() - used)
                if left <= 0 or time.monotonic() > until:
                    self.took = seconds - left
                    self.end()
                    raise TooHeavy(TOO_LONG)
                wait = max(left, LOOK_SECONDS)
            found: Answer = pipe.recv()
            self.took = self._used() - used
        except (EOFError, OSError) as gone:  # ended from outside, or by a library that found no memory
            self.end()
            raise TooHeavy(TOO_LARGE) from gone
        return found

    def _used(self) -> float:
        pid = self._process.pid if self._process is not None else None
        return seconds_of(pid) if pid is not None else 0.0

    def _begin(self) -> None:
        self._pipe, other = self._context.Pipe()
        asked = (other, self._memory, self._niceness)
        begin = self._context.Process  # type: ignore[attr-defined]  # of every context, though not of their base
        self._process = begin(target=serve, args=asked, daemon=True)
        self._process.start()
        other.close()
        self._asked = 0

    def end(self) -> None:
        """Ends the process, if there is one."""
        if self._pipe is not None:
            self._pipe.close()
        if self._process is not None:
            self._process.kill()
            self._process.join()
            self._process.close()
        self._pipe = self._process = None


class Pool:
    """`size` processes; `memory` is how much each may grow, in bytes; `inline` answers in this process, without
    limits."""

    _context: ClassVar[BaseContext | None] = None

    def __init__(
        self, size: int, *, memory: int, niceness: int = 0, inline: bool = False, patience: float = PATIENCE
    ) -> None:
        self._inline, self._patience = inline, patience
        self._turns: Turns[_Slot] = Turns(MOST_EACH)
        self._slots: list[_Slot] = []
        self._beginning = threading.Lock()
        self._size, self._memory, self._niceness = size, memory, niceness

    def ask(self, name: str, *arguments: object, seconds: float, **keywords: object) -> object:
        """The answer to a question, within so many seconds. Raises TooHeavy, Busy, and what the question raises."""
        if self._inline:
            how, what = answered(name, arguments, keywords)
        else:
            self._ready()
            if wait := allowances.wait(whose()):
                raise Busy(TOO_MUCH.format(ceil(wait)))
            with self._turns.lent(whose(), self._patience) as slot:
                if slot is None:
                    raise Busy(ALL_BUSY)
                try:
                    how, what = slot.ask(name, arguments, keywords, seconds)
                finally:
                    allowances.used(whose(), slot.took)
        if how == "answer":
            return what
        if how == "memory":
            raise TooHeavy(TOO_LARGE)
        if how in _ERRORS:
            raise _ERRORS[how](*what)
        raise RuntimeError(f"The core failed:\n{what}")

    def _ready(self) -> None:
        """Makes the slots when the first question comes: after a server has made its workers by forking."""
        with self._beginning:
            if self._slots:
                return
            self._slots = [_Slot(self._processes(), self._memory, self._niceness) for _ in range(self._size)]
            for slot in self._slots:
                self._turns.add(slot)

    @classmethod
    def from_this_process(cls) -> None:
        """Processes come from this one from now on: for a command, which has the core in memory and no threads."""
        cls._context = multiprocessing.get_context("fork")

    @classmethod
    def _processes(cls) -> BaseContext:
        """Processes come from one that has the core in memory and no threads, so that a new one is there at once."""
        if cls._context is None:
            context = multiprocessing.get_context("forkserver")
            context.set_forkserver_preload(["lanes.child"])
            cls._context = context
        return cls._context

    def close(self) -> None:
        """Ends all processes; they are begun again when something is asked."""
        for slot in self._slots:
            slot.end()
