"""Why a value could not be had.

ExactError
  OutOfScope        the expression uses something this core does not decide
  TooLarge          writing it out would pass a bound of algebra.limits
  UndefinedValue    it is undefined for every value of its letters (5/0)
"""

from __future__ import annotations

from typing import Literal


class ExactError(ValueError):
    """`symbol` is a piece of the written line near which the cause stands, for the error's column."""

    code: Literal["scope", "limit", "task"] = "scope"

    def __init__(self, message: str, symbol: str = "") -> None:
        super().__init__(message)
        self.message = message
        self.symbol = symbol


class OutOfScope(ExactError):
    pass


class TooLarge(ExactError):
    code = "limit"


class UndefinedValue(ExactError):
    """`why` is the cause, to go on a sentence."""

    code = "task"

    def __init__(self, why: str, symbol: str = "") -> None:
        super().__init__(f"It is undefined: {why}.", symbol)
        self.why = why
