"""Whether an equation can be worked by hand at all, seen before any method is tried: most wrong lines of high degree
can not."""

from __future__ import annotations

from fractions import Fraction as Q
from math import gcd

from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import factored, field_of, integer_coefficients
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.survey import surveyed


def is_workable(body: n.Node) -> bool:
    """False for an equation of rational functions in one letter with a factor of degree 3 or more that is irreducible
    over the rational numbers, and no polynomial in a power of x − a for any a: no method of the paper gets on with it.
    True for all else."""
    if not isinstance(body, ln.Equation) or len(body.sides) != 2:
        return True
    occurs = surveyed(body.sides)
    if occurs.asks_for_more or occurs.signs or len(occurs.letters) != 1:
        return True
    [letter] = occurs.letters
    field = field_of((letter,))
    try:
        left, right = (value_of(side, field).ratio for side in body.sides)
        difference = (left - right).numerator
        if _is_pattern(integer_coefficients(difference, letter)):
            return True  # x^5 = 32, though x^5 - 32 has a factor of degree 4
        _, factors = factored(difference)
        return all(_is_pattern(integer_coefficients(factor, letter)) for factor, _ in factors)
    except ExactError:
        return True


def _is_pattern(coefficients: list[int]) -> bool:
    """Whether a polynomial, lowest coefficient first, has degree 2 at most or is one in a power of x − a."""
    degree = len(coefficients) - 1
    return degree < 3 or _step(coefficients) > 1 or _step(_shifted(coefficients)) > 1


def _step(coefficients: list[int] | list[Q]) -> int:
    """The greatest k for which it is a polynomial in x^k."""
    return gcd(*(power for power, number in enumerate(coefficients) if number))


def _shifted(coefficients: list[int]) -> list[Q]:
    """The polynomial about the mean of its roots, by Horner's scheme: without a term below the highest."""
    degree = len(coefficients) - 1
    at = Q(-coefficients[-2], degree * coefficients[-1])
    found = [Q(c) for c in coefficients]
    for low in range(degree):
        for k in range(degree - 1, low - 1, -1):
            found[k] += at * found[k + 1]
    return found
