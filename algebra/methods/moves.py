"""What is done to both sides of an equation, with the rule for it and how it is written beside the line."""

from __future__ import annotations

from algebra.exact.rational_functions import Ratio
from algebra.methods.terms import shown
from algebra.methods.worked_lines import Move
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def beside(sign: str, node: n.Node) -> str:
    """A move as it is written; what is a sum or has a sign gets brackets."""
    return f"{sign}({plain(node)})" if isinstance(node, n.Sum | n.Signed) else f"{sign}{plain(node)}"


def taking_off(term: n.Node) -> Move:
    """A term leaves a side: what is added there is subtracted on both sides, and the other way round."""
    if build.is_minus(term) or (isinstance(term, n.Sum) and build.starts_with_minus(term)):
        what = build.opposite(term) if build.is_minus(term) else _with_other_signs(term)
        return Move("add-to-both-sides", what, beside("+", what))
    return Move("subtract-from-both-sides", term, beside("-", term))


def taken_from(side: n.Node, term: n.Node) -> n.Node:
    """A side with a term taken from it, not worked out: `4x - 7 + 7`."""
    other = (
        _with_other_signs(term) if isinstance(term, n.Sum) and build.starts_with_minus(term) else build.opposite(term)
    )
    return build.sum_of([side, other])


def _with_other_signs(term: n.Node) -> n.Node:
    """a + b for -a - b."""
    assert isinstance(term, n.Sum)
    return build.sum_of(build.negated(build.signed(s, t)) for s, t in zip(("+", *term.signs), term.terms, strict=True))


def dividing(scale: Ratio) -> Move:
    """A factor leaves a side."""
    what = shown(scale)
    return Move("divide-both-sides", what, beside("÷", what))


def multiplying(scale: Ratio) -> Move:
    """A divisor leaves a side."""
    what = shown(scale)
    return Move("multiply-both-sides", what, beside("×", what))


def undoing(scale: Ratio) -> Move:
    """The factor of the unknown leaves its side: divided by, or, where it is a fraction, multiplied by its
    reciprocal."""
    constant = scale.constant
    if constant is not None and constant.denominator != 1:
        return multiplying(scale.field.constant(1 / constant))
    return dividing(scale)
