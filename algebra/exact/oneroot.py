"""Quick ways through the commonest equations with a root or bars; where one does not apply, the general way is taken.

- a + b·√f = 0 in one letter, everything else rational: the zeros r of a² - b²f with f(r) ≥ 0 and a(r)·b(r) ≤ 0. At a rational
  zero both are plain arithmetic; at any other they are read from certified enclosures.
- |A| = B: the zeros of (A - B)(A + B) at which B is not negative.
- x = r + c·√d, with whole d > 0 and no square: the zero of x² - 2rx + r² - c²d that lies on the side of c.
"""

from __future__ import annotations

from collections.abc import Iterable
from math import gcd
from typing import Any

from flint import fmpq, fmpz_poly

from algebra.exact import numbers
from algebra.exact.cell import Cell
from algebra.exact.errors import ExactError
from algebra.exact.ratio import Poly, Ratio, coefficients, field_of, irreducible_factors
from algebra.exact.solutions import Solution, SolutionSet, Solver, number_solution
from algebra.exact.values import value_of
from algebra.tree import nodes as n


def one_root(solver: Solver, home: Cell, difference: Ratio, nonzero: Iterable[Poly]) -> SolutionSet | None:
    """The solutions of difference = 0, or None where this way does not apply.

    The difference must have been formed without assuming the sign of anything.
    """
    poly = difference.numerator
    if poly == 0:
        return None
    position = home.position(solver.unknown)
    degrees = poly.degrees()
    used = [made for made in home.made.values() if degrees[made.position]]
    if len(used) != 1 or used[0].degree != 2:
        return None
    top = used[0]
    parts = home.powers_of(poly, top)
    if len(parts) != 2 or top.base is None or top.base.is_constant() or home.depends_on_added(top.base):
        return None
    a, b = parts
    assert top.relation is not None
    inside = top.symbol**2 - top.relation
    squared = a * a - b * b * inside
    values = [_univariate(p, position) for p in (a, b, inside)]
    # the denominator was freed of its root, which may have brought zeros into both top and bottom
    poles = [_univariate(difference.denominator, position)]
    poles += [_univariate(p, position - len(home.added)) for p in nonzero]
    members: set[Solution] = set()
    for factor in irreducible_factors([squared]).values():
        coefficients = [int(c) for c in _univariate(factor, position).coeffs()]
        for number in numbers.roots_of(tuple(coefficients)):
            solves = _solves(number, values, poles)
            if solves is None:
                return None
            if solves:
                members.add(number_solution(number))
    return SolutionSet(frozenset(members), False, frozenset(s.key for s in members))


def one_bar(solver: Solver, left: n.Node, right: n.Node) -> SolutionSet | None:
    """The solutions of an equation that is linear in one absolute value, everything else polynomial; else None."""
    bars = {part for side in (left, right) for part in n.parts_of(side) if isinstance(part, n.Absolute)}
    if len(bars) != 1:
        return None
    (bar,) = bars
    over = field_of((solver.unknown, _BAR))
    try:
        first, second = (value_of(_without(side, bar), over) for side in (left, right))
        inside = value_of(bar.child, over)
    except ExactError:
        return None
    difference = first.ratio - second.ratio
    if first.nonzero or second.nonzero or inside.nonzero or not difference.is_polynomial:
        return None
    parts = coefficients(difference.numerator, _BAR)
    if len(parts) != 2 or not parts[1].is_constant():
        return None
    other = over.ratio(-parts[0], parts[1])
    product = (inside.ratio - other) * (inside.ratio + other)
    if product.is_zero or not product.is_polynomial:
        return None
    bound = _univariate(other.numerator, 0)
    sign = 1 if other.denominator.leading_coefficient() > 0 else -1
    members: set[Solution] = set()
    for factor in irreducible_factors([product.numerator]).values():
        for number in numbers.roots_of(tuple(int(c) for c in _univariate(factor, 0).coeffs())):
            value = number.rational
            at: Any = number.enclosure.real if value is None else fmpq(value.numerator, value.denominator)
            size = _at(bound, at) * sign
            if value is None and not _apart(size):
                return None
            if size >= 0:
                members.add(number_solution(number))
    return SolutionSet(frozenset(members), False, frozenset(s.key for s in members))


