"""Right but longer roads: quiet notes on links that hold. Unusual but legal work is never called an error."""

from __future__ import annotations

from algebra.exact.errors import ExactError
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.verify.context import Context
from algebra.verify.evaluator import Evaluator


def is_longer(evaluator: Evaluator, before: n.Node, after: n.Node) -> bool:
    """Whether a step that holds makes more work than it saves: expanding before cancelling, taking a root before the
    square stands alone, dividing into fractions."""
    if isinstance(before, ln.Equation) and isinstance(after, ln.Equation):
        context = evaluator.context
        return _root_too_soon(context, before, after) or _into_fractions(context, before, after)
    if isinstance(before, ln.STATEMENTS) or isinstance(after, ln.STATEMENTS):
        return False
    return _expanded_before_cancelling(evaluator, before, after)


def _fractions(body: n.Node) -> list[n.Fraction]:
    return [part for part in n.parts_of(body) if isinstance(part, n.Fraction)]


def _written_factors(tree: n.Node) -> set[n.Node]:
    """The sums that stand as factors of a product, as written."""
    bare = n.bare(tree)
    parts = bare.factors if isinstance(bare, n.Product) else (bare,)
    bases = (n.bare(part.base if isinstance(part, n.Power) else part) for part in parts)
    return {base for base in bases if isinstance(base, n.Sum)}


def _expanded_before_cancelling(evaluator: Evaluator, before: n.Node, after: n.Node) -> bool:
    """A factor stands above and below; in the next line both are multiplied out and still share it."""
    shared = [f for f in _fractions(before) if _written_factors(f.numerator) & _written_factors(f.denominator)]
    if not shared:
        return False
    for fraction in _fractions(after):
        top, bottom = n.bare(fraction.numerator), n.bare(fraction.denominator)
        if not (isinstance(top, n.Sum) and isinstance(bottom, n.Sum)):
            continue
        try:
            above, below = evaluator.value(top).ratio, evaluator.value(bottom).ratio
        except ExactError:
            continue
        if not above.numerator.gcd(below.numerator).is_constant():
            return True
    return False


def _root_too_soon(context: Context, before: ln.Equation, after: ln.Equation) -> bool:
    """x² + 3 = 12 becomes √(x² + 3) = ±√12."""

    def rooted(body: n.Node) -> bool:
        return any(isinstance(p, n.Root) and context.unknown in n.letters(p) for p in n.parts_of(body))

    return rooted(after) and not rooted(before)


def _into_fractions(context: Context, before: ln.Equation, after: ln.Equation) -> bool:
    """3x = 13 − 2x becomes x = 13/3 − (2/3)x: fractions come in while the unknown still stands in several terms.

    With x² it may be the first step of completing the square.
    """
    if any(isinstance(part, n.Power) and context.unknown in n.letters(part) for part in n.parts_of(after)):
        return False
    if _fractions(before) or not any(not n.letters(f.denominator) for f in _fractions(after)):
        return False
    if any(n.letters(f.denominator) for f in _fractions(after)):
        return False
    places = sum(part == n.Letter(context.unknown) for part in n.parts_of(after))
    return places > 1
