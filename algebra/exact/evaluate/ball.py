"""The value of an expression at one number: exactly as long as nothing irrational comes in, from there on enclosed.

Cheaper than `PointEvaluator`, and weaker: an enclosure tells two values apart, but never proves them equal.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from flint import arb, fmpq, fmpz_poly

from algebra.exact.algebraic_numbers import whole_root
from algebra.tree import nodes as n

Plain = Any
"""An `fmpq`, exact, or an `arb`, a certified enclosure."""

MAX_POWER = 40


class NoValue(Exception):
    """The expression is undefined there: proved."""


class NotSeen(Exception):
    """Whether it has a value there, or which, this way does not tell."""


def value_at(node: n.Node, letter: str, number: Plain) -> Plain:
    """The value with the number put in for the letter. Raises NoValue, NotSeen."""
    read = _READ.get(type(node))
    if read is None:
        raise NotSeen
    return read(node, letter, number)


def is_apart(value: Plain) -> bool:
    """Whether a value is certainly not zero."""
    return bool(value > 0) or bool(value < 0)


def enclosed(value: Plain) -> Plain:
    """The value as an enclosure."""
    return value if isinstance(value, arb) else arb(value)


def at_number(poly: fmpz_poly, value: Plain) -> Plain:
    """The value of a polynomial at a number, in the number's own arithmetic."""
    total: Plain = 0 * value
    for coefficient in reversed(poly.coeffs()):
        total = total * value + coefficient
    return total


def _mixed(node: n.Mixed, letter: str, number: Plain) -> Plain:
    if node.denominator == 0:
        raise NoValue
    return node.whole + fmpq(node.numerator, node.denominator)


def _letter(node: n.Letter, letter: str, number: Plain) -> Plain:
    if node.name != letter:
        raise NotSeen
    return number


def _sum(node: n.Sum, letter: str, number: Plain) -> Plain:
    total = value_at(node.terms[0], letter, number)
    for sign, term in zip(node.signs, node.terms[1:], strict=True):
        value = value_at(term, letter, number)
        total = total - value if sign == "-" else total + value
    return total


def _product(node: n.Product, letter: str, number: Plain) -> Plain:
    total = value_at(node.factors[0], letter, number)
    for operator, factor in zip(node.operators, node.factors[1:], strict=True):
        value = value_at(factor, letter, number)
        total = _divided(total, value) if operator == "÷" else total * value
    return total


def _divided(above: Plain, below: Plain) -> Plain:
    if not is_apart(below):
        raise NoValue if isinstance(below, fmpq) else NotSeen
    return above / below


def _power(node: n.Power, letter: str, number: Plain) -> Plain:
    exponent = value_at(node.exponent, letter, number)
    if not isinstance(exponent, fmpq) or exponent.q != 1 or abs(exponent.p) > MAX_POWER:
        raise NotSeen
    base, times = value_at(node.base, letter, number), int(exponent.p)
    if times <= 0 and not is_apart(base):
        raise NoValue if isinstance(base, fmpq) else NotSeen
    return base**times if times >= 0 else 1 / base**-times


def _root(node: n.Root, letter: str, number: Plain) -> Plain:
    index = 2
    if node.index is not None:
        if not isinstance(node.index, n.Integer) or not 2 <= node.index.value <= MAX_POWER:
            raise NotSeen
        index = node.index.value
    inside = value_at(node.radicand, letter, number)
    if isinstance(inside, fmpq):
        if inside < 0 and index % 2 == 0:
            raise NoValue
        sign, size = (-1, -inside) if inside < 0 else (1, inside)
        above, below = whole_root(int(size.p), index), whole_root(int(size.q), index)
        if above is not None and below is not None:
            return fmpq(sign * above, below)
        return sign * arb(size).root(index)
    if inside > 0:
        return inside.root(index)
    if not inside < 0:
        raise NotSeen
    if index % 2 == 0:
        raise NoValue
    return -((-inside).root(index))


_READ: dict[type[n.Node], Callable[[Any, str, Plain], Plain]] = {
    n.Integer: lambda node, letter, number: fmpq(node.value),
    n.Decimal: lambda node, letter, number: fmpq(node.value.numerator, node.value.denominator),
    n.Mixed: _mixed,
    n.Letter: _letter,
    n.Group: lambda node, letter, number: value_at(node.child, letter, number),
    n.Signed: lambda node, letter, number: (
        -value_at(node.child, letter, number) if node.sign == "-" else value_at(node.child, letter, number)
    ),
    n.Sum: _sum,
    n.Product: _product,
    n.Fraction: lambda node, letter, number: _divided(
        value_at(node.numerator, letter, number), value_at(node.denominator, letter, number)
    ),
    n.Power: _power,
    n.Root: _root,
    n.Absolute: lambda node, letter, number: abs(value_at(node.child, letter, number)),
}
