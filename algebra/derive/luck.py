"""Lines that keep the value or the solutions by accident: a slip was made, and it came out all the same."""

from __future__ import annotations

from fractions import Fraction as Q
from math import gcd

from algebra.derive.explain import Found, explain, wrong_parts
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import Ratio, field_of
from algebra.exact.writing import simplified_tree
from algebra.slips import SLIPS
from algebra.tree import nodes as n
from algebra.tree import statements as ln

AGAINST_RANK = tuple(slip for slip in SLIPS if slip.against_rank)
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
    if len(before.sides) != 2 or len(after.sides) != 2 or _states_the_answer(after):
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


def _states_the_answer(after: ln.Equation) -> bool:
    """Whether a line gives the unknown's value; such a line claims no step but that it is the answer."""
    left, right = (n.bare(side) for side in after.sides)
    return (isinstance(left, n.Letter) and not n.letters(right)) or (
        isinstance(right, n.Letter) and not n.letters(left)
    )


def _is_a_root(first: Ratio, second: Ratio, side: Ratio) -> bool:
    """Whether a root was taken of both sides, and the other one, which is 0, 1 or −1, is its own."""
    return any(second**k == first and side**k == side for k in _INDICES)


def _is_natural(first: Ratio, second: Ratio) -> bool:
    """Whether one would multiply a side that equals 0 by what leads to the other: by what clears its denominator, and
    after a division by what its terms share or by what stands before the highest power."""
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
    rewritten = _rewritten_parts(before, after)
    for slip, address, what, wrong in wrong_parts(before, task, AGAINST_RANK, rewritten):
        if _is_worked(n.bare(wrong), rewritten[address]):
            return [Found(slip, address, what)]
    return []


def _rewritten_parts(before: n.Node, after: n.Node) -> dict[n.Address, n.Node]:
    """The places of all parts that hold everything in which two trees differ, with what stands there afterwards."""
    address: n.Address = ()
    found = {address: after}
    while True:
        if isinstance(before, n.Group):
            before, address = before.child, (*address, 0)
        elif isinstance(after, n.Group):
            after = after.child
        elif not _of_one_shape(before, after):
            return found
        else:
            pairs = enumerate(zip(before.children, after.children, strict=True))
            unlike = [(k, *pair) for k, pair in pairs if not _alike(*pair)]
            if len(unlike) != 1:
                return found
            at, before, after = unlike[0]
            address = (*address, at)
        found[address] = after


def _is_worked(wrong: n.Node, after: n.Node) -> bool:
    """Whether a part is the wrong one once its brackets are worked out."""
    if wrong.children and not _of_one_shape(wrong, n.bare(after)):
        return False
    done = _parts_worked(wrong)
    return done is not None and _alike(done, after)


def _parts_worked(wrong: n.Node) -> n.Node | None:
    """The wrong part with its brackets worked out; None where one has no value."""
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
    if not first.children:
        return first == second
    return _of_one_shape(first, second) and all(map(_alike, first.children, second.children))


def _of_one_shape(first: n.Node, second: n.Node) -> bool:
    """Whether both join as many parts by the same operations."""
    if type(first) is not type(second) or len(first.children) != len(second.children) or not first.children:
        return False
    if isinstance(first, n.Product) and isinstance(second, n.Product):
        return [sign == "÷" for sign in first.operators] == [sign == "÷" for sign in second.operators]
    return not isinstance(first, n.Sum) or (isinstance(second, n.Sum) and first.signs == second.signs)
