"""Quick ways through the commonest equations with bars or surds; where one does not apply, the general way is taken.

- |A| = B: the zeros of (A - B)(A + B) at which B is not negative.
- x = r + c·√d, with whole d > 0 and no square: the zero of x² - 2rx + r² - c²d that lies on the side of c.
"""

from __future__ import annotations

from math import gcd
from typing import Any

from flint import fmpq

from algebra.exact import numbers
from algebra.exact.cell import Cell
from algebra.exact.conjugates import at_number
from algebra.exact.errors import ExactError
from algebra.exact.plainly import is_apart
from algebra.exact.ratio import Ratio, by_powers, coefficients, field_of, irreducible_factors, univariate
from algebra.exact.solutions import Solution, SolutionSet, Solver, number_solution
from algebra.exact.values import value_of
from algebra.tree import nodes as n


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
    bound = univariate(other.numerator, 0)
    sign = 1 if other.denominator.leading_coefficient() > 0 else -1
    members: set[Solution] = set()
    for factor in irreducible_factors([product.numerator]).values():
        for number in numbers.roots_of(tuple(int(c) for c in univariate(factor, 0).coeffs())):
            value = number.rational
            at: Any = number.enclosure.real if value is None else fmpq(value.numerator, value.denominator)
            size = at_number(bound, at) * sign
            if value is None and not is_apart(size):
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
    parts = by_powers(poly, place)
    value = -home.ratio(parts.get(0, home.zero)) / home.ratio(parts[1])
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