def one_surd(solver: Solver, home: Cell, difference: Ratio) -> SolutionSet | None:
    """The solution of a linear equation whose numbers hold roots, the unknown under none, nothing divided by; else None."""
    poly, place = difference.numerator, home.position(solver.unknown)
    if poly == 0 or not difference.is_polynomial or poly.degrees()[place] != 1:
        return None
    degrees = poly.degrees()
    if any(
        degrees[made.position] and (made.base is None or not made.base.is_constant()) for made in home.made.values()
    ):
        return None
    low: dict[tuple[int, ...], Any] = {}
    high: dict[tuple[int, ...], Any] = {}
    for monomial, c in poly.to_dict().items():
        rest = (*monomial[:place], 0, *monomial[place + 1 :])
        (high if monomial[place] else low)[rest] = c
    value = -home.ratio(home.ring.from_dict(low), home.one) / home.ratio(home.ring.from_dict(high), home.one)
    number = numbers.rational(value.constant) if value.constant is not None else surd_number(value)
    return None if number is None else SolutionSet(frozenset({number_solution(number)}))


_BAR = "|"


def _without(tree: n.Node, bar: n.Absolute) -> n.Node:
    """The tree with a letter in place of the absolute value."""
    if tree == bar:
        return n.Letter(_BAR)
    return tree.with_children(tuple(_without(child, bar) for child in tree.children)) if tree.children else tree


def surd_number(value: Ratio) -> numbers.Number | None:
    """The number that a value r + c·√d without letters is; None for a value of another shape."""
    cell = value.field
    if not isinstance(cell, Cell) or not value.denominator.is_constant():
        return None
    rest, size, radicand = 0, 0, 1
    by_position = {made.position: made for made in cell.made.values()}
    for monomial, coefficient in value.numerator.to_dict().items():
        used = [(by_position.get(k), int(power)) for k, power in enumerate(monomial) if power]
        if not used:
            rest = int(coefficient)
            continue
        if size or any(
            g is None or g.base is None or not g.base.is_constant() or 2 * power != g.degree for g, power in used
        ):
            return None
        size = int(coefficient)
        for made, _ in used:
            assert made is not None
            assert made.base is not None
            radicand *= int(made.base.leading_coefficient())
    below = int(value.denominator.leading_coefficient())
    if not size or radicand < 2:
        return None
    polynomial = (rest * rest - size * size * radicand, -2 * rest * below, below * below)
    shared = gcd(*polynomial)
    return numbers.Number(tuple(c // shared for c in polynomial), int(size * below > 0))


def _univariate(poly: Poly, position: int) -> fmpz_poly:
    found = {int(monomial[position]): c for monomial, c in poly.to_dict().items()}
    return fmpz_poly([found.get(k, 0) for k in range(max(found, default=0) + 1)])


def _solves(number: numbers.Number, values: list[fmpz_poly], poles: list[fmpz_poly]) -> bool | None:
    """Whether a zero of a² - b²f solves a + b√f = 0; None where it is not decided here."""
    value = number.rational
    at: Any = number.enclosure.real if value is None else fmpq(value.numerator, value.denominator)
    a, b, inside = (_at(poly, at) for poly in values)
    if any(not _apart(_at(pole, at)) for pole in poles):
        return None
    if value is None and not (_apart(a) and _apart(b) and _apart(inside)):
        return None
    return bool(inside >= 0) and bool(a * b <= 0)


def _at(poly: fmpz_poly, value: Any) -> Any:
    total: Any = 0 * value
    for coefficient in reversed(poly.coeffs()):
        total = total * value + coefficient
    return total


def _apart(value: Any) -> bool:
    """Whether a value is certainly not zero."""
    return bool(value > 0) or bool(value < 0)
