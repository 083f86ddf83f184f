"""Equations that are linear in one absolute value: |A| = B holds at the zeros of (A - B)(A + B) at which B is not
negative."""

from __future__ import annotations

from typing import Any

from flint import fmpq

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.ball import at_number, is_apart
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import coefficients, field_of, irreducible_factors, univariate
from algebra.exact.solution_sets import Solution, SolutionSet, number_solution
from algebra.exact.solve.polynomial import PolynomialSolver
from algebra.tree import nodes as n
from algebra.tree.substitute import substituted

_BAR = "|"
"""The letter put in place of the absolute value."""


def one_bar(solver: PolynomialSolver, left: n.Node, right: n.Node) -> SolutionSet | None:
    """The solutions of an equation that is linear in one absolute value, everything else polynomial; else None."""
    bars = {part for side in (left, right) for part in n.parts_of(side) if isinstance(part, n.Absolute)}
    if len(bars) != 1:
        return None
    (bar,) = bars
    over = field_of((solver.unknown, _BAR))
    try:
        first, second = (value_of(substituted(side, {bar: n.Letter(_BAR)}), over) for side in (left, right))
        inside = value_of(bar.child, over)
    except ExactError:
        return None
    difference = first.ratio - second.ratio
    if first.nonzero or second.nonzero or inside.nonzero or not difference.is_polynomial:
        return None
    parts = coefficients(difference.numerator, _BAR)
    if len(parts) != 2 or not parts[1].is_constant():
        return None
    other = over.ratio(-parts[0], parts[1])
    product = (inside.ratio - other) * (inside.ratio + other)
    if product.is_zero or not product.is_polynomial:
        return None
    bound = univariate(other.numerator, 0)
    sign = 1 if other.denominator.leading_coefficient() > 0 else -1
    members: set[Solution] = set()
    for factor in irreducible_factors([product.numerator]).values():
        for number in numbers.roots_of(tuple(int(c) for c in univariate(factor, 0).coeffs())):
            value = number.rational
            at: Any = number.enclosure.real if value is None else fmpq(value.numerator, value.denominator)
            size = at_number(bound, at) * sign
            if value is None and not is_apart(size):
                return None
            if size >= 0:
                members.add(number_solution(number))
    return SolutionSet(frozenset(members), False, frozenset(s.key for s in members))
