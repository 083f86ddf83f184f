"""The budget of a check, counted in units of work and not in time: the same question ends the same way on any machine.

FLINT calls can't be interrupted, so their input is bounded; between them work is counted. A unit is about what
evaluating a small expression takes.
"""

from __future__ import annotations

from contextvars import ContextVar

from algebra import limits
from algebra.exact.errors import ExactError


class OutOfEffort(ExactError):
    """The budget of this check is spent; nothing is said rather than something guessed."""

    code = "limit"


class _Budget:
    """What is left of a budget, and the budget that it is a part of."""

    __slots__ = ("left", "outer")

    def __init__(self, left: float, outer: _Budget | None) -> None:
        self.left = left
        self.outer = outer


_current: ContextVar[_Budget | None] = ContextVar("budget", default=None)


class granted:  # noqa: N801 - used like a function, in a with statement
    """A budget for what is done inside, within that of whoever asks for it; afterwards the outer one goes on."""

    __slots__ = ("_before", "_units")

    def __init__(self, units: int = limits.CHECK_WORK) -> None:
        self._units = units

    def __enter__(self) -> None:
        self._before = _current.set(_Budget(self._units, _current.get()))

    def __exit__(self, *failure: object) -> None:
        _current.reset(self._before)


def spend(units: int = 1) -> None:
    """Counts work done. Raises OutOfEffort once a budget is spent, that of a caller included."""
    budget = _current.get()
    while budget is not None:
        budget.left -= units
        if budget.left < 0:
            raise OutOfEffort("This was not decided within the work allowed for one line.")
        budget = budget.outer


def has_some() -> bool:
    """Whether anything is left of the budgets granted."""
    budget = _current.get()
    while budget is not None:
        if budget.left <= 0:
            return False
        budget = budget.outer
    return True


def units_left() -> float:
    """What is left of the innermost budget; without one, no bound."""
    budget = _current.get()
    return float("inf") if budget is None else budget.left
