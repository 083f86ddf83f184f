"""Polynomial and rational equations in one unknown, other letters as parameters: the roots of irreducible factors."""

from __future__ import annotations

from collections.abc import Iterable

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.evaluate.symbolic import Value
from algebra.exact.rational_functions import Field, Poly, depends_on, integer_coefficients, irreducible_factors
from algebra.exact.solution_sets import Solution, SolutionSet, number_solution


class PolynomialSolver:
    """Solves for one unknown over a field of rational functions in all letters of the working."""

    def __init__(self, over: Field, unknown: str, *, complex_too: bool = False) -> None:
        self.field = over
        self.unknown = unknown
        self.position = over.position(unknown)
        self.complex_too = complex_too
        self._known: dict[str, list[Solution]] = {}  # the roots of factors met before

    def equation(self, left: Value, right: Value) -> SolutionSet:
        """The solutions of left = right on its own natural domain."""
        return self.zeros_of((left.ratio - right.ratio).numerator, left.nonzero + right.nonzero)

    def zeros_of(self, difference: Poly, nonzero: Iterable[Poly]) -> SolutionSet:
        """The zeros of a polynomial in the letters at which none of the others is zero."""
        excluded = self.of_unknown(irreducible_factors(nonzero))
        if difference == 0:
            return SolutionSet(self.solutions(excluded), cofinite=True)
        found = self.of_unknown(irreducible_factors([difference]))
        if excluded:
            found = {key: poly for key, poly in found.items() if key not in excluded}
        return SolutionSet(self.solutions(found), False, frozenset(found))

    def zeros(self, polys: Iterable[Poly]) -> frozenset[Solution]:
        """The values of the unknown at which one of the polynomials is zero."""
        return self.solutions(self.of_unknown(irreducible_factors(polys)))

    def of_unknown(self, factors: dict[str, Poly]) -> dict[str, Poly]:
        """Those of the factors that hold the unknown."""
        return {key: poly for key, poly in factors.items() if depends_on(poly, self.unknown)}

    def solutions(self, factors: dict[str, Poly]) -> frozenset[Solution]:
        """The roots of irreducible polynomials in the unknown, given by their text."""
        found: set[Solution] = set()
        for key, poly in factors.items():
            known = self._known.get(key)
            if known is None:
                known = self._known[key] = self._roots(key, poly)
            found.update(known)
        return frozenset(found)

    def _roots(self, key: str, poly: Poly) -> list[Solution]:
        if sum(map(bool, poly.degrees())) > 1:  # other letters occur
            return [Solution(key, None, poly)]
        plain = tuple(integer_coefficients(poly, self.unknown))
        return [number_solution(number) for number in numbers.roots_of(plain, complex_too=self.complex_too)]
