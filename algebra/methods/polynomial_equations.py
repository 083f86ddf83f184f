"""Polynomial equations of any degree, by whatever way ends them: the tail of most other methods."""

from __future__ import annotations

from algebra.methods.linear import polys_of, simplify_sides, undo
from algebra.methods.polynomials import factoring_of, root_statements
from algebra.methods.quadratic import (
    by_factoring,
    by_formula,
    isolate_square,
    product_is_zero,
    square_of,
    standard_form,
)
from algebra.methods.terms import Poly
from algebra.methods.worked_lines import NotThisWay, Problem, WorkedLines
from algebra.tree import nodes as n


def finish_polynomial(paper: WorkedLines) -> None:
    """From the paper's last line, a polynomial equation, to the solutions. Raises NotThisWay where none is in reach."""
    problem = paper.here
    x = problem.unknown
    left_tree, right_tree = problem.sides()
    left, right = polys_of(problem)
    difference = Poly.of(left.value - right.value, x)
    if difference.degree <= 1:
        simplify_sides(paper, left_tree, right_tree)
        undo(paper, *polys_of(paper.here), ladder=False)
        return
    ready = product_is_zero(problem)
    if ready is not None:
        root_statements(paper, ready)
        return
    alone = square_of(problem, left_tree, right_tree) if difference.degree == 2 else None
    if alone is not None and not (alone[0] == n.Letter(x) and factoring_of(difference)):
        isolate_square(paper, *alone)
        return
    total = standard_form(paper)
    if total.degree == 2 and total[1].is_zero and factoring_of(total) is None:
        alone = square_of(problem, *paper.here.sides())
        if alone is not None:
            isolate_square(paper, *alone)
            return
    if factoring_of(total) is not None:
        by_factoring(paper, total)
    elif total.degree == 2:
        by_formula(paper, total)
    else:
        raise NotThisWay("The polynomial does not factor over the rational numbers.")


def polynomial_factoring(problem: Problem) -> WorkedLines:
    """Everything on one side and factored, whatever the degree."""
    left, right = polys_of(problem)
    if Poly.of(left.value - right.value, problem.unknown).degree < 2:
        raise NotThisWay("The equation is linear.")
    paper = WorkedLines(problem)
    ready = product_is_zero(problem)
    if ready is not None:
        root_statements(paper, ready)
        return paper
    by_factoring(paper, standard_form(paper))
    return paper
