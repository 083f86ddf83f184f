"""Where an expression or an equation is defined: the denominators set to zero."""

from __future__ import annotations

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import Ratio, depends_on, integer_coefficients, irreducible_factors
from algebra.methods.polynomials import factoring_of, written_root
from algebra.methods.terms import Poly, factors_of
from algebra.methods.worked_lines import BRIEF, EVERY, NotThisWay, Problem, WorkedLines
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln


def denominators(problem: Problem) -> list[Poly]:
    """What must not be zero, as polynomials in the unknown, each once."""
    trees = problem.body.sides if isinstance(problem.body, ln.Equation) else (problem.body,)
    if any(isinstance(p, n.Root | n.Absolute) for tree in trees for p in n.parts_of(tree)):
        raise NotThisWay("Roots stand in it.")
    found = []
    for tree in trees:
        for poly in value_of(tree, problem.field).nonzero:
            if depends_on(poly, problem.unknown):
                found.append(Poly.of(problem.field.ratio(poly), problem.unknown))
    return found


def zeros(poly: Poly) -> list[n.Node]:
    """The real zeros in rising order, written exactly. Raises NotThisWay where other letters occur, or where a zero
    can't be written with roots."""
    values = []
    for factor in irreducible_factors([poly.value.numerator]).values():
        if not depends_on(factor, poly.unknown):
            continue
        if sum(1 for power in factor.degrees() if power) > 1:
            raise NotThisWay("The zeros depend on other letters.")
        values += numbers.roots_of(tuple(integer_coefficients(factor, poly.unknown)))
    return [written_root(value) for value in sorted(set(values))]


def write_domain(paper: WorkedLines, *, kind: str = "exclusion") -> None:
    """The zeros of the denominators worked out as side work, then the statement of what is left out."""
    problem = paper.problem
    x = problem.unknown
    product = problem.field.constant(1)
    seen: list[Ratio] = []
    for poly in denominators(problem):
        if poly.value not in seen:
            seen.append(poly.value)
            product = product * poly.value
    whole = Poly.of(product, x)
    ordered = zeros(whole)
    paper.answer = ordered
    if not ordered:
        paper.write(ln.AllReals(), "state-domain", "no denominator is ever 0.", kind="statement", shown_at=BRIEF)
        return
    if problem.task == "domain":
        _zero_chain(paper, whole, ordered)
    paper.exclude(ordered)
    what = "these values make a denominator of the given 0."
    paper.write(build.left_out(x, ordered), "state-domain", what, kind=kind, shown_at=BRIEF)


def _zero_chain(paper: WorkedLines, poly: Poly, ordered: list[n.Node]) -> None:
    """The denominators as they are written set to zero, then factored as far as they are not yet."""
    x = paper.problem.unknown
    below = list(dict.fromkeys(_denominators_as_written(paper.problem)))
    first = _all_zero(below or [poly.tree])
    paper.write(first, "denominator-zero", kind="zero")
    in_factors = len(below) > 1 or any(len(factors_of(tree)) > 1 for tree in below)
    found = factoring_of(poly)
    if found is not None:
        for tree, rule, what, side, shown_at in found.lines:
            if in_factors and isinstance(tree, n.Sum):
                continue  # what stands in factors is not multiplied out to be factored again
            if len(below) == 1 and tree != below[0]:
                line = build.equation(tree, build.ZERO)
                rule = rule if rule != "product-sum" else "factor-side"
                paper.write(line, rule, what, side=side, kind="zero", shown_at=shown_at)
        own = [tree for tree, p, _ in found.factors if p.degree]
        if len(own) > 1 and _all_zero(own) != first:
            paper.write(_all_zero(own), "zero-product", kind="zero", shown_at=EVERY if len(below) == 1 else BRIEF)
    paper.write(build.solutions(x, ordered), "read-solution", "each factor gives its zero", kind="zero")


def _all_zero(trees: list[n.Node]) -> n.Node:
    return build.alternatives([build.equation(tree, build.ZERO) for tree in trees])


def _denominators_as_written(problem: Problem) -> list[n.Node]:
    """What stands below in the given and holds the unknown; empty where ÷ or a negative power makes a denominator
    too."""
    trees = problem.body.sides if isinstance(problem.body, ln.Equation) else (problem.body,)
    parts = [part for tree in trees for part in n.parts_of(tree)]
    if any(isinstance(p, n.Power) and not isinstance(p.exponent, n.Integer) for p in parts):
        return []
    if any(isinstance(p, n.Product) and "÷" in p.operators for p in parts):
        return []
    below = [n.bare(part.denominator) for part in parts if isinstance(part, n.Fraction)]
    below = [tree for tree in below if problem.unknown in n.letters(tree)]
    return [] if any(isinstance(p, n.Fraction) for tree in below for p in n.parts_of(tree)) else below


def factor_denominator(problem: Problem) -> WorkedLines:
    """The denominators of the given, as written, set to zero."""
    paper = WorkedLines(problem)
    write_domain(paper)
    return paper
