"""± and ∓: one line stands for the lines with every choice of signs."""

from __future__ import annotations

from itertools import product

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


def _chosen(node: n.Node, choice, opposite: str) -> n.Node:  # type: ignore[no-untyped-def]
    def pick(sign: str) -> str:
        return next(choice) if sign == "±" else opposite if sign == "∓" else sign

    if isinstance(node, n.Signed):
        sign = pick(node.sign)
        return n.Signed(sign, _chosen(node.child, choice, opposite))
    if isinstance(node, n.Sum):
        terms = [_chosen(node.terms[0], choice, opposite)]
        signs = []
        for sign, term in zip(node.signs, node.terms[1:], strict=True):
            signs.append(pick(sign))
            terms.append(_chosen(term, choice, opposite))
        return n.Sum(tuple(terms), tuple(signs))
    return node.with_children(tuple(_chosen(child, choice, opposite) for child in node.children))
