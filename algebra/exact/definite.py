"""Polynomials of several letters that have one sign wherever they are not zero, and the number π as a letter of known
value."""

from __future__ import annotations

from collections.abc import Mapping
from fractions import Fraction as Q
from typing import Any

from flint import arb, fmpq
from flint import ctx as flint_context

from algebra.exact.algebraic_numbers import roots_of
from algebra.exact.rational_functions import Poly, coefficients, factored, integer_coefficients, letters_of_ring

PI = "π"
PI_ABOUT = Q(314159265358979323846264338327950288419716939937510, 10**50)
"""A stand-in where a fraction is asked for; no sign is decided by it."""
MAX_DEPTH = 4
_PRECISIONS = (64, 256, 1024)


def used_letters(poly: Poly) -> list[str]:
    """The letters that occur in a polynomial, in the order of its ring."""
    return [name for name, power in zip(letters_of_ring(poly), poly.degrees(), strict=True) if power]


def shared_sign(poly: Poly, known: Mapping[str, int]) -> int | None:
    """The sign that all terms of a polynomial have, by the signs of single letters; None where they differ or are not
    known."""
    shared: set[int] = set()
    names = letters_of_ring(poly)
    for monomial, coefficient in poly.to_dict().items():
        sign = 1 if coefficient > 0 else -1
        for name, power in zip(names, monomial, strict=True):
            if power % 2:
                if name not in known:
                    return None
                sign *= known[name]
        shared.add(sign)
    return shared.pop() if len(shared) == 1 else None


def sign_of_pi(poly: Poly) -> int | None:
    """The sign of a polynomial in π alone, which is not zero there: π is transcendental (Lindemann 1882). None for
    others."""
    if used_letters(poly) != [PI]:
        return None
    parts = integer_coefficients(poly, PI)
    before = flint_context.prec
    try:
        for precision in _PRECISIONS:
            flint_context.prec = precision
            pi = arb.pi()
            total = sum((c * pi**k for k, c in enumerate(parts)), arb(0))
            if total > 0 or total < 0:
                return 1 if total > 0 else -1
    finally:
        flint_context.prec = before
    return None


def sign_at_point(poly: Poly, point: Mapping[str, Q]) -> int:
    """The sign of a polynomial at a point whose π, if it has one, is the number; 0 where it is zero or not seen."""
    names = letters_of_ring(poly)
    of_pi = PI in names and PI in used_letters(poly)
    if not of_pi and all(point[name].denominator == 1 for name in names if name in point):
        whole = int(poly(*(point[name].numerator if name in point else 0 for name in names)))
        return (whole > 0) - (whole < 0)
    total: Any = arb(0) if of_pi else Q(0)
    for monomial, coefficient in poly.to_dict().items():
        term: Any = arb(int(coefficient)) if of_pi else Q(int(coefficient))
        for name, power in zip(names, monomial, strict=True):
            if power:
                number: Any = arb.pi() if name == PI else point[name]
                if of_pi and name != PI:
                    number = arb(fmpq(number.numerator, number.denominator))
                term *= number ** int(power)
        total += term
    return int(bool(total > 0)) - int(bool(total < 0))


def definite_sign(poly: Poly, known: Mapping[str, int] | None = None, depth: int = MAX_DEPTH) -> int | None:
    """The sign that a polynomial has for all real values of its letters at which it is not zero; None where it has
    both, or where that is not seen. `known` gives the signs of single letters.

    A term is seen by its even powers, a polynomial in one letter by its real zeros, one that is quadratic in a letter
    by its discriminant.
    """
    signs = {PI: 1} | dict(known or {})
    content, factors = factored(poly)
    total = 1 if content > 0 else -1
    for factor, power in factors:
        if power % 2:
            sign = _of_irreducible(factor, signs, depth)
            if sign is None:
                return None
            total *= sign
    return total


def _of_irreducible(poly: Poly, known: Mapping[str, int], depth: int) -> int | None:
    sign = shared_sign(poly, known)
    if sign is not None:
        return sign
    letters = used_letters(poly)
    if letters == [PI]:
        return sign_of_pi(poly)
    if len(letters) == 1:
        parts = tuple(integer_coefficients(poly, letters[0]))
        return None if roots_of(parts) else 1 if parts[0] > 0 else -1
    for letter in letters:
        if depth and poly.degrees()[letters_of_ring(poly).index(letter)] == 2:
            c, b, a = coefficients(poly, letter)
            if definite_sign(b * b - 4 * a * c, known, depth - 1) == -1:
                return definite_sign(a, known, depth - 1)
    return None
