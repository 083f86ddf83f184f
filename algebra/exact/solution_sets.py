"""Solution sets of equations in one unknown, exact, with other letters as parameters."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from algebra.exact.algebraic_numbers import Number
from algebra.exact.logarithms import Logarithm
from algebra.exact.rational_functions import Poly
from algebra.exact.real_sets import RealSet
from algebra.records import record


@dataclass(frozen=True, slots=True)
class Solution:
    """One member of a solution set: a number, a logarithm, (with parameters) the roots of a polynomial in the unknown,
    or a text, which writes members that are none of these."""

    key: str
    number: Number | None = None
    polynomial: Poly | None = None
    text: str = ""
    log: Logarithm | None = None
    under: Poly | None = None  # in parameters: real where this is not negative
    is_written: bool = True  # False where the text only describes the value

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Solution) and self.key == other.key

    def __hash__(self) -> int:
        return hash(self.key)


@record(frozen=True)
class SolutionSet:
    """Finitely many solutions, or everything but finitely many.

    `complex_factors` are the irreducible polynomials whose roots, real or not, solve the equation: they tell
    two equations apart that have no real solution.
    """

    members: frozenset[Solution] = frozenset()
    cofinite: bool = False
    complex_factors: frozenset[str] = frozenset()

    intervals: RealSet | None = None

    @property
    def is_empty(self) -> bool:
        """Whether nothing solves it."""
        return not self.cofinite and not self.members and self.intervals is None

    @property
    def as_real(self) -> RealSet:
        """The same set as intervals and points; its members must be real numbers."""
        if self.intervals is not None:
            return self.intervals
        return RealSet.points((s.number for s in self.members if s.number is not None), outside=self.cofinite)

    def _by_intervals(self, other: SolutionSet, rule: Callable[[bool, bool], bool]) -> SolutionSet | None:
        """The combination where one of the two sets has intervals, else None."""
        if self.intervals is None and other.intervals is None:
            return None
        return from_real(self.as_real.combined(other.as_real, rule))

    def minus(self, other: SolutionSet) -> SolutionSet:
        """The solutions that the other set does not have."""
        filled = self._by_intervals(other, lambda a, b: a and not b)
        if filled is not None:
            return filled
        if not self.cofinite:
            kept = self.members & other.members if other.cofinite else self.members - other.members
            return SolutionSet(kept)
        if other.cofinite:
            return SolutionSet(other.members - self.members)
        return SolutionSet(self.members | other.members, cofinite=True)

    def same_as(self, other: SolutionSet) -> bool:
        """Whether both hold the same solutions."""
        same = self.cofinite == other.cofinite and self.members == other.members
        return same and self.intervals == other.intervals

    def union(self, other: SolutionSet) -> SolutionSet:
        """What is in the one or in the other."""
        filled = self._by_intervals(other, lambda a, b: a or b)
        if filled is not None:
            return filled
        factors = self.complex_factors | other.complex_factors
        if self.cofinite and other.cofinite:
            return SolutionSet(self.members & other.members, True, factors)
        if self.cofinite or other.cofinite:
            whole, part = (self, other) if self.cofinite else (other, self)
            return SolutionSet(whole.members - part.members, True, factors)
        return SolutionSet(self.members | other.members, False, factors)

    def has(self, solution: Solution) -> bool:
        """Whether a solution is in the set."""
        if self.intervals is not None:
            return solution.number is not None and solution.number in self.intervals
        return (solution in self.members) != self.cofinite


def number_solution(number: Number) -> Solution:
    """The solution that is this number."""
    return Solution(f"{number.polynomial}#{number.index}", number)


def log_solution(log: Logarithm) -> Solution:
    """The solution that is this logarithm, which is no algebraic number."""
    of = f"{log.of.polynomial}#{log.of.index}"
    return Solution(f"log {log.base} {log.times} {of}", None, None, str(log), log)


def within(solutions: SolutionSet, values: RealSet | None) -> SolutionSet:
    """The solutions that are among these values, as far as they are numbers; None leaves all."""
    if values is None:
        return solutions
    if solutions.cofinite or solutions.intervals is not None:
        return from_real(solutions.as_real.combined(values, lambda a, b: a and b))
    kept = frozenset(s for s in solutions.members if s.number is None or s.number in values)
    return SolutionSet(kept, False, solutions.complex_factors)


def from_real(found: RealSet) -> SolutionSet:
    """The solution set that is this set of reals, in its simplest form."""
    if found.is_finite or found.is_cofinite:
        return SolutionSet(frozenset(number_solution(end) for end in found.ends), cofinite=found.is_cofinite)
    return SolutionSet(intervals=found)


EMPTY = SolutionSet()
EVERYTHING = SolutionSet(cofinite=True)
