"""The quick way through the commonest radical equation: a + b·√f = 0 in one letter, everything else rational.

Its solutions are the zeros r of a² - b²f with f(r) ≥ 0 and a(r)·b(r) ≤ 0. At a rational zero both are plain arithmetic; at any
other they are read from certified enclosures, and where these do not decide, the general way is taken.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from flint import fmpq, fmpz_poly

from algebra.exact import numbers
from algebra.exact.cell import Cell
from algebra.exact.ratio import Poly, Ratio, irreducible_factors
from algebra.exact.solutions import Solution, SolutionSet, Solver, number_solution


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
