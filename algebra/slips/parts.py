"""Taking written expressions apart, and putting wrong ones together out of their parts."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from fractions import Fraction as Q
from itertools import combinations
from math import isqrt, lcm
from typing import TypeVar

from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln

Term = tuple[str, n.Node]
"""A sign, + or -, and what stands behind it."""
Item = TypeVar("Item")
Counted = tuple[Q, n.Node | None]
"""A number with its sign, and the other factors; None where there are none."""


def number_of(node: n.Node) -> Q | None:
    """The number a node is written as; None for anything still to be worked out."""
    match node:
        case n.Integer(value):
            return Q(value)
        case n.Group(child):
            return number_of(child)
        case n.Signed("-", child):
            inner = number_of(child)
            return None if inner is None else -inner
        case n.Fraction(n.Integer(top), n.Integer(bottom)) if bottom:
            return Q(top, bottom)
    return None


def is_zero(node: n.Node) -> bool:
    """Whether a node is written 0."""
    return number_of(node) == 0


def factor(node: n.Node) -> n.Node:
    """The node as a factor: in brackets unless it stands by itself."""
    bare = n.bare(node)
    return bare if isinstance(bare, n.Integer | n.Letter | n.Root | n.Absolute) else n.Group(bare)


def over(top: n.Node, bottom: n.Node) -> n.Node:
    """A fraction."""
    return n.Fraction(factor(top), factor(bottom))


def terms(node: n.Node) -> list[Term]:
    """The signed terms of a sum; one term for anything else."""
    node = n.bare(node)
    if isinstance(node, n.Sum):
        first = node.terms[0]
        head = (first.sign, first.child) if isinstance(first, n.Signed) and first.sign in "+-" else ("+", first)
        return [head, *zip(node.signs, node.terms[1:], strict=True)]
    if isinstance(node, n.Signed) and node.sign in "+-":
        return [(node.sign, node.child)]
    return [("+", node)]


def factors(node: n.Node) -> list[n.Node]:
    """The factors of a product without ÷; the node itself for anything else."""
    node = n.bare(node)
    if isinstance(node, n.Product) and "÷" not in node.operators:
        return [part for inner in node.factors for part in factors(inner)]
    return [node]


def dropped(items: list[n.Node], gone: n.Node) -> list[n.Node]:
    """The factors but for the first that is this one, up to brackets; ValueError where none is."""
    at = [n.bare(item) for item in items].index(n.bare(gone))
    return items[:at] + items[at + 1 :]


def holds_typed_fraction(node: n.Node) -> bool:
    """Whether somewhere a fraction stands right behind another factor, as in 2x/3."""
    return any(isinstance(part, n.Product) and isinstance(part.factors[-1], n.Fraction) for part in n.parts_of(node))


def with_fractions(node: n.Node) -> n.Node:
    """The tree with 2x/3, which is written as 2 times x/3, as one fraction; students see one, and slips are made with
    it."""
    children = tuple(with_fractions(child) for child in node.children)
    if any(new is not old for new, old in zip(children, node.children, strict=True)):
        node = node.with_children(children)
    if not isinstance(node, n.Product) or any(node.operators):
        return node
    *others, last = node.factors
    plain_numbers = all(number_of(part) is not None for part in node.factors)
    if (
        not isinstance(last, n.Fraction)
        or plain_numbers
        or any(isinstance(n.bare(part), n.Fraction) for part in others)
    ):
        return node
    above = n.Product((*others, *factors(last.numerator)), ("",) * (len(others) + len(factors(last.numerator)) - 1))
    return n.Fraction(n.Group(above), last.denominator)


def add(items: Iterable[Term]) -> n.Node:
    """A sum from signed terms, each in brackets, so that nothing is misread; 0 for none."""
    listed = [(sign, factor(item)) for sign, item in items]
    if not listed:
        return build.ZERO
    (sign, first), *rest = listed
    head = n.Signed(sign, first) if sign != "+" else first
    return n.Sum((head, *(item for _, item in rest)), tuple(s for s, _ in rest)) if rest else head


def multiply(items: Iterable[n.Node]) -> n.Node:
    """A product, each factor in brackets where it needs them; 1 for none."""
    listed = [factor(item) for item in items]
    if len(listed) <= 1:
        return listed[0] if listed else build.ONE
    return n.Product(tuple(listed), ("·",) * (len(listed) - 1))


def power(base: n.Node, exponent: n.Node | Q | int) -> n.Node:
    """base^exponent."""
    above = exponent if isinstance(exponent, n.Node) else build.number(exponent)
    return n.Power(factor(base), factor(above))


def root(inside: n.Node, like: n.Root | None = None) -> n.Node:
    """The root of something; with the index of another root, where one is given."""
    return n.Root(n.Group(n.bare(inside)), None if like is None else like.index)


def counted(number: Q, rest: n.Node | None) -> n.Node:
    """A number times the other factors."""
    return build.number(number) if rest is None else multiply([build.number(number), rest])


def opposite(node: n.Node) -> n.Node:
    """The node with a minus before it."""
    return n.Signed("-", factor(node))


def both_signs(node: n.Node) -> n.Node:
    """The node with ± before it."""
    return n.Signed("±", factor(node))


def equals(left: n.Node, right: n.Node) -> n.Node:
    """An equation."""
    return ln.Equation((left, right))


def either(items: Iterable[n.Node]) -> n.Node:
    """Statements joined by `or`."""
    return build.alternatives(tuple(items))


def two_of(items: Sequence[Item]) -> Iterator[tuple[int, int, list[Item]]]:
    """Every two places in a list, the first one first, and what stands at the others."""
    for i, j in combinations(range(len(items)), 2):
        yield i, j, [item for k, item in enumerate(items) if k not in (i, j)]


def least_common_monomial(items: Sequence[n.Node]) -> n.Node | None:
    """The least common multiple of monomials: 4x of 4 and 2x; None where one of them is no monomial."""
    count, highest = 1, dict[str, int]()
    for item in items:
        own: dict[str, int] = {}
        size = 1
        for part in factors(item):
            bare = n.bare(part)
            match bare:
                case n.Integer(value):
                    size *= value
                case n.Letter(name):
                    own[name] = own.get(name, 0) + 1
                case n.Power(n.Letter(name), n.Integer(times)):
                    own[name] = own.get(name, 0) + times
                case _:
                    return None
        count = lcm(count, size)
        for name, times in own.items():
            highest[name] = max(highest.get(name, 0), times)
    return build.monomial(Q(count), sorted(highest.items()))


def coefficient(term: n.Node) -> Counted | None:
    """A product of one number and other factors, as both; None for a sum."""
    found, rest = Q(1), []
    for part in factors(term):
        value = number_of(part)
        if value is not None:
            found *= value
        else:
            rest.append(part)
    if isinstance(n.bare(term), n.Sum):
        return None
    return found, multiply(rest) if rest else None


def signed(items: list[Term]) -> list[Counted] | None:
    """Every term as (coefficient with its sign, rest); None where a term is no such product."""
    found: list[Counted] = []
    for sign, term in items:
        inner = term
        bare = n.bare(inner)
        if isinstance(bare, n.Signed):
            sign = "-" if (sign == "-") != (bare.sign == "-") else "+"
            inner = bare.child
        parts = coefficient(inner)
        if parts is None:
            return None
        found.append((-parts[0] if sign == "-" else parts[0], parts[1]))
    return found


def base_and_exponent(node: n.Node) -> tuple[n.Node, Q] | None:
    """The base and the whole exponent of a power, with exponent 1 for a letter or number; else None."""
    node = n.bare(node)
    if isinstance(node, n.Power):
        exponent = number_of(node.exponent)
        return None if exponent is None else (n.bare(node.base), exponent)
    if isinstance(node, n.Letter | n.Integer):
        return node, Q(1)
    return None


def square_of(letter: str) -> n.Node:
    """x², as the rest of a counted term."""
    return n.Group(n.Power(n.Letter(letter), n.Integer(2)))


def square_root(value: Q) -> n.Node | None:
    """The rational square root of a number as a tree, or None where it has none."""
    top, bottom = isqrt(value.numerator), isqrt(value.denominator)
    return build.number(Q(top, bottom)) if (top * top, bottom * bottom) == value.as_integer_ratio() else None
