"""Numbers r + c·√d, with a whole d that is no square, as roots of their quadratic polynomials."""

from __future__ import annotations

from math import gcd

from algebra.exact.algebraic_numbers import Number
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Ratio


def surd_number(value: Ratio) -> Number | None:
    """The number that a value r + c·√d without letters is; None for a value of another shape."""
    cell = value.field
    if not isinstance(cell, RadicalField) or not value.denominator.is_constant():
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
    return Number(tuple(c // shared for c in polynomial), int(size * below > 0))
