"""Which way solves an equation with roots, bars, or letters in exponents."""

from __future__ import annotations

from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.solution_sets import SolutionSet
from algebra.exact.solve.exponential import ExponentialSolver, is_in_exponent
from algebra.exact.solve.linear import linear_with_roots
from algebra.exact.solve.parametric import ParametricSolver
from algebra.exact.solve.polynomial import PolynomialSolver
from algebra.exact.solve.radical import RadicalSolver
from algebra.tree import nodes as n


def solve_equation(
    solver: PolynomialSolver, plan: Plan, home: RadicalField, left: n.Node, right: n.Node
) -> SolutionSet:
    """The solutions of one equation, given as trees without ±. Raises OutOfScope where they are not decided."""
    unknown = solver.unknown
    letters = n.letters(left) | n.letters(right)
    if plan.imaginary:
        letters -= {"i"}
    if letters - {unknown}:
        return ParametricSolver(home, unknown).equation(left, right)
    if is_in_exponent(left, unknown) or is_in_exponent(right, unknown):
        return ExponentialSolver(plan, unknown).equation(left, right)
    linear = linear_with_roots(solver, plan, left, right)
    return (
        RadicalSolver(plan, unknown, complex_too=solver.complex_too).equation(left, right) if linear is None else linear
    )
