"""What a family of problems is, and the numbers its generators draw."""

from __future__ import annotations

import random
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction as Q

from algebra.methods.worked_lines import Problem
from algebra.tree import build
from algebra.tree.plain import plain


@dataclass(frozen=True, slots=True, kw_only=True)
class Family:
    """A kind of problem: its task, the methods that work it (default first), its levels and its generator.

    `fits` tells whether a given problem is of the family; `make` draws a given of a level (from 1), built backwards
    from its answer. `unknown` is the letter to solve for where several occur.
    """

    id: str
    name: str
    task: str
    description: str
    methods: tuple[str, ...]
    levels: tuple[str, ...]
    example: str
    fits: Callable[[Problem], bool]
    make: Callable[[Draw, int], str]
    unknown: str | None = None
    numbers: str = "real"
    leads: Callable[[Problem], str] | None = None
    """The method that comes first for this problem, where it is not the first of `methods`; else an empty text."""
    floors: tuple[float, ...] = ()
    """The least difficulty of each level, so that on the average none is easier than the one below it."""

    def floor(self, level: int) -> float:
        """The least difficulty of a level; 0 where there is none."""
        return self.floors[level - 1] if self.floors else 0.0


class Draw:
    """Draws numbers and terms as they stand in school books, from a seeded source."""

    def __init__(self, source: random.Random) -> None:
        self.source = source

    def whole(self, low: int, high: int) -> int:
        """A whole number that is not 0."""
        value = 0
        while value == 0:
            value = self.source.randint(low, high)
        return value

    def one_of(self, *items: str) -> str:
        """One of these texts."""
        return self.source.choice(items)

    def choice(self, items: list[int]) -> int:
        """One of these numbers."""
        return self.source.choice(items)

    def two(self, low: int, high: int) -> tuple[int, int]:
        """Two different whole numbers, neither 0."""
        first = self.whole(low, high)
        second = first
        while second == first:
            second = self.whole(low, high)
        return first, second


def linear(a: int, b: int, letter: str = "x") -> str:
    """`2x - 3`."""
    return polynomial(a, b, letter=letter)


def polynomial(*parts: int, letter: str = "x") -> str:
    """The polynomial with these coefficients, the highest first: (1, -6, -16) is x^2 - 6x - 16."""
    return plain(build.polynomial(parts[::-1], letter))


def product(*roots: int, lead: int = 1) -> list[int]:
    """The coefficients, highest first, of lead·(x − r)(x − s)…"""
    parts = [lead]
    for root in roots:
        longer = [*parts, 0]
        for k, c in enumerate(parts):
            longer[k + 1] -= root * c
        parts = longer
    return parts


def times(left: list[int], right: list[int]) -> list[int]:
    """The coefficients of a product."""
    total = [0] * (len(left) + len(right) - 1)
    for i, a in enumerate(left):
        for j, b in enumerate(right):
            total[i + j] += a * b
    return total


def number(value: Q | int) -> str:
    """A rational number as it is written."""
    return plain(build.number(value))
