"""± and ∓: one line stands for the lines with every choice of signs."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import product
from operator import is_

from algebra import limits
from algebra.exact.errors import TooLarge
from algebra.tree import nodes as n


def variants(node: n.Node) -> list[n.Node]:
    """The tree once for every choice of its ± signs; each ∓ is opposite to the first ±.

    Raises TooLarge when there are more than `limits.MAX_SIGNS` independent signs.
    """
    count, opposite = 0, False
    for part in n.parts_of(node):
        if isinstance(part, n.Sum | n.Signed):
            signs = part.signs if isinstance(part, n.Sum) else (part.sign,)
            count += signs.count("±")
            opposite = opposite or "∓" in signs
    if count == 0 and not opposite:
        return [node]
    if count > limits.MAX_SIGNS:
        raise TooLarge(f"More than {limits.MAX_SIGNS} signs ± stand on one line.", "±")
    choices = product("+-", repeat=max(count, 1))
    return [_chosen(node, iter(choice), {"+": "-", "-": "+"}[choice[0]]) for choice in choices]


def _chosen(node: n.Node, choice: Iterator[str], opposite: str) -> n.Node:
    """The tree with its signs chosen, in the order in which they are written; what holds none is the same object."""
    if not node.parts:
        return node
    if isinstance(node, n.Sum):
        terms, signs = [_chosen(node.terms[0], choice, opposite)], []
        for sign, term in zip(node.signs, node.terms[1:], strict=True):
            signs.append(_picked(sign, choice, opposite))
            terms.append(_chosen(term, choice, opposite))
        if tuple(signs) == node.signs and all(map(is_, terms, node.terms)):
            return node
        return n.Sum(tuple(terms), tuple(signs))
    if isinstance(node, n.Signed):
        sign = _picked(node.sign, choice, opposite)
        child = _chosen(node.child, choice, opposite)
        return node if sign == node.sign and child is node.child else n.Signed(sign, child)
    before = node.children
    after = tuple([_chosen(child, choice, opposite) for child in before])
    return node if all(map(is_, after, before)) else node.with_children(after)


def _picked(sign: str, choice: Iterator[str], opposite: str) -> str:
    return next(choice) if sign == "±" else opposite if sign == "∓" else sign
