"""Numbers to try: small friendly values, and the value of an expression at them."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from fractions import Fraction as Q
from itertools import product

from algebra.tree import nodes as n

FRIENDLY = tuple(Q(v) for v in (2, 3, 1, 4, 5, -1, 0, -2, 10, 6, 7, -3)) + (Q(1, 2), Q(9), Q(-5))
"""Values in the order in which a teacher would try them: 0 and 1 hide too many errors to come first."""
MAX_TRIES = 600


def value_at(node: n.Node, values: dict[str, Q]) -> Q | None:
    """The exact value of an expression with its letters replaced, or None where it is undefined.

    Raises KeyError for a letter without a value, ValueError for a node without a rational value.
    """
    try:
        return _value(node, values)
    except ZeroDivisionError:
        return None


def _value(node: n.Node, values: dict[str, Q]) -> Q:
    match node:
        case n.Integer(number):
            return Q(number)
        case n.Decimal():
            return node.value
        case n.Mixed(whole, top, bottom):
            return whole + Q(top, bottom)
        case n.Letter(name):
            return values[name]
        case n.Unit(word):
            return values[f'"{word}"']
        case n.Group(child):
            return _value(child, values)
        case n.Signed(sign, child):
            return -_value(child, values) if sign == "-" else _value(child, values)
        case n.Sum(terms, signs):
            total = _value(terms[0], values)
            for sign, term in zip(signs, terms[1:], strict=True):
                total += -_value(term, values) if sign == "-" else _value(term, values)
            return total
        case n.Product(factors, operators):
            total = _value(factors[0], values)
            for operator, factor in zip(operators, factors[1:], strict=True):
                inner = _value(factor, values)
                total = total / inner if operator == "÷" else total * inner
            return total
        case n.Fraction(top, bottom):
            return _value(top, values) / _value(bottom, values)
        case n.Power(base, exponent):
            below, above = _value(base, values), _value(exponent, values)
            if above.denominator != 1 or abs(above) > 1000:
                raise ValueError("no rational value")
            if below == 0 and above <= 0:
                raise ZeroDivisionError
            return below ** int(above)
    raise ValueError(f"a {type(node).__name__} has no rational value")


def friendly_points(letters: list[str]) -> Iterator[dict[str, Q]]:
    """Points to try, the friendliest first; with several letters, different values come before equal ones."""
    if len(letters) <= 1:
        for value in FRIENDLY:
            yield dict.fromkeys(letters, value)
        return
    pools = [FRIENDLY[:6]] * len(letters)
    points = sorted(product(range(6), repeat=len(letters)), key=lambda p: (len(set(p)) < len(p), sum(p), p))
    for point in points[:MAX_TRIES]:
        yield {letter: pool[k] for letter, pool, k in zip(letters, pools, point, strict=True)}


def breaking_point(
    letters: list[str],
    before: Callable[[dict[str, Q]], Q | None],
    after: Callable[[dict[str, Q]], Q | None],
    allowed: Callable[[dict[str, Q]], bool],
) -> tuple[dict[str, Q], Q | None, Q | None] | None:
    """The friendliest allowed point at which two expressions differ, both defined if possible, with both values."""
    half_defined = None
    for point in friendly_points(letters):
        if not allowed(point):
            continue
        left, right = before(point), after(point)
        if left is not None and right is not None:
            if left != right:
                return point, left, right
        elif left != right and half_defined is None:
            half_defined = (point, left, right)
    return half_defined
