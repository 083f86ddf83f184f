"""Taking written expressions apart and putting wrong ones together, as text in the plain notation."""

from __future__ import annotations

from collections.abc import Iterable
from fractions import Fraction as Q

from algebra.tree import nodes as n
from algebra.tree.plain import plain


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


def text(value: Q | int) -> str:
    value = Q(value)
    return str(value) if value.denominator == 1 else f"{value.numerator}/{value.denominator}"


def wrap(node: n.Node | str) -> str:
    """A factor: in brackets unless it stands by itself."""
    if isinstance(node, str):
        return f"({node})"
    bare = n.bare(node)
    return plain(bare) if isinstance(bare, n.Integer | n.Letter | n.Root | n.Absolute) else f"({plain(bare)})"


def over(top: n.Node | str, bottom: n.Node | str) -> str:
    return f"{wrap(top)}/{wrap(bottom)}"


def terms(node: n.Node) -> list[tuple[str, n.Node]]:
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
        return [part for factor in node.factors for part in factors(factor)]
    return [node]


def add(items: Iterable[tuple[str, n.Node | str]]) -> str:
    """A sum from signed terms, each in brackets, so that nothing is misread."""
    found = "".join(f" {sign} {wrap(item)}" for sign, item in items).strip()
    return found.removeprefix("+ ") or "0"


def multiply(items: Iterable[n.Node | str]) -> str:
    return "·".join(wrap(item) for item in items) or "1"


def coefficient(term: n.Node) -> tuple[Q, str] | None:
    """(number, rest as text) of a product of one number and other factors; the rest is "" for a number."""
    found, rest = Q(1), []
    for factor in factors(term):
        value = number_of(factor)
        if value is not None:
            found *= value
        else:
            rest.append(factor)
    if isinstance(n.bare(term), n.Sum):
        return None
    return found, "·".join(wrap(r) for r in rest)


def signed(items: list[tuple[str, n.Node]]) -> list[tuple[Q, str]] | None:
    """Every term as (coefficient with its sign, rest); None where a term is no such product."""
    found = []
    for sign, term in items:
        inner = term
        if isinstance(n.bare(inner), n.Signed):
            bare = n.bare(inner)
            assert isinstance(bare, n.Signed)
            sign = "-" if (sign == "-") != (bare.sign == "-") else "+"
            inner = bare.child
        parts = coefficient(inner)
        if parts is None:
            return None
        found.append((-parts[0] if sign == "-" else parts[0], parts[1]))
    return found


def base_and_exponent(node: n.Node) -> tuple[str, Q] | None:
    """(base, whole exponent) of a power, with exponent 1 for a letter or number."""
    node = n.bare(node)
    if isinstance(node, n.Power):
        power = number_of(node.exponent)
        return None if power is None else (wrap(node.base), power)
    if isinstance(node, n.Letter | n.Integer):
        return plain(node), Q(1)
    return None
