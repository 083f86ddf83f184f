"""Lines that keep the value or the solutions by accident: a slip was made, and it came out all the same."""

from __future__ import annotations

from fractions import Fraction as Q
from math import gcd

from algebra.desk.explain import Found, explain, wrong_parts
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import Ratio, field_of
from algebra.exact.writing import simplified_tree
from algebra.slips import BY_ID
from algebra.tree import nodes as n
from algebra.tree import statements as ln

AGAINST_RANK = (
    "left-to-right", "multiply-before-divide", "add-before-subtract", "multiply-before-power", "minus-inside-power",
)  # fmt: skip
"""The slips by which an operation is done before its turn."""

_INDICES = range(2, 7)


def lucky(before: n.Node, after: n.Node, task: str) -> list[Found]:
    """The slips of a line that holds all the same; empty where a right step leads to it."""
    if isinstance(before, ln.Equation) and isinstance(after, ln.Equation):
        return _lucky_equation(before, after, task)
    if isinstance(before, ln.STATEMENTS) or isinstance(after, ln.STATEMENTS) or n.letters(before) or n.letters(after):
        return []
    return _against_rank(before, after, task)


def _lucky_equation(before: ln.Equation, after: ln.Equation, task: str) -> list[Found]:
    """One side stands as it was, the other was rewritten into something unequal, and a slip does just that."""
    if len(before.sides) != 2 or len(after.sides) != 2:
        return []
    kept = [k for k in (0, 1) if n.bare(before.sides[k]) == n.bare(after.sides[k])]
    if len(kept) != 1:
        return []
    old, new = before.sides[1 - kept[0]], after.sides[1 - kept[0]]
    try:
        over = field_of(tuple(sorted(n.letters(before) | n.letters(after))))
        first, second = value_of(old, over).ratio, value_of(new, over).ratio
        side = value_of(before.sides[kept[0]], over).ratio
        if first == second or first.is_zero or _is_a_root(first, second, side):
            return []
        if side.is_zero and _is_natural(first, second):
            return []
    except ExactError:
        return []
    return [found for found in explain(before, after, task) if found.exact]


def _is_a_root(first: Ratio, second: Ratio, side: Ratio) -> bool:
    """Whether a root was taken of both sides, and the other one, which is 0, 1 or −1, is its own."""
    return any(second**k == first and side**k == side for k in _INDICES)


def _is_natural(first: Ratio, second: Ratio) -> bool:
    """Whether one would multiply a side that equals 0 by what leads to the other: by what clears its denominator, and after a
    division by what its terms share or by what stands before the highest power."""
    factor = (second / first).constant
    if factor is None:
        return True
    if abs(factor * Q(int(first.numerator.leading_coefficient()), int(first.denominator.leading_coefficient()))) == 1:
        return True
    above = gcd(*(int(c) for c in first.numerator.coeffs()))
    below = gcd(*(int(c) for c in first.denominator.coeffs()))
    return below % factor.numerator == 0 and above % factor.denominator == 0


def _against_rank(before: n.Node, after: n.Node, task: str) -> list[Found]:
    """A line of numbers with one value in place of a part that it was not the turn of."""
    slips = [BY_ID[name] for name in AGAINST_RANK]
    for slip, address, what, wrong in wrong_parts(before, task, slips):
        done = _parts_worked(wrong)
        if done is not None and _alike(n.replaced(before, address, done) if address else done, after):
            return [Found(slip, address, what)]
    return []


def _parts_worked(wrong: n.Node) -> n.Node | None:
    """The wrong part with its brackets worked out; None where one has no value."""
    wrong = n.bare(wrong)
    try:
        children = tuple(
            simplified_tree(value_of(child, field_of(())).ratio) if isinstance(child, n.Group) else child
            for child in wrong.children
        )
    except ExactError:
        return None
    return wrong.with_children(children) if children else wrong


def _alike(first: n.Node, second: n.Node) -> bool:
    """Whether two trees are the same up to brackets and the sign for times."""
    first, second = n.bare(first), n.bare(second)
    if isinstance(first, n.Product) and isinstance(second, n.Product):
        signs = [tuple("÷" if sign == "÷" else "·" for sign in tree.operators) for tree in (first, second)]
        same = signs[0] == signs[1]
    elif isinstance(first, n.Sum) and isinstance(second, n.Sum):
        same = first.signs == second.signs
    else:
        return first == second if not first.children else type(first) is type(second) and _all_alike(first, second)
    return same and _all_alike(first, second)


def _all_alike(first: n.Node, second: n.Node) -> bool:
    pairs = list(zip(first.children, second.children, strict=False))
    return len(first.children) == len(second.children) and all(_alike(one, other) for one, other in pairs)
