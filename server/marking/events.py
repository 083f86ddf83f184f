"""What marking tells those who are built on it."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class LinesPut:
    """Lines were put in a student's place by another: typed, taken in, or read from a page."""

    working: int
    given_set: int


@dataclass(frozen=True, slots=True)
class LinesVerified:
    """All workings of an item with these lines were verified among the jobs."""

    item: int
    given_set: int
    lines: list[str]
