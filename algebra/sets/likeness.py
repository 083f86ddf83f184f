"""What makes two problems the same item: one form for all that differ in letters, order, sides, brackets or a common
factor only."""

from __future__ import annotations

from itertools import permutations
from math import gcd

from algebra.parse.lines import read_line
from algebra.reports.working import OTHER_SPELLINGS, Working
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain

MOST_LETTERS = 4
"""With more letters than these they are renamed in the order of the alphabet, not in the best of all orders."""
_STAY = frozenset({"i", "π", "□"})


def likeness(working: Working) -> str:
    """The same for two problems if they are the same item; other problems have another one. Raises ReadingError.

    The letter solved for stays apart from the others.
    """
    body = read_line(working.given, decimal=working.convention("decimal")).body
    task = OTHER_SPELLINGS.get(working.task, working.task)
    if body is None:
        return f"{task}: {working.given}"
    if isinstance(body, ln.Equation):
        body = _without_common_factor(body)
    names = sorted(n.letters(body) - _STAY)
    unknown = working.variable if working.variable in names else None
    others = [name for name in names if name != unknown]
    orders = permutations(others) if len(others) <= MOST_LETTERS else [tuple(others)]
    forms = (_form(body, _renamed(unknown, order)) for order in orders)
    return f"{task} {working.numbers} {working.method or ''}: {min(forms)}"


def _renamed(unknown: str | None, order: tuple[str, ...]) -> dict[str, str]:
    names = {name: f"p{place}" for place, name in enumerate(order)}
    return names | ({unknown: "u"} if unknown else {})


def _form(node: n.Node, names: dict[str, str]) -> str:
    """The tree as text, its terms, factors and sides in an order of their own, brackets that only group left out."""
    node = n.bare(node)
    match node:
        case n.Letter(name) | n.Unit(name):
            return names.get(name, name)
        case n.Signed(sign, child):
            return f"({sign}{_form(child, names)})"
        case n.Sum(terms, signs):
            told = _terms(terms, signs, names)
            return f"({' '.join(sorted(told))})"
        case n.Product(factors, operators):
            above = [_form(factors[0], names)]
            below: list[str] = []
            for operator, factor in zip(operators, factors[1:], strict=True):
                (below if operator == "÷" else above).append(_form(factor, names))
            return "*".join(sorted(above)) + "".join(f"÷{text}" for text in below)
        case ln.Equation(sides):
            return " = ".join(sorted(_form(side, names) for side in sides))
        case n.Absolute(n.Signed("-", child)):
            return f"|{_form(child, names)}|"
    if not node.children:
        return plain(node, tight=True)
    inner = ", ".join(_form(child, names) for child in node.children)
    return f"{type(node).__name__}[{inner}]"


def _terms(terms: tuple[n.Node, ...], signs: tuple[str, ...], names: dict[str, str]) -> list[str]:
    told = []
    for sign, term in zip(("+", *signs), terms, strict=True):
        inner = n.bare(term)
        if isinstance(inner, n.Signed) and inner.sign in "+-" and sign in "+-":
            sign, inner = "+" if sign == inner.sign else "-", inner.child
        told.append(sign + _form(inner, names))
    return told


def _without_common_factor(equation: ln.Equation) -> ln.Equation:
    """2x² − 10x + 12 = 0 and −x² + 5x = 6 with the greatest whole number divided out of sides that are sums of plain
    terms, and with a positive first coefficient."""
    rows = [_plain_terms(side) for side in equation.sides]
    if any(row is None for row in rows):
        return equation
    told = [row for row in rows if row is not None]
    numbers = [c for row in told for c, _ in row if c]
    shared = gcd(*numbers) if numbers else 1
    lead = max(((part, c) for row in told for c, part in row if c and part), default=("", 1))[1]
    shared = -shared if lead < 0 else shared
    if shared in (0, 1):
        return equation
    return ln.Equation(tuple(_side([(c // shared, part) for c, part in row], equation) for row in told))


def _plain_terms(side: n.Node) -> list[tuple[int, str]] | None:
    """The terms as whole numbers times what stands beside them; None for a side with other terms."""
    side = n.bare(side)
    terms, signs = (side.terms, ("+", *side.signs)) if isinstance(side, n.Sum) else ((side,), ("+",))
    found = []
    for sign, term in zip(signs, terms, strict=True):
        whole = n.bare(term)
        factor = -1 if sign == "-" else 1
        if sign not in "+-":
            return None
        if isinstance(whole, n.Signed) and whole.sign in "+-":
            factor, whole = factor * (-1 if whole.sign == "-" else 1), n.bare(whole.child)
        if isinstance(whole, n.Integer):
            found.append((factor * whole.value, ""))
        elif isinstance(whole, n.Letter | n.Power):
            found.append((factor, plain(whole, tight=True)))
        elif isinstance(whole, n.Product) and isinstance(whole.factors[0], n.Integer) and "÷" not in whole.operators:
            rest = n.Product(whole.factors[1:], whole.operators[1:]) if len(whole.factors) > 2 else whole.factors[1]
            found.append((factor * whole.factors[0].value, plain(rest, tight=True)))
        else:
            return None
    return found


def _side(terms: list[tuple[int, str]], equation: ln.Equation) -> n.Node:
    text = " + ".join(f"({c})" if not part else f"({c}){part}" if c != 1 else part for c, part in terms)
    body = read_line(text).body
    assert body is not None
    return _positive(body)


def _positive(node: n.Node) -> n.Node:
    """(−3)x as −3x, and +(−3)x as −3x: signs in brackets are those of their terms."""
    if isinstance(node, n.Sum):
        return n.Sum(tuple(map(_positive, node.terms)), node.signs)
    if isinstance(node, n.Product) and isinstance(n.bare(node.factors[0]), n.Signed):
        first = n.bare(node.factors[0])
        assert isinstance(first, n.Signed)
        return n.Signed(first.sign, n.Product((first.child, *node.factors[1:]), node.operators))
    if isinstance(node, n.Product):
        return n.Product((n.bare(node.factors[0]), *node.factors[1:]), node.operators)
    return n.bare(node)
