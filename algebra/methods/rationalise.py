"""Denominators freed of roots."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.exact.algebraic_numbers import prime_factors
from algebra.methods.radicals import (
    RootTerm,
    expanded,
    has_roots,
    like_combined,
    multiplied_told,
    reduced_over,
    written,
)
from algebra.methods.terms import number
from algebra.methods.worked_lines import NotThisWay, Problem, WorkedLines, say
from algebra.tree import build
from algebra.tree import nodes as n


def multiply_by_root(problem: Problem) -> WorkedLines:
    """One root below: top and bottom times that root."""
    paper, top, below = _fraction_parts(problem)
    rationalise_one(paper, top, below)
    return paper


def simplify_root_first(problem: Problem) -> WorkedLines:
    """The root below simplified first, then top and bottom times what is left of it."""
    paper, top, below = _fraction_parts(problem)
    small = [t.simplified() for t in below]
    if [t.radicand for t in small] == [t.radicand for t in below]:
        raise NotThisWay("The root in the denominator is simplified already.")
    what = ", ".join(say("{} = {}", t.tree, s.tree) for t, s in zip(below, small, strict=True) if t != s)
    paper.write(build.quotient(written(top), written(small)), "root-of-square", what)
    small = like_combined(small)
    if all(t.radicand == 1 for t in small):
        reduced_over(paper, top, small[0].coefficient)
        return paper
    if len(small) == 1:
        rationalise_one(paper, top, small)
    else:
        rationalise_two(paper, top, small)
    return paper


def conjugate(problem: Problem) -> WorkedLines:
    """Two terms below: top and bottom times the conjugate."""
    paper, top, below = _fraction_parts(problem)
    rationalise_two(paper, top, below)
    return paper


def _fraction_parts(problem: Problem) -> tuple[WorkedLines, list[RootTerm], list[RootTerm]]:
    body = n.bare(problem.body)
    paper = WorkedLines(problem)
    if isinstance(body, n.Root) and isinstance(n.bare(body.radicand), n.Fraction) and body.index is None:
        inner = n.bare(body.radicand)
        assert isinstance(inner, n.Fraction)
        value = problem.value(inner).constant
        if value is not None and value > 0:
            terms = [RootTerm(Q(1), value.numerator)], [RootTerm(Q(1), value.denominator)]
            paper.write(build.root(number(value)), "reduce-fraction", "the common number")
            paper.write(
                build.quotient(*(build.root(n.Integer(term.radicand)) for (term,) in terms)), "root-of-quotient"
            )
            small = terms[1][0].simplified()
            if small.radicand == 1:
                raise NotThisWay("The root below is a whole number.")
            return paper, *terms
    sign = 1
    if isinstance(body, n.Signed) and body.sign == "-":
        sign, body = -1, n.bare(body.child)
    if not isinstance(body, n.Fraction) or n.letters(body) or not has_roots(body.denominator):
        raise NotThisWay("No root stands in the denominator.")
    above = [t.opposite if sign < 0 else t for t in expanded(problem, body.numerator)]
    return paper, above, expanded(problem, body.denominator)


def rationalise_one(paper: WorkedLines, top: list[RootTerm], below: list[RootTerm]) -> None:
    """a/(c√b) times √b above and below."""
    below = like_combined(below)
    if len(below) != 1 or below[0].radicand == 1:
        raise NotThisWay("The denominator is not one root.")
    root = below[0]
    if root.index == 2:
        factor = RootTerm(Q(1), root.radicand, 2)
    else:
        needed = 1
        for prime, power in prime_factors(root.radicand):
            needed *= int(prime) ** (-int(power) % root.index)
        factor = RootTerm(Q(1), needed, root.index)
    if factor.radicand == 1:
        raise NotThisWay("The root in the denominator is a whole number.")
    what = factor.tree
    line = build.quotient(_dotted(written(top), what), build.dotted(written(below), what))
    paper.write(line, "multiply-by-root", what)
    product = [t.times(factor) for t in top]
    bottom = root.times(factor).simplified().coefficient
    told = build.equation(build.dotted(written(below), what), number(bottom))
    paper.write(build.quotient(written(product), number(bottom)), "multiply-roots", told)
    reduced_over(paper, product, bottom)


def _dotted(front: n.Node, factor: n.Node) -> n.Node:
    """The product with a dot; a factor 1 is not written, a minus goes in front."""
    if build.is_minus(front):
        return n.Signed("-", _dotted(front.children[0], factor))
    return factor if front == build.ONE else build.dotted(front, factor)


def rationalise_two(paper: WorkedLines, top: list[RootTerm], below: list[RootTerm]) -> None:
    """a/(b + c) times the conjugate above and below."""
    if len(below) != 2 or any(t.index != 2 for t in (*top, *below)) or all(t.radicand == 1 for t in below):
        raise NotThisWay("The denominator has not two terms with square roots.")
    a, b = below
    other = [a, b.opposite]
    what = written(other)
    front = written(top)
    bracket = n.Group(what)
    if build.is_minus(front):
        above: n.Node = n.Signed("-", build.product(front.children[0], bracket))
    else:
        above = build.product(front, bracket)
    line = build.quotient(above, build.product(n.Group(written(below)), bracket))
    paper.write(line, "multiply-by-conjugate", what)
    squares = [t.coefficient**2 * t.radicand for t in (a, b)]
    bottom = squares[0] - squares[1]
    if bottom == 0:
        raise NotThisWay("The conjugate is zero.")
    difference = n.Sum((number(squares[0]), number(squares[1])), ("-",))
    told = say("{} = {}", difference, number(bottom)).replace(" - ", " − ")
    paper.write(build.quotient(above, difference), "difference-of-squares-roots", told)
    product = [t.times(o) for t in top for o in other]
    if front not in (build.ONE, n.Signed("-", build.ONE)):
        paper.write(build.quotient(written(product), number(bottom)), "distribute-roots", multiplied_told(above))
    reduced_over(paper, product, bottom)
