"""Claims by a name of the trade: `LCD = t(t-5)`, `GCF = 4x`, `LCM(6, 8) = 24`."""

from __future__ import annotations

from collections.abc import Iterable
from math import gcd, lcm

from algebra.exact.errors import ExactError
from algebra.exact.rational_functions import Poly, Ratio, factored, text_of
from algebra.exact.writing import simplified_tree
from algebra.reports.report import PointEvidence
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.verify.draft import LinkDraft
from algebra.verify.evaluator import Evaluator
from algebra.verify.excluded_values import divisors

MULTIPLES = ("LCD", "LCM")


def judge_claim(evaluator: Evaluator, link: LinkDraft, claim: ln.Claim, lines: list[n.Node]) -> None:
    """Holds iff it is true of the parts that it names, or else of the denominators or terms of one of these lines, the
    nearest first; a sign makes no difference. Where there is nothing that it could be true of, it is `unclear`."""
    stated = _polynomial(evaluator, claim.value)
    found: list[Ratio] = []
    where = claim.of[0].word if len(claim.of) == 1 and isinstance(claim.of[0], ln.Word) else ""
    if where in ("top", "bottom"):
        lines = [part for line in lines for part in _tops_or_bottoms(line, where)]
    named = [list(claim.of)] if claim.of and not where else [_parts_of(claim.name, line) for line in lines]
    for parts in named:
        value = _combined(evaluator, claim.name, parts)
        if value is not None:
            found.append(value)
    if stated is None or not found:
        link.relation = "unclear"
        return
    right = any(stated in (value, -value) for value in found)
    link.relation = "holds" if right else "breaks"
    if not right:
        link.evidence = PointEvidence(f"The {claim.name} is {plain(simplified_tree(found[0]), tight=True)}.")


def _tops_or_bottoms(line: n.Node, where: str) -> list[n.Node]:
    """What stands above, or below, in the fractions of a line."""
    fractions = [part for part in n.parts_of(line) if isinstance(part, n.Fraction)]
    return [part.numerator if where == "top" else part.denominator for part in fractions]


def _parts_of(name: str, line: n.Node) -> list[n.Node]:
    """The denominators of a line for a common multiple, the terms of its sum for a common factor."""
    sides = line.children if isinstance(line, ln.STATEMENTS) else (line,)
    if name in MULTIPLES:
        return [below for side in sides for below in divisors(side)]
    sums = [bare for side in sides if isinstance(bare := n.bare(side), n.Sum)]
    return [term for one in sums[:1] for term in one.terms]


def _polynomial(evaluator: Evaluator, tree: n.Node) -> Ratio | None:
    try:
        value = evaluator.value(tree).ratio
    except ExactError:
        return None
    return value if value.is_polynomial and value.denominator.is_one() and not value.is_zero else None


def _combined(evaluator: Evaluator, name: str, parts: Iterable[n.Node]) -> Ratio | None:
    """The common multiple, or factor, of the parts; None where there are none, or one is no polynomial."""
    values = [_polynomial(evaluator, part) for part in parts]
    polys = [value.numerator for value in values if value is not None]
    if not polys or len(polys) < len(values) or (name not in MULTIPLES and len(polys) < 2):
        return None
    field = values[0].field if values[0] is not None else None
    assert field is not None
    return field.ratio(_multiple(polys) if name in MULTIPLES else _factor(polys))


def _multiple(polys: list[Poly]) -> Poly:
    number, powers = 1, dict[str, tuple[Poly, int]]()
    for poly in polys:
        content, factors = factored(poly)
        number = lcm(number, abs(content))
        for factor, power in factors:
            known = powers.get(text_of(factor), (factor, 0))[1]
            powers[text_of(factor)] = (factor, max(known, power))
    total = polys[0].context().constant(number)
    for factor, power in powers.values():
        total = total * factor**power
    return total


def _factor(polys: list[Poly]) -> Poly:
    total = polys[0]
    number = 0
    for poly in polys:
        total = total.gcd(poly)
        number = gcd(number, abs(factored(poly)[0]))
    content, factors = factored(total)
    whole = total.context().constant(number or abs(content))
    for factor, power in factors:
        whole = whole * factor**power
    return whole
