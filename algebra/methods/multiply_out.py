"""Polynomials multiplied out and like terms combined."""

from __future__ import annotations

from algebra.methods.terms import Poly, has_brackets_to_open, listed, shown, spread, times_each
from algebra.methods.worked_lines import BRIEF, EVERY, NotThisWay, Problem, WorkedLines, say
from algebra.tree import build
from algebra.tree import nodes as n


def _bracket_twice(paper: WorkedLines, problem: Problem) -> None:
    """(2x+7)² as (2x+7)(2x+7), then every product by itself, at the finest grain."""

    def twice(node: n.Node) -> n.Node:
        if isinstance(node, n.Power) and node.exponent == n.Integer(2) and isinstance(n.bare(node.base), n.Sum):
            return build.implied_product([node.base, node.base])
        children = tuple(twice(child) for child in node.children)
        if isinstance(node, n.Sum | n.Signed | n.Product):
            children = tuple(
                c if new is old or not isinstance(c, n.Sum) else n.Group(c)
                for c, new, old in zip(children, children, node.children, strict=True)
            )
        return node.with_children(children) if children else node

    line = twice(problem.body)
    told = next(
        say("{} = {}", p, twice(p)) for p in n.parts_of(problem.body) if isinstance(p, n.Power) and twice(p) != p
    )
    paper.write(line, "power-as-product", told, shown_at=EVERY)
    paper.write(listed(spread(problem, line)), "distribute", times_each(line), shown_at=EVERY)


def expand_and_combine(problem: Problem) -> WorkedLines:
    """Every bracket opened, then like terms combined."""
    value = problem.value(problem.body)
    if not value.is_polynomial or any(
        isinstance(p, n.Fraction) and n.letters(p.denominator) for p in n.parts_of(problem.body)
    ):
        raise NotThisWay("It is no polynomial.")
    if not n.letters(problem.body):
        raise NotThisWay("There are no letters.")
    paper = WorkedLines(problem)
    if has_brackets_to_open(problem.body):
        square = next(
            (p for p in n.parts_of(problem.body) if isinstance(p, n.Power) and isinstance(n.bare(p.base), n.Sum)), None
        )
        if square is not None and square.exponent == n.Integer(2):
            _bracket_twice(paper, problem)
        rule = "square-of-sum" if square is not None and square.exponent == n.Integer(2) else "distribute"
        paper.write(listed(spread(problem, problem.body)), rule, times_each(problem.body))
    letters = n.letters(problem.body)
    final = Poly.of(value, problem.unknown).tree if len(letters) == 1 else shown(value)
    paper.write(final, "like-terms", "terms with the same letters and exponents are added", shown_at=BRIEF)
    if not paper.steps:
        raise NotThisWay("There is nothing to multiply out.")
    paper.answer = [paper.line]
    return paper
