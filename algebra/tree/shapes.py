"""Shapes of expressions that several rooms ask for."""

from __future__ import annotations

from algebra.tree import nodes as n


def is_root_difference(tree: n.Node) -> bool:
    """Whether it is a sum of two terms, one a root, over something with letters and without roots: (√(x + h) − √x)/h.
    Its numerator is rationalised, so that what vanishes below can be cancelled."""
    body = n.bare(tree)
    if not isinstance(body, n.Fraction) or not n.letters(body.denominator):
        return False
    above = n.bare(body.numerator)
    if not isinstance(above, n.Sum) or len(above.terms) != 2:
        return False
    return any(isinstance(n.bare(term), n.Root) for term in above.terms) and not any(
        isinstance(part, n.Root) for part in n.parts_of(body.denominator)
    )
