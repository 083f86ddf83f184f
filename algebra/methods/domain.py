"""Where an expression or an equation is defined: the denominators set to zero."""

from __future__ import annotations

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import depends_on, integer_coefficients, irreducible_factors
from algebra.methods.paper import BRIEF, EVERY, NotThisWay, Paper, Problem
from algebra.methods.polynomials import factoring_of
from algebra.methods.terms import Poly, factors_of
from algebra.parse.lines import read_expression
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain


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


def zeros(poly: Poly) -> list[str]:
    """The real zeros in rising order, written exactly. Raises NotThisWay where other letters occur."""
    values = []
    for factor in irreducible_factors([poly.value.numerator]).values():
        if not depends_on(factor, poly.unknown):
            continue
        if sum(1 for power in factor.degrees() if power) > 1:
            raise NotThisWay("The zeros depend on other letters.")
        values += numbers.roots_of(tuple(integer_coefficients(factor, poly.unknown)))
    return [str(v) for v in sorted(set(values), key=lambda v: v.approximation.real)]


def write_domain(paper: Paper, *, kind: str = "exclusion") -> list[str]:
    """The zeros of the denominators worked out as side work, then the statement of what is left out."""
    problem = paper.problem
    x = problem.unknown
    polys = denominators(problem)
    seen: set[str] = set()
    all_zeros: set[str] = set()
    for poly in polys:
        text = str(poly)
        if text in seen:
            continue
        seen.add(text)
        values = zeros(poly)
        all_zeros |= set(values)
    product = polys[0].value if polys else None
    for poly in polys[1:]:
        if product is not None and str(poly) not in {str(polys[0])}:
            product = product * poly.value
    if not all_zeros:
        paper.write("all real numbers", "state-domain", "no denominator is ever 0.", kind="statement", shown_at=BRIEF)
        paper.answer = []
        return []
    assert product is not None
    ordered = list(zeros(Poly.of(product, x)))
    if problem.task == "domain":
        _zero_chain(paper, Poly.of(product, x), ordered)
    paper.exclude(ordered)
    paper.write(
        f"{x} ≠ {', '.join(ordered)}",
        "state-domain",
        "these values make a denominator of the given 0.",
        kind=kind,
        shown_at=BRIEF,
    )
    paper.answer = ordered
    return ordered


def _zero_chain(paper: Paper, poly: Poly, ordered: list[str]) -> None:
    """The denominators as they are written set to zero, then factored as far as they are not yet."""
    x = paper.problem.unknown
    below = list(dict.fromkeys(_denominators_as_written(paper.problem)))
    first = " or ".join(f"{plain(tree)} = 0" for tree in below) or f"{poly} = 0"
    paper.write(first, "denominator-zero", kind="zero")
    in_factors = len(below) > 1 or any(len(factors_of(tree)) > 1 for tree in below)
    found = factoring_of(poly)
    if found is not None:
        for text, rule, what, side in found.lines:
            tree = read_expression(text)
            if in_factors and isinstance(tree, n.Sum):
                continue  # what stands in factors is not multiplied out to be factored again
            if len(below) == 1 and _without_spaces(text) != _without_spaces(plain(below[0])):
                paper.write(
                    f"{text} = 0", rule if rule != "product-sum" else "factor-side", what, side=side, kind="zero"
                )
        own = [text for text, p, _ in found.factors if p.degree]
        factors = " or ".join(f"{text} = 0" for text in own)
        if len(own) > 1 and _without_spaces(factors) != _without_spaces(first):
            paper.write(factors, "zero-product", kind="zero", shown_at=EVERY if len(below) == 1 else BRIEF)
    paper.write(" or ".join(f"{x} = {v}" for v in ordered), "read-solution", "each factor gives its zero", kind="zero")


def _denominators_as_written(problem: Problem) -> list[n.Node]:
    """What stands below in the given and holds the unknown; empty where ÷ or a negative power makes a denominator too."""
    trees = problem.body.sides if isinstance(problem.body, ln.Equation) else (problem.body,)
    parts = [part for tree in trees for part in n.parts_of(tree)]
    if any(isinstance(p, n.Power) and not isinstance(p.exponent, n.Integer) for p in parts):
        return []
    if any(isinstance(p, n.Product) and "÷" in p.operators for p in parts):
        return []
    below = [n.bare(part.denominator) for part in parts if isinstance(part, n.Fraction)]
    below = [tree for tree in below if problem.unknown in n.letters(tree)]
    return [] if any(isinstance(p, n.Fraction) for tree in below for p in n.parts_of(tree)) else below


def _without_spaces(text: str) -> str:
    return text.replace(" ", "")


def factor_denominator(problem: Problem) -> Paper:
    """The denominators of the given, as written, set to zero."""
    paper = Paper(problem)
    write_domain(paper)
    return paper
