"""What a step needs of the other letters of an equation."""

from __future__ import annotations

from collections.abc import Iterator

from algebra.exact.definite import used_letters
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import Poly, depends_on, irreducible_factors, text_of
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.context import Context
from algebra.verify.evaluated import EvaluatedStatement, Pair
from algebra.verify.excluded_values import condition_text


def conditions(context: Context, before: EvaluatedStatement, after: EvaluatedStatement) -> list[str]:
    """What a step needs of the other letters: that what it divides by is not 0, that what it roots is not negative, and
    that what equals an even root is not. What is assumed is not asked for again."""
    divided = dict(after.poles)
    for key in before.poles:
        divided.pop(key, None)
    old, new = before.product, after.product
    if old is not None and new is not None:
        divided |= irreducible_factors([(old / new).numerator])
    letters = set(context.letters) - {context.unknown, "π"}
    rooted = {_radicand(part) for pair in after.pairs for part in _roots(pair)}
    signed = [(tree, "≥") for tree in rooted - {_radicand(part) for pair in before.pairs for part in _roots(pair)}]
    if before.single is not None and not any(context.unknown in n.letters(r) for p in after.pairs for r in _roots(p)):
        signed += _equal_to_roots(before.single, context.unknown)
    signed = [(tree, sign) for tree, sign in signed if n.letters(tree) and n.letters(tree) <= letters]
    above_zero = [tree for tree, sign in signed if sign == ">"]
    found = {f"{plain(tree)} {sign} 0" for tree, sign in signed if not _is_assumed(context, tree, sign)}
    for poly in divided.values():
        if depends_on(poly, context.unknown) or not set(used_letters(poly)) <= letters:
            continue
        if not context.assumed.never_zero(poly) and not any(_has_factor(context, tree, poly) for tree in above_zero):
            found.add(condition_text(context, poly))
    return sorted(found)


def _sign_product(context: Context, tree: n.Node) -> Poly | None:
    """A polynomial that has the sign of an expression; None where it holds roots."""
    try:
        value = value_of(tree, context.field).ratio
    except ExactError:
        return None
    return value.numerator * value.denominator


def _is_assumed(context: Context, tree: n.Node, sign: str) -> bool:
    """Whether it is assumed, or plain from the assumptions, that an expression is not negative, or above zero."""
    poly = _sign_product(context, tree)
    if poly is None or not context.assumed.not_negative(poly):
        return False
    return sign == "≥" or context.assumed.never_zero(poly)


def _has_factor(context: Context, tree: n.Node, poly: Poly) -> bool:
    """Whether an expression is zero where a polynomial is: then one that is above zero says the more."""
    product = _sign_product(context, tree)
    return product is not None and text_of(poly) in irreducible_factors([product])


def _equal_to_roots(pair: Pair, unknown: str) -> Iterator[tuple[n.Node, str]]:
    """What must not be negative, since it equals an even root of the unknown, `v ≥ 0` for v = √(2gh); or one below a
    bar, then it is above zero."""
    for side, other in ((pair.left_tree, pair.right_tree), (pair.right_tree, pair.left_tree)):
        top, bottom = _factors(side)
        held = [f for f in (*top, *bottom) if unknown in n.letters(f)]
        if len(held) != 1 or not _is_even_root(held[0]) or unknown in n.letters(other) or not n.letters(other):
            continue
        above = [f for f in bottom if n.letters(f) and f is not held[0]]
        below = [f for f in top if n.letters(f) and f is not held[0]]
        size = (
            build.implied_product([n.bare(f) for f in below])
            if len(below) == 1
            else build.dotted(*below)
            if below
            else None
        )
        tree = build.dotted(build.grouped(n.bare(other)), *above) if above else n.bare(other)
        if size is not None:
            tree = n.Fraction(build.beside_slash(tree), n.Group(size) if len(below) > 1 else build.beside_slash(size))
        yield tree, ">" if any(f is held[0] for f in bottom) else "≥"


def _factors(tree: n.Node) -> tuple[list[n.Node], list[n.Node]]:
    """The factors above and below the bar of a side."""
    bare = n.bare(tree)
    if isinstance(bare, n.Fraction):
        (a, b), (c, d) = _factors(bare.numerator), _factors(bare.denominator)
        return a + d, b + c
    if isinstance(bare, n.Product) and "÷" not in bare.operators:
        parts = [_factors(factor) for factor in bare.factors]
        return [f for top, _ in parts for f in top], [f for _, bottom in parts for f in bottom]
    return [bare], []


def _is_even_root(tree: n.Node) -> bool:
    return isinstance(tree, n.Root) and (
        tree.index is None or (isinstance(tree.index, n.Integer) and tree.index.value % 2 == 0)
    )


def _roots(pair: Pair) -> list[n.Root]:
    """The even roots of an equation."""
    parts = (*n.parts_of(pair.left_tree), *n.parts_of(pair.right_tree))
    return [part for part in parts if isinstance(part, n.Root) and _is_even_root(part)]


def _radicand(root: n.Root) -> n.Node:
    return n.bare(root.radicand)
