"""How much work one person may have done: processor seconds, so many at once and so many each minute after that.

It is counted by what questions have used, whatever they were, from the first on; each process that asks counts for
itself, and has its part of what a person may have.
"""

from __future__ import annotations

import threading
import time
from collections.abc import Callable

from lanes.settings import PROCESSES, STUDENT_SECONDS, TEACHER_SECONDS

STUDENT = "student "
"""How the name of a person begins who is a student."""
MOST_KNOWN = 4_000
"""From so many people on, those are forgotten who have their whole allowance again."""


class Allowances:
    """What each person has left (a bucket that fills by the minute: token bucket). A question may begin as long as
    something is left; what it has used is taken away when it ends."""

    def __init__(
        self, student: float, other: float, *, parts: int = 1, clock: Callable[[], float] = time.monotonic
    ) -> None:
        self._student, self._other = student / parts, other / parts
        self._clock = clock
        self._lock = threading.Lock()
        self._left: dict[str, tuple[float, float]] = {}

    def _most(self, person: str) -> float:
        return self._student if person.startswith(STUDENT) else self._other

    def _now(self, person: str) -> float:
        most = self._most(person)
        left, at = self._left.get(person, (most, 0.0))
        return min(most, left + most * (self._clock() - at) / 60)

    def wait(self, person: str) -> float:
        """After how many seconds a person may ask again; 0 where that is now. Nobody in particular may always."""
        if not person:
            return 0.0
        with self._lock:
            left, most = self._now(person), self._most(person)
        return 0.0 if left > 0 else 60 * (0.05 * most - left) / most

    def used(self, person: str, seconds: float) -> None:
        """Takes away what a question of this person has used."""
        if not person:
            return
        with self._lock:
            self._left[person] = (self._now(person) - seconds, self._clock())
            if len(self._left) > MOST_KNOWN:
                self._left = {who: kept for who, kept in self._left.items() if self._now(who) < self._most(who)}


allowances = Allowances(STUDENT_SECONDS, TEACHER_SECONDS, parts=PROCESSES)
