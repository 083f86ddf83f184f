"""Equations with roots and bars in one letter: on every cell the zeros of the norm are candidates, each put in
exactly."""

from __future__ import annotations

from collections.abc import Iterable

from algebra.exact.algebraic_numbers import Number, rational
from algebra.exact.decomposition import Decomposition, between
from algebra.exact.errors import UndefinedValue
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Poly, irreducible_factors
from algebra.exact.real_sets import RealSet
from algebra.exact.solution_sets import SolutionSet, from_real, number_solution
from algebra.exact.solve.candidates import numbers_of, solves
from algebra.tree import nodes as n


class RadicalSolver:
    """Solves one equation in one letter, given as trees without ±."""

    def __init__(self, plan: Plan, unknown: str, *, complex_too: bool = False) -> None:
        self.plan = plan
        self.unknown = unknown
        self.complex_too = complex_too

    def equation(self, left: n.Node, right: n.Node) -> SolutionSet:
        """The solutions. Raises OutOfScope where they are not decided."""
        cells = Decomposition((self.unknown,), self.plan)

        poles: list[Poly] = []

        def candidates(cell: RadicalField) -> dict[str, Poly] | bool | None:
            try:
                first, second = value_of(left, cell), value_of(right, cell)
            except UndefinedValue:
                return None
            poles.extend(first.nonzero + second.nonzero)
            difference = first.ratio - second.ratio
            if difference.is_zero:
                return True
            return cell.split_by(difference)

        found: dict[str, Poly] = {}
        filled = 0
        judged = cells.each(candidates)
        for _, result in judged:
            if result is True:
                filled += 1
            elif isinstance(result, dict):
                found |= result
        found |= cells.polys | irreducible_factors(poles)
        values = self._zeros(found.values())
        if filled == len(judged):
            missing = [value for value in values if not self._solves(left, right, value)]
            return SolutionSet(frozenset(number_solution(v) for v in missing), cofinite=True)
        if filled:
            ends = sorted({v for v in values if v.is_real})
            pieces = [self._piece_solves(left, right, ends, k) for k in range(len(ends) + 1)]
            return from_real(RealSet.of(ends, pieces.__getitem__, lambda v: self._solves(left, right, v)))
        members = frozenset(number_solution(value) for value in values if self._solves(left, right, value))
        return SolutionSet(members, False, frozenset(str(s.key) for s in members))

    def _piece_solves(self, left: n.Node, right: n.Node, ends: list[Number], k: int) -> bool:
        """Whether the open piece before the k-th end is all solutions: as its cell, so one point of it."""
        low = ends[k - 1] if k else None
        high = ends[k] if k < len(ends) else None
        return self._solves(left, right, rational(between(low, high)))

    def _zeros(self, polys: Iterable[Poly]) -> list[Number]:
        return numbers_of(polys, self.unknown, complex_too=self.complex_too)

    def _solves(self, left: n.Node, right: n.Node, value: Number) -> bool:
        return solves(self.plan, self.unknown, left, right, value)
