"""Equations that are linear in the unknown, their numbers built with roots, the unknown under none."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.errors import OutOfScope, UndefinedValue
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Ratio, by_powers
from algebra.exact.sign_determination import SignUnknown
from algebra.exact.solution_sets import EMPTY, SolutionSet, number_solution
from algebra.exact.solve.candidates import coefficients_of, is_under_root, numbers_of
from algebra.exact.solve.polynomial import PolynomialSolver
from algebra.exact.surds import surd_number
from algebra.tree import nodes as n


def one_surd(solver: PolynomialSolver, home: RadicalField, difference: Ratio) -> SolutionSet | None:
    """The solution of a linear equation whose numbers hold roots, the unknown under none, nothing divided by; else
    None."""
    poly, place = difference.numerator, home.position(solver.unknown)
    if poly == 0 or not difference.is_polynomial or poly.degrees()[place] != 1:
        return None
    degrees = poly.degrees()
    if any(
        degrees[made.position] and (made.base is None or not made.base.is_constant()) for made in home.made.values()
    ):
        return None
    parts = by_powers(poly, place)
    value = -home.ratio(parts.get(0, home.zero)) / home.ratio(parts[1])
    number = numbers.rational(value.constant) if value.constant is not None else surd_number(value)
    return None if number is None else SolutionSet(frozenset({number_solution(number)}))


def linear_with_roots(solver: PolynomialSolver, plan: Plan, left: n.Node, right: n.Node) -> SolutionSet | None:
    """The one solution of an equation that is linear in the unknown, its numbers built with roots; else None.

    The norm of x - v vanishes at v, so v is that root of it whose enclosure meets the enclosure of v.
    """
    if any(is_under_root(part, solver.unknown) for tree in (left, right) for part in n.parts_of(tree)):
        return None
    cell = RadicalField((solver.unknown,), plan, {solver.unknown: Q(2)}, {})
    try:
        first, second = value_of(left, cell), value_of(right, cell)
        if first.nonzero or second.nonzero:
            return None  # the solution could lie where a denominator is zero: there each candidate is put in
        difference = first.ratio - second.ratio
    except UndefinedValue:
        return EMPTY
    except SignUnknown:
        return None
    poly = difference.numerator
    position = cell.position(solver.unknown)
    if not difference.is_polynomial or poly == 0 or poly.degrees()[position] != 1:
        return None
    parts = coefficients_of(cell, poly, solver.unknown)
    value = -parts[0] / parts[1]
    if value.constant is not None:
        return SolutionSet(frozenset({number_solution(numbers.rational(value.constant))}))
    surd = surd_number(value)
    if surd is not None:
        return SolutionSet(frozenset({number_solution(surd)}))
    goal = cell.approximate(value)
    equation = cell.letter(solver.unknown) - value
    found = [
        number
        for number in numbers_of(cell.split_by(equation).values(), solver.unknown, complex_too=solver.complex_too)
        if (number.enclosure - goal).contains(0)
    ]
    if len(found) != 1:
        raise OutOfScope("This number is not decided.", "√")
    return SolutionSet(frozenset({number_solution(found[0])}))
