"""Polynomial and rational equations in one unknown, other letters as parameters: the roots of irreducible factors."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.definite import definite_sign
from algebra.exact.evaluate.symbolic import Value
from algebra.exact.rational_functions import (
    Field,
    Poly,
    coefficients,
    depends_on,
    integer_coefficients,
    irreducible_factors,
)
from algebra.exact.solution_sets import Solution, SolutionSet, number_solution


class PolynomialSolver:
    """Solves for one unknown over a field of rational functions in all letters of the working."""

    def __init__(
        self, over: Field, unknown: str, *, complex_too: bool = False, signs: Mapping[str, int] | None = None
    ) -> None:
        self.field = over
        self.unknown = unknown
        self.position = over.position(unknown)
        self.complex_too = complex_too
        self.signs = {name: sign for name, sign in (signs or {}).items() if name != unknown}  # of other letters
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
            never = not self.complex_too and definite_sign(poly, self.signs) is not None
            return [] if never else [Solution(key, None, poly, under=self._under(poly))]
        plain = tuple(integer_coefficients(poly, self.unknown))
        return [number_solution(number) for number in numbers.roots_of(plain, complex_too=self.complex_too)]

    def _under(self, poly: Poly) -> Poly | None:
        """The discriminant of a polynomial that is quadratic in the unknown: its zeros are real where it is not
        negative."""
        parts = coefficients(poly, self.unknown)
        return parts[1] * parts[1] - 4 * parts[0] * parts[2] if len(parts) == 3 else None
