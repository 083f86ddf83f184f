"""What the ways of solving share: the zeros of polynomials as candidates, and the test that puts a candidate in."""

from __future__ import annotations

from collections.abc import Iterable

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.algebraic_numbers import Number
from algebra.exact.errors import OutOfScope
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Poly, Ratio, by_powers, depends_on, integer_coefficients, refuse_high
from algebra.tree import nodes as n


def numbers_of(polys: Iterable[Poly], unknown: str, *, complex_too: bool) -> list[Number]:
    """The zeros of polynomials in the unknown; those that do not hold it are passed over."""
    values: list[Number] = []
    for poly in polys:
        if depends_on(poly, unknown):
            coefficients = tuple(integer_coefficients(poly, unknown))
            values.extend(numbers.roots_of(coefficients, complex_too=complex_too))
    return values


def solves(plan: Plan, unknown: str, left: n.Node, right: n.Node, value: Number) -> bool:
    """Whether a number, put into both sides, makes them equal. Raises OutOfScope where that is not decided."""
    exactly = PointEvaluator(plan, {unknown: value})
    first, second = exactly.value(left), exactly.value(right)
    if first is None or second is None:
        return False
    same = exactly.same(first, second)
    if same is None:
        raise OutOfScope(f"Whether {value.in_words} solves this is not decided.", "√")
    return same


def is_under_root(part: n.Node, unknown: str) -> bool:
    """Whether a node is a root or bars that hold the unknown."""
    return isinstance(part, n.Root | n.Absolute) and unknown in n.letters(part)


def coefficients_of(cell: RadicalField, poly: Poly, letter: str) -> list[Ratio]:
    """The coefficients in powers of a letter, lowest first."""
    parts = by_powers(poly, cell.position(letter))
    highest = max(parts, default=0)
    refuse_high(highest)
    return [cell.ratio(parts.get(k, cell.zero)) for k in range(highest + 1)]
