"""Making expressions out of nodes, with the brackets and signs that the notation needs. Nothing is worked out."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from fractions import Fraction as Q

from algebra.tree import nodes as n
from algebra.tree import statements as ln

ZERO, ONE = n.Integer(0), n.Integer(1)


def number(value: Q | int) -> n.Node:
    """A rational number: `3`, `-3`, `2/3`, `-2/3`."""
    value = Q(value)
    size: n.Node = n.Integer(abs(value.numerator))
    if value.denominator != 1:
        size = n.Fraction(size, n.Integer(value.denominator))
    return n.Signed("-", size) if value < 0 else size


def letter(name: str) -> n.Node:
    """A letter, or the quoted word that goes by this name."""
    return n.Unit(name.strip('"')) if name.startswith('"') else n.Letter(name)


def grouped(node: n.Node, *, power_stands: bool = False) -> n.Node:
    """The node, in brackets unless it can stand by itself as a base, a radicand or (a power too) beside a slash."""
    stands = isinstance(node, n.FACTOR_LIKE) and (power_stands or not isinstance(node, n.Power))
    return node if stands else n.Group(node)


def beside_slash(node: n.Node) -> n.Node:
    """The node as a numerator or denominator: in brackets unless it is a single factor."""
    return grouped(node, power_stands=True)


def negated(node: n.Node) -> n.Node:
    """A minus before the node; of a node that has one, the node without it."""
    return node.child if isinstance(node, n.Signed) and node.sign == "-" else n.Signed("-", node)


def monomial(coefficient: Q, powers: Iterable[tuple[str, int]]) -> n.Node:
    """`3x^2y`, `-x`, `(2/3)x`; the number where no letter has a power other than 0."""
    parts: list[n.Node] = []
    size = abs(coefficient)
    for name, exponent in powers:
        if exponent:
            base = letter(name)
            parts.append(base if exponent == 1 else n.Power(base, n.Integer(exponent)))
    if size != 1 or not parts:
        front = number(size)
        parts.insert(0, n.Group(front) if isinstance(front, n.Fraction) and parts else front)
    node = implied_product(parts)
    return n.Signed("-", node) if coefficient < 0 else node


def implied_product(factors: Sequence[n.Node]) -> n.Node:
    """The factors written side by side; one alone stays as it is."""
    return factors[0] if len(factors) == 1 else n.Product(tuple(factors), ("",) * (len(factors) - 1))


def sum_of(terms: Sequence[n.Node]) -> n.Node:
    """The terms joined; a leading minus of a later term becomes its sign. Of no terms, 0."""
    if len(terms) <= 1:
        return terms[0] if terms else ZERO
    signs, plain = [], [terms[0]]
    for term in terms[1:]:
        minus = isinstance(term, n.Signed) and term.sign == "-"
        signs.append("-" if minus else "+")
        plain.append(term.children[0] if minus else term)
    return n.Sum(tuple(plain), tuple(signs))


def bar(top: n.Node, bottom: n.Node) -> n.Node:
    """A fraction, its parts bracketed where the notation needs it, a minus above taken in front."""
    if isinstance(top, n.Signed) and top.sign == "-":
        return n.Signed("-", n.Fraction(beside_slash(top.child), beside_slash(bottom)))
    return n.Fraction(beside_slash(top), beside_slash(bottom))


def equation(left: n.Node, right: n.Node) -> ln.Equation:
    """`left = right`."""
    return ln.Equation((left, right))


def alternatives(items: Sequence[n.Node]) -> n.Node:
    """The statements joined by `or`; one alone stays as it is."""
    return items[0] if len(items) == 1 else ln.Alternatives(tuple(items))
