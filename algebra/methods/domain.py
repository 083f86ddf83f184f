"""Where an expression or an equation is defined: the denominators set to zero."""

from __future__ import annotations

from algebra.exact import numbers
from algebra.exact.ratio import coefficients, depends_on, irreducible_factors
from algebra.exact.values import value_of
from algebra.methods.paper import BRIEF, EVERY, NotThisWay, Paper, Problem
from algebra.methods.polynomials import factoring_of
from algebra.methods.terms import Poly
from algebra.tree import lines as ln
from algebra.tree import nodes as n


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
        parts = coefficients(factor, poly.unknown)
        if any(not c.is_constant() for c in parts):
            raise NotThisWay("The zeros depend on other letters.")
        values += numbers.roots_of(tuple(int(c.leading_coefficient()) if c != 0 else 0 for c in parts))
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
    x = paper.problem.unknown
    paper.write(f"{poly} = 0", "denominator-zero", kind="zero")
    found = factoring_of(poly)
    if found is not None:
        for text, rule, what, side in found.lines:
            paper.write(f"{text} = 0", rule if rule != "product-sum" else "factor-side", what, side=side, kind="zero")
        own = [text for text, p, _ in found.factors if p.degree]
        if len(own) > 1:
            paper.write(" or ".join(f"{t} = 0" for t in own), "zero-product", kind="zero", shown_at=EVERY)
    paper.write(" or ".join(f"{x} = {v}" for v in ordered), "read-solution", "each factor gives its zero", kind="zero")


def factor_denominator(problem: Problem) -> Paper:
    """The denominators of the given, as written, set to zero."""
    paper = Paper(problem)
    write_domain(paper)
    return paper
