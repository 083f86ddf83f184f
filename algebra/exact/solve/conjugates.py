"""Equations in one letter with square roots that hold no other roots: candidates from all conjugates, each put in.

With the roots g₁, g₂, … of f₁, f₂, … the difference of the sides is P/q, P a polynomial in the letter and the roots.
The product N of P over all choices of signs of the roots is free of them, and zero wherever P is. A zero of N is put
into the equation as it was written, so that every root and every denominator in it is seen: exact arithmetic or
enclosures decide whether they exist, and tell different sides apart. Sides that can not be told apart are equal when
every other choice of signs leaves P certainly different from zero: one factor of N must vanish, and it is the only one
left.
"""

from __future__ import annotations

from typing import Any

from flint import fmpq, fmpz_poly

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.evaluate.ball import NotSeen, NoValue, Plain, at_number, enclosed, is_apart, value_at
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Poly, filled, univariate
from algebra.exact.solution_sets import Solution, SolutionSet, number_solution
from algebra.tree import nodes as n

MAX_ROOTS = 3
MAX_DEGREE = 24
"""Highest degree of the product of the conjugates."""

Split = dict[int, fmpz_poly]
"""A polynomial in roots: for each set of roots (as bits) the polynomial in the letter that stands before their
product."""


def by_conjugates(
    home: RadicalField, sides: tuple[n.Node, n.Node], poly: Poly, below: Poly, letter: str
) -> SolutionSet | None:
    """The solutions of an equation whose sides differ by poly/below; None where this way does not decide it.

    The difference must hold on the whole domain of the sides: formed without taking the sign of anything for granted,
    and without a root whose square falls apart into several factors.
    """
    found = _split(home, poly, home.position(letter))
    if found is None:
        return None
    parts, bases = found
    product = _product_of_conjugates(parts, bases)
    if product is None or product == 0:
        return None
    pole = None if below.is_constant() else univariate(below, home.position(letter))
    members: set[Solution] = set()
    for factor, _ in product.factor()[1]:
        coefficients = [int(c) for c in factor.coeffs()]
        if coefficients[-1] < 0:
            coefficients = [-c for c in coefficients]
        for number in numbers.roots_of(tuple(coefficients)):
            solves = _solves(number, sides, letter, parts, bases, pole)
            if solves is None:
                return None
            if solves:
                members.add(number_solution(number))
    return SolutionSet(frozenset(members), False, frozenset(s.key for s in members))


def _split(home: RadicalField, poly: Poly, place: int) -> tuple[Split, list[fmpz_poly]] | None:
    """The polynomial by its roots, and what stands under each; None where other than square roots occur, or none."""
    degrees = poly.degrees()
    used = [made for made in home.made.values() if degrees[made.position]]
    if not 0 < len(used) <= MAX_ROOTS or any(made.base is None or made.degree != 2 for made in used):
        return None
    bases = [home.base_in_one(made, place) for made in used]
    by_roots: dict[int, dict[int, Any]] = {}
    for monomial, coefficient in poly.to_dict().items():
        bits = sum(1 << k for k, made in enumerate(used) if monomial[made.position])
        by_roots.setdefault(bits, {})[int(monomial[place])] = coefficient
    return {bits: filled(terms) for bits, terms in by_roots.items()}, bases


def _product_of_conjugates(parts: Split, bases: list[fmpz_poly]) -> fmpz_poly | None:
    """(A + B·g)(A - B·g) = A² - B²·f for one root after the other; None where its degree would be too high."""
    for k in range(len(bases) - 1, -1, -1):
        free = {bits: part for bits, part in parts.items() if not bits >> k & 1}
        bound = {bits & ~(1 << k): part for bits, part in parts.items() if bits >> k & 1}
        parts = _times(free, free, bases)
        for bits, part in _times(bound, bound, bases).items():
            parts[bits] = parts.get(bits, fmpz_poly()) - part * bases[k]
        if any(part.degree() > MAX_DEGREE for part in parts.values()):
            return None
    return parts.get(0)


def _times(left: Split, right: Split, bases: list[fmpz_poly]) -> Split:
    found: Split = {}
    for first, one in left.items():
        for second, other in right.items():
            product = one * other
            for k, base in enumerate(bases):
                if first & second & (1 << k):
                    product = product * base
            bits = first ^ second
            found[bits] = found[bits] + product if bits in found else product
    return found


def _solves(
    number: numbers.Number,
    sides: tuple[n.Node, n.Node],
    letter: str,
    parts: Split,
    bases: list[fmpz_poly],
    pole: fmpz_poly | None,
) -> bool | None:
    """Whether a zero of the product of the conjugates solves the equation; None where it is not decided."""
    value = number.rational
    at: Plain = number.enclosure.real if value is None else fmpq(value.numerator, value.denominator)
    try:
        left, right = value_at(sides[0], letter, at), value_at(sides[1], letter, at)
    except NoValue:
        return False
    except NotSeen:
        return None
    if isinstance(left, fmpq) and isinstance(right, fmpq):
        return bool(left == right)
    if is_apart(enclosed(left) - enclosed(right)):
        return False
    roots = [at_number(base, at) for base in bases]
    if (pole is not None and not is_apart(at_number(pole, at))) or not all(inside > 0 for inside in roots):
        return None
    roots = [enclosed(inside).sqrt() for inside in roots]
    factors = [(bits, enclosed(at_number(part, at))) for bits, part in parts.items()]
    for signs in range(1, 1 << len(roots)):
        total: Plain = 0
        for bits, factor in factors:
            for k, root in enumerate(roots):
                if bits >> k & 1:
                    factor = -factor * root if signs >> k & 1 else factor * root
            total = total + factor
        if not is_apart(total):
            return None
    return True
