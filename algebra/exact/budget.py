"""The time budget of a check. FLINT calls can't be interrupted, so their input is bounded; between them this is asked."""

from __future__ import annotations

import time
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from algebra import limits
from algebra.exact.errors import ExactError

_now = time.monotonic
_deadline: ContextVar[float] = ContextVar("deadline", default=float("inf"))


class OutOfTime(ExactError):
    """The budget of this check is spent; nothing is said rather than something guessed."""

    code = "limit"


def begin() -> None:
    """Starts the budget of one link, or of the answer; for use inside `granted`, which ends it."""
    _deadline.set(_now() + limits.CHECK_SECONDS)


@contextmanager
def granted(seconds: float = limits.CHECK_SECONDS) -> Iterator[None]:
    """A budget for what is done inside, within that of whoever asks for it; afterwards the old one stands again."""
    before = _deadline.set(min(_deadline.get(), _now() + seconds))
    try:
        yield
    finally:
        _deadline.reset(before)


def spend() -> None:
    """Raises OutOfTime once the budget is spent."""
    if _now() > _deadline.get():
        raise OutOfTime(f"This was not decided within {limits.CHECK_SECONDS:g} seconds.")
