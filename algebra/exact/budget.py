"""The time budget of a check. FLINT calls can't be interrupted, so their input is bounded; between them this is asked."""

from __future__ import annotations

import time
from contextvars import ContextVar

from algebra import limits
from algebra.exact.errors import ExactError

_now = time.monotonic
_deadline: ContextVar[float] = ContextVar("deadline", default=float("inf"))


class OutOfTime(ExactError):
    """The budget of this check is spent; nothing is said rather than something guessed."""

    code = "limit"


def begin() -> None:
    """Starts the budget of one link, or of the answer."""
    _deadline.set(_now() + limits.CHECK_SECONDS)


def end() -> None:
    """Lifts the budget, so that a spent one is not left to whoever works next in this thread."""
    _deadline.set(float("inf"))


def spend() -> None:
    """Raises OutOfTime once the budget is spent."""
    if _now() > _deadline.get():
        raise OutOfTime(f"This was not decided within {limits.CHECK_SECONDS:g} seconds.")
