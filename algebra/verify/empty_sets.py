"""Steps between two equations that have no solution, or every number: which of them a law of powers or of numbers
explains, though the sets prove nothing."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.exact.errors import ExactError
from algebra.exact.rational_functions import Ratio
from algebra.tree import nodes as n
from algebra.verify.evaluated import EvaluatedStatement, Pair
from algebra.verify.evaluator import Evaluator
from algebra.verify.legal_moves import is_multiple

ODD = (3, 5, 7)


def explained(evaluator: Evaluator, old: Pair, new: Pair) -> bool:
    """Whether equal exponents of one base were compared, an odd power was undone on both sides, or what was alike on
    both sides was taken away."""
    return _exponents_compared(evaluator, old, new) or is_power_of(new, old) or _constants_left(old, new)


def is_power_of(old: Pair, new: Pair) -> bool:
    """Whether both sides were raised to an odd power, as x = 2 is to x³ = 8: of real numbers that has one root."""
    left, right = old.sides
    if new.difference.constant is not None or old.difference.is_zero:
        return False  # of numbers alone everything is a multiple of everything
    return any(is_multiple(left**power - right**power, new.difference) for power in ODD)


def _exponents_compared(evaluator: Evaluator, old: Pair, new: Pair) -> bool:
    """5^(x+1) = 5^x as x + 1 = x; the bases may be powers of one number."""
    sides = [_power_of(evaluator, tree) for tree in (old.left_tree, old.right_tree)]
    if sides[0] is None or sides[1] is None:
        return False
    (first, up), (second, other) = sides[0], sides[1]
    for base in sorted({_root(first), _root(second)}):
        k, m = _log(first, base), _log(second, base)
        if k is not None and m is not None:
            exponents = (up * up.field.constant(k), other * other.field.constant(m))
            difference = exponents[0] - exponents[1]
            if difference.constant is not None:  # of numbers alone everything is a multiple of everything
                return new.sides in (exponents, exponents[::-1])
            return not new.difference.is_zero and is_multiple(difference, new.difference)
    return False


def _power_of(evaluator: Evaluator, tree: n.Node) -> tuple[Q, Ratio] | None:
    """A power of a positive number with its exponent; a number alone has the exponent 1."""
    bare = n.bare(tree)
    try:
        if isinstance(bare, n.Power):
            base, exponent = evaluator.value(bare.base).ratio.constant, evaluator.value(bare.exponent).ratio
        else:
            whole = evaluator.value(bare).ratio
            base, exponent = whole.constant, whole.field.constant(1)
    except ExactError:
        return None
    return None if base is None or base <= 0 or base == 1 else (Q(base), exponent)


def _root(number: Q) -> int:
    """The smallest whole number of which a number, or its reciprocal, is a power; the number itself where there is
    none, 0 for what is neither."""
    whole = number.numerator if number.denominator == 1 else number.denominator if number.numerator == 1 else 0
    for base in range(2, min(whole, 100)):
        if _log(Q(whole), base) is not None:
            return base
    return whole


def _log(number: Q, base: int) -> int | None:
    """k with base^k = number; None where there is no whole one."""
    if base < 2:
        return None
    up, k = number if number >= 1 else 1 / number, 0
    while up > 1:
        up, k = up / base, k + 1
    return None if up != 1 else k if number >= 1 else -k


def _constants_left(old: Pair, new: Pair) -> bool:
    """2x + 3 = 2x + 5 as 5 = 3, and 6x + 24 = 6x + 6 as 4 = 1: the numbers that are left, or these divided by the
    same."""
    numbers = [side.constant for side in new.sides]
    if any(side.constant is not None for side in old.sides) or any(number is None for number in numbers):
        return False
    left, right = numbers
    ends = []
    for side in old.sides:
        if not side.is_polynomial or side.denominator != 1:
            return False
        monomials = dict(zip(side.numerator.monoms(), side.numerator.coeffs(), strict=True))
        ends.append(Q(int(next((c for powers, c in monomials.items() if not any(powers)), 0))))
    assert left is not None and right is not None
    if (left, right) == (0, 0):
        return False
    return ends[0] * right == ends[1] * left or ends[0] * left == ends[1] * right


def keep_their_roots(before: EvaluatedStatement, after: EvaluatedStatement) -> bool:
    """Whether the same roots and bars stand in both lines, so that no power was made on the way: then only a line in
    proportion is a step."""
    kept = [
        frozenset(n.bare(part) for part in n.parts_of(line.body) if isinstance(part, n.Root | n.Absolute))
        for line in (before, after)
    ]
    return bool(kept[0]) and kept[0] == kept[1]
